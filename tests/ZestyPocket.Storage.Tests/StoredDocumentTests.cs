using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Storage.Tests;

/// <summary>Everything that is stored as JSON comes back as it was, from whatever version wrote it.</summary>
public sealed class StoredDocumentTests
{
    [Fact]
    public void A_week_comes_back_from_its_document_as_it_was()
    {
        var (photo, print, card, leaf) = (
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7()
        );
        var content = UnitContent
            .Empty.PutPhoto(photo, new PocketPlace(leaf, LeafSide.Back, "2.1"), print, new Framing(0.25, 0.75, 1.5))
            .AddCard(card, CardKind.Journaling, "Łódź\n“quotes” 夏 🙂", "typewriter");
        var back = StoredDocuments.Content.Read(StoredDocuments.Content.Write(content));
        back.Pieces.ShouldBe(content.Pieces);
        back.Placements.ShouldBe(content.Placements);
    }

    [Fact]
    public void The_database_may_put_the_keys_into_another_order()
    {
        var id = Guid.CreateVersion7();
        var json =
            $$"""{"placements":[],"pieces":[{"words":"w","styleKey":"typewriter","""
            + $$""" "id":"{{id}}","kind":"journaling","piece":"card"}], "version" : 2}""";
        StoredDocuments
            .Content.Read(json)
            .Pieces.Single()
            .ShouldBe(new Card(id, CardKind.Journaling, "w", "typewriter"));
    }

    [Fact]
    public void Only_what_cannot_be_computed_is_stored()
    {
        StoredDocuments
            .Content.Write(UnitContent.Empty)
            .ShouldBe(
                """{"version":2,"pieces":[],"placements":[],"notes":[],"clear":[],"wishes":[],"""
                    + "\"keepsItsPages\":false,\"tint\":null,\"weights\":null}"
            );
    }

    [Theory]
    [InlineData("""{"version":2}""")]
    [InlineData("""{"version":2,"stuck":[]}""")]
    [InlineData("""{"stuck":[],"version":2}""")]
    [InlineData("""{ "fuses" : [] , "version" : 2 , "stuck" : [ ] }""")]
    [InlineData("""{"isAltered":false,"stuck":[]}""")]
    [InlineData("{}")]
    public void The_version_may_stand_anywhere_and_what_has_none_is_of_version_1(string json) =>
        StoredDocuments.LeafAlterations.Read(json).IsAltered.ShouldBeFalse();

    [Theory]
    [InlineData("""{"version":3,"stuck":[]}""", "version 3")]
    [InlineData("""{"version":"2","stuck":[]}""", "no number")]
    [InlineData("""{"version":-1}""", "no number")]
    [InlineData("""{"version":2,"invented":1}""", "invented")]
    [InlineData("""{"version":2,"isAltered":false}""", "isAltered")]
    [InlineData("""{"invented":1}""", "invented")]
    [InlineData("""{"version":2,"cut":{"keeps":"diagonals","size":1}}""", "diagonals")]
    [InlineData("null", "empty")]
    [InlineData("", "")]
    [InlineData("[1,2", "")]
    [InlineData("""{"version":2,"cut":[]}""", "")]
    public void What_this_program_does_not_know_is_refused_rather_than_dropped(string json, string says)
    {
        var refused = Should.Throw<StoredDocumentException>(() => StoredDocuments.LeafAlterations.Read(json));
        refused.Message.ShouldContain("Nothing was changed");
        refused.Message.ShouldContain(says);
    }

    /// <summary>A member that was added without a name would be lost without a word.</summary>
    [Fact]
    public void Every_member_that_can_be_set_has_a_name_and_every_value_of_a_choice_too()
    {
        foreach (var (type, members) in DocumentNames.Members)
        {
            var settable = type.GetProperties()
                .Where(p => p.SetMethod is { IsPublic: true } || (type.IsValueType && HasParameter(type, p.Name)))
                .Select(p => p.Name);
            members.Select(m => m.Member).Order().ShouldBe(settable.Order(), type.Name);
            members.Select(m => m.Name).ShouldBeUnique();
        }

        foreach (var (type, values) in DocumentNames.Values.Where(v => v.Key != typeof(NodaTime.IsoDayOfWeek)))
        {
            values.Select(v => v.Member).Order().ShouldBe(Enum.GetNames(type).Order(), type.Name);
            values.Select(v => v.Name).ShouldBeUnique();
        }

        static bool HasParameter(Type type, string name) =>
            type.GetConstructors().Any(c => c.GetParameters().Any(p => p.Name == name));
    }

