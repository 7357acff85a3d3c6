using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>Pieces with a finish, a legend and a paper of their own, from the mat to the measured sheet.</summary>
public sealed class PiecesTests
{
    [Fact]
    public async Task A_matted_circle_a_bordered_print_a_legend_and_a_card_on_vellum_come_out_at_true_size()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Made to measure", "2026-05-04", units: 1);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 3)
                    .Select(i =>
                        ($"{i}.jpg", Pictures.Jpeg(1800, 2400, $"2026:05:0{4 + i} 10:00:00", shade: 60 + (40 * i)))
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "3 added");
        desk.ClickButton("Place");
        for (var i = 0; i < 3; i++)
        {
            desk.Drag(desk.See($".loose[aria-label^='Loose photo {i}.jpg']"), desk.Pocket($"W19 L{i + 1}"));
            desk.UntilPocket($"W19 L{i + 1}", $"photo {i}.jpg");
        }

        // A circle on a mat that peeps out an eighth of an inch: 2 3/4 in of a 3 in pocket.
        Open(desk, "W19 L1", "Border, mats and shape");
        desk.Choose("[id^='shape-']", "Circle");
        desk.UntilText("[data-testid='notice']", "Changed the finish of a piece in W19 L1");
        desk.ClickButton("Add mat");
        desk.See("[id^='mat-0-']");
        desk.AxeFindings().ShouldBeEmpty("a finish");

        // An even border of a quarter inch, given to all prints and taken back by undo.
        Open(desk, "W19 L2", "Border, mats and shape");
        Change(desk, "[id^='border-']", "1/4 in");
        desk.UntilText("[data-testid='notice']", "Changed the finish of a piece in W19 L2");
        desk.ClickButton("Use for all 3 prints");
        desk.UntilText("[data-testid='notice']", "Changed the finish of 3 pieces");
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Changed the finish of 3 pieces");

        // A border that leaves nothing is refused and keeps what was.
        Change(desk, "[id^='border-']", "1 1/2 in");
        desk.UntilText("[data-testid='notice']", "A border is 0 to 1 in");
        desk.Until(
            "the border as it was",
            () => desk.See("[id^='border-']").GetAttribute("value") == "1/4 in" ? "yes" : null
        );

