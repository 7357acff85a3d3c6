using ZestyPocket.Core.Counting;

namespace ZestyPocket.Server.Counting;

/// <summary>Pieces of one kind that want pockets.</summary>
public sealed record WantedView(string Name, WantKind Kind, int Count);

/// <summary>Pockets of one size on the pages of a part.</summary>
public sealed record PocketsView(string Size, int Count, int Free);

/// <summary>A leaf of a part of the album.</summary>
/// <param name="LeafId">Its key.</param>
/// <param name="ProtectorId">Its design.</param>
/// <param name="Design">The name of it.</param>
/// <param name="Faces">How many of its faces are this part's.</param>
/// <param name="Placed">Pieces on those.</param>
/// <param name="MayChange">Nothing is locked on it and its other face is empty: it can have another design.</param>
/// <param name="MayGo">Both faces are this part's: it can be taken out.</param>
/// <param name="OtherSide">What its other face belongs to, when that is not this part.</param>
public sealed record LeafView(Guid LeafId, Guid ProtectorId, string Design, int Faces, int Placed, bool MayChange, bool MayGo, string? OtherSide);

/// <summary>What to do about too many or too few pieces.</summary>
public enum MoveKind
{
    /// <summary>Two written cards become one: pieceId, otherId.</summary>
    JoinCards,

    /// <summary>Another design on a leaf: leafId, protectorId.</summary>
    SmallerPockets,

    /// <summary>A leaf more: protectorId.</summary>
    AddLeaf,

    /// <summary>A card with a pattern in a pocket that stays empty.</summary>
    AddFiller,

    /// <summary>Another design with fewer pockets on a leaf: leafId, protectorId.</summary>
    LargerPockets,

    /// <summary>A leaf less: leafId.</summary>
    RemoveLeaf,

    /// <summary>Merge with the part after it.</summary>
    MergeWithNext,
}

/// <summary>A move with what it gains.</summary>
public sealed record MoveView(MoveKind Kind, string Label, string Gain, Guid? PieceId = null, Guid? OtherId = null, Guid? LeafId = null, Guid? ProtectorId = null);

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
/// <param name="Moves">What people do about it, in their order.</param>
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
    IReadOnlyList<WantedView> Wanted,
    IReadOnlyList<PocketsView> BySize,
    IReadOnlyList<LeafView> Leaves,
    IReadOnlyList<MoveView> Moves);

/// <summary>Asks which pages hold it all, for a stretch of the album from one part on.</summary>
public sealed record ChoosePagesRequest(Guid From, int Count);

/// <summary>What a choice means for one part.</summary>
/// <param name="UnitId">The part.</param>
/// <param name="Title">Its title.</param>
/// <param name="Says">What would be done and why, in words.</param>
/// <param name="Pockets">Pockets after it.</param>
/// <param name="Empty">Of those, empty.</param>
/// <param name="Unplaced">Pieces that no pocket takes.</param>
public sealed record PartChoiceView(Guid UnitId, string Title, string Says, int Pockets, int Empty, int Unplaced);

/// <summary>A design chosen for a leaf that stands.</summary>
public sealed record LeafDesign(Guid LeafId, Guid ProtectorId);

/// <summary>Leaves of a design that a part gets between its own.</summary>
public sealed record ExtraLeaves(Guid UnitId, Guid ProtectorId, int Leaves);

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
    IReadOnlyList<ExtraLeaves> Extra);

/// <summary>Does what a choice says, on the revisions of its parts.</summary>
public sealed record TakePagesRequest(
    IReadOnlyList<UnitAt> Units, IReadOnlyList<LeafDesign> Standing, IReadOnlyList<ExtraLeaves> Extra);

/// <summary>A part of the album as it was looked at.</summary>
public sealed record UnitAt(Guid UnitId, int Revision);

/// <summary>A leaf more for a part of the album.</summary>
public sealed record AddLeafRequest(int Revision, Guid ProtectorId);

/// <summary>A design that the album is to use, by its key.</summary>
public sealed record UseDesignRequest(string DesignKey);

/// <summary>A face of a leaf in the binder.</summary>
/// <param name="UnitId">Whose it is; null for the title and the end page.</param>
/// <param name="Title">Its title, or what stands there.</param>
/// <param name="Placed">Pieces on it.</param>
public sealed record BinderFace(Guid? UnitId, string Title, int Placed);

/// <summary>A leaf in the binder with both its faces, in its order.</summary>
public sealed record BinderLeaf(Guid LeafId, int Number, string DesignKey, string Design, int Pockets, BinderFace Front, BinderFace Back);

/// <summary>How many leaves of a design are owned; null when they never run out.</summary>
public sealed record StockRequest(int? Stock);

/// <summary>What was done with leaves.</summary>
public sealed record LeavesAnswer(string Done, Guid? EditId, IReadOnlyList<string> Moved);
