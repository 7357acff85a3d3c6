using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A way on a map.</summary>
/// <param name="AtLeast">It is only known from picture to picture, and drawn dotted.</param>
public sealed record MapWay(ImmutableArray<GeoPoint> Points, bool AtLeast);

/// <summary>What a map card shows.</summary>
/// <param name="Ways">In the order of time.</param>
/// <param name="Stops">Where it stopped or was photographed, each a small dot.</param>
/// <param name="Named">Places of the trip with their names.</param>
/// <param name="Words">Its line at the foot.</param>
public sealed record TripMap(
    ImmutableArray<MapWay> Ways,
    ImmutableArray<GeoPoint> Stops,
    ImmutableArray<(string Name, GeoPoint Place)> Named,
    string Words
)
{
    public IReadOnlyList<GeoPoint> Places =>
        [.. Ways.SelectMany(w => w.Points), .. Stops, .. Named.Select(n => n.Place)];
}

/// <summary>
/// A card with a way on a map: land and sea, borders, rivers, places, a scale bar, the way over them. Its colours are
/// those of the card's style.
/// </summary>
public static class MapCard
{
    private const double NamePt = TypeRange.SmallestEverPt;

    /// <summary>Room on the map for one name.</summary>
    private const double PointsForName = 2_600;

    private const int MostNames = 40;

    private const double EndRadius = 3;
    private const double TownRadius = 1;

    public static CardFace Draw(
        TripMap map,
        CardStyle style,
        Size cut,
        ITextShaper shaper,
        MeasureSystem measures,
        string heading,
        string? mark
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(style);
        ArgumentNullException.ThrowIfNull(shaper);
        var face = CardComposer.Journaling(string.Empty, style with { Ruled = false }, cut, shaper, heading, mark);
        var area = CardComposer.Areas(style, cut, heading: true)[0];
        // The words keep to a line or two at the foot, so the type is small and the map has the room.
        var foot = Copyfit.Fit(
            map.Words,
            area.Width,
            Math.Min(28, area.Height / 3),
            style.Type with
            {
                SmallestPt = TypeRange.SmallestEverPt,
                LargestPt = 10,
            },
            shaper
        );
        var high = map.Words.Length == 0 ? 0 : (foot.Lines.Length * foot.LeadingPt) + 6;
        var box = new MapBox(area.X, area.Y, Math.Max(1, area.Width), Math.Max(1, area.Height - high));
        face = face with
        {
            Runs =
            [
                .. face.Runs,
                .. foot.Lines.Select(l =>
                    TypeRun.Of(l, style.Type.Face, foot.SizePt, style.Ink) with
                    {
                        X = area.X + l.X,
                        Baseline = area.Y + area.Height - high + 6 + l.Baseline,
                    }
                ),
            ],
            Fit = foot,
        };
        return map.Places.Count == 0 || box.Width < 20 || box.Height < 20
            ? face
            : Drawn(face, map, style, MapFrame.For(map.Places, box), shaper, measures);
    }

