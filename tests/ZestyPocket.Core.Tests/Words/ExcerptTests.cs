using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class ExcerptTests
{
    private static readonly string[] Letters = ["a", "b", " ", "é", "e\u0301", "😀", "\n"];

    private const string Story =
        "The rain stopped at ten and we took the long way round by the weir. Junie counted four herons and one "
        + "cardboard box that looked like a heron.";

    [Fact]
    public void The_words_that_were_looked_for_stand_in_the_excerpt_between_whole_words() =>
        Excerpt.Around(Story, "JUNIE counted", 40).ShouldBe("…by the weir. Junie counted four herons…");

    [Fact]
    public void Without_them_it_is_the_beginning() =>
        Excerpt.Around(Story, "ferry", 25).ShouldBe("The rain stopped at ten…");

    [Fact]
    public void A_short_text_is_shown_whole_on_one_line() =>
        Excerpt.Around("Two\nlines  here", "lines", 40).ShouldBe("Two lines here");

    [Fact]
    public void Any_excerpt_is_short_enough_and_a_part_of_the_text() =>
        Gen.Select(
                Gen.Int[0, Letters.Length - 1].Array[0, 120].Select(i => string.Concat(i.Select(n => Letters[n]))),
                Gen.Int[1, 60],
                Gen.Int[0, 119]
            )
            .Sample(s =>
            {
                var (text, longest, at) = s;
                var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
                var found =
                    line.Length == 0
                        ? ""
                        : line.Substring(at % line.Length, Math.Min(3, line.Length - (at % line.Length)));
                var bare = Excerpt.Around(text, found, longest).Trim('…');
                bare.Length.ShouldBeLessThanOrEqualTo(Math.Max(longest, found.Length));
                line.ShouldContain(bare);
            });
}
