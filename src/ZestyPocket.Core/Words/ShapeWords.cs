using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>Words set inside an outline, every line as long as it is wide there.</summary>
public static class ShapeWords
{
    /// <summary>Where words stand inside an outline, kept so far in; points from its bounding box.</summary>
    public static TypeArea Area(Outline outline, Length inset)
    {
        var inner = outline.Inset(inset).Moved(-outline.Bounds.X, -outline.Bounds.Y);
        var b = inner.Bounds;
        // Where an edge cuts a half circle, the words keep clear of that edge too.
        var (top, foot) = (
            outline.Shape == CutShape.HalfCircleHanging ? inset.Points : 0,
            outline.Shape == CutShape.HalfCircleStanding ? inset.Points : 0
        );
        return new TypeArea(b.X.Points, b.Y.Points + top, b.Width.Points, Math.Max(0, b.Height.Points - top - foot))
        {
            Inside = inner,
        };
    }

    /// <summary>The words as large as they fit, each line in the middle of the outline there.</summary>
    public static FitOutcome Fit(string words, Outline outline, Length inset, TypeRange type, ITextShaper shaper)
    {
        var fit = Copyfit.Fit(words, [Area(outline, inset)], type, shaper);
        return fit with
        {
            Lines =
            [
                .. fit.Lines.Select((l, i) => l with { X = fit.Slots[i].X + ((fit.Slots[i].Width - l.Width) / 2) }),
            ],
        };
    }
}
