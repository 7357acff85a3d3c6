namespace ZestyPocket.Core.Placing.Edits;

/// <summary>Moves a piece into a pocket; what lies there takes its place, or goes to the tray.</summary>
public sealed record MovePiece(Guid PieceId, PocketPlace Place) : ContentEdit
{
    public override string Label() => "Move a piece";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [Place];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var content = desk.Content;
        desk.Admit(content.Find(PieceId), desk.Require(Place));
        var swapped = content.PlacementOf(PieceId) is { } from && from.Place != Place && content.At(Place) is not null;
        var code = desk.Pages.CodeOf(Place);
        return new Edited(
            content.Put(PieceId, Place),
            swapped ? $"Swapped with {code}" : $"Moved a piece to {code}",
            PieceId
        );
    }
}

/// <summary>Takes what lies in a pocket out of it.</summary>
public sealed record TakeOut(PocketPlace Place) : ContentEdit
{
    public override string Label() => "Remove a piece";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [Place];

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(desk.Content.TakeOut(desk.Require(Place)), $"Removed the piece from {desk.Pages.CodeOf(Place)}");
}

/// <summary>Locks what lies in a pocket, or lets it go.</summary>
public sealed record LockPocket(PocketPlace Place, bool Locked) : ContentEdit
{
    public override string Label() => "Lock or unlock a pocket";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(
            desk.Content.Lock(desk.Require(Place), Locked),
            $"{(Locked ? "Locked" : "Unlocked")} {desk.Pages.CodeOf(Place)}",
            desk.Content.At(Place)?.PieceId
        );
}

/// <summary>Leaves a pocket clear on purpose, or lets it be filled again.</summary>
public sealed record LeaveEmpty(PocketPlace Place, bool Empty) : ContentEdit
{
    public override string Label() => "Leave a pocket empty";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var code = desk.Pages.CodeOf(desk.Require(Place));
        return new Edited(
            desk.Content.LeaveEmpty(Place, Empty),
            Empty ? $"Left {code} empty on purpose" : $"{code} is to be filled again"
        );
    }
}

/// <summary>Throws a piece away, in a pocket or not.</summary>
public sealed record DiscardPiece(Guid PieceId) : ContentEdit
{
    public override string Label() => "Delete a piece";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) =>
        desk.Content.PlacementOf(PieceId) is { } lies ? [lies.Place] : [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var name = desk.Content.Find(PieceId) switch
        {
            Card card => CardNames.Of(card.Kind),
            Keepsake => "keepsake",
            Collage => "collage",
            Composition => "composition",
            WordStrips => "label",
            BoughtCard => "bought card",
            _ => "print",
        };
        return new Edited(desk.Content.Discard(PieceId), $"Deleted a {name}");
    }
}

/// <summary>Lets no choice of pages give this unit another leaf, or lets it again.</summary>
public sealed record KeepPages(bool Keep) : ContentEdit
{
    public override string Label() => "Keep the pages of a week or day";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(
            desk.Content with
            {
                KeepsItsPages = Keep,
            },
            Keep ? $"{desk.Title} stays on the pages it has" : $"{desk.Title} may get further leaves"
        );
}
