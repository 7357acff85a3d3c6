using System.Globalization;
using NodaTime;

namespace ZestyPocket.Core.Dates;

/// <summary>
/// The stretch of time a unit stands for: a week, a travel day, an hour, a numbered day, or several neighbours merged
/// into one.
/// </summary>
/// <param name="Kind">What is counted.</param>
/// <param name="First">Its first day; for an hour, the documented day.</param>
/// <param name="Last">Its last day, not before <paramref name="First"/>.</param>
/// <param name="Year">The week-numbering year; for other kinds the year of <paramref name="First"/>.</param>
/// <param name="FirstNumber">Week number, day number from 1, or the hour 0 to 30 (24 is the midnight after).</param>
/// <param name="LastNumber">The number of the last of several that were merged, else the same.</param>
/// <param name="FirstOccurrence">1 when <paramref name="First"/> is a date lived through a second time, else 0.</param>
/// <param name="LastOccurrence">The same for <paramref name="Last"/>.</param>
/// <param name="LeftOut">Left out on purpose: the number is kept and nothing is reported as missing.</param>
/// <param name="Name">The keeper's own name for it; null for the computed one.</param>
public sealed record UnitDates(
    UnitKind Kind,
    LocalDate First,
    LocalDate Last,
    int Year,
    int FirstNumber,
    int LastNumber,
    int FirstOccurrence = 0,
    int LastOccurrence = 0,
    bool LeftOut = false,
    string? Name = null
)
{
    public const int LongestName = 80;

    public static UnitDates Of(Week week) =>
        new(UnitKind.Week, week.First, week.Last, week.Year, week.Number, week.Number);

    public static UnitDates Of(TravelDay day)
    {
        ArgumentNullException.ThrowIfNull(day);
        return new(
            UnitKind.TravelDay,
            day.Date,
            day.Date,
            day.Date.Year,
            day.Number,
            day.Number,
            day.Occurrence,
            day.Occurrence
        );
    }

    /// <summary>The first hour of a unit of an album by the hour, 0 to 30; null for every other unit.</summary>
    public int? Hour => Kind == UnitKind.Hour ? FirstNumber : null;

    public static UnitDates OfHour(LocalDate day, int hour) => new(UnitKind.Hour, day, day, day.Year, hour, hour);

    public static UnitDates Numbered(LocalDate first, int number) =>
        new(
            UnitKind.NumberedDay,
            first.PlusDays(number - 1),
            first.PlusDays(number - 1),
            first.PlusDays(number - 1).Year,
            number,
            number
        );

    /// <summary>Whether several weeks, days or hours were merged into this unit.</summary>
    public bool IsMerged => Weight > 1;

    /// <summary>How many weeks, days or hours it stands for.</summary>
    public int Weight =>
        Kind == UnitKind.Week ? (Period.DaysBetween(First, Last) + 1) / 7 : LastNumber - FirstNumber + 1;

    /// <summary>Whether a moment belongs here. A moment without an hour belongs to no hour.</summary>
    public bool Holds(AlbumMoment moment)
    {
        if (Kind == UnitKind.Hour)
        {
            return moment.Day == First
                && moment.Minute is { } minute
                && HourSlots.Of(minute) is var slot
                && slot >= FirstNumber
                && slot <= LastNumber;
        }

        var at = (moment.Day, moment.Occurrence);
        return at.CompareTo((First, FirstOccurrence)) >= 0 && at.CompareTo((Last, LastOccurrence)) <= 0;
    }

    /// <summary>Such as <c>Week 19</c>, <c>Days 10–11</c>, <c>7 a.m.</c>, or the keeper's own name.</summary>
    public string Title(DateStyle style) =>
        Name
        ?? Kind switch
        {
            UnitKind.Week => $"{(IsMerged ? "Weeks" : "Week")} {Numbers}",
            UnitKind.Hour => IsMerged
                ? $"{SpanLabel.Hour(FirstNumber, style.Clock)}–{SpanLabel.Hour(LastNumber, style.Clock)}"
                : SpanLabel.Hour(FirstNumber, style.Clock),
            _ => $"{(IsMerged ? "Days" : "Day")} {Numbers}",
        };

    /// <summary>The printed span: <c>4–10 May 2026</c>; a date lived through twice says so.</summary>
    public string Span(DateStyle style)
    {
        var span = SpanLabel.Of(First, Last, style.Order);
        return FirstOccurrence > 0 && First == Last ? $"{span}, again" : span;
    }

    /// <summary>The number as printed: <c>19</c>, <c>10–11</c>.</summary>
    public string Numbers =>
        IsMerged
            ? string.Create(CultureInfo.InvariantCulture, $"{FirstNumber}–{LastNumber}")
            : FirstNumber.ToString(CultureInfo.InvariantCulture);

    /// <summary>How codes on the backs of pieces begin: <c>W19</c>, <c>D3</c>, <c>H07</c>.</summary>
    public string Code =>
        Kind switch
        {
            UnitKind.Week => string.Create(CultureInfo.InvariantCulture, $"W{FirstNumber}"),
            UnitKind.Hour => string.Create(CultureInfo.InvariantCulture, $"H{FirstNumber % 24:00}"),
            _ => string.Create(CultureInfo.InvariantCulture, $"D{FirstNumber}"),
        };

    /// <summary>This unit with the next one merged into it. Throws when they are not neighbours of one kind.</summary>
    public UnitDates MergedWith(UnitDates next)
    {
        ArgumentNullException.ThrowIfNull(next);
        var neighbours =
            Kind == next.Kind
            && (Kind == UnitKind.Week ? next.First == Last.PlusDays(1) : next.FirstNumber == LastNumber + 1);
        if (!neighbours)
        {
            throw new RuleException(
                "Only neighbours can be merged: something lies between these two. Nothing was changed."
            );
        }

        return this with
        {
            Last = next.Last,
            LastNumber = next.LastNumber,
            LastOccurrence = next.LastOccurrence,
            LeftOut = LeftOut && next.LeftOut,
            Name = Name ?? next.Name,
        };
    }
}
