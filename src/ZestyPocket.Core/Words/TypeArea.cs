using System.Collections.Immutable;

namespace ZestyPocket.Core.Words;

/// <summary>Something that lines of type go around; points from the card's top left corner.</summary>
public abstract record Obstacle
{
    /// <summary>The stretch it takes between two heights; null when it does not reach there.</summary>
    internal abstract (double From, double To)? Across(double top, double bottom);
}

/// <summary>A box in the way: a printed hour, a picture.</summary>
public sealed record BoxInTheWay(double X, double Y, double Width, double Height) : Obstacle
{
    internal override (double From, double To)? Across(double top, double bottom) =>
        bottom > Y && top < Y + Height ? (X, X + Width) : null;
}

/// <summary>A disc in the way: the half circle cut off at a card's edge.</summary>
public sealed record DiscInTheWay(double CentreX, double CentreY, double Radius) : Obstacle
{
    internal override (double From, double To)? Across(double top, double bottom)
    {
        var off =
            top <= CentreY && bottom >= CentreY ? 0 : Math.Min(Math.Abs(top - CentreY), Math.Abs(bottom - CentreY));
        if (off >= Radius)
        {
            return null;
        }

        var half = Math.Sqrt((Radius * Radius) - (off * off));
        return (CentreX - half, CentreX + half);
    }
}

/// <summary>
/// A place for type on a card: a column, with what is in its way. Points from the card's top left corner.
/// </summary>
public sealed record TypeArea(double X, double Y, double Width, double Height)
{
    /// <summary>
    /// The widest a line may be, in ems of its type; 0 for as wide as the area. About 30 ems are 65 letters. Common
    /// practice: 45 to 75 letters read best.
    /// </summary>
    public double MeasureEm { get; init; }

    /// <summary>
    /// Whether longer lines get more leading, as is common practice; else it is the style's for any line.
    /// </summary>
    public bool LeadingByMeasure { get; init; }

    /// <summary>Widest line at a size, in points.</summary>
    public double WidestPt(double sizePt) => MeasureEm > 0 ? Math.Min(Width, MeasureEm * sizePt) : Width;

    /// <summary>
    /// Distance of baselines at a size, in points. By measure it grows with the length of the line from 1.08 to 1.42
    /// times the size, in proportion to what the style asks for.
    /// </summary>
    /// <param name="leading">What the style asks for, as a multiple of the size.</param>
    public double LeadingPt(double sizePt, double leading) =>
        !LeadingByMeasure
            ? sizePt * leading
            : sizePt * Math.Clamp((1.06 + (0.0095 * WidestPt(sizePt) / sizePt)) * leading / UsualLeading, 1, 2);

    /// <summary>The leading of a style that leaves it to the measure.</summary>
    public const double UsualLeading = 1.3;

    public ImmutableArray<Obstacle> Obstacles { get; init; } = [];

    /// <summary>Lines are no longer than this is wide where they stand; null for the whole width of the area.</summary>
    public Measures.Outline? Inside { get; init; }

    /// <summary>Every line may be of another length.</summary>
    public bool IsUneven => Inside is not null || !Obstacles.IsEmpty;

    /// <summary>The widest free stretch of the column between two heights; of width 0 when nothing is free.</summary>
    public (double X, double Width) Slot(double top, double bottom)
    {
        var (left, right) = Inside is { } shape ? shape.Across(top, bottom) ?? (X, X) : (X, X + Width);
        if (Obstacles.IsEmpty)
        {
            return (left, right - left);
        }

        var free = new List<(double From, double To)> { (left, right) };
        foreach (var obstacle in Obstacles)
        {
            if (obstacle.Across(top, bottom) is { } taken)
            {
                free =
                [
                    .. free.SelectMany(f =>
                            new[] { (f.From, Math.Min(f.To, taken.From)), (Math.Max(f.From, taken.To), f.To) }
                        )
                        .Where(f => f.Item2 > f.Item1),
                ];
            }
        }

        var (from, to) = free.Count == 0 ? (X, X) : free.MaxBy(f => f.To - f.From);
        return (from, to - from);
    }

    /// <summary>A column parted into several of equal width.</summary>
    public ImmutableArray<TypeArea> Columns(int count, double gap)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(count, 1);
        var width = (Width - ((count - 1) * gap)) / count;
        return [.. Enumerable.Range(0, count).Select(i => this with { X = X + (i * (width + gap)), Width = width })];
    }
}
