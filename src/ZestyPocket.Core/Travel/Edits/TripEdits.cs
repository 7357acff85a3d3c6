using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Travel.Edits;

/// <summary>A change of an album's trip log.</summary>
public abstract record TripEdit : WholeAlbumEdit
{
    public sealed override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var (trip, done) = Change(desk, tools);
        return new AlbumEdited(desk with { Trip = trip.Checked() }, done);
    }

    /// <summary>The log after the edit, and what was done.</summary>
    protected abstract (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools);

    private protected static string DayOf(AlbumDesk desk, LocalDate day) =>
        SpanLabel.Day(day, desk.Calendar.Style.Order);
}

/// <summary>
/// Adds legs that were read from tracks or pictures. One whose way is in the log already is passed over, so that a file
/// that comes twice counts once.
/// </summary>
public sealed record AddLegs(ImmutableArray<TripLeg> Legs) : AlbumEdit
{
    public override string Label() => "Add legs";

    public override IEnumerable<SeenRevision> MadeOn() => [];

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var here = desk.Trip.Legs.Where(l => l.Path.Length > 0).Select(l => (l.Day, l.Path)).ToHashSet();
        var added = Legs.Where(l => l.Path is null or "" || here.Add((l.Day, l.Path)))
            .Select(l => (l with { Id = tools.NewId() }).Checked())
            .ToImmutableArray();
        if (added.IsEmpty)
        {
            throw new RuleException("All of these legs are in the trip log already. Nothing was taken.");
        }

        var known = Legs.Length - added.Length;
        var trip = (desk.Trip with { Legs = desk.Trip.Legs.AddRange(added) }).Checked();
        return new AlbumEdited(desk with { Trip = trip }, $"Added {NumberWords.Counted(added.Length, "leg")}")
        {
            Says =
                known == 0
                    ? []
                    : [$"{NumberWords.Counted(known, "leg")} {(known == 1 ? "was" : "were")} in the trip log already."],
        };
    }
}

/// <summary>Writes a leg by hand: a new one, or over one that is there, whose track stays.</summary>
/// <param name="LegId">Null for a new one.</param>
/// <param name="Leaves">By the clock of the place, as <c>9:30</c>; empty when nobody knows.</param>
/// <param name="Length">Such as <c>12.5 km</c>; empty to measure it along its track, or when nobody knows.</param>
/// <param name="Price">Null when it cost nothing.</param>
public sealed record WriteLeg(
    Guid? LegId,
    LocalDate Day,
    string From,
    string To,
    TravelMode Mode,
    string? Leaves,
    string? Arrives,
    string? Length,
    ImmutableArray<string> Stops,
    Money? Price,
    ImmutableArray<string> Companions
) : TripEdit
{
    public override string Label() => LegId is null ? "Add a leg" : "Change a leg";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var was = LegId is { } id ? desk.Trip.RequireLeg(id) : null;
        var written = string.IsNullOrWhiteSpace(Length) ? (Distance?)null : DistanceText.Parse(Length, desk.Measures);
        // What the keeper did not touch stays as it was measured, to the last metre.
        var same =
            was?.Length is { } old
            && written is { } now
            && DistanceText.Show(old, desk.Measures) == DistanceText.Show(now, desk.Measures);
        var measured = was is { Path.Length: > 0 } && (written is null || same);
        var leg = new TripLeg
        {
            Id = was?.Id ?? tools.NewId(),
            Day = Day,
            From = From,
            To = To,
            Mode = Mode,
            Leaves = TimeOf(Leaves),
            Arrives = TimeOf(Arrives),
            Length = same ? was!.Length : written ?? AlongTheWay(was),
            Source = measured ? was!.Source : LegSource.Typed,
            Stops = Stops,
            Price = Price,
            Companions = Companions,
            Path = was?.Path ?? "",
            ClimbMetres = was?.ClimbMetres,
            Gaps = was?.Gaps ?? 0,
        }.Checked();
        return (
            desk.Trip with
            {
                Legs = was is null ? desk.Trip.Legs.Add(leg) : desk.Trip.Legs.Replace(was, leg),
            },
            $"{(was is null ? "Added" : "Changed")} the leg from {leg.From} to {leg.To} on {DayOf(desk, Day)}"
        );
    }

    private static Distance? AlongTheWay(TripLeg? leg) =>
        leg is { Path.Length: > 0 } ? Geodesic.Along(TrackPath.Read(leg.Path).Select(p => p.Place)) : null;

    private static LocalTime? TimeOf(string? written) =>
        string.IsNullOrWhiteSpace(written) ? null : ClockText.Time(written, "09:30");
}

