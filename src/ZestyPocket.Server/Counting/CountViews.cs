using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Counting;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Jobs;

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
/// <param name="LeftEmpty">Pockets left empty on purpose; they are not among the pockets.</param>
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
    int LeftEmpty,
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

/// <summary>Asks for a search for the pages of a stretch.</summary>
/// <param name="RequestKey">Chosen by the asker: asking twice with the same key is one search.</param>
public sealed record PageSearchRequest(string RequestKey, ChoosePagesRequest Ask);

/// <summary>A search for pages, how far it is, and what it found.</summary>
/// <param name="WaysDone">Of the ways that are tried, how many are done.</param>
/// <param name="Choices">The ways side by side; null until it is done.</param>
/// <param name="Problem">What happened and what to do, when it failed.</param>
public sealed record PageSearchView(
    Guid Id,
    JobState State,
    int WaysDone,
    int WaysTotal,
    IReadOnlyList<PageChoice>? Choices,
    string? Problem
)
{
    public static PageSearchView Of(PageSearch search)
    {
        ArgumentNullException.ThrowIfNull(search);
        return new PageSearchView(
            search.Id,
            search.State,
            search.WaysDone,
            search.WaysTotal,
            search.Answer is { } answer ? StoredDocuments.PageChoices.Read(answer).All : null,
            search.Problem
        );
    }
}
