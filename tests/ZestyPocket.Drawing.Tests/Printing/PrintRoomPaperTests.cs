using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using System.Xml.Linq;
using SkiaSharp;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Printing;

/// <summary>
/// What leaves the print room as a file: boxes read by qpdf, lab pictures by exiftool, outlines by Skia's reader of SVG
/// paths. None of them shares code with what writes these files.
/// </summary>
public sealed class PrintRoomPaperTests
{
    private static readonly PrinterSetup Letter = new(Paper.Letter, Length.FromInches(1, 4), Length.Zero);

    private static readonly Rgb Ink = new(40, 90, 160);

    private static CardPieceFace Face(Size cut) =>
        new(cut, new CardFace(cut.Width.Points, cut.Height.Points, Ink, [], [], [], [], null));

    private static DuePiece Piece(int number, int width, int height, Stock stock = Stock.WhiteCard) =>
        new(new Guid(number, 0, 0, new byte[8]), $"W19 L{number}", Size.FromInches(width, height), stock);

    private sealed class NoCrops : IPrintCrops
    {
        public byte[] Jpeg(PhotoFace face, double pixelsPerInch) => throw new NotSupportedException();
    }

    private static string Run(string tool, params string[] arguments)
    {
        var start = new ProcessStartInfo(tool) { RedirectStandardOutput = true };
        foreach (var argument in arguments)
        {
            start.ArgumentList.Add(argument);
        }

        using var process = Process.Start(start)!;
        var text = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return text;
    }

    [Fact]
    public void A_bleed_goes_on_beyond_the_cut_and_the_boxes_say_so()
    {
        using var fonts = new FontShelf();
        var sheets = new SheetPainter(new PiecePainter(fonts, new NoCrops()), fonts);
        var bleed = Length.FromMillimetres(3);
        var setup = Letter with
        {
            Options = new SheetOptions { Bleed = bleed, CropMarks = true },
        };
        var plan = PrintPlan.For([Piece(1, 3, 4), Piece(2, 3, 4)], setup);
        var path = Path.GetTempFileName();
        try
        {
            var size = Paper.Letter.Size;
            var pieces = plan.Sheets[0].Pieces;
            var (x, y) = (pieces.Min(p => p.Bounds.X), pieces.Min(p => p.Bounds.Y));
            var trim = new Rect(x, y, pieces.Max(p => p.Bounds.Right) - x, pieces.Max(p => p.Bounds.Bottom) - y);
            void Draw(SKCanvas canvas) =>
                sheets.Draw(canvas, plan.Sheets[0], setup, new SheetHeading("Test", 1, 1), d => Face(d.Cut), 96);
            using (var file = new FileStream(path, FileMode.Truncate, FileAccess.ReadWrite))
            {
                PdfFile.Write(
                    file,
                    "Bleed",
                    [
                        new PdfPage(size.Width.Points, size.Height.Points, Draw)
                        {
                            Trim = trim,
                            BleedPt = bleed.Points,
                        },
                        new PdfPage(200, 100, _ => { }),
                    ]
                );
            }

            using var json = JsonDocument.Parse(Run("qpdf", "--json", "--json-key=qpdf", "--json-key=pages", path));
            var pages = json.RootElement.GetProperty("pages").EnumerateArray().ToList();
            var objects = json.RootElement.GetProperty("qpdf")[1];
            double[] Box(int page, string name) =>
                [
                    .. objects
                        .GetProperty($"obj:{pages[page].GetProperty("object").GetString()}")
                        .GetProperty("value")
                        .GetProperty(name)
                        .EnumerateArray()
                        .Select(v => v.GetDouble()),
                ];
            var (cut, bled) = (Box(0, "/TrimBox"), Box(0, "/BleedBox"));
            (cut[2] - cut[0]).ShouldBe(trim.Width.Points, 0.03);
            (cut[3] - cut[1]).ShouldBe(trim.Height.Points, 0.03);
            cut[0].ShouldBe(trim.X.Points, 0.03);
            // From the foot of the page.
            cut[3].ShouldBe(size.Height.Points - trim.Y.Points, 0.03);
            for (var i = 0; i < 4; i++)
            {
                (bled[i] - cut[i]).ShouldBe((i < 2 ? -1 : 1) * bleed.Points, 0.03);
            }

            Box(1, "/TrimBox").ShouldBe([0, 0, 200, 100]);

            // On paper: the colour goes on 3 mm beyond the cut and no further, and no mark lies on a piece.
            var png = Raster.Png(size.Width.Points, size.Height.Points, 150, Draw);
            using var page = SKBitmap.Decode(png);
            var first = pieces[0].Bounds;
            SKColor At(Length px, Length py) => page.GetPixel((int)(px.Points * 150 / 72), (int)(py.Points * 150 / 72));
            var middle = first.Y + (first.Height / 2);
            var ink = new SKColor(Ink.R, Ink.G, Ink.B);
            At(first.X - Length.FromMillimetres(2.5m), middle).ShouldBe(ink);
            At(first.X - Length.FromMillimetres(4), middle).ShouldBe(SKColors.White);
            At(first.X + Length.FromMillimetres(0.5m), middle).ShouldBe(ink);
        }
        finally
        {
            File.Delete(path);
        }
    }

