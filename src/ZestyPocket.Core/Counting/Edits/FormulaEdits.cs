using System.Collections.Immutable;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Core.Counting.Edits;

/// <summary>Keeps a formula, new or changed.</summary>
/// <param name="FormulaId">Null for a new one.</param>
/// <param name="Own">Protectors of a unit's own pages, which alternate.</param>
/// <param name="Between">Protectors of the leaves between them.</param>
public sealed record KeepFormula(
    Guid? FormulaId,
    string Name,
    ImmutableArray<Guid> Own,
    ImmutableArray<Guid> Between,
    int Pictures,
    int Words,
    bool Title
) : WholeAlbumEdit
{
    public override string Label() => "Keep a formula";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var formula = new Formula(FormulaId ?? tools.NewId(), Name, Own, Between, Pictures, Words, Title).Checked();
        var owned = desk.Binder.Protectors.ToDictionary(p => p.Id, p => p.Protector);
        if (formula.Own.Concat(formula.Between).Any(id => !owned.ContainsKey(id)))
        {
            throw new RuleException("A formula is made of leaves that the album uses. Nothing was changed.");
        }

        return formula.Own.Any(id => owned[id].Form.Kind != LeafKind.Pockets)
            ? throw new RuleException(
                "A part's own pages are pages of pockets; pages outside the pockets and dividers go between them. "
                    + "Nothing was changed."
            )
            : new AlbumEdited(
                desk with
                {
                    Formulas = desk.Formulas.With(formula),
                },
                $"Kept the formula “{formula.Name}”"
            )
            {
                AlsoIn = EveryUnit(desk),
            };
    }
}

/// <summary>Deletes a formula; the pages stay as they are.</summary>
public sealed record DeleteFormula(Guid FormulaId) : WholeAlbumEdit
{
    public override string Label() => "Delete a formula";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var formula = desk.Formulas.Require(FormulaId);
        return new AlbumEdited(
            desk with
            {
                Formulas = desk.Formulas.Without(FormulaId),
            },
            $"Deleted the formula “{formula.Name}”; the pages stay as they are"
        )
        {
            AlsoIn = EveryUnit(desk),
        };
    }
}

/// <summary>
/// Gives the pages of a stretch the pattern of a formula: the protectors of their own leaves, the leaves between in
/// their order, and extra leaves where there is more than the pattern holds. Leaves on which something is locked, or
/// which a neighbour outside the stretch has filled, stay.
/// </summary>
public sealed record ApplyFormula(Guid FormulaId, ImmutableArray<UnitAt> Units) : AlbumEdit
{
    public override string Label() => "Apply a formula";

    public override IEnumerable<SeenRevision> MadeOn() =>
        Units.IsDefaultOrEmpty
            ? throw new RuleException("No week or day was named. Nothing was changed.")
            : Units.Select(u => new SeenRevision(Seen.Unit, u.UnitId, u.Revision));

    public override AlbumQuestions Asks(AlbumDesk desk) => new() { PiecesOf = [.. Units.Select(u => u.UnitId)] };

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var formula = desk.Formulas.Require(FormulaId);
        var stretch = Units.Select(u => u.UnitId).ToImmutableHashSet();
        var pattern = new FormulaPattern(desk.Binder, formula, stretch, tools.NewId);
        for (var i = 0; i < Units.Length; i++)
        {
            pattern.Lay(desk.Binder.Require(Units[i].UnitId).Id, i, isLast: i == Units.Length - 1);
        }

        for (var i = 0; i < Units.Length; i++)
        {
            pattern.GrowTo(Units[i].UnitId, i, tools.Facts.PiecesOf[Units[i].UnitId]);
        }

