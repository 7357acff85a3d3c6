using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Counting;

/// <summary>A leaf of a unit, as far as counting asks.</summary>
/// <param name="Design">The name of its page design.</param>
/// <param name="Faces">How many of its faces are the unit's.</param>
/// <param name="Placed">Pieces on those.</param>
/// <param name="Pockets">Pockets on those.</param>
/// <param name="MayChange">Nothing is locked on it and its other face is empty: it can have another design.</param>
/// <param name="MayGo">Both faces are the unit's, and it is not its only leaf: it can be taken out.</param>
public sealed record LeafTally(
    Guid LeafId,
    string Design,
    int Faces,
    int Placed,
    int Pockets,
    LeafKind Kind,
    bool MayChange,
    bool MayGo
)
{
    /// <summary>The leaves of a unit in order.</summary>
    /// <param name="holdsBehind">Whether something lies on a leaf's other face, which is a neighbour's.</param>
    public static IReadOnlyList<LeafTally> Of(UnitDesk desk, Func<Guid, bool> holdsBehind)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(holdsBehind);
        return
        [
            .. desk
                .Pages.Faces.GroupBy(f => f.LeafId)
                .Select(faces =>
                {
                    var (protector, count) = (faces.First().Protector, faces.Count());
                    return new LeafTally(
                        faces.Key,
                        protector.Design.Name,
                        count,
                        desk.Content.Placements.Count(p => p.Place.LeafId == faces.Key),
                        faces.Sum(f => f.Pockets.Count()),
                        protector.Form.Kind,
                        protector.Form.Kind == LeafKind.Pockets
                            && !desk.Content.HoldsOn(faces.Key, locked: true)
                            && !holdsBehind(faces.Key),
                        count == 2 && desk.Pages.Faces.Length > 2
                    );
                }),
        ];
    }
}
