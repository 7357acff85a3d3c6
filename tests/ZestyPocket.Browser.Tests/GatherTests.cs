using System.Diagnostics;
using OpenQA.Selenium;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>
/// Gathering as a keeper does it: a mixed folder of a trip, an hourly day, judging by keyboard, the tape.
/// </summary>
public sealed class GatherTests
{
    [Fact]
    public async Task A_mixed_folder_of_a_trip_lands_on_its_days_with_one_correction()
    {
        await using var desk = await Desk.OpenAsync();
        MakeAlbum(desk, "trip", "Nine days afloat", "2026-06-06", units: 5);
        desk.UntilText(".week-words", "day 1 · 6 June 2026");

        // The canal lies an hour east of home.
        desk.OpenRoom("Gather", "Cameras & places");
        desk.See("#home-zone");
        desk.SetDate("#cut-off", "05:00");
        desk.Until(
            "the cut-off set",
            () =>
            {
                desk.Browser.FindElements(By.CssSelector("form button[type='submit']"))
                    .First(b => b.Displayed && b.Enabled && b.Text == "Set")
                    .Click();
                return "yes";
            }
        );
        desk.UntilText("[data-testid='notice']", "Set the late-night cut-off to 05:00");
        desk.ClickButton("Add a place");
        desk.Write("#place-0", "Sallow Canal");
        desk.Write("#zone-0", "Europe/Paris");
        desk.SetDate("#from-0", "2026-06-06T11:00");
        desk.ClickButton("Save places");
        desk.UntilText("[data-testid='notice']", "Set the stay");

        // Phone HEIC with zones, a camera an hour behind without, a screenshot, a scan named by its date, two films.
        desk.Click(".tape a[data-unit]");
        desk.ClickButton("Gather");
        var folder = MixedFolder(desk.Folder);
        desk.Browser.FindElement(By.CssSelector("[data-testid='folder-picker']")).SendKeys(folder);
        desk.UntilText("[data-testid='intake-counts']", "17 of 17 files: 15 added, 0 already here, 2 refused; done");
        desk.UntilText("[data-testid='refusals']", "lock.mov: The video is damaged");

        // The dawn of the third day is before the cut-off by the camera's own clock, so it lies on the second.
        OpenDay(desk, 2);
        desk.Until(
            "the dawn on the second day",
            () => Photos(desk).Contains("dawn.jpg, Sun 7 Jun, 04:20") ? "yes" : null
        );
        desk.UntilText("[data-testid='clock-doubt']", "Is the clock of Fennimore 35 right?");
        desk.ClickButton("Read its clock as Europe/London time");
        desk.UntilText("[data-testid='notice']", "1 picture from Day 2 to Day 3");
        desk.Until(
            "the dawn on its own day",
            () => Photos(desk).All(p => !p.StartsWith("dawn", StringComparison.Ordinal)) ? "yes" : null
        );
        OpenDay(desk, 3);
        desk.Until(
            "the dawn on the third day",
            () => Photos(desk).Contains("dawn.jpg, Mon 8 Jun, 05:20") ? "yes" : null
        );
        Photos(desk).ShouldContain("scan 2026-06-08 lock ticket.tif, Mon 8 Jun");
        Photos(desk).ShouldContain("Screenshot 2026-06-08 at 07.15.00.png, Mon 8 Jun, 07:15");
        Photos(desk).Count(p => p.StartsWith("phone", StringComparison.Ordinal)).ShouldBe(2);

        // One click takes the correction back, and one more makes it again.
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Set the clock of Fennimore 35");
        desk.Until(
            "the dawn gone again",
            () => Photos(desk).All(p => !p.StartsWith("dawn", StringComparison.Ordinal)) ? "yes" : null
        );
        desk.PressControl("y");
        desk.Until("and back", () => Photos(desk).Contains("dawn.jpg, Mon 8 Jun, 05:20") ? "yes" : null);

        desk.Click("a[href$='/all/overview']");
        desk.UntilText("[data-testid='overview']", "What to do next");
        desk.AxeFindings().ShouldBeEmpty("the overview");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_day_is_gathered_by_the_hour_and_its_gaps_are_seen()
    {
        await using var desk = await Desk.OpenAsync();
        MakeAlbum(desk, "documentedDay", "A Saturday", "2026-05-02", units: null);
        desk.UntilText(".week-words", "07:00 · 2 May 2026");
        Send(
            desk,
            ("seven.jpg", Pictures.Jpeg(taken: "2026:05:02 07:10:00", shade: 10)),
            ("nearer.jpg", Pictures.Jpeg(taken: "2026:05:02 06:58:00", shade: 20)),
            ("nine.jpg", Pictures.Jpeg(taken: "2026:05:02 08:45:00", shade: 30))
        );
        desk.UntilText("[data-testid='intake-counts']", "3 added");
        desk.Until("two pictures at seven", () => Photos(desk).Count == 2 ? "yes" : null);
        desk.See(".day-open.proposed").GetAttribute("aria-label")!.ShouldStartWith("nearer.jpg");
        desk.Click("a[href$='/all/overview']");
        // Hours without a picture in a row are one tile until it is opened.
        desk.UntilText(".glance-unit.run", "13 empty");
        desk.AxeFindings().ShouldBeEmpty("the contact sheet");
        desk.Click(".glance-unit.run");
        desk.Until(
            "the hours",
            () => desk.Browser.FindElements(By.CssSelector(".glance-unit.empty")).Count == 14 ? "yes" : null
        );
        desk.UntilText(".glance", "09:00");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task Pictures_are_judged_by_keyboard_one_after_another()
    {
        await using var desk = await Desk.OpenAsync();
        MakeAlbum(desk, "weekly", "A test year", "2026-05-04", units: 3);
        Send(
            desk,
            [
                .. Enumerable
                    .Range(0, 5)
                    .Select(i =>
                        ($"{i}.jpg", Pictures.Jpeg(1900, 1300, $"2026:05:05 1{i}:00:00", shade: 40 + (30 * i)))
                    ),
            ]
        );
        desk.UntilText("[data-testid='intake-counts']", "5 added");
        desk.ClickButton("whole album");
        desk.UntilText("[data-testid='photo-count']", "5 pictures");
        desk.AxeFindings().ShouldBeEmpty("the photos room");

        // In the grid: keep, stars, maybe; the focus goes on after a verdict.
        desk.Until(
            "five pictures",
            () => desk.Browser.FindElements(By.CssSelector(".cell-photo")).Count == 5 ? "yes" : null
        );
        desk.See(".cell-photo[data-index='0']").SendKeys("k");
        UntilCell(desk, 0, "keep");
        desk.Until("the focus on the second", () => Active(desk).GetAttribute("data-index") == "1" ? "yes" : null);
        Active(desk).SendKeys("3");
        UntilCell(desk, 1, "3 stars");
        desk.See(".cell-photo[data-index='1']").SendKeys("m");
        UntilCell(desk, 1, "maybe");

        // Large: leave out goes on to the next; facts are told; a cover is drawn and hides what it covers.
        desk.See(".cell-photo[data-index='2']").SendKeys(Keys.Enter);
        desk.UntilText("[data-testid='viewer-position']", "3 of 5");
        desk.UntilText(".photo-facts", "6.333 × 4.333 in");
        desk.AxeFindings().ShouldBeEmpty("the viewer");
        desk.Press("x");
        desk.UntilText("[data-testid='viewer-position']", "4 of 5");
        desk.Press("v");
        desk.ClickButton("Add a box");
        desk.UntilText("[data-testid='notice']", "Covered 1 place on 3.jpg");
        desk.Press(Keys.Escape);
        desk.Until(
            "the painted picture",
            () =>
                desk.Browser.ExecuteScript(
                    """
                    const i = document.querySelector('.picture img')
                    if (!i || !i.complete || !i.naturalWidth || i.src.includes('uncovered')) return null
                    const c = document.createElement('canvas'); c.width = i.naturalWidth; c.height = i.naturalHeight
                    const x = c.getContext('2d'); x.drawImage(i, 0, 0)
                    return x.getImageData(c.width / 2, c.height / 2, 1, 1).data[0]
                    """
                )
                    is long
                        and > 85
                        and < 100
                    ? "yes"
                    : null
        );
        desk.AxeFindings().ShouldBeEmpty("the viewer with a cover");

        // Two side by side: one is kept, the other left.
        desk.Press("c");
        desk.Until("two pictures", () => desk.Browser.FindElements(By.CssSelector(".frame")).Count == 2 ? "yes" : null);
        desk.ClickButton("Keep this, leave the other");
        desk.Until(
            "one picture again",
            () => desk.Browser.FindElements(By.CssSelector(".frame")).Count == 1 ? "yes" : null
        );
        desk.Press(Keys.Escape);
        desk.UntilText("[data-testid='photo-count']", "3 pictures");

        // Filters, and many at once with one undo.
        desk.Choose("[data-testid='filter-show']", "left out");
        desk.UntilText("[data-testid='photo-count']", "2 pictures");
        desk.Until(
            "both boxes ticked",
            () =>
            {
                foreach (
                    var box in desk
                        .Browser.FindElements(By.CssSelector(".cell input[type='checkbox']"))
                        .Where(b => !b.Selected)
                )
                {
                    box.Click();
                }

                return desk
                    .Browser.FindElement(By.CssSelector("[data-testid='bulk']"))
                    .Text.StartsWith("2 chosen", StringComparison.Ordinal)
                    ? "yes"
                    : null;
            }
        );
        desk.Click("[data-testid='bulk'] button");
        desk.UntilText("[data-testid='notice']", "Kept 2 pictures");
        desk.UntilText("[data-testid='photo-count']", "0 pictures");
        desk.Click("[data-testid='notice-undo']");
        desk.UntilText("[data-testid='photo-count']", "2 pictures");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task Days_are_merged_left_out_and_made_on_the_tape_by_keyboard_and_mouse()
    {
        await using var desk = await Desk.OpenAsync();
        MakeAlbum(desk, "trip", "Four days", "2026-06-06", units: 4);
        desk.UntilText(".week-words", "day 1");
        desk.See(".tick.open").SendKeys(Keys.ArrowRight);
        Active(desk).SendKeys("m");
        desk.UntilText("[data-testid='notice']", "Merged Day 2 and Day 3");
        desk.UntilText(".week-words", "days 2–3 · 7–8 June 2026");
        desk.Until("three ticks", () => desk.Browser.FindElements(By.CssSelector(".tick")).Count == 3 ? "yes" : null);
        desk.Click("[data-testid='notice-undo']");
        desk.Until(
            "four ticks again",
            () => desk.Browser.FindElements(By.CssSelector(".tick")).Count == 4 ? "yes" : null
        );

        // The days are two again when the words say so; a key pressed before that is for the merged day.
        desk.UntilText(".week-words", "day 2 ·");
        desk.See(".tick.open").SendKeys("l");
        desk.UntilText("[data-testid='notice']", "Left Day 2 out on purpose");
        desk.Until(
            "a hatched tick",
            () => desk.Browser.FindElements(By.CssSelector(".tick.out")).Count == 1 ? "yes" : null
        );

        desk.Click(".unit-menu button");
        desk.ClickMenu("Add a day at the end");
        desk.UntilText("[data-testid='notice']", "Made Day 5");
        desk.Click(".unit-menu button");
        desk.ClickMenu("Rename…");
        desk.Write("#unit-name", "The lock that would not open");
        desk.ClickButton("Save name");
        desk.UntilText(".week-words", "The lock that would not open");
        desk.AxeFindings().ShouldBeEmpty("the desk of a trip");
        desk.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public async Task Keepsakes_notes_series_and_calendars_have_their_rooms()
    {
        await using var desk = await Desk.OpenAsync();
        MakeAlbum(desk, "weekly", "A test year", "2026-05-04", units: 3);
        Send(
            desk,
            ("a.jpg", Pictures.Jpeg(taken: "2026:05:05 08:05:00", shade: 10)),
            ("b.jpg", Pictures.Jpeg(taken: "2026:05:07 08:10:00", shade: 20))
        );
        desk.UntilText("[data-testid='intake-counts']", "2 added");
        desk.ClickButton("Add a keepsake");
        desk.Write("#keepsake-name", "Market map");
        desk.Write("#keepsake-size", "14 x 10 in");
        desk.ClickButton("Add");
        desk.UntilText(".keepsakes", "Too large for every pocket here");
        desk.AxeFindings().ShouldBeEmpty("Gather with a keepsake");
        desk.ClickButton("Put into the envelope");
        desk.UntilText(".keepsakes", "in the envelope");

        var ics = Path.Combine(desk.Folder, "family.ics");
        await File.WriteAllTextAsync(
            ics,
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\n"
                + "DTSTAMP:20260101T000000Z\r\nDTSTART:20260505T190000\r\nSUMMARY:Choir\r\n"
                + "END:VEVENT\r\nEND:VCALENDAR\r\n",
            TestContext.Current.CancellationToken
        );
        desk.OpenRoom("Gather", "Keepsakes");
        desk.UntilText("[data-testid='keepsakes-room']", "Market map");
        desk.AxeFindings().ShouldBeEmpty("the keepsakes");
        desk.ClickButton("Series");
        desk.ClickButton("Add a series");
        desk.Write("#series-name", "The window");
        desk.ClickButton("Add");
        desk.UntilText("[data-testid='series-room']", "0 chosen, 1 gap");
        desk.Click(".suggestion");
        desk.UntilText("[data-testid='series-room']", "1 chosen, 1 gap");
        desk.AxeFindings().ShouldBeEmpty("the series");
        desk.ClickButton("Cameras & places");
        desk.See("[data-testid='camera']");
        desk.Browser.FindElement(By.CssSelector("[data-testid='ics-picker']")).SendKeys(ics);
        desk.UntilText("[data-testid='notice']", "Read 1 event out of a calendar");
        desk.AxeFindings().ShouldBeEmpty("cameras and places");
        desk.Click("[data-testid='reminders']");
        var saved = desk.Until("the reminders", () => Directory.GetFiles(desk.Downloads, "*.ics").FirstOrDefault());
        (await File.ReadAllTextAsync(saved, TestContext.Current.CancellationToken)).ShouldContain("RRULE:FREQ=WEEKLY");
        desk.Click(".tape a[data-unit]");
        desk.ClickButton("Tell");
        desk.UntilText(".tell", "Choir");
        desk.Complaints().ShouldBeEmpty();
    }

    internal static void MakeAlbum(Desk desk, string kind, string name, string first, int? units)
    {
        desk.ClickButton("New album");
        desk.Click($"input[value='{kind}']");
        desk.Write("#album-name", name);
        desk.ClickButton("Next");
        desk.ChooseDesigns(kind == "weekly" ? "9x12-nine-3x4" : "6x8-two-6x4");
        desk.ClickButton("Next");
        desk.SetDate("#album-first", first);
        desk.Write("#album-zone", "Europe/London");
        if (units is { } count)
        {
            desk.Write("#album-weeks", count.ToString(System.Globalization.CultureInfo.InvariantCulture));
        }

        desk.ClickButton("Create album");
        desk.See("[data-testid='file-picker'], .drop");
    }

    internal static void Send(Desk desk, params (string Name, byte[] Bytes)[] files)
    {
        var paths = files.Select(f =>
        {
            var path = Path.Combine(desk.Folder, f.Name);
            File.WriteAllBytes(path, f.Bytes);
            return path;
        });
        desk.Browser.FindElement(By.CssSelector("[data-testid='file-picker']")).SendKeys(string.Join('\n', paths));
    }

    private static void OpenDay(Desk desk, int number)
    {
        desk.Click($".tape li:nth-child({number}) a");
        desk.UntilText(".week-words", $"day {number} ");
    }

    private static List<string> Photos(Desk desk) =>
        [.. desk.Browser.FindElements(By.CssSelector(".day-open")).Select(b => b.GetAttribute("aria-label")!)];

    private static IWebElement Active(Desk desk) => desk.Browser.SwitchTo().ActiveElement();

    private static void UntilCell(Desk desk, int index, string part) =>
        desk.Until(
            $"picture {index} to say “{part}”",
            () =>
                desk
                    .Browser.FindElement(By.CssSelector($".cell-photo[data-index='{index}']"))
                    .GetAttribute("aria-label")!
                    .Contains(part, StringComparison.Ordinal)
                    ? "yes"
                    : null
        );

    /// <summary>Fifteen pictures and two films, as a phone, a camera, a screen and a scanner leave them.</summary>
    private static string MixedFolder(string folder)
    {
        var mixed = Directory.CreateDirectory(Path.Combine(folder, "mixed")).FullName;
        var deep = Directory.CreateDirectory(Path.Combine(mixed, "camera", "100FEN")).FullName;
        for (var i = 0; i < 6; i++)
        {
            // The phone meets the camera at six sights, on three days.
            var (day, hour, minute) = (6 + (i / 2), 12 + (4 * (i % 2)), 7 * i);
            var jpeg = Path.Combine(folder, "for-heic.jpg");
            File.WriteAllBytes(jpeg, Pictures.Jpeg(800, 600, shade: 20 + i));
            var heic = Path.Combine(mixed, $"phone-{i}.heic");
            Run("heif-enc", "-q", "60", "-o", heic, jpeg);
            Run(
                "exiftool",
                "-q",
                "-overwrite_original",
                "-Make=Kestrel",
                "-Model=P4",
                $"-DateTimeOriginal=2026:06:{day:00} {hour:00}:{minute:00}:00",
                "-OffsetTimeOriginal=+02:00",
                heic
            );
            File.WriteAllBytes(
                Path.Combine(deep, $"FEN{i}.jpg"),
                Pictures.Jpeg(
                    800,
                    600,
                    $"2026:06:{day:00} {hour - 1:00}:{minute + 1:00}:30",
                    shade: 120 + i,
                    make: "Fennimore",
                    model: "35"
                )
            );
        }

        File.WriteAllBytes(
            Path.Combine(deep, "dawn.jpg"),
            Pictures.Jpeg(800, 600, "2026:06:08 04:20:00", shade: 200, make: "Fennimore", model: "35")
        );
        File.WriteAllBytes(Path.Combine(mixed, "Screenshot 2026-06-08 at 07.15.00.png"), Pictures.Png(500, 900));
        var tiff = Path.Combine(mixed, "scan 2026-06-08 lock ticket.tif");
        using (var scan = NetVips.Image.NewFromBuffer(Pictures.Jpeg(900, 500, taken: null, shade: 230)))
        {
            scan.Tiffsave(tiff, keep: NetVips.Enums.ForeignKeep.None);
        }

        byte[] film = [0, 0, 0, 20, .. "ftypqt  "u8, 0, 0, 2, 0, .. "qt  "u8, .. new byte[4000]];
        File.WriteAllBytes(Path.Combine(mixed, "lock.mov"), film);
        File.WriteAllBytes(
            Path.Combine(mixed, "geese.mp4"),
            [0, 0, 0, 24, .. "ftypisom"u8, 0, 0, 2, 0, .. "isomiso2"u8, .. new byte[4000]]
        );
        return mixed;
    }

    private static void Run(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
        )!;
        var errors = process.StandardError.ReadToEnd();
        process.WaitForExit();
        process.ExitCode.ShouldBe(0, errors);
    }
}
