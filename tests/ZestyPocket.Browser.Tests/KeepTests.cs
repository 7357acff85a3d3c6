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
        desk.UntilText("[data-testid='thickness']", "Every volume fits");
        desk.UntilText("[data-testid='thickness']", "Kept well, volume 2");
        desk.ClickButton("Merge into volume 1");
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
}
