using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>
/// The same kind of picture again and again: the same window each morning, each Sunday's walk. Common practice.
/// </summary>
/// <param name="Id">Its key.</param>
/// <param name="Name">What it shows.</param>
/// <param name="Around">The usual time of day.</param>
/// <param name="Minutes">How far from it a picture may be to be suggested, 1 to 720.</param>
/// <param name="Weekday">Null: every day; else that day of each week.</param>
public sealed record PhotoSeries(Guid Id, string Name, LocalTime Around, int Minutes, IsoDayOfWeek? Weekday)
{
    public const int LongestName = 80;

    /// <summary>Throws <see cref="RuleException"/> when a part of it makes no sense.</summary>
    public PhotoSeries Checked()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > LongestName)
        {
            throw new RuleException($"A series needs a name of at most {LongestName} characters. Nothing was changed.");
        }

        if (Minutes is < 1 or > 720)
        {
            throw new RuleException(
                "A series looks for pictures within 1 to 720 minutes of its time. Nothing was changed."
            );
        }

        return Weekday == IsoDayOfWeek.None
            ? throw new RuleException("Choose a weekday or every day. Nothing was changed.")
            : this with
            {
                Name = Name.Trim(),
            };
    }
}

/// <summary>A picture a series may choose from.</summary>
public sealed record SeriesPicture(Guid Id, LocalDate Day, LocalTime? Time, Guid? SeriesId);

/// <summary>
/// One day of a series: what was chosen, else what could be, the nearest in time first; neither is a gap.
/// </summary>
public sealed record SeriesDay(LocalDate Day, Guid? Chosen, ImmutableArray<Guid> Suggested)
{
    public bool IsGap => Chosen is null && Suggested.IsEmpty;
}

public static class SeriesDays
{
    /// <summary>The days of a series from one day to another, both included.</summary>
    public static ImmutableArray<SeriesDay> Of(
        PhotoSeries series,
        LocalDate first,
        LocalDate last,
        IEnumerable<SeriesPicture> pictures
    )
    {
        ArgumentNullException.ThrowIfNull(series);
        var byDay = pictures.ToLookup(p => p.Day);
        var days = ImmutableArray.CreateBuilder<SeriesDay>();
        for (var day = first; day <= last; day = day.PlusDays(1))
        {
            if (series.Weekday is { } weekday && day.DayOfWeek != weekday)
            {
                continue;
            }

            var chosen = byDay[day]
                .Where(p => p.SeriesId == series.Id)
                .OrderBy(p => Away(p) ?? int.MaxValue)
                .FirstOrDefault();
            days.Add(
                new SeriesDay(
                    day,
                    chosen?.Id,
                    chosen is not null
                        ? []
                        :
                        [
                            .. byDay[day]
                                .Where(p => p.SeriesId is null && Away(p) <= series.Minutes)
                                .OrderBy(Away)
                                .ThenBy(p => p.Time)
                                .ThenBy(p => p.Id)
                                .Select(p => p.Id)
                                .Take(6),
                        ]
                )
            );
        }

        return days.ToImmutable();

        int? Away(SeriesPicture picture) =>
            picture.Time is { } time
                ? (int)(Math.Abs(Period.Between(series.Around, time, PeriodUnits.Seconds).Seconds) / 60)
                : null;
    }
}
