using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Travel;

/// <summary>A leg as it is shown and edited.</summary>
/// <param name="Label">Its day in words.</param>
/// <param name="Leaves">As <c>09:30</c>; null when nobody knows.</param>
/// <param name="Length">Such as <c>12.4 km</c>; null when nobody knows.</param>
/// <param name="Climb">Such as <c>320 m</c>; null when its track has no heights.</param>
/// <param name="Gaps">How often its track was lost.</param>
/// <param name="HasWay">It can be drawn on a map.</param>
public sealed record TripLegView(
    Guid Id,
    LocalDate Day,
    string Label,
    string From,
    string To,
    TravelMode Mode,
    string? Leaves,
    string? Arrives,
    string? Length,
    LegSource Source,
    IReadOnlyList<string> Stops,
    Money? Price,
    IReadOnlyList<string> Companions,
    string? Climb,
    int Gaps,
    bool HasWay
);

/// <summary>Where the weather of a day is from.</summary>
public enum WeatherSource
{
    /// <summary>Nothing says it.</summary>
    Unknown,

    /// <summary>Typed or imported.</summary>
    Noted,

    /// <summary>From the almanac that ships, which is made up.</summary>
    Almanac,
}

/// <summary>A day of a trip.</summary>
/// <param name="Length">The sum of its legs; null on a day without any.</param>
/// <param name="Spent">In the home currency; null when nothing was.</param>
public sealed record TripDayView(
    LocalDate Day,
    string Label,
    string? Length,
    int? LowCelsius,
    int? HighCelsius,
    string? Sky,
    WeatherSource Source,
    string? Spent
);

/// <summary>A total by its name.</summary>
public sealed record TotalView(string Name, string Total);

/// <summary>Something that was paid.</summary>
/// <param name="For">What kind of thing.</param>
public sealed record ExpenseView(Guid Id, LocalDate Day, string Label, ExpenseKind For, Money Amount, string Note);

/// <summary>The trip log of an album.</summary>
/// <param name="Revision">Of the album.</param>
/// <param name="Words">All of it in a sentence.</param>
/// <param name="ByMode">How far by what.</param>
/// <param name="ByKind">What was paid for what, in the home currency.</param>
/// <param name="WithoutRate">Sums of currencies without a rate, which are in no total.</param>
/// <param name="FromTracks">How many pictures without a position of their own lie on a track.</param>
public sealed record TripView(
    int Revision,
    string Words,
    IReadOnlyList<TotalView> ByMode,
    IReadOnlyList<TripLegView> Legs,
    IReadOnlyList<TripDayView> Days,
    IReadOnlyList<ExpenseView> Expenses,
    IReadOnlyList<TotalView> ByKind,
    string HomeCurrency,
    IReadOnlyList<CurrencyRate> Rates,
    IReadOnlyList<string> WithoutRate,
    int FromTracks
);

