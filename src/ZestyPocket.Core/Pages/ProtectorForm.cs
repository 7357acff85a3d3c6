using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>What a make of leaf is beside its measures: its kind, its rings, how thick it is.</summary>
public sealed record ProtectorForm
{
    public static ProtectorForm Plain { get; } = new();

    public LeafKind Kind { get; init; }

    /// <summary>The name of a design that is not built in; null for one that is.</summary>
    public string? Name { get; init; }

    /// <summary>The notation of a design that is not built in, or the size of a sheet as it is cut.</summary>
    public string? Notation { get; init; }

    /// <summary>For a fold-out, how far from the ring edge it is folded.</summary>
    public Length? Fold { get; init; }

    public RingSide Rings { get; init; }

    /// <summary>Null until a pattern was chosen or measured.</summary>
    public HolePattern? Holes { get; init; }

    /// <summary>Of one empty leaf, for how thick the album gets.</summary>
    public Length Thickness { get; init; } = UsualThickness(LeafKind.Pockets);

    /// <summary>
    /// Start values from memory, editable: protector leaf 0.20 mm, photo paper 0.25, clear film 0.13, an envelope of
    /// cardstock twice 0.30.
    /// </summary>
    public static Length UsualThickness(LeafKind kind) =>
        Length.FromMillimetres(
            kind switch
            {
                LeafKind.Sheet or LeafKind.FoldOut => 0.25m,
                LeafKind.Divider => 0.13m,
                LeafKind.Envelope => 0.60m,
                _ => 0.20m,
            }
        );
}
