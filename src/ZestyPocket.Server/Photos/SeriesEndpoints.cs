using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Photos;

/// <summary>One day of a series: the chosen picture, else suggestions, else a gap.</summary>
public sealed record SeriesDayView(
    LocalDate Day,
    string DayLabel,
    PhotoView? Chosen,
    IReadOnlyList<PhotoView> Suggested
);

/// <summary>A series with its days up to the last one that has any picture.</summary>
public sealed record SeriesView(
    Guid Id,
    string Name,
    string Around,
    int Minutes,
    IsoDayOfWeek? Weekday,
    int Chosen,
    int Gaps,
    IReadOnlyList<SeriesDayView> Days
);

public sealed record SeriesListView(int Revision, IReadOnlyList<SeriesView> Series);

/// <summary>The same picture each day or week.</summary>
public static class SeriesEndpoints
{
    public static void MapSeries(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}/series").WithTags("Photos");

        group
            .MapGet(
                "",
                async (Guid id, AlbumReader albums, ZestyContext db, CancellationToken cancel) =>
                {
                    var album = await albums.RequireAsync(id, cancel);
                    var calendar = album.ReadCalendar();
                    if (calendar.Series.IsEmpty)
                    {
                        return new SeriesListView(album.Revision, []);
                    }

                    var dated = await db
                        .Photos.AsNoTracking()
                        .Where(p => p.AlbumId == id && p.Day != null && p.Verdict != Verdict.Leave)
                        .Select(p => new
                        {
                            p.Id,
                            p.Day,
                            p.Taken,
                            p.TimeSource,
                            p.SeriesId,
                        })
                        .ToListAsync(cancel);
                    var pictures = dated.ConvertAll(p => new SeriesPicture(
                        p.Id,
                        p.Day!.Value,
                        p.TimeSource is TimeSource.NameDay ? null : p.Taken?.TimeOfDay,
                        p.SeriesId
                    ));
                    var first =
                        await db.Units.Where(u => u.AlbumId == id).MinAsync(u => (LocalDate?)u.FirstDay, cancel)
                        ?? calendar.FirstDay;
                    var last = pictures.Count == 0 ? first : pictures.Max(p => p.Day);
                    var start = pictures.Count == 0 ? first : pictures.Min(p => p.Day);
                    var days = calendar
                        .Series.Select(s =>
                            (Series: s, Days: SeriesDays.Of(s, start > first ? start : first, last, pictures))
                        )
                        .ToList();
                    var shown = days.SelectMany(s => s.Days)
                        .SelectMany(d => d.Suggested.Take(3).Concat(d.Chosen is { } chosen ? [chosen] : []))
                        .Distinct()
                        .ToList();
                    var views = (
                        await db.Photos.AsNoTracking().Where(p => shown.Contains(p.Id)).ToListAsync(cancel)
                    ).ToDictionary(p => p.Id, p => PhotoView.Of(p, calendar.Style));
                    return new SeriesListView(
                        album.Revision,
                        [
                            .. days.Select(s => new SeriesView(
                                s.Series.Id,
                                s.Series.Name,
                                ClockText.Show(s.Series.Around),
                                s.Series.Minutes,
                                s.Series.Weekday,
                                s.Days.Count(d => d.Chosen is not null),
                                s.Days.Count(d => d.IsGap),
                                [
                                    .. s.Days.Select(d => new SeriesDayView(
                                        d.Day,
                                        SpanLabel.Day(d.Day, calendar.Style.Order),
                                        d.Chosen is { } chosen ? views[chosen] : null,
                                        [.. d.Suggested.Take(3).Select(p => views[p])]
                                    )),
                                ]
                            )),
                        ]
                    );
                }
            )
            .WithName("listSeries")
            .WithProblems();
    }
}
