using System.Collections.Immutable;

namespace ZestyPocket.Core.Photos;

/// <summary>Finds the outline of a card in a photo in which it stands out from what it lies on.</summary>
public static class CardOutline
{
    /// <summary>How far a colour must be from that of the rim, of 441 in all. A choice of this program.</summary>
    private const double LeastDifference = 36;

    /// <summary>A card fills at least this share of its photo.</summary>
    private const double LeastShare = 0.04;

    /// <summary>One of several fills at least this share: sixty 2x2 on one photo.</summary>
    private const double LeastShareOfMany = 0.004;

    private const int MostCards = 60;

    /// <summary>The corners, or the whole picture when nothing stands out as a card would.</summary>
    /// <param name="colour">The colour of a pixel, each part 0 to 255.</param>
    public static CardCorners Find(int width, int height, Func<int, int, (byte R, byte G, byte B)> colour)
    {
        ArgumentNullException.ThrowIfNull(colour);
        var (part, sizes) = PartsOf(Differs(width, height, colour), width);
        var largest = Array.IndexOf(sizes, sizes.Max(), 1 % sizes.Length);
        return CornersOf(part, largest, width, height, LeastShare) ?? CardCorners.Whole;
    }

    /// <summary>
    /// The corners of each of several cards that lie apart from each other, in reading order; empty when nothing stands
    /// out. What lies inside the outline of another one is a part of its pattern.
    /// </summary>
    /// <param name="colour">The colour of a pixel, each part 0 to 255.</param>
    public static ImmutableArray<CardCorners> FindAll(
        int width,
        int height,
        Func<int, int, (byte R, byte G, byte B)> colour
    )
    {
        ArgumentNullException.ThrowIfNull(colour);
        var (part, sizes) = PartsOf(Differs(width, height, colour), width);
        var found = Enumerable
            .Range(1, sizes.Length - 1)
            .Where(p => sizes[p] >= LeastShareOfMany * width * height / 4)
            .OrderByDescending(p => sizes[p])
            .Take(MostCards)
            .Select(p => CornersOf(part, p, width, height, LeastShareOfMany))
            .OfType<CardCorners>()
            .Select(c => (Corners: c, Box: BoxOf(c)))
            .ToList();
        var apart = found
            .Where(c => !found.Exists(o => o != c && o.Box.Contains(c.Box) && !c.Box.Contains(o.Box)))
            .ToList();
        // Rows as wide as half a card: what is photographed by hand does not lie in exact lines.
        var row = apart.Count == 0 ? 1 : apart.Average(c => c.Box.Height) / 2;
        return
        [
            .. apart
                .OrderBy(c => Math.Floor((c.Box.Top + (c.Box.Height / 2)) / row / 2))
                .ThenBy(c => c.Box.Left)
                .Select(c => c.Corners),
        ];
    }

    private readonly record struct Box(double Left, double Top, double Right, double Bottom)
    {
        public double Height => Bottom - Top;

        public bool Contains(Box other) =>
            Left <= other.Left && Top <= other.Top && Right >= other.Right && Bottom >= other.Bottom;
    }

    private static Box BoxOf(CardCorners corners) =>
        new(corners.All.Min(c => c.X), corners.All.Min(c => c.Y), corners.All.Max(c => c.X), corners.All.Max(c => c.Y));

    private static bool[] Differs(int width, int height, Func<int, int, (byte R, byte G, byte B)> colour)
    {
        var rim = Rim(width, height, colour);
        var differs = new bool[width * height];
        for (var y = 0; y < height; y++)
        {
            for (var x = 0; x < width; x++)
            {
                var (r, g, b) = colour(x, y);
                var (dr, dg, db) = (r - rim.R, g - rim.G, b - rim.B);
                differs[(y * width) + x] = (dr * dr) + (dg * dg) + (db * db) > LeastDifference * LeastDifference;
            }
        }

        return differs;
    }

    /// <summary>The corners of a connected part; null when it is no card.</summary>
    private static CardCorners? CornersOf(int[] part, int number, int width, int height, double leastShare)
    {
        var edge = EdgeOf(part, number, width, height);
        return edge.Count >= 40 && Quadrilateral(Hull(edge)) is { } rough && Area(rough) >= leastShare * width * height
            ? InOrder(Refined(rough, edge), width, height)
            : null;
    }

