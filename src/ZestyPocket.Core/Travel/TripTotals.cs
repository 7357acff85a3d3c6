using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Travel;

/// <summary>How far by one means.</summary>
/// <param name="Legs">How many legs.</param>
/// <param name="AtLeast">Some of it is only from picture to picture, or not known at all.</param>
public sealed record ModeTotal(TravelMode Mode, Distance Length, int Legs, bool AtLeast);

/// <summary>What a trip or some of its days came to. Every total is the sum of its legs.</summary>
public sealed record TripTotals(
    Distance Length,
    bool AtLeast,
    ImmutableArray<ModeTotal> ByMode,
    int Stops,
    double? ClimbMetres,
    ImmutableArray<string> Companions,
    MoneySums Money
)
{
    public static TripTotals Of(TripLog log, LocalDate first, LocalDate last)
    {
        ArgumentNullException.ThrowIfNull(log);
        var legs = log.Between(first, last).ToList();
        var byMode = legs.GroupBy(l => l.Mode)
            .OrderBy(g => g.Key)
            .Select(g => new ModeTotal(g.Key, SumOf(g), g.Count(), g.Any(IsAtLeast)))
            .ToImmutableArray();
        return new TripTotals(
            SumOf(legs),
            legs.Exists(IsAtLeast),
            byMode,
            legs.Sum(l => l.Stops.Length),
            legs.Exists(l => l.ClimbMetres is not null) ? legs.Sum(l => l.ClimbMetres ?? 0) : null,
            [.. legs.SelectMany(l => l.Companions).Distinct()],
            MoneySums.Of(PaidOn(log, first, last), log.HomeCurrency, log.Rates)
        );
    }

    /// <summary>All that was paid on some days: prices of legs and expenses.</summary>
    public static IEnumerable<Money> PaidOn(TripLog log, LocalDate first, LocalDate last)
    {
        ArgumentNullException.ThrowIfNull(log);
        return log.Between(first, last)
            .Select(l => l.Price)
            .OfType<Money>()
            .Concat(log.Expenses.Where(e => e.Day >= first && e.Day <= last).Select(e => e.Amount));
    }

    /// <summary>What was paid for one kind of thing; a leg's price is for travel.</summary>
    public static MoneySums Of(TripLog log, ExpenseKind kind)
    {
        ArgumentNullException.ThrowIfNull(log);
        var legs = kind == ExpenseKind.Travel ? log.Legs.Select(l => l.Price).OfType<Money>() : [];
        return MoneySums.Of(
            legs.Concat(log.Expenses.Where(e => e.Kind == kind).Select(e => e.Amount)),
            log.HomeCurrency,
            log.Rates
        );
    }

    /// <summary>Lines for a card of numbers: how far by what, stops, climbs, money.</summary>
    public IEnumerable<string> Lines(MeasureSystem measures, string home)
    {
        foreach (var mode in ByMode.Where(m => m.Length > Distance.None))
        {
            var least = mode.AtLeast ? "at least " : "";
            yield return $"{least}{DistanceText.Show(mode.Length, measures)} {DistanceText.By(mode.Mode)}";
        }

        if (Stops > 0)
        {
            yield return NumberWords.Counted(Stops, "stop");
        }

        if (ClimbMetres is >= 1 and var climb)
        {
            yield return $"{DistanceText.ShowHeight(climb, measures)} up";
        }

        if (Money.Total > 0)
        {
            yield return string.Create(CultureInfo.InvariantCulture, $"{Money.Total:N2} {home}");
        }
    }

    private static Distance SumOf(IEnumerable<TripLeg> legs) =>
        legs.Aggregate(Distance.None, (sum, leg) => sum + (leg.Length ?? Distance.None));

    private static bool IsAtLeast(TripLeg leg) => leg.Length is null || leg.Source == LegSource.Pictures;
}

/// <summary>Distances as keepers write and read them.</summary>
public static class DistanceText
{
    /// <summary>
    /// Such as <c>12.4 km</c>, <c>850 m</c>, <c>128 km</c>; in miles where the keeper measures in inches.
    /// </summary>
    public static string Show(Distance distance, MeasureSystem measures)
    {
        var (number, unit) = measures == MeasureSystem.Inches ? (distance.Miles, "mi") : (distance.Kilometres, "km");
        return number < 1 && unit == "km" ? string.Create(CultureInfo.InvariantCulture, $"{distance.Metres:0} m")
            : number < 100 ? string.Create(CultureInfo.InvariantCulture, $"{Math.Round(number, 1):0.#} {unit}")
            : string.Create(CultureInfo.InvariantCulture, $"{Math.Round(number):N0} {unit}");
    }

    /// <summary>
    /// A height such as <c>320 m</c>, or in feet (0.3048 m exactly) where the keeper measures in inches.
    /// </summary>
    public static string ShowHeight(double metres, MeasureSystem measures) =>
        measures == MeasureSystem.Inches
            ? string.Create(CultureInfo.InvariantCulture, $"{metres / 0.3048:N0} ft")
            : string.Create(CultureInfo.InvariantCulture, $"{metres:N0} m");

    /// <summary>How a means of travel stands after a number.</summary>
    public static string By(TravelMode mode) =>
        mode == TravelMode.Foot ? "on foot" : $"by {mode.ToString().ToLowerInvariant()}";

    /// <summary>
    /// Reads <c>12 km</c>, <c>7.5 mi</c>, <c>800 m</c> or a bare number in the keeper's unit. Throws
    /// <see cref="RuleException"/> for anything else.
    /// </summary>
    public static Distance Parse(string written, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(written);
        var text = written.Trim().ToLowerInvariant();
        var letters = text.TrimStart("0123456789.,' \u00a0\u202f".ToCharArray());
        var digits = text[..^letters.Length].Trim();
        // A comma before three digits parts thousands; any other is a decimal one.
        if (digits.IndexOf('.', StringComparison.Ordinal) < 0 && digits.Split(',') is [_, { Length: not 3 }])
        {
            digits = digits.Replace(',', '.');
        }

        if (
            !double.TryParse(
                digits.Replace(",", ""),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var number
            )
        )
        {
            throw Unreadable(written);
        }

        return letters.Trim() switch
        {
            "km" or "kilometres" or "kilometers" => Distance.FromKilometres(number),
            "mi" or "mile" or "miles" => Distance.FromMiles(number),
            "m" or "metres" or "meters" => new Distance(number),
            "" => measures == MeasureSystem.Inches ? Distance.FromMiles(number) : Distance.FromKilometres(number),
            _ => throw Unreadable(written),
        };
    }

    private static RuleException Unreadable(string written) =>
        new($"“{written}” is no distance: write it as 12.5 km, 800 m or 7 mi. Nothing was changed.");
}
