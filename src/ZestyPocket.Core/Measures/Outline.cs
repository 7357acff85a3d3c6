using System.Globalization;

namespace ZestyPocket.Core.Measures;

/// <summary>What a piece is cut to.</summary>
public enum CutShape
{
    Rectangle,

    Circle,

    /// <summary>A half circle hanging from the head, cut straight by the edge over it.</summary>
    HalfCircleHanging,

    /// <summary>A half circle standing on the foot, cut straight by the edge under it.</summary>
    HalfCircleStanding,

    /// <summary>A rectangle with a round head as wide as it is.</summary>
    Arch,

    /// <summary>A rectangle whose two upper corners are cut off at 45 degrees.</summary>
    Tag,
}

/// <summary>
/// The line that a piece is cut along: a shape in its bounding box. Lengths are exact; a circle's centre may lie half
/// an EMU off.
/// </summary>
/// <param name="Shape">Which.</param>
/// <param name="Bounds">Its bounding box; of a circle a square, of a half circle twice as wide as high.</param>
/// <param name="Corner">
/// Of a rectangle the radius of its corners; of a tag how much of each edge its cut corners take; else 0.
/// </param>
public readonly record struct Outline(CutShape Shape, Rect Bounds, Length Corner)
{
    /// <summary>A rectangle with square corners.</summary>
    public static Outline Of(Rect bounds) => new(CutShape.Rectangle, bounds, Length.Zero);

    /// <summary>The largest outline of a shape in a rectangle, in its middle, or at the edge that cuts it.</summary>
    public static Outline In(Rect room, CutShape shape, Length corner)
    {
        var (width, height) = (room.Width, room.Height);
        switch (shape)
        {
            case CutShape.Circle:
                var across = Length.Min(width, height);
                return new(shape, room.Centred(new Size(across, across)), Length.Zero);
            case CutShape.HalfCircleHanging:
            case CutShape.HalfCircleStanding:
                var radius = Length.Min(width / 2, height);
                var y = shape == CutShape.HalfCircleHanging ? room.Y : room.Bottom - radius;
                return new(shape, new Rect(room.X + (width / 2) - radius, y, 2 * radius, radius), Length.Zero);
            case CutShape.Arch:
                // Its sides stay straight for a good part of its height.
                var wide = Length.Min(width, height * 5 / 4);
                return new(shape, room with { X = room.X + ((width - wide) / 2), Width = wide }, Length.Zero);
            case CutShape.Tag:
                return new(shape, room, Length.Min(width, height) / 4);
            default:
                return new(shape, room, Length.Min(corner, Length.Min(width, height) / 2));
        }
    }

    /// <summary>
    /// The outline that lies so far inside this one everywhere: concentric. Where an edge cuts a half circle it stays
    /// on that edge.
    /// </summary>
    public Outline Inset(Length by)
    {
        var inner = new Rect(Bounds.X + by, Bounds.Y + by, Bounds.Width - (2 * by), Bounds.Height - (2 * by));
        return Shape switch
        {
            CutShape.HalfCircleHanging => this with
            {
                Bounds = inner with { Y = Bounds.Y, Height = Bounds.Height - by },
            },
            CutShape.HalfCircleStanding => this with { Bounds = inner with { Height = Bounds.Height - by } },
            // The corner that is cut off at 45 degrees gets shorter by 2 − √2 of the way in.
            CutShape.Tag => this with
            {
                Bounds = inner,
                Corner = Length.Max(
                    Length.Zero,
                    new Length(Corner.Emu - (long)Math.Round(by.Emu * (2 - Math.Sqrt(2))))
                ),
            },
            _ => this with { Bounds = inner, Corner = Length.Max(Length.Zero, Corner - by) },
        };
    }

    /// <summary>It still has its form: the round head of an arch is not higher than the arch.</summary>
    public bool IsWhole => Shape != CutShape.Arch || 2 * Bounds.Height >= Bounds.Width;

    public Outline Moved(Length dx, Length dy) => this with { Bounds = Bounds.Moved(dx, dy) };

    /// <summary>A straight cut along its bounding box is all it takes.</summary>
    public bool IsPlain => Shape == CutShape.Rectangle && Corner == Length.Zero;

    /// <summary>Area in square inches, by the formulas of plane geometry.</summary>
    public double AreaSquareInches
    {
        get
        {
            var (w, h, c) = ((double)Bounds.Width.Inches, (double)Bounds.Height.Inches, (double)Corner.Inches);
            return Shape switch
            {
                CutShape.Circle => Math.PI * w * w / 4,
                CutShape.HalfCircleHanging or CutShape.HalfCircleStanding => Math.PI * h * h / 2,
                CutShape.Arch => (w * (h - (w / 2))) + (Math.PI * w * w / 8),
                CutShape.Tag => (w * h) - (c * c),
                _ => (w * h) - ((4 - Math.PI) * c * c),
            };
        }
    }

    /// <summary>
    /// How far it reaches to the left and right everywhere between two heights, in points; null when it is not as high.
    /// </summary>
    public (double Left, double Right)? Across(double top, double bottom)
    {
        var (x, y, w, h, c) = (
            Bounds.X.Points,
            Bounds.Y.Points,
            Bounds.Width.Points,
            Bounds.Height.Points,
            Corner.Points
        );
        const double dust = 1e-6;
        if (top < y - dust || bottom > y + h + dust)
        {
            return null;
        }

        var (middle, r) = (x + (w / 2), w / 2);
        // How far from the middle of the circle the farther of the two heights is.
        double Chord(double centre)
        {
            var off = Math.Max(Math.Abs(top - centre), Math.Abs(bottom - centre));
            return off >= r ? 0 : Math.Sqrt((r * r) - (off * off));
        }

        var half = Shape switch
        {
            CutShape.Circle => Chord(y + r),
            CutShape.HalfCircleHanging => Chord(y),
            CutShape.HalfCircleStanding => Chord(y + h),
            CutShape.Arch => top >= y + r ? r : Chord(y + r),
            CutShape.Tag => r - Math.Max(0, c - (top - y)),
            _ when c > 0 => r - Cut(Math.Min(top - y, y + h - bottom)),
            _ => r,
        };
        return half <= 0 ? null : (middle - half, middle + half);

        // What a round corner takes at a distance from the edge.
        double Cut(double into) => into >= c ? 0 : c - Math.Sqrt((c * c) - ((c - into) * (c - into)));
    }

    /// <summary>As SVG path data in points (source: SVG 2, chapter 9).</summary>
    public string Path()
    {
        var (x, y, w, h, c) = (
            Bounds.X.Points,
            Bounds.Y.Points,
            Bounds.Width.Points,
            Bounds.Height.Points,
            Corner.Points
        );
        var r = w / 2;
        return Shape switch
        {
            CutShape.Circle => P($"M{x} {y + r}A{r} {r} 0 0 1 {x + w} {y + r}A{r} {r} 0 0 1 {x} {y + r}Z"),
            CutShape.HalfCircleHanging => P($"M{x} {y}H{x + w}A{r} {r} 0 0 1 {x} {y}Z"),
            CutShape.HalfCircleStanding => P($"M{x} {y + h}A{r} {r} 0 0 1 {x + w} {y + h}Z"),
            CutShape.Arch => P($"M{x} {y + h}V{y + r}A{r} {r} 0 0 1 {x + w} {y + r}V{y + h}Z"),
            CutShape.Tag => P($"M{x} {y + c}L{x + c} {y}H{x + w - c}L{x + w} {y + c}V{y + h}H{x}Z"),
            _ when c <= 0 => P($"M{x} {y}H{x + w}V{y + h}H{x}Z"),
            _ => P($"M{x + c} {y}H{x + w - c}A{c} {c} 0 0 1 {x + w} {y + c}V{y + h - c}")
                + P($"A{c} {c} 0 0 1 {x + w - c} {y + h}H{x + c}A{c} {c} 0 0 1 {x} {y + h - c}")
                + P($"V{y + c}A{c} {c} 0 0 1 {x + c} {y}Z"),
        };

        static string P(FormattableString path) => path.ToString(CultureInfo.InvariantCulture);
    }
}
