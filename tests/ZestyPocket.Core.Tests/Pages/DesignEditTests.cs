using ZestyPocket.Core.Pages.Edits;

namespace ZestyPocket.Core.Tests.Pages;

/// <summary>A keeper's collection of page designs, on values alone. Common practice; no source.</summary>
public sealed class DesignEditTests
{
    private static readonly OwnDesigns None = new([]);

    private static OwnDesigns With(string? name, string notation) =>
        new AddDesign(name, notation).Apply(None, Guid.NewGuid).Collection;

    [Fact]
    public void A_design_without_a_name_is_called_by_what_it_holds()
    {
        With(null, "6x4 | 3x4 / 9x8").Designs.Single().Name.ShouldBe("One 9x8 + one 6x4 + one 3x4");
        Should.Throw<RuleException>(() => With(new string('a', 121), "6x4 / 6x4")).Message.ShouldContain("120");
    }

    [Fact]
    public void The_same_design_is_in_a_collection_once()
    {
        var one = With("Strips", "3x8 | 3x8");
        var again = new AddDesign("Strips", "3x8 | 3x8").Apply(one, Guid.NewGuid);
        again.Collection.ShouldBe(one);
        again.Design.ShouldBe(one.Designs[0]);
        new AddDesign("Other", "3x8 | 3x8").Apply(one, Guid.NewGuid).Collection.Designs.Length.ShouldBe(2);
    }

    [Fact]
    public void A_deleted_design_is_out_of_sight_and_can_be_restored()
    {
        var one = With("Strips", "3x8 | 3x8");
        var id = one.Designs[0].Id;
        var deleted = new DeleteDesign { DesignId = id, Revision = 0 }.Apply(one, Guid.NewGuid);
        deleted.Collection.Present.ShouldBeEmpty();
        deleted.Design.Revision.ShouldBe(1);
        var back = new RestoreDesign { DesignId = id, Revision = 1 }.Apply(deleted.Collection, Guid.NewGuid);
        back.Collection.Present.Single().ShouldBe(one.Designs[0] with { Revision = 2 });
        // Restored once more: nothing has changed, so nothing counts.
        new RestoreDesign { DesignId = id, Revision = 2 }
            .Apply(back.Collection, Guid.NewGuid)
            .Design.Revision.ShouldBe(2);
    }

    [Fact]
    public void A_full_collection_takes_no_more_until_one_is_deleted()
    {
        var full = new OwnDesigns([
            .. Enumerable.Range(0, OwnDesigns.Most).Select(n => new OwnDesign(Guid.NewGuid(), $"{n}", "6x4 / 6x4")),
        ]);
        Should
            .Throw<RuleException>(() => new AddDesign(null, "3x8 | 3x8").Apply(full, Guid.NewGuid))
            .Message.ShouldContain("delete some first");
        var id = full.Designs[7].Id;
        var fewer = new DeleteDesign { DesignId = id, Revision = 0 }
            .Apply(full, Guid.NewGuid)
            .Collection;
        new AddDesign(null, "3x8 | 3x8")
            .Apply(fewer, Guid.NewGuid)
            .Collection.Present.Count()
            .ShouldBe(OwnDesigns.Most);
    }

    [Fact]
    public void A_design_is_renamed_but_never_to_nothing()
    {
        var one = With("Strips", "3x8 | 3x8");
        var id = one.Designs[0].Id;
        new RenameDesign(" Bands ") { DesignId = id, Revision = 0 }
            .Apply(one, Guid.NewGuid)
            .Design.Name.ShouldBe("Bands");
        Should.Throw<RuleException>(() =>
            new RenameDesign("  ") { DesignId = id, Revision = 0 }.Apply(one, Guid.NewGuid)
        );
        Should
            .Throw<RuleException>(() =>
                new DeleteDesign { DesignId = Guid.NewGuid(), Revision = 0 }.Apply(one, Guid.NewGuid)
            )
            .Message.ShouldContain("not in your collection");
    }
}