    private static CardFace Drawn(
        CardFace face,
        TripMap map,
        CardStyle style,
        MapFrame frame,
        ITextShaper shaper,
        MeasureSystem measures
    )
    {
        var outline = MapOutline.World;
        var (sea, coast) = (Ornaments.Mix(style.Ink, style.Paper, 0.12), Ornaments.Mix(style.Ink, style.Paper, 0.5));
        var border = Ornaments.Mix(style.Ink, style.Paper, 0.35);
        var way = Rgb.Contrast(style.Accent, style.Paper) >= 1.5 ? style.Accent : style.Ink;
        var lines = map.Ways.SelectMany(w => frame.Line(w.Points).Select(l => (Line: l, w.AtLeast))).ToList();
        var shapes = ImmutableArray.CreateBuilder<InkShape>();
        shapes.Add(Area([frame.Globe()], sea));
        shapes.Add(Area(MapLand.Areas(frame, outline), style.Paper));
        Add(MapLand.Lines(frame, outline.Land), coast, 0.4);
        foreach (var (rivers, thickness) in RiversOf(frame, outline))
        {
            Add(MapLand.Lines(frame, rivers), Ornaments.Mix(style.Ink, style.Paper, 0.3), thickness);
        }

        Add(MapLand.Lines(frame, outline.Borders), border, 0.5);
        // A halo parts the way from what it crosses.
        Add([.. lines.Select(l => l.Line)], style.Paper, 3);
        Add([.. lines.Where(l => !l.AtLeast).Select(l => l.Line)], way, 1.5);
        Add([.. lines.Where(l => l.AtLeast).SelectMany(l => Dashes(l.Line))], way, 1.25);

        var (bar, barBox) = ScaleBar(frame, style, shaper, measures);
        var marks = Marks(map, frame);
        var names = Names(map, frame, style, shaper, outline, barBox, marks, [.. lines.Select(l => l.Line)]);
        return face with
        {
            // Ornaments of the family fill the room that is left; a map leaves none.
            Shapes = shapes.ToImmutable(),
            Rules = [.. face.Rules, .. bar.Rules],
            Discs =
            [
                .. face.Discs,
                .. names
                    .Where(n => !n.Label.Must)
                    .Select(n => new InkDisc(n.Label.At.X, n.Label.At.Y, TownRadius, 0, coast)),
                .. marks.Select(m => new InkDisc(m.At.X, m.At.Y, m.Radius, 0, way)),
                .. marks
                    .Where(m => m.Radius > 2)
                    .Select(m => new InkDisc(m.At.X, m.At.Y, m.Radius - 1, 0, style.Paper)),
            ],
            Runs =
            [
                .. face.Runs,
                .. bar.Runs,
                .. names.Select(n => new TypeRun(
                    style.Type.Face,
                    NamePt,
                    n.Box.X,
                    n.Box.Y + (shaper.Metrics(style.Type.Face).Ascent * NamePt),
                    n.Label.Name,
                    n.Label.Must ? style.Ink : Readable(style)
                )),
            ],
        };

        void Add(ImmutableArray<ImmutableArray<CardPoint>> drawn, Rgb ink, double thickness)
        {
            if (drawn.Any(l => l.Length > 1))
            {
                shapes.Add(new InkShape(PathOf(drawn, close: false), 0, 0, 1, ink, thickness) { RoundEnds = true });
            }
        }
    }

    /// <summary>Names that are not the trip's stand back, and can still be read (4.5 to 1, WCAG 2.2).</summary>
    private static Rgb Readable(CardStyle style)
    {
        var pale = Ornaments.Mix(style.Ink, style.Paper, 0.65);
        return Rgb.Contrast(pale, style.Paper) >= 4.5 ? pale : style.Ink;
    }

    private static IEnumerable<(ImmutableArray<OutlineLine> Rivers, double Thickness)> RiversOf(
        MapFrame frame,
        MapOutline outline
    )
    {
        // Fewer rivers the more of the globe is shown: all within some hundred kilometres, none on the world.
        var levels = frame.IsWorld
            ? 0
            : frame.SeenDegrees switch
            {
                < 4 => 3,
                < 12 => 2,
                < 35 => 1,
                _ => 0,
            };
        return outline.Rivers.Take(levels).Select((rivers, i) => (rivers, 0.8 - (0.2 * i)));
    }

    /// <summary>Begin and end are rings, stops and pictures dots.</summary>
    private static List<(CardPoint At, double Radius)> Marks(TripMap map, MapFrame frame)
    {
        var ends = map.Ways.Where(w => w.Points.Length > 0).ToList();
        return
        [
            .. map.Stops.Select(s => (frame.At(s), 1.6)),
            .. map.Named.Select(n => (frame.At(n.Place), 2.0)),
            .. ends.Take(1).Select(w => (frame.At(w.Points[0]), EndRadius)),
            .. ends.TakeLast(1).Select(w => (frame.At(w.Points[^1]), EndRadius)),
        ];
    }

    private static ImmutableArray<PlacedLabel> Names(
        TripMap map,
        MapFrame frame,
        CardStyle style,
        ITextShaper shaper,
        MapOutline outline,
        MapBox? bar,
        List<(CardPoint At, double Radius)> marks,
        IReadOnlyCollection<ImmutableArray<CardPoint>> ways
    )
    {
        var metrics = shaper.Metrics(style.Type.Face);
        var high = (metrics.Ascent + metrics.Descent) * NamePt;
        var own = map.Named.DistinctBy(n => n.Name).ToList();
        var taken = marks.Select(m => new MapBox(m.At.X - m.Radius, m.At.Y - m.Radius, 2 * m.Radius, 2 * m.Radius));
        var most = Math.Clamp((int)(frame.Box.Width * frame.Box.Height / PointsForName), 2, MostNames);
        return MapLabels.Place(
            own.Select(n => Want(n.Name, n.Place, must: true))
                .Concat(
                    Around(frame, outline)
                        .Where(p => !own.Exists(n => n.Name == p.Name))
                        .Take(most * 6)
                        .Select(p => Want(p.Name, p.Place, must: false))
                ),
            [.. taken, .. bar is { } box ? [box] : Array.Empty<MapBox>()],
            ways,
            frame.Box.Grown(-2),
            Math.Max(most, own.Count)
        );

        WantedLabel Want(string name, GeoPoint place, bool must) =>
            new(
                name,
                frame.At(place),
                must ? EndRadius : TownRadius,
                shaper.Shape(style.Type.Face, name).Ends[^1] * NamePt,
                high,
                must
            );
    }

