using System.Collections.Immutable;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Keeping.Stash;

namespace ZestyPocket.Core.Keeping.Edits;

/// <summary>
/// Plans a week or day before its pictures exist: what it is made from, how many stories, on which page design. The
/// design goes onto those of its leaves on which nothing lies yet.
/// </summary>
/// <param name="ProtectorId">The page design, of the album; null to leave the pages as they are.</param>
public sealed record PlanSpread(Guid UnitId, string Kit, int Stories, string Note, Guid? ProtectorId = null)
    : WholeAlbumEdit
{
    public override string Label() => "Plan a spread";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var unit = desk.Binder.Require(UnitId);
        var plan = new SpreadPlan(UnitId, Kit, Stories, Note).Checked();
        return new AlbumEdited(
            desk with
            {
                Keeping = desk.Keeping with { Plans = [.. desk.Keeping.Plans.Where(p => p.UnitId != UnitId), plan] },
                Binder = ProtectorId is { } design ? WithDesign(desk.Binder, design) : desk.Binder,
            },
            $"Planned {desk.TitleOf(unit)}"
        )
        {
            AlsoIn = [UnitId],
        };
    }

    private RingBinder WithDesign(RingBinder binder, Guid protectorId)
    {
        _ = binder.RequireProtector(protectorId);
        var free = binder
            .FacesOf(UnitId)
            .Select(f => binder.RequireLeaf(f.LeafId))
            .Distinct()
            .Where(l => binder.SidesOf(l).All(u => u.Content.Placements.All(p => p.Place.LeafId != l.Id)))
            .ToImmutableArray();
        return free.IsEmpty
            ? throw new RuleException(
                "Something lies on every leaf of this week or day already, so its page design stays. Nothing was "
                    + "changed."
            )
            : free.Aggregate(binder, (now, leaf) => now.WithProtector(now.RequireLeaf(leaf.Id), protectorId));
    }
}

/// <summary>Drops the plan of a week or day; its pages stay as they are.</summary>
public sealed record DropPlan(Guid UnitId) : KeepingEdit
{
    public override string Label() => "Delete a plan";

    protected override (AlbumKeeping Keeping, string Done) Change(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return (
            desk.Keeping with
            {
                Plans = [.. desk.Keeping.Plans.Where(p => p.UnitId != UnitId)],
            },
            $"Deleted the plan of {desk.TitleOf(desk.Binder.Require(UnitId))}"
        );
    }
}
