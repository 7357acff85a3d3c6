using CsCheck;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Tests.Measures;

/// <summary>
/// EMU as in ECMA-376 (Office Open XML), DrawingML: 914,400 to the inch, 36,000 to the millimetre, 12,700 to the point.
/// </summary>
public sealed class LengthTests
{
    [Fact]
    public void An_inch_is_25_4_millimetres_and_72_points_exactly()
    {
        Length.FromInches(1).ShouldBe(Length.FromMillimetres(25.4m));
        Length.FromInches(1).ShouldBe(Length.FromPoints(72));
        Length.FromInches(1).Emu.ShouldBe(914_400);
    }

    [Fact]
    public void A_thirty_second_of_an_inch_is_exact()
    {
        (Length.FromInches(1, 32) * 32).ShouldBe(Length.FromInches(1));
    }

    [Theory]
    [InlineData("3x4", 3, 4)]
    [InlineData("4 x 6 in", 4, 6)]
    [InlineData("2 1/2 x 8", 2.5, 8)]
    [InlineData("6.75x8.25", 6.75, 8.25)]
    [InlineData("6 3/4 × 8 1/4 in", 6.75, 8.25)]
    [InlineData("8.5 X 11", 8.5, 11)]
    [InlineData("1/2 x 3/16\"", 0.5, 0.1875)]
    public void Sizes_are_read_as_people_write_them(string text, double width, double height)
    {
        MeasureText.ParseSize(text).ShouldBe(Size.FromInches((decimal)width, (decimal)height));
    }

    [Fact]
    public void A_unit_on_one_side_counts_for_both()
    {
        MeasureText.ParseSize("10x15 cm").ShouldBe(Size.FromMillimetres(100, 150));
        MeasureText.ParseSize("101.6 mm x 152.4").ShouldBe(Size.FromInches(4, 6));
        MeasureText.ParseSize("10,5 x 15 cm").ShouldBe(Size.FromMillimetres(105, 150));
        MeasureText.ParseLength("101.6 mm").ShouldBe(Length.FromInches(4));
    }

    /// <summary>Arithmetic: a 10x15 cm print is loose in a 4x6 in pocket by 1.6 and 2.4 mm.</summary>
    [Fact]
    public void A_10x15_cm_print_is_loose_in_a_4x6_pocket_by_1_6_and_2_4_mm()
    {
        var (pocket, print) = (MeasureText.ParseSize("4x6"), MeasureText.ParseSize("10x15 cm"));
        (pocket.Width - print.Width).Millimetres.ShouldBe(1.6m);
        (pocket.Height - print.Height).Millimetres.ShouldBe(2.4m);
    }

    [Theory]
    [InlineData("")]
    [InlineData("3")]
    [InlineData("3x")]
    [InlineData("x4")]
    [InlineData("0x4")]
    [InlineData("3x-4")]
    [InlineData("three x four")]
    [InlineData("3x4x5")]
    [InlineData("1/0 x 3")]
    [InlineData("2 3 x 4")]
    [InlineData("3000x4")]
    [InlineData("99999999999999999999x4")]
    public void Nonsense_is_refused_with_the_reason(string text)
    {
        Should.Throw<MeasureException>(() => MeasureText.ParseSize(text)).Message.Length.ShouldBeGreaterThan(20);
    }

    [Theory]
    [InlineData(3, "3 in")]
    [InlineData(6.75, "6 3/4 in")]
    [InlineData(0.625, "5/8 in")]
    [InlineData(0.03125, "0.031 in")]
    [InlineData(2.0625, "2 1/16 in")]
    public void Inches_show_as_mixed_fractions_to_a_sixteenth_else_as_decimals(double inches, string shown)
    {
        MeasureText.Show(Length.FromInches((decimal)inches), MeasureSystem.Inches).ShouldBe(shown);
    }

    [Fact]
    public void Millimetres_show_in_millimetres()
    {
        MeasureText.Show(Size.FromInches(4, 6), MeasureSystem.Millimetres).ShouldBe("101.6 × 152.4 mm");
    }

    [Fact]
    public void What_is_shown_to_a_sixteenth_reads_back_as_the_same_length()
    {
        Gen.Int[1, 1600]
            .Sample(sixteenths =>
            {
                var length = Length.FromInches(sixteenths, 16);
                MeasureText.ParseLength(MeasureText.Show(length, MeasureSystem.Inches)).ShouldBe(length);
                MeasureText
                    .ParseSize(MeasureText.Show(new Size(length, length), MeasureSystem.Inches))
                    .Width.ShouldBe(length);
            });
    }

    [Fact]
    public void A_field_that_is_saved_unchanged_changes_nothing()
    {
        Gen.Select(Gen.Long[1, 40 * Length.EmuPerInch], Gen.Long[1, 40 * Length.EmuPerInch])
            .Sample(
                (w, h) =>
                {
                    var size = new Size(new Length(w), new Length(h));
                    foreach (var system in Enum.GetValues<MeasureSystem>())
                    {
                        MeasureText.ParseSize(MeasureText.Exact(size, system)).ShouldBe(size);
                        MeasureText.ParseLength(MeasureText.Exact(size.Width, system)).ShouldBe(size.Width);
                    }
                }
            );
        MeasureText.Exact(Length.FromInches(1, 32), MeasureSystem.Inches).ShouldBe("0.03125 in");
        MeasureText.Exact(Length.FromInches(5, 8), MeasureSystem.Millimetres).ShouldBe("15.875 mm");
    }

    [Fact]
    public void No_text_makes_the_parser_fail_in_any_other_way_than_refusing()
    {
        Gen.String[Gen.Char["0123456789 /x×.,-incmpt\"″ä\n"], 0, 30]
            .Sample(text =>
            {
                try
                {
                    MeasureText.ParseSize(text).IsPositive.ShouldBeTrue();
                }
                catch (MeasureException)
                {
                    // Refused with a reason, which is an answer.
                }
            });
    }

    [Theory]
    [InlineData("\uFF13x4")]
    [InlineData("\u0663 mm")]
    [InlineData("3x\u0664")]
    public void Digits_of_other_scripts_are_no_measure(string text)
    {
        Should.Throw<MeasureException>(() => MeasureText.ParseLength(text));
        Should.Throw<MeasureException>(() => MeasureText.ParseSize(text));
    }

    /// <summary>A one and 48,000 blanks took 6.9 seconds.</summary>
    [Fact]
    public void A_number_and_a_book_of_blanks_is_refused_at_once()
    {
        var watch = System.Diagnostics.Stopwatch.StartNew();
        Should.Throw<MeasureException>(() => MeasureText.ParseLength("1" + new string(' ', 48_000) + "x"));
        MeasureText.ParseLength("1" + new string(' ', 48_000)).ShouldBe(Length.FromInches(1));
        watch.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(1));
    }
}