        var (stayed, parts) = (pattern.Stayed, Units.Length);
        var kept =
            stayed == 0
                ? string.Empty
                : $"; {stayed} {(stayed == 1 ? "leaf keeps" : "leaves keep")} what lies locked on "
                    + $"{(stayed == 1 ? "it" : "them")}";
        return new AlbumEdited(
            desk with
            {
                Binder = pattern.Binder,
                Formulas = desk.Formulas with
                {
                    Follows = desk.Formulas.Follows.SetItems(stretch.Select(id => KeyValuePair.Create(id, FormulaId))),
                },
            },
            $"Gave {(parts == 1 ? "one part" : $"{parts} parts")} the formula “{formula.Name}”{kept}"
        )
        {
            AlsoIn = [.. stretch],
        };
    }
}

/// <summary>A binder while the units of a stretch are given a formula's pages, one after the other.</summary>
internal sealed class FormulaPattern(
    RingBinder binder,
    Formula formula,
    ImmutableHashSet<Guid> stretch,
    Func<Guid> newId
)
{
    public RingBinder Binder { get; private set; } = binder;

    /// <summary>Leaves that could not be given another protector.</summary>
    public int Stayed { get; private set; }

    /// <summary>Gives a unit its own pages and the leaves between them.</summary>
    public void Lay(Guid unitId, int at, bool isLast)
    {
        var faces = Binder.FacesOf(unitId);
        if (faces.IsEmpty)
        {
            return;
        }

        // A leaf that carries two units has the protector of the unit that follows it.
        Give(faces[0].LeafId, formula.OwnOf(at));
        if (isLast)
        {
            Give(faces[^1].LeafId, formula.OwnOf(Binder.School == PageSchool.Spread ? at + 1 : at));
        }

        Between(unitId);
    }

    /// <summary>Puts leaves in until so many pieces have pockets.</summary>
    public void GrowTo(Guid unitId, int at, int pieces)
    {
        var protectorId = formula.OwnOf(at);
        var onLeaf = Binder.RequireProtector(protectorId).Protector.Design.OnBothFaces;
        var pockets = Binder
            .FacesOf(unitId)
            .Sum(f => Binder.On(Binder.RequireLeaf(f.LeafId)).Design.Face(f.Side).Count);
        while (pockets < pieces && onLeaf > 0)
        {
            Binder = Binder.AddLeaf(unitId, protectorId, LeafAlterations.Plain, newId);
            pockets += onLeaf;
        }
    }

    private void Give(Guid leafId, Guid protectorId)
    {
        var leaf = Binder.RequireLeaf(leafId);
        if (leaf.ProtectorId == protectorId && !leaf.Alterations.IsAltered)
        {
            return;
        }

        if (Binder.SidesOf(leaf).Any(u => u.Content.HoldsOn(leafId, locked: stretch.Contains(u.Id))))
        {
            Stayed++;
            return;
        }

        Binder = Binder.WithProtector(leaf, protectorId);
    }

    /// <summary>
    /// The leaves between a unit's own pages, in their order; what lies there already and fits the order stays.
    /// </summary>
    private void Between(Guid unitId)
    {
        var between = Binder.Leaves.Where(l => l.Front == unitId && Binder.IsBetween(l)).ToList();
        var after = Binder.FacesOf(unitId)[0].LeafId;
        foreach (var protectorId in formula.Between)
        {
            if (between.FirstOrDefault() is { } next && next.ProtectorId == protectorId)
            {
                after = next.Id;
                between.RemoveAt(0);
                continue;
            }

            var (faces, id) = (Binder.Faces(), newId());
            Binder = Binder
                .InsertLeafAfter(after, id, Binder.RequireProtector(protectorId).Id)
                .Lay(faces, u => faces[u.Id].Length + (u.Id == unitId ? 2 : 0), newId);
            after = id;
        }

        // What the pattern does not name and nothing lies on goes.
        foreach (
            var leaf in between.Where(l =>
                !Binder.Require(unitId).Content.HoldsOn(l.Id) && Binder.FacesOf(unitId).Length > 2
            )
        )
        {
            Binder = Binder.TakeLeaf(unitId, leaf.Id, newId);
        }
    }
}
