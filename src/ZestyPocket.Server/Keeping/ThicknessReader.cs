using System.Globalization;
using ZestyPocket.Core;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Keeping;

/// <summary>Reads how thick an album is, volume by volume.</summary>
public sealed class ThicknessReader(AlbumReader albums, UnitOpener opener, InsertedAlbums inserts)
{
    public async Task<ThicknessView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var open = await opener.OpenAlbumAsync(albumId, cancel);
        var keeping = album.ReadKeeping();
        var inserted = (await inserts.OfAsync(album, cancel))
            .GroupBy(i => i.After.Id, i => i.Units)
            .ToDictionary(g => g.Key, g => g.SelectMany(u => u).ToList());
        // What is bound in behind a unit goes wherever that unit goes.
        var units = open.Select(u => With(Thickness(u), inserted.GetValueOrDefault(u.Unit.Id, []))).ToList();
        var volumes = Volumes(album, open, units, inserted, keeping);
        return new ThicknessView(
            album.Revision,
            new RingsView(
                keeping.Rings.Shape,
                MeasureText.Exact(keeping.Rings.Diameter, album.Measures),
                keeping.Rings.Measured is { } own ? MeasureText.Exact(own, album.Measures) : null,
                Read(keeping.Rings.Capacity, album)
            ),
            WordsOf(album, units, keeping, volumes),
            [.. volumes.Select(v => View(album, keeping.Rings, v, volumes.Count))],
            volumes.Exists(v => v.AtTheEnd > keeping.Rings.Capacity) ? Proposed(album, units, keeping.Rings) : []
        );
    }

    /// <summary>As one reads it off a ruler: sixteenths of an inch, half millimetres.</summary>
    private static string Read(Length thickness, Album album)
    {
        var step = album.Measures == MeasureSystem.Inches ? Length.FromInches(1, 16) : Length.FromMillimetres(0.5m);
        return MeasureText.Show(new Length((thickness.Emu + (step.Emu / 2)) / step.Emu * step.Emu), album.Measures);
    }

    private sealed record Volume(int Number, List<OpenUnit> Units, BulkMap Map, Length AtTheEnd);

    private static UnitThickness Thickness(OpenUnit unit)
    {
        var sum = unit.Faces.Aggregate(
            Length.Zero,
            (all, face) => all + (face.Protector.Form.Thickness / 2) + PieceThickness.OfFace(unit.Desk, face.Face)
        );
        return new UnitThickness(
            unit.Unit.Id,
            unit.Title,
            unit.Dates.First,
            unit.IsFinished ? sum : null,
            unit.Faces.Count
        );
    }

    /// <summary>A unit with the albums bound in behind it; one that is not finished makes it unfinished.</summary>
    private static UnitThickness With(UnitThickness unit, List<OpenUnit> inserted)
    {
        var all = inserted.ConvertAll(Thickness);
        return unit with
        {
            Faces = unit.Faces + all.Sum(u => u.Faces),
            Thickness = all.Aggregate(unit.Thickness, (sum, u) => sum + u.Thickness),
        };
    }

    private static List<Volume> Volumes(
        Album album,
        IReadOnlyList<OpenUnit> open,
        List<UnitThickness> units,
        Dictionary<Guid, List<OpenUnit>> inserted,
        AlbumKeeping keeping
    )
    {
        var thickness = units.ToDictionary(u => u.UnitId);
        var parts = open.Zip(keeping.VolumesOf(open.Select(u => u.Unit.Id)))
            .GroupBy(u => u.Second, u => u.First)
            .Select(g => g.ToList());
        var largest = open.Concat(inserted.Values.SelectMany(u => u))
            .SelectMany(u => u.Faces)
            .Select(f => f.Protector.Outer)
            .ToList();
        var size = new Size(
            largest.Select(s => s.Width).DefaultIfEmpty(album.BodyWidth).Max(),
            largest.Select(s => s.Height).DefaultIfEmpty(album.BodyHeight).Max()
        );
        return
        [
            .. parts.Select(
                (units, i) =>
                {
                    var map = new BulkMap(size);
                    foreach (
                        var leaf in LeavesOf(
                            units.SelectMany(u => inserted.GetValueOrDefault(u.Unit.Id, []).Prepend(u))
                        )
                    )
                    {
                        map.Add(leaf);
                    }

                    var all = units.ConvertAll(u => thickness[u.Unit.Id]);
                    var end = AlbumThickness.Forecast(all, keeping.Rings.Capacity).AtTheEnd;
                    return new Volume(i + 1, units, map, Length.Max(end, map.Thickest));
                }
            ),
        ];
    }

    /// <summary>The leaves that these units are on, each once, with what lies on both of its sides.</summary>
    private static IEnumerable<ThickLeaf> LeavesOf(IEnumerable<OpenUnit> units) =>
        units
            .SelectMany(u => u.Faces.Select(f => (u.Desk, Face: f)))
            .GroupBy(f => f.Face.Leaf.Id)
            .Select(g => LeafBulk.Of(g.First().Face.Protector, g.Select(f => (f.Desk, f.Face.Face))));

    private static VolumeView View(Album album, BinderRings rings, Volume volume, int count)
    {
        var capacity = rings.Capacity;
        var map = volume.Map;
        return new VolumeView(
            AlbumKeeping.VolumeNames(album.Name, count)[volume.Number - 1],
            volume.Units[0].Title,
            volume.Units[^1].Title,
            volume.Units[0].Unit.Id,
            Read(map.Thickest, album),
            Read(volume.AtTheEnd, album),
            map.Thickest.RatioTo(capacity),
            volume.AtTheEnd.RatioTo(capacity),
            new BulkView(
                (double)BulkMap.Cell.Inches,
                map.Columns,
                [
                    .. Enumerable
                        .Range(0, map.Columns * map.Rows)
                        .Select(i => Math.Round((double)map.At(i % map.Columns, i / map.Columns).Millimetres, 2)),
                ]
            )
        );
    }

    private static string WordsOf(Album album, List<UnitThickness> units, AlbumKeeping keeping, List<Volume> volumes)
    {
        var capacity = Read(keeping.Rings.Capacity, album);
        if (volumes.Find(v => v.AtTheEnd > keeping.Rings.Capacity) is not { } first)
        {
            return volumes.Count == 1
                ? $"Everything fits: these rings close over {capacity}."
                : $"Every volume fits: these rings close over {capacity}.";
        }

        var ids = first.Units.Select(u => u.Unit.Id).ToHashSet();
        var full = AlbumThickness
            .Forecast([.. units.Where(u => ids.Contains(u.UnitId))], keeping.Rings.Capacity)
            .FullAt;
        var of =
            volumes.Count == 1 ? "The album" : string.Create(CultureInfo.InvariantCulture, $"Volume {first.Number}");
        var unit = full?.Title ?? first.Units[^1].Title;
        return $"{of} is full in {unit}: the rings close over {capacity}, and it will be "
            + $"{Read(first.AtTheEnd, album)} thick.";
    }

    private static IReadOnlyList<VolumeStartView> Proposed(Album album, List<UnitThickness> units, BinderRings rings)
    {
        var shared =
            album.School == PageSchool.Spread
                ? " Its left page moves from the back of the leaf before it to a new leaf with a title page."
                : " A leaf for its title page comes before it.";
        try
        {
            return
            [
                .. AlbumThickness
                    .Parts(units, rings.Capacity)
                    .Select(p => new VolumeStartView(
                        p.StartsWith,
                        p.Title,
                        $"Start a new volume with {p.Title}: the one before it is "
                            + $"{Read(p.Thickness, album)} thick.{shared}"
                    )),
            ];
        }
        catch (RuleException tooThick)
        {
            return [new VolumeStartView(Guid.Empty, string.Empty, tooThick.Message)];
        }
    }
}
