using OpenQA.Selenium;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>How an album is kept: in volumes that close, evening by evening, and in a bundle.</summary>
public sealed class KeepTests
{
    [Fact]
    public async Task Rings_that_are_too_small_part_the_album_and_its_bundle_comes_back_beside_it()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Kept well", "2026-05-04", units: 12);
        GatherTests.Send(desk, [("a.jpg", Pictures.Jpeg(900, 1200, "2026:05:05 10:00:00", colourful: true))]);
        desk.UntilText("[data-testid='intake-counts']", "1 added");

        desk.OpenRoom("Keep", "Thickness");
        desk.UntilText("[data-testid='thickness']", "Everything fits");
        desk.AxeFindings().ShouldBeEmpty("thickness");
        desk.Write("#ring-diameter", "1/4 in");
        desk.ClickButton("Set rings");
        desk.UntilText("[data-testid='thickness']", "The album is full in Week");
        desk.ClickButton("Use these volumes");
        // Pages move to leaves of the new volume: that is said before it happens.
        desk.UntilText("[data-testid='changes']", "lies on the");
        desk.AxeFindings().ShouldBeEmpty("before volumes are set");
        desk.ClickButton("Apply");
        desk.UntilText("[data-testid='thickness']", "Every volume fits");
        desk.UntilText("[data-testid='thickness']", "Kept well, volume 2");
        desk.ClickButton("Merge into volume 1");
        desk.ClickButton("Apply");
        desk.UntilText("[data-testid='thickness']", "The album is full in Week");

        desk.OpenRoom("Keep", "Pace");
        desk.UntilText("[data-testid='pace']", "A spread is taken to need 90 minutes");
        desk.AxeFindings().ShouldBeEmpty("pace");
        desk.Write("#evening-minutes", "120");
        desk.ClickButton("Set evenings");
        desk.UntilText("[data-testid='notice']", "Set the evenings for the album");

        desk.OpenRoom("Keep", "Book");
        desk.Choose("#book-form", "Flip-through for a browser (HTML)");
        desk.ClickButton("Create book");
        desk.UntilText("[data-testid='book-job']", "Download book");
        desk.AxeFindings().ShouldBeEmpty("book");

        desk.OpenRoom("Keep", "Backup");
        desk.ClickButton("Back up this album");
        desk.UntilText("[data-testid='bundle']", "checked");
        desk.AxeFindings().ShouldBeEmpty("backup");
        desk.Click("[data-testid='bundle'] button[aria-label^='Restore']");
        desk.UntilText("[data-testid='restore']", "1 album restored, everything as it was.");
        desk.Click("[data-testid='restore'] a");
        desk.UntilText("main", "Kept well (restored)");
    }

    [Fact]
    public async Task Cards_come_into_the_stash_are_matched_reserved_used_and_given_back()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "From the drawer", "2026-05-04", units: 3);
        GatherTests.Send(desk, [("a.jpg", Pictures.Jpeg(900, 1200, "2026:05:05 10:00:00", colourful: true))]);
        desk.UntilText("[data-testid='intake-counts']", "1 added");

        desk.OpenRoom("Keep", "Stash");
        desk.UntilText("[data-testid='stash']", "The stash is empty");
        desk.AxeFindings().ShouldBeEmpty("an empty stash");
        desk.ClickButton("Add an item");
        desk.Write("#stash-new-name", "Poppies");
        desk.Write("#stash-new-count", "2");
        desk.Write("#stash-new-size", "3x4");
        desk.Write("#stash-new-colours", "#e03010");
        desk.Write("#stash-new-kit", "Meadow");
        desk.AxeFindings().ShouldBeEmpty("an item that is written down");
        desk.Click(".item-form button[type='submit']");
        desk.UntilText("[data-testid='stash-Poppies']", "3 × 4 in · 2 there");

        var photo = Path.Combine(desk.Folder, "cards.jpg");
        await File.WriteAllBytesAsync(photo, Pictures.Cards(), TestContext.Current.CancellationToken);
        desk.Browser.FindElement(By.CssSelector("[data-testid='stash'] input[accept='image/*']")).SendKeys(photo);
        desk.UntilText("[data-testid='found']", "Found 3 items");
        desk.AxeFindings().ShouldBeEmpty("items found on a photo");
        foreach (var (name, i) in new[] { "Red", "Teal", "Yellow" }.Select((n, i) => (n, i)))
        {
            desk.Write($"#found-name-{i}", name);
        }

        desk.ClickButton("Add 3 items");
        desk.UntilText("[data-testid='stash-Teal']", "6 × 4 in · 1 there");

        // One week: what goes with its pictures, red first, reserved, used and undone.
        desk.ClickButton("this week");
        desk.UntilText("[data-testid='stash']", "Goes with the pictures of Week 19");
        desk.Click("[aria-label='Reserve one Poppies']");
        desk.UntilText("[data-testid='stash-Poppies']", "1 reserved");
        desk.AxeFindings().ShouldBeEmpty("the stash of a week");
        desk.Click("[aria-label='Use one Poppies']");
        desk.UntilText("[data-testid='stash-Poppies']", "1 used");
        desk.ClickButton("Undo in the stash");
        desk.UntilText("[data-testid='stash-Poppies']", "1 reserved");
        desk.ClickButton("Plan this spread");
        desk.Choose("#plan-kit", "Meadow (1 free)");
        desk.ClickButton("Save plan");
        desk.UntilText("[data-testid='plan']", "From the kit Meadow.");
        desk.UntilText("[data-testid='plan']", "2 stories, 1 card from the stash");

        desk.ClickButton("whole album");
        desk.UntilText("[data-testid='use-it-up']", "Week 19");
        desk.UntilText("[data-testid='shopping']", "Nothing to buy");
        desk.AxeFindings().ShouldBeEmpty("the stash of the album");
    }
}