/// <summary>Removes a leg with its track.</summary>
public sealed record RemoveLeg(Guid LegId) : TripEdit
{
    public override string Label() => "Remove a leg";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var leg = desk.Trip.RequireLeg(LegId);
        return (
            desk.Trip with
            {
                Legs = desk.Trip.Legs.Remove(leg),
            },
            $"Removed the leg from {leg.From} to {leg.To} on {DayOf(desk, leg.Day)}"
        );
    }
}

/// <summary>Notes something that was paid, new or over one that is there.</summary>
/// <param name="ExpenseId">Null for a new one.</param>
public sealed record WriteExpense(Guid? ExpenseId, LocalDate Day, ExpenseKind For, Money Amount, string Note) : TripEdit
{
    public override string Label() => ExpenseId is null ? "Add an expense" : "Change an expense";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var was = ExpenseId is { } id ? desk.Trip.RequireExpense(id) : null;
        var expense = new TripExpense(was?.Id ?? tools.NewId(), Day, For, Amount, Note ?? "").Checked();
        return (
            desk.Trip with
            {
                Expenses = was is null ? desk.Trip.Expenses.Add(expense) : desk.Trip.Expenses.Replace(was, expense),
            },
            $"{(was is null ? "Noted" : "Changed")} {expense.Amount} on {DayOf(desk, Day)}"
        );
    }
}

/// <summary>Removes something that was paid.</summary>
public sealed record RemoveExpense(Guid ExpenseId) : TripEdit
{
    public override string Label() => "Remove an expense";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var expense = desk.Trip.RequireExpense(ExpenseId);
        return (
            desk.Trip with
            {
                Expenses = desk.Trip.Expenses.Remove(expense),
            },
            $"Removed {expense.Amount} of {DayOf(desk, expense.Day)}"
        );
    }
}

/// <summary>Says in which currency sums are, and what others cost in it.</summary>
public sealed record SetRates(string HomeCurrency, ImmutableArray<CurrencyRate> Rates) : TripEdit
{
    private const int Most = 60;

    public override string Label() => "Set the rates";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var home = Money.CodeOf(HomeCurrency);
        var rates = Rates.Select(r => r.Checked()).Where(r => r.Currency != home).ToImmutableArray();
        if (rates.Length > Most || rates.Select(r => r.Currency).Distinct().Count() != rates.Length)
        {
            throw new RuleException($"Each currency has one rate, and there are {Most} at most. Nothing was changed.");
        }

        return (
            desk.Trip with
            {
                HomeCurrency = home,
                Rates = [.. rates.OrderBy(r => r.Currency, StringComparer.Ordinal)],
            },
            $"Set the rates to {home}"
        );
    }
}

/// <summary>Notes the weather of days; a day that has one gets the new one.</summary>
public sealed record NoteWeather(ImmutableArray<NotedWeather> Days) : TripEdit
{
    public override string Label() => "Note the weather";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var noted = Days.Select(d => d.Checked()).GroupBy(d => d.Day).Select(g => g.Last()).ToList();
        return (
            desk.Trip with
            {
                Weather = [.. desk.Trip.Weather.Where(w => !noted.Exists(n => n.Day == w.Day)), .. noted],
            },
            $"Noted the weather of {NumberWords.Counted(noted.Count, "day")}"
        );
    }
}

/// <summary>Forgets the weather that was noted for a day: the almanac says it again.</summary>
public sealed record ForgetWeather(LocalDate Day) : TripEdit
{
    public override string Label() => "Forget the weather";

    protected override (TripLog Trip, string Done) Change(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return (
            desk.Trip with
            {
                Weather = [.. desk.Trip.Weather.Where(w => w.Day != Day)],
            },
            $"Forgot the weather noted for {DayOf(desk, Day)}"
        );
    }
}