    private static (double R, double G, double B) Rim(
        int width,
        int height,
        Func<int, int, (byte R, byte G, byte B)> colour
    )
    {
        var along = Enumerable
            .Range(0, width)
            .SelectMany(x => new[] { colour(x, 0), colour(x, height - 1) })
            .Concat(Enumerable.Range(0, height).SelectMany(y => new[] { colour(0, y), colour(width - 1, y) }))
            .ToList();
        return (Middle(c => c.R), Middle(c => c.G), Middle(c => c.B));

        double Middle(Func<(byte R, byte G, byte B), byte> part) =>
            along.Select(part).Order().ElementAt(along.Count / 2);
    }

    /// <summary>The connected parts, numbered from 1, and how many cells each has.</summary>
    private static (int[] Part, int[] Sizes) PartsOf(bool[] differs, int width)
    {
        var (part, sizes) = (new int[differs.Length], new List<int> { 0 });
        var open = new Stack<int>();
        for (var start = 0; start < differs.Length; start++)
        {
            if (!differs[start] || part[start] != 0)
            {
                continue;
            }

            var (count, size) = (sizes.Count, 0);
            open.Push(start);
            part[start] = count;
            while (open.TryPop(out var at))
            {
                size++;
                var x = at % width;
                Take(x > 0 ? at - 1 : -1, count);
                Take(x < width - 1 ? at + 1 : -1, count);
                Take(at - width, count);
                Take(at + width, count);
            }

            sizes.Add(size);
        }

        return (part, [.. sizes]);

        void Take(int next, int count)
        {
            if (next >= 0 && next < differs.Length && differs[next] && part[next] == 0)
            {
                part[next] = count;
                open.Push(next);
            }
        }
    }

    /// <summary>The outermost cells of a part, row by row and column by column.</summary>
    private static List<(double X, double Y)> EdgeOf(int[] part, int number, int width, int height)
    {
        // A cell's outer side, not its middle, is where the card ends.
        var edge = new List<(double X, double Y)>();
        var (left, right, top, bottom) = (new int[height], new int[height], new int[width], new int[width]);
        Array.Fill(left, -1);
        Array.Fill(top, -1);
        for (var at = 0; at < part.Length; at++)
        {
            if (part[at] == number && number > 0)
            {
                var (x, y) = (at % width, at / width);
                left[y] = left[y] < 0 ? x : left[y];
                top[x] = top[x] < 0 ? y : top[x];
                (right[y], bottom[x]) = (x + 1, y + 1);
            }
        }

        for (var y = 0; y < height; y++)
        {
            if (left[y] >= 0)
            {
                edge.Add((left[y], y + 0.5));
                edge.Add((right[y], y + 0.5));
            }
        }

        for (var x = 0; x < width; x++)
        {
            if (top[x] >= 0)
            {
                edge.Add((x + 0.5, top[x]));
                edge.Add((x + 0.5, bottom[x]));
            }
        }

        return edge;
    }

    /// <summary>The convex hull, clockwise on the screen. Source: Andrew 1979, monotone chain (from memory).</summary>
    private static List<(double X, double Y)> Hull(List<(double X, double Y)> points)
    {
        var sorted = points.Distinct().OrderBy(p => p.X).ThenBy(p => p.Y).ToList();
        return [.. Half(sorted), .. Half(Enumerable.Reverse(sorted))];

        static List<(double X, double Y)> Half(IEnumerable<(double X, double Y)> along)
        {
            var half = new List<(double X, double Y)>();
            foreach (var p in along)
            {
                while (half.Count > 1 && Cross(half[^2], half[^1], p) <= 0)
                {
                    half.RemoveAt(half.Count - 1);
                }

                half.Add(p);
            }

            half.RemoveAt(half.Count - 1);
            return half;
        }
    }

