using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Photos.Reading;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>How much the cache holds.</summary>
public readonly record struct CacheSize(int Files, long Bytes);

/// <summary>
/// Everything that is painted or decoded: thumbnails, print crops, working copies, pieces, spreads. Each is a file
/// named by the hash of its recipe, so it can never change; all can be thrown away and made again from the originals.
/// The least lately used go when there is more than <see cref="ZestySettings.CacheMegabytes"/>.
/// </summary>
public sealed class PictureCache(ZestySettings settings, IPhotoVault vault, PaintingBench bench, ReaderPool readers)
    : IPrintCrops
{
    /// <summary>What was used just now may be on its way to somebody.</summary>
    private static readonly TimeSpan InUse = TimeSpan.FromMinutes(10);

    /// <summary>Noting every use would write more than it saves.</summary>
    private static readonly TimeSpan UseIsNotedAfter = TimeSpan.FromMinutes(5);

    /// <summary>The sides in which a whole picture is served, in pixels.</summary>
    public static IReadOnlyList<int> Sides { get; } = [PictureIntake.ThumbnailSide, 1600];

    /// <summary>
    /// The file of an portrait photo no larger than the smallest served side that is at least
    /// <paramref name="side"/>, with what is covered painted over.
    /// </summary>
    public Task<string> PictureAsync(PictureRef picture, int side, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var served = Sides.FirstOrDefault(s => s >= side, Sides[^1]);
        return FileAsync(PicturePath(picture, served), () => Small(picture, served), cancel);
    }

    /// <summary>Keeps the thumbnail that was made while the file was checked.</summary>
    public void KeepThumbnail(PictureRef picture, byte[] jpeg)
    {
        ArgumentNullException.ThrowIfNull(picture);
        Write(PicturePath(picture, PictureIntake.ThumbnailSide), jpeg);
    }

    /// <summary>A print's crop, made where it is asked for: painters ask for it while they paint.</summary>
    public byte[] Jpeg(PhotoFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(face);
        var target = PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch);
        var (crop, original) = (face.Crop, face.Original);
        var recipe = string.Create(
            CultureInfo.InvariantCulture,
            $"crop {original.Sha256}{Suffix(original)} "
                + $"{crop.Left:0.0}_{crop.Top:0.0}_{crop.Width:0.0}_{crop.Height:0.0} "
                + $"{target.Width}x{target.Height}"
        );
        if (crop.Degrees != 0 || face.Tones is not null)
        {
            recipe += string.Create(
                CultureInfo.InvariantCulture,
                $" turned {crop.Degrees:R} tones {face.Tones?.BlackAndWhite} {face.Tones?.Gamma:R}"
            );
        }

        var path = PathOf(recipe, "jpg");
        if (!IsThere(path))
        {
            Write(
                path,
                readers.Do(
                    new MakePrintCrop(Readable(original), face.Pixels, crop, target, original.Covers, face.Tones)
                )
            );
        }

        return File.ReadAllBytes(path);
    }

    /// <summary>The kept part of a bought card, squared up.</summary>
    public byte[] Squared(SquaredFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(face);
        var path = PathOf(
            string.Create(CultureInfo.InvariantCulture, $"squared {PieceRecipe.HashOf(face)} {pixelsPerInch:0}"),
            "jpg"
        );
        if (!IsThere(path))
        {
            Write(path, Squaring.Jpeg(Small(face.Original, Squaring.LongestSide), face, pixelsPerInch));
        }

        return File.ReadAllBytes(path);
    }

    /// <summary>The whole picture as an upright JPEG with its covers, made where it is asked for.</summary>
    public byte[] Small(PictureRef picture, int side)
    {
        ArgumentNullException.ThrowIfNull(picture);
        return readers.Do(new MakeThumbnail(Readable(picture), side, picture.Covers));
    }

    /// <summary>The file of a picture that the painters make, by its recipe: everything that is on it.</summary>
    public Task<string> PaintedAsync(string recipe, Func<byte[]> paint, CancellationToken cancel) =>
        FileAsync(PathOf("painted " + recipe, "png"), paint, cancel);

    /// <summary>How much there is now.</summary>
    public CacheSize Measure()
    {
        var files = Files().ToList();
        return new CacheSize(files.Count, files.Sum(f => f.Length));
    }

    /// <summary>
    /// Throws the least lately used away until no more than <paramref name="most"/> bytes are left; gives how much
    /// went.
    /// </summary>
    public CacheSize Sweep(long most, DateTime nowUtc)
    {
        var files = Files().OrderBy(f => f.LastAccessTimeUtc).ToList();
        var (left, went) = (files.Sum(f => f.Length), new CacheSize());
        foreach (var file in files.Where(f => f.LastAccessTimeUtc < nowUtc - InUse))
        {
            if (left <= most)
            {
                break;
            }

            left -= file.Length;
            went = new CacheSize(went.Files + 1, went.Bytes + file.Length);
            file.Delete();
        }

        return went;
    }

    /// <summary>
    /// A file the picture library can decode: the original, or the working copy of a HEIC or a page of a PDF.
    /// </summary>
    public string Readable(PictureRef picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        var copy = WorkingPath(picture);
        if (IsThere(copy))
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
        TimeSpan patience,
        CancellationToken cancel
    ) => format.NeedsWorkingCopy() ? MakeWorkingCopy(original, picture, format, patience, cancel) : (original, 1);

    /// <summary>Changes when the shown picture does, so that a browser may keep it for ever.</summary>
    public static string Version(PictureRef picture)
    {
        ArgumentNullException.ThrowIfNull(picture);
        return picture.Sha256.Beginning + Suffix(picture);
    }

    private (string Path, int Pages) MakeWorkingCopy(
        string original,
        PictureRef picture,
        PictureFormat format,
        TimeSpan patience,
        CancellationToken cancel = default
    )
    {
        var path = WorkingPath(picture);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        try
        {
            var pages = readers.Do(
                new MakeWorkingCopy(original, format, picture.Page, temporary, patience),
                cancel: cancel
            );
            File.Move(temporary, path, overwrite: true);
            return (path, pages);
        }
        finally
        {
            File.Delete(temporary);
        }
    }

    private string WorkingPath(PictureRef picture) =>
        PathOf(string.Create(CultureInfo.InvariantCulture, $"working {picture.Sha256} {picture.Page}"), "jpg");

    private string PicturePath(PictureRef picture, int side) =>
        PathOf(string.Create(CultureInfo.InvariantCulture, $"picture {picture.Sha256}{Suffix(picture)} {side}"), "jpg");

    private string PathOf(string recipe, string extension)
    {
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(recipe)));
        return Path.Combine(settings.Cache, hash[..2], $"{hash}.{extension}");
    }

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

    private async Task<string> FileAsync(string path, Func<byte[]> make, CancellationToken cancel) =>
        IsThere(path)
            ? path
            : await bench.RunAsync(
                () =>
                {
                    // Somebody may have made it while this one waited.
                    if (!IsThere(path))
                    {
                        Write(path, make());
                    }

                    return path;
                },
                cancel
            );

    /// <summary>Whether the file is there; using it is noted, so that the sweep knows.</summary>
    private static bool IsThere(string path)
    {
        var file = new FileInfo(path);
        if (!file.Exists)
        {
            return false;
        }

        try
        {
            if (DateTime.UtcNow - file.LastAccessTimeUtc > UseIsNotedAfter)
            {
                file.LastAccessTimeUtc = DateTime.UtcNow;
            }

            return true;
        }
        catch (FileNotFoundException)
        {
            // Swept between the two.
            return false;
        }
    }

    private IEnumerable<FileInfo> Files()
    {
        var folder = new DirectoryInfo(settings.Cache);
        return folder.Exists ? folder.EnumerateFiles("*", SearchOption.AllDirectories) : [];
    }

    private static void Write(string path, byte[] bytes)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        File.WriteAllBytes(temporary, bytes);
        File.Move(temporary, path, overwrite: true);
    }
}
