using CsCheck;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Placing;

public sealed class UnitContentTests
{
    private static readonly Guid Leaf = Id(900);
    private static readonly PocketPlace[] Pockets =
    [
        .. Enumerable.Range(1, 6).Select(i => new PocketPlace(Leaf, LeafSide.Front, $"{i}.1")),
    ];

    [Fact]
    public void A_photo_put_into_a_taken_pocket_sends_the_other_back_to_the_tray()
    {
        var content = UnitContent
            .Empty.PutPhoto(Id(1), Pockets[0], Id(11), Framing.Middle)
            .PutPhoto(Id(2), Pockets[0], Id(12), Framing.Middle);
        content.PhotosPlaced.ShouldBe([Id(2)]);
        content.At(Pockets[0])!.Value.PieceId.ShouldBe(Id(12));
    }

    [Fact]
    public void Two_pieces_swap_pockets()
    {
        var content = UnitContent
            .Empty.PutPhoto(Id(1), Pockets[0], Id(11), Framing.Middle)
            .PutPhoto(Id(2), Pockets[1], Id(12), Framing.Middle);
        var swapped = content.Put(Id(11), Pockets[1]);
        swapped.At(Pockets[0])!.Value.PieceId.ShouldBe(Id(12));
        swapped.At(Pockets[1])!.Value.PieceId.ShouldBe(Id(11));
    }

    [Fact]
    public void A_card_taken_out_waits_in_the_tray_with_its_words()
    {
        var content = UnitContent
            .Empty.AddCard(Id(1), CardKind.Journaling, "Rain all day.", "reading-serif")
            .Put(Id(1), Pockets[2])
            .TakeOut(Pockets[2]);
        content.Loose.OfType<Card>().Single().Words.ShouldBe("Rain all day.");
    }

    [Fact]
    public void A_change_of_design_keeps_what_still_has_a_pocket()
    {
        var content = UnitContent
            .Empty.PutPhoto(Id(1), Pockets[0], Id(11), Framing.Middle)
            .AddCard(Id(2), CardKind.Journaling, "words", "reading-serif")
            .Put(Id(2), Pockets[5]);
        var kept = content.KeepOnly(p => p.PocketKey == "1.1");
        kept.At(Pockets[0]).ShouldNotBeNull();
        kept.Loose.Single().Id.ShouldBe(Id(2));
    }

    [Fact]
    public void What_is_not_there_is_refused_and_nothing_changes()
    {
        var content = UnitContent.Empty;
        Should.Throw<RuleException>(() => content.TakeOut(Pockets[0]));
        Should.Throw<RuleException>(() => content.Put(Id(7), Pockets[0]));
        Should.Throw<RuleException>(() => content.Frame(Id(7), Framing.Middle));
        Should.Throw<RuleException>(() =>
            content.AddCard(Id(1), CardKind.Journaling, new string('x', 20_001), "reading-serif")
        );
        content.ShouldBe(UnitContent.Empty);
    }

    [Trait("Duration", "Long")]
    [Fact]
    public void After_any_edits_no_pocket_holds_two_pieces_and_no_piece_lies_in_two_pockets()
    {
        Gen.Select(Gen.Int[0, 5], Gen.Int[1, 4], Gen.Int[0, 5])
            .Array[0, 60]
            .Sample(steps =>
            {
                var content = UnitContent.Empty;
                var next = 1000;
                foreach (var (action, photo, pocket) in steps)
                {
                    var place = Pockets[pocket];
                    content = action switch
                    {
                        0 or 1 when !content.PhotosPlaced.Contains(Id(photo)) => content.PutPhoto(
                            Id(photo),
                            place,
                            Id(next++),
                            Framing.Middle
                        ),
                        2 => content.AddCard(Id(next++), CardKind.Journaling, "w", "reading-serif"),
                        3 when content.Pieces.Length > 0 => content.Put(
                            content.Pieces[pocket % content.Pieces.Length].Id,
                            place
                        ),
                        4 when content.At(place) is not null => content.TakeOut(place),
                        5 when content.Pieces.Length > 0 => content.Discard(
                            content.Pieces[photo % content.Pieces.Length].Id
                        ),
                        _ => content,
                    };
                    content.Placements.Select(p => p.Place).Distinct().Count().ShouldBe(content.Placements.Length);
                    content.Placements.Select(p => p.PieceId).Distinct().Count().ShouldBe(content.Placements.Length);
                    content.Placements.ShouldAllBe(p => content.Pieces.Any(piece => piece.Id == p.PieceId));
                    content.Loose.ShouldAllBe(p => p is Card);
                }
            });
    }

    private static Guid Id(int n) => new(n, 0, 0, new byte[8]);
}
