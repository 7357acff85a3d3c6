using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping;

/// <summary>A unit as it counts for how thick the album gets.</summary>
/// <param name="Day">Its first day.</param>
/// <param name="Thickness">What its faces add; null while it is not finished.</param>
/// <param name="Faces">How many pages it has, each half a leaf.</param>
public sealed record UnitThickness(Guid UnitId, string Title, LocalDate Day, Length? Thickness, int Faces);

/// <summary>How far an album fills its rings.</summary>
/// <param name="EachFace">What a page of a unit that is not finished is taken to add.</param>
/// <param name="FullAt">The first unit that the rings do not close over; null when all fit.</param>
/// <param name="AtTheEnd">How thick it will be with every unit.</param>
public sealed record ThicknessForecast(Length EachFace, UnitThickness? FullAt, Length AtTheEnd);

/// <summary>Where a volume ends and the next begins.</summary>
/// <param name="StartsWith">The unit that the next volume begins with.</param>
/// <param name="Thickness">Of the volume before it.</param>
public sealed record VolumeStart(Guid StartsWith, string Title, LocalDate Day, Length Thickness);

/// <summary>Forecasts how thick an album gets, and where it is best parted. Arithmetic.</summary>
public static class AlbumThickness
{
    /// <summary>A page with a print in each pocket, and half a leaf. Start values, from memory.</summary>
    public static Length UsualFace => Length.FromMillimetres(0.25m) + (Length.FromMillimetres(0.20m) / 2);

    /// <summary>What a day further from the start of a month costs.</summary>
    private const double DayCost = 1;

    /// <summary>Forecast with the mean of what is finished, else with the start values.</summary>
    /// <param name="units">In their order.</param>
    public static ThicknessForecast Forecast(IReadOnlyList<UnitThickness> units, Length capacity)
    {
        ArgumentNullException.ThrowIfNull(units);
        var face = FaceOf(units);
        var (sum, full) = (Length.Zero, (UnitThickness?)null);
        foreach (var unit in units)
        {
            sum += Expected(unit, face);
            full ??= sum > capacity ? unit : null;
        }

        return new ThicknessForecast(face, full, sum);
    }

    /// <summary>
    /// Starts of further volumes so that each closes: the fewest volumes, then starts near the first of a month, then
    /// volumes that are alike. Empty when all fits in one; throws <see cref="RuleException"/> when one unit alone does
    /// not.
    /// </summary>
    public static ImmutableArray<VolumeStart> Parts(IReadOnlyList<UnitThickness> units, Length capacity)
    {
        ArgumentNullException.ThrowIfNull(units);
        var face = FaceOf(units);
        var upTo = new long[units.Count + 1];
        for (var i = 0; i < units.Count; i++)
        {
            var own = Expected(units[i], face);
            upTo[i + 1] =
                own <= capacity
                    ? upTo[i] + own.Emu
                    : throw new RuleException(
                        $"{units[i].Title} alone is thicker than these rings close over: take larger rings."
                    );
        }

        var best = new (int Volumes, double Cost, int From)[units.Count + 1];
        for (var end = 1; end <= units.Count; end++)
        {
            best[end] = (int.MaxValue, 0, -1);
            for (var from = end - 1; from >= 0 && upTo[end] - upTo[from] <= capacity.Emu; from--)
            {
                var volumes = best[from].Volumes + 1;
                var cost = best[from].Cost + (from == 0 ? 0 : DayCost * FromMonthStart(units[from].Day));
                // Alike: the squares of what is left free are least.
                cost += Math.Pow((double)(capacity.Emu - (upTo[end] - upTo[from])) / capacity.Emu, 2);
                if (volumes < best[end].Volumes || (volumes == best[end].Volumes && cost < best[end].Cost))
                {
                    best[end] = (volumes, cost, from);
                }
            }
        }

        var starts = new List<VolumeStart>();
        for (var end = units.Count; end > 0 && best[end].From > 0; end = best[end].From)
        {
            var from = best[end].From;
            var before = best[from].From;
            starts.Add(
                new VolumeStart(units[from].UnitId, units[from].Title, units[from].Day, new(upTo[from] - upTo[before]))
            );
        }

        starts.Reverse();
        return [.. starts];
    }

    /// <summary>What a face adds in the mean of the finished units.</summary>
    private static Length FaceOf(IReadOnlyList<UnitThickness> units)
    {
        var done = units.Where(u => u is { Thickness: not null, Faces: > 0 }).ToList();
        return done.Count == 0 ? UsualFace : new Length(done.Sum(u => u.Thickness!.Value.Emu) / done.Sum(u => u.Faces));
    }

    private static Length Expected(UnitThickness unit, Length face) => unit.Thickness ?? (face * unit.Faces);

    /// <summary>How many days a day is from the nearest first of a month.</summary>
    private static int FromMonthStart(LocalDate day)
    {
        var first = day.With(DateAdjusters.StartOfMonth);
        var next = first.PlusMonths(1);
        return Math.Min(Period.DaysBetween(first, day), Period.DaysBetween(day, next));
    }
}
