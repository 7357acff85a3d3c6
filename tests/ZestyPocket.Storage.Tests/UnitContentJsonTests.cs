using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Tests;

public sealed class UnitContentJsonTests
{
    [Fact]
    public void A_week_comes_back_from_its_document_as_it_was()
    {
        var (photo, print, card, leaf) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var content = UnitContent.Empty
            .PutPhoto(photo, new PocketPlace(leaf, LeafSide.Back, "2.1"), print, new Framing(0.25, 0.75, 1.5))
            .AddCard(card, CardKind.Journaling, "Łódź\n“quotes” 夏 🙂", "typewriter");
        var back = UnitContentJson.Read(UnitContentJson.Write(content));
        back.Pieces.ShouldBe(content.Pieces);
        back.Placements.ShouldBe(content.Placements);
    }

    [Fact]
    public void The_database_may_put_the_keys_into_another_order()
    {
        var id = Guid.CreateVersion7();
        var json = $$"""{"placements":[],"pieces":[{"words":"w","styleKey":"typewriter","id":"{{id}}","kind":"journaling","piece":"card"}]}""";
        UnitContentJson.Read(json).Pieces.Single().ShouldBe(new Card(id, CardKind.Journaling, "w", "typewriter"));
    }

    [Fact]
    public void Only_what_cannot_be_computed_is_stored()
    {
        UnitContentJson.Empty.ShouldBe("""{"pieces":[],"placements":[],"notes":[]}""");
    }
}
