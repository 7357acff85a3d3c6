using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class RemedyTests
{
    private static readonly CardStyle Style = BuiltInCardStyles.Find("note-hand", CardKind.Journaling);
    private static readonly Size Card = Size.FromInches(3, 4);

    [Fact]
    public void Each_measure_is_offered_with_what_it_gains()
    {
        var words = string.Join("\n\n\n\n", Enumerable.Repeat("mmmm mmmm\nmmmm mmmm", 9));
        var now = CardComposer.Fit(words, Style, Card, EvenShaper.Only);
        now.Fits.ShouldBeFalse();
        var offers = Remedies.For(words, Style, CardSetting.AsTheStyle, Card, EvenShaper.Only);
        offers
            .Select(o => o.Kind)
            .ShouldBe([
                RemedyKind.DropBlankLines,
                RemedyKind.JoinLines,
                RemedyKind.TightenLeading,
                RemedyKind.NarrowMargins,
                RemedyKind.SmallerType,
            ]);
        offers.ShouldAllBe(o => o.After.WordsOver < now.WordsOver || (now.Fits && o.After.SizePt > now.SizePt));
    }

    [Fact]
    public void No_more_is_given_up_than_is_needed()
    {
        var words = "mmmm mmmm\n\n\n\nmmmm mmmm";
        var fitted = new CardSetting(SmallestPt: 24, LargestPt: 26).On(Style);
        CardComposer.Fit(words, fitted, Size.FromInches(3, 2), EvenShaper.Only).Fits.ShouldBeFalse();
        var mended = Remedies
            .UntilItFits(words, fitted, CardSetting.AsTheStyle, Size.FromInches(3, 2), EvenShaper.Only)
            .ShouldNotBeNull();
        (mended.Kind, mended.Setting.SmallestPt).ShouldBe((RemedyKind.DropBlankLines, null));
        Remedies
            .UntilItFits(
                string.Join(' ', Enumerable.Repeat("mmmm", 2_000)),
                Style,
                CardSetting.AsTheStyle,
                Card,
                EvenShaper.Only
            )
            .ShouldBeNull();
    }

    [Theory]
    [InlineData("a \n\n\n\nb  \nc", "a\n\nb\nc")]
    [InlineData("  a\n\nb\n\n", "a\n\nb")]
    public void Stray_blanks_go_and_paragraphs_stay(string words, string mended) =>
        Remedies.WithoutStrayBlanks(words).ShouldBe(mended);

    [Theory]
    [InlineData("one\ntwo\n\nthree", "one two\n\nthree")]
    [InlineData("bread\n- milk\n- eggs", "bread\n- milk\n- eggs")]
    public void Forced_line_ends_are_joined_and_lists_stay(string words, string mended) =>
        Remedies.WithLinesJoined(words).ShouldBe(mended);

    [Fact]
    public void Type_is_never_set_under_seven_points()
    {
        Should.Throw<RuleException>(() => new CardSetting(SmallestPt: 6.75).Checked());
        BuiltInCardStyles.All.ShouldAllBe(s => s.Type.SmallestPt >= 7);
    }
}