        // Two numbered pictures and their card; a card on vellum that is stamped by hand.
        Open(desk, "W19 L3", "Paper, legend, steps by hand");
        Change(desk, "[id^='legend-']", "the weir");
        desk.UntilText("[data-testid='notice']", "Added a picture to the legend: the weir");
        desk.Click("[data-code='W19 L4']");
        desk.ClickButton("Add a journaling card");
        desk.UntilPocket("W19 L4", "card Journaling card");
        desk.Write(".card-editor textarea", "Held up to the light.");
        desk.UntilText("[data-testid='notice']", "Edited a journaling card");
        Open(desk, "W19 L4", "Paper, legend, steps by hand");
        desk.Choose("[id^='stock-']", "vellum");
        desk.UntilText("[data-testid='notice']", "to vellum");
        desk.Write("[aria-label='What exactly']", "the date");
        desk.ClickButton("Add step");
        desk.UntilText("[data-testid='notice']", "Changed the steps by hand in W19 L4");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "5 pieces on");
        desk.UntilText("[data-testid='plan-words']", "vellum");
        desk.UntilText("[data-testid='by-hand']", "W19 L4 Stamp: the date");
        desk.UntilText("[data-testid='by-hand']", "Follow the instructions of the tool’s maker first.");
        Measure(desk.CreatePdf());
        // The browser notes the one refusal that was asked for.
        desk.Complaints().ShouldHaveSingleItem().ShouldContain("422");
    }

    [Fact]
    public async Task A_circle_over_words_in_a_half_circle_is_composed_changed_and_undone()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Composed", "2026-05-04", units: 1);
        GatherTests.Send(desk, ("0.jpg", Pictures.Jpeg(1800, 2400, "2026:05:04 10:00:00", shade: 90)));
        desk.UntilText("[data-testid='intake-counts']", "1 added");
        desk.ClickButton("Place");
        desk.See(".loose[aria-label^='Loose photo 0.jpg']");
        desk.Click("[data-code='W19 L5']");
        desk.ClickButton("Make a composition");
        desk.ClickButton("Circle over a half circle of words");
        desk.UntilPocket("W19 L5", "composition Circle over a half circle of words");
        // Its picture is in it, so it is not loose any more.
        desk.Gone(".loose[aria-label^='Loose photo 0.jpg']");
        desk.Write("#words-of-2", "The river said nothing." + Keys.Tab);
        desk.UntilText("[data-testid='notice']", "Changed a composition in W19 L5");
        desk.AxeFindings().ShouldBeEmpty("a composition");
        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "1 piece on 1 sheet of photo paper");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            string.Concat(pdf.GetPages().Select(p => p.Text)).ShouldContain("river");
            pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(1);
        }

        desk.ClickButton("Place");
        desk.See("[data-code='W19 L5']");
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Changed a composition");
        desk.PressControl("z");
        desk.UntilPocket("W19 L5", "empty");
        desk.See(".loose[aria-label^='Loose photo 0.jpg']");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_flip_with_its_back_and_a_label_over_a_picture_land_on_each_other_through_the_sheet()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Lifted", "2026-05-04", units: 1);
        GatherTests.Send(desk, ("0.jpg", Pictures.Jpeg(1800, 2400, "2026:05:04 10:00:00", shade: 90)));
        desk.UntilText("[data-testid='intake-counts']", "1 added");
        desk.ClickButton("Place");
        desk.Drag(desk.See(".loose[aria-label^='Loose photo 0.jpg']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "photo 0.jpg");
        Open(desk, "W19 L1", "Flips, tags, backs, labels");
        desk.ClickButton("Add");
        desk.UntilText("[data-testid='notice']", "Added a flip in W19 L1");
        desk.Write(".card-editor textarea", "Lift me.");
        desk.UntilText("[data-testid='notice']", "Edited a journaling card");
        desk.ClickButton("Add back");
        desk.UntilText("[data-testid='notice']", "Added a back in W19 L1");
        desk.Write(".card-editor textarea", "The back of it.");
        desk.UntilText("[data-testid='notice']", "Edited a journaling card");
        desk.ClickButton("Back to the piece in the pocket");
        desk.ClickButton("Write a label");
        desk.Write("#label-words", "at the weir");
        desk.ClickButton("Stick it on");
        desk.UntilText("[data-testid='notice']", "Added a label in W19 L1");
        desk.ClickButton("Lift");
        desk.See("[data-lifted='yes']");
        desk.AxeFindings().ShouldBeEmpty("a lifted flip");
        desk.UntilPocket("W19 L1", "flip Lift me.");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "4 pieces on");
        desk.UntilText("[data-testid='plan-words']", "label sheet");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            var front = pdf.GetPages().Single(p => p.Text.Contains("Lift me.", StringComparison.Ordinal));
            var back = pdf.GetPages().Single(p => p.Text.Contains("The back of it.", StringComparison.Ordinal));
            back.Number.ShouldBe(front.Number + 1);
            back.Text.ShouldContain($"The back of sheet {front.Number}");
            // Turned over on the long edge, the paper of one card lies on that of the other.
            var (card, behind) = (CardOn(front), CardOn(back));
            (Math.Abs(card.Left + behind.Right - front.Width) / 72 * 25.4).ShouldBeLessThan(0.05);
            (Math.Abs(card.Right + behind.Left - front.Width) / 72 * 25.4).ShouldBeLessThan(0.05);
            (Math.Abs(card.Bottom - behind.Bottom) / 72 * 25.4).ShouldBeLessThan(0.05);
        }

        desk.ClickButton("Place");
        desk.See("[data-code='W19 L1']");
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Added a label");
        desk.Complaints().ShouldBeEmpty();

        // The ground of a 3x4 card, upright or turned.
        static UglyToad.PdfPig.Core.PdfRectangle CardOn(UglyToad.PdfPig.Content.Page page) =>
            page
                .Paths.Where(p => p.IsFilled)
                .Select(p => p.GetBoundingRectangle())
                .OfType<UglyToad.PdfPig.Core.PdfRectangle>()
                .First(r => Math.Abs((r.Width * r.Height) - (216 * 288)) < 20 && r.Width is > 210 and < 295);
    }

    /// <summary>The bytes of the PDF: pictures as large as their finish leaves them, within 0.05 mm.</summary>
    private static void Measure(string path)
    {
        using var pdf = PdfDocument.Open(path);
        var pictures = pdf.GetPages()
            .SelectMany(p => p.GetImages())
            .Select(i => (Across: i.BoundingBox.Width / 72 * 25.4, Down: i.BoundingBox.Height / 72 * 25.4))
            .ToList();
        pictures.Count.ShouldBe(3);
        // The circle of 3 in less an eighth on each side; 3x4 less a quarter on each side; 3x4 whole.
        foreach (var (across, down) in new[] { (69.85, 69.85), (63.5, 88.9), (76.2, 101.6) })
        {
            pictures.ShouldContain(p =>
                (Math.Abs(p.Across - across) < 0.05 && Math.Abs(p.Down - down) < 0.05)
                || (Math.Abs(p.Across - down) < 0.05 && Math.Abs(p.Down - across) < 0.05)
            );
        }

        var text = string.Join(' ', pdf.GetPages().Select(p => p.Text));
        text.ShouldContain("W19 L1 mat");
        text.ShouldContain("light.");
    }

    internal static void Open(Desk desk, string code, string panel)
    {
        desk.See($"[data-code='{code}']");
        desk.Until(
            $"{code} in hand",
            () =>
            {
                desk.Click($"[data-code='{code}']");
                return desk.See(".drawer h2").Text.StartsWith(code, StringComparison.Ordinal) ? "yes" : null;
            }
        );
        desk.Until(
            panel,
            () =>
            {
                var details = desk
                    .Browser.FindElements(By.CssSelector(".drawer details"))
                    .First(d => d.FindElement(By.TagName("summary")).Text == panel);
                if (details.GetAttribute("open") is null)
                {
                    details.FindElement(By.TagName("summary")).Click();
                }

                return "yes";
            }
        );
    }

    private static void Change(Desk desk, string css, string words) => desk.Write(css, words + Keys.Tab);
}
