using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Pieces stuck back to back move together, on values alone.</summary>
public sealed class StuckPairTests
{
    private static readonly Guid Week = Id(1);
    private static readonly Guid Next = Id(2);
    private static readonly Guid Leaf = Id(11);
    private static readonly Guid OtherLeaf = Id(12);

    private static Guid Id(int n) => new($"00000000-0000-7000-8000-{n:000000000000}");

    private static PocketPlace Front(Guid leaf, string key) => new(leaf, LeafSide.Front, key);

    private static PocketPlace Back(Guid leaf, string key) => new(leaf, LeafSide.Back, key);

    private static UnitContent With(params (int Photo, PocketPlace Place)[] photos) =>
        photos.Aggregate(
            UnitContent.Empty,
            (content, p) => content.PutPhoto(Id(100 + p.Photo), p.Place, Id(200 + p.Photo), Framing.Middle)
        );

    private static Guid? At(UnitContent content, PocketPlace place) =>
        content.At(place) is { } lies ? lies.PieceId : null;

    private static PairMoved Move(ImmutableDictionary<Guid, UnitContent> contents, PairPlace from, PairPlace to) =>
        StuckPairs.Move(Week, contents, Id(201), from, to, place => place.PocketKey);

    [Fact]
    public void Two_fronts_change_places_and_their_backs_of_two_weeks_do_too()
    {
        var contents = ImmutableDictionary<Guid, UnitContent>
            .Empty.Add(Week, With((1, Front(Leaf, "1")), (2, Front(OtherLeaf, "1"))))
            .Add(Next, With((3, Back(Leaf, "1"))))
            .Add(Id(3), With((4, Back(OtherLeaf, "1"))));
        var stuck = LeafAlterations.Plain.Stick("1", true);
        var moved = Move(
            contents,
            new PairPlace(Front(Leaf, "1"), stuck, Next),
            new PairPlace(Front(OtherLeaf, "1"), LeafAlterations.Plain, Id(3))
        );
        At(moved.Contents[Week], Front(OtherLeaf, "1")).ShouldBe(Id(201));
        At(moved.Contents[Week], Front(Leaf, "1")).ShouldBe(Id(202));
        At(moved.Contents[Next], Back(Leaf, "1")).ShouldBe(Id(204));
        At(moved.Contents[Id(3)], Back(OtherLeaf, "1")).ShouldBe(Id(203));
        // Which pair is stuck goes with it.
        (moved.FromAlterations.Stuck.Contains("1"), moved.ToAlterations.Stuck.Contains("1")).ShouldBe((false, true));
        contents[Next].At(Back(Leaf, "1"))!.Value.PieceId.ShouldBe(Id(203));
    }

    [Fact]
    public void On_one_leaf_the_backs_of_one_week_change_places()
    {
        var contents = ImmutableDictionary<Guid, UnitContent>
            .Empty.Add(Week, With((1, Front(Leaf, "1"))))
            .Add(Next, With((3, Back(Leaf, "1"))));
        var stuck = LeafAlterations.Plain.Stick("1", true);
        var moved = Move(
            contents,
            new PairPlace(Front(Leaf, "1"), stuck, Next),
            new PairPlace(Front(Leaf, "2"), stuck, Next)
        );
        At(moved.Contents[Next], Back(Leaf, "2")).ShouldBe(Id(203));
        moved.FromAlterations.ShouldBe(moved.ToAlterations);
        moved.ToAlterations.Stuck.ShouldBe(["2"]);
    }

    [Fact]
    public void A_pair_is_not_turned_nor_moved_where_one_back_belongs_to_nobody_or_runs_on()
    {
        var contents = ImmutableDictionary<Guid, UnitContent>
            .Empty.Add(Week, With((1, Front(Leaf, "1"))))
            .Add(
                Next,
                UnitContent.Empty.PutSpan(
                    Id(103),
                    [(Back(Leaf, "1"), Id(203)), (Back(Leaf, "2"), Id(204))],
                    Framing.Middle
                )
            )
            .Add(Id(3), UnitContent.Empty);
        var from = new PairPlace(Front(Leaf, "1"), LeafAlterations.Plain.Stick("1", true), Next);
        Should
            .Throw<RuleException>(() =>
                Move(contents, from, new PairPlace(Back(Leaf, "1"), LeafAlterations.Plain, Week))
            )
            .Message.ShouldContain("turning one turns both");
        Should
            .Throw<RuleException>(() =>
                Move(contents, from, new PairPlace(Front(OtherLeaf, "1"), LeafAlterations.Plain, null))
            )
            .Message.ShouldContain("belongs to no week or day");
        Should
            .Throw<RuleException>(() =>
                Move(contents, from, new PairPlace(Front(OtherLeaf, "1"), LeafAlterations.Plain, Id(3)))
            )
            .Message.ShouldContain("runs over several pockets");
    }

    [Fact]
    public void Pictures_that_come_out_of_the_order_of_time_are_counted()
    {
        var reading = new[] { Back(Leaf, "1"), Back(Leaf, "2"), Back(Leaf, "3") };
        var taken = Enumerable.Range(1, 3).ToDictionary(n => Id(100 + n), n => Instant.FromUtc(2026, 5, 4, n, 0));
        var inOrder = With((1, reading[0]), (2, reading[1]), (3, reading[2]));
        var swapped = With((3, reading[0]), (2, reading[1]), (1, reading[2]));
        StuckPairs.OutOfOrder(inOrder, swapped, reading, taken).ShouldBe(2);
        StuckPairs.OutOfOrder(swapped, inOrder, reading, taken).ShouldBe(0);
        StuckPairs.OutOfOrderWords(1).ShouldContain("one picture stands before an earlier one");
        StuckPairs.OutOfOrderWords(0).ShouldBeEmpty();
    }
}
