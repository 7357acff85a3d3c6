namespace ZestyPocket.Core.Photos;

/// <summary>Pixels across and down of a picture as it is looked at (after its EXIF orientation is applied).</summary>
public readonly record struct PixelSize(int Width, int Height)
{
    public double Proportion => (double)Width / Height;

    public bool IsLandscape => Width > Height;

    public override string ToString() => $"{Width}×{Height}";
}
