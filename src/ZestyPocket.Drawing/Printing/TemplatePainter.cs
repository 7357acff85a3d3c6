using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Printing;

/// <summary>
/// Templates on paper, all at true size: the page with its pockets, where to punch it, and a gauge for pieces and
/// folds.
/// </summary>
public sealed class TemplatePainter(FontShelf fonts)
{
    private static readonly Rgb Black = Rgb.Hex("#1c1a18");

    private static Length Border => Length.FromInches(1, 2);

    /// <summary>Wide enough for the holes and their distance from the edge.</summary>
    private static Length PunchStrip => Length.FromMillimetres(45);

    /// <summary>The pages of the templates of a protector.</summary>
    /// <param name="name">What the protector is called.</param>
    public IEnumerable<PdfPage> Pages(Protector protector, string name, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(protector);
        var whole = new Size(protector.Outer.Width + (2 * Border), protector.Outer.Height + (2 * Border) + Border);
        yield return new PdfPage(
            whole.Width.Points,
            whole.Height.Points,
            canvas => DrawLayout(canvas, protector, name, measures)
        );
        var strip = new Size(PunchStrip + (2 * Border), whole.Height);
        yield return new PdfPage(
            strip.Width.Points,
            strip.Height.Points,
            canvas => DrawPunchStrip(canvas, protector, measures)
        );
        var gauge = GaugeSize(protector);
        yield return new PdfPage(
            gauge.Width.Points,
            gauge.Height.Points,
            canvas => DrawGauge(canvas, protector, name, measures)
        );
    }

    private static List<Size> Cuts(Protector protector) =>
        [
            .. protector
                .Design.Pockets.Select(protector.CutSize)
                .Distinct()
                .OrderBy(s => s.SquareInches)
                .ThenBy(s => s.Width),
        ];

    private static Size GaugeSize(Protector protector)
    {
        var cuts = Cuts(protector);
        return new Size(
            Length.Max(cuts.Select(c => c.Width).DefaultIfEmpty().Max(), Length.FromInches(6)) + (2 * Border),
            cuts.Select(c => c.Height).DefaultIfEmpty().Max() + Length.FromInches(2) + (2 * Border)
        );
    }

    private void DrawLayout(SKCanvas canvas, Protector protector, string name, MeasureSystem measures)
    {
        using var line = Line(0.5f);
        using var thin = Line(0.25f);
        canvas.Translate((float)Border.Points, (float)Border.Points);
        Box(canvas, new Rect(Length.Zero, Length.Zero, protector.Outer), line);
        var ring = (float)protector.RingStripX(LeafSide.Front).Points;
        var strip = (float)protector.RingStrip.Points;
        canvas.DrawLine(ring + strip, 0, ring + strip, (float)protector.Outer.Height.Points, thin);
        DrawHoles(canvas, protector, line);
        var (x, y) = protector.BodyOrigin(LeafSide.Front);
        foreach (var pocket in protector.Design.Pockets)
        {
            var bounds = pocket.Bounds.Moved(x, y);
            Box(canvas, bounds, thin);
            Write(
                canvas,
                8,
                bounds.X.Points + 6,
                bounds.Y.Points + 14,
                $"cut {MeasureText.Show(protector.CutSize(pocket), measures)}"
            );
        }

        Write(
            canvas,
            8,
            0,
            protector.Outer.Height.Points + 16,
            $"{name}, front, at true size: print at 100 %, no scaling. Outer size "
                + $"{MeasureText.Show(protector.Outer, measures)}."
        );
    }

    private void DrawPunchStrip(SKCanvas canvas, Protector protector, MeasureSystem measures)
    {
        using var line = Line(0.5f);
        canvas.Translate((float)Border.Points, (float)Border.Points);
        Box(canvas, new Rect(Length.Zero, Length.Zero, new Size(PunchStrip, protector.Outer.Height)), line);
        // The strip is of the left edge: of a leaf with its rings at the right it is turned over.
        var holes = protector.HolesOn(LeafSide.Front);
        var fromEdge = (protector.Form.Holes ?? HolePattern.ThreeRings).FromEdge;
        var diameter = (protector.Form.Holes ?? HolePattern.ThreeRings).Diameter;
        foreach (var (_, top) in holes)
        {
            var (cx, cy) = ((float)fromEdge.Points, (float)top.Points);
            canvas.DrawCircle(cx, cy, (float)diameter.Points / 2, line);
            canvas.DrawLine(cx - 12, cy, cx + 12, cy, line);
            canvas.DrawLine(cx, cy - 12, cx, cy + 12, line);
            Write(canvas, 7, cx + 16, cy + 3, $"{MeasureText.Show(top, measures)} from the top");
        }

        var words = holes.IsEmpty
            ? "No holes are measured for this protector."
            : "Lay the left edge at the spine and punch the crosses. Punches pinch: keep your fingers away, and follow "
                + "the maker's instructions first.";
        var lines = Copyfit.Fit(words, PunchStrip.Points, 60, new TypeRange(Typeface.Sans, 7, 7, 1.2), fonts).Lines;
        foreach (var row in lines)
        {
            Write(canvas, 7, 0, protector.Outer.Height.Points + 4 + row.Baseline, row.Text);
        }
    }

    private void DrawGauge(SKCanvas canvas, Protector protector, string name, MeasureSystem measures)
    {
        using var line = Line(0.5f);
        using var thin = Line(0.25f);
        canvas.Translate((float)Border.Points, (float)Border.Points);
        Write(canvas, 9, 0, 4, $"Gauge for {name}: lay a piece into the corner; it is cut to the line of its pocket.");
        Write(canvas, 8, 0, 16, "Dashes: where a card of that width is folded in half and in thirds.");
        canvas.Translate(0, 28);
        using var dashes = Line(0.25f);
        dashes.PathEffect = SKPathEffect.CreateDash([4, 3], 0);
        foreach (var cut in Cuts(protector))
        {
            Box(canvas, new Rect(Length.Zero, Length.Zero, cut), line);
            var (width, height) = ((float)cut.Width.Points, (float)cut.Height.Points);
            Write(canvas, 8, width - 62, height - 4, MeasureText.Show(cut, measures));
            foreach (var share in new[] { 1 / 3f, 1 / 2f, 2 / 3f })
            {
                canvas.DrawLine(width * share, height - 26, width * share, height - 14, dashes);
            }
        }
    }

    private static void DrawHoles(SKCanvas canvas, Protector protector, SKPaint line)
    {
        foreach (var (x, y) in protector.HolesOn(LeafSide.Front))
        {
            var diameter = protector.Form.Holes!.Diameter;
            canvas.DrawCircle((float)x.Points, (float)y.Points, (float)diameter.Points / 2, line);
        }
    }

    private static void Box(SKCanvas canvas, Rect bounds, SKPaint line) =>
        canvas.DrawRect(
            (float)bounds.X.Points,
            (float)bounds.Y.Points,
            (float)bounds.Width.Points,
            (float)bounds.Height.Points,
            line
        );

    private static SKPaint Line(float width) =>
        new()
        {
            Color = new SKColor(28, 26, 24),
            StrokeWidth = width,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };

    private void Write(SKCanvas canvas, double size, double x, double baseline, string text) =>
        fonts.Draw(canvas, new TypeRun(Typeface.Sans, size, x, baseline, text, Black));
}
