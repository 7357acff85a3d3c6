using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>
/// Several weeks and several pockets at once: placed by rules, adjusted, calmed, leafed through, printed.
/// </summary>
public sealed class TogetherTests
{
    [Fact]
    public async Task Three_weeks_are_placed_together_two_prints_lose_their_colour_and_the_album_is_leafed_through()
    {
        await using var desk = await Desk.OpenAsync();
        GatherTests.MakeAlbum(desk, "weekly", "Together", "2026-05-04", units: 3);
        GatherTests.Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 21)
                    .Select(i =>
                        (
                            $"{i:00}.jpg",
                            Pictures.Jpeg(900 + i, 1200, $"2026:05:{4 + i:00} 1{i % 10}:00:00", colourful: true)
                        )
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "21 added");
        var album = new Uri(desk.Browser.Url).AbsolutePath.Split('/')[2];
        var units =
            (IReadOnlyCollection<object>)
                desk.Browser.ExecuteAsyncScript(
                    "const done = arguments[1]; fetch('/api/albums/' + arguments[0]).then((r) => r.json())"
                        + ".then((a) => done(a.units.map((u) => u.id)))",
                    album
                )!;
        var (first, last) = ((string)units.First(), (string)units.Last());

        // A stretch on the Place tab is a contact sheet.
        desk.Go($"/albums/{album}/{first}..{last}/place");
        desk.UntilText("[data-testid='stretch']", "Place 3 spreads together");
        desk.AxeFindings().ShouldBeEmpty("a stretch that is to be placed");
        desk.ClickButton("Fill what is open");
        desk.UntilText("[data-testid='notice']", "Filled 3 spreads");
        desk.UntilText("[data-testid='stretch']", "8 of 18 pockets, 0 locked");
        desk.ClickButton("Lock all of Week 20");
        desk.UntilText("[data-testid='stretch']", "8 of 18 pockets, 8 locked");
        desk.ClickButton("Place the rest again");
        desk.UntilText("[data-testid='notice']", "Placed again 2 spreads");
        desk.AxeFindings().ShouldBeEmpty("a contact sheet");

        // The title lies first; two prints are chosen together and lose their colour.
        desk.Go($"/albums/{album}/{first}/place");
        desk.UntilPocket("W19 L1", "card Title: Week 19");
        var (one, two) = Two(desk);
        desk.Click($"[data-code='{one}']");
        new Actions(desk.Browser).KeyDown(Keys.Control).Click(desk.Pocket(two)).KeyUp(Keys.Control).Perform();
        desk.UntilText(".drawer", "2 pockets chosen");
        desk.UntilPocket(two, "chosen with others");
        desk.AxeFindings().ShouldBeEmpty("pockets chosen together");
        desk.ClickButton("Black and white");
        desk.UntilText("[data-testid='notice']", "Adjusted 2 pictures");
        desk.Press(Keys.Escape);
        desk.Click($"[data-code='{one}']");
        desk.See("input[id^='straighten-']").SendKeys(Keys.End);
        desk.UntilText("[data-testid='notice']", $"Adjusted the picture in {one}");
        desk.UntilText(".drawer", "Straighten +15°");
        desk.AxeFindings().ShouldBeEmpty("a print that is adjusted");
        desk.ClickButton("Colours");
        desk.UntilText("[data-testid='colourfulness']", "This spread is");
        desk.See(".ways img");
        desk.AxeFindings().ShouldBeEmpty("the colours of a spread");
        desk.Press(Keys.Escape);
        desk.UntilNoDialog();

        // On paper they are grey, and the others are not.
        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "sheet");
        using (var pdf = PdfDocument.Open(desk.CreatePdf()))
        {
            var pictures = pdf.GetPages().SelectMany(p => p.GetImages()).Select(i => i.RawBytes.ToArray()).ToList();
            pictures.Count.ShouldBe(7);
            pictures.Count(IsGrey).ShouldBe(2);
        }

        desk.Go($"/albums/{album}/all/look/reading");
        desk.UntilText(".reading", "opening 1 of 3");
        desk.AxeFindings().ShouldBeEmpty("leafing through");
        desk.See(".stage").SendKeys(Keys.ArrowRight);
        desk.UntilText("[data-testid='opening']", "Week 20");
        desk.ClickButton("Both sides of a leaf");
        desk.UntilText(".reading", "leaf 2 of 4");
        desk.Complaints().ShouldBeEmpty();
    }

    /// <summary>The codes of the first two pockets that hold a photo.</summary>
    private static (string One, string Two) Two(Desk desk)
    {
        var codes = desk.Until(
            "photos in pockets",
            () =>
                desk.Browser.FindElements(By.CssSelector(".pocket.filled[aria-label*=': photo']"))
                    is { Count: > 1 } found
                    ? found.Select(p => p.GetAttribute("data-code")!).ToList()
                    : null
        );
        return (codes[0], codes[1]);
    }

    private static bool IsGrey(byte[] jpeg)
    {
        using var image = NetVips.Image.NewFromBuffer(jpeg);
        if (image.Bands < 3)
        {
            return true;
        }

        using var apart = (image[0] - image[2]).Abs();
        return apart.Avg() < 3;
    }
}
