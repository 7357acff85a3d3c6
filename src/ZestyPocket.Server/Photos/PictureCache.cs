using System.Globalization;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Photos;

/// <summary>
/// Thumbnails and print crops, kept as files by what they are made from. Everything in here can be thrown away: it is
/// made again from the originals.
/// </summary>
public sealed class PictureCache(ZestySettings settings, IPhotoVault vault) : IPrintCrops
{
    /// <summary>Picture work is heavy: no more at a time than there are cores.</summary>
    private static readonly SemaphoreSlim Bench = new(Environment.ProcessorCount);

    /// <summary>The sides in which a whole picture is served, in pixels.</summary>
    public static IReadOnlyList<int> Sides { get; } = [PictureIntake.ThumbnailSide, 1600];

    /// <summary>The upright picture no larger than the smallest served side that is at least <paramref name="side"/>.</summary>
    public string Picture(string sha256, int side)
    {
        var served = Sides.FirstOrDefault(s => s >= side, Sides[^1]);
        return File(PicturePath(sha256, served), () => PictureIntake.Thumbnail(vault.PathOf(sha256), served));
    }

    /// <summary>Keeps the thumbnail that was made while the file was checked.</summary>
    public void KeepThumbnail(string sha256, byte[] jpeg) => Write(PicturePath(sha256, PictureIntake.ThumbnailSide), jpeg);

    public byte[] Jpeg(PhotoFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(face);
        var target = PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch);
        var (crop, culture) = (face.Crop, CultureInfo.InvariantCulture);
        var name = string.Create(culture, $"{crop.Left:0.0}_{crop.Top:0.0}_{crop.Width:0.0}_{crop.Height:0.0}_{target.Width}x{target.Height}.jpg");
        var path = Path.Combine(settings.Cache, "crops", face.OriginalSha[..2], face.OriginalSha, name);
        return System.IO.File.ReadAllBytes(File(path, () => PrintCrop.Jpeg(vault.PathOf(face.OriginalSha), face.Pixels, crop, target)));
    }

    private string PicturePath(string sha256, int side) =>
        Path.Combine(settings.Cache, "pictures", side.ToString(CultureInfo.InvariantCulture), sha256[..2], sha256 + ".jpg");

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
