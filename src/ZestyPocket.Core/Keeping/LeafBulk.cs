using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Keeping;

/// <summary>What the two faces of a leaf add to a closed album.</summary>
public static class LeafBulk
{
    /// <param name="sides">The faces of the leaf that units have, each on the desk of its unit.</param>
    public static ThickLeaf Of(Protector leaf, IEnumerable<(UnitDesk Desk, UnitFace Face)> sides)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        ArgumentNullException.ThrowIfNull(sides);
        return new ThickLeaf(leaf.Outer, leaf.Form.Thickness, [.. sides.SelectMany(s => SpotsOf(s.Desk, s.Face))]);
    }

    private static IEnumerable<ThickSpot> SpotsOf(UnitDesk desk, UnitFace face)
    {
        var page = face.Protector;
        var (x, y) = page.BodyOrigin(face.Side);
        var ringsAtLeft = page.RingStripX(face.Side) == Length.Zero;
        foreach (var (pocket, place, _) in face.Pockets)
        {
            var thickness = PieceThickness.InPocket(desk, place);
            if (thickness == Length.Zero)
            {
                continue;
            }

            var bounds = pocket.Bounds.Moved(x, y);
            var fromRings = ringsAtLeft ? bounds.X : page.Outer.Width - bounds.Right;
            yield return new ThickSpot(new Rect(fromRings, bounds.Y, bounds.Size), thickness);
        }
    }
}
