using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Printing;

/// <summary>Draws the test sheet of a printer, see <see cref="TestSheet"/>.</summary>
public sealed class TestSheetPainter(FontShelf fonts)
{
    private static readonly Rgb Black = Rgb.Hex("#1c1a18");

    /// <summary>Papers that are large enough for the two lines.</summary>
    public static bool Takes(Paper paper)
    {
        ArgumentNullException.ThrowIfNull(paper);
        var least = TestSheet.Edge + TestSheet.Line + Length.FromMillimetres(15);
        return paper.Size.Width >= least && paper.Size.Height >= least + Length.FromMillimetres(40);
    }

    public void Draw(SKCanvas canvas, Paper paper, string printer)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(paper);
        using var ink = new SKPaint
        {
            Color = new SKColor(28, 26, 24),
            StrokeWidth = 0.5f,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };
        var (edge, line) = ((float)TestSheet.Edge.Points, (float)TestSheet.Line.Points);
        canvas.DrawLine(edge, edge, edge + line, edge, ink);
        canvas.DrawLine(edge, edge, edge, edge + line, ink);
        ink.Style = SKPaintStyle.Fill;
        var side = (float)TestSheet.Square.Points;
        foreach (var (x, y) in TestSheet.Squares)
        {
            canvas.DrawRect((float)x.Points - (side / 2), (float)y.Points - (side / 2), side, side, ink);
            // The middle of each square is where a ruler is laid.
            using var white = new SKPaint { Color = SKColors.White, StrokeWidth = 0.4f };
            var (mx, my) = ((float)x.Points, (float)y.Points);
            canvas.DrawLine(mx - (side / 2), my, mx + (side / 2), my, white);
            canvas.DrawLine(mx, my - (side / 2), mx, my + (side / 2), white);
        }

        var lines = new[]
        {
            $"Test sheet for {printer}, {paper.Name}: print it at 100 %, no scaling.",
            "Measure from the white cross in one square to the next: 150 mm across, 150 mm down.",
            "Measure how far the white cross of the first square lies from the left and from the top edge: 30 mm each.",
            "Type the four measures, or only the first two, where you got this sheet.",
        };
        for (var i = 0; i < lines.Length; i++)
        {
            fonts.Draw(canvas, new TypeRun(Typeface.Sans, 9, edge + 20, edge + 40 + (16 * i), lines[i], Black));
        }
    }
}
