using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Pages;

/// <summary>Gives a leaf other pockets: another make, or what a heat tool or a knife makes of the one it has.</summary>
public static class LeafDesigns
{
    /// <summary>
    /// A leaf that was fused or cut down cannot go back to the others: when it is given up, inside the edit under way,
    /// there is one less of its make. Common practice.
    /// </summary>
    public static void Spoil(History history, AlbumLeaf leaf, IEnumerable<AlbumProtector> protectors)
    {
        ArgumentNullException.ThrowIfNull(history);
        ArgumentNullException.ThrowIfNull(leaf);
        if (leaf.ReadForm().IsAltered && protectors.FirstOrDefault(p => p.Id == leaf.ProtectorId) is { Stock: > 0 } row)
        {
            history.Touch([row]);
            row.Stock--;
        }
    }

    /// <summary>
    /// Another make inside the edit under way. Seams and cuts belonged to the old page and go with it; the tab stays.
    /// Gives how many pieces went to the tray.
    /// </summary>
    public static int Change(
        History history,
        AlbumLeaf leaf,
        Guid protectorId,
        Protector protector,
        IReadOnlyCollection<AlbumUnit> unitsOfItsFaces
    )
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return Form(
            history,
            leaf,
            protectorId,
            protector,
            LeafForm.Plain with
            {
                Tab = leaf.ReadForm().Tab,
            },
            unitsOfItsFaces
        );
    }

    /// <summary>
    /// A make and what is done to it. Both faces get the new pockets, so the units of both are part of the edit; pieces
    /// whose pockets are gone go to the tray. Throws <see cref="Core.RuleException"/> before anything is touched when
    /// it cannot be done. Gives how many pieces went to the tray.
    /// </summary>
    public static int Form(
        History history,
        AlbumLeaf leaf,
        Guid protectorId,
        Protector protector,
        LeafForm form,
        IReadOnlyCollection<AlbumUnit> unitsOfItsFaces
    )
    {
        ArgumentNullException.ThrowIfNull(history);
        ArgumentNullException.ThrowIfNull(leaf);
        ArgumentNullException.ThrowIfNull(unitsOfItsFaces);
        var design = protector.Altered(form).Design;
        history.Touch([leaf, .. unitsOfItsFaces]);
        leaf.ProtectorId = protectorId;
        leaf.WriteForm(form);
        var lost = 0;
        foreach (var unit in unitsOfItsFaces)
        {
            var before = unit.Read();
            var after = before.KeepOnly(place =>
                place.LeafId != leaf.Id || design.Find(place.Side, place.PocketKey) is not null
            );
            lost += before.Placements.Length - after.Placements.Length;
            unit.Write(after);
        }

        return lost;
    }
}
