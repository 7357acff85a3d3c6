using CsCheck;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Who was there, with portraits.</summary>
public sealed class PeoplePageTests
{
    private static readonly CardStyle Style = BuiltInCardStyles.All.Single(s => s.Key == "almanac-rows");

    private static CardFace Draw(int people, int pictured, Size cut)
    {
        var all = Enumerable.Range(0, people).Select(i => new PersonOnDay($"P{i}", i % 2 == 0 ? "8" : null)).ToList();
        return PeoplePage.Draw(
            all,
            all.Take(pictured).Select(p => p.Name).ToHashSet(),
            Style,
            cut,
            EvenShaper.Only,
            "Who was there"
        );
    }

    [Fact]
    public void Four_people_on_a_landscape_pocket_stand_in_one_row_of_equal_portraits()
    {
        var face = Draw(4, 4, Size.FromInches(6, 4));
        face.SmallOpenings.Length.ShouldBe(4);
        face.SmallOpenings.Select(o => o.At.Width).Distinct().Count().ShouldBe(1);
        face.SmallOpenings.ShouldAllBe(o => Math.Abs(o.At.Width - o.At.Height) < 1e-9);
        face.Runs.ShouldContain(r => r.Text == "P0");
        face.Runs.ShouldContain(r => r.Text == "8");
    }

    [Fact]
    public void Whoever_has_no_portrait_stands_with_the_name_alone()
    {
        var face = Draw(3, 1, Size.FromInches(4, 6));
        face.SmallOpenings.Select(o => o.Place).ShouldBe(["P0"]);
        foreach (var name in new[] { "P0", "P1", "P2" })
        {
            face.Runs.ShouldContain(r => r.Text == name);
        }
    }

    [Fact]
    public void Portraits_of_any_number_lie_inside_the_card_and_apart()
    {
        Gen.Select(Gen.Int[1, 20], Gen.Int[3, 12], Gen.Int[3, 12])
            .Sample(
                (people, wide, high) =>
                {
                    var face = Draw(people, people, Size.FromInches(wide, high));
                    var places = face.SmallOpenings.Select(o => o.At).ToList();
                    places.Count.ShouldBe(people);
                    for (var i = 0; i < places.Count; i++)
                    {
                        places[i].X.ShouldBeGreaterThanOrEqualTo(0);
                        (places[i].X + places[i].Width).ShouldBeLessThanOrEqualTo(face.Width + 1e-6);
                        (places[i].Y + places[i].Height).ShouldBeLessThanOrEqualTo(face.Height + 1e-6);
                        for (var k = i + 1; k < places.Count; k++)
                        {
                            var (dx, dy) = (Math.Abs(places[i].X - places[k].X), Math.Abs(places[i].Y - places[k].Y));
                            (dx >= places[i].Width - 1e-6 || dy >= places[i].Height - 1e-6).ShouldBeTrue();
                        }
                    }
                },
                iter: 300
            );
    }
}
