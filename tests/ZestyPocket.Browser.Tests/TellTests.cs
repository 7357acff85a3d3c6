using System.Text;
using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;

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
        desk.Write(".story textarea", "On Sunday 3 May we planted beans.  It rained all night and in the morning the kettle would not boil. Nobody minded.");
        desk.UntilText("[data-testid='room']", "22 words: one 3 × 4 in card at");
        desk.UntilText("[data-testid='notice']", "Wrote on a story");

        desk.ClickButton("Set on cards");
        desk.UntilText("[data-testid='standing']", "Stands on 1 card");
        desk.UntilText("[data-testid='findings']", "3 May is none of its days");
        desk.AxeFindings().ShouldBeEmpty("Tell with a story");

        // The doubled space is mended in the story, and the card follows.
        desk.Until("the space mended", () =>
        {
            desk.Browser.FindElements(By.CssSelector("[data-testid='findings'] button")).FirstOrDefault(b => b.Text == "Mend")?.Click();
            return desk.Browser.FindElement(By.CssSelector(".story textarea")).GetAttribute("value")!.Contains("beans. It", StringComparison.Ordinal) ? "yes" : null;
        });
        desk.Until("the card follows", () => desk.Browser.FindElement(By.CssSelector(".card-editor textarea")).GetAttribute("value")!.Contains("beans. It", StringComparison.Ordinal) ? "yes" : null);

        // Two more stories come in a file; the dated one of the other week goes there.
        var path = Path.Combine(desk.Folder, "brought.md");
        await File.WriteAllTextAsync(path, "## 2026-05-05 Bread\n\nTwo *loaves*.\n\n## 2026-05-12 Next week\n\nA kite.\n", Encoding.UTF8, TestContext.Current.CancellationToken);
        desk.Browser.FindElement(By.CssSelector("[data-testid='story-files']")).SendKeys(path);
        desk.UntilText("[data-testid='notice']", "Took 2 stories in");
        desk.Until("the other story", () => desk.Browser.FindElements(By.CssSelector(".story")).Count == 2 ? "yes" : null);

        // A computed card, added by its menu.
        desk.ClickButton("Add another card");
        desk.ClickMenu("In numbers days, people, pictures, computed");
        desk.Until("both cards", () => desk.Browser.FindElements(By.CssSelector(".card-editor")).Count == 2 ? "yes" : null);

        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "2 cards");
        desk.ClickButton("Print");
        desk.ClickButton("Make the PDF");
        desk.See("[data-testid='download']").Click();
        var pdf = desk.Until("the downloaded PDF", () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault());
        using var document = PdfDocument.Open(pdf);
        var text = string.Concat(document.GetPages().SelectMany(p => p.Letters).Select(l => l.Value)).Replace(" ", "", StringComparison.Ordinal);
        text.ShouldContain("OnSunday3Mayweplantedbeans.Itrained");
        text.ShouldContain("INNUMBERS");
        desk.Complaints().ShouldBeEmpty();
    }
}
