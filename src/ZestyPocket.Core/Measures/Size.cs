namespace ZestyPocket.Core.Measures;

/// <summary>Width by height, as the trade writes sizes: a 3x4 is 3 in wide and 4 in tall.</summary>
public readonly record struct Size(Length Width, Length Height)
{
    public static Size FromInches(decimal width, decimal height) =>
        new(Length.FromInches(width), Length.FromInches(height));

    public static Size FromMillimetres(decimal width, decimal height) =>
        new(Length.FromMillimetres(width), Length.FromMillimetres(height));

    /// <summary>The same piece after a quarter turn.</summary>
    public Size Turned => new(Height, Width);

    public bool IsPositive => Width > Length.Zero && Height > Length.Zero;

    /// <summary>Wider than tall.</summary>
    public bool IsLandscape => Width > Height;

    public bool IsSquare => Width == Height;

    /// <summary>Width over height, as a plain ratio.</summary>
    public double Proportion => (double)Width.Emu / Height.Emu;

    /// <summary>Area in square inches.</summary>
    public decimal SquareInches => Width.Inches * Height.Inches;

    /// <summary>Area in square EMU, exact, for sums that must come out even.</summary>
    public Int128 SquareEmu => (Int128)Width.Emu * Height.Emu;

    /// <summary>True when this fits into <paramref name="room"/> as it stands (not turned).</summary>
    public bool FitsIn(Size room) => Width <= room.Width && Height <= room.Height;

    /// <summary>The trade's short name, such as 6x4 or 2 1/2x8, in inches.</summary>
    public override string ToString() => MeasureText.ShortName(this);
}
