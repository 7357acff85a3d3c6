using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping.Edits;

/// <summary>A change of how an album is kept.</summary>
public abstract record KeepingEdit : WholeAlbumEdit
{
    public sealed override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var (keeping, done) = Change(desk);
        return new AlbumEdited(desk with { Keeping = keeping }, done);
    }

    /// <summary>What the album knows after the edit, and what was done.</summary>
    protected abstract (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk);
}

/// <summary>Says which rings the album's binder has.</summary>
/// <param name="Diameter">As written, such as <c>2 in</c>.</param>
/// <param name="Holds">How thick a stack they close over, as measured; empty for what is usual.</param>
public sealed record SetRings(RingShape Shape, string Diameter, string? Holds) : KeepingEdit
{
    public override string Label() => "Set the rings";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var holds = string.IsNullOrWhiteSpace(Holds) ? (Length?)null : MeasureText.ParseLength(Holds);
        var rings = new BinderRings(Shape, MeasureText.ParseLength(Diameter), holds).Checked();
        return (desk.Keeping with { Rings = rings }, "Set the rings of the binder");
    }
}

/// <summary>Says when the keeper works at the album, and how far behind is comfortable.</summary>
public sealed record SetHabit(ImmutableArray<IsoDayOfWeek> Evenings, int MinutesAnEvening, int LagWeeks) : KeepingEdit
{
    public override string Label() => "Set the evenings";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var habit = new WorkingHabit([.. Evenings.Order()], MinutesAnEvening, LagWeeks).Checked();
        return (desk.Keeping with { Habit = habit }, "Set the evenings for the album");
    }
}

/// <summary>Says what a page protector cost.</summary>
/// <param name="Price">Null when it is not known any more.</param>
public sealed record SetLeafPrice(Money? Price) : KeepingEdit
{
    public override string Label() => "Set the price of a page protector";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var price = Price?.Checked();
        return (
            desk.Keeping with
            {
                LeafPrice = price,
            },
            price is null ? "Removed the price of a page protector" : $"Set the price of a page protector to {price}"
        );
    }
}

/// <summary>Adds minutes that a timer ran while the keeper worked at a unit.</summary>
/// <param name="Minutes">1 to 720.</param>
public sealed record TimeWork(Guid UnitId, int Minutes) : KeepingEdit
{
    private const int LongestSitting = 720;

    public override string Label() => "Add working time";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var unit = desk.Binder.Require(UnitId);
        if (Minutes is < 1 or > LongestSitting)
        {
            throw new RuleException($"A sitting takes 1 to {LongestSitting} minutes. Nothing was changed.");
        }

        var before = desk.Keeping.Timed.FirstOrDefault(t => t.UnitId == UnitId)?.Minutes ?? 0;
        return (
            desk.Keeping with
            {
                Timed = [.. desk.Keeping.Timed.Where(t => t.UnitId != UnitId), new TimedWork(UnitId, before + Minutes)],
            },
            $"Added {NumberWords.Counted(Minutes, "minute")} of work at {desk.TitleOf(unit)}"
        );
    }
}
