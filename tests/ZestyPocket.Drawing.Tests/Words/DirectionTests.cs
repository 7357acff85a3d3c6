using System.Diagnostics;
using System.Text.Json;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Drawing.Tests.Words;

/// <summary>Text that runs both ways, by UAX #9, checked against the npm package bidi-js.</summary>
public sealed class DirectionTests : IDisposable
{
    private const string Hebrew = "\u05E9\u05DC\u05D5\u05DD";

    private readonly FontShelf _fonts = new();

    public void Dispose() => _fonts.Dispose();

    [Fact]
    public async Task Ten_thousand_mixed_texts_run_as_another_library_says()
    {
        var random = new Random(20_261_126);
        string[] stock =
        [
            "a",
            "b",
            "Word",
            "\u05D0",
            "\u05D1",
            Hebrew,
            "\u0627",
            "\u0644\u0628",
            "1",
            "23",
            "4.5",
            "\u0661",
            "\u0662\u0663",
            " ",
            " ",
            "  ",
            ".",
            ",",
            ":",
            "-",
            "+",
            "/",
            "%",
            "$",
            "(",
            ")",
            "[",
            "]",
            "!",
            "?",
            "\"",
            "\u200E",
            "\u200F",
            "\u2067",
            "\u2066",
            "\u2068",
            "\u2069",
            "\u0301",
            "\u05B0",
        ];
        var texts = Enumerable
            .Range(0, 10_000)
            .Select(_ =>
                string.Concat(Enumerable.Range(0, random.Next(1, 30)).Select(_ => stock[random.Next(stock.Length)]))
            )
            .ToArray();
        using var theirs = JsonDocument.Parse(await NodeAsync("bidi-levels.mjs", JsonSerializer.Serialize(texts)));
        var wrong = new List<string>();
        foreach (var (text, their) in texts.Zip(theirs.RootElement.EnumerateArray()))
        {
            var (levels, rightToLeft) = Directions.LevelsOf(text);
            byte[] ours = levels.IsDefault ? new byte[text.Length] : [.. levels];
            // Odd levels run from right to left. How deep even ones lie shows nowhere, and ICU leaves them at 0 in
            // plain text.
            var same =
                ours.Select(l => l % 2)
                    .SequenceEqual(their.GetProperty("levels").EnumerateArray().Select(l => l.GetByte() % 2))
                && rightToLeft == their.GetProperty("rightToLeft").GetBoolean();
            var order = Directions.InVisualOrder([.. Enumerable.Range(0, text.Length)], i => ours[i]);
            if (!same || !order.SequenceEqual(their.GetProperty("order").EnumerateArray().Select(i => i.GetInt32())))
            {
                wrong.Add(text);
            }
        }

        wrong.ShouldBeEmpty();
    }

    [Fact]
    public void A_line_that_begins_in_Hebrew_prints_the_English_after_it_forwards()
    {
        using var page = new PrintedLines(_fonts, Typeface.Sans, $"{Hebrew} we said (hello) 12", 300);
        // What stands at the left is read last in a paragraph that begins at the right.
        page.Words.ShouldBe(["12", "we", "said", "(hello)"], ignoreOrder: true);
        page.LeftOf("we").ShouldBeLessThan(page.LeftOf("said"));
        page.LeftOf("said").ShouldBeLessThan(page.LeftOf("(hello)"));
    }

    [Fact]
    public void A_paragraph_that_begins_in_Hebrew_is_set_from_the_right_and_one_in_English_from_the_left()
    {
        var fit = Copyfit.Fit(
            $"{Hebrew} abc\nabc {Hebrew}",
            200,
            60,
            new TypeRange(Typeface.Sans, 10, 10, 1.2),
            _fonts
        );
        var (hebrew, english) = (fit.Lines[0], fit.Lines[1]);
        (hebrew.X + hebrew.Width).ShouldBe(200, 0.001);
        english.X.ShouldBe(0);
        hebrew.Levels.IsDefault.ShouldBeFalse();
    }

