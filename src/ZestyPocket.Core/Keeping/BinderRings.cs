using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping;

/// <summary>How the rings of a binder are bent.</summary>
public enum RingShape
{
    Round,

    /// <summary>Straight where the leaves lie: it holds more of its diameter.</summary>
    D,
}

/// <summary>The rings of a binder, and how thick a stack they still close over.</summary>
/// <param name="Diameter">Inside, as it is sold.</param>
/// <param name="Measured">Filled to where the rings still close and measured there; null when nobody has yet.</param>
public sealed record BinderRings(RingShape Shape, Length Diameter, Length? Measured)
{
    /// <summary>A binder of the usual size. Common practice.</summary>
    public static BinderRings Usual { get; } = new(RingShape.D, Length.FromInches(2), null);

    private static Length Least => Length.FromInches(1, 4);

    private static Length Most => Length.FromInches(6);

    /// <summary>
    /// What fits: as measured, else three quarters of a round ring and nine tenths of a straight one. Common practice,
    /// from memory.
    /// </summary>
    public Length Capacity => Measured ?? Diameter.Times(Shape == RingShape.Round ? 0.75 : 0.9);

    /// <summary>Throws <see cref="RuleException"/> for rings that nobody makes.</summary>
    public BinderRings Checked() =>
        Diameter < Least || Diameter > Most
            ? throw new RuleException("Rings are 1/4 to 6 in wide. Nothing was changed.")
        : Measured is { } own && (own < Least || own > Diameter)
            ? throw new RuleException(
                "What rings hold is at least 1/4 in and no more than their diameter. Nothing was changed."
            )
        : this;
}
