using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class CopyfitTests
{
    private static readonly EvenShaper Shaper = EvenShaper.Only;
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
        Gen.Select(words, Gen.Double[30, 300], Gen.Double[12, 300])
            .Sample(
                (list, width, height) =>
                {
                    var text = string.Join(' ', list);
                    var fit = Copyfit.Fit(text, width, height, Type, Shaper);
                    fit.Lines.ShouldAllBe(l => l.Width <= width + 1e-6);
                    fit.Lines.Length.ShouldBeLessThanOrEqualTo(fit.LinesThatFit);
                    if (fit.Lines.Length > 0)
                    {
                        (fit.SizePt + ((fit.Lines.Length - 1) * fit.LeadingPt)).ShouldBeLessThanOrEqualTo(
                            height + 1e-3
                        );
                    }

                    if (fit.Fits)
                    {
                        string.Concat(fit.Lines.Select(l => l.Text))
                            .Replace(" ", "", StringComparison.Ordinal)
                            .ShouldBe(string.Concat(list));
                    }
                }
            );
    }

    [Fact]
    public void A_larger_size_would_not_have_fitted()
    {
        Gen.Select(Gen.Int[1, 80], Gen.Double[60, 250], Gen.Double[40, 250])
            .Sample(
                (count, width, height) =>
                {
                    var text = string.Join(' ', Enumerable.Repeat("mot", count));
                    var fit = Copyfit.Fit(text, width, height, Type, Shaper);
                    if (fit.Fits && fit.SizePt < Type.LargestPt)
                    {
                        var next = fit.SizePt + TypeRange.StepPt;
                        Copyfit
                            .Fit(text, width, height, Type with { SmallestPt = next, LargestPt = next }, Shaper)
                            .Fits.ShouldBeFalse();
                    }
                }
            );
    }

    [Fact]
    public void Lines_go_around_what_is_in_their_way()
    {
        // A printed hour of 40 x 20 in the corner: two lines beside it, the rest under it.
        var area = new TypeArea(0, 0, 100, 60) { Obstacles = [new BoxInTheWay(0, 0, 40, 20)] };
        var fit = Copyfit.Fit("aa bb cc dd ee ff gg hh ii jj", [area], new(Typeface.Serif, 10, 10, 1), Shaper);
        fit.Lines.Select(l => (l.X, l.Text)).ShouldBe([(40, "aa bb cc dd"), (40, "ee ff gg hh"), (0, "ii jj")]);
    }

    [Fact]
    public void A_half_disc_at_the_foot_leaves_the_wider_side_of_its_lines()
    {
        var area = new TypeArea(0, 0, 100, 50) { Obstacles = [new DiscInTheWay(30, 50, 25)] };
        area.Slot(0, 10).ShouldBe((0, 100));
        // Between 40 and 50 the disc is widest at its centre: from 5 to 55.
        area.Slot(40, 50).ShouldBe((55, 45));
        // Between 25 and 35 it is 15 under the line's foot: half its chord is 20.
        area.Slot(25, 35).ShouldBe((50, 50));
    }

    [Fact]
    public void No_line_touches_a_box_or_a_disc_and_none_leaves_its_area()
    {
        Gen.Select(Gen.Int[0, 60], Gen.Double[60, 300], Gen.Double[60, 300], Gen.Double[0, 80], Gen.Double[0, 80])
            .Sample(
                (count, width, height, w, h) =>
                {
                    Obstacle[] obstacles =
                    [
                        new BoxInTheWay(0, 0, w, h),
                        new DiscInTheWay(width / 2, height, Math.Min(w, h)),
                    ];
                    var area = new TypeArea(10, 10, width, height) { Obstacles = [.. obstacles] };
                    var fit = Copyfit.Fit(string.Join(' ', Enumerable.Repeat("word", count)), [area], Type, Shaper);
                    foreach (var line in fit.Lines)
                    {
                        var (top, bottom) = (line.Baseline - (0.8 * fit.SizePt), line.Baseline + (0.2 * fit.SizePt));
                        line.X.ShouldBeGreaterThanOrEqualTo(10);
                        (line.X + line.Width).ShouldBeLessThanOrEqualTo(10 + width + 1e-6);
                        bottom.ShouldBeLessThanOrEqualTo(10 + height + 1e-5);
                        obstacles.ShouldAllBe(o =>
                            o.Across(top, bottom) == null
                            || line.X >= o.Across(top, bottom)!.Value.To - 1e-6
                            || line.X + line.Width <= o.Across(top, bottom)!.Value.From + 1e-6
                        );
                    }
                }
            );
    }

    [Fact]
    public void Columns_are_filled_one_after_another()
    {
        var columns = new TypeArea(0, 0, 112, 20).Columns(2, 12);
        var fit = Copyfit.Fit("aaaa bbbb cccc dddd eeee ffff gg", columns, new(Typeface.Serif, 10, 10, 1), Shaper);
        fit.Lines.Select(l => (l.Area, l.X, l.Text))
            .ShouldBe([(0, 0, "aaaa bbbb"), (0, 0, "cccc dddd"), (1, 62, "eeee ffff"), (1, 62, "gg")]);
    }

    [Theory]
    [InlineData("", 0)]
    [InlineData("  one\n two\tthree ", 3)]
    [InlineData("mother-in-law's", 1)]
    public void Words_are_stretches_between_blanks(string text, int count) => Copyfit.CountWords(text).ShouldBe(count);

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
        foreach (var style in BuiltInCardStyles.All.Where(s => s.Role != StyleRole.Filler))
        {
            Rgb.Contrast(style.Ink, style.Paper).ShouldBeGreaterThan(4.5, style.Name);
            style.Type.SmallestPt.ShouldBeGreaterThanOrEqualTo(7);
        }
    }

    [Theory]
    [InlineData("\n\nwords")]
    [InlineData("   \n\t\nwords")]
    public void Blank_lines_before_the_first_word_take_no_room(string text)
    {
        var fit = Copyfit.Fit(text, 100, 100, new TypeRange(Typeface.Sans, 10, 10, 1), EvenShaper.Only);
        fit.Lines.ShouldHaveSingleItem().Text.ShouldBe("words");
    }

    [Fact]
    public void Blank_lines_between_words_keep_theirs() =>
        Copyfit
            .Fit("a\n\nb", 100, 100, new TypeRange(Typeface.Sans, 10, 10, 1), EvenShaper.Only)
            .Lines.Select(l => l.Text)
            .ShouldBe(["a", "", "b"]);
}
