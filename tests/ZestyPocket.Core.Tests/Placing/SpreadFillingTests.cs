using CsCheck;
using NodaTime;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Placing;

public sealed class SpreadFillingTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);

    [Fact]
    public void The_assignment_is_the_best_of_all_on_small_cases()
    {
        Gen.Select(Gen.Int[1, 5], Gen.Int[0, 2], Gen.Int[0, 1000].Array[35])
            .Sample(
                (rows, more, numbers) =>
                {
                    var columns = rows + more;
                    var cost = new long[rows, columns];
                    for (var i = 0; i < rows * columns; i++)
                    {
                        cost[i / columns, i % columns] = numbers[i];
                    }

                    var answer = Assignment.Solve(cost);
                    answer.Distinct().Count().ShouldBe(rows);
                    answer.Select((c, r) => cost[r, c]).Sum().ShouldBe(Best(cost, 0, new bool[columns]));
                }
            );

        static long Best(long[,] cost, int row, bool[] used)
        {
            if (row == cost.GetLength(0))
            {
                return 0;
            }

            var best = long.MaxValue;
            for (var column = 0; column < used.Length; column++)
            {
                if (!used[column])
                {
                    used[column] = true;
                    best = Math.Min(best, cost[row, column] + Best(cost, row + 1, used));
                    used[column] = false;
                }
            }

            return best;
        }
    }

    [Fact]
    public void Landscape_pictures_go_to_landscape_pockets_and_upright_ones_to_upright_pockets()
    {
        var design = BuiltInDesigns.Find("9x12-rows-6x4-3x4")!;
        var pockets = Open(design);
        var photos = Enumerable
            .Range(0, 6)
            .Select(i => i % 2 == 0 ? Photo(i, 3000, 4000, 0, i) : Photo(i, 3000, 2000, 0, i))
            .ToList();
        var choices = SpreadFilling.Propose(pockets, photos);
        choices.Count.ShouldBe(6);
        foreach (var choice in choices)
        {
            var photo = photos.Single(p => p.Id == choice.PhotoId);
            pockets.Single(p => p.Place == choice.Place).Cut.IsLandscape.ShouldBe(photo.Pixels.IsLandscape);
        }
    }

    [Fact]
    public void Pictures_of_one_shape_lie_in_the_order_of_time()
    {
        var pockets = Open(BuiltInDesigns.Find("9x12-nine-3x4")!);
        var photos = Enumerable.Range(0, 9).Select(i => Photo(i, 3000, 4000, i * 7 / 9, i)).Reverse().ToList();
        SpreadFilling
            .Propose(pockets, photos)
            .Select(c => c.PhotoId)
            .ShouldBe(photos.AsEnumerable().Reverse().Select(p => p.Id));
    }

    [Fact]
    public void With_fewer_pictures_than_pockets_the_empty_ones_come_last()
    {
        var pockets = Open(BuiltInDesigns.Find("6x8-twelve-2x2")!);
        var photos = Enumerable.Range(0, 7).Select(i => Photo(i, 2000, 2000, i, 9)).ToList();
        SpreadFilling.Propose(pockets, photos).Select(c => c.Place).ShouldBe(pockets.Take(7).Select(p => p.Place));
    }

    [Fact]
    public void With_more_pictures_than_pockets_every_day_has_its_turn()
    {
        var photos = Enumerable.Range(0, 40).Select(i => Photo(i, 3000, 4000, i < 34 ? 5 : i - 34, i % 24)).ToList();
        var chosen = SpreadFilling.Choose(photos, 9);
        chosen.Count.ShouldBe(9);
        chosen.Select(p => p.Day).Distinct().Count().ShouldBe(6);
    }

    [Fact]
    public void A_small_picture_does_not_get_the_large_pocket()
    {
        OpenPocket[] pockets =
        [
            new(new PocketPlace(Guid.Empty, LeafSide.Front, "1"), Size.FromInches(6, 4)),
            new(new PocketPlace(Guid.Empty, LeafSide.Front, "2"), Size.FromInches(3, 2)),
        ];
        var (small, large) = (Photo(1, 600, 400, 0, 8), Photo(2, 3000, 2000, 0, 9));
        SpreadFilling.Propose(pockets, [small, large])[0].PhotoId.ShouldBe(large.Id);
    }

    [Fact]
    public void A_small_picture_stays_out_while_there_are_enough_sharp_ones()
    {
        var pockets = Open(BuiltInDesigns.Find("6x8-two-6x4")!);
        List<LoosePhoto> photos = [Photo(1, 800, 600, 0, 8), Photo(2, 3000, 2000, 1, 8), Photo(3, 3000, 2000, 2, 8)];
        SpreadFilling.Propose(pockets, photos).Select(c => c.PhotoId).ShouldBe([photos[1].Id, photos[2].Id]);
        SpreadFilling.Propose(pockets, photos[..2]).Count.ShouldBe(2);
    }

    [Fact]
    public void Each_photo_and_each_pocket_is_used_once_and_the_same_input_gives_the_same_answer()
    {
        Gen.Select(Gen.Int[0, 25], Gen.Int[0, 12], Gen.Int[0, 1_000_000])
            .Sample(
                (photoCount, pocketCount, salt) =>
                {
                    var pockets = Open(BuiltInDesigns.Find("6x8-twelve-2x2")!).Take(pocketCount).ToList();
                    var photos = Enumerable
                        .Range(0, photoCount)
                        .Select(i => Photo(i, 600 + ((i * salt) % 3000), 900, (i * salt) % 7, i % 24))
                        .ToList();
                    var first = SpreadFilling.Propose(pockets, photos);
                    first.Count.ShouldBe(Math.Min(photoCount, pocketCount));
                    first.Select(c => c.PhotoId).Distinct().Count().ShouldBe(first.Count);
                    first.Select(c => c.Place).Distinct().Count().ShouldBe(first.Count);
                    SpreadFilling.Propose(pockets, photos).ShouldBe(first);
                }
            );
    }

    private static List<OpenPocket> Open(PageDesign design) =>
        [
            .. design
                .Face(LeafSide.Front)
                .Select(p => new OpenPocket(new PocketPlace(Guid.Empty, LeafSide.Front, p.Key), p.Nominal)),
        ];

    private static LoosePhoto Photo(int n, int width, int height, int day, int hour) =>
        new(
            new Guid(n, 0, 0, new byte[8]),
            new PixelSize(width, height),
            Monday.PlusDays(day),
            Monday.PlusDays(day).At(new LocalTime(hour, n % 60))
        );
}
