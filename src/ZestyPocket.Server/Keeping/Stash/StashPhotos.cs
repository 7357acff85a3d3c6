using ZestyPocket.Core;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>Something that was found on a photo.</summary>
/// <param name="Preview">A small JPEG of it as a data address.</param>
/// <param name="Size">What it probably measures, as written; empty when nobody can tell.</param>
/// <param name="Entry">As it would be added; its name is still to be written.</param>
public sealed record FoundItem(string Preview, string Size, StashEntry Entry);

/// <summary>What was found on a photo of the stash.</summary>
/// <param name="Upload">Names the photo when its items are added.</param>
/// <param name="Photo">The whole photo, small, as a data address.</param>
public sealed record FoundOnPhoto(Guid Upload, string Photo, string Words, IReadOnlyList<FoundItem> Items);

/// <summary>Takes photos of cards and papers in, and cuts what lies on them apart.</summary>
public sealed class StashPhotos(IPhotoVault vault, PictureCache pictures, PaintingBench bench, ReaderPool readers)
{
    /// <summary>In bytes.</summary>
    public const int Largest = 60 << 20;

    private const int PreviewSide = 640;

    /// <summary>Looks at a photo. Nothing is kept for longer than a day unless something of it is added.</summary>
    public async Task<FoundOnPhoto> FindAsync(string name, Stream content, CancellationToken cancel)
    {
        using var arrived = await vault.ReceiveAsync(content, Largest, cancel);
        if (arrived.Original.Bytes > Largest)
        {
            throw new RuleException($"{name} is larger than {Largest >> 20} MB. Nothing was taken: save it smaller.");
        }

        var sha = arrived.Original.Sha256;
        FoundOnPhoto found;
        try
        {
            found = await bench.RunAsync(() => Look(arrived.Path, sha, name, cancel), cancel);
        }
        catch (PictureRefusedException refused)
        {
            throw new RuleException($"{name}: {refused.Message}");
        }

        var upload = Guid.CreateVersion7();
        arrived.Park(upload);
        return found with { Upload = upload };
    }

    /// <summary>The picture of an item, squared up.</summary>
    public Task<byte[]> PictureAsync(StashItem item, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(item);
        var picture = item.Picture ?? throw new MissingException("That picture");
        var size = item.Size ?? Size.FromInches(3, 4);
        var face = new SquaredFace(
            size,
            new PictureRef(picture.Sha256),
            picture.Corners,
            size,
            new Rect(Length.Zero, Length.Zero, size)
        );
        return bench.RunAsync(
            () => pictures.Squared(face, Math.Min(150, PreviewSide / Math.Max(1, LongestInches(size)))),
            cancel
        );
    }

    private static double LongestInches(Size size) => (double)Length.Max(size.Width, size.Height).Inches;

    private FoundOnPhoto Look(string path, ContentHash sha, string name, CancellationToken cancel)
    {
        var format = PictureIntake.Accept(path, name);
        var (readable, _) = pictures.Readable(path, new PictureRef(sha), format, WorkingCopies.LongestTime, cancel);
        var small = readers.Do(new MakeThumbnail(readable, Squaring.SmallSide, []), cancel: cancel);
        var cut = Squaring.FindAll(small);
        var whole = cut.Count == 0;
        if (whole)
        {
            cut = [Squaring.CutOut(small, CardCorners.Whole)];
        }

        var sizes = CardSizes.Of([.. cut.Select(c => (c.Width, c.Height))]);
        return new FoundOnPhoto(
            Guid.Empty,
            DataOf(readers.Do(new MakeThumbnail(readable, PreviewSide, []), cancel: cancel)),
            whole
                ? "Nothing stands out from what it lies on: the whole photo is one item."
                : $"Found {NumberWords.Counted(cut.Count, "item")}: name them, and look at their sizes.",
            [
                .. cut.Zip(
                    sizes,
                    (c, size) =>
                        new FoundItem(
                            DataOf(c.Jpeg),
                            size is { } s ? MeasureText.Exact(s, MeasureSystem.Inches) : "",
                            new StashEntry(StashKind.Card, "", Size: size is { } t ? MeasureText.ShortName(t) : "")
                            {
                                Measured = c.Colours,
                                Picture = new StashPicture(sha, c.Corners),
                            }
                        )
                ),
            ]
        );
    }

    private static string DataOf(byte[] jpeg) => $"data:image/jpeg;base64,{Convert.ToBase64String(jpeg)}";
}