    [Theory]
    [InlineData(Typeface.Handwriting, "\u03A9", "Mynerve_400Regular.ttf")]
    [InlineData(Typeface.Handwriting, "\u0416", "Caveat_500Medium.ttf")]
    [InlineData(Typeface.Typewriter, "\u0416", "Cousine_400Regular.ttf")]
    [InlineData(Typeface.Sans, "\u0416", "NotoSans_400Regular.ttf")]
    [InlineData(Typeface.SansStrong, "\u03A9", "NotoSans_600SemiBold.ttf")]
    [InlineData(Typeface.Serif, "\u05D0", "NotoSansHebrew_400Regular.ttf")]
    [InlineData(Typeface.Sans, "\u0627", "NotoSansArabic_400Regular.ttf")]
    public void A_letter_that_a_face_lacks_is_taken_from_a_face_of_the_same_kind(
        Typeface face,
        string letter,
        string file
    ) => _fonts.Sources(face, letter).ShouldHaveSingleItem().File.ShouldBe(file);

    [Theory]
    [InlineData(Typeface.Typewriter, "e\u0301")]
    [InlineData(Typeface.Sans, "u\u0308")]
    [InlineData(Typeface.Handwriting, "o\u0302")]
    public void An_accent_written_apart_is_of_the_same_face_and_as_wide_as_the_letter_with_it(
        Typeface face,
        string apart
    )
    {
        _fonts.Sources(face, apart).ShouldHaveSingleItem();
        _fonts.Width(face, 10, apart).ShouldBe(_fonts.Width(face, 10, apart.Normalize()), 0.001);
    }

    [Fact]
    public void A_tab_is_a_wide_blank_and_no_box()
    {
        var width = _fonts.Width(Typeface.Sans, 10, "a\tb");
        width.ShouldBe(_fonts.Width(Typeface.Sans, 10, "a") + _fonts.Width(Typeface.Sans, 10, "b") + 15, 0.01);
        using var page = new PrintedLines(_fonts, Typeface.Sans, "a\tb", 200);
        page.Words.ShouldBe(["a", "b"], ignoreOrder: true);
    }

    [Fact]
    public void A_word_that_is_parted_at_a_soft_hyphen_prints_a_hyphen_and_keeps_its_width()
    {
        const string word = "Strassen\u00ADbahn\u00ADhaltestelle";
        var fit = Copyfit.Fit(word, 62, 100, new TypeRange(Typeface.Sans, 10, 10, 1.2), _fonts);
        fit.Fits.ShouldBeTrue();
        fit.Lines.Length.ShouldBeGreaterThan(1);
        fit.Lines[0].Text.ShouldEndWith("-");
        fit.Lines.ShouldAllBe(l => l.Width <= 62.001);
        fit.Lines[0].Width.ShouldBe(_fonts.Width(Typeface.Sans, 10, fit.Lines[0].Text), 0.05);
        Copyfit
            .Fit(word, 400, 100, new TypeRange(Typeface.Sans, 10, 10, 1.2), _fonts)
            .Lines.Single()
            .Text.ShouldNotContain("-");
    }

    private static async Task<string> NodeAsync(string script, string input)
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root!.FullName, "ZestyPocket.slnx")))
        {
            root = root.Parent;
        }

        var start = new ProcessStartInfo(
            "node",
            [
                Path.Combine(root.FullName, "tests/ZestyPocket.Drawing.Tests/Words", script),
                Path.Combine(root.FullName, "src/web"),
            ]
        )
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            StandardInputEncoding = new System.Text.UTF8Encoding(false),
        };
        using var node = Process.Start(start)!;
        var output = node.StandardOutput.ReadToEndAsync();
        var errors = node.StandardError.ReadToEndAsync();
        await node.StandardInput.WriteAsync(input);
        node.StandardInput.Close();
        await node.WaitForExitAsync();
        node.ExitCode.ShouldBe(0, await errors);
        return await output;
    }
}
