using System.Text;
using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>Words first: from an empty week to the printed lines of a story.</summary>
public sealed class TellTests
{
    [Fact]
    public async Task A_story_is_written_measured_set_on_cards_mended_and_printed_line_for_line()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Told first", "2026-05-04", units: 2);
        desk.ClickButton("Tell");
        desk.ClickButton("Write a story");
        desk.Write(
            ".story textarea",
            "On Sunday 3 May we planted beans.  It rained all night and in the morning the kettle would not boil. "
                + "Nobody minded."
        );
        desk.UntilText("[data-testid='room']", "22 words: one 3 × 4 in card at");
        desk.UntilText("[data-testid='notice']", "Edited a story");

        desk.ClickButton("Set on cards");
        desk.UntilText("[data-testid='standing']", "Stands on 1 card");
        desk.UntilText("[data-testid='findings']", "3 May is none of its days");
        desk.AxeFindings().ShouldBeEmpty("Tell with a story");

        // The doubled space is mended in the story, and the card follows.
        desk.Until(
            "the space mended",
            () =>
            {
                desk.Browser.FindElements(By.CssSelector("[data-testid='findings'] button"))
                    .FirstOrDefault(b => b.Text == "Mend")
                    ?.Click();
                return desk
                    .Browser.FindElement(By.CssSelector(".story textarea"))
                    .GetAttribute("value")!
                    .Contains("beans. It", StringComparison.Ordinal)
                    ? "yes"
                    : null;
            }
        );
        desk.Until(
            "the card follows",
            () =>
                desk
                    .Browser.FindElement(By.CssSelector(".card-editor textarea"))
                    .GetAttribute("value")!
                    .Contains("beans. It", StringComparison.Ordinal)
                    ? "yes"
                    : null
        );

        // Two more stories come in a file; the dated one of the other week goes there.
        var path = Path.Combine(desk.Folder, "brought.md");
        await File.WriteAllTextAsync(
            path,
            "## 2026-05-05 Bread\n\nTwo *loaves*.\n\n## 2026-05-12 Next week\n\nA kite.\n",
            Encoding.UTF8,
            TestContext.Current.CancellationToken
        );
        desk.Browser.FindElement(By.CssSelector("[data-testid='story-files']")).SendKeys(path);
        desk.UntilText("[data-testid='notice']", "Imported 2 stories");
        desk.Until(
            "the other story",
            () => desk.Browser.FindElements(By.CssSelector(".story")).Count == 2 ? "yes" : null
        );

