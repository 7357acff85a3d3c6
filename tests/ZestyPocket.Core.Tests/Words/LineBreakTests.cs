using System.Diagnostics;
using System.Globalization;
using System.Text;
using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Where lines may end, against the published rules and against another implementation of them.</summary>
public sealed class LineBreakTests
{
    /// <summary>Source: Unicode UAX #14 (revision 49), the examples given with the rules named.</summary>
    [Theory]
    [InlineData("well-kept book", "well-|kept |book")]
    [InlineData("夏休み", "夏|休|み")]
    [InlineData("a  b", "a  |b")]
    [InlineData("-3 °C", "-3 |°C")]
    [InlineData("bob@example.org", "bob@example.org")]
    [InlineData("$(12.35)", "$(12.35)")]
    [InlineData("“quoted words”", "“quoted |words”")]
    [InlineData("either/or", "either/|or")]
    [InlineData("e.g. that", "e.g. |that")]
    [InlineData("100 %", "100 |%")]
    [InlineData("no\u00A0break here", "no\u00A0break |here")]
    [InlineData("soft\u00ADhyphen", "soft\u00AD|hyphen")]
    [InlineData("dash—between", "dash|—|between")]
    [InlineData("フランス語、日本語", "フ|ラ|ン|ス|語、|日|本|語")]
    [InlineData("cafe\u0301 noir", "cafe\u0301 |noir")]
    [InlineData("👩\u200D🌾👩\u200D🌾", "👩\u200D🌾|👩\u200D🌾")]
    [InlineData("🇫🇷🇳🇿🇨🇦", "🇫🇷|🇳🇿|🇨🇦")]
    [InlineData("שלום-עולם", "שלום-עולם")]
    public void Lines_may_end_where_the_standard_says(string text, string parted)
    {
        var at = 0;
        var parts = LineBreaks.Opportunities(text).Select(end => (Part: text[at..end], At: at = end).Part).ToList();
        string.Join('|', parts).ShouldBe(parted);
    }

    /// <summary>
    /// Perl's own implementation of UAX #14 (the boundary <c>\b{lb}</c>, Unicode 14), on random texts of characters
    /// from every class that words on cards contain. Left out are two things in which Perl departs from the rules: a
    /// joiner before a space (it forgets LB9 there), a marked Hebrew letter before a hyphen (LB21a), and a sign of
    /// currency or percentage before a wide bracket and a digit (LB25's expression).
    /// </summary>
    [Fact]
    public async Task Lines_may_end_where_another_implementation_says()
    {
        int[] alphabet =
        [
            'a',
            'B',
            'é',
            '1',
            '9',
            ' ',
            ' ',
            ' ',
            '-',
            '–',
            '—',
            '\'',
            '’',
            '“',
            '”',
            '"',
            '(',
            ')',
            '[',
            ']',
            '{',
            '}',
            ',',
            '.',
            ';',
            ':',
            '!',
            '?',
            '/',
            '\\',
            '%',
            '°',
            '€',
            '$',
            '&',
            '*',
            '+',
            '=',
            '@',
            '#',
            '…',
            0xA0,
            0xAD,
            0x200B,
            0x2060,
            0x301,
            0x5D0,
            0x5E9,
            0x590F,
            0x4F11,
            0x3042,
            0x3001,
            0x3002,
            0x300C,
            0x300D,
            0x30FC,
            0x3041,
            0xAC00,
            0xAC01,
            0x1100,
            0x1161,
            0x11A8,
            0x1F469,
            0x1F33E,
            0x1F1EB,
            0x1F1F7,
            0x1F44D,
            0x1F3FD,
            0xE01,
            0xE31,
            0xFF08,
            0xFF09,
            0x2E3A,
        ];
        var texts = new List<int[]>();
        Gen.Int[0, alphabet.Length - 1]
            .Select(i => alphabet[i])
            .Array[1, 14]
            .Where(t => !PerlDeparts(t))
            .Sample(texts.Add, iter: 4_000, threads: 1);

        var theirs = await PerlAsync(texts);
        var differing = new List<string>();
        for (var i = 0; i < texts.Count; i++)
        {
            var text = string.Concat(texts[i].Select(char.ConvertFromUtf32));
            var ours = LineBreaks.Opportunities(text).Select(end => Scalars(text, end)).ToList();
            if (!ours.SequenceEqual(theirs[i]))
            {
                differing.Add(
                    $"{string.Join(' ', texts[i].Select(c => c.ToString("X4", CultureInfo.InvariantCulture)))}: "
                        + $"ours {string.Join(',', ours)}, theirs {string.Join(',', theirs[i])}"
                );
            }
        }

        texts.Count.ShouldBeGreaterThanOrEqualTo(4_000);
        differing.ShouldBeEmpty();
    }

    private static bool PerlDeparts(int[] text) =>
        Enumerable
            .Range(0, Math.Max(0, text.Length - 1))
            .Any(i =>
                ((text[i + 1] is 0x301 or 0xE31) && text[i] is not ('a' or 'B' or 'é' or 0xE01 or 0x590F or 0x4F11))
                || ((text[i] is 0x300C or 0xFF08) && (text[i + 1] is '1' or '9'))
            );

    private static int Scalars(string text, int end) => text[..end].EnumerateRunes().Count();

    private static async Task<List<int[]>> PerlAsync(List<int[]> texts)
    {
        const string script = """
            while (my $line = <STDIN>) {
                my $s = join '', map { chr hex } split ' ', $line;
                my @ends;
                while ($s =~ /\b{lb}/g) { push @ends, pos $s if pos $s && pos $s < length $s }
                push @ends, length $s;
                print join(',', @ends), "\n";
            }
            """;
        using var perl = Process.Start(
            new ProcessStartInfo("perl", ["-e", script]) { RedirectStandardInput = true, RedirectStandardOutput = true }
        )!;
        var reading = perl.StandardOutput.ReadToEndAsync();
        await perl.StandardInput.WriteAsync(
            texts.Aggregate(
                new StringBuilder(),
                (all, t) =>
                    all.AppendJoin(' ', t.Select(c => c.ToString("X", CultureInfo.InvariantCulture))).Append('\n')
            )
        );
        perl.StandardInput.Close();
        var lines = (await reading).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        await perl.WaitForExitAsync();
        perl.ExitCode.ShouldBe(0);
        return [.. lines.Select(l => l.Split(',').Select(n => int.Parse(n, CultureInfo.InvariantCulture)).ToArray())];
    }
}
