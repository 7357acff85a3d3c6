using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Counting;

/// <summary>
/// Puts leaves in, takes them out, and does what a choice of pages says: each one edit over the whole binder.
/// </summary>
public sealed class LeafEditor(
    ZestyContext db,
    Binder binder,
    LeafMakes makes,
    History history,
    StoryEditor stories,
    ICurrentKeeper keeper
)
{
    /// <summary>More leaves than this are refused, not cut off.</summary>
    public const int MostLeavesAtOnce = 1_000;

    /// <summary>A leaf more for a unit, between its own pages. Both its faces are the unit's.</summary>
    public async Task<LeavesAnswer> AddAsync(Guid unitId, AddLeafRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var (unit, _) = await binder.OpenAsync(unitId, request.Revision, "Put a leaf in", cancel);
        var before = BinderShot.Of(binder);
        var protectorId = request.ProtectorId is { } known
            ? Require(known)
            : await makes.FindAsync(
                binder,
                request.Make
                    ?? throw new RuleException("It was not said what kind of leaf to put in. Nothing was changed."),
                cancel
            );
        Insert(unit, protectorId);
        return await SaveAsync(
            $"Put a leaf of {binder.DesignOf(protectorId).Name} in",
            [unit],
            before,
            request.Preview == true,
            cancel
        );
    }

    /// <summary>Takes a leaf out whose faces both belong to the unit. What lay on it goes to the tray.</summary>
    public async Task<LeavesAnswer> RemoveAsync(
        Guid unitId,
        int revision,
        Guid leafId,
        bool preview,
        CancellationToken cancel
    )
    {
        var (unit, _) = await binder.OpenAsync(unitId, revision, "Take a leaf out", cancel);
        var before = BinderShot.Of(binder);
        var leaf = binder.Leaves.Find(l => l.Id == leafId);
        if (leaf is null || leaf.FrontUnitId != unit.Id || leaf.BackUnitId != unit.Id)
        {
            throw new RuleException(
                "Only a leaf with both faces in this part of the album can be taken out: the other face belongs to "
                    + "a neighbour. Nothing was changed."
            );
        }

        if (binder.FacesOf(unit) == 2)
        {
            throw new RuleException(
                "It is the only leaf of this part of the album: give it another page design instead. Nothing was "
                    + "changed."
            );
        }

        Remove(unit, leaf);
        return await SaveAsync(
            $"Took a leaf of {binder.DesignOf(leaf.ProtectorId).Name} out",
            [unit],
            before,
            preview,
            cancel
        );
    }

    /// <summary>
    /// Moves a leaf to another place of the order, counted from 0 among the leaves without it. A leaf between the pages
    /// of one part goes to the part it comes to lie in; one that carries two parts keeps its pockets, and the pages of
    /// the parts are handed out anew in reading order, their pieces with them.
    /// </summary>
    public async Task<LeavesAnswer> MoveAsync(
        Guid albumId,
        Guid leafId,
        MoveLeafRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        await binder.LoadAsync(albumId, cancel);
        var leaf =
            binder.Leaves.Find(l => l.Id == leafId)
            ?? throw new RuleException(
                "That leaf is no longer in the binder. Nothing was changed: look at the leaves again."
            );
        await history.RequireAsync(leaf, request.Revision, "Move a leaf", cancel);
        var before = BinderShot.Of(binder);
        var from = binder.Leaves.IndexOf(leaf);
        var to = Math.Clamp(request.To, 0, binder.Leaves.Count - 1);
        if (from == to)
        {
            throw new RuleException("The leaf lies there already. Nothing was changed.");
        }

        var home = leaf.FrontUnitId is { } id && leaf.BackUnitId == id ? binder.Units.Find(u => u.Id == id) : null;
        var more = new Dictionary<Guid, int>();
        binder.Leaves.RemoveAt(from);
        if (home is not null && binder.IsBetween(leaf))
        {
            var host = to == 0 ? null : binder.Units.Find(u => u.Id == binder.Leaves[to - 1].BackUnitId);
            if (host is null)
            {
                throw new RuleException(
                    "A leaf between pages stays between the pages of some part of the album: it cannot go before "
                        + "the first or behind the last. Nothing was changed."
                );
            }

            if (host != home)
            {
                history.Touch([home]);
                home.Write(home.Read().KeepOnly(place => place.LeafId != leafId));
                binder.Faces[home.Id].RemoveAll(f => f.LeafId == leafId);
                (more[host.Id], more[home.Id]) = (2, 0);
            }
        }

        binder.Leaves.Insert(to, leaf);
        binder.Lay([], u => binder.FacesOf(u) + more.GetValueOrDefault(u.Id));
        binder.ReadFaces();
        return await SaveAsync(
            $"Moved leaf {from + 1} to place {to + 1}",
            binder.Units.Where(u => before.Touches(u.Id, binder)).ToList() is { Count: > 0 } touched
                ? touched
                : [binder.Units[0]],
            before,
            request.Preview == true,
            cancel
        );
    }

    /// <summary>Does to a leaf what a keeper does with a heat tool, a knife, a tape or a tab.</summary>
    public async Task<LeavesAnswer> FormAsync(
        Guid albumId,
        Guid leafId,
        FormLeafRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        await binder.LoadAsync(albumId, cancel);
        var leaf =
            binder.Leaves.Find(l => l.Id == leafId)
            ?? throw new RuleException(
                "That leaf is no longer in the binder. Nothing was changed: look at the leaves again."
            );
        await history.RequireAsync(leaf, request.Revision, "Change a leaf", cancel);
        var before = BinderShot.Of(binder);
        var (form, protector) = (leaf.ReadForm(), binder.ProtectorOf(leaf.ProtectorId));
        var (changed, done) = Changed(form, protector, request);
        var sides = binder.SidesOf(leaf);
        if (request.Anew == true)
        {
            LeafDesigns.Spoil(history, leaf, binder.Album.Protectors);
        }

        LeafDesigns.Form(history, leaf, leaf.ProtectorId, protector, changed, sides);
        return await SaveAsync(done, sides, before, request.Preview == true, cancel);
    }

    /// <summary>
    /// Changes how a unit takes its pages: facing pages, or the two faces of one leaf. The pages are handed out anew in
    /// reading order, their pieces with them.
    /// </summary>
    public async Task<LeavesAnswer> SchoolAsync(Guid albumId, ChangeSchoolRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        await binder.LoadAsync(albumId, cancel);
        await history.RequireAsync(binder.Album, request.Revision, "Change the pages of a week", cancel);
        if (binder.Album.FacesPerUnit != 2 || binder.Album.School == request.School || !Enum.IsDefined(request.School))
        {
            throw new RuleException(
                binder.Album.School == request.School
                    ? "The album takes its pages that way already. Nothing was changed."
                    : "Only an album with two pages for each part has facing pages or leaves of its own. Nothing "
                        + "was changed."
            );
        }

        var before = BinderShot.Of(binder);
        history.Touch([binder.Album]);
        binder.Album.School = request.School;
        binder.Lay([], binder.FacesOf);
        binder.ReadFaces();
        var done =
            request.School == PageSchool.Spread ? "Took facing pages for each part" : "Took one leaf for each part";
        return await SaveAsync(done, binder.Units, before, request.Preview == true, cancel);
    }

    private static (LeafForm Form, string Done) Changed(LeafForm form, Protector protector, FormLeafRequest request)
    {
        if (request.Fuse is { } fuse)
        {
            var pocket =
                protector.Altered(form).Design.Pockets.FirstOrDefault(p => p.Key == fuse.PocketKey)
                ?? throw new RuleException("That pocket is not on this leaf any more. Nothing was changed.");
            var seam = Alterations.InHalf(pocket);
            var at = string.IsNullOrWhiteSpace(fuse.At)
                ? (fuse.Upright ?? seam.Upright) == seam.Upright
                    ? seam.At
                    : (seam.Upright ? pocket.Nominal.Height : pocket.Nominal.Width) / 2
                : MeasureText.ParseLength(fuse.At);
            return (
                form.With(new Fuse(pocket.Key, fuse.Upright ?? seam.Upright, at)),
                $"Fused a pocket of {pocket.Nominal}"
            );
        }

        if (request.CutDown is { } cut)
        {
            return (form with { Cut = new PageCut(cut.Keeps, MeasureText.ParseLength(cut.Size)) }, "Cut a page down");
        }

        if (request.Stick is { } stick)
        {
            if (
                protector.Altered(form).Design is not { OfBack: null } design
                || design.Pockets.All(p => p.Key != stick.PocketKey)
            )
            {
                throw new RuleException(
                    "Only the front and the back of one pocket are stuck together. Nothing was changed."
                );
            }

            return (
                form.Stick(stick.PocketKey, stick.Together),
                stick.Together ? "Stuck two pieces back to back" : "Took a pair apart"
            );
        }

        if (request.Tab is { } tab)
        {
            var none = string.IsNullOrWhiteSpace(tab.Words);
            return (
                form with
                {
                    Tab = none ? null : new IndexTab(tab.Words, tab.Place).Checked(),
                },
                none ? "Took an index tab off" : $"Put the index tab “{tab.Words.Trim()}” on a leaf"
            );
        }

        return request.Anew == true
            ? (LeafForm.Plain with { Tab = form.Tab }, "Took a new leaf in place of an altered one")
            : throw new RuleException("It was not said what to do with the leaf. Nothing was changed.");
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

        var before = BinderShot.Of(binder);
        var touched = new HashSet<AlbumUnit>(units);
        foreach (var (leafId, protectorId, fused) in request.Standing)
        {
            var leaf =
                binder.Leaves.Find(l => l.Id == leafId)
                ?? throw new RuleException(
                    "A leaf is no longer in the binder. Nothing was changed: ask for the pages again."
                );
            var sides = binder.SidesOf(leaf);
            if (leaf.ProtectorId != Require(protectorId))
            {
                LeafDesigns.Spoil(history, leaf, binder.Album.Protectors);
                LeafDesigns.Change(history, leaf, protectorId, binder.ProtectorOf(protectorId), sides);
                touched.UnionWith(sides);
            }

            if (fused > 0)
            {
                LeafDesigns.Form(
                    history,
                    leaf,
                    protectorId,
                    binder.ProtectorOf(protectorId),
                    FusedOffers.Form(leaf.ReadForm(), binder.ProtectorOf(protectorId), fused),
                    sides
                );
                touched.UnionWith(sides);
            }
        }

        foreach (var unit in units)
        {
            var wanted = request
                .Extra.Where(e => e.UnitId == unit.Id)
                .SelectMany(e =>
                    Enumerable.Repeat(
                        (Id: Require(e.ProtectorId), e.Fused),
                        e.Leaves is >= 0 and <= MostLeavesAtOnce
                            ? e.Leaves
                            : throw new RuleException(
                                $"One week or day takes at most {MostLeavesAtOnce:N0} leaves of a design at once. "
                                    + "Nothing was changed."
                            )
                    )
                )
                .ToList();
            // Dividers, pages outside the pockets and altered leaves are no question of pockets: they stay.
            foreach (
                var leaf in binder
                    .Leaves.Where(l => l.FrontUnitId == unit.Id && l.BackUnitId == unit.Id && binder.IsChosen(l))
                    .ToList()
            )
            {
                if (!wanted.Remove((leaf.ProtectorId, 0)))
                {
                    Remove(unit, leaf);
                }
            }

            foreach (var (protectorId, fused) in wanted)
            {
                Insert(unit, protectorId)
                    .WriteForm(FusedOffers.Form(LeafForm.Plain, binder.ProtectorOf(protectorId), fused));
            }
        }

        return await SaveAsync(
            units.Count == 1 ? "Chose the pages" : $"Chose the pages of {NumberWords.Of(units.Count)} parts",
            [.. touched],
            before,
            request.Preview == true,
            cancel
        );
    }

    /// <summary>
    /// Gives a leaf another make within the edit under way, unless something is locked on it or a part outside of the
    /// stretch has filled its face. Says whether it has that make now.
    /// </summary>
    internal bool Redesign(Guid leafId, Guid protectorId, IReadOnlyCollection<Guid> stretch)
    {
        var leaf = binder.Leaves.Single(l => l.Id == leafId);
        if (leaf.ProtectorId == Require(protectorId) && !leaf.ReadForm().IsAltered)
        {
            return true;
        }

        var sides = binder.SidesOf(leaf);
        if (sides.Exists(u => u.Read().HoldsOn(leafId, locked: stretch.Contains(u.Id))))
        {
            return false;
        }

        LeafDesigns.Spoil(history, leaf, binder.Album.Protectors);
        LeafDesigns.Change(history, leaf, protectorId, binder.ProtectorOf(protectorId), sides);
        return true;
    }

    /// <summary>
    /// Gives a unit the leaves between its own pages, in their order; what lies there already and fits the order stays.
    /// </summary>
    internal void Pattern(AlbumUnit unit, IReadOnlyList<Guid> wanted)
    {
        var between = binder.Leaves.Where(l => l.FrontUnitId == unit.Id && binder.IsBetween(l)).ToList();
        var after = binder.Faces[unit.Id][0].LeafId;
        foreach (var protectorId in wanted.Select(Require))
        {
            if (between.FirstOrDefault() is { } next && next.ProtectorId == protectorId)
            {
                after = next.Id;
                between.RemoveAt(0);
                continue;
            }

            var leaf = binder.InsertLeafAfter(after);
            leaf.ProtectorId = protectorId;
            after = leaf.Id;
            Lay(unit, +2);
        }

        // What the pattern does not name and nothing lies on goes.
        foreach (var leaf in between.Where(l => !unit.Read().HoldsOn(l.Id) && binder.FacesOf(unit) > 2))
        {
            Remove(unit, leaf);
        }
    }

    /// <summary>Puts leaves in until so many pieces have pockets.</summary>
    internal void Grow(AlbumUnit unit, Guid protectorId, int pieces)
    {
        var onLeaf = binder.DesignOf(protectorId).OnBothFaces;
        var pockets = binder
            .Faces[unit.Id]
            .Sum(f => binder.On(binder.Leaves.Single(l => l.Id == f.LeafId)).Design.Face(f.Side).Count);
        while (pockets < pieces && onLeaf > 0)
        {
            Insert(unit, protectorId);
            pockets += onLeaf;
        }
    }

    internal Task<LeavesAnswer> SaveFormulaAsync(
        string done,
        IReadOnlyList<Guid> stretch,
        BinderShot before,
        bool preview,
        CancellationToken cancel
    ) => SaveAsync(done, binder.Units.FindAll(u => stretch.Contains(u.Id)), before, preview, cancel);

    private Guid Require(Guid protectorId) =>
        binder.Album.Protectors.Exists(p => p.Id == protectorId)
            ? protectorId
            : throw new RuleException("The album does not use that page design. Nothing was changed.");

    /// <summary>
    /// A leaf before the one that carries the unit's last face, so that its facing pages stay the outer ones.
    /// </summary>
    private AlbumLeaf Insert(AlbumUnit unit, Guid protectorId)
    {
        var faces = binder.Faces[unit.Id];
        if (faces.Count == 0)
        {
            throw new RuleException(
                "This part of the album has no pages that a leaf could go between. Nothing was changed."
            );
        }

        var last = faces[^1];
        var leaf =
            last.Side == LeafSide.Front ? binder.InsertLeafBefore(last.LeafId) : binder.InsertLeafAfter(last.LeafId);
        leaf.ProtectorId = protectorId;
        Lay(unit, +2);
        return leaf;
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

    private async Task<LeavesAnswer> SaveAsync(
        string done,
        List<AlbumUnit> units,
        BinderShot before,
        bool preview,
        CancellationToken cancel
    )
    {
        var changes = before.ChangesTo(binder);
        if (preview)
        {
            // Nothing is written: the rows as they were changed for looking are forgotten.
            db.ChangeTracker.Clear();
            return new LeavesAnswer(done, null, changes);
        }

        // Units further on keep their pieces, but their faces may have changed sides: the edit is in their history too.
        var touched = db
            .ChangeTracker.Entries<AlbumUnit>()
            .Where(e => e.State == EntityState.Modified)
            .Select(e => e.Entity.Id)
            .ToList();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AlbumLock.HoldAsync(db, binder.Album.Id, cancel);
        // Stories are set anew on the pages as they are now, which are read from the database.
        await history.FlushAsync(done, cancel);
        var told = await stories.FlowAnewInAsync(
            units.UnionBy(binder.Units.Where(u => touched.Contains(u.Id)), u => u.Id),
            cancel
        );
        var edit = await history.SaveAsync(
            binder.Album.Id,
            keeper.Id,
            done,
            units.Select(u => u.Id).Union(touched).Union(told),
            cancel
        );
        await transaction.CommitAsync(cancel);
        return new LeavesAnswer(done, edit, changes);
    }
}
