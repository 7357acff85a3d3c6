using CsCheck;
using NodaTime;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>How thick an album gets and where it is parted, against arithmetic by hand (docs/rules).</summary>
public sealed class AlbumThicknessTests
{
    private static readonly LocalDate FirstDay = new(2026, 1, 5);

    private static Length Mm(decimal mm) => Length.FromMillimetres(mm);

    private static Size Page => Size.FromInches(6, 8);

    private static UnitThickness Week(int week, decimal? mm, int faces = 2) =>
        new(
            new Guid(week + 1, 0, 0, new byte[8]),
            $"Week {week + 1}",
            FirstDay.PlusWeeks(week),
            mm is { } thick ? Mm(thick) : null,
            faces
        );

    private static List<UnitThickness> Year(int done, decimal mm) =>
        [.. Enumerable.Range(0, 52).Select(w => Week(w, w < done ? mm : null))];

    private static ThickLeaf Leaf(params (Rect Where, decimal Mm)[] spots) =>
        new(Page, Mm(0.2m), [.. spots.Select(s => new ThickSpot(s.Where, Mm(s.Mm)))]);

    private static Rect Inches(decimal x, decimal y, decimal width, decimal height) =>
        new(Length.FromInches(x), Length.FromInches(y), Length.FromInches(width), Length.FromInches(height));

    /// <summary>Source of the shares: common practice, from memory; what was measured goes before them.</summary>
    [Theory]
    [InlineData(RingShape.Round, 2, null, 38.1)]
    [InlineData(RingShape.D, 2, null, 45.72)]
    [InlineData(RingShape.D, 3, null, 68.58)]
    [InlineData(RingShape.Round, 2, 1.6, 40.64)]
    public void Rings_close_over_what_was_measured_or_a_share_of_their_diameter(
        RingShape shape,
        int inches,
        double? measured,
        double mm
    )
    {
        var own = measured is { } m ? Length.FromInches((decimal)m) : (Length?)null;
        var rings = new BinderRings(shape, Length.FromInches(inches), own).Checked();
        ((double)rings.Capacity.Millimetres).ShouldBe(mm, 0.01);
    }

    [Theory]
    [InlineData(0.1, null)]
    [InlineData(7, null)]
    [InlineData(2, 2.1)]
    [InlineData(2, 0.1)]
    public void Rings_nobody_makes_are_refused(double inches, double? measured) =>
        Should.Throw<RuleException>(() =>
            new BinderRings(
                RingShape.D,
                Length.FromInches((decimal)inches),
                measured is { } m ? Length.FromInches((decimal)m) : null
            ).Checked()
        );

    [Fact]
    public void Badges_at_one_spot_add_up_and_badges_at_others_lie_beside_each_other()
    {
        var head = Inches(0, 0, 3, 4);
        var foot = Inches(3, 4, 3, 4);
        BulkMap Of(params ThickLeaf[] leaves)
        {
            var map = new BulkMap(Page);
            foreach (var leaf in leaves)
            {
                map.Add(leaf);
            }

            return map;
        }

        // Three leaves of 0.2 mm, each with a badge of 4 mm.
        Of(Leaf((head, 4)), Leaf((head, 4)), Leaf((head, 4))).Thickest.ShouldBe(Mm(12.6m));
        Of(Leaf((head, 4)), Leaf((foot, 4)), Leaf((head, 4))).Thickest.ShouldBe(Mm(8.6m));
        var map = Of(Leaf((head, 4)), Leaf((foot, 4)));
        (map.Columns, map.Rows).ShouldBe((24, 32));
        (map.At(0, 0), map.At(23, 31), map.At(23, 0)).ShouldBe((Mm(4.4m), Mm(4.4m), Mm(0.4m)));
    }

    [Fact]
    public void The_order_of_leaves_changes_nothing_and_one_more_is_never_thinner() =>
        Gen.Select(Gen.Int[0, 5], Gen.Int[0, 7], Gen.Int[1, 4], Gen.Int[0, 40])
            .Array[1, 8]
            .Sample(
                spots =>
                {
                    var leaves = spots
                        .Select(s => Leaf((Inches(s.Item1, s.Item2, s.Item3, s.Item3), s.Item4 / 10m)))
                        .ToList();
                    var (there, back) = (new BulkMap(Page), new BulkMap(Page));
                    leaves.ForEach(there.Add);
                    foreach (var leaf in Enumerable.Reverse(leaves))
                    {
                        var before = back.Thickest;
                        back.Add(leaf);
                        (back.Thickest - before).ShouldBeInRange(Mm(0.2m), BulkMap.Of(leaf));
                    }

                    there.Thickest.ShouldBe(back.Thickest);
                },
                iter: 200
            );

