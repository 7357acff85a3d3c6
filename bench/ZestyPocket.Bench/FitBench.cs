using System.Diagnostics;
using System.Text.Json;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Bench;

/// <summary>
/// Fitting one story of 5 to 120 words into one 3x4 card: shaping with HarfBuzz, line breaks, and every size of the
/// style's range, 100,000 random stories, none shaped before. The opponent breaks the first 5,000 of the same stories
/// once, at one size, by ready-made widths: npm's tex-linebreak. Then a story of 20,000 words flows over cards.
/// </summary>
internal static class FitBench
{
    private static readonly string[] Vocabulary =
    [
        "rain",
        "a",
        "marmalade",
        "window",
        "the",
        "office",
        "Wednesday",
        "of",
        "we",
        "through",
        "kite-string",
        "fluffy",
        "I",
        "extraordinary",
        "and",
        "boats,",
        "harbour.",
        "to",
        "evening",
        "Junie",
        "said:",
        "“No,”",
        "half",
        "was",
        "market",
    ];

    public static void Run()
    {
        using var fonts = new FontShelf();
        var style = BuiltInCardStyles.Find("peel-hour", CardKind.Journaling);
        var plain = BuiltInCardStyles.Find("plain-sans", CardKind.Journaling);
        var card = Size.FromInches(3, 4);
        var dice = new Random(7);
        var stories = Enumerable.Range(0, 100_000).Select(_ => Story(5 + dice.Next(116))).ToList();
        foreach (var warm in stories.Take(2_000))
        {
            CardComposer.Fit(warm + " ", plain, card, fonts);
        }

        var (times, around) = (new List<double>(), new List<double>());
        foreach (var story in stories)
        {
            var watch = Stopwatch.GetTimestamp();
            CardComposer.Fit(story, plain, card, fonts);
            times.Add(Stopwatch.GetElapsedTime(watch).TotalMicroseconds);
        }

        foreach (var story in stories.Take(20_000))
        {
            var watch = Stopwatch.GetTimestamp();
            CardComposer.Fit(story, style, card, fonts);
            around.Add(Stopwatch.GetElapsedTime(watch).TotalMicroseconds);
        }

        var area = CardComposer.Areas(plain, card)[0];
        var letters = Vocabulary
            .SelectMany(w => w)
            .Distinct()
            .Append(' ')
            .ToDictionary(c => c.ToString(), c => fonts.Shape(plain.Type.Face, c.ToString()).Ends[1]);
        var theirs = Theirs(
            JsonSerializer.Serialize(
                new
                {
                    width = area.Width / 9,
                    advances = letters,
                    stories = stories.Take(5_000),
                }
            )
        );
        Console.WriteLine(
            $"fit      one story into a 3x4 card: ours median {Median(times):0} µs, p95 {Quantile(times, 0.95):0} "
                + $"µs (around a corner tag {Median(around):0} and {Quantile(around, 0.95):0} µs); "
                + $"tex-linebreak, one size only, median {Median(theirs):0} µs, p95 {Quantile(theirs, 0.95):0} µs; "
                + $"ratio of medians {Median(times) / Median(theirs):0.00} (target p95 under 5,000 µs)"
        );

        var flows = new List<double>();
        for (var round = 0; round < 7; round++)
        {
            var novel = string.Join("\n\n", Enumerable.Range(0, 200).Select(_ => Story(100)));
            var watch = Stopwatch.GetTimestamp();
            var (cards, _) = StoryFlow.Needed(novel, plain, Size.FromInches(6, 8), 10, fonts);
            flows.Add(Stopwatch.GetElapsedTime(watch).TotalMilliseconds);
            if (cards < 20)
            {
                throw new InvalidOperationException($"20,000 words stood on {cards} pages.");
            }
        }

        Console.WriteLine(
            $"flow     20,000 words over 6x8 pages: count of pages, size, parts, balance: median {Median(flows):0} "
                + "ms (target 150 ms)"
        );

        string Story(int words) =>
            string.Join(' ', Enumerable.Range(0, words).Select(_ => Vocabulary[dice.Next(Vocabulary.Length)]));
    }

    private static List<double> Theirs(string input)
    {
        var root = Environment.GetEnvironmentVariable("ZESTY_ROOT") ?? Directory.GetCurrentDirectory();
        using var node = Process.Start(
            new ProcessStartInfo("node", [Path.Combine(root, "bench/tex-linebreak.mjs"), Path.Combine(root, "src/web")])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
            }
        )!;
        node.StandardInput.Write(input);
        node.StandardInput.Close();
        using var answer = JsonDocument.Parse(node.StandardOutput.ReadToEnd());
        node.WaitForExit();
        return [.. answer.RootElement.GetProperty("times").EnumerateArray().Select(t => t.GetDouble())];
    }

    private static double Median(List<double> values) => Quantile(values, 0.5);

    private static double Quantile(List<double> values, double share)
    {
        var sorted = values.Order().ToList();
        return sorted[(int)Math.Min(sorted.Count - 1, share * sorted.Count)];
    }
}
