using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class StoryFlowTests
{
    private static readonly CardStyle Style = BuiltInCardStyles.Find("plain-sans", CardKind.Journaling);
    private static readonly Size Card = Size.FromInches(3, 4);

    private static readonly Gen<string> Stories = Gen.Select(Gen.Int[1, 9].Array[1, 60].Array[1, 6], Gen.Bool)
        .Select(
            (paragraphs, blank) =>
                string.Join(
                    blank ? "\n\n" : "\n",
                    paragraphs.Select(p => string.Join(' ', p.Select(n => new string('m', n))))
                )
        );

    [Fact]
    public void A_story_flows_over_its_cards_in_one_size_and_loses_no_word()
    {
        Gen.Select(Stories, Gen.Int[1, 5])
            .Sample(
                (story, count) =>
                {
                    var flow = StoryFlow.Over(story, Style, [.. Enumerable.Repeat(Card, count)], EvenShaper.Only);
                    flow.Parts.Length.ShouldBe(count);
                    var shown = flow.Parts.Sum(p => Copyfit.CountWords(p.Of(story)));
                    (shown + flow.WordsOver).ShouldBe(Copyfit.CountWords(story));
                    var capped = new CardSetting(LargestPt: flow.SizePt).On(Style);
                    foreach (var part in flow.Parts.Where(p => p.Lines > 0))
                    {
                        // The card by itself sets the same lines: what was summed is what is printed.
                        var alone = CardComposer.Fit(part.Of(story), capped, Card, EvenShaper.Only);
                        (alone.SizePt, alone.Fits, alone.Lines.Length).ShouldBe((flow.SizePt, true, part.Lines));
                    }
                }
            );
    }

    [Fact]
    public void The_cards_of_a_story_are_equally_full_rather_than_the_last_one_nearly_empty()
    {
        var story = string.Join(' ', Enumerable.Repeat("mmmm", 250));
        var capped = new CardSetting(LargestPt: 8, SmallestPt: 8).On(Style);
        var (cards, _) = StoryFlow.Needed(story, capped, Card, 8, EvenShaper.Only);
        cards.ShouldBe(2);
        var lines = StoryFlow.Over(story, capped, [Card, Card], EvenShaper.Only).Parts.Select(p => p.Lines).ToList();
        (lines[0] - lines[1]).ShouldBeInRange(0, 1);
    }

    [Fact]
    public void A_story_that_one_card_could_hold_is_spread_over_the_two_it_was_given()
    {
        var story = string.Join(' ', Enumerable.Repeat("mmmm", 30));
        StoryFlow.Over(story, Style, [Card], EvenShaper.Only).Fits.ShouldBeTrue();
        var lines = StoryFlow.Over(story, Style, [Card, Card], EvenShaper.Only).Parts.Select(p => p.Lines).ToList();
        (lines[0] - lines[1]).ShouldBeInRange(0, 1);
    }

    [Fact]
    public void No_paragraph_leaves_one_line_behind_or_sends_one_ahead()
    {
        Stories.Sample(story =>
        {
            var capped = new CardSetting(LargestPt: 9, SmallestPt: 9).On(Style);
            var flow = StoryFlow.Over(story, capped, [.. Enumerable.Repeat(Card, 6)], EvenShaper.Only);
            var copy = Copy.Of(story, capped.Type.Face, EvenShaper.Only);
            var used = flow.Parts.Where(p => p.Lines > 0).ToList();
            for (var i = 0; i + 1 < used.Count; i++)
            {
                var (part, next) = (used[i], used[i + 1]);
                var lines = CardComposer.Fit(part.Of(story), capped, Card, EvenShaper.Only).Lines;
                if (lines.Length >= 4 && !lines[^1].EndsParagraph && part.End == next.Start)
                {
                    var paragraph = copy.Paragraphs[copy.ParagraphAt(next.Start)];
                    var ahead = CardComposer
                        .Fit(
                            story[next.Start..(paragraph.Start + paragraph.Shaped.Text.Length)],
                            capped,
                            Card,
                            EvenShaper.Only
                        )
                        .Lines.Length;
                    ahead.ShouldBeGreaterThan(1, "a widow");
                    (lines[^1].Start == 0 || !lines[^2].EndsParagraph).ShouldBeTrue("an orphan");
                }
            }
        });
    }

    [Fact]
    public void Three_written_sides_leave_a_back()
    {
        var story = string.Join(' ', Enumerable.Repeat("mmmm", 420));
        var flow = StoryFlow.Over(
            story,
            new CardSetting(LargestPt: 8, SmallestPt: 8).On(Style),
            [Card, Card, Card],
            EvenShaper.Only
        );
        flow.Parts.Count(p => p.Lines > 0).ShouldBe(3);
        flow.LeavesABack.ShouldBeTrue();
    }

    [Fact]
    public void What_does_not_fit_is_counted_and_nothing_is_thrown_away()
    {
        var story = string.Join(' ', Enumerable.Repeat("mmmm", 900));
        var flow = StoryFlow.Over(story, Style, [Card], EvenShaper.Only);
        flow.SizePt.ShouldBe(Style.Type.SmallestPt);
        flow.WordsOver.ShouldBe(900 - Copyfit.CountWords(flow.Parts[0].Of(story)));
        StoryFlow.Needed(string.Empty, Style, Card, 9, EvenShaper.Only).Cards.ShouldBe(1);
    }
}