        // A computed card, added by its menu.
        desk.ClickButton("Add another card");
        desk.ClickMenu("In numbers days, people, pictures, computed");
        desk.Until(
            "both cards",
            () => desk.Browser.FindElements(By.CssSelector(".card-editor")).Count == 2 ? "yes" : null
        );

        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "2 cards");
        desk.ClickButton("Print");
        desk.ClickButton("Create PDF");
        desk.See("[data-testid='download']").Click();
        var pdf = desk.Until("the downloaded PDF", () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault());
        using var document = PdfDocument.Open(pdf);
        var text = string.Concat(document.GetPages().SelectMany(p => p.Letters).Select(l => l.Value))
            .Replace(" ", "", StringComparison.Ordinal);
        text.ShouldContain("OnSunday3Mayweplantedbeans.Itrained");
        text.ShouldContain("INNUMBERS");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task Styles_notes_letters_and_the_words_of_many_weeks_have_their_rooms()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Rooms of words", "2026-05-04", units: 3);
        var album = desk.Until(
            "the album",
            () =>
                System.Text.RegularExpressions.Regex.Match(desk.Browser.Url, "/albums/([0-9a-f-]{36})/")
                    is { Success: true } found
                    ? found.Groups[1].Value
                    : null
        );

        // A style of one's own, in a family of one's own, that new cards take.
        desk.Go($"/albums/{album}/all/tell/styles");
        desk.ClickButton("Copy and edit Journaling, ruled");
        desk.Write("#style-name", "Kitchen words");
        desk.Write("#style-family", "Kitchen");
        desk.Write("#style-large", "3");
        desk.UntilText("[data-testid='style-verdict']", "the largest size not under the smallest");
        desk.Write("#style-large", "10");
        desk.UntilText("[data-testid='style-verdict']", "Fits at 10 pt");
        desk.AxeFindings().ShouldBeEmpty("the editor of styles");
        desk.ClickButton("Save style");
        desk.ClickButton("Use Kitchen for new cards");
        desk.UntilText("[data-testid='notice']", "New cards are of the family Kitchen");
        desk.AxeFindings().ShouldBeEmpty("the room of styles");

        // From the way: a phone notes what was overheard, and it becomes a card.
        desk.Go($"/albums/{album}/note");
        desk.Until(
                    "the choice",
                    () => desk.Browser.FindElements(By.CssSelector(".kind")).FirstOrDefault(k => k.Text == "Overheard")
                )!
            .Click();
        desk.Write("#quick-text", "“It is resting.” Otto");
        desk.SetDate("#quick-at", "2026-05-06T14:30");
        desk.AxeFindings().ShouldBeEmpty("the quick note");
        desk.ClickButton("Save note");
        desk.ClickLink("Noted for Wed 6 May");
        desk.ClickButton("Make a card");
        desk.Until(
            "the card",
            () =>
                desk.Browser.FindElements(By.CssSelector(".card-editor textarea"))
                    .FirstOrDefault()
                    ?.GetAttribute("value") == "“It is resting.” Otto"
                    ? "yes"
                    : null
        );
        desk.ClickButton("Add a journaling card");
        desk.Until(
            "the style of the album",
            () =>
                desk
                    .Browser.FindElements(By.CssSelector(".card-editor select"))
                    .Any(s => s.FindElements(By.CssSelector("option:checked")).Any(o => o.Text == "Kitchen words"))
                    ? "yes"
                    : null
        );

        // Told by theme.
        desk.ClickButton("By theme");
        desk.UntilText("[data-testid='notice']", "by theme");
        desk.ClickButton("Write a story");
        desk.Until(
            "the group",
            () =>
                desk.Browser.FindElements(By.CssSelector(".group"))
                    .FirstOrDefault()
                    ?.Text.Contains("Without a theme", StringComparison.Ordinal) == true
                    ? "yes"
                    : null
        );
        desk.Write(".story input[id^='theme-']", "The garden" + Keys.Tab);
        desk.Until(
            "its theme",
            () =>
                desk.Browser.FindElements(By.CssSelector(".group"))
                    .FirstOrDefault()
                    ?.Text.Contains("The garden", StringComparison.Ordinal) == true
                    ? "yes"
                    : null
        );
        desk.AxeFindings().ShouldBeEmpty("Tell by theme");

        // All weeks at once say what is missing, and show the cards.
        desk.ClickButton("a stretch");
        desk.UntilText("[data-testid='words-due']", "Something is missing in 3 of 3; 2 cards");
        desk.ClickButton("Cards as they print");
        desk.Until(
            "both cards at true size",
            () =>
                desk.Browser.FindElements(By.CssSelector(".card-due img")) is { Count: 2 } cards
                && cards[0].GetAttribute("style")!.Contains("width: 3in", StringComparison.Ordinal)
                    ? "yes"
                    : null
        );
        desk.AxeFindings().ShouldBeEmpty("the room of words");

        // Letters: what a title lacks, and what is left.
        desk.Go($"/albums/{album}/all/tell/lettering");
        desk.ClickButton("Add a sheet");
        desk.Write("#sheet-name", "Cork");
        desk.Write("#sheet-letters", "M1 A1 Y2 ,1 S1");
        desk.ClickButton("Save");
        desk.Write("#try-title", "May's");
        desk.UntilText("[data-testid='tries']", "With stand-ins: “MAY,S”");
        desk.AxeFindings().ShouldBeEmpty("the room of letters");
        desk.ClickButton("Use this spelling from Cork");
        desk.UntilText("[data-testid='letters-left']", "Y1");
        // The style that made no sense was refused, as it should be.
        desk.Complaints().Where(c => !c.Contains("styles/try", StringComparison.Ordinal)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Words_on_a_picture_are_found_a_place_and_printed_there()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Captions", "2026-05-04", units: 1);
        GatherTests.Send(desk, ("20260506_101500.jpg", Pictures.Jpeg(1900, 1300, "2026:05:06 10:15:00", shade: 200)));
        desk.UntilText("[data-testid='intake-counts']", "1 added");
        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "1 photo");
        desk.Until(
            "the print in hand",
            () =>
            {
                var pocket = desk
                    .Browser.FindElements(By.CssSelector("[data-code]"))
                    .FirstOrDefault(p =>
                        p.GetAttribute("aria-label")!.Contains("20260506_101500", StringComparison.Ordinal)
                    );
                pocket?.Click();
                return pocket;
            }
        );
        desk.Until(
                    "its words",
                    () =>
                        desk
                            .Browser.FindElements(By.CssSelector(".drawer summary"))
                            .FirstOrDefault(e => e.Text == "Words on the picture")
                )!
            .Click();
        desk.Write(".drawer input[id^='caption-']", "First swim");
        desk.ClickButton("Find a quiet place");
        desk.UntilText("[data-testid='caption-says']", "against the picture");
        desk.AxeFindings().ShouldBeEmpty("words on a picture");
        desk.ClickButton("Add to photo");
        desk.UntilText("[data-testid='notice']", "Added words to a picture");
        desk.ClickButton("Print");
        desk.ClickButton("Create PDF");
        desk.See("[data-testid='download']").Click();
        var pdf = desk.Until("the downloaded PDF", () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault());
        using var document = PdfDocument.Open(pdf);
        string.Concat(document.GetPages().SelectMany(p => p.Letters).Select(l => l.Value))
            .Replace(" ", "", StringComparison.Ordinal)
            .ShouldContain("Firstswim");
        desk.Complaints().ShouldBeEmpty();
    }
}
