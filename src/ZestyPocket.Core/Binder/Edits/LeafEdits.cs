using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>A leaf more for a unit, between its own pages. Both its faces are the unit's.</summary>
/// <param name="ProtectorId">Of the album.</param>
public sealed record AddLeaf(Guid ProtectorId) : TapeEdit
{
    public override string Label() => "Add a leaf";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        return Added(desk, UnitId, ProtectorId, tools);
    }

    internal static AlbumEdited Added(AlbumDesk desk, Guid unitId, Guid protectorId, AlbumTools tools)
    {
        var unit = desk.Binder.Require(unitId);
        var design = desk.Binder.RequireProtector(protectorId).Protector.Design;
        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder.AddLeaf(unit.Id, protectorId, LeafAlterations.Plain, tools.NewId),
            },
            $"Added a leaf of {design.Name}"
        )
        {
            AlsoIn = [unit.Id],
        };
    }
}

/// <summary>A leaf more of a kind that the album may not use yet.</summary>
public sealed record AddNewLeaf(LeafMake Make) : TapeEdit
{
    public override string Label() => "Add a leaf";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var (binder, protector) = Make.In(desk.Binder, tools);
        return AddLeaf.Added(desk with { Binder = binder }, UnitId, protector.Id, tools);
    }
}

/// <summary>Takes a leaf out whose faces both belong to the unit. What lay on it goes to the tray.</summary>
public sealed record RemoveLeaf(Guid LeafId) : TapeEdit
{
    public override string Label() => "Remove a leaf";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var (binder, unit) = (desk.Binder, desk.Binder.Require(UnitId));
        var leaf = binder.Leaves.FirstOrDefault(l => l.Id == LeafId);
        if (leaf is null || !leaf.IsAllOf(unit.Id))
        {
            throw new RuleException(
                "Only a leaf with both faces in this week or day can be taken out: the other face belongs to "
                    + "a neighbour. Nothing was changed."
            );
        }

        if (binder.FacesOf(unit.Id).Length == 2)
        {
            throw new RuleException(
                "It is the only leaf of this week or day: give it another page design instead. Nothing was "
                    + "changed."
            );
        }

        return new AlbumEdited(
            desk with
            {
                Binder = binder.TakeLeaf(unit.Id, leaf.Id, tools.NewId),
            },
            $"Removed a leaf of {binder.RequireProtector(leaf.ProtectorId).Protector.Design.Name}"
        )
        {
            AlsoIn = [unit.Id],
        };
    }
}

/// <summary>
/// Gives a leaf of a unit another page design. Pieces whose pockets are gone go to the tray, the neighbour's too.
/// </summary>
public sealed record GiveDesign(Guid LeafId, Guid ProtectorId) : TapeEdit
{
    public override string Label() => "Change a page design";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var (before, unit) = (desk.Binder, desk.Binder.Require(UnitId));
        var leaf =
            before.Leaves.FirstOrDefault(l => l.Id == LeafId && (l.Front == unit.Id || l.Back == unit.Id))
            ?? throw new RuleException("That leaf does not belong here. Nothing was changed.");
        var protector = before.RequireProtector(ProtectorId);
        var binder = before.WithProtector(leaf, protector.Id);
        var lost = before.Units.Sum(BinderChanges.Placed) - binder.Units.Sum(BinderChanges.Placed);
        return new AlbumEdited(
            desk with
            {
                Binder = binder,
            },
            $"Changed a leaf to {protector.Protector.Design.Name}{TapeWords.WentToTheTray(lost)}"
        )
        {
            AlsoIn = [unit.Id],
        };
    }
}

/// <summary>
/// Moves a leaf to another place of the order. A leaf between the pages of one unit goes to the unit it comes to lie
/// in; one that carries two units keeps its pockets, and the pages of the units are handed out again in reading order,
/// their pieces with them.
/// </summary>
/// <param name="To">Its place from 0 among the leaves without it.</param>
public sealed record MoveLeaf(int To) : LeafEdit
{
    public override string Label() => "Move a leaf";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var before = desk.Binder;
        var leaf = before.RequireLeaf(LeafId);
        var (from, to) = (before.Leaves.IndexOf(leaf), Math.Clamp(To, 0, before.Leaves.Length - 1));
        if (from == to)
        {
            throw new RuleException("The leaf lies there already. Nothing was changed.");
        }

        var (binder, faces) = (before with { Leaves = before.Leaves.RemoveAt(from) }, before.Faces());
        var more = ImmutableDictionary<Guid, int>.Empty;
        if (before.IsBetween(leaf))
        {
            var (home, host) = (before.Require(leaf.Front!.Value), HostAt(binder, to));
            if (host.Id != home.Id)
            {
                binder = binder.With(home with { Content = home.Content.KeepOnly(place => place.LeafId != leaf.Id) });
                faces = faces.SetItem(home.Id, faces[home.Id].RemoveAll(f => f.LeafId == leaf.Id));
                more = more.Add(host.Id, 2);
            }
        }

        binder = (binder with { Leaves = binder.Leaves.Insert(to, leaf) }).Lay(
            faces,
            u => faces[u.Id].Length + more.GetValueOrDefault(u.Id),
            tools.NewId
        );
        return new AlbumEdited(desk with { Binder = binder }, $"Moved leaf {from + 1} to place {to + 1}");
    }

    /// <summary>The unit between whose pages that place lies.</summary>
    private static BoundUnit HostAt(RingBinder without, int to) =>
        (to == 0 ? null : without.Units.FirstOrDefault(u => u.Id == without.Leaves[to - 1].Back))
        ?? throw new RuleException(
            "A leaf between pages stays between the pages of some week or day: it cannot go before the first "
                + "or behind the last. Nothing was changed."
        );
}

