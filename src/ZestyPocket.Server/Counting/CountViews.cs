using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Pages;

namespace ZestyPocket.Server.Counting;

/// <summary>Pockets of one size on the pages of a part.</summary>
public sealed record PocketsView(string Size, int Count, int Free);

/// <summary>A leaf of a part of the album.</summary>
/// <param name="LeafId">Its key.</param>
/// <param name="Revision">For edits of the leaf.</param>
/// <param name="ProtectorId">Its design.</param>
/// <param name="Design">The name of it.</param>
/// <param name="Faces">How many of its faces are this part's.</param>
/// <param name="Placed">Pieces on those.</param>
/// <param name="Pockets">Pockets on those.</param>
/// <param name="Kind">What kind of leaf it is.</param>
/// <param name="MayChange">Nothing is locked on it and its other face is empty: it can have another design.</param>
/// <param name="MayGo">Both faces are this part's: it can be taken out.</param>
/// <param name="OtherSide">What its other face belongs to, when that is not this part.</param>
public sealed record LeafView(
    Guid LeafId,
    int Revision,
    Guid ProtectorId,
    string Design,
    int Faces,
    int Placed,
    int Pockets,
    LeafKind Kind,
    bool MayChange,
    bool MayGo,
    string? OtherSide
);

/// <summary>The sum of one part of the album: its pieces against its pockets.</summary>
/// <param name="UnitId">The part.</param>
/// <param name="Revision">For edits.</param>
/// <param name="Title">Its title.</param>
/// <param name="Label">Its span.</param>
/// <param name="Sum">The sum in words.</param>
/// <param name="Pieces">Pieces that want pockets.</param>
/// <param name="Pockets">Pockets.</param>
/// <param name="Placed">Pieces in pockets.</param>
/// <param name="Lacking">Pockets that are missing.</param>
/// <param name="Free">Pockets that stay empty when every piece has one.</param>
/// <param name="Wanted">The pieces, kind by kind.</param>
/// <param name="BySize">The pockets, size by size.</param>
/// <param name="Leaves">Its leaves in order.</param>
/// <param name="Ways">Ways to make it fit, in the order in which people try them.</param>
/// <param name="Clear">Pockets left clear on purpose; they are not among the pockets.</param>
/// <param name="Faces">Pages with pockets.</param>
/// <param name="EmptyFaces">Of those, pages on which nothing lies.</param>
/// <param name="Hint">What to do with a back that would stay without content; null when there is none.</param>
/// <param name="Formula">The formula it follows and what it lacks of it; null when it follows none.</param>
/// <param name="KeepsItsPages">No choice of pages gives it a further leaf.</param>
public sealed record CountView(
    Guid UnitId,
    int Revision,
    string Title,
    string Label,
    string Sum,
    int Pieces,
    int Pockets,
    int Placed,
    int Lacking,
    int Free,
    IReadOnlyList<WantedPieces> Wanted,
    IReadOnlyList<PocketsView> BySize,
    IReadOnlyList<LeafView> Leaves,
    IReadOnlyList<WayToFit> Ways,
    int Clear,
    int Faces,
    int EmptyFaces,
    string? Hint,
    FollowedFormula? Formula,
    bool KeepsItsPages
);

/// <summary>A formula that a part follows.</summary>
/// <param name="Missing">What is below its minimum, in words; empty when nothing is.</param>
/// <param name="Beyond">What goes beyond it, in words; empty when nothing does.</param>
public sealed record FollowedFormula(Guid Id, string Name, string Missing, string Beyond);

/// <summary>Asks which pages hold it all, for a stretch of the album from one part on.</summary>
/// <param name="From">The first part.</param>
/// <param name="Count">How many parts.</param>
/// <param name="Weights">
/// What counts how much, when the keeper has moved the weights; a further way is offered then.
/// </param>
public sealed record ChoosePagesRequest(Guid From, int Count, WeightsView? Weights = null);

/// <summary>What counts how much in thousandths of a picture, see <see cref="ChoiceWeights"/>.</summary>
public sealed record WeightsView(int Leaf, int EmptyPocket, int Crop, int Change, int Alter)
{
    public static WeightsView Usual { get; } =
        new(
            ChoiceWeights.Usual.Leaf,
            ChoiceWeights.Usual.EmptyPocket,
            ChoiceWeights.Usual.Crop,
            ChoiceWeights.Usual.Change,
            ChoiceWeights.Usual.Alter
        );

    public ChoiceWeights ToWeights() => new ChoiceWeights(Leaf, EmptyPocket, Crop, Change) { Alter = Alter }.Checked();
}

/// <summary>What a choice means for one part.</summary>
/// <param name="UnitId">The part.</param>
/// <param name="Title">Its title.</param>
/// <param name="Says">What would be done and why, in words.</param>
/// <param name="Pockets">Pockets after it.</param>
/// <param name="Empty">Of those, empty.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
public sealed record PartChoiceView(Guid UnitId, string Title, string Says, int Pockets, int Empty, int Unplaced);

/// <summary>One way to choose the pages of a stretch.</summary>
/// <param name="Name">What it puts first.</param>
/// <param name="Says">The whole of it in words.</param>
/// <param name="Leaves">Leaves it adds to those there are; less than nothing when some go.</param>
/// <param name="Empty">Pockets that stay empty.</param>
/// <param name="CropPercent">How much of the pictures is cropped away on average.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
/// <param name="Buy">What the stock is short of, in words.</param>
/// <param name="Proved">It is proved that none is better by the same weights.</param>
/// <param name="Gap">How far from the best it may be, in hundredths.</param>
/// <param name="Parts">Part by part.</param>
/// <param name="Standing">Designs of leaves that stand.</param>
/// <param name="Extra">Leaves between them.</param>
public sealed record PageChoiceView(
    string Name,
    string Says,
    int Leaves,
    int Empty,
    double CropPercent,
    int Unplaced,
    IReadOnlyList<string> Buy,
    bool Proved,
    double Gap,
    IReadOnlyList<PartChoiceView> Parts,
    IReadOnlyList<LeafDesign> Standing,
    IReadOnlyList<ExtraLeaves> Extra
);