    [Fact]
    public void A_collage_a_picture_over_pockets_and_what_is_wished_come_back_as_they_were()
    {
        var (leaf, photo) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        PocketPlace At(string key) => new(leaf, LeafSide.Back, key);
        var collage = new Collage(
            Guid.CreateVersion7(),
            "2x2 | 2x2 / 4x2",
            [
                new CollageCell("1.1", Guid.CreateVersion7(), new Framing(0.2, 0.3, 1.4), string.Empty),
                new CollageCell("2.1", null, Framing.Middle, "夏 words"),
            ],
            Collage.UsualGutter,
            Rgb.Read("#fffdf4")
        );
        var content = UnitContent
            .Empty.AddCollage(collage)
            .Put(collage.Id, At("3.1"))
            .PutSpan(photo, [(At("1.1"), Guid.CreateVersion7()), (At("1.2"), Guid.CreateVersion7())], Framing.Middle)
            .LeaveEmpty(At("2.2"), empty: true)
            .Wish(photo, Size.FromInches(6, 8));
        content = content with { KeepsItsPages = true };
        var json = StoredDocuments.Content.Write(content);
        json.ShouldNotContain("body");
        json.ShouldNotContain("photos");
        var back = StoredDocuments.Content.Read(json);
        var read = (Collage)back.Find(collage.Id)!;
        read.Cells.ShouldBe(collage.Cells);
        (read.Layout, read.Gutter, read.Ground).ShouldBe((collage.Layout, collage.Gutter, collage.Ground));
        back.Placements.ShouldBe(content.Placements);
        back.SlicesOf(((PhotoPrint)back.Find(back.At(At("1.1"))!.Value.PieceId)!).SpanId!.Value).Length.ShouldBe(2);
        (back.LeftEmpty.Single(), back.WishFor(photo), back.KeepsItsPages).ShouldBe(
            (At("2.2"), Size.FromInches(6, 8), true)
        );
    }

    [Fact]
    public void A_week_written_before_there_were_collages_reads_as_it_was()
    {
        var old = StoredDocuments.Content.Read("""{"pieces":[],"placements":[],"notes":[]}""");
        (old.LeftEmpty.IsEmpty, old.Wishes.IsEmpty, old.KeepsItsPages).ShouldBe((true, true, false));
    }

    [Fact]
    public void What_was_done_to_a_leaf_comes_back_and_a_plain_leaf_stays_plain()
    {
        var form = LeafAlterations
            .Plain.With(new Fuse("1.1", Upright: true, Length.FromInches(3)))
            .Stick("2.1", together: true);
        form = form with { Cut = new PageCut(CutKeeps.Columns, Length.FromInches(6)), Tab = new IndexTab("May", 2) };
        var leaf = new AlbumLeaf();
        leaf.ReadAlterations().IsAltered.ShouldBeFalse();
        leaf.WriteAlterations(form);
        leaf.Alterations.ShouldNotContain("isAltered");
        var back = leaf.ReadAlterations();
        back.Fuses.ShouldBe(form.Fuses);
        back.Stuck.ShouldBe(form.Stuck);
        (back.Cut, back.Tab, back.IsAltered).ShouldBe((form.Cut, form.Tab, true));
    }

    [Theory]
    [InlineData(LeafKind.Sheet)]
    [InlineData(LeafKind.FoldOut)]
    [InlineData(LeafKind.Divider)]
    [InlineData(LeafKind.Envelope)]
    [InlineData(LeafKind.Pockets)]
    public void Every_kind_of_leaf_comes_back_from_its_row_with_its_measures(LeafKind kind)
    {
        var (outer, strip) = (MeasureText.ParseSize("6.75x8.25"), Protector.DefaultRingStrip);
        var made = kind switch
        {
            LeafKind.Sheet => Protector.Sheet("sheet", outer, strip),
            LeafKind.FoldOut => Protector.FoldOut("foldout", Size.FromInches(11, 8), Length.FromInches(6.5m), strip),
            LeafKind.Pockets => Protector.Unmeasured(PageDesign.FromNotation("own-1", "Mine", "3x4 | 3x4 / 6x4")) with
            {
                Form = new ProtectorForm { Name = "Mine", Notation = "3x4 | 3x4 / 6x4" },
            },
            _ => Protector.WithoutPockets("none", kind, outer, strip),
        };
        made = made with
        {
            Form = made.Form with
            {
                Holes = HolePattern.ThreeRings,
                Rings = RingSide.Right,
                Thickness = Length.FromMillimetres(0.3m),
            },
        };
        var back = AlbumProtector.From(made, 0).ToProtector();
        back.Design.Pockets.ShouldBe(made.Design.Pockets);
        back.Design.Face(LeafSide.Back).ShouldBe(made.Design.Face(LeafSide.Back));
        (back.Outer, back.RingStrip, back.Design.Name, back.WidthInAlbum).ShouldBe(
            (made.Outer, made.RingStrip, made.Design.Name, made.WidthInAlbum)
        );
        (back.Form.Kind, back.Form.Rings, back.Form.Thickness, back.Form.Holes!.Name).ShouldBe(
            (kind, RingSide.Right, made.Form.Thickness, HolePattern.ThreeRings.Name)
        );
        back.Form.Holes.FromMiddle.ShouldBe(HolePattern.ThreeRings.FromMiddle);
    }
}
