using CsCheck;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>Cards that lie apart on a table are found one by one.</summary>
public sealed class CardOutlineTests
{
    private const int Width = 600;
    private const int Height = 450;

    private sealed record Lying(double X, double Y, double Wide, double High, double Degrees, byte Red)
    {
        public bool Covers(double x, double y)
        {
            var (dx, dy) = (x - X, y - Y);
            var (sin, cos) = Math.SinCos(Degrees * Math.PI / 180);
            return Math.Abs((dx * cos) + (dy * sin)) <= Wide / 2 && Math.Abs((dy * cos) - (dx * sin)) <= High / 2;
        }

        public IEnumerable<(double X, double Y)> Corners()
        {
            var (sin, cos) = Math.SinCos(Degrees * Math.PI / 180);
            foreach (var (sx, sy) in new[] { (-1, -1), (1, -1), (1, 1), (-1, 1) })
            {
                var (dx, dy) = (sx * Wide / 2, sy * High / 2);
                yield return (X + (dx * cos) - (dy * sin), Y + (dx * sin) + (dy * cos));
            }
        }
    }

    [Fact]
    public void Each_of_several_cards_is_found_within_two_pixels_at_any_angle()
    {
        // Six places of a table, each with a card or none, turned by up to twenty degrees.
        Gen.Select(Gen.Bool.Array[6], Gen.Double[-20, 20].Array[6], Gen.Byte[120, 255].Array[6])
            .Sample(
                (there, degrees, red) =>
                {
                    var cards = Enumerable
                        .Range(0, 6)
                        .Where(i => there[i])
                        .Select(i => new Lying(
                            100 + (i % 3 * 200),
                            112 + (i / 3 * 225),
                            i % 2 == 0 ? 90 : 120,
                            i % 2 == 0 ? 120 : 80,
                            degrees[i],
                            red[i]
                        ))
                        .ToList();
                    var found = CardOutline.FindAll(
                        Width,
                        Height,
                        (x, y) =>
                            cards.Find(c => c.Covers(x + 0.5, y + 0.5)) is { } card
                                ? (card.Red, (byte)60, (byte)60)
                                : ((byte)40, (byte)44, (byte)48)
                    );
                    found.Length.ShouldBe(cards.Count);
                    foreach (var card in cards)
                    {
                        card.Corners()
                            .ShouldAllBe(c =>
                                found.Any(f =>
                                    f.All.Any(p =>
                                        Math.Abs((p.X * Width) - c.X) < 2 && Math.Abs((p.Y * Height) - c.Y) < 2
                                    )
                                )
                            );
                    }
                },
                iter: 60
            );
    }

    [Fact]
    public void A_pattern_inside_a_card_is_no_card_and_an_empty_table_has_none()
    {
        // A frame whose middle is as dark as the table, with a bright square in it.
        var framed = CardOutline.FindAll(
            Width,
            Height,
            (x, y) =>
                x is >= 100 and < 400 && y is >= 100 and < 350
                    ? x is >= 130 and < 370 && y is >= 130 and < 320
                        ? x is >= 200 and < 280 && y is >= 180 and < 260
                            ? Bright
                            : Dark
                        : Bright
                    : Dark
        );
        framed.Length.ShouldBe(1);
        framed[0].TopLeft.X.ShouldBe(100.0 / Width, 0.01);
        CardOutline.FindAll(Width, Height, (_, _) => Dark).ShouldBeEmpty();
        CardOutline.Find(Width, Height, (_, _) => Dark).ShouldBe(CardCorners.Whole);
    }

    private static (byte R, byte G, byte B) Bright => (230, 220, 200);

    private static (byte R, byte G, byte B) Dark => (40, 44, 48);
}
