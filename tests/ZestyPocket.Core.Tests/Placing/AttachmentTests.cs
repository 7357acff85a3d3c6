using CsCheck;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Tests.Words;
using ZestyPocket.Core.Words;
using static ZestyPocket.Core.Tests.Placing.Desks;

namespace ZestyPocket.Core.Tests.Placing;

/// <summary>Pieces that go with others: flips, tags, sleeves, backs, labels.</summary>
public sealed class AttachmentTests
{
    private static readonly EditTools Once = Tools();

    /// <summary>A picture in the first pocket and the key of its print.</summary>
    private static (UnitDesk Desk, Guid Print) WithPrint()
    {
        var desk = After(Week(3), new PutPhoto(Id(1), LeftPocket(Week(3), 1)) { Revision = 1 }, Once);
        return (desk, desk.Content.Pieces[0].Id);
    }

    private static (UnitDesk Desk, Guid Piece) Attach(
        UnitDesk desk,
        Guid to,
        AttachmentKind kind,
        PieceEdge edge = PieceEdge.Top,
        string? depth = null,
        Guid? photo = null
    )
    {
        var edited = new AttachPiece(to, kind, edge, depth, PhotoId: photo) { Revision = 1 }.Apply(desk, Once);
        return (desk with { Content = edited.Content }, edited.PieceId!.Value);
    }

    [Fact]
    public void A_flip_is_as_large_as_its_pocket_or_reaches_as_far_as_is_said()
    {
        var (desk, print) = WithPrint();
        var (whole, flip) = Attach(desk, print, AttachmentKind.Flip, PieceEdge.Left);
        whole.Pages.CutSizeOf(whole.Content, whole.Content.Find(flip)!).ShouldBe(Size.FromInches(3, 4));
        var (half, partly) = Attach(desk, print, AttachmentKind.Flip, PieceEdge.Left, "2 1/2 in");
        half.Pages.CutSizeOf(half.Content, half.Content.Find(partly)!).ShouldBe(Size.FromInches(2.5m, 4));
    }

    /// <summary>A sleeve of 3 1/16 in does not go into a pocket of 3 in: the print gives way.</summary>
    [Fact]
    public void A_sleeve_is_as_wide_as_its_pocket_and_the_print_in_it_a_sixteenth_narrower()
    {
        var (desk, print) = WithPrint();
        var (with, sleeve) = Attach(desk, print, AttachmentKind.Sleeve, PieceEdge.Left);
        with.Pages.CutSizeOf(with.Content, with.Content.Find(sleeve)!).ShouldBe(Size.FromInches(3, 4));
        with.Pages.CutSizeOf(with.Content, with.Content.Find(print)!).ShouldBe(Size.FromInches(2.9375m, 4));
    }

    [Fact]
    public void A_sleeve_lies_flat_as_front_back_and_half_an_inch_for_glue()
    {
        var front = new Attachment(Id(1), AttachmentKind.Sleeve).SizeOn(Size.FromInches(3, 4))!.Value;
        // 3 in and a sixteenth of ease, twice, and the strip.
        front.ShouldBe(Size.FromInches(3.0625m, 4));
        SleeveSheet.Flat(front).ShouldBe(Size.FromInches(6.625m, 4));
        SleeveSheet.Folds(front).ShouldBe((Length.FromInches(1, 2), Length.FromInches(3.5625m)));
    }

    [Fact]
    public void A_tag_is_narrower_than_its_pocket_and_stands_out_half_an_inch()
    {
        var cut = Size.FromInches(3, 4);
        var tag = new Attachment(Id(1), AttachmentKind.Tag, PieceEdge.Top);
        var own = tag.SizeOn(cut)!.Value;
        own.ShouldBe(Size.FromInches(2.75m, 4.5m));
        var place = tag.PlaceOn(cut, own);
        place.Y.ShouldBe(Length.Zero - Length.FromInches(1, 2));
        place.Bottom.ShouldBe(cut.Height);
    }

