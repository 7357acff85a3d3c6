namespace ZestyPocket.Core.Photos;

/// <summary>
/// How the keeper wants a picture to lie in its pocket, independent of the pocket's size: where the middle of the
/// kept part is, and how far it is zoomed in.
/// </summary>
/// <param name="CenterX">0 (left edge of the picture) to 1 (right edge).</param>
/// <param name="CenterY">0 (top) to 1 (bottom).</param>
/// <param name="Zoom">1 keeps as much of the picture as the pocket allows; 2 half of that each way; at most 8.</param>
public readonly record struct Framing(double CenterX, double CenterY, double Zoom)
{
    public const double LargestZoom = 8;

    public static Framing Middle => new(0.5, 0.5, 1);

    /// <summary>
    /// How a picture lies before anybody framed it: around what must stay, the boxes if there are any, else the focus
    /// point; as little zoomed as the pocket allows. Common practice.
    /// </summary>
    public static Framing Around(double focusX, double focusY, IReadOnlyCollection<PictureBox> keep)
    {
        ArgumentNullException.ThrowIfNull(keep);
        return keep.Count == 0
            ? new Framing(focusX, focusY, 1).Clamped()
            : new Framing(
                (keep.Min(b => b.X) + keep.Max(b => b.Right)) / 2,
                (keep.Min(b => b.Y) + keep.Max(b => b.Bottom)) / 2,
                1
            ).Clamped();
    }

    /// <summary>The framing with every value brought into its range; not-a-number becomes the middle.</summary>
    public Framing Clamped() => new(In(CenterX, 0, 1, 0.5), In(CenterY, 0, 1, 0.5), In(Zoom, 1, LargestZoom, 1));

    private static double In(double value, double low, double high, double otherwise) =>
        double.IsNaN(value) ? otherwise : Math.Clamp(value, low, high);
}
