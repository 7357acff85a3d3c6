using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using static ZestyPocket.Core.Tests.Placing.Desks;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Every edit of a unit, on values alone: what it does, what it says, and what it refuses.</summary>
public sealed class UnitEditTests
{
    private static UnitDesk After(UnitDesk desk, params ContentEdit[] edits)
    {
        var tools = Tools();
        return edits.Aggregate(desk, (now, edit) => now with { Content = edit.Apply(now, tools).Content });
    }

    private static PocketPlace Place(UnitDesk desk, int n) => desk.Pages.Pockets[n].Place;

    private static string Refused(UnitDesk desk, ContentEdit edit) =>
        Should.Throw<RuleException>(() => edit.Apply(desk, Tools())).Message;

    [Fact]
    public void A_photo_goes_into_a_pocket_and_two_swap_when_one_is_moved_onto_the_other()
    {
        var desk = Week(2);
        var put = new PutPhoto(Id(1), Place(desk, 0)) { Revision = 1 }.Apply(desk, Tools());
        (put.Done, put.PieceId).ShouldBe(("Put 1.jpg into W19 L1", Id(1_000)));
        desk = After(
            desk,
            new PutPhoto(Id(1), Place(desk, 0)) { Revision = 1 },
            new PutPhoto(Id(2), Place(desk, 1)) { Revision = 1 }
        );
        var swap = new MovePiece(Id(1_000), Place(desk, 1)) { Revision = 1 }.Apply(desk, Tools());
        swap.Done.ShouldBe("Swapped with W19 L2");
        swap.Content.At(Place(desk, 0))!.Value.PieceId.ShouldBe(Id(1_001));
    }

    [Fact]
    public void One_finish_goes_onto_several_prints_at_once_and_off_again()
    {
        var desk = After(
            Week(2),
            new PutPhoto(Id(1), Place(Week(2), 1)) { Revision = 1 },
            new PutPhoto(Id(2), Place(Week(2), 3)) { Revision = 1 }
        );
        var prints = desk.Content.Pieces.Select(p => p.Id).ToList();
        var finish = new WrittenFinish(Border: ["1/4 in"], Mats: [new WrittenMat("1/8 in", "#223344")]);
        var finished = new FinishPieces(prints, finish) { Revision = 1 }.Apply(desk, Tools());
        finished.Done.ShouldBe("Changed the finish of 2 pieces");
        desk = desk with { Content = finished.Content };
        foreach (var print in desk.Content.Pieces)
        {
            // 6x4 less an eighth and a quarter of an inch on each side.
            desk.Pages.CutSizeOf(desk.Content, print).ShouldBe(Size.FromInches(6, 4));
            desk.Pages.RoomOf(desk.Content, print).ShouldBe(Size.FromInches(5.25m, 3.25m));
        }

        var bare = new FinishPieces(prints, new WrittenFinish()) { Revision = 1 }.Apply(desk, Tools());
        bare.Done.ShouldBe("Removed the finish of 2 pieces");
        bare.Content.Pieces.ShouldAllBe(p => Finish.Of(p) == null);

        Refused(desk, new FinishPieces([], finish) { Revision = 1 }).ShouldContain("at least one");
        Refused(desk, new FinishPieces([Id(77)], finish) { Revision = 1 }).ShouldContain("Nothing was changed");
        Refused(
                desk,
                new FinishPieces(prints, new WrittenFinish(Border: ["1 in"], Mats: [new WrittenMat("1 in", "#223344")]))
                {
                    Revision = 1,
                }
            )
            .ShouldContain("less than half an inch");
    }

    [Fact]
    public void A_composition_takes_loose_pictures_into_its_shapes_and_gives_them_back_when_it_is_deleted()
    {
        var desk = Week(3);
        desk = After(
            desk,
            new PutPhoto(Id(1), Place(desk, 0)) { Revision = 1 },
            new AddComposition("two-circles", Place(desk, 1)) { Revision = 1 }
        );
        var made = desk.Content.Pieces.OfType<Composition>().Single();
        made.Photos.ShouldBe([Id(2), Id(3)]);
        desk.Content.PhotosPlaced.ShouldBe([Id(1), Id(2), Id(3)], ignoreOrder: true);

        // The first picture, in a pocket until now, becomes the ground: its print is given up.
        var written = WrittenComposition.Of(made, MeasureSystem.Inches) with
        {
            GroundPhotoId = Id(1),
        };
        desk = After(desk, new ChangeComposition(made.Id, written) { Revision = 1 });
        desk.Content.Pieces.OfType<PhotoPrint>().ShouldBeEmpty();
        desk.Content.At(Place(desk, 0)).ShouldBeNull();

        Refused(desk, new ChangeComposition(made.Id, written with { GroundPhotoId = Id(99) }) { Revision = 1 })
            .ShouldContain("photo is not here");
        Refused(desk, new AddComposition("none", Place(desk, 0)) { Revision = 1 }).ShouldContain("no composition");
        Refused(desk, new ChangeComposition(Id(98), written) { Revision = 1 }).ShouldContain("no longer here");
        var gone = new DiscardPiece(made.Id) { Revision = 1 }.Apply(desk, Tools());
        gone.Done.ShouldBe("Deleted a composition");
        gone.Content.PhotosPlaced.ShouldBeEmpty();
        desk.Content.WithoutPrintsOf(new HashSet<Guid> { Id(2) })
            .Pieces.OfType<Composition>()
            .Single()
            .Photos.ShouldBe([Id(3), Id(1)]);
    }

