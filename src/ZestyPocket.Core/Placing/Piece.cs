using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// One thing that will be cut and put somewhere. It knows its recipe; its cut size follows from the pocket it lies in.
/// </summary>
public abstract record Piece(Guid Id);

/// <summary>A print of a photo.</summary>
public sealed record PhotoPrint(Guid Id, Guid PhotoId, Framing Framing) : Piece(Id);

/// <summary>A card: journaling words, a computed week title, or a filler.</summary>
public sealed record Card(Guid Id, CardKind Kind, string Words, string StyleKey) : Piece(Id);

/// <summary>A pocket of one face of one leaf.</summary>
public readonly record struct PocketPlace(Guid LeafId, LeafSide Side, string PocketKey);

/// <summary>A piece in a pocket.</summary>
/// <param name="Place">The pocket.</param>
/// <param name="PieceId">The piece.</param>
/// <param name="Locked">Put or kept there by hand: no automatic placing moves it.</param>
public readonly record struct Placement(PocketPlace Place, Guid PieceId, bool Locked);
