using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing;

/// <summary>What lies where it is punched or folded.</summary>
public enum StrayPlace
{
    None,
    HoleStrip,
    Fold,
}

/// <summary>
/// On a page outside the pockets, what must stay of a picture keeps off the hole strip and off folds: nothing important
/// within 1/8 in of a fold. Common practice.
/// </summary>
public static class MustStay
{
    /// <summary>How far what matters keeps from a fold.</summary>
    public static Length ClearOfFold => Length.FromInches(1, 8);

    /// <summary>
    /// Where what must stay of a print lies wrong: its keep boxes, and where there are none its focus point.
    /// </summary>
    /// <param name="protector">The page outside the pockets.</param>
    /// <param name="side">The face the print lies on.</param>
    /// <param name="alterations">What was done to the leaf.</param>
    /// <param name="print">Where the print lies on that face, from its outer left edge: x and width count.</param>
    /// <param name="crop">The part of the picture that is printed.</param>
    /// <param name="pixels">The portrait photo.</param>
    /// <param name="focus">Where the eye goes, in fractions of the picture.</param>
    /// <param name="keep">What must stay, in fractions of the picture.</param>
    public static StrayPlace On(
        Protector protector,
        LeafSide side,
        LeafAlterations alterations,
        Rect print,
        Crop crop,
        PixelSize pixels,
        (double X, double Y) focus,
        IReadOnlyCollection<PictureBox> keep
    )
    {
        ArgumentNullException.ThrowIfNull(protector);
        ArgumentNullException.ThrowIfNull(keep);
        if (protector.Form.Kind is not (LeafKind.Sheet or LeafKind.FoldOut))
        {
            return StrayPlace.None;
        }

        var spans =
            keep.Count == 0
                ? [(From: At(focus.X), To: At(focus.X))]
                : keep.Select(b => (From: At(b.X), To: At(b.Right))).ToList();
        var strip = (From: protector.RingStripX(side), To: protector.RingStripX(side) + protector.RingStrip);
        if (spans.Any(s => s.To >= strip.From && s.From <= strip.To))
        {
            return StrayPlace.HoleStrip;
        }

        var folds = protector.MarksOn(side, alterations).Where(m => m.Kind == MarkKind.Fold).Select(m => m.X1);
        return folds.Any(fold => spans.Any(s => s.To > fold - ClearOfFold && s.From < fold + ClearOfFold))
            ? StrayPlace.Fold
            : StrayPlace.None;

        // From a fraction of the picture to a place on the face; what is cropped away lies beyond the print and does
        // not count.
        Length At(double fraction)
        {
            var x = Math.Clamp(((fraction * pixels.Width) - crop.Left) / crop.Width, 0, 1);
            return print.X + new Length((long)(x * print.Width.Emu));
        }
    }
}
