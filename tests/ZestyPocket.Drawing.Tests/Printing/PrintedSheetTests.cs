using System.Globalization;
using UglyToad.PdfPig;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Printing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Printing;

/// <summary>
/// Printed sheets read back with other people's readers: PdfPig, qpdf and poppler. Sizes are arithmetic; the page
/// boxes are those of ISO 32000-1, 14.11.2, the output intent of 14.11.5.
/// </summary>
public sealed class PrintedSheetTests : IDisposable
{
    private const string Words = "Affinity of waffles: “first flight” of the office kite. Łódź, naïve, Σ.";
    private readonly TestPictures _pictures = new();
    private readonly FontShelf _fonts = new();

    public void Dispose()
    {
        _pictures.Dispose();
        _fonts.Dispose();
    }

    [Theory]
    [InlineData("letter")]
    [InlineData("a4")]
    public void Every_photo_print_measures_its_cut_size_within_a_twentieth_of_a_millimetre(string paper)
    {
        var (pdf, plan) = Print(Paper.Find(paper)!);

        using var document = PdfDocument.Open(pdf);
        var pages = document.GetPages().ToList();
        pages.Count.ShouldBe(plan.Sheets.Length + SheetPainter.KeyPages(plan));
        for (var i = 0; i < plan.Sheets.Length; i++)
        {
            var drawn = pages[i]
                .GetImages()
                .Select(image => image.BoundingBox)
                .Select(b => (X: b.Left, Y: pages[i].Height - b.Top, b.Width, b.Height))
                .ToList();
            var planned = plan.Sheets[i].Pieces.Where(p => p.Due.Stock == Stock.PhotoPaper).ToList();
            drawn.Count.ShouldBe(planned.Count);
            foreach (var piece in planned)
            {
                var b = piece.Bounds;
                drawn
                    .Any(d => Near(d.X, b.X) && Near(d.Y, b.Y) && Near(d.Width, b.Width) && Near(d.Height, b.Height))
                    .ShouldBeTrue($"{piece.Due.Number} should lie at {b}");
            }
        }

        static bool Near(double points, Length length) =>
            Math.Abs((points / 72 * 25.4) - (double)length.Millimetres) < 0.05;
    }

    [Fact]
    public async Task Qpdf_finds_nothing_wrong_with_the_file()
    {
        var (pdf, _) = Print(Paper.Letter);
        var (code, output) = await OtherReaders.Run("qpdf", "--check", pdf);
        output.ShouldContain("No syntax or stream encoding errors found");
        code.ShouldBe(0, output);
    }

    [Fact]
    public async Task Every_font_is_embedded_and_can_be_copied_as_text()
    {
        var (pdf, _) = Print(Paper.Letter);
        var (_, fonts) = await OtherReaders.Run("pdffonts", pdf);
        var rows = fonts.Split('\n').Skip(2).Where(r => r.Length > 0).ToList();
        rows.Count.ShouldBeGreaterThanOrEqualTo(3);
        // pdffonts columns from the right: object, generation, then uni, sub, emb.
        foreach (var columns in rows.Select(r => r.Split(' ', StringSplitOptions.RemoveEmptyEntries)))
        {
            columns[^5].ShouldBe("yes", $"embedded: {string.Join(' ', columns)}");
            columns[^3].ShouldBe("yes", $"has a map to Unicode: {string.Join(' ', columns)}");
        }
    }

    [Fact]
    public async Task The_words_on_a_card_come_back_letter_for_letter()
    {
        var (pdf, _) = Print(Paper.Letter);
        var (_, text) = await OtherReaders.Run("pdftotext", "-raw", pdf, "-");
        var flat = string.Join(' ', text.Split([' ', '\n', '\f'], StringSplitOptions.RemoveEmptyEntries));
        flat.ShouldContain(Words);
    }

