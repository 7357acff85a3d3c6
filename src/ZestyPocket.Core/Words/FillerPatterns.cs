using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace ZestyPocket.Core.Words;

/// <summary>
/// Patterns of filler cards: tiles and scatterings that run over every edge, in the colours of their style. The same
/// seed gives the same card.
/// </summary>
public static class FillerPatterns
{
    private delegate void Draw(Sheet sheet);

    private static readonly ImmutableSortedDictionary<string, Draw> Patterns = new Dictionary<string, Draw>
    {
        ["scales"] = s =>
            s.Tiles(
                27,
                13.5,
                true,
                (x, y) => s.Line(0, 1.5, $"M{x - 13.5} {y}a13.5 13.5 0 0 1 27 0").Fill(0, Disc(x, y - 5, 2.4))
            ),
        ["arches"] = s =>
            s.Tiles(
                30,
                20,
                true,
                (x, y) => s.Line(1, 1.6, $"M{x - 15} {y}a15 15 0 0 1 30 0").Line(0, 1.6, $"M{x - 8} {y}a8 8 0 0 1 16 0")
            ),
        ["dots"] = s => s.Tiles(18, 15.6, true, (x, y) => s.Fill(0, Disc(x, y, 3))),
        ["coins"] = s => s.Tiles(40, 34.6, true, (x, y) => s.Fill(1, Disc(x, y, 13)).Fill(0, Disc(x, y, 5))),
        ["stripes"] = s => s.Lines(18, 0, 6, slant: 1),
        ["pinstripes"] = s => s.Lines(9, 1, 1, slant: 0),
        ["chevrons"] = s =>
            s.Tiles(24, 16, false, (x, y) => s.Line(0, 3, $"M{x - 12} {y + 8}L{x} {y - 4}L{x + 12} {y + 8}")),
        ["crosses"] = s => s.Tiles(20, 20, true, (x, y) => s.Line(0, 1.2, $"M{x - 3.5} {y}h7M{x} {y - 3.5}v7")),
        ["squares"] = s => s.Tiles(14, 14, false, (x, y) => s.Line(1, 0.7, $"M{x} {y}h14v14")),
        ["waves"] = s => s.Tiles(40, 16, false, (x, y) => s.Line(0, 2, $"M{x} {y}q10 -12 20 0t20 0")),
        ["triangles"] = s =>
            s.Tiles(26, 22.5, true, (x, y) => s.Fill(s.Pick(3), $"M{x} {y - 9}L{x + 9} {y + 7}H{x - 9}Z")),
        ["diamonds"] = s =>
            s.Tiles(
                28,
                20,
                true,
                (x, y) => s.Fill(0, $"M{x} {y - 9}L{x + 8} {y}L{x} {y + 9}L{x - 8} {y}Z").Fill(2, Disc(x, y, 2))
            ),
        ["half-moons"] = s =>
            s.Tiles(
                30,
                30,
                true,
                (x, y) => s.Fill(s.Pick(2), Sheet.Turned("M-11 0a11 11 0 0 1 22 0Z", x, y, 90 * s.Pick(4)))
            ),
        ["slices"] = s =>
            s.Tiles(46, 40, true, (x, y) => s.Fill(0, Disc(x, y, 15)).Fill(2, Disc(x, y, 13)).Slices(x, y, 11.5)),
        ["leaves"] = s =>
            s.Tiles(
                30,
                26,
                true,
                (x, y) =>
                    s.Fill(s.Pick(2), Sheet.Turned("M0 11C-9 4-8-6 0-12C8-6 9 4 0 11Z", x, y, 45 + (90 * s.Pick(4))))
            ),
        ["weave"] = s => s.Tiles(32, 32, false, (x, y) => s.Line(0, 3, Weave(x, y))),
        ["bricks"] = s => s.Tiles(34, 16, true, (x, y) => s.Fill(s.Pick(2), $"M{x - 15} {y - 6}h30v12h-30Z")),
        ["honeycomb"] = s =>
            s.Tiles(
                31.2,
                27,
                true,
                (x, y) =>
                    s.Line(
                        0,
                        1.6,
                        $"M{x} {y - 15}L{x + 13} {y - 7.5}V{y + 7.5}L{x} {y + 15}L{x - 13} {y + 7.5}V{y - 7.5}Z"
                    )
            ),
        ["confetti"] = s =>
            s.Tiles(
                15,
                15,
                true,
                (x, y) =>
                    s.Line(
                        s.Pick(3),
                        2.6,
                        Sheet.Turned("M-3.5 0L3.5 0", x + s.Shift(4), y + s.Shift(4), 30 * s.Pick(6))
                    )
            ),
        ["terrazzo"] = s =>
            s.Tiles(
                21,
                19,
                true,
                (x, y) => s.Fill(s.Pick(3), s.Pebble(x + s.Shift(4), y + s.Shift(4), 3.5 + s.Shift(2.2)))
            ),
        ["ticks"] = s => s.Tiles(12, 40, false, s.Tick),
        ["contours"] = s => s.Contours(),
        ["seeds"] = s =>
            s.Tiles(
                16,
                14,
                true,
                (x, y) => s.Fill(0, Sheet.Turned("M0-5C2.4-2 2.4 3 0 5C-2.4 3-2.4-2 0-5Z", x, y, s.Shift(40)))
            ),
        ["stars"] = s =>
            s.Tiles(
                34,
                30,
                true,
                (x, y) => s.Fill(s.Pick(2), Sheet.Turned("M0-8L2-2L8 0L2 2L0 8L-2 2L-8 0L-2-2Z", x, y, s.Shift(30)))
            ),
    }.ToImmutableSortedDictionary(StringComparer.Ordinal);