    [Fact]
    public void Moving_a_picture_numbers_the_legend_again()
    {
        var desk = After(
            Week(3),
            new PutPhoto(Id(1), Place(Week(3), 0)) { Revision = 1 },
            new PutPhoto(Id(2), Place(Week(3), 1)) { Revision = 1 },
            new PutPhoto(Id(3), Place(Week(3), 2)) { Revision = 1 }
        );
        var prints = desk.Content.Pieces.Select(p => p.Id).ToList();
        desk = After(
            desk,
            new NameInLegend(prints[0], "the weir") { Revision = 1 },
            new NameInLegend(prints[2], "  the oar\n") { Revision = 1 }
        );
        Legend.Words(Legend.Of(desk)).ShouldBe("1  the weir\n2  the oar");
        desk = After(desk, new MovePiece(prints[0], Place(desk, 3)) { Revision = 1 });
        Legend.Words(Legend.Of(desk)).ShouldBe("1  the oar\n2  the weir");
        desk = After(desk, new NameInLegend(prints[2], " ") { Revision = 1 });
        Legend.Of(desk).Select(e => (e.PieceId, e.Number)).ShouldBe([(prints[0], 1)]);
        Refused(desk, new NameInLegend(prints[0], new string('x', 121)) { Revision = 1 }).ShouldContain("120");
    }

    [Fact]
    public void A_piece_says_what_it_is_printed_on_and_what_is_done_to_it_by_hand()
    {
        var desk = After(Week(1), new AddCard(CardKind.Journaling, "Day 3", Place: Place(Week(1), 0)) { Revision = 1 });
        var card = (Card)desk.Content.Pieces.Single();
        AlbumWords.Usual.StockOf(card).ShouldBe(Stock.WhiteCard);
        // The album says it, or the style of its own, or the piece itself, in this order.
        (AlbumWords.Usual with { CardsOn = Stock.Kraft })
            .StockOf(card)
            .ShouldBe(Stock.Kraft);
        var film = AlbumWords.Usual.Style(card.StyleKey, card.Kind) with { Key = "own-1", PrintedOn = Stock.Vellum };
        (AlbumWords.Usual with { OwnStyles = [film] }).StockOf(card with { StyleKey = "own-1" }).ShouldBe(Stock.Vellum);
        desk = After(
            desk,
            new PrintPiecesOn([card.Id], Stock.ClearFilm) { Revision = 1 },
            new PlanSteps(card.Id, [new(HandStepKind.Stamp, "the date"), new(HandStepKind.Emboss)]) { Revision = 1 }
        );
        var made = desk.Content.Pieces.Single();
        AlbumWords.Usual.StockOf(made).ShouldBe(Stock.ClearFilm);
        made.Steps.Select(s => s.Says()).ShouldBe(["Stamp: the date", "Emboss with heat"]);
        made.Steps.Select(s => HandStep.Caution(s.Kind)).ShouldAllBe(c => c != null);
        After(desk, new PrintPiecesOn([card.Id]) { Revision = 1 }).Content.Pieces.Single().PrintedOn.ShouldBeNull();
        After(desk, new PlanSteps(card.Id, [null!, new(HandStepKind.Write)]) { Revision = 1 })
            .Content.Pieces.Single()
            .Steps.Length.ShouldBe(1);
        var stamped = After(
            desk,
            new PlanSteps(card.Id, [new(HandStepKind.Stamp, "a.m.", PieceEdge.Top, "3/4 in")]) { Revision = 1 }
        );
        // Room for a stamp of 3/4 in at the head of a 3x4 card.
        stamped.Pages.RoomOf(stamped.Content, stamped.Content.Pieces.Single()).ShouldBe(Size.FromInches(3, 3.25m));
        Refused(
                desk,
                new PlanSteps(card.Id, [new(HandStepKind.Stamp, "", PieceEdge.Left, "2 3/4 in")]) { Revision = 1 }
            )
            .ShouldContain("keep less room");
        Refused(desk, new PrintPiecesOn([], Stock.Kraft) { Revision = 1 }).ShouldContain("at least one");
        Refused(desk, new NameInLegend(card.Id, "no picture") { Revision = 1 }).ShouldContain("Only pictures");
        Refused(
                desk,
                new PlanSteps(card.Id, [.. Enumerable.Repeat(new WrittenStep(HandStepKind.Stitch), 13)])
                {
                    Revision = 1,
                }
            )
            .ShouldContain("12 steps");
    }

