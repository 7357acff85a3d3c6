using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Counting;

/// <summary>Puts leaves in, takes them out, and does what a choice of pages says: each one edit over the whole binder.</summary>
public sealed class LeafEditor(ZestyContext db, Binder binder, History history, ICurrentKeeper keeper)
{
    /// <summary>A leaf more for a unit, between its own pages. Both its faces are the unit's.</summary>
    public async Task<LeavesAnswer> AddAsync(Guid unitId, int revision, Guid protectorId, CancellationToken cancel)
    {
        var (unit, _) = await binder.OpenAsync(unitId, revision, "Put a leaf in", cancel);
        var before = Placed();
        Insert(unit, Require(protectorId));
        return await SaveAsync($"Put a leaf of {binder.DesignOf(protectorId).Name} in", [unit], before, cancel);
    }

    /// <summary>Takes a leaf out whose faces both belong to the unit. What lay on it goes to the tray.</summary>
    public async Task<LeavesAnswer> RemoveAsync(Guid unitId, int revision, Guid leafId, CancellationToken cancel)
    {
        var (unit, _) = await binder.OpenAsync(unitId, revision, "Take a leaf out", cancel);
        var before = Placed();
        var leaf = binder.Leaves.Find(l => l.Id == leafId);
        if (leaf is null || leaf.FrontUnitId != unit.Id || leaf.BackUnitId != unit.Id)
        {
            throw new RuleException("Only a leaf with both faces in this part of the album can be taken out: the other face belongs to a neighbour. Nothing was changed.");
        }

        Remove(unit, leaf);
        return await SaveAsync($"Took a leaf of {binder.DesignOf(leaf.ProtectorId).Name} out", [unit], before, cancel);
    }

    /// <summary>Gives leaves their chosen designs and units their chosen leaves between.</summary>
    public async Task<LeavesAnswer> TakeAsync(TakePagesRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        if (request.Units.Count == 0)
        {
            throw new RuleException("No part of the album was named. Nothing was changed.");
        }

        await binder.OpenAsync(request.Units[0].UnitId, request.Units[0].Revision, "Choose pages", cancel);
        var units = new List<AlbumUnit>();
        foreach (var (unitId, revision) in request.Units)
        {
            var unit = binder.Units.Find(u => u.Id == unitId) ?? throw new MissingException("That part of the album");
            await history.RequireAsync(unit, revision, "Choose pages", cancel);
            units.Add(unit);
        }

        var before = Placed();
        var touched = new HashSet<AlbumUnit>(units);
        foreach (var (leafId, protectorId) in request.Standing)
        {
            var leaf = binder.Leaves.Find(l => l.Id == leafId) ?? throw new RuleException("A leaf is no longer in the binder. Nothing was changed: ask for the pages again.");
            if (leaf.ProtectorId != Require(protectorId))
            {
                var sides = binder.Units.FindAll(u => u.Id == leaf.FrontUnitId || u.Id == leaf.BackUnitId);
                LeafDesigns.Change(history, leaf, protectorId, binder.DesignOf(protectorId), sides);
                touched.UnionWith(sides);
            }
        }

        foreach (var unit in units)
        {
            var wanted = request.Extra.Where(e => e.UnitId == unit.Id).SelectMany(e => Enumerable.Repeat(Require(e.ProtectorId), Math.Clamp(e.Leaves, 0, Core.Counting.PageQuestion.MostExtraLeaves))).ToList();
            foreach (var leaf in binder.Leaves.Where(l => l.FrontUnitId == unit.Id && l.BackUnitId == unit.Id).ToList())
            {
                if (!wanted.Remove(leaf.ProtectorId))
                {
                    Remove(unit, leaf);
                }
            }

            foreach (var protectorId in wanted)
            {
                Insert(unit, protectorId);
            }
        }

        return await SaveAsync(units.Count == 1 ? "Chose the pages" : $"Chose the pages of {NumberWords.Of(units.Count)} parts", [.. touched], before, cancel);
    }

