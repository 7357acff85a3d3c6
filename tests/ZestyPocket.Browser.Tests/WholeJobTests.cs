using OpenQA.Selenium;
using UglyToad.PdfPig;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Browser.Tests;

/// <summary>The whole job, from an empty shelf to a printed sheet, on the real interface.</summary>
public sealed class WholeJobTests
{
    [Fact]
    public async Task From_an_empty_album_to_a_printed_sheet_that_measures_true()
    {
        await using var desk = await Desk.OpenAsync();

        // An album.
        desk.See("[data-testid='empty-shelf']");
        desk.ClickButton("New album");
        desk.Write("#album-name", "Our test year");
        desk.ClickButton("Next");
        desk.UntilText("[data-testid='new-album-step']", "Step 2 of 3: Pages");
        // A design with pockets for both orientations is chosen already.
        desk.See(".design.on input[value='9x12-rows-6x4-3x4']");
        desk.AxeFindings().ShouldBeEmpty("a new album");
        desk.ChooseDesigns("9x12-nine-3x4", "9x12-rows-6x4-3x4");
        desk.ClickButton("Next");
        desk.SetDate("#album-first", "2026-05-04");
        desk.Write("#album-weeks", "3");
        desk.ClickButton("Create album");

        // A folder of photos, some of them bad.
        desk.UntilText(".week-words", "week 19 · 4–10 May 2026");
        var files = WritePhotos(desk.Folder);
        desk.Browser.FindElement(By.CssSelector("[data-testid='file-picker']")).SendKeys(string.Join('\n', files));
        desk.UntilText("[data-testid='intake-counts']", "12 of 12 files: 9 added, 1 already here, 2 refused");
        desk.UntilText("[data-testid='refusals']", "cut-off.jpg: The picture breaks off");
        desk.UntilText("[data-testid='refusals']", "letter.jpg: This is not a JPEG, PNG, WebP");
        desk.UntilText("[data-testid='no-date']", "undated.jpg");
        desk.Until(
            "eight photos on their days",
            () => desk.Browser.FindElements(By.CssSelector(".day-photo")).Count == 8 ? "yes" : null
        );

        // The spread: the album's first design is nine 3x4; the left page becomes three rows of 6x4 + 3x4.
        desk.ClickButton("Place");
        desk.See("#design-back-1");
        desk.Choose("#design-back-1", "Three rows of 6x4 + 3x4");
        desk.UntilPocket("W19 L1", "3x4: empty");
        desk.UntilPocket("W19 L2", "6x4: empty");

        // By hand: one picture dragged in, then moved on, then swapped by keyboard.
        desk.Drag(desk.See(".loose[aria-label^='Loose photo wide-0.jpg']"), desk.Pocket("W19 L2"));
        desk.UntilPocket("W19 L2", "photo wide-0.jpg");
        desk.Drag(desk.See(".loose[aria-label^='Loose photo wide-1.jpg']"), desk.Pocket("W19 L4"));
        desk.UntilPocket("W19 L4", "photo wide-1.jpg");
        desk.Pocket("W19 L2").SendKeys(Keys.Escape);
        desk.Pocket("W19 L2").SendKeys(Keys.Enter);
        desk.Pocket("W19 L2").SendKeys(Keys.ArrowDown);
        desk.Browser.SwitchTo().ActiveElement().SendKeys(Keys.Enter);
        desk.UntilPocket("W19 L4", "photo wide-0.jpg");
        desk.UntilPocket("W19 L2", "photo wide-1.jpg");

        // The piece in hand tells its resolution and crop loss: 2400x1600 in a 6x4 pocket is 400 ppi and loses nothing.
        desk.Click("[data-code='W19 L4']");
        desk.UntilText("[data-testid='ppi']", "400 ppi (good)");
        desk.UntilText("[data-testid='loss']", "0 %");
        desk.Pocket("W19 L4").SendKeys("+");
        desk.UntilText("[data-testid='ppi']", "364 ppi");
        desk.Pocket("W19 L4").SendKeys(Keys.Shift + Keys.ArrowLeft);
        desk.UntilText("[data-testid='notice']", "Framed the picture in W19 L4");

        // Words: a card that is written into an empty pocket, too long at first.
        desk.Click("[data-code='W19 L1']");
        desk.ClickButton("Add a title card");
        desk.UntilPocket("W19 L1", "card Title: Week 19");
        desk.Click("[data-code='W19 L3']");
        desk.ClickButton("Add a journaling card");
        desk.UntilPocket("W19 L3", "card Journaling card");
        var long_ = string.Join(' ', Enumerable.Repeat("marmalade", 260));
        desk.Write(".card-editor textarea", long_);
        desk.UntilText("[data-testid='fit']", "words too many");
        desk.Write(".card-editor textarea", "Tuesday: marmalade on everything.");
        desk.UntilText("[data-testid='fit']", "Fits at 26.25 pt: 3 lines");
        desk.UntilText("[data-testid='notice']", "Edited a journaling card in W19 L3");

        // The rest by itself; what lies there stays.
        desk.Click("[data-code='W19 R9']");
        desk.ClickButton("Fill the spread");
        desk.UntilText("[data-testid='notice']", "Filled the spread with 6 photos");
        desk.PocketName("W19 L4").ShouldContain("wide-0.jpg");

        // Undo and redo, also after the page was loaded anew.
        desk.Browser.Navigate().Refresh();
        desk.Until("the undo button", () => desk.See("[data-testid='undo']").Enabled ? "yes" : null);
        desk.PressControl("z");
        desk.UntilText("[data-testid='notice']", "Undone: Filled the spread");
        desk.Click("[data-testid='redo']");
        desk.UntilText("[data-testid='notice']", "Done again: Filled the spread");

        // Sheets.
        desk.ClickButton("Print");
        desk.UntilText("[data-testid='plan-words']", "10 pieces on");
        desk.Until(
            "a preview of the first sheet",
            () =>
                desk.Browser.ExecuteScript(
                    "const i = document.querySelector('.sheet img'); return !!i && i.complete && i.naturalWidth > 500"
                )
                    is true
                    ? "yes"
                    : null
        );
        desk.ClickButton("Create PDF");
        desk.See("[data-testid='download']").Click();
        var pdfPath = desk.Until(
            "the downloaded PDF",
            () => Directory.GetFiles(desk.Downloads, "*.pdf").FirstOrDefault()
        );
        MeasureSheets(pdfPath);

        desk.Complaints().ShouldBeEmpty();
    }

