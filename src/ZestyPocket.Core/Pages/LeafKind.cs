namespace ZestyPocket.Core.Pages;

/// <summary>What a leaf in the rings is.</summary>
public enum LeafKind
{
    /// <summary>A page protector welded into pockets.</summary>
    Pockets,

    /// <summary>A page outside the pockets, punched for the rings: an enlargement, or words at page size.</summary>
    Sheet,

    /// <summary>A sheet that is wider than the album and folds in.</summary>
    FoldOut,

    /// <summary>A clear divider; it holds nothing.</summary>
    Divider,

    /// <summary>The envelope for keepsakes that are too large for a pocket.</summary>
    Envelope,
}

/// <summary>At which side of its front a leaf hangs in the rings.</summary>
public enum RingSide
{
    Left,
    Right,
}
