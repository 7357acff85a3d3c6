using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>From a printer that shrinks to a leaf with everything in its pocket, and one changed card again.</summary>
public sealed class PaperTests
{
    [Fact]
    public async Task A_printer_is_found_out_what_is_due_is_printed_and_tucked_in_and_a_changed_card_is_printed_alone()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "On paper", "2026-05-04", units: 1);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 4)
                    .Select(i =>
                        ($"{i}.jpg", Pictures.Jpeg(900 + i, 1200, $"2026:05:0{4 + i} 10:00:00", colourful: true))
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "4 added");
        desk.ClickButton("Place");
        desk.ClickButton("Add a journaling card");
        desk.UntilText("[data-testid='notice']", "Added a journaling card");
        desk.Click("[data-code='W19 L1']");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread with 4 photos and 1 card");

        // The stand-in printer shrinks the sheet to 97 %: that is read from its scan and made up for.
        desk.OpenRoom("Print", "Printers");
        desk.Write("#printer-name", "Hall printer");
        desk.ClickButton("Add printer");
        desk.UntilText("[data-testid='verdict']", "Not measured yet");
        desk.ClickButton("Print on the stand-in printer as Hall printer");
        desk.UntilText("[data-testid='verdict']", "97.0 % × 97.0 %: the sheet was shrunk");
        desk.Click("input[id^='make-up-']");
        desk.AxeFindings().ShouldBeEmpty("printers");

        desk.ClickButton("Place");
        desk.ClickButton("Print");
        desk.Choose("#printer", "Hall printer, made up for 97 × 97 %");
        desk.UntilText("[data-testid='plan-words']", "5 pieces on");
        desk.UntilText("[data-testid='doubts']", "Nothing is written on the card.");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            // 72 points to the inch: what is to be 3 in wide is drawn 3 / 0.97 in wide for this printer. Arithmetic.
            var widths = pdf.GetPages()
                .SelectMany(p => p.GetImages())
                .Select(i => Math.Min(i.BoundingBox.Width, i.BoundingBox.Height))
                .ToList();
            widths.Count.ShouldBe(4);
            widths.ShouldAllBe(w => Math.Abs(w - (3 * 72 / 0.97)) < 0.6);
            pdf.GetPage(1).Text.Replace(" ", string.Empty, StringComparison.Ordinal).ShouldContain("madeupfor97.0");
        }

        desk.UntilText("[data-testid='plan-words']", "Everything here is printed as it is");
        File.Delete(path);
        // The sheet with one card on it is kept.
        desk.UntilText("[data-testid='leftovers'] li:last-child", "of white card");
        desk.Click("[data-testid='leftovers'] li:last-child button");
        desk.UntilText("[data-testid='leftovers'] li:last-child", "kept as a sheet");

        desk.ClickButton("Tuck in");
        desk.UntilText("[data-testid='tuck']", "5 to cut");
        desk.AxeFindings().ShouldBeEmpty("the table");
        desk.ClickButton("5 pieces cut: tick off");
        desk.UntilText("[data-testid='tuck']", "5 to tuck in");
        for (var i = 0; i < 5; i++)
        {
            desk.Click(".page .pocket.tuckIn");
            desk.UntilText("[data-testid='tuck']", i < 4 ? $"{i + 1} done" : "Everything is in its pocket");
        }

        // One word changed: that card is due, alone, and the old one comes out first.
        desk.ClickButton("Place");
        desk.Click(".pocket[aria-label*='card']");
        desk.Write("textarea[id^='words-']", "Rain until noon.");
        desk.Press(Keys.Escape);
        desk.Until(
            "the words on the card",
            () =>
                desk.Browser.FindElements(By.CssSelector(".pocket[aria-label*='Rain until noon']")).Count > 0
                    ? "yes"
                    : null
        );
        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "1 piece on 1 sheet of white card");
        desk.UntilText("figcaption", "what is left of another sheet (Letter)");
        using (var pdf = PdfDocument.Open(desk.CreatePdf()))
        {
            pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(0);
            // The first card took the head of the sheet: nothing is printed there again.
            var words = pdf.GetPage(1).Letters.Where(l => l.PointSize > 7.5).ToList();
            words.ShouldNotBeEmpty();
            words.ShouldAllBe(l => l.Location.Y < pdf.GetPage(1).Height - (3 * 72));
        }

        desk.ClickButton("Tuck in");
        desk.Click(".page .pocket.cut");
        desk.UntilText("[data-testid='tuck']", "take the old one out first");
        desk.Click(".page .pocket.takeOutFirst");
        desk.UntilText("[data-testid='tuck']", "Everything is in its pocket");

        // It was cut wrong after all, and goes on the next sheet.
        desk.Until(
            "a piece to print again",
            () =>
            {
                desk.Browser.FindElements(By.CssSelector("#again option")).Last().Click();
                return true;
            }
        );
        desk.ClickButton("Put on the next sheet");
        desk.UntilText("[data-testid='tuck']", "1 to print");

        // The papers in the drawer are counted.
        desk.OpenRoom("Print", "Papers");
        desk.Write("#drawer-count", "25");
        desk.ClickButton("Keep in the drawer");
        desk.UntilText("[data-testid='papers']", "white card, Letter: 25 sheets");
        desk.AxeFindings().ShouldBeEmpty("papers");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task Pictures_are_ordered_at_a_lab_and_what_it_loses_is_ordered_again()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "At the lab", "2026-05-04", units: 1);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 4)
                    .Select(i =>
                        ($"{i}.jpg", Pictures.Jpeg(900 + i, 1200, $"2026:05:0{4 + i} 10:00:00", colourful: true))
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "4 added");
        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread with 4 photos");
        desk.ClickButton("Print");
        desk.OpenRoom("Print", "Lab");
        desk.ClickButton("Make the files");
        desk.UntilText("[data-testid='order-words']", "Ready: not sent yet.");
        desk.UntilText(".prints", "2026-W19_01_4x6.jpg");
        desk.AxeFindings().ShouldBeEmpty("lab");
        foreach (
            var words in new[] { "Sent to the lab", "The lab has printed it", "in the post", "1 print is missing" }
        )
        {
            desk.ClickButton("One step at the stand-in lab");
            desk.UntilText("[data-testid='order-words']", words);
        }

        desk.ClickButton("Order 1 missing print again");
        desk.UntilText("[data-testid='lab']", "Order 2: 1 print");
        desk.ClickButton("Sheets");
        desk.UntilText("[data-testid='plan-words']", "2 pieces on 1 sheet of photo paper");
        desk.Complaints().ShouldBeEmpty();
    }
}
