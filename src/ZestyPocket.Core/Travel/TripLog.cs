using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Travel;

/// <summary>What carries a traveller.</summary>
public enum TravelMode
{
    Foot,
    Bicycle,
    Boat,
    Train,
    Car,
    Plane,
}

/// <summary>Where the length of a leg is from.</summary>
public enum LegSource
{
    /// <summary>The keeper wrote it.</summary>
    Typed,

    /// <summary>Measured along a recorded track.</summary>
    Track,

    /// <summary>From picture to picture in straight lines: at least so far.</summary>
    Pictures,
}

/// <summary>A part of a trip from one place to the next.</summary>
public sealed record TripLeg
{
    public const int LongestName = 80;
    public const int MostNames = 30;

    /// <summary>Once round the Earth and a bit: nothing longer is one leg.</summary>
    private static readonly Distance Longest = Distance.FromKilometres(45_000);

    public required Guid Id { get; init; }

    /// <summary>The day of the album it belongs to.</summary>
    public required LocalDate Day { get; init; }

    public required string From { get; init; }

    public required string To { get; init; }

    public required TravelMode Mode { get; init; }

    /// <summary>By the clock of the place; null when nobody knows.</summary>
    public LocalTime? Leaves { get; init; }

    /// <summary>By the clock of the place; null when nobody knows.</summary>
    public LocalTime? Arrives { get; init; }

    /// <summary>Null when nobody knows.</summary>
    public Distance? Length { get; init; }

    public LegSource Source { get; init; }

    /// <summary>Where it stopped on the way.</summary>
    public ImmutableArray<string> Stops { get; init; } = [];

    /// <summary>What it cost; null when it cost nothing or nobody knows.</summary>
    public Money? Price { get; init; }

    /// <summary>Who came along.</summary>
    public ImmutableArray<string> Companions { get; init; } = [];

    /// <summary>Its way as <see cref="TrackPath"/> writes it; empty when it is not known.</summary>
    public string Path { get; init; } = "";

    /// <summary>Metres up, small ups and downs of the receiver left out; null when the track has no heights.</summary>
    public double? ClimbMetres { get; init; }

    /// <summary>How often the track was lost on the way: those stretches are straight lines.</summary>
    public int Gaps { get; init; }

    /// <summary>Throws <see cref="RuleException"/> when a value makes no sense.</summary>
    public TripLeg Checked()
    {
        if (string.IsNullOrWhiteSpace(From) || string.IsNullOrWhiteSpace(To))
        {
            throw new RuleException("A leg goes from one place to another: write both. Nothing was changed.");
        }

        if (
            Stops.Length > MostNames
            || Companions.Length > MostNames
            || Stops.Concat(Companions).Append(From).Append(To).Any(n => n is null || n.Length > LongestName)
        )
        {
            throw new RuleException(
                $"A leg has up to {MostNames} stops and companions, with names of up to {LongestName} letters. "
                    + "Nothing was changed."
            );
        }

        if (Length is { } length && !(length.Metres >= 0 && length <= Longest))
        {
            throw new RuleException("A leg is between 0 and 45,000 km long. Nothing was changed.");
        }

        if (
            ClimbMetres is < 0 or > 100_000 or double.NaN
            || Gaps < 0
            || TrackPath.Read(Path).Length > TrackPath.MostPoints
        )
        {
            throw new RuleException("The way of a leg makes no sense. Nothing was changed.");
        }

        return this with
        {
            From = From.Trim(),
            To = To.Trim(),
            Stops = [.. Stops.Select(s => s.Trim()).Where(s => s.Length > 0)],
            Companions = [.. Companions.Select(s => s.Trim()).Where(s => s.Length > 0).Distinct()],
            Price = Price?.Checked(),
        };
    }
}

/// <summary>What something was paid for.</summary>
public enum ExpenseKind
{
    Travel,
    Lodging,
    Food,
    Tickets,
    Things,
    Other,
}

