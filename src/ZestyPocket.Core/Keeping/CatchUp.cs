using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>Which open week is worked at first.</summary>
public enum CatchUpOrder
{
    /// <summary>What is fresh in the mind goes first.</summary>
    CurrentFirst,
    OldestFirst,

    /// <summary>The current one, then the oldest, and so on.</summary>
    Alternating,
}

/// <summary>A week or day that is not finished.</summary>
/// <param name="OpensOn">The first day on which it can be finished: the one after its last.</param>
/// <param name="Minutes">What it will take still.</param>
public sealed record OpenWork(Guid UnitId, string Title, LocalDate OpensOn, int Minutes);

/// <summary>What an evening is for.</summary>
/// <param name="Finishes">The unit is finished on it.</param>
public sealed record EveningPart(Guid UnitId, string Title, int Minutes, bool Finishes);

/// <summary>An evening at the album.</summary>
public sealed record Evening(LocalDate Day, ImmutableArray<EveningPart> Parts);

/// <summary>A plan, evening by evening.</summary>
/// <param name="CaughtUpOn">The first evening after which no more is open than is comfortable; null for none in the
/// time that was looked at.</param>
public sealed record CatchUpPlan(ImmutableArray<Evening> Evenings, LocalDate? CaughtUpOn);

/// <summary>Plans evenings until the album is as far behind as is comfortable, and no further. Arithmetic.</summary>
public static class CatchUp
{
    /// <summary>Two years are looked at.</summary>
    public const int MostDays = 730;

    /// <param name="work">Open now or later, each unit once.</param>
    /// <param name="from">The first day that can be an evening.</param>
    public static CatchUpPlan Plan(IReadOnlyList<OpenWork> work, WorkingHabit habit, CatchUpOrder order, LocalDate from)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(habit);
        var left = work.Where(w => w.Minutes > 0).ToDictionary(w => w.UnitId, w => w.Minutes);
        var byAge = work.Where(w => w.Minutes > 0).OrderBy(w => w.OpensOn).ThenBy(w => w.UnitId).ToList();
        var evenings = ImmutableArray.CreateBuilder<Evening>();
        var (turn, inHand) = (0, (OpenWork?)null);
        for (var day = from; day < from.PlusDays(MostDays); day = day.PlusDays(1))
        {
            if (IsCaughtUp(day))
            {
                return new CatchUpPlan(evenings.ToImmutable(), evenings.Count == 0 ? day : evenings[^1].Day);
            }

            if (!habit.Evenings.Contains(day.DayOfWeek))
            {
                continue;
            }

            var (parts, minutes) = (ImmutableArray.CreateBuilder<EveningPart>(), habit.MinutesAnEvening);
            // What was begun is finished first.
            while (minutes > 0 && (inHand ??= Next(day)) is { } now)
            {
                var took = Math.Min(minutes, left[now.UnitId]);
                (minutes, left[now.UnitId]) = (minutes - took, left[now.UnitId] - took);
                var finished = left[now.UnitId] == 0;
                parts.Add(new EveningPart(now.UnitId, now.Title, took, finished));
                inHand = finished ? null : now;
            }

            if (parts.Count > 0)
            {
                evenings.Add(new Evening(day, parts.ToImmutable()));
            }
        }

        return new CatchUpPlan(evenings.ToImmutable(), null);

        OpenWork? Next(LocalDate day)
        {
            var open = byAge.Where(w => w.OpensOn <= day && left[w.UnitId] > 0).ToList();
            if (open.Count == 0)
            {
                return null;
            }

            var current = order switch
            {
                CatchUpOrder.CurrentFirst => true,
                CatchUpOrder.OldestFirst => false,
                _ => turn % 2 == 0,
            };
            turn++;
            return current ? open[^1] : open[0];
        }

        // What has been open for longer than is comfortable is done.
        bool IsCaughtUp(LocalDate day) =>
            byAge.TrueForAll(w => left[w.UnitId] == 0 || w.OpensOn > day.PlusWeeks(-habit.LagWeeks));
    }

    /// <summary>
    /// The fewest minutes an evening, in steps of five, with which it is caught up by a day; null when ten hours are
    /// too few.
    /// </summary>
    public static int? MinutesFor(
        IReadOnlyList<OpenWork> work,
        WorkingHabit habit,
        CatchUpOrder order,
        LocalDate from,
        LocalDate by
    )
    {
        ArgumentNullException.ThrowIfNull(habit);
        for (var minutes = 5; minutes <= 600; minutes += 5)
        {
            if (Plan(work, habit with { MinutesAnEvening = minutes }, order, from).CaughtUpOn is { } day && day <= by)
            {
                return minutes;
            }
        }

        return null;
    }
}