    /// <summary>Lets the album use another built-in design of its page body.</summary>
    public async Task<LeavesAnswer> UseAsync(Guid albumId, string designKey, CancellationToken cancel)
    {
        await binder.LoadAsync(albumId, cancel);
        var design = BuiltInDesigns.Find(designKey) ?? throw new RuleException($"There is no page design “{designKey}”. Nothing was changed.");
        if (design.Body != new Core.Measures.Size(binder.Album.BodyWidth, binder.Album.BodyHeight))
        {
            throw new RuleException($"“{design.Name}” is for pages of {design.Body}; one album holds one size of page. Nothing was changed.");
        }

        var row = binder.Album.Protectors.Find(p => p.DesignKey == designKey);
        if (row is { Gone: false })
        {
            throw new RuleException($"The album uses “{design.Name}” already. Nothing was changed.");
        }

        if (row is null)
        {
            row = AlbumProtector.From(Protector.Unmeasured(design), binder.Album.Protectors.Count);
            (row.AlbumId, row.Gone) = (albumId, true);
            db.Protectors.Add(row);
        }

        // Undoing it is the state before: not used.
        history.Touch([row]);
        row.Gone = false;
        return await SaveAsync($"The album uses “{design.Name}”", binder.Units, Placed(), cancel);
    }

    /// <summary>The album does not take a design any more; its leaves of it stay as they are.</summary>
    public async Task<LeavesAnswer> GiveUpAsync(Guid albumId, Guid protectorId, CancellationToken cancel)
    {
        await binder.LoadAsync(albumId, cancel);
        var row = binder.Album.Protectors.Find(p => p.Id == protectorId && !p.Gone) ?? throw new MissingException("The page design");
        if (binder.Album.Protectors.TrueForAll(p => p.Gone || p.Id == protectorId))
        {
            throw new RuleException("An album uses at least one page design. Nothing was changed.");
        }

        history.Touch([row]);
        row.Gone = true;
        return await SaveAsync($"The album takes no more of “{row.ToProtector().Design.Name}”", binder.Units, Placed(), cancel);
    }

    private Guid Require(Guid protectorId) => binder.Album.Protectors.Exists(p => p.Id == protectorId)
        ? protectorId
        : throw new RuleException("The album does not use that page design. Nothing was changed.");

    /// <summary>A leaf before the one that carries the unit's last face, so that its facing pages stay the outer ones.</summary>
    private void Insert(AlbumUnit unit, Guid protectorId)
    {
        var faces = binder.Faces[unit.Id];
        if (faces.Count == 0)
        {
            throw new RuleException("This part of the album has no pages that a leaf could go between. Nothing was changed.");
        }

        var last = faces[^1];
        var leaf = last.Side == LeafSide.Front ? binder.InsertLeafBefore(last.LeafId) : binder.InsertLeafAfter(last.LeafId);
        leaf.ProtectorId = protectorId;
        Lay(unit, +2);
    }

    private void Remove(AlbumUnit unit, AlbumLeaf leaf)
    {
        // What lies on it goes to the tray before the other faces move up.
        history.Touch([unit]);
        unit.Write(unit.Read().KeepOnly(place => place.LeafId != leaf.Id));
        binder.Faces[unit.Id] = [.. binder.Faces[unit.Id].Where(f => f.LeafId != leaf.Id)];
        binder.RemoveLeaf(leaf.Id);
        Lay(unit, 0);
    }

    private void Lay(AlbumUnit unit, int more)
    {
        binder.Lay([], u => binder.FacesOf(u) + (u == unit ? more : 0));
        binder.ReadFaces();
    }

    private int Placed() => binder.Units.Sum(u => u.PiecesPlaced);

    private async Task<LeavesAnswer> SaveAsync(string done, List<AlbumUnit> units, int before, CancellationToken cancel)
    {
        var tray = before - Placed();
        // Units further on keep their pieces, but their faces may have changed sides: the edit is in their history too.
        var touched = db.ChangeTracker.Entries<AlbumUnit>().Where(e => e.State == EntityState.Modified).Select(e => e.Entity.Id);
        var edit = await history.SaveAsync(binder.Album.Id, keeper.Id, done, units.Select(u => u.Id).Union(touched), cancel);
        return new LeavesAnswer(done, edit, tray > 0 ? [$"{tray} {(tray == 1 ? "piece" : "pieces")} went to the tray"] : []);
    }
}
