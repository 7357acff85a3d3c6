using System.Globalization;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Printing;

/// <summary>Where a sheet stands in its print run, for the words in its foot.</summary>
public sealed record SheetHeading(string Album, int Number, int Of);

/// <summary>
/// Draws a planned sheet: pieces at true size, cut lines, numbers in the waste, the check rule at the foot.
/// </summary>
public sealed class SheetPainter(PiecePainter pieces, FontShelf fonts)
{
    private const double NumberPt = 7;

    /// <summary>Smaller type is hard to read at arm's length on the cutting table. Common practice.</summary>
    private const double SmallPt = 7;
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
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(face);
        if (sheet.Side == SheetSide.Numbers)
        {
            DrawNumbersBehind(canvas, sheet);
            return;
        }

        using var hair = HairLine();
        foreach (var piece in sheet.Pieces)
        {
            cancel.ThrowIfCancellationRequested();
            DrawPiece(canvas, piece, sheet.Side, setup.Options, face(piece.Due), pixelsPerInch, hair);
        }

        if (setup.Options.CropMarks)
        {
            DrawCropMarks(canvas, sheet, setup, hair);
        }
        else
        {
            foreach (var cut in sheet.Cuts)
            {
                canvas.DrawLine(
                    (float)cut.X1.Points,
                    (float)cut.Y1.Points,
                    (float)cut.X2.Points,
                    (float)cut.Y2.Points,
                    hair
                );
            }
        }

