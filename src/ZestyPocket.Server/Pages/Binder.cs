using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Pages;

/// <summary>
/// The ring binder of an album while it is being changed: its units and leaves in their order, and which faces carry
/// which unit. Everything that is changed here belongs to the edit under way.
/// </summary>
public sealed class Binder(ZestyContext db, AlbumReader albums, History history)
{
    private readonly Dictionary<Guid, Protector> _protectors = [];

    public Album Album { get; private set; } = null!;

    public AlbumCalendar Calendar { get; set; } = null!;

    public List<AlbumUnit> Units { get; private set; } = [];

    public List<AlbumLeaf> Leaves { get; private set; } = [];

    /// <summary>The faces of each unit in reading order.</summary>
    public Dictionary<Guid, List<FaceOfLeaf>> Faces { get; private set; } = [];

    /// <summary>The design of a protector of the album.</summary>
    public PageDesign DesignOf(Guid protectorId) => _protectors[protectorId].Design;

    /// <summary>A protector of the album.</summary>
    public Protector ProtectorOf(Guid protectorId) => _protectors[protectorId];

    /// <summary>The protector of a leaf after what was done to it.</summary>
    public Protector On(AlbumLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return _protectors[leaf.ProtectorId].Altered(leaf.ReadForm());
    }

    /// <summary>The units of a leaf's faces: none, one or two.</summary>
    public List<AlbumUnit> SidesOf(AlbumLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return Units.FindAll(u => u.Id == leaf.FrontUnitId || u.Id == leaf.BackUnitId);
    }

    /// <summary>A make of leaf that has come to the album.</summary>
    public void Know(AlbumProtector row)
    {
        ArgumentNullException.ThrowIfNull(row);
        _protectors[row.Id] = row.ToProtector();
    }

    /// <summary>Loads the album of a unit whose revision the edit was made on.</summary>
    public async Task<(AlbumUnit Unit, int At)> OpenAsync(
        Guid unitId,
        int revision,
        string what,
        CancellationToken cancel
    )
    {
        var albumId =
            await db.Units.Where(u => u.Id == unitId).Select(u => (Guid?)u.AlbumId).SingleOrDefaultAsync(cancel)
            ?? throw new MissingException("That part of the album");
        await LoadAsync(albumId, cancel);
        var at = Units.FindIndex(u => u.Id == unitId);
        await history.RequireAsync(Units[at], revision, what, cancel);
        return (Units[at], at);
    }

    public async Task LoadAsync(Guid albumId, CancellationToken cancel)
    {
        Album = await albums.RequireAsync(albumId, cancel);
        Calendar = Album.ReadCalendar();
        Units = await db.Units.Where(u => u.AlbumId == albumId).OrderBy(u => u.Ordinal).ToListAsync(cancel);
        Leaves = await db.Leaves.Where(l => l.AlbumId == albumId).OrderBy(l => l.Ordinal).ToListAsync(cancel);
        ReadFaces();
        foreach (var protector in Album.Protectors)
        {
            Know(protector);
        }
    }

    /// <summary>Reads anew which faces carry which unit, after leaves have moved.</summary>
    public void ReadFaces()
    {
        Faces = Units.ToDictionary(u => u.Id, _ => new List<FaceOfLeaf>());
        foreach (var leaf in Leaves)
        {
            foreach (
                var (side, owner) in new[] { (LeafSide.Front, leaf.FrontUnitId), (LeafSide.Back, leaf.BackUnitId) }
            )
            {
                if (owner is { } id && Faces.TryGetValue(id, out var faces))
                {
                    faces.Add(new FaceOfLeaf(leaf.Id, side));
                }
            }
        }
    }

    /// <summary>
    /// Whether a leaf lies between a unit's own pages and can come and go: both its faces are the unit's, and in the
    /// leaf school it is not the leaf the unit stands on.
    /// </summary>
    public bool IsBetween(AlbumLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return leaf.FrontUnitId is { } unit
            && leaf.BackUnitId == unit
            && (Album.School == PageSchool.Spread || Faces[unit][0].LeafId != leaf.Id);
    }