    /// <summary>The largest quadrilateral of hull points: for each diagonal the farthest on either side.</summary>
    private static (double X, double Y)[]? Quadrilateral(List<(double X, double Y)> hull)
    {
        (double X, double Y)[]? best = null;
        var largest = 0.0;
        for (var i = 0; i < hull.Count; i++)
        {
            for (var j = i + 2; j < hull.Count; j++)
            {
                var (a, one) = Farthest(i, j, i + 1, j);
                var (b, other) = Farthest(i, j, j + 1, hull.Count + i);
                if (a >= 0 && b >= 0 && one + other > largest)
                {
                    (best, largest) = ([hull[i], hull[a], hull[j], hull[b]], one + other);
                }
            }
        }

        return best;

        // Which of the points from one to another lies farthest from the diagonal, and how far.
        (int At, double Far) Farthest(int i, int j, int from, int until)
        {
            var found = (At: -1, Far: 0.0);
            for (var k = from; k < until; k++)
            {
                var far = Math.Abs(Cross(hull[i], hull[j], hull[k % hull.Count]));
                found = far > found.Far ? (k % hull.Count, far) : found;
            }

            return found;
        }
    }

    /// <summary>Each side as the line that fits the points along it best; their crossings are the corners.</summary>
    private static (double X, double Y)[] Refined((double X, double Y)[] rough, List<(double X, double Y)> edge)
    {
        var lines = Enumerable.Range(0, 4).Select(i => Fitted(rough[i], rough[(i + 1) % 4], edge)).ToList();
        return [.. Enumerable.Range(0, 4).Select(i => Crossing(lines[(i + 3) % 4], lines[i]) ?? rough[i])];
    }

    /// <summary>A line as a point and a direction: through the points near a side, away from its ends.</summary>
    private static (double X, double Y, double Dx, double Dy) Fitted(
        (double X, double Y) from,
        (double X, double Y) to,
        List<(double X, double Y)> edge
    )
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var length = Math.Sqrt((dx * dx) + (dy * dy));
        (dx, dy) = (dx / length, dy / length);
        // Points of the rows tell steep sides, those of the columns flat ones.
        var near = edge.Where(p =>
            {
                var (px, py) = (p.X - from.X, p.Y - from.Y);
                var along = ((px * dx) + (py * dy)) / length;
                var ofRow = p.Y % 1 != 0;
                return along is > 0.06 and < 0.94
                    && Math.Abs((px * dy) - (py * dx)) < Math.Max(3, length / 60)
                    && ofRow == Math.Abs(dy) > Math.Abs(dx);
            })
            .ToList();
        if (near.Count < 8)
        {
            return (from.X, from.Y, dx, dy);
        }

        var (mx, my) = (near.Average(p => p.X), near.Average(p => p.Y));
        double xx = 0,
            xy = 0,
            yy = 0;
        foreach (var (x, y) in near)
        {
            xx += (x - mx) * (x - mx);
            xy += (x - mx) * (y - my);
            yy += (y - my) * (y - my);
        }

        var angle = Math.Atan2(2 * xy, xx - yy) / 2;
        return (mx, my, Math.Cos(angle), Math.Sin(angle));
    }

    private static (double X, double Y)? Crossing(
        (double X, double Y, double Dx, double Dy) a,
        (double X, double Y, double Dx, double Dy) b
    )
    {
        var turn = (a.Dx * b.Dy) - (a.Dy * b.Dx);
        if (Math.Abs(turn) < 0.05)
        {
            return null;
        }

        var t = (((b.X - a.X) * b.Dy) - ((b.Y - a.Y) * b.Dx)) / turn;
        return (a.X + (t * a.Dx), a.Y + (t * a.Dy));
    }

    /// <summary>Clockwise from the corner that is nearest to the top left of the picture.</summary>
    private static CardCorners InOrder((double X, double Y)[] corners, int width, int height)
    {
        var clockwise = Cross(corners[0], corners[1], corners[2]) > 0 ? corners : [.. corners.Reverse()];
        var first = Enumerable.Range(0, 4).MinBy(i => clockwise[i].X + clockwise[i].Y);
        var p = Enumerable
            .Range(0, 4)
            .Select(i => clockwise[(first + i) % 4])
            .Select(c => new PicturePoint(c.X / width, c.Y / height))
            .ToList();
        return new CardCorners(p[0], p[1], p[2], p[3]);
    }

    private static double Area((double X, double Y)[] p) =>
        Math.Abs(Cross(p[0], p[1], p[2])) / 2 + (Math.Abs(Cross(p[0], p[2], p[3])) / 2);

    private static double Cross((double X, double Y) a, (double X, double Y) b, (double X, double Y) c) =>
        ((b.X - a.X) * (c.Y - a.Y)) - ((b.Y - a.Y) * (c.X - a.X));
}
