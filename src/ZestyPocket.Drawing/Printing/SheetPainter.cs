using System.Globalization;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Printing;

/// <summary>Where a sheet stands in its print run, for the words in its foot.</summary>
public sealed record SheetHeading(string Album, int Number, int Of);

/// <summary>Draws a planned sheet: pieces at true size, cut lines, numbers in the waste, the check rule at the foot.</summary>
public sealed class SheetPainter(PiecePainter pieces, FontShelf fonts)
{
    private const double NumberPt = 6;
    private static readonly Rgb Grey = Rgb.Hex("#6b6b6b");
    private static readonly Rgb Black = Rgb.Hex("#1c1a18");

    /// <summary>Draws the sheet in points. <paramref name="face"/> gives each due piece its face.</summary>
    public void Draw(
        SKCanvas canvas,
        PlannedSheet sheet,
        PrinterSetup setup,
        SheetHeading heading,
        Func<DuePiece, PieceFace> face,
        double pixelsPerInch,
        CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(face);
        foreach (var piece in sheet.Pieces)
        {
            cancel.ThrowIfCancellationRequested();
            canvas.Save();
            canvas.Translate((float)piece.Bounds.X.Points, (float)piece.Bounds.Y.Points);
            if (piece.Turned)
            {
                canvas.Translate((float)piece.Bounds.Width.Points, 0);
                canvas.RotateDegrees(90);
            }

            pieces.Draw(canvas, face(piece.Due), pixelsPerInch);
            canvas.Restore();
        }

        using var hair = new SKPaint { Color = new SKColor(120, 120, 120), StrokeWidth = 0.25f, Style = SKPaintStyle.Stroke, IsAntialias = true };
        foreach (var cut in sheet.Cuts)
        {
            canvas.DrawLine((float)cut.X1.Points, (float)cut.Y1.Points, (float)cut.X2.Points, (float)cut.Y2.Points, hair);
        }

        DrawNumbers(canvas, sheet, setup);
        DrawFoot(canvas, sheet, setup, heading);
    }