    [Fact]
    public void A_back_keeps_its_safe_edge_and_a_front_goes_to_its_cut()
    {
        using var fonts = new FontShelf();
        var sheets = new SheetPainter(new PiecePainter(fonts, new NoCrops()), fonts);
        var setup = Letter with { Options = new SheetOptions { SafeEdge = Length.FromMillimetres(2) } };
        var back = new DueBack(new Guid(9, 0, 0, new byte[8]), "W19 L1 back", UpsideDown: false);
        var plan = PrintPlan.For([Piece(1, 3, 4) with { Back = back }], setup);
        plan.Sheets.Select(s => s.Side).ShouldBe([SheetSide.Front, SheetSide.Back]);
        foreach (var sheet in plan.Sheets)
        {
            var png = Raster.Png(
                612,
                792,
                150,
                c => sheets.Draw(c, sheet, setup, new SheetHeading("Test", 1, 2), d => Face(d.Cut), 96)
            );
            using var page = SKBitmap.Decode(png);
            var bounds = sheet.Pieces.Single().Bounds;
            var y = (int)((bounds.Y + (bounds.Height / 2)).Points * 150 / 72);
            byte Red(decimal mm) =>
                page.GetPixel((int)((bounds.X + Length.FromMillimetres(mm)).Points * 150 / 72), y).Red;
            Red(1).ShouldBe(sheet.Side == SheetSide.Back ? (byte)255 : Ink.R);
            Red(3).ShouldBe(Ink.R);
        }
    }

    [Fact]
    public void A_lab_picture_is_srgb_at_300_pixels_with_no_private_data_and_true_after_the_labs_enlargement()
    {
        using var fonts = new FontShelf();
        var lab = new LabPainter(new PiecePainter(fonts, new NoCrops()));
        var prints = LabPrints.Of(
            [Piece(1, 3, 4, Stock.PhotoPaper), Piece(2, 3, 4, Stock.PhotoPaper)],
            _ => "2026-W19"
        );
        var print = prints.ShouldHaveSingleItem();
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.jpg");
        try
        {
            File.WriteAllBytes(path, lab.Jpeg(print, d => Face(d.Cut)));
            using var json = JsonDocument.Parse(Run("exiftool", "-json", "-G1", path));
            var tags = json.RootElement[0].EnumerateObject().ToDictionary(p => p.Name, p => p.Value.ToString());
            tags["File:ImageWidth"].ShouldBe("1200");
            tags["File:ImageHeight"].ShouldBe("1800");
            tags["IFD0:XResolution"].ShouldBe("300");
            tags["ICC_Profile:ProfileDescription"].ShouldContain("sRGB");
            tags.Keys.ShouldNotContain(k =>
                k.StartsWith("GPS", StringComparison.Ordinal)
                || k == "IFD0:Make"
                || k == "IFD0:Model"
                || k.Contains("DateTimeOriginal", StringComparison.Ordinal)
                || k.StartsWith("XMP", StringComparison.Ordinal)
            );

            // The cut between the two lies in the middle; 2 % larger a piece is 3 in high again.
            using var picture = SKBitmap.Decode(path);
            var edge = Enumerable.Range(0, 200).First(px => picture.GetPixel(px, 450).Red < 200);
            var drawn = 1200 - (2 * edge);
            (drawn * LabPrints.Enlargement / 300).ShouldBe(4, 0.02);
        }
        finally
        {
            File.Delete(path);
        }
    }

