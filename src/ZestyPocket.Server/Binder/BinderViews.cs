using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Shared;

namespace ZestyPocket.Server.Binder;

/// <summary>A face of a leaf in the binder.</summary>
/// <param name="UnitId">Whose it is; null for the title and the end page.</param>
/// <param name="Title">Its title, or what stands there.</param>
/// <param name="Placed">Pieces on it.</param>
/// <param name="Pockets">Pockets of it.</param>
public sealed record BinderFace(Guid? UnitId, string Title, int Placed, int Pockets);

/// <summary>A leaf in the binder with both its faces, in its order.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Note">What was done to it, or what it is beside a page of pockets; null for a plain one.</param>
/// <param name="Between">It lies between the pages of one part and can come and go.</param>
/// <param name="WidthShare">How wide it lies in the album, of the album's page.</param>
/// <param name="HeightShare">How tall it is, of the album's page.</param>
/// <param name="Shapes">Its pockets as the front shows them, for a small picture.</param>
/// <param name="Inserts">Albums that are inserted behind it, in their order.</param>
public sealed record BinderLeaf(
    Guid LeafId,
    int Revision,
    int Number,
    LeafKind Kind,
    Guid ProtectorId,
    string Design,
    string? Note,
    string? Tab,
    int TabPlace,
    bool Between,
    double WidthShare,
    double HeightShare,
    BinderFace Front,
    BinderFace Back,
    IReadOnlyList<PocketShape> Shapes,
    long BodyWidth,
    long BodyHeight,
    IReadOnlyList<InsertedLeaves> Inserts
);

/// <summary>The leaves of an album that is inserted.</summary>
/// <param name="Words">How many leaves it has, and where they lie.</param>
public sealed record InsertedLeaves(Guid AlbumId, string Name, int Leaves, string Words);

/// <summary>One leaf with all there is on both its faces.</summary>
/// <param name="Fusible">Pockets that can be fused, with what comes of it.</param>
/// <param name="Cuts">Ways to cut it down.</param>
public sealed record LeafDetail(
    BinderLeaf Leaf,
    long Width,
    long Height,
    LeafFaceDetail Front,
    LeafFaceDetail Back,
    IReadOnlyList<LeafWay> Fusible,
    IReadOnlyList<LeafWay> Cuts,
    bool Altered,
    string? UnitTitle,
    string Thickness
);

/// <summary>A way to alter a leaf, in words, with the pocket or the size it is about.</summary>
public sealed record LeafWay(string Label, string? PocketKey, CutKeeps? Keeps, string? Size);

public sealed record LeafFaceDetail(
    IReadOnlyList<LeafPocket> Pockets,
    IReadOnlyList<MarkView> Marks,
    IReadOnlyList<PointView> Holes,
    long RingStripX,
    long RingStripWidth,
    long HoleWidth
);

/// <summary>A pocket of one face with what lies in it.</summary>
/// <param name="Number">The number of the pocket on its face, in reading order.</param>
/// <param name="BehindNumber">The number of the pocket behind it on the other face; null where there is none.</param>
public sealed record LeafPocket(
    string Key,
    int Number,
    int? BehindNumber,
    string Size,
    long X,
    long Y,
    long Width,
    long Height,
    string? Piece,
    string? FaceUrl,
    bool Stuck,
    bool LeftEmpty,
    bool SeeThrough
);
