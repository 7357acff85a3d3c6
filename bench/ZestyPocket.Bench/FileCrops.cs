using System.Security.Cryptography;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Photos;

namespace ZestyPocket.Bench;

/// <summary>Crops of files by their key, never cached.</summary>
internal sealed class FileCrops(IReadOnlyDictionary<ContentHash, string> paths) : IPrintCrops
{
    /// <summary>A key in place of a content, for files that only the benches see.</summary>
    public static ContentHash KeyOf(int file) => ContentHash.Of(SHA256.HashData(BitConverter.GetBytes(file)));

    public byte[] Jpeg(PhotoFace face, double pixelsPerInch) =>
        PrintCrop.Jpeg(
            paths[face.Original.Sha256],
            face.Pixels,
            face.Crop,
            PrintCrop.Target(face.Crop, face.Cut, pixelsPerInch)
        );
}
