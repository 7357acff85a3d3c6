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
        GatherTests.Send(desk, [.. Enumerable.Range(0, 24).Select(i => ($"{i}.jpg", Pictures.Jpeg(1800, 1200, $"2026:05:06 1{i / 10}:0{i % 10}:00", shade: 10 + (10 * i))))]);
        desk.UntilText("[data-testid='intake-counts']", "24 added");
        desk.ClickButton("Count");
        desk.UntilText("[data-testid='sum']", "24 lying pictures = 24 pieces; ");
        var sum = desk.See("[data-testid='sum']").Text;
        desk.AxeFindings().ShouldBeEmpty("Count, before the choice");

        desk.ClickButton("Choose the pages");
        desk.Until("the ways side by side", () => desk.Browser.FindElements(By.CssSelector("[data-testid='choices'] > li")).Count > 0 ? "yes" : null);
        desk.UntilText("[data-testid='choices']", "Proved: no other choice is better");
        desk.AxeFindings().ShouldBeEmpty("Count, with choices");
        desk.ClickButton("Take these pages: Balanced");
        desk.UntilText("[data-testid='notice']", "Chose the pages");
        desk.Until("room for all", () => !desk.See("[data-testid='sum']").Text.Contains("short", StringComparison.Ordinal) ? "yes" : null);

        // Another mind: back, then a leaf by hand, then that one out again.
        desk.Click("[data-testid='undo']");
        desk.UntilText("[data-testid='sum']", sum);
        desk.ClickButton("Put in a leaf of");
        desk.Until("its leaf", () => desk.Browser.FindElements(By.CssSelector(".leaves li")).Count == 3 ? "yes" : null);
        // With a leaf between there are two spreads, and the leaf is turned.
        desk.ClickButton("Place");
        desk.UntilText("[data-testid='spread']", "spread 1 of 2");
        desk.Browser.FindElements(By.CssSelector(".page")).Count.ShouldBe(2);
        desk.ClickButton("Turn the leaf");
        desk.UntilText("[data-testid='spread']", "spread 2 of 2");
        desk.Until("its pockets", () => desk.Browser.FindElements(By.CssSelector("[data-code='W19 2L1']")).Count == 1 ? "yes" : null);
        desk.AxeFindings().ShouldBeEmpty("Place, second spread");
        desk.ClickButton("Count");
        desk.ClickButton("Take out");
        desk.UntilText("[data-testid='sum']", sum);

        // Several weeks at once.
        desk.Write("#stretch", "2" + Keys.Tab);
        desk.UntilText("[data-testid='sum']", "in 2 parts");
        desk.UntilText(".count table", "Week 20");
        desk.AxeFindings().ShouldBeEmpty("Count, two weeks");

        // Stock that is short is named.
        desk.Browser.FindElements(By.CssSelector(".count summary")).First(s => s.Text == "Pages you own").Click();
        desk.AxeFindings().ShouldBeEmpty("Pages owned");

        // The whole binder, leaf by leaf.
        desk.Click("a[href$='/all/overview']");
        desk.ClickButton("Leaves");
        desk.UntilText("[data-testid='leaves-sum']", "3 leaves, ");
        desk.Until("both faces of each", () => desk.Browser.FindElements(By.CssSelector(".binder .side")).Count == 6 ? "yes" : null);
        desk.AxeFindings().ShouldBeEmpty("the room of leaves");
        desk.Complaints().ShouldBeEmpty();
    }
}
