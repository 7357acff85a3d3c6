using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>Lets the album use a kind of leaf.</summary>
public sealed record UseProtector(LeafMake Make) : WholeAlbumEdit
{
    public override string Label() => "Use a page design";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        if (Make.Known(desk.Binder) is { GivenUp: false } known)
        {
            throw new RuleException($"The album uses “{known.Protector.Design.Name}” already. Nothing was changed.");
        }

        var (binder, owned) = Make.In(desk.Binder, tools);
        return new AlbumEdited(desk with { Binder = binder }, $"The album uses “{owned.Protector.Design.Name}”")
        {
            AlsoIn = EveryUnit(desk),
        };
    }
}

/// <summary>The album takes no more of a protector; its leaves of it stay as they are.</summary>
public sealed record GiveUpProtector : ProtectorEdit
{
    public override string Label() => "Remove a page design";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var owned = desk.Binder.RequireProtector(ProtectorId);
        var name = owned.Protector.Design.Name;
        if (owned.GivenUp)
        {
            throw new RuleException($"The album has given “{name}” up already. Nothing was changed.");
        }

        return desk.Binder.Protectors.Any(p =>
            !p.GivenUp && p.Id != owned.Id && p.Protector.Form.Kind == LeafKind.Pockets
        )
            ? new AlbumEdited(
                desk with
                {
                    Binder = desk.Binder.With(owned with { GivenUp = true }),
                },
                $"The album takes no more of “{name}”"
            )
            {
                AlsoIn = EveryUnit(desk),
            }
            : throw new RuleException("An album uses at least one page design. Nothing was changed.");
    }
}

/// <summary>How many leaves of a protector are owned; null when they never run out.</summary>
public sealed record CountOnHand(int? OnHand) : ProtectorEdit
{
    /// <summary>Nobody owns more.</summary>
    public const int Most = 100_000;

    public override string Label() => "Set how many leaves are owned";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        if (OnHand is < 0 or > Most)
        {
            throw new RuleException(
                $"A stock is 0 to {Most:N0} leaves, or left empty when it never runs out. Nothing was changed."
            );
        }

        var owned = desk.Binder.RequireProtector(ProtectorId);
        var name = owned.Protector.Design.Name;
        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder.With(owned with { OnHand = OnHand }),
            },
            OnHand is { } leaves ? $"Own {leaves} of {name}" : $"Never run out of {name}"
        )
        {
            AlsoIn = EveryUnit(desk),
        };
    }
}

/// <summary>A pocket size and its measured clear size, as written; empty when it was not measured.</summary>
public sealed record MeasuredPocket(string Nominal, string Clear);

/// <summary>
/// How a leaf is punched: a known pattern by its name, an empty name for none, or measured on one protector, each hole
/// from the top of the leaf.
/// </summary>
public sealed record MeasuredHoles(
    string Pattern,
    string? FromEdge = null,
    string? Diameter = null,
    ImmutableArray<string>? FromTop = null
)
{
    internal HolePattern? Read(Size outer) =>
        this switch
        {
            { Pattern: "" } => null,
            { FromTop: { Length: > 0 } fromTop, FromEdge: { } edge, Diameter: { } diameter } => HolePattern.Measured(
                outer.Height,
                MeasureText.ParseLength(edge),
                MeasureText.ParseLength(diameter),
                fromTop.Select(MeasureText.ParseLength)
            ),
            _ => HolePattern.Known.FirstOrDefault(h => h.Name == Pattern)
                ?? throw new RuleException(
                    $"There is no hole pattern “{Pattern}”. Nothing was changed: measure one protector instead."
                ),
        };
}