    /// <summary>Five albums by hand, see docs/rules.</summary>
    [Theory]
    [InlineData(10, 0.9, 40, "Week 45", 46.8)]
    [InlineData(10, 0.7, 40, null, 36.4)]
    [InlineData(0, 0, 40, null, 36.4)]
    [InlineData(52, 1.0, 45.72, "Week 46", 52)]
    [InlineData(1, 2.5, 45.72, "Week 19", 130)]
    public void The_week_in_which_the_rings_are_full(int done, double mm, double capacity, string? full, double end)
    {
        var forecast = AlbumThickness.Forecast(Year(done, (decimal)mm), Mm((decimal)capacity));
        forecast.FullAt?.Title.ShouldBe(full);
        (forecast.FullAt is null).ShouldBe(full is null);
        ((double)forecast.AtTheEnd.Millimetres).ShouldBe(end, 0.01);
    }

    /// <summary>The forecast after each week of a simulated year comes to what the year was.</summary>
    [Fact]
    public void A_forecast_gets_better_through_a_year_and_ends_at_what_it_was()
    {
        var dice = new Random(11);
        var year = Enumerable.Range(0, 52).Select(w => 0.8m + (0.4m * (decimal)dice.NextDouble())).ToList();
        var whole = year.Sum();
        double Off(int done) =>
            Math.Abs(
                (double)
                    AlbumThickness
                        .Forecast([.. year.Select((mm, w) => Week(w, w < done ? mm : null))], Mm(1_000))
                        .AtTheEnd.Millimetres / (double)whole
                    - 1
            );
        Off(4).ShouldBeLessThan(0.15);
        Off(26).ShouldBeLessThan(0.06);
        Off(52).ShouldBeLessThan(0.0001);
    }

    [Fact]
    public void A_year_is_parted_near_the_first_of_a_month_into_as_few_volumes_as_close()
    {
        // 52 weeks of 1 mm and rings that close over 30 mm: two volumes.
        var starts = AlbumThickness.Parts(Year(52, 1), Mm(30));
        var second = starts.ShouldHaveSingleItem();
        // Both close when it begins with week 23 to week 31. 29 June and 3 August are two days from the first of a
        // month; with the first of them the volumes are more alike.
        (second.Title, second.Day).ShouldBe(("Week 26", new LocalDate(2026, 6, 29)));
        second.Thickness.ShouldBe(Mm(25));
        AlbumThickness.Parts(Year(52, 1), Mm(52)).ShouldBeEmpty();
        Should.Throw<RuleException>(() => AlbumThickness.Parts(Year(52, 1), Mm(0.9m))).Message.ShouldContain("alone");
    }

    [Fact]
    public void Every_volume_closes_and_no_parting_has_fewer() =>
        Gen.Select(Gen.Int[1, 40].Array[1, 40], Gen.Int[40, 120])
            .Sample(
                (tenths, capacity) =>
                {
                    var units = tenths.Select((t, w) => Week(w, t / 10m)).ToList();
                    var starts = AlbumThickness
                        .Parts(units, Mm(capacity / 10m))
                        .Select(s => units.FindIndex(u => u.UnitId == s.StartsWith))
                        .ToList();
                    var volumes = starts
                        .Prepend(0)
                        .Zip(starts.Append(units.Count), (from, to) => tenths[from..to].Sum())
                        .ToList();
                    volumes.ShouldAllBe(v => v <= capacity);
                    // As many as fit, one after the other, is the fewest.
                    var (fewest, sum) = (1, 0);
                    foreach (var t in tenths)
                    {
                        (fewest, sum) = sum + t > capacity ? (fewest + 1, t) : (fewest, sum + t);
                    }

                    volumes.Count.ShouldBe(fewest);
                },
                iter: 300
            );
}