    [Fact]
    public void A_lifted_flip_meets_the_closed_one_at_its_hinge() =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[1, 12], Gen.Int[1, 12], Gen.Int[1, 40]).Sample(MeetsAtItsHinge);

    private static void MeetsAtItsHinge(int edge, int wide, int high, int deep)
    {
        var (hinge, cut) = ((PieceEdge)edge, Size.FromInches(wide, high));
        var flip = new Attachment(Id(1), AttachmentKind.Flip, hinge) { Depth = Length.FromInches(deep, 4) };
        var own = flip.SizeOn(cut)!.Value;
        var (closed, lifted) = (flip.PlaceOn(cut, own), flip.LiftedOn(cut, own));
        new Rect(Length.Zero, Length.Zero, cut).Contains(closed).ShouldBeTrue();
        lifted.Overlaps(closed).ShouldBeFalse();
        lifted.Size.ShouldBe(closed.Size);
        (
            hinge switch
            {
                PieceEdge.Left => lifted.Right == closed.X && closed.X == Length.Zero,
                PieceEdge.Right => lifted.X == closed.Right && closed.Right == cut.Width,
                PieceEdge.Top => lifted.Bottom == closed.Y && closed.Y == Length.Zero,
                _ => lifted.Y == closed.Bottom && closed.Bottom == cut.Height,
            }
        ).ShouldBeTrue();
    }

    [Fact]
    public void What_goes_with_a_piece_wants_no_pocket_and_is_in_the_sum()
    {
        var (desk, print) = WithPrint();
        var before = new UnitTally(desk, [], EvenShaper.Only);
        var (flipped, flip) = Attach(desk, print, AttachmentKind.Flip);
        var (backed, _) = Attach(flipped, flip, AttachmentKind.Back);
        var after = new UnitTally(backed, [], EvenShaper.Only);
        after.Pieces.ShouldBe(before.Pieces);
        after.PiecesButStories.ShouldBe(before.PiecesButStories);
        after.Sum.ShouldContain("2 more pieces lie with others.");
        // A picture on a flip has its place.
        var (pictured, _) = Attach(desk, print, AttachmentKind.Flip, photo: Id(2));
        new UnitTally(pictured, [], EvenShaper.Only).Pieces.ShouldBe(before.Pieces - 1);
    }

    [Fact]
    public void Taking_the_piece_below_away_lets_the_card_go_to_the_tray_and_the_picture_go_loose()
    {
        var (desk, print) = WithPrint();
        var (flipped, flip) = Attach(desk, print, AttachmentKind.Flip);
        var (both, picture) = Attach(flipped, print, AttachmentKind.Behind, photo: Id(2));
        var taken = both.Content.TakeOut(LeftPocket(desk, 1));
        taken.Loose.ShouldHaveSingleItem().Id.ShouldBe(flip);
        taken.Find(picture).ShouldBeNull();
        taken.PhotosPlaced.ShouldBeEmpty();
        taken.Pieces.ShouldAllBe(p => p.Attachment == null);
    }

    [Fact]
    public void A_flip_moves_with_its_piece_and_is_named_by_its_pocket()
    {
        var (desk, print) = WithPrint();
        var (flipped, flip) = Attach(desk, print, AttachmentKind.Flip);
        var moved = After(flipped, new MovePiece(print, LeftPocket(desk, 3)) { Revision = 1 }, Once);
        moved.Where(flip).ShouldBe(" in W19 L3");
        moved.Content.Find(flip)!.Attachment!.To.ShouldBe(print);
    }

    [Fact]
    public void What_cannot_go_together_is_refused_with_the_reason()
    {
        var (desk, print) = WithPrint();
        var (flipped, flip) = Attach(desk, print, AttachmentKind.Flip);
        Refused(flipped, print, AttachmentKind.Flip).ShouldContain("hangs on that edge already");
        Refused(flipped, flip, AttachmentKind.Tag).ShouldContain("only its back can be added");
        Refused(flipped, Id(999), AttachmentKind.Flip).ShouldContain("no longer here");
        Should
            .Throw<RuleException>(() =>
                flipped.Content.Attach(flipped.Content.Find(flip)!, new(flip, AttachmentKind.Back))
            )
            .Message.ShouldContain("itself");
        Should
            .Throw<RuleException>(() =>
                flipped.Content.Attach(flipped.Content.Find(print)!, new(flip, AttachmentKind.Back))
            )
            .Message.ShouldContain("Other pieces go with this one");
        Should.Throw<RuleException>(() => Attach(desk, print, AttachmentKind.Flip, depth: "1/8 in"));
    }

    private static string Refused(UnitDesk desk, Guid to, AttachmentKind kind) =>
        Should.Throw<RuleException>(() => Attach(desk, to, kind)).Message;

    [Fact]
    public void A_label_is_as_wide_as_its_words_and_its_ink_reads_on_its_backing()
    {
        var (desk, print) = WithPrint();
        var edit = new WriteLabel("the weir\nat six", StripForm.Strips, 12, "#203040", ToId: print) { Revision = 1 };
        var made = After(desk, edit, Once);
        var strips = (WordStrips)made.Content.Pieces[^1];
        var lines = strips.Lay(EvenShaper.Only);
        lines.Length.ShouldBe(2);
        // Every letter of the even face is half as wide as the type is high: 8 and 6 letters at 12 pt, and the rims.
        lines[0].Bounds.Width.Points.ShouldBe((8 * 6) + 8, 0.01);
        lines[1].Bounds.Width.Points.ShouldBe((6 * 6) + 8, 0.01);
        strips.Width.ShouldBe(lines[0].Bounds.Width);
        Rgb.Contrast(strips.Ink, strips.Paper).ShouldBeGreaterThan(4.5);
        made.Content.Over(print).ShouldHaveSingleItem().Id.ShouldBe(strips.Id);
        Should.Throw<RuleException>(() => made.Content.Put(strips.Id, LeftPocket(made, 2)));
    }

    [Fact]
    public void Letters_are_tiles_by_what_people_take_for_letters()
    {
        // An e with an accent of its own is one letter; the space is none.
        var made = WordStrips.Make(
            Id(7),
            "Cafe\u0301 Y",
            StripForm.Letters,
            Typeface.Display,
            72,
            new Rgb(255, 255, 255),
            EvenShaper.Only
        );
        made.Lay(EvenShaper.Only).Select(t => t.Text).ShouldBe(["C", "a", "f", "\u00e9", "Y"]);
        made.LayTogether(EvenShaper.Only)
            .Zip(made.LayTogether(EvenShaper.Only).Skip(1))
            .Take(3)
            .ShouldAllBe(pair => pair.First.Bounds.Right == pair.Second.Bounds.X);
    }
}
