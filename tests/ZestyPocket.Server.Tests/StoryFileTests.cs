using System.Text;
using System.Text.Json;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>Words that come in files, well made and badly.</summary>
public sealed class StoryFileTests
{
    private static readonly LocalTime CutOff = new(3, 0);

    private static IReadOnlyList<ArrivedStory> Read(string name, string text) =>
        StoryFiles.Read(name, Encoding.UTF8.GetBytes(text), CutOff, TestContext.Current.CancellationToken);

    /// <summary>Written by the package feed: RSS 2.0, Atom (RFC 4287) and JSON Feed 1.</summary>
    [Theory]
    [InlineData("rss")]
    [InlineData("atom")]
    [InlineData("json")]
    public async Task Feeds_that_another_library_wrote_give_their_posts_on_their_days(string kind)
    {
        using var feeds = JsonDocument.Parse(
            await Node.RunAsync("ZestyPocket.Server.Tests/write-feed.mjs", string.Empty)
        );
        var stories = Read($"feed.{kind}", feeds.RootElement.GetProperty(kind).GetString()!)
            .OrderBy(s => s.Title, StringComparer.Ordinal)
            .ToList();
        stories.Count.ShouldBe(2);
        var (late, beans) = (stories[0], stories[1]);
        beans.Title.ShouldBe("Beans & peas");
        beans.Words.ShouldBe("We planted beans & peas.\n\nIt rained.\nTwice.");
        beans.Day.ShouldBe(new LocalDate(2026, 5, 6));
        beans.Pictures.ShouldBe(["garden.jpg"]);
        beans.Source.ShouldBe("https://example.org/beans");
        late.Words.ShouldBe("- one\n- two");
        late.Day.ShouldBe(new LocalDate(2026, 5, 6), "a post after midnight tells of the evening before");
    }

    [Fact]
    public void Markdown_is_parted_at_its_dated_headings()
    {
        var stories = Read(
            "trip.md",
            "---\ntitle: The canal\nauthor: \"Wren\"\ndate: 2026-06-06\n---\nWe "
                + "*left*.\n\n![x](pics/boat%201.jpg)\n\n## 2026-06-07 – Locks\n\nNine "
                + "[locks](https://example.org).\n\n- one\n- two\n"
        );
        stories
            .Select(s => (s.Title, s.Words, s.Day, s.Author))
            .ShouldBe([
                ("The canal", "We left.", new LocalDate(2026, 6, 6), "Wren"),
                ("Locks", "Nine locks.\n\n- one\n- two", new LocalDate(2026, 6, 7), "Wren"),
            ]);
        stories[0].Pictures.ShouldBe(["boat 1.jpg"]);
    }

    [Fact]
    public void Plain_text_stays_as_it_is_and_a_date_in_its_name_counts()
    {
        var story = Read("2026-05-09 market.txt", "Two *stars*\r\nand a line.\r\n\u0007").Single();
        (story.Words, story.Day).ShouldBe(("Two *stars*\nand a line.", new LocalDate(2026, 5, 9)));
        Read("notes.txt", "שלום 夏休み 🙂").Single().Words.ShouldBe("שלום 夏休み 🙂");
        StoryFiles
            .Read("old.txt", [0x43, 0x61, 0x66, 0xE9], CutOff, TestContext.Current.CancellationToken)
            .Single()
            .Words.ShouldBe("Café");
        StoryFiles
            .Read("utf16.txt", [0xFF, 0xFE, 0x41, 0x00], CutOff, TestContext.Current.CancellationToken)
            .Single()
            .Words.ShouldBe("A");
    }

    [Theory]
    [InlineData(
        "bomb.xml",
        "<?xml version=\"1.0\"?><!DOCTYPE r [<!ENTITY a \"aaaa\"><!ENTITY b \"&a;&a;&a;\">]><rss "
            + "version=\"2.0\"><channel><item><title>&b;</title></item></channel></rss>",
        "document type"
    )]
    [InlineData(
        "out.xml",
        "<?xml version=\"1.0\"?><!DOCTYPE r SYSTEM \"file:///etc/passwd\"><rss version=\"2.0\"><channel/></rss>",
        "document type"
    )]
    [InlineData("half.xml", "<rss version=\"2.0\"><channel><item><title>x", "no whole feed")]
    [InlineData("half.json", "{\"items\":[{", "no whole JSON Feed")]
    [InlineData("other.json", "{\"a\":1}", "no items")]
    [InlineData("deep.json", "{\"items\":[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[[", "no whole JSON Feed")]
    [InlineData("empty.txt", "", "is empty")]
    [InlineData("blank.md", "   \n\n", "has no words")]
    [InlineData("binary.txt", "a\0b", "is no text")]
    public void Bad_files_are_refused_with_a_clear_word(string name, string text, string reason)
    {
        var refused = Should.Throw<RuleException>(() => Read(name, text));
        refused.Message.ShouldContain(reason);
        refused.Message.ShouldContain("Nothing was taken");
        refused.Message.ShouldContain(name);
    }

