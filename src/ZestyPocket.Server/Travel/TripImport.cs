using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Travel.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Travel;

/// <summary>
/// Brings legs and weather into the trip log: from track files, from the pictures' positions, from tables.
/// </summary>
public sealed class TripImport(ZestyContext db, AlbumReader albums, AlbumEditor editor)
{
    /// <summary>Within this far of the middle of a place one is in it; farther away, near it.</summary>
    private static readonly Distance InPlace = Distance.FromKilometres(2);
    private static readonly Distance NearPlace = Distance.FromKilometres(15);

    /// <summary>Reads a track file and adds its legs; those that are here already are passed over.</summary>
    public async Task<AlbumEditAnswer> AddTracksAsync(Guid albumId, string name, byte[] bytes, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var calendar = album.ReadCalendar();
        var read = TrackFiles
            .Read(name, bytes, cancel)
            .SelectMany(r => TrackReading.Read(r.Stretches, calendar).Select(l => (Leg: l, r.Mode)))
            .ToList();
        if (read.Count == 0)
        {
            throw new RuleException($"In {name} nobody goes farther than a few steps. Nothing was taken.");
        }

        var done = await editor.ApplyAsync(
            albumId,
            new AddLegs([.. read.Select(l => ToLeg(l.Leg, l.Mode, calendar))]),
            preview: false,
            cancel
        );
        return done with { Changes = [.. done.Changes, .. Report(album, read)] };
    }

    /// <summary>Adds a leg from picture to picture for each day that has places and no leg yet.</summary>
    public async Task<AlbumEditAnswer> AddFromPicturesAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var has = album.ReadTrip().Legs.Select(l => l.Day).ToHashSet();
        var days = (await PlacedPicturesAsync(db, albumId, cancel))
            .Where(p => p is { Day: not null, Place: not null } && !has.Contains(p.Day.Value))
            .GroupBy(p => p.Day!.Value)
            .OrderBy(g => g.Key);
        var legs = new List<TripLeg>();
        foreach (var day in days)
        {
            var way = day.Select(p => new TrackPoint(p.Place!.Value, null, null)).ToList();
            var length = Geodesic.Along(way.Select(p => p.Place));
            if (length.Metres >= 100)
            {
                legs.Add(
                    new TripLeg
                    {
                        Id = Guid.Empty,
                        Day = day.Key,
                        From = NameOf(way[0].Place, album.ReadCalendar(), day.Key),
                        To = NameOf(way[^1].Place, album.ReadCalendar(), day.Key),
                        Mode = TravelMode.Foot,
                        Length = length,
                        Source = LegSource.Pictures,
                        Path = TrackPath.Write(TrackPath.Simplify(way, TrackPath.Tolerance, TrackPath.MostPoints)),
                    }
                );
            }
        }

        return legs.Count > 0
            ? await editor.ApplyAsync(albumId, new AddLegs([.. legs]), preview: false, cancel)
            : throw new RuleException(
                "No day without a leg has pictures at two places. Nothing was taken: import a track, or write the leg."
            );
    }

    /// <summary>Reads a table of weather and notes it for the days it names.</summary>
    public async Task<AlbumEditAnswer> AddWeatherAsync(
        Guid albumId,
        string name,
        byte[] bytes,
        CancellationToken cancel
    )
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var read = WeatherFiles.Read(name, bytes, cancel);
        var done = await editor.ApplyAsync(
            albumId,
            new NoteWeather([.. read.Days]) { Revision = album.Revision },
            preview: false,
            cancel
        );
        return done with { Changes = [.. done.Changes, .. read.Passed.Take(20)] };
    }

    /// <summary>Every picture of an album in the order of time, with its place where its file has one.</summary>
    internal static async Task<IReadOnlyList<SeenAt>> PlacedPicturesAsync(
        ZestyContext db,
        Guid albumId,
        CancellationToken cancel
    )
    {
        var rows = await db
            .Photos.AsNoTracking()
            .Where(p => p.AlbumId == albumId && p.Day != null)
            .OrderBy(p => p.SortAt)
            .ThenBy(p => p.Id)
            .Select(p => new
            {
                p.Day,
                p.TakenAt,
                p.Latitude,
                p.Longitude,
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(p => new SeenAt(
            p.Day,
            p.TakenAt,
            p is { Latitude: { } north, Longitude: { } east } ? new GeoPoint(north, east) : null
        ));
    }

    private static TripLeg ToLeg(TrackLeg leg, TravelMode? mode, AlbumCalendar calendar)
    {
        var day = leg.Day ?? calendar.FirstDay;
        return new TripLeg
        {
            Id = Guid.Empty,
            Day = day,
            From = NameOf(leg.Start, calendar, day),
            To = NameOf(leg.End, calendar, day),
            Mode = mode ?? leg.GuessMode(),
            Leaves = leg.Leaves,
            Arrives = leg.Arrives,
            Length = leg.Length,
            Source = LegSource.Track,
            Stops = [.. leg.Stops.Select(s => NameOf(s.Place, calendar, day)).Take(TripLeg.MostNames)],
            Path = TrackPath.Write(leg.Way),
            ClimbMetres = leg.ClimbMetres,
            Gaps = leg.Gaps,
        };
    }

    /// <summary>The nearest place with a name; else the stay of that day; else its position.</summary>
    private static string NameOf(GeoPoint at, AlbumCalendar calendar, LocalDate day) =>
        MapOutline.World.Nearest(at, InPlace)?.Name
        ?? MapOutline.World.Nearest(at, NearPlace)?.NearIt
        ?? calendar.Stays.LastOrDefault(s => s.From.Date <= day)?.Place
        ?? string.Create(CultureInfo.InvariantCulture, $"{at.Latitude:0.00}, {at.Longitude:0.00}");

    private static IEnumerable<string> Report(Album album, List<(TrackLeg Leg, TravelMode? Mode)> read)
    {
        var (gaps, dropped, drawn) = (
            read.Sum(l => l.Leg.Gaps),
            read.Sum(l => l.Leg.Dropped),
            read.Count(l => l.Leg.Day is null)
        );
        if (gaps > 0)
        {
            yield return $"The track was lost {NumberWords.Counted(gaps, "time")}: there the way is a straight line.";
        }

        if (dropped > 0)
        {
            yield return $"{Sentence(dropped, "point")} where nobody could have been and left out.";
        }

        if (drawn > 0)
        {
            yield return $"{Sentence(drawn, "way")} without times: on "
                + $"{SpanLabel.Day(album.ReadCalendar().FirstDay, album.ReadCalendar().Style.Order)} for now.";
        }

        static string Sentence(int count, string what) =>
            $"{NumberWords.Counted(count, what)} {(count == 1 ? "was" : "were")}";
    }
}