    [Fact]
    public void Outlines_are_true_curves_in_real_units_one_layer_a_stock()
    {
        var cut = Size.FromInches(3, 4);
        var outline = new Outline(CutShape.Rectangle, new Rect(Length.Zero, Length.Zero, cut), Length.FromInches(1, 4));
        var hole = new PunchHole(Length.FromInches(1, 2), Length.FromInches(1), Length.FromInches(1, 4));
        var marked = Piece(2, 4, 6) with { Marks = new PaperMarks([Length.FromInches(1.5m)], [hole]) };
        var plan = PrintPlan.For([Piece(1, 3, 4), marked, Piece(3, 2, 2)], Letter);
        var svg = XDocument.Parse(
            CutOutlines.Svg(
                plan.Sheets[0],
                Paper.Letter.Size,
                due =>
                    due.Cut == cut
                        ? new FinishedFace(cut, [new FinishPart(string.Empty, outline, Ink, [])])
                        : Face(due.Cut)
            )
        );
        XNamespace ns = "http://www.w3.org/2000/svg";
        svg.Root!.Attribute("width")!.Value.ShouldBe("215.9mm");
        double.Parse(svg.Root.Attribute("viewBox")!.Value.Split(' ')[2], CultureInfo.InvariantCulture).ShouldBe(612);
        var layers = svg.Root.Elements(ns + "g").ToDictionary(g => g.Attribute("id")!.Value);
        layers.Keys.ShouldBe(["register-marks", "cut-white-card", "fold", "punch", "labels"], ignoreOrder: true);
        layers["register-marks"].Elements().Count().ShouldBe(4);
        foreach (var mark in layers["register-marks"].Elements())
        {
            using var corner = SKPath.ParseSvgPathData(mark.Attribute("d")!.Value);
            // In the margin of 1/4 in.
            var (x, y) = (corner.TightBounds.MidX, corner.TightBounds.MidY);
            (x < 18 || x > 594 || y < 18 || y > 774).ShouldBeTrue();
            plan.Sheets[0]
                .Pieces.ShouldAllBe(p =>
                    corner.TightBounds.Right < p.Bounds.X.Points
                    || corner.TightBounds.Left > p.Bounds.Right.Points
                    || corner.TightBounds.Bottom < p.Bounds.Y.Points
                    || corner.TightBounds.Top > p.Bounds.Bottom.Points
                );
        }
        foreach (var path in layers["cut-white-card"].Elements(ns + "path"))
        {
            var piece = plan.Sheets[0].Pieces.Single(p => p.Due.Number == path.Attribute("data-piece")!.Value);
            using var shape = SKPath.ParseSvgPathData(path.Attribute("d")!.Value);
            shape.Transform(Matrix(path.Attribute("transform")!.Value));
            var bounds = shape.TightBounds;
            ((double)bounds.Left).ShouldBe(piece.Bounds.X.Points, 0.02);
            ((double)bounds.Top).ShouldBe(piece.Bounds.Y.Points, 0.02);
            ((double)bounds.Right).ShouldBe(piece.Bounds.Right.Points, 0.02);
            ((double)bounds.Bottom).ShouldBe(piece.Bounds.Bottom.Points, 0.02);
            path.Attribute("d")!.Value.Contains('A', StringComparison.Ordinal).ShouldBe(piece.Due.Cut == cut);
        }

        // 1 1/2 in from the left edge of its piece, over its whole height; the hole 1/2 in from it and 1 in down.
        var folded = plan.Sheets[0].Pieces.Single(p => p.Due.Number == marked.Number);
        var fold = BoundsOf(layers["fold"].Elements(ns + "path").Single());
        var punched = BoundsOf(layers["punch"].Elements(ns + "path").Single());
        var turn = folded.Quarters % 2 == 1;
        ((double)Math.Max(fold.Width, fold.Height)).ShouldBe(6 * 72, 0.02);
        var (fromLeft, from) = folded.Quarters switch
        {
            0 => (fold.MidX - folded.Bounds.X.Points, (punched.MidX - folded.Bounds.X.Points)),
            1 => (fold.MidY - folded.Bounds.Y.Points, (punched.MidY - folded.Bounds.Y.Points)),
            _ => (folded.Bounds.Bottom.Points - fold.MidY, (folded.Bounds.Bottom.Points - punched.MidY)),
        };
        fromLeft.ShouldBe(1.5 * 72, 0.02);
        from.ShouldBe(36, 0.02);
        ((double)punched.Width).ShouldBe(18, 0.02);
        ((double)punched.Height).ShouldBe(18, 0.02);
        turn.ShouldBe(fold.Width > fold.Height);

        static SKRect BoundsOf(XElement path)
        {
            using var shape = SKPath.ParseSvgPathData(path.Attribute("d")!.Value);
            shape.Transform(Matrix(path.Attribute("transform")!.Value));
            return shape.TightBounds;
        }
    }

