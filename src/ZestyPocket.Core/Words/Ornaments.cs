using System.Globalization;

namespace ZestyPocket.Core.Words;

/// <summary>Where a card has room for an ornament.</summary>
/// <param name="Over">It is over the words, not under them.</param>
internal readonly record struct FreeRoom(TypeArea Area, bool Over);

/// <summary>Ornaments and scenes of card styles, drawn as vectors in the room that words leave.</summary>
internal static class Ornaments
{
    /// <summary>Smaller in each way, in points, it is a blot, not an ornament.</summary>
    public const double Smallest = 44;

    /// <summary>Squared paper of a sixth of an inch.</summary>
    private const double SquarePt = 12;

    public static IEnumerable<InkShape> Of(CardStyle style, double width, double height, FreeRoom free) =>
        style.Plan!.Ornament switch
        {
            Ornament.Squares => Squares(style, width, height),
            Ornament.FineFrame => [Frame(style, width, height)],
            Ornament.Harbour when free.Area.Height >= Smallest => Harbour(style, width, height, free),
            Ornament.Stem when free.Area.Height >= Smallest => [Stem(style, free.Area)],
            Ornament.Segment when free is { Over: false, Area.Height: >= Smallest } => Segment(
                style,
                width,
                height,
                free.Area
            ),
            _ => [],
        };

    public static IEnumerable<InkShape> Squares(CardStyle style, double width, double height)
    {
        var path = string.Concat(
            Steps(width).Select(x => P($"M{x} 0V{height}")).Concat(Steps(height).Select(y => P($"M0 {y}H{width}")))
        );
        yield return new InkShape(path, 0, 0, 1, Mix(style.Ink, style.Paper, 0.1), 0.5);

        static IEnumerable<double> Steps(double length) =>
            Enumerable.Range(1, Math.Max(0, (int)(length / SquarePt))).Select(i => i * SquarePt);
    }

    /// <summary>A line of dashes downwards.</summary>
    public static string Dashes(double x, double top, double foot) =>
        string.Concat(
            Enumerable.Range(0, Math.Max(0, (int)((foot - top) / 7))).Select(i => P($"M{x} {top + (i * 7)}v2.5"))
        );

    public static InkShape Frame(CardStyle style, double width, double height)
    {
        var inset = Math.Min(10, Math.Min(width, height) * 0.06);
        return new InkShape(
            P($"M{inset} {inset}H{width - inset}V{height - inset}H{inset}Z"),
            0,
            0,
            1,
            Mix(style.Ink, style.Paper, 0.45),
            0.6
        );
    }

    /// <summary>Sky, sun, hills and water over or under the words, with a boat.</summary>
    public static IEnumerable<InkShape> Harbour(CardStyle style, double width, double height, FreeRoom room)
    {
        var (free, over) = room;
        var (top, bottom) = over ? (0, free.Y + free.Height) : (free.Y, height);
        var deep = bottom - top;
        var (pale, middle) = (Mix(style.Ink, style.Paper, 0.14), Mix(style.Ink, style.Paper, 0.4));
        var water = Mix(style.Ink, style.Paper, 0.66);
        var wave = width / 6;
        var line = bottom - (deep * (over ? 0.28 : 0.24));
        if (over)
        {
            yield return new InkShape(P($"M0 0H{width}V{line}H0Z"), 0, 0, 1, pale);
        }

        // The sun stays under what is printed over the scene.
        var sun = Math.Min(Math.Min(deep * 0.22, width * 0.16), Math.Max(0, line - free.Y) / 1.75);
        yield return new InkShape(Disc(width * 0.7, line - (sun * 0.75), sun), 0, 0, 1, style.Accent);
        // So do the hills.
        var hill = Math.Min(Math.Min(deep * 0.42, width * 0.26), Math.Max(0, line - free.Y) / 0.8);
        yield return new InkShape(
            P($"M0 {line}V{line - (hill * 0.55)}Q{width * 0.2} {line - (hill * 1.5)} {width * 0.46} {line}")
                + P($"Q{width * 0.7} {line - hill} {width} {line - (hill * 0.2)}V{line + 1}H0Z"),
            0,
            0,
            1,
            middle
        );
        var scallop = string.Concat(Enumerable.Range(0, 6).Select(i => P($"a{wave / 2} {wave / 2} 0 0 1 {-wave} 0")));
        yield return over
            ? new InkShape(P($"M0 {line}H{width}V{bottom - (wave / 2)}") + scallop + "Z", 0, 0, 1, water)
            : new InkShape(P($"M0 {line}H{width}V{height}H0Z"), 0, 0, 1, water);
        var boat = Math.Min(deep * 0.3, width * 0.2);
        yield return new InkShape("M-50 0H50L32 26H-32Z", width * 0.42, line - (boat * 0.1), boat / 100, style.Paper);
        yield return new InkShape("M2 -4V-80L48 -4Z", width * 0.42, line - (boat * 0.1), boat / 100, style.Paper);
        yield return new InkShape(
            "M-4 -4V-64L-38 -4Z",
            width * 0.42,
            line - (boat * 0.1),
            boat / 100,
            Mix(style.Accent, style.Paper, 0.55)
        );
    }