    /// <summary>Places inside the box, the largest first; only names whose letters every face has.</summary>
    private static IEnumerable<NamedPlace> Around(MapFrame frame, MapOutline outline) =>
        outline.Places.Where(p =>
            (frame.IsWorld || MapProjection.DegreesBetween(frame.Projection.Middle, p.Place) <= frame.SeenDegrees)
            && frame.At(p.Place) is var at
            && frame.Box.Holds(at.X, at.Y)
            && p.Name.All(c => c < '\u0180')
        );

    private static (CardDrawing Bar, MapBox? Box) ScaleBar(
        MapFrame frame,
        CardStyle style,
        ITextShaper shaper,
        MeasureSystem measures
    )
    {
        // Where a kilometre is not as long everywhere on the map, a bar would lie.
        if (frame.IsWorld || frame.SeenDegrees > 25)
        {
            return (CardDrawing.Nothing, null);
        }

        var inMiles = measures == MeasureSystem.Inches;
        var unit = inMiles ? Distance.FromMiles(1) : Distance.FromKilometres(1);
        var (units, length) = frame.ScaleBar(unit, frame.Box.Width / 3);
        var text = string.Create(CultureInfo.InvariantCulture, $"{units:0.##} {(inMiles ? "mi" : "km")}");
        var (x, y) = (frame.Box.X + 5, frame.Box.Bottom - 5);
        var width = shaper.Shape(style.Type.Face, text).Ends[^1] * NamePt;
        return (
            new CardDrawing(
                [
                    new InkLine(x, y, x + length, y, 1, style.Ink),
                    new InkLine(x, y - 3, x, y, 0.75, style.Ink),
                    new InkLine(x + length, y - 3, x + length, y, 0.75, style.Ink),
                ],
                [new TypeRun(style.Type.Face, NamePt, x + 2, y - 3, text, style.Ink)]
            ),
            new MapBox(x - 1, y - 3 - NamePt, Math.Max(length, width + 2) + 2, NamePt + 5)
        );
    }

    private static InkShape Area(ImmutableArray<ImmutableArray<CardPoint>> rings, Rgb ink) =>
        new(PathOf(rings, close: true), 0, 0, 1, ink);

    /// <summary>Short strokes with gaps between them.</summary>
    private static IEnumerable<ImmutableArray<CardPoint>> Dashes(ImmutableArray<CardPoint> line)
    {
        const double Stroke = 3;
        const double Space = 2.5;
        var (stroke, left, drawing) = (new List<CardPoint> { line[0] }, Stroke, true);
        for (var i = 1; i < line.Length; i++)
        {
            var at = line[i - 1];
            for (var far = Math.Sqrt(Math.Pow(line[i].X - at.X, 2) + Math.Pow(line[i].Y - at.Y, 2)); far > 0; )
            {
                var step = Math.Min(left, far);
                at = new CardPoint(at.X + ((line[i].X - at.X) * step / far), at.Y + ((line[i].Y - at.Y) * step / far));
                far -= step;
                left -= step;
                if (drawing)
                {
                    stroke.Add(at);
                }

                if (left > 1e-9)
                {
                    continue;
                }

                if (drawing)
                {
                    yield return [.. stroke];
                    stroke.Clear();
                }

                drawing = !drawing;
                left = drawing ? Stroke : Space;
                if (drawing)
                {
                    stroke.Add(at);
                }
            }
        }

        if (drawing && stroke.Count > 1)
        {
            yield return [.. stroke];
        }
    }

    private static string PathOf(ImmutableArray<ImmutableArray<CardPoint>> lines, bool close)
    {
        var path = new StringBuilder();
        foreach (var line in lines.Where(l => l.Length > 1))
        {
            for (var i = 0; i < line.Length; i++)
            {
                path.Append(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{line[i].X:0.##} {line[i].Y:0.##}");
            }

            path.Append(close ? "Z" : "");
        }

        return path.ToString();
    }

    /// <summary>Lines and type drawn beside the rest of a card.</summary>
    private sealed record CardDrawing(ImmutableArray<InkLine> Rules, ImmutableArray<TypeRun> Runs)
    {
        public static CardDrawing Nothing { get; } = new([], []);
    }
}