/// <summary>What a keeper does to a leaf with a heat tool, a knife, a tape or a tab.</summary>
public abstract record LeafFormEdit : LeafEdit
{
    public override string Label() => "Change a leaf";

    public sealed override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var leaf = desk.Binder.RequireLeaf(LeafId);
        var (alterations, done) = Change(leaf.Alterations, desk.Binder.RequireProtector(leaf.ProtectorId).Protector);
        return new AlbumEdited(
            desk with
            {
                Binder = (SpoilsIt ? desk.Binder.Spoilt(leaf) : desk.Binder).WithAlterations(
                    leaf,
                    leaf.ProtectorId,
                    alterations
                ),
            },
            done
        );
    }

    /// <summary>The leaf is given up for a new one.</summary>
    protected virtual bool SpoilsIt => false;

    /// <summary>The leaf's form after it, and what was done.</summary>
    protected abstract (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    );
}

/// <summary>
/// A new seam across a pocket: through the middle of the longer side unless it is said where.
/// </summary>
/// <param name="Upright">From top to bottom.</param>
/// <param name="At">From the pocket's left or top as the front shows it, as written.</param>
public sealed record FusePocket(string PocketKey, bool? Upright = null, string? At = null) : LeafFormEdit
{
    protected override (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    )
    {
        var pocket =
            protector.Altered(alterations).Design.Pockets.FirstOrDefault(p => p.Key == PocketKey)
            ?? throw new RuleException("That pocket is not on this leaf any more. Nothing was changed.");
        var seam = Alterations.InHalf(pocket);
        var upright = Upright ?? seam.Upright;
        var at =
            !string.IsNullOrWhiteSpace(At) ? MeasureText.ParseLength(At)
            : upright == seam.Upright ? seam.At
            : (seam.Upright ? pocket.Nominal.Height : pocket.Nominal.Width) / 2;
        return (alterations.With(new Fuse(pocket.Key, upright, at)), $"Fused a pocket of {pocket.Nominal}");
    }
}

/// <summary>Keeps some columns or rows of a page.</summary>
/// <param name="Size">How much of the page body stays, as written.</param>
public sealed record CutLeafDown(CutKeeps Keeps, string Size) : LeafFormEdit
{
    protected override (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    )
    {
        ArgumentNullException.ThrowIfNull(alterations);
        return (alterations with { Cut = new PageCut(Keeps, MeasureText.ParseLength(Size)) }, "Cut a page down");
    }
}

/// <summary>Sticks the front and the back of a pocket together, or takes them apart.</summary>
public sealed record StickPieces(string PocketKey, bool Together) : LeafFormEdit
{
    protected override (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    )
    {
        if (
            protector.Altered(alterations).Design is not { OfBack: null } design
            || design.Pockets.All(p => p.Key != PocketKey)
        )
        {
            throw new RuleException(
                "Only the front and the back of one pocket are stuck together. Nothing was changed."
            );
        }

        return (
            alterations.Stick(PocketKey, Together),
            Together ? "Stuck two pieces back to back" : "Separated two pieces stuck back to back"
        );
    }
}

/// <summary>An index tab on the outer edge; without words it comes off.</summary>
/// <param name="Place">Which of <see cref="IndexTab.Places"/> along the edge, from 0 at the top.</param>
public sealed record TabLeaf(string Words, int Place) : LeafFormEdit
{
    protected override (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    )
    {
        var none = string.IsNullOrWhiteSpace(Words);
        return (
            alterations with
            {
                Tab = none ? null : new IndexTab(Words, Place).Checked(),
            },
            none ? "Removed an index tab" : $"Added the index tab “{Words.Trim()}”"
        );
    }
}

/// <summary>A new leaf in place of an altered one; its tab stays.</summary>
public sealed record RenewLeaf : LeafFormEdit
{
    protected override bool SpoilsIt => true;

    protected override (LeafAlterations Alterations, string Done) Change(
        LeafAlterations alterations,
        Protector protector
    )
    {
        ArgumentNullException.ThrowIfNull(alterations);
        return (LeafAlterations.Plain with { Tab = alterations.Tab }, "Replaced an altered leaf with a new one");
    }
}

/// <summary>
/// Changes how a unit takes its pages: facing pages, or the two faces of one leaf. The pages are handed out again in
/// reading order, their pieces with them.
/// </summary>
public sealed record ChangeSchool(PageSchool School) : WholeAlbumEdit
{
    public override string Label() => "Change the pages of a week";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var binder = desk.Binder;
        if (binder.School == School)
        {
            throw new RuleException("The album takes its pages that way already. Nothing was changed.");
        }

        if (binder.FacesPerUnit != 2 || !Enum.IsDefined(School))
        {
            throw new RuleException(
                "Only an album with two pages for each week or day has facing pages or leaves of its own. Nothing was "
                    + "changed."
            );
        }

        var faces = binder.Faces();
        return new AlbumEdited(
            desk with
            {
                Binder = (binder with { School = School }).Lay(faces, u => faces[u.Id].Length, tools.NewId),
            },
            School == PageSchool.Spread ? "Changed to facing pages" : "Changed to one leaf each"
        )
        {
            AlsoIn = EveryUnit(desk),
        };
    }
}
