using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Solving.Tests;

/// <summary>
/// From a binder and its pieces to choices in words, on values alone. The sums are arithmetic, what may come and go is
/// common practice.
/// </summary>
public sealed class PageChoosingTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);

    private int _next = 1;

    private Guid NewId() => new($"00000000-0000-7000-8000-{_next++:000000000000}");

    /// <summary>Weeks on facing pages of nine 3x4, with so many portrait photos each.</summary>
    private (RingBinder Binder, ImmutableArray<UnitToFit> Units) Weeks(params int[] pictures)
    {
        var desk = new NewAlbum(
            "Test",
            new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = Monday },
            pictures.Length,
            2,
            [
                .. new[] { "9x12-nine-3x4", "9x12-rows-6x4-3x4" }.Select(k =>
                    Protector.Unmeasured(BuiltInDesigns.Find(k)!)
                ),
            ],
            MeasureSystem.Inches,
            PageSchool.Spread
        ).Made(NewId);
        return (desk.Binder, [.. desk.Binder.Units.Select((u, i) => ToFit(desk.Binder, u, pictures[i]))]);
    }

    private UnitToFit ToFit(RingBinder binder, BoundUnit unit, int pictures)
    {
        var faces = binder.FacesOf(unit.Id);
        var desk = new UnitDesk(
            unit.Content,
            new UnitPages(
                unit.Dates,
                [
                    .. faces.Select(f =>
                    {
                        var leaf = binder.RequireLeaf(f.LeafId);
                        return new UnitFace(f.LeafId, f.Side, binder.On(leaf), leaf.Alterations);
                    }),
                ]
            ),
            unit.Dates,
            unit.Dates.Title(DateStyle.Default),
            Enumerable
                .Range(0, pictures)
                .Select(n => new DeskPhoto(
                    new LoosePhoto(NewId(), new PixelSize(2250, 3000), Monday, Monday.AtMidnight().PlusMinutes(n)),
                    $"{n}.jpg",
                    Framing.Middle
                ))
                .ToDictionary(p => p.Id),
            AlbumWords.Usual,
            binder.Protectors.SelectMany(p => p.Protector.Design.Pockets.Select(k => k.Nominal)).ToHashSet(),
            MeasureSystem.Inches
        )
        {
            Protectors = binder.Protectors,
            Body = binder.Body,
        };
        var cut = desk.Pages.Pockets[0].Face.Protector.CutSize(desk.Pages.Pockets[0].Pocket);
        ImmutableArray<Want> wants =
        [
            .. Enumerable.Range(0, pictures).Select(_ => Want.Words(WantKind.Card, "cards", [cut], _ => true)),
        ];
        return new UnitToFit(unit.Id, desk.Title, desk, wants);
    }

    private static IReadOnlyList<PageChoice> Choices(
        (RingBinder Binder, ImmutableArray<UnitToFit> Units) of,
        ChoiceWeights? own = null
    ) => new PageChoosing(of.Binder, of.Units).Choose(new PageSolver(), own, (_, _) => { }, CancellationToken.None);

    [Fact]
    public void Eighteen_pieces_need_no_leaf_more_and_nineteen_need_one()
    {
        Choices(Weeks(18))[0].Says.ShouldStartWith("No leaf more; no pocket stays empty");
        var one = Choices(Weeks(19))[0];
        (one.Leaves, one.Unplaced, one.Proved).ShouldBe((1, 0, true));
        // A leaf of nine leaves 17 pockets empty, one with two large and four small on each face only 11.
        one.Empty.ShouldBe(11);
        one.Units.Single().Says.ShouldContain("because 19 pieces want pockets and its own pages have 18");
        one.Extra.Single().Leaves.ShouldBe(1);
    }

    [Fact]
    public void What_a_unit_was_given_between_its_pages_is_taken_out_when_it_is_not_needed()
    {
        var (binder, units) = Weeks(9);
        binder = binder.AddLeaf(units[0].UnitId, binder.Protectors[0].Id, LeafAlterations.Plain, NewId);
        var choice = Choices((binder, [ToFit(binder, binder.Units[0], 9)]))[0];
        choice.Leaves.ShouldBe(-1);
        choice.Says.ShouldStartWith("One leaf fewer");
    }

    [Fact]
    public void A_unit_that_keeps_its_pages_gets_no_leaf_and_says_so()
    {
        var (binder, units) = Weeks(30);
        var kept = units[0] with
        {
            Desk = units[0].Desk with { Content = units[0].Desk.Content with { KeepsItsPages = true } },
        };
        var choice = Choices((binder, [kept]))[0];
        (choice.Extra.IsEmpty, choice.Unplaced).ShouldBe((true, 12));
        choice.Says.ShouldContain("12 pieces find no pocket");
        choice.Units.Single().Says.ShouldContain("stays on its pages");
    }

    [Fact]
    public void Own_weights_come_first_and_ways_that_come_to_the_same_are_one()
    {
        var weeks = Weeks(18, 18, 18);
        Choices(weeks).Count.ShouldBe(1, "nothing is to choose");
        Choices(weeks, ChoiceWeights.Usual)[0].Name.ShouldBe("Your weights");
        var told = new List<(int, int)>();
        new PageChoosing(weeks.Binder, weeks.Units).Choose(
            new PageSolver(),
            null,
            (done, total) => told.Add((done, total)),
            CancellationToken.None
        );
        told.ShouldBe([(1, 4), (2, 4), (3, 4), (4, 4)]);
        Should.Throw<OperationCanceledException>(() =>
            new PageChoosing(weeks.Binder, weeks.Units).Choose(
                new PageSolver(),
                null,
                (_, _) => { },
                new CancellationToken(canceled: true)
            )
        );
    }
}