        var numbered = DrawNumbers(canvas, sheet, setup);
        if (setup.Strip > Length.Zero)
        {
            DrawFoot(canvas, sheet, setup, heading, numbered ? null : InRows(sheet));
        }
    }

    private void DrawPiece(
        SKCanvas canvas,
        PlannedPiece piece,
        SheetSide side,
        SheetOptions options,
        PieceFace face,
        double pixelsPerInch,
        SKPaint hair
    )
    {
        canvas.Save();
        canvas.Translate((float)piece.Bounds.X.Points, (float)piece.Bounds.Y.Points);
        Turn(canvas, piece);
        var (width, height) = ((float)piece.Due.Cut.Width.Points, (float)piece.Due.Cut.Height.Points);
        var plain = face is not FinishedFace { Parts: [{ Outline.IsPlain: false }] };
        if (side == SheetSide.Back && options.SafeEdge > Length.Zero)
        {
            var edge = (float)options.SafeEdge.Points;
            canvas.ClipRect(new SKRect(edge, edge, width - edge, height - edge));
        }
        else if (options.Bleed > Length.Zero && plain)
        {
            DrawBleed(canvas, piece.Due.Cut, options.Bleed, face, pixelsPerInch);
        }

        pieces.Draw(canvas, face, pixelsPerInch);
        if (face is FinishedFace { Parts: [{ Outline: { IsPlain: false } outline }] })
        {
            // What is cut by hand along a curve has its line; the straight cuts around it only part it off.
            using var path = SKPath.ParseSvgPathData(outline.Path());
            canvas.DrawPath(path, hair);
        }

        DrawMarks(canvas, piece.Due, hair);
        canvas.Restore();
    }

    /// <summary>
    /// Ticks where it is folded, at head and foot; a ring with its middle where it is punched, which goes away with
    /// the hole.
    /// </summary>
    private static void DrawMarks(SKCanvas canvas, DuePiece due, SKPaint hair)
    {
        var (foot, tick) = ((float)due.Cut.Height.Points, 9f);
        foreach (var fold in due.Marks.Folds.Select(f => (float)f.Points))
        {
            canvas.DrawLine(fold, 0, fold, tick, hair);
            canvas.DrawLine(fold, foot - tick, fold, foot, hair);
        }

        foreach (var hole in due.Marks.Holes)
        {
            var (x, y, r) = ((float)hole.X.Points, (float)hole.Y.Points, (float)hole.Diameter.Points / 2);
            canvas.DrawCircle(x, y, r, hair);
            canvas.DrawLine(x - r, y, x + r, y, hair);
            canvas.DrawLine(x, y - r, x, y + r, hair);
        }
    }

    /// <summary>
    /// The edge of a face goes on beyond its cut, larger by the bleed all around: a cut that runs a little outside
    /// shows no white.
    /// </summary>
    private void DrawBleed(SKCanvas canvas, Size cut, Length bleed, PieceFace face, double pixelsPerInch)
    {
        var (width, height, around) = ((float)cut.Width.Points, (float)cut.Height.Points, (float)bleed.Points);
        canvas.Save();
        canvas.ClipRect(new SKRect(-around, -around, width + around, height + around));
        canvas.ClipRect(new SKRect(0, 0, width, height), SKClipOperation.Difference);
        canvas.Translate(-around, -around);
        canvas.Scale((width + (2 * around)) / width, (height + (2 * around)) / height);
        pieces.Draw(canvas, face, pixelsPerInch);
        canvas.Restore();
    }

    /// <summary>Where each piece is cut, beside it and never on another one.</summary>
    private static void DrawCropMarks(SKCanvas canvas, PlannedSheet sheet, PrinterSetup setup, SKPaint hair)
    {
        var (away, long_) = (setup.Options.Bleed + Length.FromMillimetres(0.5m), Length.FromMillimetres(3));
        foreach (var piece in sheet.Pieces)
        {
            var b = piece.Bounds;
            foreach (var (x, right) in new[] { (b.X, -1), (b.Right, 1) })
            {
                foreach (var (y, down) in new[] { (b.Y, -1), (b.Bottom, 1) })
                {
                    Mark(x, y + (down * away), x, y + (down * (away + long_)));
                    Mark(x + (right * away), y, x + (right * (away + long_)), y);
                }
            }
        }

        void Mark(Length x1, Length y1, Length x2, Length y2)
        {
            var box = new Rect(
                Length.Min(x1, x2),
                Length.Min(y1, y2),
                Length.Max(Length.Abs(x2 - x1), new Length(1)),
                Length.Max(Length.Abs(y2 - y1), new Length(1))
            );
            var bleed = setup.Options.Bleed;
            var paper = new Rect(Length.Zero, Length.Zero, setup.Paper.Size);
            if (paper.Contains(box) && !sheet.Pieces.Any(p => Grown(p.Bounds, bleed).Overlaps(box)))
            {
                canvas.DrawLine((float)x1.Points, (float)y1.Points, (float)x2.Points, (float)y2.Points, hair);
            }
        }
    }

    /// <summary>The number of every piece in the middle of its back, light enough not to show through.</summary>
    private void DrawNumbersBehind(SKCanvas canvas, PlannedSheet sheet)
    {
        foreach (var piece in sheet.Pieces)
        {
            canvas.Save();
            canvas.Translate((float)piece.Bounds.X.Points, (float)piece.Bounds.Y.Points);
            Turn(canvas, piece);
            Centre(
                canvas,
                Typeface.Sans,
                9,
                piece.Due.Cut.Width.Points / 2,
                (piece.Due.Cut.Height.Points / 2) + 3,
                piece.Due.Number,
                piece.Due.Cut.Width.Points - 8
            );
            canvas.Restore();
        }
    }

    /// <summary>
    /// Draws one part of a piece that is larger than the paper, with register marks where it meets the next one: laid
    /// over each other, the marks of two parts are one.
    /// </summary>
    public void DrawTile(
        SKCanvas canvas,
        PlannedTile tile,
        PrinterSetup setup,
        string album,
        PieceFace face,
        double pixelsPerInch
    )
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(tile);
        ArgumentNullException.ThrowIfNull(setup);
        var (room, part) = (setup.ForPieces, tile.Part);
        using var hair = HairLine();
        canvas.Save();
        canvas.Translate((float)room.X.Points, (float)room.Y.Points);
        canvas.Save();
        canvas.ClipRect(new SKRect(0, 0, (float)part.Width.Points, (float)part.Height.Points));
        canvas.Translate(-(float)part.X.Points, -(float)part.Y.Points);
        pieces.Draw(canvas, face, pixelsPerInch);
        foreach (var (x, y) in RegisterMarks(tile))
        {
            var (cx, cy) = ((float)x.Points, (float)y.Points);
            canvas.DrawCircle(cx, cy, 4, hair);
            canvas.DrawLine(cx - 8, cy, cx + 8, cy, hair);
            canvas.DrawLine(cx, cy - 8, cx, cy + 8, hair);
        }

        canvas.Restore();
        canvas.DrawRect(0, 0, (float)part.Width.Points, (float)part.Height.Points, hair);
        canvas.Restore();
        var words =
            $"{Clip(album)} · {tile.Due.Number} · part {((tile.Row - 1) * tile.Columns) + tile.Column} of "
            + $"{tile.Rows * tile.Columns} · 100 %, no scaling. Lay the marks of two parts over each other and cut "
            + "through both along the middle of the overlap.";
        var lines = Copyfit
            .Fit(
                words,
                room.Width.Points,
                room.Height.Points,
                new TypeRange(Typeface.Sans, SmallPt, SmallPt, 1.2),
                fonts
            )
            .Lines;
        var top = room.Y.Points + part.Height.Points + 2;
        foreach (var line in lines)
        {
            Write(canvas, Typeface.Sans, SmallPt, room.X.Points + 2, top + line.Baseline, line.Text, Black);
        }
    }

    /// <summary>Points of the piece in the middle of each overlap, a quarter from its ends.</summary>
    private static IEnumerable<(Length X, Length Y)> RegisterMarks(PlannedTile tile)
    {
        var (part, half) = (tile.Part, Tiling.Overlap / 2);
        foreach (
            var x in new[] { (tile.Column > 1, part.X + half), (tile.Column < tile.Columns, part.Right - half) }
                .Where(x => x.Item1)
                .Select(x => x.Item2)
        )
        {
            yield return (x, part.Y + (part.Height / 4));
            yield return (x, part.Bottom - (part.Height / 4));
        }

        foreach (
            var y in new[] { (tile.Row > 1, part.Y + half), (tile.Row < tile.Rows, part.Bottom - half) }
                .Where(y => y.Item1)
                .Select(y => y.Item2)
        )
        {
            yield return (part.X + (part.Width / 4), y);
            yield return (part.Right - (part.Width / 4), y);
        }
    }

    private static SKPaint HairLine() =>
        new()
        {
            Color = new SKColor(120, 120, 120),
            StrokeWidth = 0.25f,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };

    /// <summary>Turns the canvas so that the piece stands as it is turned in its place.</summary>
    internal static void Turn(SKCanvas canvas, PlannedPiece piece)
    {
        var (x, y) = piece.Quarters switch
        {
            1 => (piece.Bounds.Width, Length.Zero),
            2 => (piece.Bounds.Width, piece.Bounds.Height),
            3 => (Length.Zero, piece.Bounds.Height),
            _ => (Length.Zero, Length.Zero),
        };
        canvas.Translate((float)x.Points, (float)y.Points);
        canvas.RotateDegrees(90 * piece.Quarters);
    }

    /// <summary>White around a piece that has a page of its own, for its cut marks and its number.</summary>
    public static Length OwnPageBorder => Length.FromInches(1, 2);

    /// <summary>The page of a piece that is larger than every sheet of the run.</summary>
    public static Size OwnPage(DuePiece due)
    {
        ArgumentNullException.ThrowIfNull(due);
        return new Size(due.Cut.Width + (2 * OwnPageBorder), due.Cut.Height + (2 * OwnPageBorder));
    }

    /// <summary>
    /// Draws a piece that is larger than the paper on a page of its own size, with marks where it is cut.
    /// </summary>
    public void DrawOwnPage(SKCanvas canvas, DuePiece due, string album, PieceFace face, double pixelsPerInch)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(due);
        var (border, width, height) = (
            (float)OwnPageBorder.Points,
            (float)due.Cut.Width.Points,
            (float)due.Cut.Height.Points
        );
        canvas.Save();
        canvas.Translate(border, border);
        pieces.Draw(canvas, face, pixelsPerInch);
        using var hair = HairLine();
        foreach (var (x, y) in new[] { (0f, 0f), (width, 0f), (0f, height), (width, height) })
        {
            var (outX, outY) = (x == 0 ? -1 : 1, y == 0 ? -1 : 1);
            canvas.DrawLine(x + (outX * 4), y, x + (outX * (border - 4)), y, hair);
            canvas.DrawLine(x, y + (outY * 4), x, y + (outY * (border - 4)), hair);
        }

        canvas.Restore();
        var words =
            $"{Clip(album)} · {due.Number} · {due.Cut} · {Name(due.Stock)} · larger than the sheets of this run: "
            + "print this page at 100 % on larger paper, or have it printed";
        Write(
            canvas,
            Typeface.SansStrong,
            Math.Min(7, 7 * width / fonts.Width(Typeface.SansStrong, 7, words)),
            border,
            height + (border * 1.6),
            words,
            Black
        );
    }

    /// <summary>
    /// Draws one of the two pages of a carrier sheet. The first has the outlines of the cards, their corners marked,
    /// and is printed on plain paper: it shows where the cards are taped. The second has nothing but the words, which
    /// land on the cards: an outline on both would be printed around the edges of the cards. Common practice.
    /// </summary>
    /// <param name="words">The second page.</param>
    public void DrawCarrier(
        SKCanvas canvas,
        PlannedSheet sheet,
        PrinterSetup setup,
        string album,
        Func<DuePiece, PieceFace> face,
        double pixelsPerInch,
        bool words
    )
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(sheet);
        ArgumentNullException.ThrowIfNull(setup);
        ArgumentNullException.ThrowIfNull(face);
        using var hair = HairLine();
        foreach (var card in words ? sheet.Pieces : [])
        {
            canvas.Save();
            canvas.Translate((float)card.Bounds.X.Points, (float)card.Bounds.Y.Points);
            Turn(canvas, card);
            pieces.Draw(canvas, face(card.Due), pixelsPerInch);
            canvas.Restore();
        }

        var (left, foot) = (Math.Max(24, setup.Margin.Points), (setup.Paper.Size.Height - setup.Margin).Points - 58);
        if (words)
        {
            // Over the lines of the first page, which are on this sheet already.
            Write(canvas, Typeface.Sans, 8, left, foot - 14, "Printed second, onto the cards that are taped on.", Grey);
            return;
        }

        foreach (var card in sheet.Pieces)
        {
            var (x, y, right, bottom) = (
                (float)card.Bounds.X.Points,
                (float)card.Bounds.Y.Points,
                (float)card.Bounds.Right.Points,
                (float)card.Bounds.Bottom.Points
            );
            canvas.DrawRect(new SKRect(x, y, right, bottom), hair);
            foreach (var (cornerX, out_) in new[] { (x, -1f), (right, 1f) })
            {
                canvas.DrawLine(cornerX + (out_ * 2), y, cornerX + (out_ * 12), y, hair);
                canvas.DrawLine(cornerX + (out_ * 2), bottom, cornerX + (out_ * 12), bottom, hair);
                canvas.DrawLine(cornerX, y - 2, cornerX, y - 12, hair);
                canvas.DrawLine(cornerX, bottom + 2, cornerX, bottom + 12, hair);
            }

            WriteInto(canvas, Typeface.SansStrong, NumberPt, x + 14, bottom + 11, card.Due.Number, right - x - 28);
        }

        Write(canvas, Typeface.SansStrong, 9, left, foot, $"{Clip(album)} · words for bought cards", Black);
        var lines = new[]
        {
            "1. Print this page on plain paper at 100 %, no scaling.",
            "2. Tape each bought card over its outline with tape that comes off, inside the printable part.",
            "3. Print the next page on this same sheet: the words land on the cards.",
            "Thick cards may not pass through every printer: follow the instructions of its maker first.",
        };
        foreach (var (line, i) in lines.Select((l, i) => (l, i)))
        {
            Write(canvas, Typeface.Sans, 8, left, foot + 13 + (i * 11), line, Grey);
        }
    }

    /// <summary>
    /// All numbers of a sheet as they lie: rows from the top, each from the left; the unit is named where it changes.
    /// </summary>
    private static string InRows(PlannedSheet sheet)
    {
        var words = new System.Text.StringBuilder();
        var unit = string.Empty;
        foreach (var row in sheet.Pieces.GroupBy(p => p.Bounds.Y).OrderBy(g => g.Key))
        {
            words.Append(words.Length > 0 ? " / " : string.Empty);
            foreach (var piece in row.OrderBy(p => p.Bounds.X))
            {
                var at = piece.Due.Number.LastIndexOf(' ');
                var own = at < 0 ? string.Empty : piece.Due.Number[..at];
                words
                    .Append(words.Length > 0 && words[^1] != ' ' ? " " : string.Empty)
                    .Append(own == unit ? piece.Due.Number[(at + 1)..] : piece.Due.Number);
                unit = own;
            }
        }

        return words.ToString();
    }

    /// <summary>
    /// A miniature of every sheet with all numbers and cut sizes, for the cutting table; <paramref name="first"/> is
    /// the index of the first sheet shown, four to a page.
    /// </summary>
    public void DrawKey(SKCanvas canvas, PrintPlan plan, string album, int first, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(canvas);
        ArgumentNullException.ThrowIfNull(plan);
        var (shown, page) = (KeySheets(plan), KeySize(plan));
        var inset = Math.Max(24, plan.Setup.Margin.Points);
        Write(canvas, Typeface.SansStrong, 13, inset, inset + 12, $"{album}: where each piece goes", Black);
        Write(
            canvas,
            Typeface.Sans,
            8,
            inset,
            inset + 26,
            "W = week, L = left page, R = right page, then the pocket. Cut in the order of the small numbers; the "
                + "stop of the trimmer is set as written. Not to scale.",
            Grey
        );
        const double gap = 18;
        var top = inset + 44;
        if (first == 0 && !plan.TooLarge.IsEmpty)
        {
            var list = string.Join(", ", plan.TooLarge.Select(d => $"{d.Number} ({d.Cut}, {Name(d.Stock)})"));
            foreach (
                var line in Copyfit
                    .Fit(
                        $"Larger than {plan.Setup.Paper.Name}, each on a page of its own: {list}.",
                        page.Width.Points - (2 * inset),
                        page.Height.Points / 4,
                        new TypeRange(Typeface.Sans, SmallPt, 8, 1.25),
                        fonts
                    )
                    .Lines
            )
            {
                Write(canvas, Typeface.Sans, 8, inset, inset + 30 + line.Baseline, line.Text, Black);
                top = inset + 44 + line.Baseline;
            }
        }

        var (cellWidth, cellHeight) = (
            (page.Width.Points - (2 * inset) - gap) / 2,
            (page.Height.Points - top - inset - gap) / 2
        );
        using var outline = new SKPaint
        {
            Color = new SKColor(90, 90, 90),
            StrokeWidth = 0.6f,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };
        for (var i = 0; i < 4 && first + i < shown.Count; i++)
        {
            var sheet = shown[first + i];
            var setup = plan.SetupOf(sheet);
            var paper = setup.Paper.Size;
            var scale = Math.Min(cellWidth / paper.Width.Points, (cellHeight - 46) / paper.Height.Points);
            var (x, y) = (inset + ((i % 2) * (cellWidth + gap)), top + ((i / 2) * (cellHeight + gap)));
            Write(
                canvas,
                Typeface.SansStrong,
                8,
                x,
                y + 8,
                $"Sheet {plan.Sheets.IndexOf(sheet) + 1}, {Name(sheet.Stock)}",
                Black
            );
            y += 14;
            canvas.DrawRect(
                (float)x,
                (float)y,
                (float)(paper.Width.Points * scale),
                (float)(paper.Height.Points * scale),
                outline
            );
            foreach (var piece in sheet.Pieces)
            {
                var b = piece.Bounds;
                var (px, py) = (x + (b.X.Points * scale), y + (b.Y.Points * scale));
                var (pw, ph) = (b.Width.Points * scale, b.Height.Points * scale);
                canvas.DrawRect((float)px, (float)py, (float)pw, (float)ph, outline);
                Centre(canvas, Typeface.SansStrong, 7, px + (pw / 2), py + (ph / 2), piece.Due.Number, pw - 2);
                Centre(
                    canvas,
                    Typeface.Sans,
                    SmallPt,
                    px + (pw / 2),
                    py + (ph / 2) + 8,
                    piece.Due.Cut.ToString(),
                    pw - 2
                );
            }

            var order = TrimmerCuts.Of(sheet, setup);
            foreach (var cut in order)
            {
                DrawCutNumber(canvas, cut, x, y, scale);
            }

            DrawCutList(canvas, order, x, y + (paper.Height.Points * scale) + 2, cellWidth, measures);
        }
    }

    /// <summary>The cuts in their order with the settings of the stop, in as many lines as they take.</summary>
    private void DrawCutList(
        SKCanvas canvas,
        IReadOnlyList<TrimmerCut> order,
        double x,
        double top,
        double room,
        MeasureSystem measures
    )
    {
        var words = order.Count == 0 ? "No cuts" : $"Cuts: {TrimmerCuts.InWords(order, measures)}";
        var lines = Copyfit.Fit(words, room, 40, new TypeRange(Typeface.Sans, SmallPt, SmallPt, 1.2), fonts).Lines;
        foreach (var line in lines)
        {
            Write(canvas, Typeface.Sans, SmallPt, x, top + line.Baseline, line.Text, Black);
        }
    }

    /// <summary>The number of a cut, on a white spot on its line.</summary>
    private void DrawCutNumber(SKCanvas canvas, TrimmerCut cut, double x, double y, double scale)
    {
        var line = cut.Line;
        // Near the end where it begins: lines that cross have their ends apart.
        var (cx, cy) = (
            x + ((line.X1.Points + ((line.X2 - line.X1).Points * 0.12)) * scale),
            y + ((line.Y1.Points + ((line.Y2 - line.Y1).Points * 0.12)) * scale)
        );
        using var spot = new SKPaint { Color = SKColors.White, IsAntialias = true };
        canvas.DrawCircle((float)cx, (float)cy, 5, spot);
        Centre(
            canvas,
            Typeface.SansStrong,
            SmallPt,
            cx,
            cy + 2.5,
            cut.Number.ToString(CultureInfo.InvariantCulture),
            12
        );
    }

    /// <summary>Backs are not cut: the key shows each paper once, from the front.</summary>
    private static List<PlannedSheet> KeySheets(PrintPlan plan) =>
        [.. plan.Sheets.Where(s => s.Side is SheetSide.Only or SheetSide.Front)];

    /// <summary>The paper of the key: that of the sheets, or A4 where those are too small to be read.</summary>
    public static Size KeySize(PrintPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return plan.Setup.Strip > Length.Zero ? plan.Setup.Paper.Size : Paper.A4.Size;
    }

    /// <summary>How many key pages a plan takes.</summary>
    public static int KeyPages(PrintPlan plan)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return Math.Max(plan.TooLarge.IsEmpty ? 0 : 1, (KeySheets(plan).Count + 3) / 4);
    }

    public static string Name(Stock stock) => Stocks.Name(stock);

    /// <summary>
    /// Writes each number into the waste or the gap beside its piece, where there is room; says whether there was for
    /// all.
    /// </summary>
    private bool DrawNumbers(SKCanvas canvas, PlannedSheet sheet, PrinterSetup setup)
    {
        var taken = new List<Rect>();
        var all = true;
        foreach (var piece in sheet.Pieces)
        {
            var width = fonts.Width(Typeface.SansStrong, NumberPt, piece.Due.Number);
            var label = new Size(Length.FromPoints((decimal)width + 2), Length.FromPoints((decimal)NumberPt + 2));
            var written = false;
            foreach (var spot in Spots(Grown(piece.Bounds, setup.Options.Bleed), label))
            {
                if (
                    setup.Usable.Contains(spot)
                    && !sheet.Pieces.Any(p => Grown(p.Bounds, setup.Options.Bleed).Overlaps(spot))
                    && !taken.Exists(t => t.Overlaps(spot))
                )
                {
                    taken.Add(spot);
                    Write(
                        canvas,
                        Typeface.SansStrong,
                        NumberPt,
                        spot.X.Points + 1,
                        spot.Y.Points + NumberPt,
                        piece.Due.Number,
                        Grey
                    );
                    written = true;
                    break;
                }
            }

            all &= written;
        }

        return all;
    }

    private static Rect Grown(Rect bounds, Length by) =>
        new(bounds.X - by, bounds.Y - by, bounds.Width + (2 * by), bounds.Height + (2 * by));

    /// <summary>Where a number tells at a glance which piece it is of: under it, beside it, over it.</summary>
    private static IEnumerable<Rect> Spots(Rect piece, Size label) =>
        [
            new Rect(piece.X, piece.Bottom, label),
            new Rect(piece.Right, piece.Y, label),
            new Rect(piece.X, piece.Y - label.Height, label),
        ];

    private void DrawFoot(SKCanvas canvas, PlannedSheet sheet, PrinterSetup setup, SheetHeading heading, string? rows)
    {
        var left = setup.Margin.Points;
        var bottom = (setup.Paper.Size.Height - setup.Margin).Points;
        var axis = bottom - (PrinterSetup.CheckStrip.Points / 2);
        using var ink = new SKPaint
        {
            Color = new SKColor(28, 26, 24),
            StrokeWidth = 0.4f,
            Style = SKPaintStyle.Stroke,
            IsAntialias = true,
        };

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

        Write(canvas, Typeface.Sans, SmallPt, left + hundred + 4, axis - 1.5, "100 mm", Black);
        Write(canvas, Typeface.Sans, SmallPt, left + four + 3, axis + 7, "4 in", Black);
        var words = string.Create(
            CultureInfo.InvariantCulture,
            $"{Clip(heading.Album)} · sheet {heading.Number} of {heading.Of} · {Name(sheet.Stock)}"
        );
        var percent =
            setup.MakesUpFor == PrinterFault.None
                ? "100 %"
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"made up for {100 * setup.MakesUpFor.ScaleX:0.0} × {100 * setup.MakesUpFor.ScaleY:0.0} %"
                );
        var turned =
            sheet.Side == SheetSide.Front
                ? $"Sheet {heading.Number + 1} goes on its back, turned on the long edge."
                : $"The back of sheet {heading.Number - 1}, turned on the long edge.";
        var scaling = sheet.Side switch
        {
            SheetSide.Front or SheetSide.Back => $"100 %, no scaling. {turned}",
            _ when setup.MakesUpFor != PrinterFault.None =>
                $"No scaling in the print dialog; {percent}: the rule must measure true.",
            _ => "Print at 100 %, no scaling: the rule must measure true.",
        };
        var (x0, room) = (left + four + 34, (setup.Paper.Size.Width - setup.Margin).Points - left - four - 34);
        var (first, second) =
            rows is null ? (words, scaling)
            // How the sheet goes back in matters more than what it is called.
            : sheet.Side is SheetSide.Front or SheetSide.Back
                ? ($"Sheet {heading.Number} of {heading.Of}, {percent}. {turned}", "In rows: " + rows)
            : fonts.Width(Typeface.SansStrong, SmallPt, "In rows: " + rows) <= room
                ? ($"{words}, {percent}", "In rows: " + rows)
            : InTwo($"Sheet {heading.Number} of {heading.Of}, {percent}, in rows: {rows}");
        WriteInto(canvas, Typeface.SansStrong, SmallPt, x0, axis - 2, first, room);
        WriteInto(canvas, rows is null ? Typeface.Sans : Typeface.SansStrong, SmallPt, x0, axis + 7, second, room);
    }

    /// <summary>Two lines of about one length.</summary>
    private static (string First, string Second) InTwo(string text)
    {
        var at = text.LastIndexOf(' ', Math.Min(text.Length - 1, (text.Length / 2) + 2));
        return (text[..at], text[(at + 1)..]);
    }

    private void WriteInto(
        SKCanvas canvas,
        Typeface face,
        double size,
        double x,
        double baseline,
        string text,
        double room
    )
    {
        var width = fonts.Width(face, size, text);
        Write(canvas, face, width > room ? size * room / width : size, x, baseline, text, Black);
    }

    private static string Clip(string album) => album.Length <= 28 ? album : album[..27] + "…";

    private void Centre(SKCanvas canvas, Typeface face, double size, double x, double y, string text, double room)
    {
        var width = fonts.Width(face, size, text);
        var fitted = width > room ? size * room / width : size;
        Write(canvas, face, fitted, x - (Math.Min(width, room) / 2), y, text, Black);
    }

    private void Write(SKCanvas canvas, Typeface face, double size, double x, double baseline, string text, Rgb ink) =>
        fonts.Draw(canvas, new TypeRun(face, size, x, baseline, text, ink));
}
