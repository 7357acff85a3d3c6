using OpenQA.Selenium;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>From the first proposal over other ways to the slow look, and back by undo.</summary>
public sealed class LookOverTests
{
    [Fact]
    public async Task A_spread_is_proposed_said_why_laid_another_way_and_looked_over()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Looked over", "2026-05-04", units: 1);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 19)
                    .Select(i =>
                        (
                            $"{i}.jpg",
                            Pictures.Jpeg(
                                i == 3 ? 500 : 1800,
                                i == 3 ? 700 : 2400,
                                $"2026:05:{4 + (i % 7):00} 1{i % 10}:00:00",
                                shade: 50 + (10 * i)
                            )
                        )
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "19 added");
        desk.ClickButton("Place");
        // A loose photo shows its best pocket before it is put there.
        desk.See(".loose[aria-label^='Loose photo 0.jpg']").SendKeys(string.Empty);
        desk.Browser.ExecuteScript("document.querySelector('.loose').focus()");
        desk.Until(
            "the best pocket",
            () =>
                (
                    (string)
                        desk.Browser.ExecuteScript("return document.querySelector('[data-testid=offer]').textContent")!
                ).Contains("nothing cropped", StringComparison.Ordinal)
                    ? "yes"
                    : null
        );
        desk.See(".pocket.best");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread with 18 photos");
        desk.Click("[data-code='W19 L1']");
        desk.UntilText("[data-testid='reason']", "Portrait 3:4 in a 3x4 pocket: nothing cropped");
        desk.Press(Keys.Escape);

        desk.ClickButton("See other ways");
        desk.See(".ways img");
        desk.AxeFindings().ShouldBeEmpty("other ways");
        var before = desk.PocketName("W19 L1");
        desk.ClickButton("Use way 2");
        desk.UntilText("[data-testid='notice']", "another way");
        desk.UntilNoDialog();
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone");
        desk.UntilPocket("W19 L1", before[(before.IndexOf(':', StringComparison.Ordinal) + 2)..]);

        // A pocket that was emptied by mistake is found and mended with one click.
        desk.See("[data-code='W19 R9']").SendKeys(Keys.Delete);
        desk.UntilPocket("W19 R9", "empty");
        desk.ClickButton("Look over");
        desk.UntilText("[data-testid='look-over']", "W19 R9 · Empty pockets");
        desk.AxeFindings().ShouldBeEmpty("looking over");
        desk.ClickButton("Fill the spread: W19 R9");
        desk.UntilText("[data-testid='notice']", "Filled the spread with 1 photo");
        desk.Until(
            "no empty pocket",
            () =>
                desk.See("[data-testid='look-over']").Text.Contains("Empty pockets", StringComparison.Ordinal)
                    ? null
                    : "yes"
        );
        desk.Complaints().ShouldBeEmpty();
    }
}
