using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Binder;

/// <summary>A unit of the tape with what it holds.</summary>
public sealed record BoundUnit(Guid Id, UnitDates Dates, UnitContent Content);

/// <summary>A leaf on the rings. Each face belongs to a unit, or to none (title and end page).</summary>
/// <param name="ProtectorId">The protector it is.</param>
/// <param name="Alterations">What was done to it.</param>
/// <param name="Front">The unit of its front.</param>
/// <param name="Back">The unit of its back.</param>
public sealed record BoundLeaf(
    Guid Id,
    Guid ProtectorId,
    LeafAlterations Alterations,
    Guid? Front = null,
    Guid? Back = null
)
{
    /// <summary>Both faces belong to that unit.</summary>
    public bool IsAllOf(Guid unitId) => Front == unitId && Back == unitId;
}

/// <summary>A protector that the album knows.</summary>
/// <param name="OnHand">How many leaves of it are owned; null when they never run out.</param>
/// <param name="GivenUp">The album takes no more of it; leaves that have it keep it.</param>
public sealed record OwnedProtector(Guid Id, Protector Protector, int? OnHand = null, bool GivenUp = false);

/// <summary>
/// The ring binder of an album: its units and leaves in their order, and which faces carry which unit. Immutable; what
/// is done to it gives another binder. Faces go to the units in reading order (<see cref="Binding"/>), so that taking a
/// leaf out or putting one in moves what follows, and the pieces with it.
/// </summary>
/// <param name="School">How a unit takes its pages.</param>
/// <param name="FacesPerUnit">Pages of a new unit: 2 are facing pages, 1 is one page.</param>
/// <param name="Body">The album's page body.</param>
public sealed record RingBinder(
    PageSchool School,
    int FacesPerUnit,
    Size Body,
    ImmutableArray<BoundUnit> Units,
    ImmutableArray<BoundLeaf> Leaves,
    ImmutableArray<OwnedProtector> Protectors
)
{
    /// <summary>An album has no more weeks, days or hours than this: ten years of weeks.</summary>
    public const int MostUnits = 530;

    /// <summary>Units that begin a further volume; one that is gone counts no more.</summary>
    public ImmutableArray<Guid> VolumeStarts { get; init; } = [];

    /// <summary>The unit; null when the album has no such unit.</summary>
    public BoundUnit? Find(Guid unitId) => Units.FirstOrDefault(u => u.Id == unitId);

    public BoundUnit Require(Guid unitId) =>
        Find(unitId)
        ?? throw new RuleException("That week or day is no longer in the album. Nothing was changed: open it again.");

    public BoundLeaf RequireLeaf(Guid leafId) =>
        Leaves.FirstOrDefault(l => l.Id == leafId)
        ?? throw new RuleException(
            "That leaf is no longer in the binder. Nothing was changed: look at the leaves again."
        );

    public OwnedProtector RequireProtector(Guid protectorId) =>
        Protectors.FirstOrDefault(p => p.Id == protectorId)
        ?? throw new RuleException("The album does not use that page design. Nothing was changed.");

    /// <summary>The protector of a leaf after what was done to it.</summary>
    public Protector On(BoundLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return RequireProtector(leaf.ProtectorId).Protector.Altered(leaf.Alterations);
    }

    /// <summary>The faces of every unit in reading order; empty for a unit without pages.</summary>
    public ImmutableDictionary<Guid, ImmutableArray<FaceOfLeaf>> Faces()
    {
        var faces = Units.ToDictionary(u => u.Id, _ => ImmutableArray.CreateBuilder<FaceOfLeaf>());
        foreach (var leaf in Leaves)
        {
            foreach (var (side, owner) in new[] { (LeafSide.Front, leaf.Front), (LeafSide.Back, leaf.Back) })
            {
                if (owner is { } id && faces.TryGetValue(id, out var own))
                {
                    own.Add(new FaceOfLeaf(leaf.Id, side));
                }
            }
        }

        return faces.ToImmutableDictionary(f => f.Key, f => f.Value.ToImmutable());
    }

    /// <summary>The faces of one unit in reading order.</summary>
    public ImmutableArray<FaceOfLeaf> FacesOf(Guid unitId) => Faces()[unitId];

    /// <summary>The units of a leaf's faces: none, one or two.</summary>
    public IEnumerable<BoundUnit> SidesOf(BoundLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return Units.Where(u => u.Id == leaf.Front || u.Id == leaf.Back);
    }

    /// <summary>
    /// Whether a leaf lies between a unit's own pages and can come and go: both its faces are the unit's, and in the
    /// leaf school it is not the leaf the unit stands on.
    /// </summary>
    public bool IsBetween(BoundLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return leaf.Front is { } unit
            && leaf.Back == unit
            && (School == PageSchool.Spread || Leaves.First(l => l.Front == unit || l.Back == unit).Id != leaf.Id);
    }

    /// <summary>
    /// Whether a choice of pages may put such a leaf in or take it out. Dividers, pages outside the pockets and altered
    /// leaves are no question of pockets: they stay.
    /// </summary>
    public bool IsChosen(BoundLeaf leaf) =>
        IsBetween(leaf)
        && !leaf.Alterations.IsAltered
        && RequireProtector(leaf.ProtectorId).Protector is { Form.Kind: LeafKind.Pockets, Design: var design }
        && design.Body == Body;

    /// <summary>Another unit in its place.</summary>
    public RingBinder With(BoundUnit unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        return this with { Units = Units.SetItem(IndexOf(Units, u => u.Id == unit.Id), unit) };
    }

    /// <summary>Another leaf in its place.</summary>
    public RingBinder With(BoundLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return this with { Leaves = Leaves.SetItem(IndexOf(Leaves, l => l.Id == leaf.Id), leaf) };
    }

    /// <summary>A protector that is new or another in its place.</summary>
    public RingBinder With(OwnedProtector protector)
    {
        ArgumentNullException.ThrowIfNull(protector);
        var at = IndexOf(Protectors, p => p.Id == protector.Id);
        return this with { Protectors = at < 0 ? Protectors.Add(protector) : Protectors.SetItem(at, protector) };
    }

    /// <summary>A unit whose pages come with the next <see cref="Lay"/>.</summary>
    public RingBinder Insert(int at, BoundUnit unit) => this with { Units = Units.Insert(at, unit) };

    /// <summary>
    /// A new leaf before another, with the same protector unless another is named, so that pieces that move onto it
    /// fit. Its faces are handed out with the next <see cref="Lay"/>.
    /// </summary>
    public RingBinder InsertLeafBefore(Guid leafId, Guid newId, Guid? protectorId = null) =>
        InsertLeaf(IndexOf(Leaves, l => l.Id == leafId), leafId, newId, protectorId);

    /// <summary>The same after another leaf.</summary>
    public RingBinder InsertLeafAfter(Guid leafId, Guid newId, Guid? protectorId = null) =>
        InsertLeaf(IndexOf(Leaves, l => l.Id == leafId) + 1, leafId, newId, protectorId);

    private RingBinder InsertLeaf(int at, Guid like, Guid newId, Guid? protectorId) =>
        this with
        {
            Leaves = Leaves.Insert(
                at,
                new BoundLeaf(newId, protectorId ?? RequireLeaf(like).ProtectorId, LeafAlterations.Plain)
            ),
        };

    /// <summary>The binder without a leaf, which is spoilt if it was altered (<see cref="Spoilt"/>).</summary>
    public RingBinder RemoveLeaf(Guid leafId)
    {
        var leaf = RequireLeaf(leafId);
        return Spoilt(leaf) with { Leaves = Leaves.Remove(leaf) };
    }

    /// <summary>
    /// A leaf that was fused or cut down cannot go back to the others: when it is given up there is one less of its
    /// protector. Common practice.
    /// </summary>
    public RingBinder Spoilt(BoundLeaf leaf)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return leaf.Alterations.IsAltered && RequireProtector(leaf.ProtectorId) is { OnHand: > 0 } owned
            ? With(owned with { OnHand = owned.OnHand - 1 })
            : this;
    }

    /// <summary>
    /// Another protector on a leaf. Seams and cuts belonged to the old page and go with it; the tab stays.
    /// </summary>
    public RingBinder WithProtector(BoundLeaf leaf, Guid protectorId)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        return Spoilt(leaf)
            .WithAlterations(leaf, protectorId, LeafAlterations.Plain with { Tab = leaf.Alterations.Tab });
    }

    /// <summary>
    /// A leaf's protector and what is done to it. Both faces get the new pockets; pieces whose pockets are gone go to
    /// the tray. Throws <see cref="RuleException"/> for a form that the protector cannot take.
    /// </summary>
    public RingBinder WithAlterations(BoundLeaf leaf, Guid protectorId, LeafAlterations alterations)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        var design = RequireProtector(protectorId).Protector.Altered(alterations).Design;
        var changed = With(leaf with { ProtectorId = protectorId, Alterations = alterations });
        return SidesOf(leaf)
            .Aggregate(
                changed,
                (binder, unit) =>
                    binder.With(
                        unit with
                        {
                            Content = unit.Content.KeepOnly(place =>
                                place.LeafId != leaf.Id || design.Find(place.Side, place.PocketKey) is not null
                            ),
                        }
                    )
            );
    }

    /// <summary>
    /// A leaf more for a unit, before the one that carries its last face, so that its facing pages stay the outer ones.
    /// Both its faces are the unit's.
    /// </summary>
    public RingBinder AddLeaf(Guid unitId, Guid protectorId, LeafAlterations alterations, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(newId);
        var faces = Faces();
        if (faces[unitId].IsEmpty)
        {
            throw new RuleException("This week or day has no pages that a leaf could go between. Nothing was changed.");
        }

        var (last, id) = (faces[unitId][^1], newId());
        var with =
            last.Side == LeafSide.Front
                ? InsertLeafBefore(last.LeafId, id, protectorId)
                : InsertLeafAfter(last.LeafId, id, protectorId);
        return with.With(with.RequireLeaf(id) with { Alterations = alterations })
            .Lay(faces, u => faces[u.Id].Length + (u.Id == unitId ? 2 : 0), newId);
    }

    /// <summary>Takes a leaf of a unit out. What lies on it goes to the tray before the other faces move up.</summary>
    public RingBinder TakeLeaf(Guid unitId, Guid leafId, Func<Guid> newId)
    {
        var unit = Require(unitId);
        var without = RemoveLeaf(leafId)
            .With(unit with { Content = unit.Content.KeepOnly(place => place.LeafId != leafId) });
        var faces = without.Faces();
        return without.Lay(faces, u => faces[u.Id].Length, newId);
    }

    /// <summary>
    /// Hands the faces out in reading order and moves the pieces with them: leaves come and go at the end until every
    /// unit has the faces it wants.
    /// </summary>
    /// <param name="before">The faces from which the pieces of each unit come.</param>
    /// <param name="wanted">How many faces a unit takes.</param>
    /// <param name="newId">A key for each leaf that is added.</param>
    public RingBinder Lay(
        IReadOnlyDictionary<Guid, ImmutableArray<FaceOfLeaf>> before,
        Func<BoundUnit, int> wanted,
        Func<Guid> newId
    )
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(newId);
        var counts = Units.Select(wanted).ToList();
        var starts = Enumerable.Range(0, Units.Length).Where(k => VolumeStarts.Contains(Units[k].Id)).ToHashSet();
        var needed = Binding.LeavesFor(Binding.Laid(counts, starts, School).Faces, School);
        var binder = this;
        while (binder.Leaves.Length < needed)
        {
            binder = binder.InsertLeafAfter(binder.Leaves[^1].Id, newId());
        }

        while (binder.Leaves.Length > needed)
        {
            binder = binder.RemoveLeaf(binder.Leaves[^1].Id);
        }

        return binder.HandOut(before, Binding.Chain([.. binder.Leaves.Select(l => l.Id)], counts, School, starts));
    }

    private RingBinder HandOut(
        IReadOnlyDictionary<Guid, ImmutableArray<FaceOfLeaf>> before,
        IReadOnlyList<IReadOnlyList<FaceOfLeaf>> chain
    )
    {
        var owners = new Dictionary<FaceOfLeaf, Guid>();
        foreach (var (unit, faces) in Units.Zip(chain))
        {
            foreach (var face in faces)
            {
                owners[face] = unit.Id;
            }
        }

        var leafOf = Leaves.ToDictionary(l => l.Id);
        return this with
        {
            Units =
            [
                .. Units.Zip(
                    chain,
                    (unit, now) =>
                    {
                        IReadOnlyList<FaceOfLeaf> old = before.GetValueOrDefault(unit.Id, []);
                        return old.SequenceEqual(now)
                            ? unit
                            : unit with
                            {
                                Content = unit.Content.OnFaces(old, now, Exists),
                            };
                    }
                ),
            ],
            Leaves =
            [
                .. Leaves.Select(l =>
                    l with
                    {
                        Front = Owner(new FaceOfLeaf(l.Id, LeafSide.Front)),
                        Back = Owner(new FaceOfLeaf(l.Id, LeafSide.Back)),
                    }
                ),
            ],
        };

        Guid? Owner(FaceOfLeaf face) => owners.TryGetValue(face, out var unit) ? unit : null;

        bool Exists(PocketPlace place) =>
            leafOf.TryGetValue(place.LeafId, out var leaf)
            && On(leaf).Design.Find(place.Side, place.PocketKey) is not null;
    }

    private static int IndexOf<T>(ImmutableArray<T> all, Func<T, bool> wanted)
    {
        for (var i = 0; i < all.Length; i++)
        {
            if (wanted(all[i]))
            {
                return i;
            }
        }

        return -1;
    }
}
