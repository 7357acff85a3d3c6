using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Counting;

/// <summary>
/// A pattern that units repeat: the leaves between a unit's own pages, the design of those, and what has to lie on them
/// at least. "For each day: a divider, a full-page picture, a card of words beside a picture, then pockets as needed."
/// Common practice.
/// </summary>
/// <param name="Id">Its key.</param>
/// <param name="Name">What the keeper calls it.</param>
/// <param name="Own">
/// The make of the unit's own pages, by protector. With several they alternate from unit to unit: sizes change without
/// breaking the pattern. Own pages hang together with the neighbours', so a change of make happens from one unit to the
/// next.
/// </param>
/// <param name="Between">The leaves between them, in their order.</param>
/// <param name="Pictures">Fewest pictures of a unit.</param>
/// <param name="Words">Fewest cards or stories with words.</param>
/// <param name="Title">A title card belongs to it.</param>
public sealed record Formula(
    Guid Id,
    string Name,
    ImmutableArray<Guid> Own,
    ImmutableArray<Guid> Between,
    int Pictures,
    int Words,
    bool Title
)
{
    public const int LongestName = 80;

    public const int MostLeaves = 20;

    /// <summary>What pieces of pictures and words, with the title, it asks for at least.</summary>
    public int Pieces => Pictures + Words + (Title ? 1 : 0);

    /// <summary>The make of a unit's own pages: they alternate along the stretch it is applied to.</summary>
    public Guid OwnOf(int unitInStretch) => Own[unitInStretch % Own.Length];

    /// <summary>Throws <see cref="RuleException"/> for a pattern that cannot be repeated.</summary>
    public Formula Checked()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > LongestName)
        {
            throw new RuleException(
                $"A formula needs a name of at most {LongestName} characters. Nothing was changed."
            );
        }

        if (Own.Length is 0 or > 6 || Between.Length > MostLeaves)
        {
            throw new RuleException(
                $"A formula has one to six designs for a part's own pages and at most {MostLeaves} leaves between "
                    + "them. Nothing was changed."
            );
        }

        return Pictures is < 0 or > 400 || Words is < 0 or > 100
            ? throw new RuleException(
                "A formula asks for 0 to 400 pictures and 0 to 100 cards of words. Nothing was changed."
            )
            : this with
            {
                Name = Name.Trim(),
            };
    }

    /// <summary>What a unit lacks of it. <paramref name="ofFormula"/> are the pockets of the formula's pages.</summary>
    public FormulaGap GapOf(int pictures, int words, bool title, int pieces, int ofFormula) =>
        new(
            Math.Max(0, Pictures - pictures),
            Math.Max(0, Words - words),
            Title && !title,
            Math.Max(0, pieces - ofFormula)
        );
}

/// <summary>What a unit lacks of its formula, and what goes beyond it.</summary>
/// <param name="Pictures">Pictures that are missing.</param>
/// <param name="Words">Cards or stories that are missing.</param>
/// <param name="Title">The title card is missing.</param>
/// <param name="Beyond">Pieces beyond the pockets of the formula's pages: they flow to extra leaves.</param>
public readonly record struct FormulaGap(int Pictures, int Words, bool Title, int Beyond)
{
    public bool IsMet => Pictures == 0 && Words == 0 && !Title;

    /// <summary>Such as <c>two more pictures and the title card by Sunday</c>; empty when nothing is missing.</summary>
    public string Says(string? by)
    {
        var missing = new List<string>();
        if (Pictures > 0)
        {
            missing.Add(Pictures == 1 ? "one more picture" : $"{NumberWords.Of(Pictures)} more pictures");
        }

        if (Words > 0)
        {
            missing.Add(Words == 1 ? "one more card of words" : $"{NumberWords.Of(Words)} more cards of words");
        }

        if (Title)
        {
            missing.Add("the title card");
        }

        return missing.Count == 0
            ? string.Empty
            : NumberWords.Listed(missing) + (by is null ? string.Empty : $" by {by}");
    }
}

/// <summary>The formulas of an album, and which unit follows which.</summary>
public sealed record AlbumFormulas
{
    public const int Most = 24;

    public ImmutableArray<Formula> All { get; init; } = [];

    /// <summary>By unit, the formula that was applied to it.</summary>
    public ImmutableDictionary<Guid, Guid> Follows { get; init; } = ImmutableDictionary<Guid, Guid>.Empty;

    public Formula? Of(Guid unitId) =>
        Follows.TryGetValue(unitId, out var id) ? All.FirstOrDefault(f => f.Id == id) : null;

    public Formula Require(Guid formulaId) =>
        All.FirstOrDefault(f => f.Id == formulaId)
        ?? throw new RuleException("That formula is not in the album any more. Nothing was changed.");

    /// <summary>Keeps a formula, new or changed.</summary>
    public AlbumFormulas With(Formula formula)
    {
        ArgumentNullException.ThrowIfNull(formula);
        var others = All.RemoveAll(f => f.Id == formula.Id);
        return others.Length >= Most
            ? throw new RuleException(
                $"An album has at most {Most} formulas. Nothing was changed: throw one away first."
            )
            : this with
            {
                All =
                [
                    .. others
                        .Append(formula.Checked())
                        .OrderBy(f => f.Name, StringComparer.OrdinalIgnoreCase)
                        .ThenBy(f => f.Id),
                ],
            };
    }

    public AlbumFormulas Without(Guid id) =>
        this with
        {
            All = All.RemoveAll(f => f.Id == id),
            Follows = Follows.RemoveRange(Follows.Where(f => f.Value == id).Select(f => f.Key)),
        };
}