    /// <summary>Whether a choice of pages may put such a leaf in or take it out.</summary>
    public bool IsChosen(AlbumLeaf leaf) =>
        IsBetween(leaf)
        && ProtectorOf(leaf.ProtectorId).Form.Kind == LeafKind.Pockets
        && !leaf.ReadForm().IsAltered
        && ProtectorOf(leaf.ProtectorId).Design.Body == new Size(Album.BodyWidth, Album.BodyHeight);

    /// <summary>How many faces a unit has.</summary>
    public int FacesOf(AlbumUnit unit) => Faces[unit.Id].Count;

    /// <summary>A new unit at a place of the order.</summary>
    public AlbumUnit Add(UnitDates dates, int at)
    {
        var unit = AlbumMaking.Unit(dates, at);
        (unit.AlbumId, unit.Gone) = (Album.Id, true);
        db.Units.Add(unit);
        // Undoing the making is the state before it: gone.
        history.Touch([unit]);
        unit.Gone = false;
        Units.Insert(at, unit);
        Faces[unit.Id] = [];
        return unit;
    }

    public AlbumLeaf InsertLeafBefore(Guid leafId) => InsertLeaf(Leaves.FindIndex(l => l.Id == leafId), leafId);

    public AlbumLeaf InsertLeafAfter(Guid leafId) => InsertLeaf(Leaves.FindIndex(l => l.Id == leafId) + 1, leafId);

    /// <summary>A new leaf with the pockets of a neighbour, so that pieces that move onto it fit.</summary>
    private AlbumLeaf InsertLeaf(int at, Guid like)
    {
        var leaf = AlbumMaking.Leaf(Leaves.Single(l => l.Id == like).ProtectorId, at);
        (leaf.AlbumId, leaf.Gone) = (Album.Id, true);
        db.Leaves.Add(leaf);
        history.Touch([leaf]);
        leaf.Gone = false;
        Leaves.Insert(at, leaf);
        return leaf;
    }

    /// <summary>Takes a leaf out of the binder.</summary>
    public void RemoveLeaf(Guid leafId)
    {
        var leaf = Leaves.Single(l => l.Id == leafId);
        LeafDesigns.Spoil(history, leaf, Album.Protectors);
        history.Touch([leaf]);
        (leaf.Gone, leaf.FrontUnitId, leaf.BackUnitId) = (true, null, null);
        Leaves.Remove(leaf);
    }

    /// <summary>
    /// Hands the faces out anew in reading order and moves the pieces with them. Units in <paramref name="carried"/>
    /// come from these faces instead of their own.
    /// </summary>
    public void Lay(Dictionary<Guid, List<FaceOfLeaf>> carried, Func<AlbumUnit, int> wanted)
    {
        var counts = Units.ConvertAll(u => wanted(u));
        while (Leaves.Count < Binding.LeavesFor(counts.Sum(), Album.School))
        {
            InsertLeaf(Leaves.Count, Leaves[^1].Id);
        }

        while (Leaves.Count > Binding.LeavesFor(counts.Sum(), Album.School))
        {
            RemoveLeaf(Leaves[^1].Id);
        }

        var chain = Binding.Chain(Leaves.ConvertAll(l => l.Id), counts, Album.School);
        history.Touch(Leaves);
        for (var i = 0; i < Leaves.Count; i++)
        {
            (Leaves[i].Ordinal, Leaves[i].FrontUnitId, Leaves[i].BackUnitId) = (i, null, null);
        }

        var leafOf = Leaves.ToDictionary(l => l.Id);
        for (var i = 0; i < Units.Count; i++)
        {
            var (unit, now) = (Units[i], chain[i]);
            var old = carried.GetValueOrDefault(unit.Id) ?? Faces[unit.Id];
            if (unit.Ordinal != i || !old.SequenceEqual(now))
            {
                history.Touch([unit]);
                unit.Ordinal = i;
            }

            if (!old.SequenceEqual(now))
            {
                unit.Write(
                    unit.Read()
                        .OnFaces(
                            old,
                            now,
                            place =>
                                leafOf.TryGetValue(place.LeafId, out var leaf)
                                && On(leaf).Design.Find(place.Side, place.PocketKey) is not null
                        )
                );
            }

            foreach (var face in now)
            {
                AlbumMaking.Give(leafOf[face.LeafId], face.Side, unit.Id);
            }
        }
    }
}
