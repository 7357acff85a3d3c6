using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>The job without a mouse.</summary>
public sealed class KeyboardTests
{
    [Fact]
    public async Task From_an_empty_shelf_to_a_printed_sheet_with_the_keyboard_alone()
    {
        await using var desk = await Desk.OpenAsync();
        desk.See("[data-testid='empty-shelf']");

        // An album in three steps.
        desk.TabTo("New album");
        desk.Press(Keys.Enter);
        desk.UntilText("[data-testid='new-album-step']", "Step 1 of 3");
        desk.TabTo("Name");
        desk.Press("By keys alone" + Keys.Enter);
        desk.UntilText("[data-testid='new-album-step']", "Step 2 of 3");
        desk.See(".design.on");
        desk.TabTo("Next");
        desk.Press(Keys.Enter);
        desk.UntilText("[data-testid='new-album-step']", "Step 3 of 3");
        desk.TabTo("First day");
        // The fifth of May, whichever the browser has first, day or month.
        desk.Press("05052026");
        desk.TabTo("Weeks");
        desk.Press(Keys.Backspace + Keys.Backspace + "2" + Keys.Enter);
        desk.UntilText(".week-words", "week 19 · 4–10 May 2026");

        // The system's own window chooses files; they arrive as it hands them over.
        var files = Enumerable.Range(0, 4).Select(i => Save(i)).ToList();
        desk.Browser.FindElement(By.CssSelector("[data-testid='file-picker']")).SendKeys(string.Join('\n', files));
        desk.UntilText("[data-testid='intake-counts']", "4 added");

        // A star for the first picture.
        desk.Until(
            "the pictures of the days",
            () => desk.Browser.FindElements(By.CssSelector(".day-photo")).Count == 4 ? "yes" : null
        );
        desk.TabTo("0.jpg");
        desk.Press("3");
        desk.UntilText("[data-testid='notice']", "3 stars");

        // Words.
        Step(desk, "Tell");
        desk.TabTo("Add a journaling card");
        desk.Press(Keys.Enter);
        desk.TabTo("Words");
        desk.Press("Nobody touched a mouse all day.");
        desk.UntilText("[data-testid='fit']", "Fits at");
        desk.UntilText("[data-testid='notice']", "Edited a journaling card");

        // Pages: all of it at once, then one picture swapped with its neighbour.
        Step(desk, "Place");
        desk.See("[data-code='W19 L1']");
        desk.Press("f");
        desk.UntilText("[data-testid='notice']", "Filled the spread");
        var (first, second) = (desk.PocketName("W19 L1"), desk.PocketName("W19 L2"));
        desk.TabTo("Pocket W19 L1");
        desk.Press(Keys.Enter);
        desk.Press(Keys.ArrowRight);
        desk.Press(Keys.Enter);
        desk.UntilPocket("W19 L2", first.Split(':')[1].Trim().Split(',')[0]);
        desk.PocketName("W19 L1").ShouldContain(second.Split(':')[1].Trim().Split(',')[0]);
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone");

        // Sheets.
        Step(desk, "Print");
        desk.UntilText("[data-testid='plan-words']", "pieces on");
        desk.TabTo("Create PDF");
        desk.Press(Keys.Enter);
        desk.See("[data-testid='download']");
        desk.TabTo("Download");
        desk.Press(Keys.Enter);
        var path = desk.Until("the PDF", () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault());
        using var pdf = PdfDocument.Open(path);
        pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(4);
        string.Concat(pdf.GetPages().Select(p => p.Text)).ShouldContain("touched");
        desk.Complaints().ShouldBeEmpty();

        string Save(int i)
        {
            var file = Path.Combine(desk.Folder, $"{i}.jpg");
            File.WriteAllBytes(file, Pictures.Jpeg(900, 600, $"2026:05:0{4 + i} 10:00:00", shade: 60 + (20 * i)));
            return file;
        }
    }

    /// <summary>A step of the work by the quick switcher, from wherever the focus is.</summary>
    private static void Step(Desk desk, string name)
    {
        desk.PressControl("k");
        desk.Until("the field to write in", () => desk.Focused() == "Find in this album" ? "yes" : null);
        desk.Press(name);
        desk.UntilText("#found-list", name);
        desk.Press(Keys.Enter);
        desk.Until(
            "the step",
            () => desk.See(".index-tab.on").Text.StartsWith(name, StringComparison.Ordinal) ? "yes" : null
        );
        // While the dialog goes, keys are still its own.
        desk.UntilNoDialog();
    }
}
