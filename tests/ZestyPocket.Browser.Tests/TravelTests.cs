using System.Globalization;
using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>A trip from its track to a printed map.</summary>
public sealed class TravelTests
{
    [Fact]
    public async Task A_track_becomes_a_leg_that_is_corrected_paid_for_undone_and_printed_as_a_map()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "trip", "Along the river", "2026-06-06", units: 3);
        desk.OpenRoom("Gather", "Trip log");
        desk.UntilText("[data-testid='trip']", "No leg is in the trip log yet");
        desk.Browser.FindElement(By.CssSelector("[data-testid='track-files']")).SendKeys(Track(desk.Folder));
        desk.UntilText("[data-testid='notice']", "Added 1 leg");
        desk.UntilText("[data-testid='trip']", "La Charité-sur-Loire to near");
        desk.Until(
            "the map",
            () =>
                desk.Browser.ExecuteScript("return document.querySelector('img.map')?.naturalWidth ?? 0")
                    is long
                        and > 900
                    ? "yes"
                    : null
        );
        desk.AxeFindings().ShouldBeEmpty("the trip log");

        desk.Click("[aria-label^='Change the leg from La Charité']");
        desk.Write("form.leg input[id^='leg-from']", "The old lock");
        desk.Write("form.leg input[id^='leg-price']", "4.50");
        desk.AxeFindings().ShouldBeEmpty("a leg that is changed");
        desk.Click("form.leg button[type='submit']");
        desk.UntilText("[data-testid='trip']", "The old lock to");
        desk.Write("#expense-amount", "12");
        desk.Write("#expense-note", "pancakes");
        desk.ClickButton("Note expense");
        desk.UntilText("[data-testid='trip']", "Food: 12.00 EUR");
        desk.UntilText("[data-testid='trip']", "16.50 EUR");
        desk.Click("[aria-label^='Remove 12 EUR']");
        desk.UntilText("[data-testid='notice']", "Removed 12.00 EUR");
        desk.ClickButton("Undo");
        desk.UntilText("[data-testid='trip']", "pancakes");

        desk.OpenRoom("Tell", "Stories & cards");
        desk.ClickButton("Add another card");
        desk.ClickMenu("The way on a map, by tracks and pictures, computed");
        desk.See(".card-editor");
        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "1 card");
        desk.ClickButton("Print");
        var path = desk.CreatePdf();
        using var pdf = PdfDocument.Open(path);
        var text = string.Concat(pdf.GetPages().SelectMany(p => p.Letters).Select(l => l.Value))
            .Replace(" ", "", StringComparison.Ordinal);
        text.ShouldContain("byboat");
        text.ShouldContain("Theoldlock");
        // Land, coast, river and way are lines, not pixels.
        pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(0);
        pdf.GetPages().Sum(p => p.Paths.Count).ShouldBeGreaterThan(5);
        desk.Complaints().ShouldBeEmpty();
    }

    /// <summary>Two hours northwards from a town on a river, a point every minute.</summary>
    private static string Track(string folder)
    {
        var path = Path.Combine(folder, "way.gpx");
        var points = Enumerable
            .Range(0, 120)
            .Select(i =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"<trkpt lat=\"{47.178 + (0.0009 * i)}\" lon=\"3.018\">"
                        + $"<time>2026-06-06T{8 + (i / 60):00}:{i % 60:00}:00Z</time></trkpt>"
                )
            );
        File.WriteAllText(
            path,
            "<gpx version=\"1.1\" creator=\"test\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><type>boat</type>"
                + "<trkseg>"
                + string.Concat(points)
                + "</trkseg></trk></gpx>"
        );
        return path;
    }
}
