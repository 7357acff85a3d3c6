using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>Bought cards, frames of a video, tall pictures, calendars and dividers, up to the sheet.</summary>
public sealed class MadePiecesTests
{
    [Fact]
    public async Task A_bought_card_is_trimmed_and_typed_on_and_only_its_words_are_printed()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Bought", "2026-05-04", units: 1);
        GatherTests.Send(desk, ("card.jpg", Pictures.Jpeg(1200, 1800, "2026:05:04 10:00:00", shade: 225)));
        desk.UntilText("[data-testid='intake-counts']", "1 added");
        desk.ClickButton("Place");
        desk.Drag(desk.See(".loose[aria-label^='Loose photo card.jpg']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "photo card.jpg");
        PiecesTests.Open(desk, "W19 L1", "This is a photo of a bought card");
        desk.Write("#bought-name", "spring cards");
        desk.ClickButton("Add the card");
        // A 4x6 is trimmed to the pocket: what falls off is named.
        desk.UntilText("[data-testid='offcuts']", "1 × 6 in; 3 × 2 in");
        desk.Write("#bought-words", "The first warm evening.");
        desk.ClickButton("Find the free place");
        desk.UntilText("[data-testid='notice']", "Changed the bought card spring cards in W19 L1");
        desk.AxeFindings().ShouldBeEmpty("a bought card");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "1 bought card is printed on a carrier sheet");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            string.Concat(pdf.GetPages().Select(p => p.Text)).ShouldContain("warm");
            // The card itself is not printed.
            pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(0);
        }

        desk.ClickButton("Place");
        desk.See("[data-code='W19 L1']");
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Changed the bought card");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_day_of_a_trip_is_filled_from_frames_of_a_video()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "trip", "On film", "2026-06-06", units: 3);
        GatherTests.Send(desk, ("weir.mp4", Films.Moving("creation_time=2026-06-07T10:00:00Z")));
        desk.UntilText("[data-testid='intake-counts']", "done");
        desk.OpenRoom("Gather", "Videos");
        desk.UntilText("[data-testid='videos-room']", "320 × 240 pixels");
        desk.AxeFindings().ShouldBeEmpty("videos");
        desk.Click("[aria-label^='Choose the frame at']");
        desk.ClickButton("One frame on ›");
        desk.ClickButton("Choose this frame");
        desk.ClickButton("Add 2 pictures to the album");
        desk.UntilText("[data-testid='videos-room']", "in the album");
        // The second day has them, by the clock of where it was taken.
        desk.Click(".tape li:nth-child(2) a");
        desk.ClickButton("Place");
        desk.See(".loose[aria-label^='Loose photo weir']");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "2 photos");
        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "2 pieces on");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_tall_conversation_is_cut_into_parts_that_fill_their_pockets_from_the_top()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Talked", "2026-05-04", units: 1);
        GatherTests.Send(desk, ("chat.jpg", Pictures.Jpeg(900, 3400, "2026:05:04 10:00:00", shade: 140)));
        desk.UntilText("[data-testid='intake-counts']", "1 added");
        desk.ClickButton("Place");
        desk.Drag(desk.See(".loose[aria-label^='Loose photo chat.jpg']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "photo chat.jpg");
        PiecesTests.Open(desk, "W19 L1", "Cut this tall picture into parts");
        desk.ClickButton("Find where to cut");
        desk.UntilText("[data-testid='scroll-parts']", "3 parts: choose 2 more pockets");
        desk.ClickButton("Cut into 3 parts");
        desk.UntilPocket("W19 L1", "part 1 of 3");
        desk.UntilPocket("W19 L2", "part 2 of 3");
        desk.UntilPocket("W19 L3", "part 3 of 3");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "3 pieces on");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            // Each part at the full width of its pocket, none higher than it; together the whole picture.
            var parts = pdf.GetPages()
                .SelectMany(p => p.GetImages())
                .Select(i => (Across: i.BoundingBox.Width / 72, Down: i.BoundingBox.Height / 72))
                .Select(p => p.Across > p.Down ? (p.Down, p.Across) : (p.Across, p.Down))
                .ToList();
            parts.Count.ShouldBe(3);
            parts
                .Sum(p => Math.Max(p.Item1, p.Item2))
                .ShouldBeInRange(3 * 3400 / 900.0 * 0.98, 3 * 3400 / 900.0 * 1.06);
        }

        desk.ClickButton("Place");
        desk.See("[data-code='W19 L1']");
        desk.PressControl("z");
        desk.UntilPocket("W19 L2", "empty");
        desk.UntilPocket("W19 L1", "photo chat.jpg");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_calendar_shows_the_days_pictures_and_a_divider_prints_no_ground_on_clear_film()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "By the day", "2026-05-04", units: 1);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 3)
                    .Select(i =>
                        ($"{i}.jpg", Pictures.Jpeg(1800, 2400, $"2026:05:0{4 + i} 10:00:00", shade: 60 + (40 * i)))
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "3 added");
        desk.ClickButton("Tell");
        desk.ClickButton("Add another card");
        desk.ClickButton("Calendar");
        desk.UntilText("[data-testid='notice']", "Added a calendar card");
        desk.ClickButton("Add another card");
        desk.ClickButton("Divider of a day");
        desk.UntilText("[data-testid='notice']", "Added a divider of a day");
        desk.ClickButton("Place");
        desk.Drag(desk.See(".loose[aria-label='Loose card: Calendar']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "card Calendar");
        desk.Drag(desk.See(".loose[aria-label^='Loose card: Divider']"), desk.Pocket("W19 L2"));
        desk.UntilPocket("W19 L2", "card Divider");
        PiecesTests.Open(desk, "W19 L1", "Small pictures");
        desk.ClickButton("Show each day’s photo");
        desk.UntilText("[data-testid='notice']", "Put 3 small pictures on a calendar card");
        desk.AxeFindings().ShouldBeEmpty("a calendar with small pictures");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "clear film");
        var path = desk.CreatePdf();
        using (var pdf = PdfDocument.Open(path))
        {
            pdf.GetPages().Sum(p => p.GetImages().Count()).ShouldBe(3);
            var film = pdf.GetPages().Single(p => p.Text.Contains("home", StringComparison.Ordinal));
            // No filled shape as large as the card: printers have no white.
            film.Paths.Where(p => p.IsFilled)
                .Select(p => p.GetBoundingRectangle())
                .OfType<UglyToad.PdfPig.Core.PdfRectangle>()
                .ShouldNotContain(r => r.Width * r.Height > 0.5 * 216 * 288 && r.Width * r.Height < 2 * 216 * 288);
        }

        desk.Complaints().ShouldBeEmpty();
    }
}
