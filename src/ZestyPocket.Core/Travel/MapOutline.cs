using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>A place with a name.</summary>
/// <param name="People">How many live there.</param>
public sealed record NamedPlace(string Name, GeoPoint Place, int People)
{
    private const string Near = "near ";

    /// <summary>What a place that is not quite there is called.</summary>
    public string NearIt => Near + Name;

    /// <summary>A name that only says what is near: no map writes it beside a point.</summary>
    public static bool IsNear(string name) => name.StartsWith(Near, StringComparison.Ordinal);
}

/// <summary>A run of points of the outline that lie near each other.</summary>
/// <param name="Middle">Of all of them.</param>
/// <param name="Degrees">None lies farther from the middle.</param>
public sealed record OutlineRun(ImmutableArray<GeoPoint> Points, GeoPoint Middle, double Degrees);

/// <summary>A line of the outline, or a ring when it ends where it began; land lies to the right of a ring.</summary>
public sealed record OutlineLine(ImmutableArray<OutlineRun> Runs)
{
    public IEnumerable<GeoPoint> Points => Runs.SelectMany(r => r.Points);
}

/// <summary>
/// The coast, borders, rivers and places that ship with the program, so that maps are drawn with no network. Sources:
/// coast and borders Natural Earth 1:10,000,000 (public domain); rivers GSHHG 2.3.7 (LGPL 3); places of 2,000 people
/// and more GeoNames (CC BY 4.0). <c>scripts/outline/make.mjs</c> made the file.
/// </summary>
public sealed class MapOutline
{
    /// <summary>Points of a run: few enough that most runs of a long coast lie outside a map.</summary>
    private const int RunPoints = 48;

    private const double Unit = 1000;

    private static readonly Lazy<MapOutline> Shipped = new(Read);

    private readonly ILookup<(int, int), NamedPlace> _byCell;

    private MapOutline(
        ImmutableArray<OutlineLine> land,
        ImmutableArray<OutlineLine> borders,
        ImmutableArray<ImmutableArray<OutlineLine>> rivers,
        ImmutableArray<NamedPlace> places
    )
    {
        (Land, Borders, Rivers, Places) = (land, borders, rivers, places);
        _byCell = places.ToLookup(p => Cell(p.Place));
    }

    /// <summary>What ships; read when it is first asked for.</summary>
    public static MapOutline World => Shipped.Value;

    public ImmutableArray<OutlineLine> Land { get; }

    public ImmutableArray<OutlineLine> Borders { get; }

    /// <summary>Great rivers, other long ones, the rest.</summary>
    public ImmutableArray<ImmutableArray<OutlineLine>> Rivers { get; }

    /// <summary>The largest first.</summary>
    public ImmutableArray<NamedPlace> Places { get; }

    /// <summary>The place a traveller would name: the nearest one within a distance, null where none is.</summary>
    public NamedPlace? Nearest(GeoPoint at, Distance within)
    {
        var (row, column) = Cell(at);
        return Enumerable
            .Range(-1, 3)
            .SelectMany(r => Enumerable.Range(-1, 3).SelectMany(c => _byCell[(row + r, (column + c + 360) % 360)]))
            .Select(p => (Place: p, Far: Geodesic.OnSphere(at, p.Place)))
            .Where(p => p.Far <= within)
            .OrderBy(p => p.Far)
            .Select(p => p.Place)
            .FirstOrDefault();
    }

    private static (int Row, int Column) Cell(GeoPoint p) =>
        ((int)Math.Floor(p.Latitude), (int)(Math.Floor(p.Longitude + 720) % 360));

    private static MapOutline Read()
    {
        using var stream = typeof(MapOutline).Assembly.GetManifestResourceStream("Outline.bin")!;
        using var unpacked = new BrotliStream(stream, CompressionMode.Decompress);
        using var whole = new MemoryStream();
        unpacked.CopyTo(whole);
        var bytes = whole.GetBuffer().AsSpan(0, (int)whole.Length);
        var at = 0;
        var land = Lines(bytes, ref at);
        var borders = Lines(bytes, ref at);
        ImmutableArray<ImmutableArray<OutlineLine>> rivers =
        [
            Lines(bytes, ref at),
            Lines(bytes, ref at),
            Lines(bytes, ref at),
        ];
        var places = ImmutableArray.CreateBuilder<NamedPlace>((int)Whole(bytes, ref at));
        while (places.Count < places.Capacity)
        {
            var length = (int)Whole(bytes, ref at);
            var name = Encoding.UTF8.GetString(bytes.Slice(at, length));
            at += length;
            var (east, north) = (Signed(bytes, ref at), Signed(bytes, ref at));
            places.Add(new NamedPlace(name, new GeoPoint(north / Unit, east / Unit), (int)Whole(bytes, ref at)));
        }

        return new MapOutline(land, borders, rivers, places.MoveToImmutable());
    }

    private static ImmutableArray<OutlineLine> Lines(ReadOnlySpan<byte> bytes, ref int at)
    {
        var lines = ImmutableArray.CreateBuilder<OutlineLine>((int)Whole(bytes, ref at));
        while (lines.Count < lines.Capacity)
        {
            var points = new GeoPoint[(int)Whole(bytes, ref at)];
            var (x, y) = (0L, 0L);
            for (var i = 0; i < points.Length; i++)
            {
                x += Signed(bytes, ref at);
                y += Signed(bytes, ref at);
                points[i] = new GeoPoint(y / Unit, x / Unit);
            }

            lines.Add(new OutlineLine([.. points.Chunk(RunPoints).Select(Run)]));
        }

        return lines.MoveToImmutable();
    }

    private static OutlineRun Run(GeoPoint[] points)
    {
        var first = points[0];
        var east = points.Select(p => Math.IEEERemainder(p.Longitude - first.Longitude, 360)).ToList();
        var middle = new GeoPoint(
            (points.Min(p => p.Latitude) + points.Max(p => p.Latitude)) / 2,
            first.Longitude + ((east.Min() + east.Max()) / 2)
        );
        return new OutlineRun([.. points], middle, points.Max(p => MapProjection.DegreesBetween(middle, p)));
    }

    private static long Whole(ReadOnlySpan<byte> bytes, ref int at)
    {
        var (number, shift) = (0L, 0);
        for (; bytes[at] >= 128; shift += 7)
        {
            number |= (long)(bytes[at++] & 127) << shift;
        }

        return number | ((long)bytes[at++] << shift);
    }

    private static long Signed(ReadOnlySpan<byte> bytes, ref int at)
    {
        var number = Whole(bytes, ref at);
        return (number & 1) == 0 ? number / 2 : -(number + 1) / 2;
    }
}