/// <summary>Reads the trip log with its totals.</summary>
public sealed class TripReader(
    ZestyContext db,
    AlbumReader albums,
    IWeatherAlmanac almanac,
    PiecePainter painter,
    FontShelf fonts
)
{
    /// <summary>A day without a leg or an expense is listed only in an album of at most so many days.</summary>
    private const int MostEmptyDays = 60;

    public async Task<TripView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var view = await albums.ViewAsync(albumId, cancel);
        var album = await albums.RequireAsync(albumId, cancel);
        var (trip, style) = (album.ReadTrip(), album.ReadCalendar().Style);
        var ways = new TripWays(trip);
        var pictures = await TripImport.PlacedPicturesAsync(db, albumId, cancel);
        var totals = TripTotals.Of(trip, LocalDate.MinIsoValue, LocalDate.MaxIsoValue);
        return new TripView(
            album.Revision,
            WordsOf(trip, totals, album),
            [
                .. totals.ByMode.Select(m => new TotalView(
                    NameOf(m.Mode),
                    $"{(m.AtLeast ? "at least " : "")}{DistanceText.Show(m.Length, album.Measures)}"
                )),
            ],
            [.. trip.Legs.Select(l => View(l, album, style))],
            [.. DaysOf(view, trip).Select(d => Day(d, trip, ways, pictures, album, style))],
            [
                .. trip.Expenses.Select(e => new ExpenseView(
                    e.Id,
                    e.Day,
                    SpanLabel.Day(e.Day, style.Order),
                    e.Kind,
                    e.Amount,
                    e.Note
                )),
            ],
            [
                .. Enum.GetValues<ExpenseKind>()
                    .Select(k => (Kind: k, Sum: TripTotals.Of(trip, k).Total))
                    .Where(k => k.Sum > 0)
                    .Select(k => new TotalView(k.Kind.ToString(), new Money(k.Sum, trip.HomeCurrency).ToString())),
            ],
            trip.HomeCurrency,
            trip.Rates,
            [.. totals.Money.WithoutRate.Select(m => m.ToString())],
            pictures.Count(p => p is { Place: null, At: { } at } && ways.PlaceAt(at) is not null)
        );
    }

    /// <summary>The way of the whole trip, or of one day, as a picture.</summary>
    public async Task<byte[]> MapAsync(Guid albumId, LocalDate? day, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var pictures = await TripImport.PlacedPicturesAsync(db, albumId, cancel);
        var (first, last) = (day ?? LocalDate.MinIsoValue, day ?? LocalDate.MaxIsoValue);
        var map = new TripWays(album.ReadTrip()).MapOf(
            first,
            last,
            pictures.Where(p => day is null || p.Day == day),
            album.Measures
        );
        var style = album.ReadWords().Style("almanac-journal", CardKind.Map);
        var cut = new Size(Length.FromInches(8), Length.FromInches(6));
        var face = MapCard.Draw(map, style, cut, fonts, album.Measures, "The way", null);
        return Raster.Png(
            cut.Width.Points,
            cut.Height.Points,
            120,
            canvas => painter.Draw(canvas, new CardPieceFace(cut, face), 120)
        );
    }

    private static IEnumerable<LocalDate> DaysOf(AlbumView view, TripLog trip)
    {
        var days = trip
            .Legs.Select(l => l.Day)
            .Concat(trip.Expenses.Select(e => e.Day))
            .Concat(trip.Weather.Select(w => w.Day));
        var units = view.Units.Where(u => !u.LeftOut).ToList();
        var span = units.Count == 0 ? 0 : Period.DaysBetween(units.Min(u => u.FirstDay), units.Max(u => u.LastDay)) + 1;
        var own = span is > 0 and <= MostEmptyDays
            ? Enumerable.Range(0, span).Select(units.Min(u => u.FirstDay).PlusDays)
            : [];
        return days.Concat(own).Distinct().Order();
    }

    private TripDayView Day(
        LocalDate day,
        TripLog trip,
        TripWays ways,
        IReadOnlyList<SeenAt> pictures,
        Album album,
        DateStyle style
    )
    {
        var totals = TripTotals.Of(trip, day, day);
        var noted = trip.Weather.FirstOrDefault(w => w.Day == day)?.Weather;
        var weather =
            noted ?? (ways.MiddleOf(day, pictures) is { } at ? almanac.On(day, at.Latitude, at.Longitude) : null);
        return new TripDayView(
            day,
            SpanLabel.Day(day, style.Order),
            trip.Legs.Any(l => l.Day == day) ? DistanceText.Show(totals.Length, album.Measures) : null,
            weather?.LowCelsius,
            weather?.HighCelsius,
            weather?.Sky,
            noted is not null ? WeatherSource.Noted
                : weather is not null ? WeatherSource.Almanac
                : WeatherSource.Unknown,
            totals.Money.Total > 0 ? new Money(totals.Money.Total, trip.HomeCurrency).ToString() : null
        );
    }

    private static TripLegView View(TripLeg leg, Album album, DateStyle style) =>
        new(
            leg.Id,
            leg.Day,
            SpanLabel.Day(leg.Day, style.Order),
            leg.From,
            leg.To,
            leg.Mode,
            leg.Leaves is { } leaves ? ClockText.Show(leaves) : null,
            leg.Arrives is { } arrives ? ClockText.Show(arrives) : null,
            leg.Length is { } length ? DistanceText.Show(length, album.Measures) : null,
            leg.Source,
            leg.Stops,
            leg.Price,
            leg.Companions,
            leg.ClimbMetres is { } climb ? DistanceText.ShowHeight(climb, album.Measures) : null,
            leg.Gaps,
            leg.Path.Length > 0
        );

    private static string WordsOf(TripLog trip, TripTotals totals, Album album)
    {
        if (trip.Legs.IsEmpty)
        {
            return "No leg is in the trip log yet. Import a track, take the legs from the pictures, or write one.";
        }

        var parts = totals.Lines(album.Measures, trip.HomeCurrency).ToList();
        var with = totals.Companions.IsEmpty ? "" : $", with {string.Join(", ", totals.Companions)}";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{NumberWords.Counted(trip.Legs.Length, "leg")}: {string.Join(", ", parts)}{with}."
        );
    }

    private static string NameOf(TravelMode mode) =>
        mode == TravelMode.Foot ? "On foot" : $"By {mode.ToString().ToLowerInvariant()}";
}
