using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>
/// A page protector as bought: a page design in plastic, with the measures of this make.
/// </summary>
/// <param name="Design">The pockets it is welded into.</param>
/// <param name="Outer">Outer size: the body, the ring strip and the welds around.</param>
/// <param name="RingStrip">Width of the punched strip on the ring side.</param>
/// <param name="ClearSizes">
/// The measured clear size of a pocket by its nominal size, upright as in the design; a size that was not measured
/// is taken to hold its nominal size exactly.
/// </param>
/// <param name="Ease">How much smaller than the clear pocket a piece is cut so that it slides in.</param>
public sealed record Protector(
    PageDesign Design,
    Size Outer,
    Length RingStrip,
    ImmutableDictionary<Size, Size> ClearSizes,
    Length Ease)
{
    /// <summary>5/8 in, common practice; editable.</summary>
    public static Length DefaultRingStrip => Length.FromInches(5, 8);

    /// <summary>1/32 in, common practice; editable.</summary>
    public static Length DefaultEase => Length.FromInches(1, 32);

    /// <summary>
    /// The outer size to start from: a 6x8 protector is 6 3/4 x 8 1/4 in (common practice); other bodies are given
    /// the same allowance of 3/4 in and 1/4 in until the keeper measures one.
    /// </summary>
    public static Size UsualOuter(Size body) =>
        new(body.Width + Length.FromInches(3, 4), body.Height + Length.FromInches(1, 4));

    /// <summary>An unmeasured protector of a design.</summary>
    public static Protector Unmeasured(PageDesign design) =>
        new(design, UsualOuter(design.Body), DefaultRingStrip, ImmutableDictionary<Size, Size>.Empty, DefaultEase);

    /// <summary>
    /// The size a piece for this pocket is cut to: min(nominal, clear − ease) each way. Nominal is not real: pockets
    /// are often a little under their name, so a nominal card has to be trimmed. Common practice, arithmetic.
    /// </summary>
    public Size CutSize(Size nominal)
    {
        if (!ClearSizes.TryGetValue(nominal, out var clear))
        {
            return nominal;
        }

        return new Size(
            Length.Min(nominal.Width, clear.Width - Ease),
            Length.Min(nominal.Height, clear.Height - Ease));
    }

    /// <summary>
    /// Where the body's top left corner lies inside the outer size on one face. The ring strip is at the left of a
    /// front and at the right of a back; what is left over is weld, equal above and below.
    /// </summary>
    public (Length X, Length Y) BodyOrigin(LeafSide side)
    {
        var welds = Outer.Width - Design.Body.Width - RingStrip;
        var y = (Outer.Height - Design.Body.Height) / 2;
        return side == LeafSide.Front ? (RingStrip, y) : (welds, y);
    }

    /// <summary>
    /// Refuses measures that cannot be: an outer size smaller than body and ring strip, or a clear size that leaves
    /// no piece or is more than half an inch off its name.
    /// </summary>
    public Protector Checked()
    {
        if (RingStrip < Length.Zero || Ease < Length.Zero || Ease > Length.FromInches(1, 4))
        {
            throw new MeasureException("The ring strip cannot be negative, and the ease must be between 0 and 1/4 in.");
        }

        if (Outer.Width < Design.Body.Width + RingStrip || Outer.Height < Design.Body.Height)
        {
            throw new MeasureException(
                $"The outer size {MeasureText.Show(Outer, MeasureSystem.Inches)} is smaller than the page body with its ring strip.");
        }

        var tolerance = Length.FromInches(1, 2);
        foreach (var (nominal, clear) in ClearSizes)
        {
            if (Off(nominal.Width, clear.Width) > tolerance || Off(nominal.Height, clear.Height) > tolerance)
            {
                throw new MeasureException(
                    $"A clear size of {MeasureText.Show(clear, MeasureSystem.Inches)} is too far from a {nominal} pocket: measure again, width first.");
            }
        }

        return this;

        static Length Off(Length a, Length b) => new(Math.Abs((a - b).Emu));
    }
}
