using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class CopyfitTests
{
    /// <summary>Every letter half an em wide: widths can be counted by hand.</summary>
    private sealed class EvenShaper : ITextShaper
    {
        public FaceMetrics Metrics(Typeface face) => new(0.8, 0.2);

        public ShapedText Shape(Typeface face, string paragraph) =>
            new(paragraph, [.. Enumerable.Range(0, paragraph.Length + 1).Select(i => i * 0.5)]);
    }

    private static readonly EvenShaper Shaper = new();
    private static readonly TypeRange Type = new(Typeface.Serif, 7, 12, 1.25);

    [Fact]
    public void Few_words_are_set_in_the_largest_size()
    {
        var fit = Copyfit.Fit("one two", 120, 100, Type, Shaper);
        (fit.SizePt, fit.Lines.Length, fit.WordsOver, fit.Words).ShouldBe((12, 1, 0, 2));
        fit.Lines[0].Width.ShouldBe(7 * 6);
    }

    [Fact]
    public void Words_that_find_no_room_at_the_smallest_size_are_counted()
    {
        // At 7 pt a line of 70 pt holds 20 letters, "word word word word" is 19, and 20 pt hold two lines.
        var fit = Copyfit.Fit(string.Join(' ', Enumerable.Repeat("word", 13)), 70, 20, Type, Shaper);
        (fit.SizePt, fit.LinesThatFit, fit.Lines.Length, fit.WordsOver, fit.Fits).ShouldBe((7, 2, 2, 5, false));
    }

    [Fact]
    public void A_word_wider_than_the_card_is_split_only_when_there_is_no_other_way()
    {
        var fit = Copyfit.Fit("Extraordinarily", 36, 100, Type, Shaper);
        fit.SizePt.ShouldBe(7);
        string.Concat(fit.Lines.Select(l => l.Text)).ShouldBe("Extraordinarily");
        fit.Lines.Length.ShouldBe(2);
    }

    [Fact]
    public void Line_ends_are_kept_and_blank_lines_at_the_end_take_no_room()
    {
        Copyfit.Fit("a\n\nb\n\n\n", 100, 100, Type, Shaper).Lines.Select(l => l.Text).ShouldBe(["a", "", "b"]);
    }

    [Fact]
    public void Nothing_is_nothing()
    {
        var fit = Copyfit.Fit("", 100, 100, Type, Shaper);
        (fit.Words, fit.WordsOver, fit.SizePt).ShouldBe((0, 0, 12));
    }

    [Fact]
    public void No_line_is_wider_than_the_column_no_word_is_lost_and_lines_fit_the_height()
    {
        var words = Gen.String[Gen.Char["abcdefghijklmnop-"], 1, 24].Array[0, 120];
        Gen.Select(words, Gen.Double[30, 300], Gen.Double[12, 300]).Sample((list, width, height) =>
        {
            var text = string.Join(' ', list);
            var fit = Copyfit.Fit(text, width, height, Type, Shaper);
            fit.Lines.ShouldAllBe(l => l.Width <= width + 1e-6);
            fit.Lines.Length.ShouldBeLessThanOrEqualTo(fit.LinesThatFit);
            if (fit.Lines.Length > 0)
            {
                (fit.SizePt + ((fit.Lines.Length - 1) * fit.LeadingPt)).ShouldBeLessThanOrEqualTo(height + 1e-3);
            }

            if (fit.Fits)
            {
                string.Concat(fit.Lines.Select(l => l.Text)).Replace(" ", "", StringComparison.Ordinal).ShouldBe(string.Concat(list));
            }
        });
    }

    [Fact]
    public void A_larger_size_would_not_have_fitted()
    {
        Gen.Select(Gen.Int[1, 80], Gen.Double[60, 250], Gen.Double[40, 250]).Sample((count, width, height) =>
        {
            var text = string.Join(' ', Enumerable.Repeat("mot", count));
            var fit = Copyfit.Fit(text, width, height, Type, Shaper);
            if (fit.Fits && fit.SizePt < Type.LargestPt)
            {
                var next = fit.SizePt + TypeRange.StepPt;
                Copyfit.Fit(text, width, height, Type with { SmallestPt = next, LargestPt = next }, Shaper).Fits.ShouldBeFalse();
            }
        });
    }

    [Theory]
    [InlineData("", 0)]
    [InlineData("  one\n two\tthree ", 3)]
    [InlineData("mother-in-law's", 1)]
    public void Words_are_stretches_between_blanks(string text, int count) => Copyfit.CountWords(text).ShouldBe(count);

    /// <summary>Source: Unicode UAX #14, rules LB7 and LB18 (blanks), LB21 (hyphens), ID × ID break.</summary>
    [Fact]
    public void Lines_may_end_after_blanks_and_hyphens_and_between_ideographs()
    {
        LineBreaks.Opportunities("well-kept book").ShouldBe([5, 10, 14]);
        LineBreaks.Opportunities("夏休み").ShouldBe([1, 2, 3]);
        LineBreaks.Opportunities("a  b").ShouldBe([3, 4]);
        LineBreaks.Opportunities("-3 °C").ShouldBe([3, 5]);
    }

    /// <summary>Source: WCAG 2.2, contrast ratio: black on white is 21, #767676 on white is just above 4.5.</summary>
    [Fact]
    public void Contrast_follows_the_published_formula()
    {
        Rgb.Contrast(Rgb.Hex("#000000"), Rgb.Hex("#ffffff")).ShouldBe(21, 0.001);
        Rgb.Contrast(Rgb.Hex("#767676"), Rgb.Hex("#ffffff")).ShouldBe(4.54, 0.01);
    }

    [Fact]
    public void Every_shipped_style_has_ink_that_reads_on_its_paper()
    {
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Kind != CardKind.Filler))
        {
            Rgb.Contrast(style.Ink, style.Paper).ShouldBeGreaterThan(4.5, style.Name);
            style.Type.SmallestPt.ShouldBeGreaterThanOrEqualTo(7);
        }
    }
}
