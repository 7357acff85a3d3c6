using CsCheck;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Tests.Placing;

public sealed class KeepsakeTests
{
    private static readonly Keepsake Ticket = new(
        Guid.CreateVersion7(),
        "Ferry ticket",
        Length.FromInches(5),
        Length.FromInches(2),
        Length.FromMillimetres(0.3m),
        string.Empty,
        null,
        null,
        false
    );

    [Fact]
    public void A_ticket_fits_a_pocket_also_turned_or_not_at_all()
    {
        Ticket.FitIn(Size.FromInches(6, 4)).ShouldBe(KeepsakeFit.Upright);
        Ticket.FitIn(Size.FromInches(4, 6)).ShouldBe(KeepsakeFit.Turned);
        Ticket.FitIn(Size.FromInches(3, 4)).ShouldBe(KeepsakeFit.TooLarge);
    }

    [Fact]
    public void What_goes_into_the_envelope_leaves_its_pocket_and_the_tray()
    {
        var place = new PocketPlace(Guid.CreateVersion7(), LeafSide.Back, "0");
        var content = UnitContent.Empty.AddKeepsake(Ticket).Put(Ticket.Id, place);
        content.At(place)!.Value.PieceId.ShouldBe(Ticket.Id);
        var away = content.ChangeKeepsake(Ticket with { InEnvelope = true });
        away.At(place).ShouldBeNull();
        away.Loose.ShouldBeEmpty();
        away.InEnvelope.ShouldHaveSingleItem().Name.ShouldBe("Ferry ticket");
        Should.Throw<RuleException>(() => away.Put(Ticket.Id, place));
    }

    [Fact]
    public void Measures_that_cannot_be_are_refused()
    {
        Should.Throw<RuleException>(() => (Ticket with { Width = Length.Zero }).Checked());
        Should.Throw<RuleException>(() => (Ticket with { Height = Length.FromInches(30) }).Checked());
        Should.Throw<RuleException>(() => (Ticket with { Thickness = Length.FromMillimetres(25) }).Checked());
        Should.Throw<RuleException>(() => (Ticket with { Name = " " }).Checked());
    }

    [Fact]
    public void Notes_stand_in_the_order_of_their_days_and_an_edit_elsewhere_keeps_them()
    {
        var day = new LocalDate(2026, 6, 6);
        var content = UnitContent
            .Empty.Note(new DayNote(Guid.CreateVersion7(), day.PlusDays(1), null, "  Lock keeper's birthday ", null))
            .Note(new DayNote(Guid.CreateVersion7(), day, new LocalTime(9, 0), "Boat", null))
            .AddKeepsake(Ticket);
        content.Notes.Select(n => n.Text).ShouldBe(["Boat", "Lock keeper's birthday"]);
        content.Discard(Ticket.Id).Notes.Length.ShouldBe(2);
        content.DropNote(content.Notes[0].Id).Notes.Length.ShouldBe(1);
        Should.Throw<RuleException>(() => content.DropNote(Guid.CreateVersion7()));
    }
}

public sealed class FacesTests
{
    [Fact]
    public void Units_take_faces_in_reading_order_and_every_face_once()
    {
        Gen.Int[1, 4]
            .Array[0, 20]
            .Sample(counts =>
            {
                var leaves = Enumerable
                    .Range(0, Binding.LeavesFor(counts.Sum()))
                    .Select(_ => Guid.CreateVersion7())
                    .ToList();
                var chain = Binding.Chain(leaves, counts);
                chain.Select(c => c.Count).ShouldBe(counts);
                var all = chain.SelectMany(c => c).ToList();
                all.Distinct().Count().ShouldBe(all.Count);
                all.ShouldBe(Binding.ReadingOrder(leaves).Take(all.Count));
            });
    }

    [Fact]
    public void Facing_pages_are_the_back_of_one_leaf_and_the_front_of_the_next()
    {
        var leaves = Enumerable.Range(0, 4).Select(_ => Guid.CreateVersion7()).ToList();
        var chain = Binding.Chain(leaves, [2, 2, 2]);
        chain[1].ShouldBe([new FaceOfLeaf(leaves[1], LeafSide.Back), new FaceOfLeaf(leaves[2], LeafSide.Front)]);
    }

    [Fact]
    public void Pieces_follow_their_face_and_keep_those_that_stay()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        FaceOfLeaf[] old = [new(a, LeafSide.Back), new(b, LeafSide.Front)];
        FaceOfLeaf[] now = [new(a, LeafSide.Back), new(c, LeafSide.Front)];
        var (left, right) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var content = UnitContent
            .Empty.AddCard(left, Core.Words.CardKind.Filler, "", "x")
            .AddCard(right, Core.Words.CardKind.Filler, "", "x")
            .Put(left, new PocketPlace(a, LeafSide.Back, "0"))
            .Put(right, new PocketPlace(b, LeafSide.Front, "1"));
        var moved = content.OnFaces(old, now, _ => true);
        moved.PlacementOf(left)!.Value.Place.LeafId.ShouldBe(a);
        moved.PlacementOf(right)!.Value.Place.ShouldBe(new PocketPlace(c, LeafSide.Front, "1"));
        content.OnFaces(old, now, place => place.PocketKey != "1").Loose.Select(p => p.Id).ShouldBe([right]);
    }
}
