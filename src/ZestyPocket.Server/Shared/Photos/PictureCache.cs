using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Thumbnails, print crops and working copies, kept as files by what they are made from. Everything in here can be
/// thrown away: it is made again from the originals.
/// </summary>
public sealed class PictureCache(ZestySettings settings, IPhotoVault vault) : IPrintCrops
{
    /// <summary>Picture work is heavy: no more at a time than there are cores.</summary>
    private static readonly SemaphoreSlim Bench = new(Environment.ProcessorCount);

    /// <summary>The sides in which a whole picture is served, in pixels.</summary>
    public static IReadOnlyList<int> Sides { get; } = [PictureIntake.ThumbnailSide, 1600];

    /// <summary>
    /// The upright picture no larger than the smallest served side that is at least <paramref name="side"/>, with what
    /// is covered painted over.
    /// </summary>
    public string Picture(PictureRef picture, int side)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var served = Sides.FirstOrDefault(s => s >= side, Sides[^1]);
        return File(
            PicturePath(picture, served),
            () => PictureIntake.Thumbnail(Readable(picture), served, picture.Covers)
        );
    }

    /// <summary>Keeps the thumbnail that was made while the file was checked.</summary>
    public void KeepThumbnail(PictureRef picture, byte[] jpeg)
    {
        ArgumentNullException.ThrowIfNull(picture);
        Write(PicturePath(picture, PictureIntake.ThumbnailSide), jpeg);
    }

    public byte[] Jpeg(PhotoFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(face);
        var target = PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch);
        var (crop, culture, original) = (face.Crop, CultureInfo.InvariantCulture, face.Original);
        var name = string.Create(
            culture,
            $"{crop.Left:0.0}_{crop.Top:0.0}_{crop.Width:0.0}_{crop.Height:0.0}"
                + $"_{target.Width}x{target.Height}{Suffix(original)}.jpg"
        );
        var path = Path.Combine(settings.Cache, "crops", original.Sha256[..2], original.Sha256, name);
        return System.IO.File.ReadAllBytes(
            File(path, () => PrintCrop.Jpeg(Readable(original), face.Pixels, crop, target, original.Covers))
        );
    }

    /// <summary>
    /// A picture that the painters made, by the hash of what is on it. It takes no place at the bench itself: the crops
    /// it asks for do, and two pictures that held places while they wait for more would wait for ever.
    /// </summary>
    public string Painted(string recipe, Func<byte[]> paint)
    {
        ArgumentNullException.ThrowIfNull(recipe);
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(recipe)));
        var path = Path.Combine(settings.Cache, "painted", hash[..2], hash + ".png");
        if (!System.IO.File.Exists(path))
        {
            Write(path, paint());
        }

        return path;
    }

    /// <summary>
    /// Painted pictures that nobody asked for since a moment are thrown away; they can be painted again.
    /// </summary>
    public void SweepPainted(DateTime unusedSinceUtc)
    {
        var folder = new DirectoryInfo(Path.Combine(settings.Cache, "painted"));
        if (!folder.Exists)
        {
            return;
        }

        foreach (
            var file in folder
                .EnumerateFiles("*", SearchOption.AllDirectories)
                .Where(f => f.LastAccessTimeUtc < unusedSinceUtc)
        )
        {
            file.Delete();
        }
    }

    /// <summary>
    /// A file the picture library can decode: the original, or the working copy of a HEIC or a page of a PDF.
    /// </summary>
    public string Readable(PictureRef picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var copy = WorkingPath(picture);
        if (System.IO.File.Exists(copy))
        {
            return copy;
        }

        var original = vault.PathOf(picture.Sha256);
        var format = PictureFormats.Of(original);
        return format.NeedsWorkingCopy()
            ? MakeWorkingCopy(original, picture, format, WorkingCopies.LongestTime).Path
            : original;
    }

    /// <summary>The same for a file that is not in the vault yet, with the pages of a PDF.</summary>
    public (string Path, int Pages) Readable(
        string original,
        PictureRef picture,
        PictureFormat format,
        TimeSpan patience
    ) => format.NeedsWorkingCopy() ? MakeWorkingCopy(original, picture, format, patience) : (original, 1);

    /// <summary>Changes when the shown picture does, so that a browser may keep it for ever.</summary>
    public static string Version(PictureRef picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        return picture.Sha256[..8] + Suffix(picture);
    }

    private (string Path, int Pages) MakeWorkingCopy(
        string original,
        PictureRef picture,
        PictureFormat format,
        TimeSpan patience
    )
    {
        var path = WorkingPath(picture);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        try
        {
            var pages = WorkingCopies.Make(original, format, picture.Page, temporary, patience);
            System.IO.File.Move(temporary, path, overwrite: true);
            return (path, pages);
        }
        finally
        {
            System.IO.File.Delete(temporary);
        }
    }

    private string WorkingPath(PictureRef picture) =>
        Path.Combine(
            settings.Cache,
            "working",
            picture.Sha256[..2],
            string.Create(CultureInfo.InvariantCulture, $"{picture.Sha256}.{picture.Page}.jpg")
        );

    private string PicturePath(PictureRef picture, int side) =>
        Path.Combine(
            settings.Cache,
            "pictures",
            side.ToString(CultureInfo.InvariantCulture),
            picture.Sha256[..2],
            picture.Sha256 + Suffix(picture) + ".jpg"
        );

    /// <summary>Tells pictures of one original apart: by page and by what is covered.</summary>
    private static string Suffix(PictureRef picture)
    {
        var page = picture.Page > 1 ? string.Create(CultureInfo.InvariantCulture, $"_p{picture.Page}") : string.Empty;
        if (picture.Covers.IsEmpty)
        {
            return page;
        }

        var boxes = string.Join(
            ';',
            picture.Covers.Select(c =>
                string.Create(CultureInfo.InvariantCulture, $"{c.X:R},{c.Y:R},{c.Width:R},{c.Height:R}")
            )
        );
        return $"{page}_c{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(boxes)))[..16]}";
    }

    private static string File(string path, Func<byte[]> make)
    {
        if (System.IO.File.Exists(path))
        {
            return path;
        }

        Bench.Wait();
        try
        {
            if (!System.IO.File.Exists(path))
            {
                Write(path, make());
            }
        }
        finally
        {
            Bench.Release();
        }

        return path;
    }

    private static void Write(string path, byte[] bytes)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        System.IO.File.WriteAllBytes(temporary, bytes);
        System.IO.File.Move(temporary, path, overwrite: true);
    }
}