/// <summary>Something that was paid on a trip.</summary>
public sealed record TripExpense(Guid Id, LocalDate Day, ExpenseKind Kind, Money Amount, string Note)
{
    public const int LongestNote = 200;

    /// <summary>Throws <see cref="RuleException"/> when a value makes no sense.</summary>
    public TripExpense Checked() =>
        Note is { Length: <= LongestNote }
            ? this with
            {
                Amount = Amount.Checked(),
                Note = Note.Trim(),
            }
            : throw new RuleException($"The note of an expense has up to {LongestNote} letters. Nothing was changed.");
}

/// <summary>The weather of a day as somebody noted or measured it.</summary>
public sealed record NotedWeather(LocalDate Day, int LowCelsius, int HighCelsius, string Sky)
{
    public const int LongestSky = 40;

    public DayWeather Weather => new(LowCelsius, HighCelsius, Sky);

    /// <summary>
    /// Throws <see cref="RuleException"/> outside what was ever measured: −89.2 °C at Vostok, 56.7 °C at Furnace Creek
    /// (World Meteorological Organization).
    /// </summary>
    public NotedWeather Checked() =>
        LowCelsius >= -90 && HighCelsius <= 57 && LowCelsius <= HighCelsius && Sky is { Length: > 0 and <= LongestSky }
            ? this
            : throw new RuleException(
                "Weather is a lowest and a highest temperature from −90 to 57 °C, and the sky in a word or two. "
                    + "Nothing was changed."
            );
}

/// <summary>What a trip was: its legs, what was paid, the weather. Empty in an album that is no trip.</summary>
public sealed record TripLog
{
    public const int MostLegs = 300;
    public const int MostExpenses = 2_000;
    public const int MostDays = 1_000;

    public static TripLog Empty { get; } = new();

    /// <summary>In the order of their days, then of their start.</summary>
    public ImmutableArray<TripLeg> Legs { get; init; } = [];

    public ImmutableArray<TripExpense> Expenses { get; init; } = [];

    public ImmutableArray<NotedWeather> Weather { get; init; } = [];

    /// <summary>The currency of the sums, by ISO 4217.</summary>
    public string HomeCurrency { get; init; } = "EUR";

    /// <summary>What the keeper paid for other currencies.</summary>
    public ImmutableArray<CurrencyRate> Rates { get; init; } = [];

    /// <summary>Throws <see cref="RuleException"/> when it is gone.</summary>
    public TripLeg RequireLeg(Guid id) =>
        Legs.FirstOrDefault(l => l.Id == id)
        ?? throw new RuleException("That leg is not in the trip log any more. Nothing was changed.");

    /// <summary>Throws <see cref="RuleException"/> when it is gone.</summary>
    public TripExpense RequireExpense(Guid id) =>
        Expenses.FirstOrDefault(e => e.Id == id)
        ?? throw new RuleException("That expense is not in the trip log any more. Nothing was changed.");

    /// <summary>The legs of some days.</summary>
    public IEnumerable<TripLeg> Between(LocalDate first, LocalDate last) =>
        Legs.Where(l => l.Day >= first && l.Day <= last);

    /// <summary>
    /// With its legs in order. Throws <see cref="RuleException"/> when there are too many of anything.
    /// </summary>
    public TripLog Checked()
    {
        if (Legs.Length > MostLegs || Expenses.Length > MostExpenses || Weather.Length > MostDays)
        {
            throw new RuleException(
                $"An album keeps up to {MostLegs} legs, {MostExpenses:N0} expenses and the weather of {MostDays:N0} "
                    + "days. Nothing was changed."
            );
        }

        return this with
        {
            Legs = [.. Legs.OrderBy(l => l.Day).ThenBy(l => l.Leaves ?? LocalTime.MaxValue)],
            Expenses = [.. Expenses.OrderBy(e => e.Day)],
            Weather = [.. Weather.OrderBy(w => w.Day)],
        };
    }
}
