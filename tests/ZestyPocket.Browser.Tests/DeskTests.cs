using OpenQA.Selenium;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

public sealed class DeskTests
{
    [Fact]
    public async Task Axe_finds_nothing_on_any_screen()
    {
        await using var desk = await Desk.OpenAsync();
        desk.See("[data-testid='empty-shelf']");
        desk.AxeFindings().ShouldBeEmpty("the shelf");
        await MakeAlbumAsync(desk, photos: 3);

        desk.UntilText("[data-testid='intake-counts']", "3 added");
        desk.AxeFindings().ShouldBeEmpty("Gather");

        desk.ClickButton("Tell");
        desk.ClickButton("Add a journaling card");
        desk.See(".card-editor textarea");
        desk.ClickButton("Add another card");
        desk.ClickMenu("Title number and span, computed");
        desk.Until(
            "both cards",
            () => desk.Browser.FindElements(By.CssSelector(".card-editor")).Count == 2 ? "yes" : null
        );
        desk.AxeFindings().ShouldBeEmpty("Tell");

        desk.ClickButton("Place");
        desk.See("[data-code='W19 L1']");
        desk.AxeFindings().ShouldBeEmpty("Place, nothing in hand");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread");
        desk.Click("[data-code='W19 L2']");
        desk.See(".card-editor");
        desk.AxeFindings().ShouldBeEmpty("Place, a card in hand");
        desk.Click("[data-code='W19 L3']");
        desk.See("[data-testid='resolution-warning']");
        desk.AxeFindings().ShouldBeEmpty("Place, a photo with a warning in hand");

        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "5 pieces");
        desk.AxeFindings().ShouldBeEmpty("Print");