/// <summary>
/// Takes over what was measured on a protector, all as written; what is null stays. Pieces that are not printed yet are
/// cut to it from then on; those that were printed at another size are named.
/// </summary>
/// <param name="Thickness">Of one empty leaf.</param>
/// <param name="Rings">At which side of the front it hangs.</param>
/// <param name="Holes">How it is punched.</param>
public sealed record MeasureProtector(
    string Outer,
    string RingStrip,
    string Ease,
    ImmutableArray<MeasuredPocket> Pockets,
    string? Thickness = null,
    RingSide? Rings = null,
    MeasuredHoles? Holes = null
) : ProtectorEdit
{
    public override string Label() => "Measure a page protector";

    public override AlbumQuestions Asks(AlbumDesk desk) => new() { Printed = true };

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var owned = desk.Binder.RequireProtector(ProtectorId);
        var before = owned.Protector;
        var outer = MeasureText.ParseSize(Outer);
        var measured = (
            before with
            {
                Outer = outer,
                RingStrip = MeasureText.ParseLengthOrNone(RingStrip),
                Ease = MeasureText.ParseLengthOrNone(Ease),
                ClearSizes = ClearSizes(),
                Form = before.Form with
                {
                    Rings = Rings ?? before.Form.Rings,
                    Thickness = string.IsNullOrWhiteSpace(Thickness)
                        ? before.Form.Thickness
                        : MeasureText.ParseLengthOrNone(Thickness),
                    Holes = Holes is null ? before.Form.Holes : Holes.Read(outer),
                },
            }
        ).Checked();
        var after = desk with { Binder = desk.Binder.With(owned with { Protector = measured }) };
        return new AlbumEdited(after, $"Measured {measured.Design.Name}")
        {
            AlsoIn = EveryUnit(desk),
            Says = WhatItMeans(desk.Binder, after.Binder, tools.Facts.Printed, desk.Measures),
        };
    }

    private ImmutableDictionary<Size, Size> ClearSizes() =>
        Pockets
            .Where(p => !string.IsNullOrWhiteSpace(p.Clear))
            .GroupBy(p => MeasureText.ParseSize(p.Nominal), p => MeasureText.ParseSize(p.Clear))
            .ToImmutableDictionary(
                g => g.Key,
                g =>
                    g.Distinct().Count() == 1
                        ? g.First()
                        : throw new RuleException(
                            $"Pockets of {g.Key} were measured twice, each time another size. Nothing was changed."
                        )
            );

    /// <summary>
    /// How many pieces are cut to another size now, and which were printed at one that is no longer right, in words.
    /// </summary>
    private ImmutableArray<string> WhatItMeans(
        RingBinder before,
        RingBinder after,
        IReadOnlyDictionary<Guid, PrintedAs> printed,
        MeasureSystem measures
    )
    {
        var leaves = before.Leaves.Where(l => l.ProtectorId == ProtectorId).ToDictionary(l => l.Id);
        var (recut, wrong) = (0, ImmutableArray.CreateBuilder<string>());
        foreach (var placement in before.Units.SelectMany(u => u.Content.Placements))
        {
            if (
                !leaves.TryGetValue(placement.Place.LeafId, out var leaf)
                || CutSize(after, leaf, placement.Place) is not { } cut
            )
            {
                continue;
            }

            if (printed.TryGetValue(placement.PieceId, out var was))
            {
                if (was.Cut != cut)
                {
                    wrong.Add(
                        $"{was.Number} was printed {(was.IsCut ? "and cut " : "")}at "
                            + $"{MeasureText.Show(was.Cut, measures)} and would be cut to "
                            + $"{MeasureText.Show(cut, measures)} now"
                    );
                }
            }
            else if (CutSize(before, leaf, placement.Place) != cut)
            {
                recut++;
            }
        }

        return
        [
            .. recut == 0
                ? []
                : new[] { $"{recut} {(recut == 1 ? "piece is" : "pieces are")} cut to another size from now on" },
            .. wrong,
            .. wrong.Count == 0
                ? []
                : new[]
                {
                    wrong.Count == 1 ? "print it again if it does not fit" : "print them again if they do not fit",
                },
        ];
    }

    private static Size? CutSize(RingBinder binder, BoundLeaf leaf, PocketPlace place)
    {
        var protector = binder.RequireProtector(leaf.ProtectorId).Protector;
        return protector.Altered(leaf.Alterations).Design.Find(place.Side, place.PocketKey) is { } pocket
            ? protector.CutSize(pocket)
            : null;
    }
}
