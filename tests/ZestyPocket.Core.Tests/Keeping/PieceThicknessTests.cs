using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Tests.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Keeping;

/// <summary>
/// Sums by hand from the start values: print 0.25 mm, card 0.30, vellum 0.10, clear film 0.13 (common practice, from
/// memory).
/// </summary>
public sealed class PieceThicknessTests
{
    private static Length Mm(decimal mm) => Length.FromMillimetres(mm);

    [Fact]
    public void A_print_is_a_quarter_of_a_millimetre_and_each_mat_adds_a_card()
    {
        var (desk, tools) = (Desks.Week(1), Desks.Tools());
        var place = Desks.LeftPocket(desk, 1);
        PieceThickness.InPocket(desk, place).ShouldBe(Length.Zero);
        desk = Desks.After(desk, new PutPhoto(Desks.Id(1), Place: place) { Revision = 0 }, tools);
        PieceThickness.InPocket(desk, place).ShouldBe(Mm(0.25m));
        var print = desk.Content.Pieces[0].Id;
        var mats = new WrittenFinish(Mats: [new WrittenMat("1/8 in", "#ffffff"), new WrittenMat("1/8 in", "#000000")]);
        desk = Desks.After(desk, new FinishPieces([print], mats) { Revision = 0 }, tools);
        PieceThickness.InPocket(desk, place).ShouldBe(Mm(0.85m));
    }

    [Fact]
    public void A_flip_of_card_with_a_printed_back_and_a_sleeve_of_vellum_count_with_what_they_go_with()
    {
        var (desk, tools) = (Desks.Week(1), Desks.Tools());
        var place = Desks.LeftPocket(desk, 1);
        desk = Desks.After(desk, new PutPhoto(Desks.Id(1), Place: place) { Revision = 0 }, tools);
        var print = desk.Content.Pieces[0];
        var flip = new Card(Desks.Id(50), CardKind.Journaling, "Lift me", "almanac-journal")
        {
            Attachment = new Attachment(print.Id, AttachmentKind.Flip),
        };
        var back = new Card(Desks.Id(51), CardKind.Journaling, "The back", "almanac-journal")
        {
            Attachment = new Attachment(flip.Id, AttachmentKind.Back),
        };
        var sleeve = new Card(Desks.Id(52), CardKind.Journaling, "Overheard", "almanac-journal")
        {
            Attachment = new Attachment(print.Id, AttachmentKind.Sleeve),
            PrintedOn = Stock.Vellum,
        };
        desk = desk with { Content = desk.Content with { Pieces = [.. desk.Content.Pieces, flip, back, sleeve] } };
        // 0.25 + 0.30 + nothing for the back + twice 0.10.
        PieceThickness.InPocket(desk, place).ShouldBe(Mm(0.75m));
        PieceThickness.OfFace(desk, desk.Pages.Faces[0]).ShouldBe(Mm(0.75m));
        PieceThickness.OfFace(desk, desk.Pages.Faces[1]).ShouldBe(Length.Zero);
    }

    [Fact]
    public void A_divider_lies_on_clear_film_unless_asked_otherwise()
    {
        var desk = Desks.Week(0);
        var divider = new Card(Desks.Id(60), CardKind.Divider, string.Empty, "almanac-title");
        desk.Words.StockOf(divider).ShouldBe(Stock.ClearFilm);
        PieceThickness.OfPiece(desk, divider).ShouldBe(Mm(0.13m));
        desk.Words.StockOf(divider with { PrintedOn = Stock.Vellum }).ShouldBe(Stock.Vellum);
    }
}
