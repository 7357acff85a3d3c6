using OpenQA.Selenium;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>The sum of pieces against pockets, and what is done about the difference.</summary>
public sealed class CountTests
{
    [Fact]
    public async Task An_overfull_week_is_counted_its_pages_are_chosen_and_the_mind_is_changed_twice()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Overfull", "2026-05-04", units: 2);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 24)
                    .Select(i =>
                        (
                            $"{i}.jpg",
                            Pictures.Jpeg(1800, 1200, $"2026:05:06 1{i / 10}:0{i % 10}:00", shade: 10 + (10 * i))
                        )
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "24 added");
        desk.ClickButton("Count");
        desk.UntilText("[data-testid='sum']", "24 landscape photos = 24 pieces; ");
        var sum = desk.See("[data-testid='sum']").Text;
        desk.AxeFindings().ShouldBeEmpty("Count, before the choice");

        desk.ClickButton("Find pages");
        desk.Until(
            "the ways side by side",
            () => desk.Browser.FindElements(By.CssSelector("[data-testid='choices'] > li")).Count > 0 ? "yes" : null
        );
        desk.UntilText("[data-testid='choices']", "Proved: no other choice is better");
        desk.AxeFindings().ShouldBeEmpty("Count, with choices");
        desk.ClickButton("Use these pages: Balanced");
        desk.UntilText("[data-testid='notice']", "Chose the pages");
        desk.Until(
            "room for all",
            () => !desk.See("[data-testid='sum']").Text.Contains("short", StringComparison.Ordinal) ? "yes" : null
        );

        // Another mind: back, then a leaf by hand, then that one out again.
        desk.Click("[data-testid='undo']");
        desk.UntilText("[data-testid='sum']", sum);
        desk.ClickButton("Add a leaf of");
        desk.Until("its leaf", () => desk.Browser.FindElements(By.CssSelector(".leaves li")).Count == 3 ? "yes" : null);
        // With a leaf between there are two spreads, and the leaf is turned.
        desk.ClickButton("Place");
        desk.UntilText("[data-testid='spread']", "spread 1 of 2");
        desk.Browser.FindElements(By.CssSelector(".page")).Count.ShouldBe(2);
        desk.ClickButton("Turn the leaf");
        desk.UntilText("[data-testid='spread']", "spread 2 of 2");
        desk.Until(
            "its pockets",
            () => desk.Browser.FindElements(By.CssSelector("[data-code='W19 2L1']")).Count == 1 ? "yes" : null
        );
        desk.AxeFindings().ShouldBeEmpty("Place, second spread");
        desk.ClickButton("Count");
        desk.ClickButton("Remove leaf");
        desk.UntilText("[data-testid='sum']", sum);

        // Several weeks at once.
        desk.ClickButton("a stretch");
        desk.UntilText("[data-testid='sum']", "in 2 weeks or days");
        desk.UntilText(".count table", "Week 20");
        desk.AxeFindings().ShouldBeEmpty("Count, two weeks");

        desk.Choose("[aria-label='The stretch ends with']", "Week 19");
        desk.UntilText(".count h2", "week 19");
        desk.Browser.Navigate().Back();
        desk.UntilText(".count h2", "the whole album");