    /// <summary>
    /// The bytes of the PDF: eight photo prints of 3x4 and 6x4 in, within 0.05 mm; the words of the card.
    /// </summary>
    private static void MeasureSheets(string path)
    {
        using var pdf = PdfDocument.Open(path);
        var prints = pdf.GetPages()
            .SelectMany(p => p.GetImages())
            .Select(i => (Across: i.BoundingBox.Width / 72 * 25.4, Down: i.BoundingBox.Height / 72 * 25.4))
            .ToList();
        prints.Count.ShouldBe(8);
        prints.Count(p => Is(p, 76.2, 101.6)).ShouldBe(5);
        prints.Count(p => Is(p, 152.4, 101.6)).ShouldBe(3);
        var text = string.Join(' ', pdf.GetPages().Select(p => p.Text));
        foreach (
            var expected in new[]
            {
                "Tuesday:",
                "marmalade",
                "everything.",
                "4–10 May 2026",
                "W19 L4",
                "100 mm",
                "4 in",
            }
        )
        {
            text.ShouldContain(expected);
        }

        foreach (var page in pdf.GetPages())
        {
            (page.MediaBox.Bounds.Width, page.MediaBox.Bounds.Height).ShouldBe((612, 792));
        }

        static bool Is((double Across, double Down) print, double width, double height) =>
            (Math.Abs(print.Across - width) < 0.05 && Math.Abs(print.Down - height) < 0.05)
            || (Math.Abs(print.Across - height) < 0.05 && Math.Abs(print.Down - width) < 0.05);
    }

    private static List<string> WritePhotos(string folder)
    {
        var photos = Directory.CreateDirectory(Path.Combine(folder, "photos")).FullName;
        var files = new List<string>();
        for (var i = 0; i < 4; i++)
        {
            Add($"wide-{i}.jpg", Pictures.Jpeg(2400, 1600, $"2026:05:0{4 + i} 10:00:00", shade: 100 + i));
            Add($"tall-{i}.jpg", Pictures.Jpeg(1512, 2016, $"2026:05:0{4 + i} 15:00:00", shade: 140 + i));
        }

        Add("same again.jpg", File.ReadAllBytes(files[0]));
        Add("undated.jpg", Pictures.Jpeg(1200, 900, taken: null));
        Add("cut-off.jpg", Pictures.Jpeg(1200, 900, shade: 7)[..3000]);
        Add("letter.jpg", "Dear Nan, no picture today."u8.ToArray());
        return files;

        void Add(string name, byte[] bytes)
        {
            files.Add(Path.Combine(photos, name));
            File.WriteAllBytes(files[^1], bytes);
        }
    }
}
