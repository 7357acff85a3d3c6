using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Keeping;

/// <summary>Reads how fast the keeper is, and plans evenings until the album is caught up.</summary>
public sealed class PaceReader(ZestyContext db, AlbumReader albums, IClock clock)
{
    /// <summary>What a spread takes until this album has shown it. Common practice.</summary>
    private const int UsualMinutes = 90;

    private const int MostShown = 60;

    public async Task<PaceView> ReadAsync(Guid albumId, CatchUpOrder order, LocalDate? by, CancellationToken cancel)
    {
        var pace = await PaceAsync(albumId, order, cancel);
        var (album, habit) = (pace.Album, pace.Habit);
        return new PaceView(
            album.Revision,
            pace.MinutesEach,
            pace.IsMeasured,
            habit.Evenings,
            habit.MinutesAnEvening,
            habit.LagWeeks,
            WordsOf(pace, order, by),
            [
                .. pace
                    .Open.Where(o => o.Work.OpensOn <= pace.Today)
                    .Select(o => new OpenWorkView(o.Work.UnitId, o.Work.Title, o.Work.Minutes, o.Thin)),
            ],
            [.. pace.Plan.Evenings.Take(MostShown).Select(e => View(e, pace.Today, pace.Style))]
        );
    }

    public async Task<string> CalendarAsync(Guid albumId, CatchUpOrder order, LocalTime time, CancellationToken cancel)
    {
        var pace = await PaceAsync(albumId, order, cancel);
        return EventCalendar.Evenings(
            pace.Album.Name,
            pace.Plan.Evenings.Select(e => (e.Day, e.Parts.Sum(p => p.Minutes), Words(e))),
            time,
            pace.Zone,
            clock.GetCurrentInstant()
        );
    }

    private sealed record Pace(
        Album Album,
        WorkingHabit Habit,
        LocalDate Today,
        string Zone,
        DateStyle Style,
        int MinutesEach,
        bool IsMeasured,
        List<(OpenWork Work, string Thin)> Open,
        CatchUpPlan Plan
    );

    private async Task<Pace> PaceAsync(Guid albumId, CatchUpOrder order, CancellationToken cancel)
    {
        var view = await albums.ViewAsync(albumId, cancel);
        var album = await albums.RequireAsync(albumId, cancel);
        var calendar = album.ReadCalendar();
        var today = clock.GetCurrentInstant().InZone(Zones.Find(calendar.HomeZone)).Date;
        var habit = album.ReadKeeping().Habit;
        var worked = await WorkedAsync(albumId, album.ReadKeeping().Timed, cancel);
        var units = view.Units.Where(u => !u.LeftOut).ToList();
        bool IsDone(UnitSummary u) => u.Pockets > 0 && u.PiecesPlaced >= u.Pockets;
        var middle = WorkingTime.Middle(
            units.Where(IsDone).Select(u => worked.GetValueOrDefault(u.Id)).Where(d => d > Duration.FromMinutes(5))
        );
        var each = middle is { } own ? (int)Math.Ceiling(own.TotalMinutes) : UsualMinutes;
        var open = units
            .Where(u => !IsDone(u) && u.LastDay <= today.PlusDays(CatchUp.MostDays))
            .Select(u => (Work: new OpenWork(u.Id, u.Title, u.LastDay.PlusDays(1), Left(u, each)), Thin: ThinOf(u)))
            .ToList();
        return new Pace(
            album,
            habit,
            today,
            calendar.HomeZone,
            calendar.Style,
            each,
            middle is not null,
            open,
            CatchUp.Plan([.. open.Select(o => o.Work)], habit, order, today)
        );
    }

    /// <summary>What is placed already is taken to be done in its share, down to a quarter of an hour.</summary>
    private static int Left(UnitSummary unit, int each) =>
        unit.Pockets == 0 ? each : Math.Max(15, each * (unit.Pockets - unit.PiecesPlaced) / unit.Pockets);

    /// <summary>A forgotten week can be told with little: four pictures and one story. Common practice.</summary>
    private static string ThinOf(UnitSummary unit)
    {
        var pictures = Math.Min(4, unit.Photos);
        return pictures == 0
            ? "one story, without pictures"
            : $"{NumberWords.Counted(pictures, "picture")} and one story";
    }

    private async Task<Dictionary<Guid, Duration>> WorkedAsync(
        Guid albumId,
        IEnumerable<TimedWork> timed,
        CancellationToken cancel
    )
    {
        var edits = await db
            .Edits.AsNoTracking()
            .Where(e => e.AlbumId == albumId)
            .Select(e => new { e.UnitIds, e.MadeAt })
            .ToListAsync(cancel);
        var worked = edits
            // What holds for many units at once is no work at one of them.
            .Where(e => e.UnitIds.Count is > 0 and <= 2)
            .SelectMany(e => e.UnitIds.Select(u => (Unit: u, e.MadeAt)))
            .GroupBy(e => e.Unit, e => e.MadeAt)
            .ToDictionary(g => g.Key, WorkingTime.Of);
        foreach (var (unit, minutes) in timed)
        {
            worked[unit] = WorkingTime.With(worked.GetValueOrDefault(unit), minutes);
        }

        return worked;
    }

    private static string WordsOf(Pace pace, CatchUpOrder order, LocalDate? by)
    {
        var open = pace.Open.Count(o => o.Work.OpensOn <= pace.Today);
        var says =
            open == 0 ? "Nothing is open." : $"{NumberWords.Counted(open, "week or day", "weeks or days")} open.";
        says +=
            pace.Plan.CaughtUpOn is not { } day
                ? " With these evenings it takes over two years: add an evening, or make some weeks thin."
            : day <= pace.Today || pace.Plan.Evenings.IsEmpty ? " You are as far along as you like to be."
            : $" You will have caught up on {Named(day, pace.Today, pace.Style)}.";
        if (by is { } wanted && !(pace.Plan.CaughtUpOn <= wanted))
        {
            var minutes = CatchUp.MinutesFor([.. pace.Open.Select(o => o.Work)], pace.Habit, order, pace.Today, wanted);
            says += minutes is { } enough
                ? $" By {Named(wanted, pace.Today, pace.Style)} it takes {enough} minutes an evening."
                : $" By {Named(wanted, pace.Today, pace.Style)} it cannot be done on these evenings.";
        }

        return says;
    }

    /// <summary>A day of another year says so.</summary>
    private static string Named(LocalDate day, LocalDate today, DateStyle style) =>
        day.Year == today.Year
            ? SpanLabel.Day(day, style.Order)
            : string.Create(CultureInfo.InvariantCulture, $"{SpanLabel.Day(day, style.Order)} {day.Year}");

    private static EveningView View(Evening evening, LocalDate today, DateStyle style) =>
        new(evening.Day, Named(evening.Day, today, style), evening.Parts.Sum(p => p.Minutes), Words(evening));

    private static string Words(Evening evening) =>
        string.Join(", ", evening.Parts.Select(p => p.Finishes ? $"finish {p.Title}" : $"work at {p.Title}"));
}
