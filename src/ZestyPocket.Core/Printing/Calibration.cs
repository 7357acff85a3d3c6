using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>
/// What a printer does to a sheet, measured on one: a point that should lie at x lies at scale times x plus offset,
/// each way from the sheet's top left corner.
/// </summary>
/// <param name="ScaleX">1 is true; 0.97 is a sheet that was shrunk to fit.</param>
/// <param name="OffsetX">To the right.</param>
/// <param name="OffsetY">Down.</param>
public sealed record PrinterFault(double ScaleX, double ScaleY, Length OffsetX, Length OffsetY)
{
    public static PrinterFault None { get; } = new(1, 1, Length.Zero, Length.Zero);

    /// <summary>Nobody prints so far off: it was measured wrong.</summary>
    public const double MostScale = 0.12;

    private static Length MostOffset => Length.FromMillimetres(15);

    /// <summary>
    /// From what was measured on a test sheet: how long its two lines of 150 mm are, and how far their crossing, which
    /// belongs 30 mm from either edge, lies from the left and the top edge. Arithmetic. Throws
    /// <see cref="RuleException"/> for measures no printer makes.
    /// </summary>
    /// <param name="fromLeft">
    /// Null when it was not measured: then the printer is taken to be in the right place.
    /// </param>
    public static PrinterFault Of(Length across, Length down, Length? fromLeft = null, Length? fromTop = null)
    {
        var (scaleX, scaleY) = (across.RatioTo(TestSheet.Line), down.RatioTo(TestSheet.Line));
        var (x, y) = (Offset(fromLeft, scaleX), Offset(fromTop, scaleY));
        return
            Math.Abs(scaleX - 1) > MostScale
            || Math.Abs(scaleY - 1) > MostScale
            || Length.Abs(x) > MostOffset
            || Length.Abs(y) > MostOffset
            ? throw new RuleException(
                "These measures are further off than a printer is: the lines should measure about 150 mm, and their "
                    + "crossing about 30 mm from the edges. Nothing was kept: measure again."
            )
            : new PrinterFault(scaleX, scaleY, x, y);

        static Length Offset(Length? measured, double scale) =>
            measured is { } at ? at - TestSheet.Edge.Times(scale) : Length.Zero;
    }

    /// <summary>How far off a line of 150 mm comes out, the worse way.</summary>
    public Length Off => TestSheet.Line.Times(Math.Max(Math.Abs(ScaleX - 1), Math.Abs(ScaleY - 1)));

    /// <summary>Half a millimetre over 150 mm is seen in a pocket. Common practice.</summary>
    public bool IsTrue => Off <= Length.FromMillimetres(0.5m);

    /// <summary>
    /// What is wrong, and which setting of the print dialog to look at first: scaling is put right there, and made up
    /// for only when it cannot be. Common practice.
    /// </summary>
    public string Verdict()
    {
        var percent = string.Create(CultureInfo.InvariantCulture, $"{100 * ScaleX:0.0} % × {100 * ScaleY:0.0} %");
        if (IsTrue)
        {
            return $"It prints true: {percent}. Nothing needs to be made up for.";
        }

        var (least, most) = (Math.Min(ScaleX, ScaleY), Math.Max(ScaleX, ScaleY));
        return most - least > 0.004
                ? $"It prints {percent}: each way by itself. Look for “scale to media” or a paper size that is not the "
                    + "one in the tray; a worn feed can do it too."
            : most < 1
                ? $"It prints {percent}: the sheet was shrunk. Set “fit to page” or “shrink to printable area” to "
                    + "“actual size” or 100 %, then print the test sheet again."
            : $"It prints {percent}: the sheet was enlarged. Switch borderless printing or “fill page” off, then "
                + "print the test sheet again.";
    }

    /// <summary>Where a point has to be put so that it comes out at this place.</summary>
    public (double X, double Y) Corrected(double x, double y) =>
        ((x - OffsetX.Points) / ScaleX, (y - OffsetY.Points) / ScaleY);
}

/// <summary>The test sheet: two lines of 150 mm that cross, and squares that a scan is read by.</summary>
public static class TestSheet
{
    public static Length Line => Length.FromMillimetres(150);

    /// <summary>The lines cross so far from the left and the top edge.</summary>
    public static Length Edge => Length.FromMillimetres(30);

    /// <summary>Side of a square.</summary>
    public static Length Square => Length.FromMillimetres(6);

    /// <summary>
    /// The middles of the four squares: they lie at the ends of the lines and at the fourth corner of the rectangle.
    /// </summary>
    public static IReadOnlyList<(Length X, Length Y)> Squares =>
        [(Edge, Edge), (Edge + Line, Edge), (Edge + Line, Edge + Line), (Edge, Edge + Line)];
}
