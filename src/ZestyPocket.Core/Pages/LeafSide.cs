namespace ZestyPocket.Core.Pages;

/// <summary>The two faces of a leaf. The front lies on the right of a spread, the back on the left.</summary>
public enum LeafSide
{
    Front,
    Back,
}
