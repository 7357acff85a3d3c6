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
    Length Ease
)
{
    /// <summary>What it is beside its measures.</summary>
    public ProtectorForm Form { get; init; } = ProtectorForm.Plain;

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
    /// A page outside the pockets, cut to the outer size of the protectors it hangs between so that it turns with them.
    /// Both faces are one place of that size. Common practice.
    /// </summary>
    public static Protector Sheet(string key, Size outer, Length ringStrip) =>
        new(
            new PageDesign(key, $"Page outside the pockets, {outer}", outer, [Whole(outer)]),
            outer,
            ringStrip,
            ImmutableDictionary<Size, Size>.Empty,
            DefaultEase
        )
        {
            Form = new ProtectorForm
            {
                Kind = LeafKind.Sheet,
                Name = $"Page outside the pockets, {outer}",
                Thickness = ProtectorForm.UsualThickness(LeafKind.Sheet),
            },
        };

    /// <summary>
    /// A sheet that folds in: its front is one picture over the whole sheet; its back has the page behind it and the
    /// flap, which lies on top when it is folded and is covered with a strip. The flap is the sheet's width less the
    /// fold distance. Common practice, arithmetic: a 6x8 folded 3 1/2 in from the ring edge leaves a flap of 2 1/2 in.
    /// </summary>
    public static Protector FoldOut(string key, Size sheet, Length fold, Length ringStrip)
    {
        var flap = sheet.Width - fold;
        if (!sheet.IsPositive || flap < Alterations.Narrowest)
        {
            throw new RuleException(
                $"A sheet {sheet.Width} wide that is folded {fold} from the ring edge leaves no flap of "
                    + $"{Alterations.Narrowest} or more. Nothing was changed."
            );
        }

        if (fold <= ringStrip)
        {
            throw new RuleException(
                $"The fold must clear the ring strip of {ringStrip}; {fold} does not. Nothing was changed."
            );
        }

        if (flap > fold - ringStrip)
        {
            throw new RuleException(
                $"The flap would be {flap} wide and reach the rings: only {fold - ringStrip} lie between fold and "
                    + "ring strip. Nothing was changed: fold farther out or cut the sheet narrower."
            );
        }

        var name = $"Fold-out {sheet}, folded {fold} from the rings";
        var design = new PageDesign(key, name, sheet, [Whole(sheet)])
        {
            OfBack =
            [
                new Pocket("page", new Rect(Length.Zero, Length.Zero, fold, sheet.Height)),
                new Pocket("flap", new Rect(fold, Length.Zero, flap, sheet.Height)),
            ],
        };
        return new Protector(design, sheet, ringStrip, ImmutableDictionary<Size, Size>.Empty, DefaultEase)
        {
            Form = new ProtectorForm
            {
                Kind = LeafKind.FoldOut,
                Name = name,
                Notation = sheet.ToString(),
                Fold = fold,
                Thickness = 2 * ProtectorForm.UsualThickness(LeafKind.FoldOut),
            },
        };
    }

    /// <summary>A leaf that holds nothing in pockets: a clear divider or the envelope.</summary>
    public static Protector WithoutPockets(string key, LeafKind kind, Size outer, Length ringStrip)
    {
        var name = kind == LeafKind.Envelope ? "Envelope for keepsakes" : "Clear divider";
        return new Protector(
            new PageDesign(key, name, outer, []),
            outer,
            ringStrip,
            ImmutableDictionary<Size, Size>.Empty,
            DefaultEase
        )
        {
            Form = new ProtectorForm
            {
                Kind = kind,
                Name = name,
                Thickness = ProtectorForm.UsualThickness(kind),
            },
        };
    }

    /// <summary>Hung in the same rings as another: the same strip, side and holes.</summary>
    public Protector Like(Protector other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return this with
        {
            RingStrip = other.RingStrip,
            Form = Form with { Rings = other.Form.Rings, Holes = other.Form.Holes },
        };
    }

    /// <summary>How wide a leaf lies in the album: a fold-out is folded in.</summary>
    public Length WidthInAlbum => Form.Fold ?? Outer.Width;

    /// <summary>
    /// The part of the page behind it that a smaller leaf hides when it is turned onto it, beside the rings; null for a
    /// leaf that is as large as that page.
    /// </summary>
    public Size? Hides(Size pageBehind) =>
        WidthInAlbum < pageBehind.Width || Outer.Height < pageBehind.Height
            ? new Size(Length.Min(WidthInAlbum, pageBehind.Width), Length.Min(Outer.Height, pageBehind.Height))
            : null;

    private static Pocket Whole(Size size) => new("1", new Rect(Length.Zero, Length.Zero, size));

    /// <summary>
    /// The size a piece for this pocket is cut to: min(nominal, clear − ease) each way. Nominal is not real: pockets
    /// are often a little under their name, so a nominal card has to be trimmed. Common practice, arithmetic.
    /// </summary>
    public Size CutSize(Size nominal) =>
        ClearSizes.TryGetValue(nominal, out var clear) ? CutSize(nominal, clear) : nominal;

    /// <summary>The same for one pocket, which an alteration may have given a room of its own.</summary>
    public Size CutSize(Pocket pocket)
    {
        ArgumentNullException.ThrowIfNull(pocket);
        return pocket.Clear is { } clear ? CutSize(pocket.Nominal, clear) : CutSize(pocket.Nominal);
    }

    /// <summary>
    /// The room inside a pocket: as measured, also where it was altered since, else its nominal size.
    /// </summary>
    public Size ClearSize(Pocket pocket)
    {
        ArgumentNullException.ThrowIfNull(pocket);
        return pocket.Clear ?? (ClearSizes.TryGetValue(pocket.Nominal, out var clear) ? clear : pocket.Nominal);
    }

    private Size CutSize(Size nominal, Size clear) =>
        new(Length.Min(nominal.Width, clear.Width - Ease), Length.Min(nominal.Height, clear.Height - Ease));

    /// <summary>
    /// Where the body's top left corner lies inside the outer size on one face. With the rings at the left, the ring
    /// strip is at the left of a front and at the right of a back; what is left over is weld, equal above and below.
    /// A page outside the pockets has no welds: its body is the whole of it.
    /// </summary>
    public (Length X, Length Y) BodyOrigin(LeafSide side)
    {
        if (Form.Kind != LeafKind.Pockets)
        {
            return (Length.Zero, Length.Zero);
        }

        var welds = Outer.Width - Design.Body.Width - RingStrip;
        var y = (Outer.Height - Design.Body.Height) / 2;
        return AtLeft(side) ? (RingStrip, y) : (welds, y);
    }

    /// <summary>Where the ring strip begins on one face.</summary>
    public Length RingStripX(LeafSide side) => AtLeft(side) ? Length.Zero : Outer.Width - RingStrip;

    /// <summary>The middle of each hole on one face; none until a pattern is known.</summary>
    public ImmutableArray<(Length X, Length Y)> HolesOn(LeafSide side) =>
        Form.Holes is not { } holes
            ? []
            :
            [
                .. holes
                    .FromTop(Outer.Height)
                    .Where(top => top < Outer.Height)
                    .Select(top => (AtLeft(side) ? holes.FromEdge : Outer.Width - holes.FromEdge, top)),
            ];

    private bool AtLeft(LeafSide side) => (side == LeafSide.Front) == (Form.Rings == RingSide.Left);

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

        if (Form.Kind == LeafKind.FoldOut)
        {
            _ = FoldOut(Design.Key, Outer, Form.Fold!.Value, RingStrip);
        }

        if (Form.Thickness < Length.Zero || Form.Thickness > Length.FromMillimetres(20))
        {
            throw new MeasureException("A leaf is 0 to 20 mm thick. Nothing was changed.");
        }

        _ = Form.Holes?.CheckedOn(Outer.Height, RingStrip);
        if (
            Form.Kind == LeafKind.Pockets
            && (Outer.Width < Design.Body.Width + RingStrip || Outer.Height < Design.Body.Height)
        )
        {
            throw new MeasureException(
                $"The outer size {MeasureText.Show(Outer, MeasureSystem.Inches)} is smaller than the page body with "
                    + "its ring strip."
            );
        }

        var tolerance = Length.FromInches(1, 2);
        foreach (var (nominal, clear) in ClearSizes)
        {
            if (Off(nominal.Width, clear.Width) > tolerance || Off(nominal.Height, clear.Height) > tolerance)
            {
                throw new MeasureException(
                    $"A clear size of {MeasureText.Show(clear, MeasureSystem.Inches)} is too far from a {nominal} "
                        + "pocket: measure again, width first."
                );
            }
        }

        return this;

        static Length Off(Length a, Length b) => new(Math.Abs((a - b).Emu));
    }
}