    [Fact]
    public void A_story_of_five_megabytes_is_refused_and_the_reason_names_its_length()
    {
        Should
            .Throw<RuleException>(() => Read("long.txt", new string('m', 5_000_000)))
            .Message.ShouldContain("5,000,000 characters");
    }

    public static TheoryData<string, string, string> MadeToStopTheProgram =>
        new()
        {
            {
                "deep.xml",
                $"<rss><channel><title>x</title><item><title>a</title><description>b</description>"
                    + $"{Repeat("<a>", 40_000)}{Repeat("</a>", 40_000)}</item></channel></rss>",
                "nested more than 100 deep"
            },
            {
                "deep.json",
                $$"""{"version":"https://jsonfeed.org/version/1.1","""
                    + $$""" "items":[{"id":"1","content_html":"{{Repeat("<div>", 40_000)}}"}]}""",
                "nested more than 100 deep"
            },
            {
                "bold.json",
                $$"""{"version":"https://jsonfeed.org/version/1.1","""
                    + $$""" "items":[{"id":"1","content_html":"{{Repeat("<b><p>", 20_000)}}"}]}""",
                "nested more than 100 deep"
            },
            {
                "lists.md",
                string.Concat(Enumerable.Range(0, 400).Select(i => new string(' ', 2 * i) + "- x\n")),
                "nested more than 100 deep"
            },
            { "lists-in-a-line.md", Repeat("- ", 3_000) + "x", "nested more than 100 deep" },
            { "quotes.md", Repeat(">", 20_000) + "x", "nested more than 100 deep" },
            { "pictures.md", Repeat("![a](x", 300_000), "characters; 1,000,000 at most" },
            { "some-pictures.md", Repeat("![a](x", 100_000), "5,000 signs of markup" },
            { "stars.md", Repeat("*a **b ", 20_000), "5,000 signs of markup" },
            {
                "many.md",
                string.Concat(Enumerable.Range(0, 3_000).Select(i => $"# 2026-05-04 {i}\nwords\n")),
                "2,000 at most"
            },
            { "long.txt", Repeat("word ", 100_000), "200,000 at most" },
            {
                "many-elements.json",
                $$"""{"version":"https://jsonfeed.org/version/1.1","""
                    + $$""" "items":[{"id":"1","content_html":"{{Repeat("<br>a", 60_000)}}"}]}""",
                "more than 50,000 elements"
            },
        };

    /// <summary>Each of these took over 18 seconds, or ended the process.</summary>
    [Theory]
    [MemberData(nameof(MadeToStopTheProgram))]
    public void A_file_made_to_stop_the_program_is_refused_soon_by_the_limit_it_breaks(
        string name,
        string text,
        string limit
    )
    {
        var before = ThreadTime.Now();
        Should.Throw<RuleException>(() => Read(name, text)).Message.ShouldContain(limit);
        (ThreadTime.Now() - before).ShouldBeLessThan(TimeSpan.FromSeconds(5));
    }

    [Fact]
    public void Five_megabytes_of_ordinary_diary_are_read_in_seconds()
    {
        var day = string.Concat(
            Enumerable.Repeat("We walked to the weir and back, *slowly*, and saw the heron again.   \n\n", 180)
        );
        var text = string.Concat(
            Enumerable.Range(0, 365).Select(i => $"# {new LocalDate(2026, 1, 1).PlusDays(i):uuuu-MM-dd}\n\n{day}\n")
        );
        var before = ThreadTime.Now();
        Read("diary.md", text).Count.ShouldBe(365);
        (ThreadTime.Now() - before).ShouldBeLessThan(TimeSpan.FromSeconds(4));
    }

    /// <summary>An ordinary file is not refused because the machine is busy with something else.</summary>
    [Fact]
    public void Only_the_work_on_a_file_counts_not_the_waiting_for_the_processor()
    {
        var (clock, before) = (System.Diagnostics.Stopwatch.StartNew(), ThreadTime.Now());
        Thread.Sleep(100);
        (ThreadTime.Now() - before).ShouldBeLessThan(clock.Elapsed / 2);
        var turns = 0L;
        while (ThreadTime.Now() - before < TimeSpan.FromMilliseconds(60))
        {
            turns++;
        }

        turns.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void Old_pages_with_paragraphs_that_are_never_closed_are_no_deep_nesting()
    {
        var html = string.Concat(Enumerable.Range(0, 500).Select(i => $"<p>Line {i}<br>"));
        Read(
                "old.json",
                $$"""{"version":"https://jsonfeed.org/version/1.1","items":[{"id":"1","content_html":"{{html}}"}]}"""
            )
            .Single()
            .Words.Split("\n\n")
            .Length.ShouldBe(500);
    }

    [Fact]
    public void Reading_ends_when_the_request_does()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Should.Throw<OperationCanceledException>(() =>
            StoryFiles.Read("a.md", "# 2026-05-04\nwords"u8.ToArray(), CutOff, gone.Token)
        );
    }

    private static string Repeat(string text, int times) => string.Concat(Enumerable.Repeat(text, times));
}
