using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Printing;

/// <summary>One edge-to-edge cut, in order of cutting. A cut down has equal x at both ends.</summary>
public readonly record struct CutLine(Length X1, Length Y1, Length X2, Length Y2);

/// <summary>
/// Finds the edge-to-edge cuts that free every piece: split at each line that no piece crosses, then each part by
/// itself. When a layout can be freed at all, this finds it, since a line that crosses nothing never does harm.
/// </summary>
public static class GuillotineCuts
{
    /// <summary>The cuts in order, or null when the pieces cannot all be freed by edge-to-edge cuts.</summary>
    public static IReadOnlyList<CutLine>? Of(Size sheet, IReadOnlyList<PackedPiece> pieces)
    {
        var cuts = new List<CutLine>();
        return Free(new Rect(Length.Zero, Length.Zero, sheet), [.. pieces.Select(p => p.Bounds)], cuts) ? cuts : null;
    }

    /// <summary>
    /// The cuts along the edge of the printable part, where a piece lies at it: paper goes on beyond, so these edges
    /// are cut too, and first of all, since they square the sheet up.
    /// </summary>
    public static IEnumerable<CutLine> AlongTheEdge(Size sheet, IReadOnlyList<PackedPiece> pieces)
    {
        ArgumentNullException.ThrowIfNull(pieces);
        if (pieces.Any(p => p.Bounds.Y == Length.Zero))
        {
            yield return new CutLine(Length.Zero, Length.Zero, sheet.Width, Length.Zero);
        }

        if (pieces.Any(p => p.Bounds.X == Length.Zero))
        {
            yield return new CutLine(Length.Zero, Length.Zero, Length.Zero, sheet.Height);
        }

        if (pieces.Any(p => p.Bounds.Right == sheet.Width))
        {
            yield return new CutLine(sheet.Width, Length.Zero, sheet.Width, sheet.Height);
        }

        if (pieces.Any(p => p.Bounds.Bottom == sheet.Height))
        {
            yield return new CutLine(Length.Zero, sheet.Height, sheet.Width, sheet.Height);
        }
    }

    private static bool Free(Rect part, List<Rect> pieces, List<CutLine> cuts)
    {
        if (pieces.Count == 0 || (pieces.Count == 1 && pieces[0] == part))
        {
            return true;
        }

        return LinesOf(part, pieces) switch
        {
            null => false,
            (true, var lines) => SplitDown(part, pieces, lines, cuts),
            (false, var lines) => SplitAcross(part, pieces, lines, cuts),
        };
    }

    /// <summary>
    /// The lines that cut a part next, and whether they run down it; null when none crosses no piece. The direction
    /// with fewer lines first: long strips, then pieces from the strips.
    /// </summary>
    internal static (bool Down, List<Length> Lines)? LinesOf(Rect part, List<Rect> pieces)
    {
        var down = Lines(pieces, r => (r.X, r.Right), part.X, part.Right);
        var across = Lines(pieces, r => (r.Y, r.Bottom), part.Y, part.Bottom);
        return down.Count == 0 && across.Count == 0 ? null
            : across.Count > 0 && (down.Count == 0 || across.Count <= down.Count) ? (false, across)
            : (true, down);
    }

    private static bool SplitDown(Rect part, List<Rect> pieces, List<Length> lines, List<CutLine> cuts)
    {
        cuts.AddRange(lines.Select(x => new CutLine(x, part.Y, x, part.Bottom)));
        return Between(part.X, part.Right, lines)
            .All(span =>
                Free(
                    part with
                    {
                        X = span.From,
                        Width = span.To - span.From,
                    },
                    [.. pieces.Where(p => p.X >= span.From && p.Right <= span.To)],
                    cuts
                )
            );
    }

    private static bool SplitAcross(Rect part, List<Rect> pieces, List<Length> lines, List<CutLine> cuts)
    {
        cuts.AddRange(lines.Select(y => new CutLine(part.X, y, part.Right, y)));
        return Between(part.Y, part.Bottom, lines)
            .All(span =>
                Free(
                    part with
                    {
                        Y = span.From,
                        Height = span.To - span.From,
                    },
                    [.. pieces.Where(p => p.Y >= span.From && p.Bottom <= span.To)],
                    cuts
                )
            );
    }

    /// <summary>Piece edges inside the part that no piece crosses.</summary>
    private static List<Length> Lines(
        List<Rect> pieces,
        Func<Rect, (Length From, Length To)> span,
        Length low,
        Length high
    )
    {
        var spans = pieces.ConvertAll(p => span(p));
        return
        [
            .. spans
                .SelectMany(s => ImmutableArray.Create(s.From, s.To))
                .Where(at => at > low && at < high && !spans.Exists(s => s.From < at && at < s.To))
                .Distinct()
                .Order(),
        ];
    }

    internal static IEnumerable<(Length From, Length To)> Between(Length low, Length high, List<Length> lines)
    {
        var from = low;
        foreach (var line in lines)
        {
            yield return (from, line);
            from = line;
        }

        yield return (from, high);
    }
}