    /// <summary>A stem with five leaves in the lower right corner of the room.</summary>
    public static InkShape Stem(CardStyle style, TypeArea free)
    {
        const string path =
            "M33 92C35 62 35 34 41 4C37 34 37 62 36 92ZM34 68c-15-2-24-11-26-24 14 0 24 9 26 24zM36 52c13-3 21-11 "
            + "23-23-13 1-22 10-23 23zM36 36c-11-2-17-9-19-20 11 1 18 8 19 20zM40 20c7-2 11-7 12-14-8 1-12 7-12 14zM35 "
            + "82c10-2 16-8 18-16-10 0-17 7-18 16z";
        var high = Math.Min(free.Height, Math.Min(96, free.Width * 0.5));
        var scale = high / 94;
        return new InkShape(
            path,
            free.X + free.Width - (62 * scale),
            free.Y + free.Height - high,
            scale,
            Mix(style.Accent, style.Paper, 0.75)
        );
    }

    /// <summary>Half a slice of an orange rising from the lower right corner.</summary>
    public static IEnumerable<InkShape> Segment(CardStyle style, double width, double height, TypeArea free)
    {
        if (free.Y + free.Height < height * 0.7)
        {
            yield break;
        }

        var radius = Math.Min(height - free.Y, Math.Min(width, height) * 0.34);
        var (x, y) = (width, height);
        yield return new InkShape(Disc(x, y, radius), 0, 0, 1, style.Accent);
        yield return new InkShape(Disc(x, y, radius * 0.88), 0, 0, 1, Mix(style.Accent, style.Paper, 0.3));
        for (var i = 0; i < 3; i++)
        {
            var (a, b) = (Math.PI * (1 + ((i + 0.1) / 6)), Math.PI * (1 + ((i + 0.9) / 6)));
            var (r, s) = (radius * 0.8, radius * 0.1);
            yield return new InkShape(
                P($"M{Polar(x, y, s, (a + b) / 2)}L{Polar(x, y, r, a)}A{r} {r} 0 0 1 {Polar(x, y, r, b)}Z"),
                0,
                0,
                1,
                Mix(style.Accent, style.Paper, 0.8)
            );
        }
    }

    /// <summary>A point at a distance and an angle from another, as path data.</summary>
    public static string Polar(double x, double y, double radius, double angle) =>
        P($"{x + (radius * Math.Cos(angle))} {y + (radius * Math.Sin(angle))}");

    public static string Disc(double x, double y, double radius) =>
        P($"M{x - radius} {y}a{radius} {radius} 0 1 0 {2 * radius} 0a{radius} {radius} 0 1 0 {-2 * radius} 0Z");

    /// <summary>Ink thinned with paper: 1 is all ink.</summary>
    public static Rgb Mix(Rgb ink, Rgb paper, double share)
    {
        return new Rgb(Of(ink.R, paper.R), Of(ink.G, paper.G), Of(ink.B, paper.B));

        byte Of(byte a, byte b) => (byte)Math.Round((a * share) + (b * (1 - share)));
    }

    private static string P(FormattableString path) =>
        string.Format(
            CultureInfo.InvariantCulture,
            path.Format,
            [.. path.GetArguments().Select(a => a is double d ? (object)Math.Round(d, 3) : a!)]
        );
}