    [Fact]
    public async Task Pictures_are_at_the_promised_resolution()
    {
        var (pdf, plan) = Print(Paper.Letter);
        var (_, listing) = await OtherReaders.Run("pdfimages", "-list", pdf);
        var rows = listing
            .Split('\n')
            .Skip(2)
            .Where(r => r.Length > 0)
            .Select(r => r.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .ToList();
        rows.Count.ShouldBe(plan.Sheets.Sum(s => s.Pieces.Count(p => p.Due.Stock == Stock.PhotoPaper)));
        foreach (var row in rows)
        {
            // page num type width height color comp bpc enc interp object ID x-ppi y-ppi size ratio
            row[8].ShouldBe("jpeg", "the crop passes into the PDF as the JPEG it is");
            int.Parse(row[12], CultureInfo.InvariantCulture).ShouldBeGreaterThanOrEqualTo(300);
            int.Parse(row[13], CultureInfo.InvariantCulture).ShouldBeGreaterThanOrEqualTo(300);
        }
    }

    [Fact]
    public async Task Pages_carry_boxes_an_srgb_intent_and_ask_for_no_scaling()
    {
        var (pdf, _) = Print(Paper.A4);
        var (_, boxes) = await OtherReaders.Run("pdfinfo", "-box", "-l", "99", pdf);
        foreach (var box in new[] { "MediaBox", "TrimBox", "BleedBox", "CropBox" })
        {
            boxes.ShouldMatch($@"Page\s+1 {box}:\s+0\.00\s+0\.00\s+595\.2\d\s+841\.8\d");
        }

        var (_, plain) = await OtherReaders.Run("qpdf", "--qdf", "--object-streams=disable", pdf, "-");
        plain.ShouldContain("/PrintScaling /None");
        plain.ShouldContain("/OutputIntents");
        plain.ShouldContain("/OutputConditionIdentifier (sRGB IEC61966-2.1)");
        plain.ShouldContain("acsp", customMessage: "an ICC profile (ICC.1, profile file signature) is inside");
    }

    [Fact]
    public void The_camera_and_its_position_do_not_leave_with_the_print()
    {
        var (pdf, _) = Print(Paper.Letter);
        var bytes = System.Text.Encoding.Latin1.GetString(File.ReadAllBytes(pdf));
        bytes.ShouldNotContain("Exif");
        bytes.ShouldNotContain("Secret Camera");
    }

    [Fact]
    public void The_check_rule_is_100_millimetres_and_4_inches_long()
    {
        var (pdf, plan) = Print(Paper.Letter);
        using var document = PdfDocument.Open(pdf);
        var page = document.GetPage(1);
        var axis = (plan.Setup.Paper.Size.Height - plan.Setup.Margin).Points - (PrinterSetup.CheckStrip.Points / 2);
        var ticks = page
            .Paths.Where(p => p.IsStroked)
            .Select(p => p.GetBoundingRectangle()!.Value)
            .Where(b => b.Width < 0.01 && b.Height > 2 && b.Height < 8)
            .ToList();
        var above = ticks
            .Where(b => page.Height - b.Bottom - axis is > -0.1 and < 0.1)
            .Select(b => b.Left)
            .Order()
            .ToList();
        var below = ticks
            .Where(b => page.Height - b.Top - axis is > -0.1 and < 0.1)
            .Select(b => b.Left)
            .Order()
            .ToList();
        ((above[^1] - above[0]) / 72 * 25.4).ShouldBe(100, 0.01);
        ((below[^1] - below[0]) / 72).ShouldBe(4, 0.001);
        above.Count.ShouldBe(11);
        below.Count.ShouldBe(17);
    }

    [Fact]
    public void Each_piece_carries_its_number_on_the_sheet_or_on_the_key_page()
    {
        var (pdf, plan) = Print(Paper.Letter);
        using var document = PdfDocument.Open(pdf);
        var key = string.Concat(
            document.GetPages().Skip(plan.Sheets.Length).SelectMany(p => p.Letters).Select(l => l.Value)
        );
        foreach (var due in plan.Sheets.SelectMany(s => s.Pieces).Select(p => p.Due))
        {
            key.ShouldContain(due.Number);
        }
    }

    [Fact]
    public void With_a_gap_of_4_mm_every_number_stands_beside_its_piece_on_the_sheet_itself()
    {
        var (pdf, plan) = Print(Paper.A4, Length.FromMillimetres(4));
        using var document = PdfDocument.Open(pdf);
        for (var i = 0; i < plan.Sheets.Length; i++)
        {
            var words = document.GetPage(i + 1).Text;
            foreach (var piece in plan.Sheets[i].Pieces)
            {
                words.ShouldContain(piece.Due.Number);
            }
        }
    }

    [Theory]
    [InlineData("letter", 0)]
    [InlineData("letter", 4)]
    [InlineData("a4", 0)]
    public void Nothing_that_is_printed_beside_the_pieces_is_smaller_than_7_points(string paper, int gap)
    {
        var (pdf, plan) = Print(Paper.Find(paper)!, Length.FromMillimetres(gap));
        using var document = PdfDocument.Open(pdf);
        var pages = document.GetPages().ToList();
        for (var i = 0; i < pages.Count; i++)
        {
            var height = pages[i].Height;
            var pieces = i < plan.Sheets.Length ? plan.Sheets[i].Pieces : [];
            var beside = pages[i]
                .Letters.Where(l => !string.IsNullOrWhiteSpace(l.Value))
                .Where(l =>
                    !pieces.Any(p =>
                        l.StartBaseLine.X >= p.Bounds.X.Points
                        && l.StartBaseLine.X <= p.Bounds.Right.Points
                        && height - l.StartBaseLine.Y >= p.Bounds.Y.Points
                        && height - l.StartBaseLine.Y <= p.Bounds.Bottom.Points
                    )
                )
                .ToList();
            beside.ShouldNotBeEmpty();
            beside.Min(l => l.PointSize).ShouldBeGreaterThanOrEqualTo(6.99, $"page {i + 1}");
        }
    }

    [Fact]
    public void The_same_sheets_give_the_same_bytes()
    {
        var (first, _) = Print(Paper.Letter);
        var bytes = File.ReadAllBytes(first);
        var (second, _) = Print(Paper.Letter);
        File.ReadAllBytes(second).ShouldBe(bytes);
    }

    private (string Path, PrintPlan Plan) Print(Paper paper, Length gap = default)
    {
        var landscape = _pictures.Jpeg(
            "a.jpg",
            3000,
            2000,
            ("exif-ifd0-Make", "Secret Camera"),
            ("exif-ifd3-GPSLatitude", "52/1 30/1 0/1")
        );
        var faces = new Dictionary<Guid, PieceFace>();
        var due = new List<DuePiece>();
        foreach (
            var (cut, i) in new[]
            {
                Size.FromInches(6, 4),
                Size.FromInches(3, 4),
                Size.FromInches(3, 4),
                Size.FromInches(2, 2),
            }.Select((c, i) => (c, i))
        )
        {
            var id = Guid.CreateVersion7();
            faces[id] = _pictures.Face(landscape, new PixelSize(3000, 2000), cut);
            due.Add(
                new DuePiece(id, PieceNumber.For("W19", Core.Pages.LeafSide.Back, 1, i + 1), cut, Stock.PhotoPaper)
            );
        }

        var cardId = Guid.CreateVersion7();
        var card = Size.FromInches(3, 4);
        faces[cardId] = new CardPieceFace(
            card,
            CardComposer.Journaling(Words, BuiltInCardStyles.Find("reading-serif", CardKind.Journaling), card, _fonts)
        );
        due.Add(new DuePiece(cardId, "W19 R1", card, Stock.WhiteCard));

        var setup = new PrinterSetup(paper, Length.FromInches(1, 4), gap);
        var plan = PrintPlan.For(due, setup);
        var painter = new SheetPainter(new PiecePainter(_fonts, _pictures), _fonts);
        var path = Path.Combine(_pictures.Folder, $"{Guid.NewGuid():N}.pdf");
        using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite);
        PdfFile.Write(file, "Test", Pages());
        return (path, plan);

        IEnumerable<PdfPage> Pages()
        {
            for (var i = 0; i < plan.Sheets.Length; i++)
            {
                var number = i;
                yield return new PdfPage(
                    paper.Size.Width.Points,
                    paper.Size.Height.Points,
                    canvas =>
                        painter.Draw(
                            canvas,
                            plan.Sheets[number],
                            setup,
                            new SheetHeading("Test", number + 1, plan.Sheets.Length),
                            d => faces[d.PieceId],
                            300
                        )
                );
            }

            for (var page = 0; page < SheetPainter.KeyPages(plan); page++)
            {
                var number = page;
                yield return new PdfPage(
                    paper.Size.Width.Points,
                    paper.Size.Height.Points,
                    canvas => painter.DrawKey(canvas, plan, "Test", number * 4, MeasureSystem.Inches)
                );
            }
        }
    }

