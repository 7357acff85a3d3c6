using System.Globalization;
using System.Text.RegularExpressions;
using CsCheck;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Tests.Measures;

/// <summary>Shapes that pieces are cut to, measured again from the path they are drawn with.</summary>
public sealed partial class OutlineTests
{
    private static readonly Gen<(CutShape Shape, Rect Room, Length Corner, Length By)> Any = Gen.Select(
        Gen.Enum<CutShape>(),
        Gen.Int[40, 300],
        Gen.Int[40, 300],
        Gen.Int[0, 18],
        Gen.Int[1, 9],
        (shape, w, h, corner, by) =>
            (
                shape,
                new Rect(Mm(3), Mm(5), new Size(Mm(w), Mm(h))),
                shape == CutShape.Rectangle ? Mm(corner) : Length.Zero,
                Mm(by)
            )
    );

    private static Length Mm(int mm) => Length.FromMillimetres(mm);

    [Trait("Duration", "Long")]
    [Fact]
    public void A_mat_peeps_out_alike_all_around()
    {
        Any.Sample(
            (shape, room, corner, by) =>
            {
                var outer = Outline.In(room, shape, corner);
                var inner = outer.Inset(by);
                if (!inner.IsWhole)
                {
                    return;
                }

                var edge = Points(inner.Path(), 32);
                var around = Points(outer.Path(), 500).Where(o => !IsOnTheCuttingEdge(outer, o.Y)).ToList();
                foreach (var point in edge)
                {
                    // A half circle shares the edge that cuts it, so nothing peeps out there.
                    if (IsOnTheCuttingEdge(inner, point.Y))
                    {
                        continue;
                    }

                    var nearest = Math.Sqrt(around.Min(o => Square(o.X - point.X) + Square(o.Y - point.Y)));
                    // Round corners that become square have their points further from the old round ones.
                    var more = corner > Length.Zero && corner < by ? by.Points * 0.45 : 0;
                    (nearest / 72 * 25.4).ShouldBeInRange(
                        (double)by.Millimetres - 0.12,
                        (double)by.Millimetres + 0.12 + (more / 72 * 25.4),
                        $"{shape} {room} {corner}"
                    );
                }
            },
            iter: 150
        );

        static bool IsOnTheCuttingEdge(Outline outline, double y) =>
            outline.Shape switch
            {
                CutShape.HalfCircleHanging => y < outline.Bounds.Y.Points + 6,
                CutShape.HalfCircleStanding => y > outline.Bounds.Bottom.Points - 6,
                _ => false,
            };
    }

    [Fact]
    public void A_shape_lies_in_its_bounding_box_and_its_path_has_the_area_of_the_formula()
    {
        Any.Sample(
            (shape, room, corner, _) =>
            {
                var outline = Outline.In(room, shape, corner);
                room.Contains(outline.Bounds).ShouldBeTrue();

                var points = Points(outline.Path(), 2_000);
                points.Min(p => p.X).ShouldBe(outline.Bounds.X.Points, 0.01);
                points.Max(p => p.X).ShouldBe(outline.Bounds.Right.Points, 0.01);
                points.Min(p => p.Y).ShouldBe(outline.Bounds.Y.Points, 0.01);
                points.Max(p => p.Y).ShouldBe(outline.Bounds.Bottom.Points, 0.01);
                // The shoelace formula over the points of the path.
                var twice = 0.0;
                for (var i = 0; i < points.Count; i++)
                {
                    var (a, b) = (points[i], points[(i + 1) % points.Count]);
                    twice += (a.X * b.Y) - (b.X * a.Y);
                }

                (Math.Abs(twice) / 2 / 5184).ShouldBe(outline.AreaSquareInches, 0.002 * outline.AreaSquareInches);
            },
            iter: 500
        );
    }

    [Fact]
    public void The_circle_of_a_six_by_eight_page_and_its_mat_are_concentric()
    {
        var page = new Rect(Length.Zero, Length.Zero, Size.FromInches(6, 8));
        var mat = Outline.In(page, CutShape.Circle, Length.Zero);
        var print = mat.Inset(Length.FromInches(3, 4));
        print.Bounds.ShouldBe(new Rect(Length.FromInches(3, 4), Length.FromInches(7, 4), Size.FromInches(4.5m, 4.5m)));
        (mat.Bounds.X + (mat.Bounds.Width / 2)).ShouldBe(print.Bounds.X + (print.Bounds.Width / 2));
    }

    private static double Square(double x) => x * x;

    /// <summary>Reads a path by itself, as SVG has it: moves, lines, arcs of circles in absolute coordinates.</summary>
    private static List<(double X, double Y)> Points(string path, int perArc)
    {
        var points = new List<(double X, double Y)>();
        var (x, y) = (0.0, 0.0);
        foreach (Match part in Commands().Matches(path))
        {
            var n = Numbers()
                .Matches(part.Groups[2].Value)
                .Select(m => double.Parse(m.Value, CultureInfo.InvariantCulture))
                .ToArray();
            var (fromX, fromY) = (x, y);
            switch (part.Groups[1].Value)
            {
                case "A":
                    (x, y) = (n[5], n[6]);
                    points.AddRange(Arc(fromX, fromY, x, y, n[0], n[4] > 0, perArc));
                    continue;
                case "H":
                    x = n[0];
                    break;
                case "V":
                    y = n[0];
                    break;
                case "Z":
                    continue;
                default:
                    (x, y) = (n[0], n[1]);
                    break;
            }

            if (part.Groups[1].Value == "M")
            {
                points.Add((x, y));
                continue;
            }

            points.AddRange(
                Enumerable
                    .Range(1, perArc)
                    .Select(i => (fromX + ((x - fromX) * i / perArc), fromY + ((y - fromY) * i / perArc)))
            );
        }

        return points;
    }

    /// <summary>The arc of a circle between two points; source: SVG 2, B.2.4.</summary>
    private static IEnumerable<(double X, double Y)> Arc(
        double x1,
        double y1,
        double x2,
        double y2,
        double r,
        bool sweep,
        int count
    )
    {
        var (mx, my) = ((x1 + x2) / 2, (y1 + y2) / 2);
        var half = Math.Sqrt(Square(x2 - x1) + Square(y2 - y1)) / 2;
        var away = Math.Sqrt(Math.Max(0, (r * r) - (half * half)));
        var (ux, uy) = ((x2 - x1) / (2 * half), (y2 - y1) / (2 * half));
        var (cx, cy) = sweep ? (mx - (uy * away), my + (ux * away)) : (mx + (uy * away), my - (ux * away));
        var (a, b) = (Math.Atan2(y1 - cy, x1 - cx), Math.Atan2(y2 - cy, x2 - cx));
        if (sweep && b <= a + 1e-9)
        {
            b += 2 * Math.PI;
        }

        return Enumerable
            .Range(1, count)
            .Select(i => a + ((b - a) * i / count))
            .Select(t => (cx + (r * Math.Cos(t)), cy + (r * Math.Sin(t))));
    }

    [GeneratedRegex("([MLHVAZ])([^MLHVAZ]*)")]
    private static partial Regex Commands();

    [GeneratedRegex(@"-?[0-9]+(?:\.[0-9]+)?(?:E-?[0-9]+)?")]
    private static partial Regex Numbers();
}
