using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>A keepsake as the keeper measured it; sizes as written.</summary>
public sealed record WrittenKeepsake(
    string Name,
    string Size,
    string Thickness,
    string Note,
    Guid? PhotoId,
    LocalDate? Day,
    bool InEnvelope,
    bool? SeeThrough = null,
    Money? Price = null
)
{
    internal Keepsake Read(Guid id, UnitDesk desk)
    {
        var size = MeasureText.ParseSize(Size);
        var thickness =
            string.IsNullOrWhiteSpace(Thickness) || Thickness.Trim() == "0"
                ? Length.Zero
                : MeasureText.ParseLength(Thickness);
        if (PhotoId is { } photo && !desk.Photos.ContainsKey(photo))
        {
            throw new RuleException($"The picture of the keepsake is not one of {desk.Title}. Nothing was changed.");
        }

        return new Keepsake(
            id,
            PlainWords.Name(Name),
            size.Width,
            size.Height,
            thickness,
            PlainWords.Clean(Note),
            PhotoId,
            Day,
            InEnvelope
        )
        {
            SeeThrough = SeeThrough ?? false,
            Price = Price?.Checked(),
        }.Checked();
    }
}

/// <summary>Adds a flat keepsake to the tray, or to the envelope.</summary>
public sealed record AddKeepsake(WrittenKeepsake Keepsake) : ContentEdit
{
    public override string Label() => "Measure a keepsake";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var keepsake = Keepsake.Read(tools.NewId(), desk);
        return new Edited(
            desk.Content.AddKeepsake(keepsake),
            keepsake.InEnvelope ? $"Moved {keepsake.Name} to the envelope" : $"Added the keepsake {keepsake.Name}",
            keepsake.Id
        );
    }
}

/// <summary>Changes a keepsake; where it lies in a pocket it must still fit.</summary>
public sealed record ChangeKeepsake(Guid PieceId, WrittenKeepsake Keepsake) : ContentEdit
{
    public override string Label() => "Measure a keepsake";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var keepsake = Keepsake.Read(PieceId, desk);
        var was = desk.Content.Find(PieceId) as Keepsake;
        var changed = desk.Content.ChangeKeepsake(keepsake);
        if (changed.PlacementOf(PieceId) is { } lies)
        {
            desk.Admit(keepsake, lies.Place);
        }

        var done = (was?.InEnvelope, keepsake.InEnvelope) switch
        {
            (false, true) => $"Moved {keepsake.Name} to the envelope",
            (true, false) => $"Moved {keepsake.Name} out of the envelope",
            _ => $"Changed the keepsake {keepsake.Name}",
        };
        return new Edited(changed, done, PieceId);
    }
}

/// <summary>Takes a keepsake out of the envelope into a pocket.</summary>
public sealed record UseKeepsake(Guid PieceId, PocketPlace Place) : ContentEdit
{
    public override string Label() => "Use a keepsake";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [Place];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var keepsake =
            desk.Content.Find(PieceId) as Keepsake
            ?? throw new RuleException("That keepsake is no longer here. Nothing was changed.");
        desk.Admit(keepsake, desk.Require(Place));
        return new Edited(
            desk.Content.ChangeKeepsake(keepsake with { InEnvelope = false }).Put(keepsake.Id, Place),
            $"Moved {keepsake.Name} from the envelope to {desk.Pages.CodeOf(Place)}",
            keepsake.Id
        );
    }
}