    public static IEnumerable<string> Keys => Patterns.Keys;

    /// <summary>
    /// The shapes of a pattern on a card. Throws <see cref="RuleException"/> when there is no such pattern.
    /// </summary>
    /// <param name="width">Of the card, in points.</param>
    /// <param name="height">Of the card, in points.</param>
    public static ImmutableArray<InkShape> Of(string key, CardStyle style, double width, double height, int seed)
    {
        ArgumentNullException.ThrowIfNull(style);
        if (!Patterns.TryGetValue(key, out var draw))
        {
            throw new RuleException($"There is no pattern “{key}”. Nothing was changed.");
        }

        var (scale, left, top) = Cutting(seed);
        var sheet = new Sheet((width / scale) + left, (height / scale) + top, seed);
        draw(sheet);
        return sheet.Shapes(
            [style.Accent, Ornaments.Mix(style.Accent, style.Paper, 0.5), style.Ink],
            -left * scale,
            -top * scale,
            scale
        );
    }

    /// <summary>
    /// From how large a print of the pattern a card is cut, and where in it: the first seed has it as it is, every
    /// other one differently, so that a shuffle always shows.
    /// </summary>
    private static (double Scale, double Left, double Top) Cutting(int seed)
    {
        if (seed == FirstSeed)
        {
            return (1, 0, 0);
        }

        double[] scales = [0.8, 1.25, 0.65, 1.5, 1.1];
        var turn = (uint)seed;
        return (scales[turn % scales.Length], 7 * (turn % 6), 5 * (turn % 7));
    }

    /// <summary>Of a filler that nobody shuffled.</summary>
    public const int FirstSeed = 1;

    private static string Disc(double x, double y, double radius) => Ornaments.Disc(x, y, radius);

    /// <summary>Three strands across and three down, and again in the other two quarters of the tile.</summary>
    private static string Weave(double x, double y)
    {
        double[] strands = [4, 9, 14];
        return string.Concat(
            strands.Select(s =>
                Sheet.Text($"M{x} {y + s}h14M{x + 16} {y + s + 16}h14")
                + Sheet.Text($"M{x + s + 16} {y}v16M{x + s} {y + 16}v16")
            )
        );
    }

    /// <summary>Gathers paths by colour and thickness.</summary>
    private sealed class Sheet(double width, double height, int seed)
    {
        private readonly SortedDictionary<(int Order, int Colour, double Thickness), StringBuilder> _paths = [];
        private uint _state = unchecked((uint)seed * 2654435761u) | 1;
        private int _order;

        public Sheet Fill(int colour, FormattableString path) => Fill(colour, Text(path));

        public Sheet Fill(int colour, string path) => Add(colour, 0, path);

        public Sheet Line(int colour, double thickness, FormattableString path) => Add(colour, thickness, Text(path));

        public Sheet Line(int colour, double thickness, string path) => Add(colour, thickness, path);

        /// <summary>One of so many, by chance; every drawing of a tile takes the next.</summary>
        public int Pick(int count) => (int)(Next() * count);

        /// <summary>Up to so much either way, by chance.</summary>
        public double Shift(double most) => ((2 * Next()) - 1) * most;

        /// <summary>Draws a tile at every place of a grid that reaches over all edges.</summary>
        public void Tiles(double across, double down, bool offset, Action<double, double> tile)
        {
            for (var (y, row) = (-down, 0); y < height + (2 * down); y += down, row++)
            {
                for (var x = offset && row % 2 == 1 ? -across / 2 : -across; x < width + (2 * across); x += across)
                {
                    _order = 0;
                    tile(x, y);
                }
            }
        }

        /// <summary>
        /// A path around the origin, turned and moved; only moves, lines and curves in absolute coordinates.
        /// </summary>
        public static string Turned(string path, double x, double y, double degrees)
        {
            var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
            var turned = new StringBuilder();
            foreach (var (letter, numbers) in Commands(path))
            {
                turned.Append(letter);
                if (letter == 'a')
                {
                    var (dx, dy) = ((numbers[5] * cos) - (numbers[6] * sin), (numbers[5] * sin) + (numbers[6] * cos));
                    turned.Append(Text($"{numbers[0]} {numbers[1]} 0 {numbers[3]} {numbers[4]} {dx} {dy}"));
                    continue;
                }

                for (var i = 0; i + 1 < numbers.Count; i += 2)
                {
                    var (px, py) = (numbers[i], numbers[i + 1]);
                    turned.Append(Text($"{x + (px * cos) - (py * sin)} {y + (px * sin) + (py * cos)} "));
                }
            }

            return turned.ToString();
        }

