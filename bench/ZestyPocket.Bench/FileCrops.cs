using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Bench;

/// <summary>Crops of files by their key, never cached.</summary>
internal sealed class FileCrops(IReadOnlyDictionary<string, string> paths) : IPrintCrops
{
    public byte[] Jpeg(PhotoFace face, double pixelsPerInch) =>
        PrintCrop.Jpeg(
            paths[face.Original.Sha256],
            face.Pixels,
            face.Crop,
            PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch)
        );
}
