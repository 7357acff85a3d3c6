using System.Collections.Immutable;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Counting.Edits;

/// <summary>A unit of a stretch as the keeper saw it.</summary>
public sealed record UnitAt(Guid UnitId, int Revision);

/// <summary>A protector chosen for a leaf that stands, and how many of its pockets are fused.</summary>
public sealed record LeafDesign(Guid LeafId, Guid ProtectorId, int Fused = 0);

/// <summary>Leaves of a protector that a unit gets between its own.</summary>
public sealed record ExtraLeaves(Guid UnitId, Guid ProtectorId, int Leaves, int Fused = 0);

/// <summary>
/// Does what a choice of pages says, on the revisions of its units: gives leaves their chosen protectors and units
/// their chosen leaves between.
/// </summary>
public sealed record ChoosePages(
    ImmutableArray<UnitAt> Units,
    ImmutableArray<LeafDesign> Standing,
    ImmutableArray<ExtraLeaves> Extra
) : AlbumEdit
{
    /// <summary>More leaves than this are refused, not cut off.</summary>
    public const int MostLeavesAtOnce = 1_000;

    public override string Label() => "Choose pages";

    public override IEnumerable<SeenRevision> MadeOn() =>
        Units.IsDefaultOrEmpty
            ? throw new RuleException("No week or day was named. Nothing was changed.")
            : Units.Select(u => new SeenRevision(Seen.Unit, u.UnitId, u.Revision));

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var binder = Standing.Aggregate(desk.Binder, Give);
        foreach (var (unitId, _) in Units)
        {
            var wanted = Extra.Where(e => e.UnitId == unitId).SelectMany(e => LeavesOf(binder, e)).ToList();
            foreach (var leaf in binder.Leaves.Where(l => l.IsAllOf(unitId) && binder.IsChosen(l)).ToList())
            {
                if (!wanted.Remove((leaf.ProtectorId, 0)))
                {
                    binder = binder.TakeLeaf(unitId, leaf.Id, tools.NewId);
                }
            }

            foreach (var (protectorId, fused) in wanted)
            {
                var alterations = FusedOffers.Fuse(
                    LeafAlterations.Plain,
                    binder.RequireProtector(protectorId).Protector,
                    fused
                );
                binder = binder.AddLeaf(unitId, protectorId, alterations, tools.NewId);
            }
        }

        return new AlbumEdited(
            desk with
            {
                Binder = binder,
            },
            Units.Length == 1 ? "Chose the pages" : $"Chose the pages of {NumberWords.Of(Units.Length)} parts"
        )
        {
            AlsoIn = [.. Units.Select(u => u.UnitId)],
        };
    }

    private static RingBinder Give(RingBinder binder, LeafDesign design)
    {
        var leaf =
            binder.Leaves.FirstOrDefault(l => l.Id == design.LeafId)
            ?? throw new RuleException(
                "A leaf is no longer in the binder. Nothing was changed: ask for the pages again."
            );
        var protector = binder.RequireProtector(design.ProtectorId).Protector;
        var given = leaf.ProtectorId == design.ProtectorId ? binder : binder.WithProtector(leaf, design.ProtectorId);
        var now = given.RequireLeaf(leaf.Id);
        return design.Fused > 0
            ? given.WithAlterations(now, design.ProtectorId, FusedOffers.Fuse(now.Alterations, protector, design.Fused))
            : given;
    }

    private static IEnumerable<(Guid ProtectorId, int Fused)> LeavesOf(RingBinder binder, ExtraLeaves extra) =>
        extra.Leaves is >= 0 and <= MostLeavesAtOnce
            ? Enumerable.Repeat((binder.RequireProtector(extra.ProtectorId).Id, extra.Fused), extra.Leaves)
            : throw new RuleException(
                $"One week or day takes at most {MostLeavesAtOnce:N0} leaves of a design at once. Nothing was changed."
            );
}