    [Fact]
    public void What_is_not_there_is_refused_with_a_reason_that_says_nothing_was_changed()
    {
        var desk = Week(1);
        var elsewhere = new PocketPlace(Id(9), LeafSide.Front, "1.1");
        Refused(desk, new PutPhoto(Id(7), Place(desk, 0)) { Revision = 1 }).ShouldContain("Nothing was changed");
        Refused(desk, new PutPhoto(Id(1), elsewhere) { Revision = 1 }).ShouldContain("not on this spread");
        Refused(desk, new AddCard(CardKind.Journaling, Day: Monday.PlusDays(7)) { Revision = 1 })
            .ShouldContain("not one of Week 19");
        Refused(desk, new WishSize(Id(1), "5x7") { Revision = 1 }).ShouldContain("5x7");
        Refused(desk, new AddCard(CardKind.Journaling, StyleKey: "none") { Revision = 1 }).ShouldContain("none");
        Refused(desk, new WriteNote(new WrittenNote(null, Monday, "noon", "x")) { Revision = 1 })
            .ShouldContain("19:30");
        Refused(desk, new PutSpan(Id(1), []) { Revision = 1 }).ShouldContain("which pockets");
    }

    [Fact]
    public void One_of_two_pieces_that_are_stuck_back_to_back_cannot_go_by_itself()
    {
        var key = Week(0).Pages.Pockets[0].Place.PocketKey;
        var desk = Week(2, key);
        desk = After(desk, new PutPhoto(Id(1), Place(desk, 0)) { Revision = 1 });
        ContentEdit[] moves =
        [
            new TakeOut(Place(desk, 0)) { Revision = 1 },
            new DiscardPiece(Id(1_000)) { Revision = 1 },
            new PutPhoto(Id(2), Place(desk, 0)) { Revision = 1 },
            new AddCard(CardKind.Filler, Place: Place(desk, 0)) { Revision = 1 },
        ];
        foreach (var move in moves)
        {
            Refused(desk, move).ShouldContain("stuck");
        }
    }

    [Fact]
    public void A_keepsake_must_fit_its_pocket_turned_or_not_and_waits_in_the_envelope_until_it_is_used()
    {
        var desk = Week(0);
        var ticket = new WrittenKeepsake("Ticket", "2 x 3 in", "0", "", null, null, InEnvelope: true);
        desk = After(desk, new AddKeepsake(ticket) { Revision = 1 });
        desk.Content.InEnvelope.Single().Name.ShouldBe("Ticket");
        desk = After(desk, new UseKeepsake(Id(1_000), Place(desk, 1)) { Revision = 1 });
        desk.Content.InEnvelope.ShouldBeEmpty();
        desk.Pages.CutSizeOf(desk.Content, desk.Content.Find(Id(1_000))!).ShouldBe(Size.FromInches(2, 3));
        Refused(
                desk,
                new ChangeKeepsake(Id(1_000), ticket with { Size = "5 x 7 in", InEnvelope = false }) { Revision = 1 }
            )
            .ShouldContain("does not fit, turned or not");
    }

    [Fact]
    public void Filling_keeps_what_lies_and_what_is_left_clear_and_lays_each_photo_once()
    {
        var desk = Week(20);
        desk = After(
            desk,
            new PutPhoto(Id(5), Place(desk, 3)) { Revision = 1 },
            new LeaveEmpty(Place(desk, 7), Empty: true) { Revision = 1 }
        );
        var filled = new FillSpread { Revision = 1 }.Apply(desk, Tools());
        filled.Done.ShouldBe("Filled the spread with 10 photos and 0 cards; 9 found no pocket");
        ((PhotoPrint)filled.Content.Find(filled.Content.At(Place(desk, 3))!.Value.PieceId)!).PhotoId.ShouldBe(Id(5));
        filled.Content.At(Place(desk, 7)).ShouldBeNull();
        filled.Content.Pieces.OfType<PhotoPrint>().Select(p => p.PhotoId).ShouldBeUnique();
    }

    [Fact]
    public void Every_edit_names_itself()
    {
        ContentEdit[] edits =
        [
            new FillSpread { Revision = 0 },
            new DropNote(Id(1)) { Revision = 0 },
            new KeepPages(true) { Revision = 0 },
            new JoinCards(Id(1), Id(2)) { Revision = 0 },
        ];
        edits.Select(e => e.Label()).ShouldAllBe(label => label.Length > 3 && char.IsUpper(label[0]));
    }
}