    /// <summary>
    /// A miniature of every sheet with all numbers and cut sizes, for the cutting table; <paramref name="first"/> is
    /// the index of the first sheet shown, four to a page.
    /// </summary>
    public void DrawKey(SKCanvas canvas, PrintPlan plan, string album, int first)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(plan);
        var paper = plan.Setup.Paper.Size;
        var inset = Math.Max(24, plan.Setup.Margin.Points);
        Write(canvas, Typeface.SansStrong, 13, inset, inset + 12, $"{album}: where each piece goes", Black);
        Write(canvas, Typeface.Sans, 8, inset, inset + 26, "W = week, L = left page, R = right page, then the pocket in reading order. This page need not be printed to scale.", Grey);
        const double gap = 18;
        var top = inset + 44;
        var (cellWidth, cellHeight) = ((paper.Width.Points - (2 * inset) - gap) / 2, (paper.Height.Points - top - inset - gap) / 2);
        var scale = Math.Min(cellWidth / paper.Width.Points, (cellHeight - 14) / paper.Height.Points);
        using var line = new SKPaint { Color = new SKColor(90, 90, 90), StrokeWidth = 0.6f, Style = SKPaintStyle.Stroke, IsAntialias = true };
        for (var i = 0; i < 4 && first + i < plan.Sheets.Length; i++)
        {
            var sheet = plan.Sheets[first + i];
            var (x, y) = (inset + ((i % 2) * (cellWidth + gap)), top + ((i / 2) * (cellHeight + gap)));
            Write(canvas, Typeface.SansStrong, 8, x, y + 8, $"Sheet {first + i + 1}, {Name(sheet.Stock)}", Black);
            y += 14;
            canvas.DrawRect((float)x, (float)y, (float)(paper.Width.Points * scale), (float)(paper.Height.Points * scale), line);
            foreach (var piece in sheet.Pieces)
            {
                var b = piece.Bounds;
                var (px, py) = (x + (b.X.Points * scale), y + (b.Y.Points * scale));
                var (pw, ph) = (b.Width.Points * scale, b.Height.Points * scale);
                canvas.DrawRect((float)px, (float)py, (float)pw, (float)ph, line);
                Centre(canvas, Typeface.SansStrong, 7, px + (pw / 2), py + (ph / 2), piece.Due.Number, pw - 2);
                Centre(canvas, Typeface.Sans, 6, px + (pw / 2), py + (ph / 2) + 8, piece.Due.Cut.ToString(), pw - 2);
            }
        }
    }

    /// <summary>How many key pages a plan takes.</summary>
    public static int KeyPages(PrintPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return (plan.Sheets.Length + 3) / 4;
    }

    public static string Name(Stock stock) => stock == Stock.PhotoPaper ? "photo paper" : "white card";

    /// <summary>Writes each number into the waste or the gap beside its piece, where there is room; the key page has them all.</summary>
    private void DrawNumbers(SKCanvas canvas, PlannedSheet sheet, PrinterSetup setup)
    {
        var taken = new List<Rect>();
        foreach (var piece in sheet.Pieces)
        {
            var width = fonts.Width(Typeface.SansStrong, NumberPt, piece.Due.Number);
            var label = new Size(Length.FromPoints((decimal)width + 2), Length.FromPoints((decimal)NumberPt + 2));
            foreach (var spot in Spots(piece.Bounds, label))
            {
                if (setup.Usable.Contains(spot)
                    && !sheet.Pieces.Any(p => p.Bounds.Overlaps(spot))
                    && !taken.Exists(t => t.Overlaps(spot)))
                {
                    taken.Add(spot);
                    Write(canvas, Typeface.SansStrong, NumberPt, spot.X.Points + 1, spot.Y.Points + NumberPt, piece.Due.Number, Grey);
                    break;
                }
            }
        }
    }

    /// <summary>Where a number tells at a glance which piece it is of: under it, beside it, over it.</summary>
    private static IEnumerable<Rect> Spots(Rect piece, Size label) =>
    [
        new Rect(piece.X, piece.Bottom, label),
        new Rect(piece.Right, piece.Y, label),
        new Rect(piece.X, piece.Y - label.Height, label),
    ];

    private void DrawFoot(SKCanvas canvas, PlannedSheet sheet, PrinterSetup setup, SheetHeading heading)
    {
        var left = setup.Margin.Points;
        var bottom = (setup.Paper.Size.Height - setup.Margin).Points;
        var axis = bottom - (PrinterSetup.CheckStrip.Points / 2);
        using var ink = new SKPaint { Color = new SKColor(28, 26, 24), StrokeWidth = 0.4f, Style = SKPaintStyle.Stroke, IsAntialias = true };

        // 100 mm above the axis, 4 in below it: a ruler of either kind can be laid on.
        var (hundred, four) = (Length.FromMillimetres(100).Points, Length.FromInches(4).Points);
        canvas.DrawLine((float)left, (float)axis, (float)(left + four), (float)axis, ink);
        for (var mm = 0; mm <= 100; mm += 10)
        {
            var x = left + Length.FromMillimetres(mm).Points;
            canvas.DrawLine((float)x, (float)axis, (float)x, (float)(axis - (mm % 50 == 0 ? 7 : 4)), ink);
        }

        for (var quarter = 0; quarter <= 16; quarter++)
        {
            var x = left + (quarter * 18.0);
            canvas.DrawLine((float)x, (float)axis, (float)x, (float)(axis + (quarter % 4 == 0 ? 7 : 3)), ink);
        }

        Write(canvas, Typeface.Sans, 5.5, left + hundred + 8, axis - 3, "100 mm", Black);
        Write(canvas, Typeface.Sans, 5.5, left + four + 3, axis + 7, "4 in", Black);
        var words = string.Create(
            CultureInfo.InvariantCulture,
            $"{Clip(heading.Album)} · sheet {heading.Number} of {heading.Of} · {Name(sheet.Stock)}");
        Write(canvas, Typeface.SansStrong, 6, left + four + 34, axis - 2, words, Black);
        Write(canvas, Typeface.Sans, 6, left + four + 34, axis + 7, "Print at 100 %, no scaling: the rule must measure true.", Black);
    }

    private static string Clip(string album) => album.Length <= 40 ? album : album[..39] + "…";

    private void Centre(SKCanvas canvas, Typeface face, double size, double x, double y, string text, double room)
    {
        var width = fonts.Width(face, size, text);
        var fitted = width > room ? size * room / width : size;
        Write(canvas, face, fitted, x - (Math.Min(width, room) / 2), y, text, Black);
    }

    private void Write(SKCanvas canvas, Typeface face, double size, double x, double baseline, string text, Rgb ink) =>
        fonts.Draw(canvas, new TypeRun(face, size, x, baseline, text, ink));
}
