using CsCheck;
using ZestyPocket.Core.Keeping.Stash;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>Sizes of cards that nobody measured, from how large they are on one photo.</summary>
public sealed class CardSizeTests
{
    private static readonly (decimal W, decimal H)[] Common =
    [
        (3, 4),
        (4, 3),
        (4, 6),
        (6, 4),
        (2, 2),
        (4, 4),
        (6, 8),
        (12, 12),
    ];

    [Fact]
    public void A_single_card_of_three_to_four_is_a_3x4()
    {
        CardSizes.Of([(300, 400)]).ShouldBe([Size.FromInches(3, 4)]);
        CardSizes.Of([(640, 480)]).ShouldBe([Size.FromInches(4, 3)]);
    }

    [Fact]
    public void Cards_on_one_photo_have_one_scale()
    {
        // The same shape twice, one with twice the side: a 3x4 beside a 6x8, not two 3x4.
        CardSizes.Of([(150, 200), (300, 400)]).ShouldBe([Size.FromInches(3, 4), Size.FromInches(6, 8)]);
        CardSizes
            .Of([(100, 100), (150, 200), (300, 200)])
            .ShouldBe([Size.FromInches(2, 2), Size.FromInches(3, 4), Size.FromInches(6, 4)]);
    }

    [Fact]
    public void A_strip_beside_cards_has_no_usual_size()
    {
        CardSizes
            .Of([(300, 400), (400, 600), (37, 900)])
            .ShouldBe([Size.FromInches(3, 4), Size.FromInches(4, 6), null]);
        CardSizes.Of([]).ShouldBeEmpty();
    }

    [Fact]
    public void A_3x4_and_a_4x6_among_others_tell_the_scale_though_each_side_is_off_by_two_percent()
    {
        Gen.Select(
                Gen.Int[0, Common.Length - 1].Select(i => Common[i]).Array[0, 6],
                Gen.Double[20, 200],
                Gen.Double[0.98, 1.02].Array[16]
            )
            .Sample(
                ((decimal W, decimal H)[] more, double scale, double[] off) =>
                {
                    (decimal W, decimal H)[] cards = [(3, 4), (4, 6), .. more];
                    var seen = cards
                        .Select((c, i) => ((double)c.W * scale * off[2 * i], (double)c.H * scale * off[(2 * i) + 1]))
                        .ToList();
                    var sizes = CardSizes.Of(seen);
                    foreach (var (size, (w, h)) in sizes.Zip(cards))
                    {
                        var expected = Size.FromInches(w, h);
                        // Of a square nobody can tell which way it lies.
                        size.ShouldBeOneOf(expected, w == h ? expected.Turned : expected);
                    }
                },
                iter: 300
            );
    }
}
