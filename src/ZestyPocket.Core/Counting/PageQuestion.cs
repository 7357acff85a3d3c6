using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Counting;

/// <summary>Pieces that want the same kind of pocket.</summary>
/// <param name="Kind">What kind of thing.</param>
/// <param name="Name">What they are, in words, such as <c>landscape photos</c>.</param>
/// <param name="Count">How many.</param>
/// <param name="Costs">
/// The sizes of pocket they can go into, each with what one of them loses there in thousandths of itself: crop for a
/// picture, 0 for a card that fits. Empty for pieces that go nowhere.
/// </param>
public sealed record Demand(WantKind Kind, string Name, int Count, ImmutableDictionary<Size, int> Costs);

/// <summary>
/// A page design as it can be had: how many pockets of each size one face holds, and how many leaves there are.
/// </summary>
/// <param name="Key">Its lasting name.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Pockets">Pockets of each cut size on one face.</param>
/// <param name="OnHand">
/// Leaves that are owned and free, those standing not counted; null when they never run out.
/// </param>
/// <param name="MayBeAdded">False for a design that leaves may keep but no further leaf may get, bought or not.</param>
public sealed record PageOffer(
    string Key,
    string Name,
    ImmutableDictionary<Size, int> Pockets,
    int? OnHand,
    bool MayBeAdded = true
)
{
    /// <summary>The offer whose leaves it is made of, when it is an altered one: they share one stock.</summary>
    public string? Of { get; init; }

    /// <summary>How many of its pockets are fused.</summary>
    public int Fused { get; init; }

    /// <summary>The key of the leaves as they are bought.</summary>
    public string Bought => Of ?? Key;
}

/// <summary>
/// A leaf that is there anyway, such as those a week's facing pages lie on. Its two faces may belong to two units of
/// the album, or one of them to none of those in question.
/// </summary>
/// <param name="Faces">Index of the unit of each face in question: one or two entries.</param>
/// <param name="Key">The design it has now.</param>
/// <param name="MayChange">Another design may take its place: nothing lies on it, or what does is in question.</param>
public sealed record StandingLeaf(ImmutableArray<int> Faces, string Key, bool MayChange);

/// <summary>What is chosen for, unit by unit of the album.</summary>
/// <param name="Units">The pieces of each unit.</param>
/// <param name="Standing">Leaves that carry their faces anyway.</param>
/// <param name="Offers">The designs that can be taken.</param>
/// <param name="Weights">What counts how much.</param>
public sealed record PageQuestion(
    ImmutableArray<ImmutableArray<Demand>> Units,
    ImmutableArray<StandingLeaf> Standing,
    ImmutableArray<PageOffer> Offers,
    ChoiceWeights Weights
)
{
    /// <summary>More pieces at once are refused.</summary>
    public const int MostPieces = 50_000;

    /// <summary>
    /// Part by unit, pockets that are there whatever is chosen, by cut size: on pages outside the pockets and on
    /// altered leaves. Empty when there are none.
    /// </summary>
    public ImmutableArray<ImmutableDictionary<Size, int>> Room { get; init; } = [];

    /// <summary>Units that get no leaf between their own pages, by index.</summary>
    public ImmutableArray<int> Kept { get; init; } = [];

    /// <summary>
    /// Itself, or throws <see cref="RuleException"/> when it makes no sense. Nothing is cut off silently.
    /// </summary>
    public PageQuestion Checked()
    {
        _ = Weights.Checked();
        if (
            Offers.IsEmpty
            || Offers.Any(o =>
                o.Pockets.IsEmpty || o.Pockets.Any(p => !p.Key.IsPositive || p.Value < 1) || o.OnHand < 0
            )
        )
        {
            throw new RuleException(
                "Pages are chosen from designs with pockets of some size, and a stock is not less than nothing. "
                    + "Nothing was changed."
            );
        }

        if (
            Offers.Select(o => o.Key).Distinct().Count() != Offers.Length
            || Standing.Any(s => Offers.All(o => o.Key != s.Key))
        )
        {
            throw new RuleException(
                "Every leaf has one of the album's page designs, each named once. Nothing was changed."
            );
        }

        if (
            Offers.Any(o => o.Of is { } of && (Offers.All(b => b.Key != of) || o.Fused < 1))
            || (!Room.IsDefaultOrEmpty && Room.Length != Units.Length)
        )
        {
            throw new RuleException("An altered design is made of one of the album's. Nothing was changed.");
        }

        if (
            Units.Sum(p => p.Sum(d => d.Count)) > MostPieces
            || Units.Any(p => p.Any(d => d.Count < 0 || d.Costs.Values.Any(c => c is < 0 or > 1_000)))
        )
        {
            throw new RuleException(
                $"Pages are chosen for at most {MostPieces:N0} pieces at once. Nothing was changed: choose for "
                    + "fewer weeks "
                    + "or days."
            );
        }

        return this;
    }
}

/// <summary>
/// What counts how much, in thousandths of a picture. The usual weights put leaves before empty pockets and those
/// before crops, without giving a whole page away for half a picture. The order is practice, the numbers are this
/// program's own.
/// </summary>
/// <param name="Leaf">A leaf more.</param>
/// <param name="EmptyPocket">A pocket that stays empty.</param>
/// <param name="Crop">A thousandth that is cropped away.</param>
/// <param name="Change">Another design on a leaf that is there.</param>
public sealed record ChoiceWeights(int Leaf, int EmptyPocket, int Crop, int Change)
{
    public static ChoiceWeights Usual { get; } = new(5_000, 300, 1, 50);

    /// <summary>
    /// A pocket that is fused: more than one that stays empty, so that nobody takes a heat tool for nothing.
    /// </summary>
    public int Alter { get; init; } = 400;

    /// <summary>Throws <see cref="RuleException"/> for weights out of 0 to 100,000.</summary>
    public ChoiceWeights Checked() =>
        new[] { Leaf, EmptyPocket, Crop, Change, Alter }.Any(w => w is < 0 or > 100_000)
            ? throw new RuleException("Weights lie between 0 and 100,000. Nothing was changed.")
            : this;
}

/// <summary>How the pieces of one class are spread over pockets.</summary>
public readonly record struct Spreading(int Demand, Size Pocket, int Count);

/// <summary>What was chosen for one unit.</summary>
/// <param name="Extra">Extra leaves by design key, with how many; both their faces are the unit's.</param>
/// <param name="Spread">Where its pieces go.</param>
/// <param name="Pockets">Pockets on all its faces.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
public sealed record UnitAnswer(
    ImmutableArray<(string Key, int Leaves)> Extra,
    ImmutableArray<Spreading> Spread,
    int Pockets,
    int Unplaced
)
{
    public int Placed => Spread.Sum(s => s.Count);

    public int Empty => Pockets - Placed;
}

/// <summary>An answer to a <see cref="PageQuestion"/>.</summary>
/// <param name="Units">Unit by unit.</param>
/// <param name="Standing">The design of every standing leaf.</param>
/// <param name="Buy">What the stock is short of, by design key.</param>
/// <param name="Cost">Weighted sum of all of it.</param>
/// <param name="Gap">
/// How far from the best this may be, as a share of the cost; 0 when it is proved to be the best.
/// </param>
public sealed record PageAnswer(
    ImmutableArray<UnitAnswer> Units,
    ImmutableArray<string> Standing,
    ImmutableDictionary<string, int> Buy,
    long Cost,
    double Gap
)
{
    public bool Proved => Gap <= 0;

    public int ExtraLeaves => Units.Sum(p => p.Extra.Sum(e => e.Leaves));
}