        /// <summary>A pebble of five to seven corners.</summary>
        public string Pebble(double x, double y, double radius)
        {
            var corners = 5 + Pick(3);
            var points = Enumerable
                .Range(0, corners)
                .Select(i =>
                {
                    var (sin, cos) = Math.SinCos((i + (Shift(0.3))) * 2 * Math.PI / corners);
                    var r = radius * (0.8 + Shift(0.25));
                    return Text($"{x + (r * cos)} {y + (r * sin)}");
                });
            return $"M{string.Join('L', points)}Z";
        }

        /// <summary>Six segments of a slice of an orange.</summary>
        public void Slices(double x, double y, double radius)
        {
            for (var i = 0; i < 6; i++)
            {
                var (a, b, m) = ((i + 0.12) * Math.PI / 3, (i + 0.88) * Math.PI / 3, (i + 0.5) * Math.PI / 3);
                var (from, to) = (Ornaments.Polar(x, y, radius, a), Ornaments.Polar(x, y, radius, b));
                Fill(0, $"M{Ornaments.Polar(x, y, 2, m)}L{from}A{radius} {radius} 0 0 1 {to}Z");
            }
        }

        /// <summary>A tick of a tape measure, every fourth one longer.</summary>
        public void Tick(double x, double y) =>
            Line(0, 1.2, $"M{x} {y}v{((int)Math.Round(x / 12) % 4 == 0 ? 22.0 : 12.0)}");

        /// <summary>Lines from the head to the foot, leaning to the right by so much of the height.</summary>
        public void Lines(double step, int colour, double thickness, double slant)
        {
            for (var x = -slant * height; x < width + step; x += step)
            {
                Line(
                    colour,
                    thickness,
                    $"M{x - (slant * step)} {height + step}L{x + (slant * (height + step))} {-step}"
                );
            }
        }

        /// <summary>Lines of equal height around two hills.</summary>
        public void Contours()
        {
            var (ax, ay) = (width * (0.3 + Shift(0.15)), height * (0.35 + Shift(0.15)));
            var reach = Math.Sqrt((width * width) + (height * height));
            for (var r = 8.0; r < reach; r += 11)
            {
                var points = Enumerable
                    .Range(0, 73)
                    .Select(i =>
                    {
                        var (sin, cos) = Math.SinCos(i * Math.PI / 36);
                        var wave =
                            r
                            * (
                                1
                                + (0.16 * Math.Sin((3 * i * Math.PI / 36) + seed))
                                + (0.08 * Math.Cos((5 * i * Math.PI / 36) + (2 * seed)))
                            );
                        return Text($"{ax + (wave * cos)} {ay + (wave * sin)}");
                    });
                Line((int)(r / 11) % 4 == 0 ? 0 : 1, 1.1, $"M{string.Join('L', points)}Z");
            }
        }

        public ImmutableArray<InkShape> Shapes(Rgb[] colours, double x, double y, double scale) =>
            [
                .. _paths.Select(p => new InkShape(
                    p.Value.ToString(),
                    x,
                    y,
                    scale,
                    colours[p.Key.Colour],
                    p.Key.Thickness * scale
                )),
            ];

        private Sheet Add(int colour, double thickness, string path)
        {
            // What is drawn later on a tile lies over what was drawn before, on every tile.
            var key = (_order++, colour, thickness);
            if (!_paths.TryGetValue(key, out var paths))
            {
                _paths[key] = paths = new StringBuilder();
            }

            paths.Append(path);
            return this;
        }

        private double Next()
        {
            _state ^= _state << 13;
            _state ^= _state >> 17;
            _state ^= _state << 5;
            return _state / ((double)uint.MaxValue + 1);
        }

        public static string Text(FormattableString path) =>
            string.Format(
                CultureInfo.InvariantCulture,
                path.Format,
                [.. path.GetArguments().Select(a => a is double d ? (object)Math.Round(d, 2) : a!)]
            );

        private static IEnumerable<(char Letter, List<double> Numbers)> Commands(string path)
        {
            for (var at = 0; at < path.Length; )
            {
                var letter = path[at++];
                var until = at;
                while (until < path.Length && !char.IsLetter(path[until]))
                {
                    until++;
                }

                yield return (letter, Numbers(path[at..until]));
                at = until;
            }
        }

        private static List<double> Numbers(string text) =>
            [
                .. System
                    .Text.RegularExpressions.Regex.Matches(text, @"-?[0-9]*\.?[0-9]+")
                    .Select(m => double.Parse(m.Value, CultureInfo.InvariantCulture)),
            ];
    }
}