        // The whole binder, leaf by leaf.
        desk.OpenRoom("Count", "Leaves");
        desk.UntilText("[data-testid='leaves-sum']", "3 leaves, ");
        desk.Until(
            "both faces of each",
            () => desk.Browser.FindElements(By.CssSelector(".binder .side")).Count == 6 ? "yes" : null
        );
        desk.AxeFindings().ShouldBeEmpty("the room of leaves");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_collage_a_fold_out_and_a_fused_pocket_come_out_of_the_printer_at_true_size()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "By hand", "2026-05-04", units: 2);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 21)
                    .Select(i =>
                        (
                            $"{i:00}.jpg",
                            Pictures.Jpeg(1800, 1200, $"2026:05:06 1{i / 10}:0{i % 10}:00", shade: 10 + (10 * i))
                        )
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "21 added");

        // Too many pictures: the first thing people try is a collage, and it takes one click.
        desk.ClickButton("Count");
        desk.UntilText("[data-testid='sum']", "18 pockets: 3 short");
        desk.ClickButton("Make a collage of four small pictures");
        desk.UntilText("[data-testid='sum']", "it comes out even");

        // A fold-out between the pages, from its own measures.
        desk.Choose("#put-in", "a fold-out");
        desk.Write("#fold-size", "11x8");
        desk.Write("#fold-at", "6 1/2 in");
        desk.ClickButton("Add leaf");
        desk.UntilText("[data-testid='notice']", "Added a leaf of Fold-out 11x8");
        desk.UntilText("[data-testid='sum']", "21 pockets: 3 free");

        // A favourite over two pockets, chosen in the drawer of the thing in hand.
        desk.ClickButton("Place");
        desk.UntilText("[data-testid='spread']", "spread 1 of 2");
        desk.See(".loose[data-photo]").SendKeys(Keys.Enter);
        desk.Pocket("W19 L4").SendKeys(Keys.Enter);
        desk.UntilPocket("W19 L4", "photo");
        desk.Until(
            "the drawer",
            () =>
                desk
                    .Browser.FindElements(By.CssSelector(".drawer summary"))
                    .First(e => e.Text.StartsWith("Larger", StringComparison.Ordinal))
                    .Displayed
                    ? "yes"
                    : null
        );
        desk.Browser.FindElements(By.CssSelector(".drawer summary"))
            .First(e => e.Text.StartsWith("Larger", StringComparison.Ordinal))
            .Click();
        desk.Browser.FindElements(By.CssSelector(".drawer .form-check")).First(l => l.Text == "W19 L5").Click();
        desk.ClickButton("Run over 2 pockets");
        desk.UntilPocket("W19 L5", "part 2 of 2");
        desk.AxeFindings().ShouldBeEmpty("Place, a picture over two pockets");
        desk.Browser.ExecuteScript("document.activeElement.blur()");
        desk.Press(Keys.Escape);
        desk.Click("[data-code='W19 L1']");
        desk.ClickButton("Leave it empty");
        desk.UntilPocket("W19 L1", "left empty on purpose");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread with");
        desk.ClickButton("Turn the leaf");
        desk.UntilPocket("W19 2R1", "photo");

        desk.ClickButton("Print");
        desk.Until(
            "the plan",
            () =>
                desk.See("[data-testid='plan-words']").Text.Contains("pieces on", StringComparison.Ordinal)
                    ? "yes"
                    : null
        );
        desk.ClickButton("Create PDF");
        desk.See("[data-testid='download']").Click();
        var path = desk.Until("the downloaded PDF", () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault());
        using var pdf = UglyToad.PdfPig.PdfDocument.Open(path);
        var prints = pdf.GetPages()
            .SelectMany(p => p.GetImages())
            .Select(i => (Across: i.BoundingBox.Width / 72, Down: i.BoundingBox.Height / 72))
            .ToList();
        // The four pictures of the collage stand in one print of 3x4 with gutters of 1/16 in: smaller than any pocket.
        prints.Count(p => Math.Min(p.Across, p.Down) < 2.9).ShouldBe(4);
        // The rest are whole prints, the two slices of one picture among them.
        prints.Count(p => Is(p, 3, 4)).ShouldBeGreaterThan(10);

        // The leaf is altered in the room of leaves, where it is said first what becomes of the pieces.
        desk.OpenRoom("Count", "Leaves");
        desk.UntilText("[data-testid='leaves-sum']", "4 leaves, ");
        desk.Browser.FindElements(By.CssSelector(".binder .leaf"))[1].Click();
        desk.UntilText("[data-testid='leaf-note']", "a flap of 4 1/2 in");
        desk.Browser.FindElements(By.CssSelector(".binder .leaf"))[2].Click();
        desk.Browser.SwitchTo().ActiveElement().SendKeys(Keys.ArrowLeft + Keys.ArrowLeft);
        desk.UntilText(".leaf-drawer h2", "Leaf 1");
        desk.Browser.FindElements(By.CssSelector(".leaf-drawer summary"))
            .First(e => e.Text.StartsWith("Fuse", StringComparison.Ordinal))
            .Click();
        desk.AxeFindings().ShouldBeEmpty("the leaf in hand");
        desk.Browser.FindElements(By.CssSelector(".leaf-drawer .ways button"))[0].Click();
        desk.UntilText("[data-testid='changes']", "to the tray");
        desk.AxeFindings().ShouldBeEmpty("before it happens");
        desk.ClickButton("Apply");
        desk.UntilText("[data-testid='notice']", "Fused a pocket of 3x4");
        desk.Complaints().ShouldBeEmpty();

        static bool Is((double Across, double Down) print, double width, double height) =>
            (Math.Abs(print.Across - width) < 0.002 && Math.Abs(print.Down - height) < 0.002)
            || (Math.Abs(print.Across - height) < 0.002 && Math.Abs(print.Down - width) < 0.002);
    }

    [Fact]
    public async Task A_page_is_drawn_kept_used_and_repeated_as_a_formula()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Own pages", "2026-05-04", units: 3);
        desk.OpenRoom("Count", "Page designs");
        desk.UntilText("[data-testid='draft-name']", "One full 9x12");
        desk.Click(".editor .cell");
        desk.ClickButton("9x4 / 9x4 / 9x4");
        desk.Until(
            "three pockets",
            () => desk.Browser.FindElements(By.CssSelector(".editor .cell")).Count == 3 ? "yes" : null
        );
        desk.Click(".editor .cell");
        desk.ClickButton("3x4 | 6x4");
        desk.Until(
            "four pockets",
            () => desk.Browser.FindElements(By.CssSelector(".editor .cell")).Count == 4 ? "yes" : null
        );
        // By keyboard: M takes a further pocket, and both become one.
        desk.Browser.FindElements(By.CssSelector(".editor .cell"))[2].Click();
        desk.Browser.FindElements(By.CssSelector(".editor .cell"))[3].SendKeys("m");
        desk.ClickButton("Merge these 2 pockets");
        desk.UntilText("[data-testid='draft-name']", "One 9x8 + one 6x4 + one 3x4");
        desk.See("#notation").GetAttribute("value").ShouldBe("3x4 | 6x4 / 9x8");
        desk.AxeFindings().ShouldBeEmpty("a draft");
        desk.ClickButton("Undo");
        desk.Until(
            "four pockets again",
            () => desk.Browser.FindElements(By.CssSelector(".editor .cell")).Count == 4 ? "yes" : null
        );
        desk.Write("#notation", "3x4 | 6x4 / 9x7");
        desk.ClickButton("Draw this layout");
        desk.UntilText("[data-testid='draft-name']", "page of 9x11");
        desk.Write("#notation", "3x4 | 6x4 / 9x8 /");
        desk.ClickButton("Draw this layout");
        desk.UntilText(".editor .warning-chip", "character 18");
        desk.Write("#notation", "3x4 | 6x4 / 9x8");
        desk.ClickButton("Draw this layout");
        desk.UntilText("[data-testid='draft-name']", "One 9x8");
        desk.Write("#design-name", "The wide window");
        desk.ClickButton("Save to my designs");
        desk.Until(
            "the design in the collection",
            () =>
                desk
                    .Browser.FindElements(By.CssSelector("[data-testid='own-design'] input"))
                    .Any(name => name.GetDomProperty("value") == "The wide window")
                    ? "yes"
                    : null
        );

        // A file with a bad line: the good ones are taken, the bad one is named.
        var file = Path.Combine(desk.Folder, "designs.txt");
        await File.WriteAllTextAsync(
            file,
            "Strips: 3x12 | 3x12 | 3x12\nBroken: 3x4 | 3x5\n",
            TestContext.Current.CancellationToken
        );
        desk.Browser.FindElement(By.CssSelector(".room input[type=file]")).SendKeys(file);
        desk.UntilText("[data-testid='notice']", "1 design is in your collection");
        desk.UntilText(".room .warning-chip ul", "Broken: The page design does not work at character 6");
        desk.AxeFindings().ShouldBeEmpty("the collection");

        desk.ClickButton("Page protectors");
        desk.Choose("#other-design", "The wide window");
        desk.ClickButton("Add");
        desk.UntilText("[data-testid='notice']", "The album uses “The wide window”");
        desk.Until(
            "its row",
            () =>
                desk
                    .Browser.FindElements(By.CssSelector("tbody th"))
                    .Any(t => t.Text.Contains("The wide window", StringComparison.Ordinal))
                    ? "yes"
                    : null
        );
        desk.ClickButton("Measure The wide window");
        desk.UntilText("form h3", "The wide window");
        desk.AxeFindings().ShouldBeEmpty("page protectors, measuring");
        desk.ClickButton("Formulas");
        desk.ClickButton("Add a formula");
        desk.Write("#formula-name", "Every week");
        desk.Choose("[aria-label='A leaf between its own pages']", "The wide window");
        desk.ClickButton("Add between");
        desk.AxeFindings().ShouldBeEmpty("a formula being written");
        desk.ClickButton("Save formula");
        desk.UntilText("[data-testid='formula']", "between them “The wide window”");
        desk.ClickButton("Use this formula: Every week");
        desk.UntilText(
            "[data-testid='formula-stand']",
            "five more pictures, one more card of words and the title card by Sunday"
        );
        desk.AxeFindings().ShouldBeEmpty("formulas");
        desk.ClickButton("Leaves");
        desk.UntilText("[data-testid='leaves-sum']", "7 leaves, ");
        // The page that does not tile was refused, and nothing else.
        desk.Complaints().ShouldHaveSingleItem().ShouldContain("/api/designs/draft");
    }
}
