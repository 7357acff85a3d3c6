using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Pages;

/// <summary>Gives a leaf another page design.</summary>
public static class LeafDesigns
{
    /// <summary>
    /// Changes the design inside the edit under way. Both faces get the new pockets, so the units of both are part of it;
    /// pieces whose pockets are gone go to the tray. Gives how many.
    /// </summary>
    public static int Change(History history, AlbumLeaf leaf, Guid protectorId, PageDesign design, IReadOnlyCollection<AlbumUnit> unitsOfItsFaces)
    {
        ArgumentNullException.ThrowIfNull(history);
        ArgumentNullException.ThrowIfNull(leaf);
        ArgumentNullException.ThrowIfNull(unitsOfItsFaces);
        history.Touch([leaf, .. unitsOfItsFaces]);
        leaf.ProtectorId = protectorId;
        // Seams and cuts belong to the old page.
        leaf.WriteForm(LeafForm.Plain with { Tab = leaf.ReadForm().Tab });
        var lost = 0;
        foreach (var unit in unitsOfItsFaces)
        {
            var before = unit.Read();
            var after = before.KeepOnly(place => place.LeafId != leaf.Id || design.Find(place.Side, place.PocketKey) is not null);
            lost += before.Placements.Length - after.Placements.Length;
            unit.Write(after);
        }

        return lost;
    }
}
