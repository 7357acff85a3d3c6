using System.Text.Json;
using System.Text.Json.Serialization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Printing;

namespace ZestyPocket.Drawing.Photos.Reading;

/// <summary>
/// Something that decodes the bytes of a file from outside. It is done by a process that may fail, see
/// <see cref="ReaderPool"/>, and travels there and back as JSON. Paths are absolute.
/// </summary>
[JsonDerivedType(typeof(LookAtPicture), "look")]
[JsonDerivedType(typeof(MakeWorkingCopy), "workingCopy")]
[JsonDerivedType(typeof(MeasurePicture), "measure")]
[JsonDerivedType(typeof(MakeThumbnail), "thumbnail")]
[JsonDerivedType(typeof(MakePrintCrop), "printCrop")]
[JsonDerivedType(typeof(MeasureRows), "rows")]
[JsonDerivedType(typeof(ReadScan), "scan")]
public abstract record PictureTask
{
    internal abstract JsonElement Do();
}

/// <summary>A task with its kind of result.</summary>
/// <typeparam name="T">What comes back; a plain value.</typeparam>
public abstract record PictureTask<T> : PictureTask
{
    internal override JsonElement Do() => JsonSerializer.SerializeToElement(Result(), PictureReading.Json);

    /// <summary>Throws <see cref="PictureRefusedException"/> with the reason for a file that is not right.</summary>
    protected internal abstract T Result();
}

/// <summary>All that is found out of a file before it becomes a picture.</summary>
/// <param name="Thumbnail">An upright JPEG.</param>
public sealed record LookedAt(PictureFacts Facts, byte[] Thumbnail, PictureJudgement Judgement);

/// <summary>See <see cref="PictureIntake.Inspect(string, PictureFormat, string, int)"/> and Judge.</summary>
public sealed record LookAtPicture(string Original, PictureFormat Format, string Readable, int Pages)
    : PictureTask<LookedAt>
{
    /// <inheritdoc/>
    protected internal override LookedAt Result()
    {
        var facts = PictureIntake.Inspect(Original, Format, Readable, Pages);
        var (thumbnail, judgement) = PictureIntake.Judge(Readable);
        return new LookedAt(facts, thumbnail, judgement);
    }
}

/// <summary>See <see cref="WorkingCopies.Make"/>; gives the number of pages.</summary>
public sealed record MakeWorkingCopy(string Original, PictureFormat Format, int Page, string Target, TimeSpan Patience)
    : PictureTask<int>
{
    /// <inheritdoc/>
    protected internal override int Result() => WorkingCopies.Make(Original, Format, Page, Target, Patience);
}

/// <summary>Size and facts of a file that needs no working copy.</summary>
public sealed record MeasurePicture(string Readable) : PictureTask<PictureFacts>
{
    /// <inheritdoc/>
    protected internal override PictureFacts Result() => PictureIntake.Inspect(Readable);
}

/// <summary>See <see cref="PictureIntake.Thumbnail"/>.</summary>
public sealed record MakeThumbnail(string Readable, int Side, IReadOnlyList<PictureBox> Covers) : PictureTask<byte[]>
{
    /// <inheritdoc/>
    protected internal override byte[] Result() => PictureIntake.Thumbnail(Readable, Side, Covers);
}

/// <summary>See <see cref="PrintCrop.Jpeg"/>.</summary>
public sealed record MakePrintCrop(
    string Readable,
    PixelSize Upright,
    Crop Crop,
    PixelSize Target,
    IReadOnlyList<PictureBox> Covers,
    FaceTones? Tones
) : PictureTask<byte[]>
{
    /// <inheritdoc/>
    protected internal override byte[] Result() => PrintCrop.Jpeg(Readable, Upright, Crop, Target, Covers, Tones);
}

/// <summary>See <see cref="RowBusyness.Of"/>.</summary>
public sealed record MeasureRows(string Readable) : PictureTask<IReadOnlyList<double>>
{
    /// <inheritdoc/>
    protected internal override IReadOnlyList<double> Result() => RowBusyness.Of(Readable);
}

/// <summary>How far a printer is off, from a scan of its test sheet: see <see cref="ScanReader.Read"/>.</summary>
public sealed record ReadScan(string Scan, Size Paper) : PictureTask<PrinterFault>
{
    /// <inheritdoc/>
    protected internal override PrinterFault Result() => ScanReader.Read(File.ReadAllBytes(Scan), Paper);
}
