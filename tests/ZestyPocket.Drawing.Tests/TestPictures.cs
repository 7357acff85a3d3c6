using NetVips;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Drawing.Tests;

/// <summary>Pictures made for the tests, and crops straight from their files.</summary>
public sealed class TestPictures : IPrintCrops, IDisposable
{
    private readonly Dictionary<ContentHash, string> _paths = [];

    public string Folder { get; } = Directory.CreateTempSubdirectory("zesty-drawing-").FullName;

    public string Jpeg(string name, int width, int height, params (string Field, string Value)[] exif)
    {
        PhotoEngine.Start();
        var path = Path.Combine(Folder, name);
        using var ramp = Image.Xyz(width, height);
        using var colour = (ramp[0] * (255.0 / width)).Bandjoin(ramp[1] * (255.0 / height), ramp[0] * 0 + 96);
        using var picture = colour.Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
        using var tagged = picture.Mutate(m =>
        {
            foreach (var (field, value) in exif)
            {
                if (field == "orientation")
                {
                    m.Set(GValue.GIntType, field, int.Parse(value, System.Globalization.CultureInfo.InvariantCulture));
                }
                else
                {
                    m.Set(GValue.GStrType, field, value);
                }
            }
        });
        tagged.Jpegsave(path, q: 90);
        return path;
    }

    /// <summary>A key in place of a content.</summary>
    public static ContentHash KeyOf(string name) =>
        ContentHash.Of(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(name)));

    public PhotoFace Face(string path, PixelSize pixels, Core.Measures.Size cut)
    {
        var key = KeyOf(Path.GetFileName(path));
        _paths[key] = path;
        return new PhotoFace(cut, new PictureRef(key), pixels, Crop.For(pixels, cut, Framing.Middle));
    }

    public byte[] Jpeg(PhotoFace face, double pixelsPerInch) =>
        PrintCrop.Jpeg(
            _paths[face.Original.Sha256],
            face.Pixels,
            face.Crop,
            PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch)
        );

    public void Dispose() => Directory.Delete(Folder, recursive: true);
}