    [Theory]
    [InlineData(3, 4, 6)]
    [InlineData(2, 2, 20)]
    [InlineData(6, 4, 3)]
    public void Every_piece_number_is_on_its_sheet_also_without_a_gap(int width, int height, int count)
    {
        DuePiece[] due =
        [
            .. Enumerable
                .Range(1, count)
                .Select(i => new DuePiece(
                    Guid.CreateVersion7(),
                    $"W19 {(i % 2 == 0 ? 'L' : 'R')}{i}",
                    Size.FromInches(width, height),
                    Stock.WhiteCard
                )),
        ];
        var plan = PrintPlan.For(
            due,
            new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero),
            cancel: TestContext.Current.CancellationToken
        );
        plan.Sheets.Length.ShouldBe(1);
        using var document = PdfDocument.Open(Drawn(plan));
        var text = document.GetPage(1).Text;
        due.ShouldAllBe(d => text.Contains(d.Number.Split(' ')[1], StringComparison.Ordinal), text);
        text.ShouldContain("W19");
    }

    [Fact]
    public void A_piece_larger_than_the_paper_has_a_page_of_its_own_and_is_in_the_key()
    {
        DuePiece[] due = [new(Guid.CreateVersion7(), "W19 L1", Size.FromInches(9, 12), Stock.WhiteCard)];
        var plan = PrintPlan.For(
            due,
            new PrinterSetup(Paper.Letter, Length.FromInches(1, 4), Length.Zero),
            cancel: TestContext.Current.CancellationToken
        );
        using var document = PdfDocument.Open(Drawn(plan));
        document.NumberOfPages.ShouldBe(2);
        (document.GetPage(1).Width, document.GetPage(1).Height).ShouldBe((10 * 72, 13 * 72));
        document.GetPage(1).Text.ShouldContain("W19 L1");
        document.GetPage(2).Text.ShouldContain("W19 L1");
    }

    [Theory]
    [InlineData(0)]
    [InlineData(5)]
    [InlineData(12)]
    public void A_border_is_as_wide_at_a_rounded_corner_as_at_a_side(int cornerMm)
    {
        var style = BuiltInCardStyles.Plain with { BorderPt = 6, Corner = Length.FromMillimetres(cornerMm) };
        var face = CardComposer.Journaling(string.Empty, style, Size.FromInches(3, 4), _fonts);
        var radius = face.Corner;
        using var surface = SkiaSharp.SKSurface.Create(new SkiaSharp.SKImageInfo(432, 576));
        surface.Canvas.Clear(SkiaSharp.SKColors.White);
        surface.Canvas.Scale(2);
        new PiecePainter(_fonts, _pictures).Draw(surface.Canvas, new CardPieceFace(Size.FromInches(3, 4), face), 144);
        using var image = surface.Snapshot();
        using var pixels = SkiaSharp.SKBitmap.FromImage(image);
        var accent = new SkiaSharp.SKColor(style.Accent.R, style.Accent.G, style.Accent.B);
        // From the middle of the corner's circle outwards, along the diagonal: border from radius − 6 to radius.
        var out45 = Math.Sqrt(0.5);
        foreach (var along in radius > 6 ? new[] { radius - 5, radius - 3, radius - 1 } : [])
        {
            pixels
                .GetPixel((int)(2 * (radius - (along * out45))), (int)(2 * (radius - (along * out45))))
                .Red.ShouldBeInRange((byte)(accent.Red - 3), (byte)(accent.Red + 3));
        }

        pixels.GetPixel(216, 6).Red.ShouldBeInRange((byte)(accent.Red - 3), (byte)(accent.Red + 3));
        pixels.GetPixel(216, 16).ShouldNotBe(accent);
        if (radius > 8)
        {
            var inside = (int)(2 * (radius - ((radius - 8) * out45)));
            pixels.GetPixel(inside, inside).ShouldNotBe(accent);
        }
    }

    [Fact]
    public void A_tag_for_the_date_is_there_only_with_a_date_and_typed_lines_stand_on_their_rules()
    {
        var tagged = BuiltInCardStyles.All.First(s =>
            s.Dress == CardDress.CornerTag && s.Zones.Indent == Length.Zero && s.Role == StyleRole.Words
        );
        CardComposer
            .Journaling("words", tagged, Size.FromInches(3, 4), _fonts)
            .Boxes.ShouldNotContain(b => b.Ink == tagged.Accent && b.X == 0 && b.Y == 0);
        CardComposer
            .Journaling("words", tagged, Size.FromInches(3, 4), _fonts, mark: "Mon 4")
            .Boxes.ShouldContain(b => b.Ink == tagged.Accent && b.X == 0 && b.Y == 0);
        foreach (var face in Enum.GetValues<Typeface>())
        {
            var ruled = BuiltInCardStyles.Plain with
            {
                Ruled = true,
                Type = BuiltInCardStyles.Plain.Type with { Face = face },
            };
            var card = CardComposer.Journaling("one two three", ruled, Size.FromInches(3, 4), _fonts);
            (card.Rules.First(r => r.Thickness == 0.5).Y1 - card.Fit!.Slots[0].Baseline).ShouldBe(
                card.Fit.SizePt * CardComposer.RuleUnderEm,
                0.001
            );
        }
    }

    /// <summary>All pages of a plan of plain cards.</summary>
    private string Drawn(PrintPlan plan)
    {
        var path = Path.Combine(_pictures.Folder, $"{Guid.NewGuid():N}.pdf");
        var painter = new SheetPainter(new PiecePainter(_fonts, _pictures), _fonts);
        using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite);
        var paper = plan.Setup.Paper.Size;
        PieceFace Face(DuePiece due) =>
            new CardPieceFace(due.Cut, CardComposer.Filler(BuiltInCardStyles.Plain, due.Cut));
        PdfFile.Write(
            file,
            "Sheets",
            [
                .. plan.Sheets.Select(
                    (s, i) =>
                        new PdfPage(
                            paper.Width.Points,
                            paper.Height.Points,
                            c =>
                                painter.Draw(
                                    c,
                                    s,
                                    plan.Setup,
                                    new SheetHeading("Album", i + 1, plan.Sheets.Length),
                                    Face,
                                    300
                                )
                        )
                ),
                .. plan.TooLarge.Select(d => new PdfPage(
                    SheetPainter.OwnPage(d).Width.Points,
                    SheetPainter.OwnPage(d).Height.Points,
                    c => painter.DrawOwnPage(c, d, "Album", Face(d), 300)
                )),
                .. Enumerable
                    .Range(0, SheetPainter.KeyPages(plan))
                    .Select(k => new PdfPage(
                        paper.Width.Points,
                        paper.Height.Points,
                        c => painter.DrawKey(c, plan, "Album", 4 * k, MeasureSystem.Inches)
                    )),
            ]
        );
        return path;
    }
}