        desk.Press("?");
        desk.UntilText(".modal.show", "Turn the leaf over");
        desk.AxeFindings().ShouldBeEmpty("the shortcut sheet");
        desk.Press(Keys.Escape);
        desk.UntilNoDialog();
        desk.OpenRoom("Count", "Page protectors");
        desk.UntilText(".room h2", "Page protectors on hand");
        desk.AxeFindings().ShouldBeEmpty("the protectors");
        desk.Complaints().ShouldBeEmpty();
    }

    /// <summary>As wide as a usual screen, and as a phone held upright.</summary>
    private static readonly (int Width, int Height)[] Screens = [(1280, 800), (390, 844)];

    [Fact]
    public async Task Axe_finds_nothing_in_any_room_by_day_and_in_the_evening_on_a_screen_and_on_a_phone()
    {
        await using var desk = await Desk.OpenAsync();
        await MakeAlbumAsync(desk, photos: 2);
        desk.UntilText("[data-testid='intake-counts']", "2 added");
        desk.ClickButton("Place");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread");
        var address = new Uri(desk.Browser.Url).AbsolutePath.Split('/');
        var (album, week) = (address[2], address[3]);
        string[] rooms =
        [
            $"{week}/place",
            $"{week}/gather/photos",
            $"{week}/tell/cards",
            $"{week}/count/tally",
            $"{week}/look/findings",
            $"{week}/print/sheets",
            $"{week}/tuck",
            "all/overview",
            "all/gather/photos",
            "all/gather/cameras",
            "all/gather/trip",
            "all/gather/keepsakes",
            "all/gather/series",
            "all/tell/styles",
            "all/tell/lettering",
            "all/tell/people",
            "all/count/leaves",
            "all/count/designs",
            "all/count/protectors",
            "all/count/formulas",
            "all/look/findings",
            "all/print/printers",
            "all/look/reading",
            "all/keep/thickness",
            "all/keep/pace",
            "all/keep/costs",
            "all/keep/year",
        ];
        foreach (var theme in new[] { "light", "dark" })
        {
            desk.Browser.ExecuteScript("localStorage.setItem('zesty.theme', arguments[0])", theme);
            foreach (var (width, height) in Screens)
            {
                // By day on a wide screen every room is looked at where its own job is tested; colours do not change
                // with the width, nor widths with the colours.
                if (theme == "light" ? width > 1_000 : width <= 1_000 && !Thorough.IsAsked)
                {
                    continue;
                }

                desk.Resize(width, height);
                foreach (var room in rooms)
                {
                    desk.Go($"/albums/{album}/{room}");
                    desk.See(".index-tab.on");
                    desk.See("main.desk-body > *");
                    desk.Browser.FindElement(By.TagName("html")).GetAttribute("data-bs-theme").ShouldBe(theme);
                    desk.AxeFindings().ShouldBeEmpty($"{room}, {theme}, {width} wide");
                    desk.TooWide().ShouldBe(0, $"{room} goes over the side at {width}");
                }

                desk.Go("/");
                desk.See(".tile");
                desk.AxeFindings().ShouldBeEmpty($"the shelf, {theme}, {width} wide");
                desk.TooWide().ShouldBe(0, $"the shelf goes over the side at {width}");
            }
        }

        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_newcomer_is_shown_around_once_and_can_ask_for_it_again()
    {
        await using var desk = await Desk.OpenAsync();
        desk.Browser.ExecuteScript("sessionStorage.setItem('tour-wanted', '1'); localStorage.removeItem('zesty.tour')");
        desk.Go("/");
        await MakeAlbumAsync(desk, photos: 1);
        desk.UntilText(".tour", "Tour, step 1 of 4");
        desk.AxeFindings().ShouldBeEmpty("the tour");
        desk.See(".tape.tour-target");
        desk.ClickButton("Next");
        desk.UntilText(".tour", "The tabs are the steps of the work");
        desk.See(".tab-row.tour-target");
        desk.ClickButton("Skip the tour");
        desk.Gone(".tour");
        desk.Browser.Navigate().Refresh();
        desk.See(".index-tab.on");
        desk.Browser.FindElements(By.CssSelector(".tour")).ShouldBeEmpty();

        desk.ClickButton("Keyboard shortcuts");
        desk.ClickButton("Take the tour");
        for (var step = 1; step < 4; step++)
        {
            desk.UntilText(".tour", $"step {step} of 4");
            desk.ClickButton("Next");
        }

        desk.UntilText(".tour", "find anything");
        desk.ClickButton("Start");
        desk.Gone(".tour");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_week_can_be_laid_out_with_the_keyboard_alone()
    {
        await using var desk = await Desk.OpenAsync();
        await MakeAlbumAsync(desk, photos: 2);
        desk.UntilText("[data-testid='intake-counts']", "2 added");
        desk.Browser.FindElement(By.TagName("body")).SendKeys("5");

        // Tray: hold the first picture; mat: go two pockets right and one down, put it there.
        desk.See(".loose").SendKeys(Keys.Enter);
        desk.Until(
            "the picture to be held",
            () => desk.See(".loose").GetAttribute("aria-pressed") == "true" ? "yes" : null
        );
        desk.Pocket("W19 L1").SendKeys(Keys.ArrowRight);
        Active().SendKeys(Keys.ArrowRight);
        Active().SendKeys(Keys.ArrowDown);
        Active().GetAttribute("data-code").ShouldBe("W19 L6");
        Active().SendKeys(Keys.Enter);
        desk.UntilPocket("W19 L6", "photo 0.jpg");

        // Across the gutter, lock, unlock, take out, undo.
        Active().SendKeys("l");
        desk.UntilText("[data-testid='notice']", "Unlocked W19 L6");
        Active().SendKeys(Keys.Delete);
        desk.UntilPocket("W19 L6", "empty");
        desk.PressControl("z");
        desk.UntilPocket("W19 L6", "photo 0.jpg");
        Active().SendKeys(Keys.ArrowRight);
        Active().GetAttribute("data-code").ShouldBe("W19 R4");

        // Turn the leaf and come back; along the tape.
        desk.Press(" ");
        desk.UntilText(".week-words", "week 20");
        desk.Press("[");
        desk.UntilText(".week-words", "week 19");
        desk.See(".tick.open").SendKeys(Keys.End);
        Active().GetAttribute("aria-label")!.ShouldStartWith("Week 21");
        Active().SendKeys(Keys.Enter);
        desk.UntilText(".week-words", "week 21");
        desk.Complaints().ShouldBeEmpty();

        IWebElement Active() => desk.Browser.SwitchTo().ActiveElement();
    }

    [Fact]
    public async Task Anything_is_found_by_a_few_letters_and_back_leads_where_one_came_from()
    {
        await using var desk = await Desk.OpenAsync();
        await MakeAlbumAsync(desk, photos: 2);
        desk.UntilText("[data-testid='intake-counts']", "2 added");

        // A date, a photo, a room and an action; Back leads where one came from.
        Find(desk, "14 May", "Week 20");
        desk.UntilText(".week-words", "week 20 · 11–17 May 2026");
        Find(desk, "1.JPG", "1.jpg");
        desk.UntilText("[data-testid='viewer-position']", "2 of 2");
        desk.Press(Keys.Escape);
        desk.UntilNoDialog();
        desk.UntilText(".week-words", "week 19");
        Find(desk, "lettering", "Tell: Lettering");
        desk.UntilText(".room h2", "Try a title");
        desk.Browser.Navigate().Back();
        desk.UntilText(".week-words", "week 19");
        Find(desk, "rename the", "Rename the album");
        desk.Write("#album-name-field", "A better name" + Keys.Enter);
        desk.UntilText(".album-name", "A better name");

        // Words that nothing has, and words that could be taken for a pattern, find nothing and say so.
        desk.PressControl("k");
        desk.Write("[role='combobox']", "%_");
        desk.UntilText(".modal.show", "Nothing found");
        desk.AxeFindings().ShouldBeEmpty("the quick switcher");
        desk.Press(Keys.Escape);
        desk.UntilNoDialog();

        // An address can be kept: it names album, scope, step and room.
        desk.OpenRoom("Gather", "Series");
        var kept = new Uri(desk.Browser.Url).PathAndQuery;
        desk.Go("/");
        desk.Go(kept);
        desk.UntilText(".room-link.on", "Series");
        desk.ClickButton("Place");
        desk.UntilText(".week-words", "week 19");
        desk.Complaints().ShouldBeEmpty();

        static void Find(Desk desk, string words, string first)
        {
            desk.PressControl("k");
            desk.Write("[role='combobox']", words);
            desk.UntilText("[role='option'][aria-selected='true']", first);
            desk.See("[role='combobox']").SendKeys(Keys.Enter);
        }
    }

    [Fact]
    public async Task Two_windows_on_one_week_are_told_of_each_other_and_what_does_not_touch_is_merged()
    {
        await using var desk = await Desk.OpenAsync();
        await MakeAlbumAsync(desk, photos: 3);
        desk.UntilText("[data-testid='intake-counts']", "3 added");
        desk.ClickButton("Place");
        desk.See("[data-code='W19 L1']");
        using var second = desk.SecondWindow(deaf: true);
        desk.See("[data-code='W19 L1']", second);

        desk.Drag(desk.See(".loose[aria-label^='Loose photo 0.jpg']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "photo 0.jpg");

        var other = second.FindElement(By.CssSelector(".loose[aria-label^='Loose photo 1.jpg']"));
        other.SendKeys(Keys.Enter);
        second.FindElement(By.CssSelector("[data-code='W19 L2']")).SendKeys(Keys.Enter);
        // Another pocket: both are kept, and the window that listens shows it without asking.
        desk.UntilPocket("W19 L2", "photo 1.jpg");

        desk.Drag(desk.See(".loose[aria-label^='Loose photo 2.jpg']"), desk.Pocket("W19 L1"));
        desk.UntilPocket("W19 L1", "photo 2.jpg");
        desk.See("[data-code='W19 L1'][aria-label*='0.jpg']", second);
        second.FindElement(By.CssSelector("[data-code='W19 L1']")).SendKeys(Keys.Enter);
        second.FindElement(By.CssSelector("[data-code='W19 L1']")).SendKeys(Keys.Delete);
        desk.UntilText("[data-testid='conflict']", "Put 2.jpg into W19 L1", second);
        desk.UntilText("[data-testid='conflict']", "Remove a piece", second);
        second
            .FindElements(By.CssSelector("[data-testid='conflict'] button, .modal.show button"))
            .First(b => b.Text == "Apply mine too")
            .Click();
        desk.Until(
            "the pocket that was emptied, and the other one as it was",
            () =>
                !desk.See("[data-code='W19 L1']", second)
                    .GetAttribute("aria-label")!
                    .Contains(".jpg", StringComparison.Ordinal)
                && desk.See("[data-code='W19 L2']", second)
                    .GetAttribute("aria-label")!
                    .Contains("1.jpg", StringComparison.Ordinal)
                    ? "yes"
                    : null,
            second
        );
        second.Quit();
    }

    [Fact]
    public async Task A_photo_without_a_date_is_put_on_its_day_and_one_can_be_left_out_and_taken_back()
    {
        await using var desk = await Desk.OpenAsync();
        await MakeAlbumAsync(desk, photos: 1, undated: true);
        desk.UntilText("[data-testid='no-date']", "no date in the file");
        desk.SetDate("[data-testid='no-date'] input[type='date']", "2026-05-06");
        desk.ClickButton("Move there");
        desk.Until(
            "two photos on their days",
            () => desk.Browser.FindElements(By.CssSelector(".day-photo")).Count == 2 ? "yes" : null
        );
        desk.Click("button[aria-label='Leave 0.jpg out of the album']");
        desk.UntilText("[data-testid='left-out']", "left out");
        desk.ClickButton("Keep again");
        desk.Until(
            "two photos on their days again",
            () => desk.Browser.FindElements(By.CssSelector(".day-photo")).Count == 2 ? "yes" : null
        );
    }

    private static Task MakeAlbumAsync(Desk desk, int photos, bool undated = false)
    {
        desk.ClickButton("New album");
        desk.Write("#album-name", "A test year");
        desk.ClickButton("Next");
        desk.ChooseDesigns("9x12-nine-3x4");
        desk.ClickButton("Next");
        desk.SetDate("#album-first", "2026-05-04");
        desk.Write("#album-weeks", "3");
        desk.ClickButton("Create album");
        desk.UntilText(".week-words", "week 19");
        var files = Enumerable
            .Range(0, photos)
            .Select(i => Save($"{i}.jpg", Pictures.Jpeg(450 + i, 600, $"2026:05:04 1{i}:00:00", shade: 60 + i)))
            .ToList();
        if (undated)
        {
            files.Add(Save("undated.jpg", Pictures.Jpeg(taken: null)));
        }

        desk.Browser.FindElement(By.CssSelector("[data-testid='file-picker']")).SendKeys(string.Join('\n', files));
        return Task.CompletedTask;

        string Save(string name, byte[] bytes)
        {
            var path = Path.Combine(desk.Folder, name);
            File.WriteAllBytes(path, bytes);
            return path;
        }
    }
}