    [Fact]
    public void Folds_and_punch_holes_are_marked_on_the_piece_itself()
    {
        using var fonts = new FontShelf();
        var sheets = new SheetPainter(new PiecePainter(fonts, new NoCrops()), fonts);
        var hole = new PunchHole(Length.FromInches(1, 2), Length.FromInches(1), Length.FromInches(1, 4));
        var marked = Piece(1, 3, 4) with { Marks = new PaperMarks([Length.FromInches(1.5m)], [hole]) };
        var plan = PrintPlan.For([marked], Letter);
        var white = new CardFace(216, 288, new Rgb(255, 255, 255), [], [], [], [], null);
        var png = Raster.Png(
            612,
            792,
            144,
            canvas =>
                sheets.Draw(
                    canvas,
                    plan.Sheets[0],
                    Letter,
                    new SheetHeading("Test", 1, 1),
                    _ => new CardPieceFace(marked.Cut, white),
                    96
                )
        );
        using var page = SKBitmap.Decode(png);
        var placed = plan.Sheets[0].Pieces.Single();
        IsInk(1.5, 0.06).ShouldBeTrue("the fold at the head");
        IsInk(1.5, 3.94).ShouldBeTrue("the fold at the foot");
        IsInk(1.5, 2).ShouldBeFalse("no line across the piece");
        IsInk(0.5, 1).ShouldBeTrue("the middle of the hole");
        IsInk(0.5, 0.875).ShouldBeTrue("its rim");
        IsInk(0.7, 1.2).ShouldBeFalse("beside the hole");

        // From inches on the piece, upright, to the sheet.
        bool IsInk(double x, double y)
        {
            var (px, py) = placed.Quarters switch
            {
                0 => (placed.Bounds.X.Points + (72 * x), placed.Bounds.Y.Points + (72 * y)),
                1 => (placed.Bounds.Right.Points - (72 * y), placed.Bounds.Y.Points + (72 * x)),
                _ => (placed.Bounds.X.Points + (72 * y), placed.Bounds.Bottom.Points - (72 * x)),
            };
            return Enumerable
                .Range(-1, 3)
                .SelectMany(dx => Enumerable.Range(-1, 3).Select(dy => (dx, dy)))
                .Any(d => page.GetPixel((int)(2 * px) + d.dx, (int)(2 * py) + d.dy).Red < 235);
        }
    }

    private static SKMatrix Matrix(string transform)
    {
        var numbers = transform
            .Split(['(', ')', ' '], StringSplitOptions.RemoveEmptyEntries)
            .Select(t => float.TryParse(t, CultureInfo.InvariantCulture, out var n) ? n : (float?)null)
            .OfType<float>()
            .ToList();
        var move = SKMatrix.CreateTranslation(numbers[0], numbers[1]);
        return numbers.Count > 2 ? move.PreConcat(SKMatrix.CreateRotationDegrees(numbers[2])) : move;
    }

    [Fact]
    public void Templates_show_pockets_and_holes_at_true_size()
    {
        using var fonts = new FontShelf();
        var protector = Protector.Unmeasured(BuiltInDesigns.Find("9x12-nine-3x4")!) with { };
        protector = protector with { Form = protector.Form with { Holes = HolePattern.ThreeRings } };
        var pages = new TemplatePainter(fonts).Pages(protector, "nine 3x4", MeasureSystem.Inches).ToList();
        pages.Count.ShouldBe(3);
        foreach (var page in pages)
        {
            var png = Raster.Png(page.WidthPt, page.HeightPt, 72, page.Draw);
            using var picture = SKBitmap.Decode(png);
            (picture.Width, picture.Height).ShouldBe(((int)Math.Round(page.WidthPt), (int)Math.Round(page.HeightPt)));
        }

        // The middle hole lies in the middle of the edge, 5/16 in from it (from memory): dark there, on both pages.
        foreach (var page in pages.Take(2))
        {
            using var drawn = SKBitmap.Decode(Raster.Png(page.WidthPt, page.HeightPt, 144, page.Draw));
            var (x, y) = (72 + 45, 72 + (int)(protector.Outer.Height.Points));
            var ringed = Enumerable
                .Range(-2, 5)
                .Any(d => drawn.GetPixel(x + 18 + d, y).Red < 200 || drawn.GetPixel(x - 18 + d, y).Red < 200);
            ringed.ShouldBeTrue();
        }
    }
}
