using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>What a calendar card shows: a month, or one week.</summary>
/// <param name="Title">Over its days.</param>
/// <param name="Weeks">The first day of each row.</param>
/// <param name="Month">Only days of this month are shown; null for all of each row.</param>
/// <param name="Marked">Days of the unit, on a disc.</param>
/// <param name="Events">What is noted for a day: words in a cell that has room for them, else a dot.</param>
public sealed record CalendarOfCard(
    string Title,
    ImmutableArray<LocalDate> Weeks,
    YearMonth? Month,
    IReadOnlySet<LocalDate> Marked,
    IReadOnlyDictionary<LocalDate, string> Events
)
{
    private const int DaysOfWeek = 7;

    /// <summary>Days with a small picture.</summary>
    public IReadOnlySet<LocalDate> Pictures { get; init; } = ImmutableHashSet<LocalDate>.Empty;

    /// <summary>A month in four to six rows, each beginning with a weekday.</summary>
    public static CalendarOfCard OfMonth(
        YearMonth month,
        IsoDayOfWeek first,
        IReadOnlySet<LocalDate> marked,
        IReadOnlyDictionary<LocalDate, string> events
    )
    {
        var start = month.OnDayOfMonth(1);
        var last = start.PlusMonths(1).PlusDays(-1);
        var begins = BeginningOf(start, first);
        return new CalendarOfCard(
            month.ToString("MMMM uuuu", CultureInfo.InvariantCulture),
            [.. Enumerable.Range(0, 6).Select(i => begins.PlusDays(DaysOfWeek * i)).TakeWhile(d => d <= last)],
            month,
            marked,
            events
        );
    }

    /// <summary>The week that holds a day.</summary>
    public static CalendarOfCard OfWeek(
        LocalDate day,
        IsoDayOfWeek first,
        string title,
        IReadOnlySet<LocalDate> marked,
        IReadOnlyDictionary<LocalDate, string> events
    ) => new(title, [BeginningOf(day, first)], null, marked, events);

    /// <summary>The day on which the week of a day begins.</summary>
    public static LocalDate BeginningOf(LocalDate day, IsoDayOfWeek first) =>
        day.PlusDays(-(((int)day.DayOfWeek - (int)first + DaysOfWeek) % DaysOfWeek));

    /// <summary>The days that are shown, in their order.</summary>
    public IEnumerable<LocalDate> Days =>
        Weeks
            .SelectMany(w => Enumerable.Range(0, DaysOfWeek).Select(w.PlusDays))
            .Where(d => Month is null || d.ToYearMonth() == Month);
}

/// <summary>
/// Draws a calendar on a pocket or a whole page: seven columns, or on an upright card the days of one week under each
/// other.
/// </summary>
public static class CalendarCard
{
    private const int DaysOfWeek = 7;

    /// <summary>Words need a cell of at least this width and height, in points.</summary>
    private const double RoomForWordsPt = 44;

    private const double SmallestPt = 7;

    /// <summary>How a day's place for a picture is called.</summary>
    public static string PlaceOf(LocalDate day) => day.ToString("uuuu'-'MM'-'dd", CultureInfo.InvariantCulture);

    public static CardFace Draw(CalendarOfCard shown, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(shown);
        ArgumentNullException.ThrowIfNull(style);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var body = CardComposer.Column(style, width, height);
        var large = style.Plan?.Large ?? Typeface.Display;
        var head = Math.Min(44, body.Height * 0.18);
        var title = Copyfit.Fit(shown.Title, body.Width, head, new TypeRange(large, SmallestPt, 32, 1), shaper);
        var drawing = new Drawing(shown, style, shaper);
        drawing.Runs.AddRange(
            title.Lines.Select(l =>
                TypeRun.Of(l, large, title.SizePt, style.Ink) with
                {
                    X = body.X + l.X,
                    Baseline = body.Y + l.Baseline,
                }
            )
        );
        var under = body with { Y = body.Y + head, Height = Math.Max(0, body.Height - head) };
        if (shown.Weeks.Length == 1 && under.Height > under.Width)
        {
            drawing.DaysDown(under);
        }
        else
        {
            var names = Math.Clamp(body.Height * 0.07, 9, 16);
            drawing.Weekdays(body, under.Y, names);
            drawing.Days(under with { Y = under.Y + names, Height = Math.Max(0, under.Height - names) });
        }

        var dress = CardComposer.Dress(style, width, height);
        return dress with
        {
            Rules = [.. dress.Rules, .. drawing.Rules],
            Discs = [.. dress.Discs, .. drawing.Discs],
            Runs = [.. drawing.Runs],
            SmallOpenings = [.. drawing.Openings],
            Fit = title,
        };
    }

    private sealed class Drawing(CalendarOfCard shown, CardStyle style, ITextShaper shaper)
    {
        private readonly Rgb _quiet = CardComposer.Readable(style.Accent, style.Paper, style.Ink);

        public List<TypeRun> Runs { get; } = [];

        public List<InkLine> Rules { get; } = [];

        public List<InkDisc> Discs { get; } = [];

        public List<SmallOpening> Openings { get; } = [];

        /// <summary>The first letter of each weekday over its column.</summary>
        public void Weekdays(TypeArea body, double top, double high)
        {
            var size = Math.Min(9, high * 0.75);
            for (var i = 0; i < DaysOfWeek; i++)
            {
                var day = shown.Weeks[0].PlusDays(i).DayOfWeek;
                Centred(day.ToString()[..1], Typeface.SansStrong, size, Column(body, i), top + (high * 0.75), _quiet);
            }
        }

        public void Days(TypeArea body)
        {
            var days = shown.Days.ToHashSet();
            var (cell, high) = (body.Width / DaysOfWeek, body.Height / shown.Weeks.Length);
            var words = cell >= RoomForWordsPt && high >= RoomForWordsPt;
            var pictures = shown.Pictures.Overlaps(days);
            var size =
                words ? 10
                : pictures ? Math.Min(9, Math.Min(cell * 0.34, high * 0.3))
                : Math.Min(14, Math.Min(cell * 0.48, high * 0.5));
            for (var row = 0; row < shown.Weeks.Length; row++)
            {
                var top = body.Y + (row * high);
                Rules.Add(new InkLine(body.X, top, body.X + body.Width, top, 0.4, style.Accent));
                for (var i = 0; i < DaysOfWeek; i++)
                {
                    var day = shown.Weeks[row].PlusDays(i);
                    if (days.Contains(day))
                    {
                        Day(day, new TypeArea(body.X + (i * cell), top, cell, high), size, words, words || pictures);
                    }
                }
            }
        }

        /// <summary>One week, a row for each day: number and weekday, what is noted, a picture at the right.</summary>
        public void DaysDown(TypeArea body)
        {
            var high = body.Height / DaysOfWeek;
            var (figure, label) = (Math.Min(20, high * 0.5), Math.Clamp(high * 0.22, 6.5, 9));
            var left = Math.Min(body.Width * 0.2, 46);
            var side = Math.Min(high - 3, body.Width * 0.4);
            foreach (var (day, row) in shown.Days.Select((d, i) => (d, i)))
            {
                var top = body.Y + (row * high);
                Rules.Add(new InkLine(body.X, top, body.X + body.Width, top, 0.4, style.Accent));
                var baseline = top + ((high - label) / 2) + (figure * 0.3);
                Number(day, figure, body.X + (left / 2), baseline);
                Centred(
                    day.DayOfWeek.ToString()[..3],
                    Typeface.SansStrong,
                    label,
                    body.X + (left / 2),
                    Math.Min(baseline + (label * 1.5), top + high - 1),
                    _quiet
                );
                var pictured = shown.Pictures.Contains(day);
                if (pictured)
                {
                    Open(day, new TypeArea(body.X + body.Width - side, top + ((high - side) / 2), side, side));
                }

                var room = body.Width - left - 4 - (pictured ? side + 4 : 0);
                Note(day, new TypeArea(body.X + left + 4, top + 3, room, high - 5), 10);
            }
        }

        private void Day(LocalDate day, TypeArea cell, double size, bool words, bool inCorner)
        {
            var middle = inCorner ? cell.X + (size * 0.9) : cell.X + (cell.Width / 2);
            var baseline = inCorner ? cell.Y + (size * 1.25) : cell.Y + (cell.Height / 2) + (size * 0.2);
            Number(day, size, middle, baseline);
            var noted = shown.Events.ContainsKey(day);
            var under = size * (inCorner ? 1.75 : 0);
            var left = cell with { Y = cell.Y + under, Height = cell.Height - under };
            if (shown.Pictures.Contains(day))
            {
                var share = noted && words ? 0.6 : 1;
                var high = (left.Height * share) - 1.5;
                Open(day, new TypeArea(left.X + 1, left.Y, left.Width - 2, high));
                left = left with { Y = left.Y + high + 1.5, Height = left.Height - high - 1.5 };
            }

            if (noted && words)
            {
                Note(day, left with { X = left.X + 2, Width = left.Width - 5, Height = left.Height - 2 }, 8);
            }
            else if (noted)
            {
                var (x, y) = inCorner
                    ? (cell.X + cell.Width - (size * 0.5), baseline - (size * 0.34))
                    : (middle, baseline + (size * 0.42));
                Discs.Add(new InkDisc(x, y, Math.Max(1.1, size * 0.12), 0, _quiet));
            }
        }

        private void Number(LocalDate day, double size, double middle, double baseline)
        {
            var (ink, face) = (style.Ink, Typeface.Sans);
            if (shown.Marked.Contains(day))
            {
                Discs.Add(new InkDisc(middle, baseline - (size * 0.34), size * 0.78, 0, style.Accent));
                (ink, face) = (CardComposer.Readable(style.Paper, style.Accent, style.Ink), Typeface.SansStrong);
            }

            Centred(day.Day.ToString(CultureInfo.InvariantCulture), face, size, middle, baseline, ink);
        }

        private void Note(LocalDate day, TypeArea room, double largest)
        {
            if (!shown.Events.TryGetValue(day, out var text) || room.Width <= 0 || room.Height <= 0)
            {
                return;
            }

            var type = new TypeRange(Typeface.Sans, SmallestPt, largest, 1.1);
            var set = Copyfit.Fit(text, room.Width, room.Height, type, shaper);
            Runs.AddRange(
                set.Lines.Select(l =>
                    TypeRun.Of(l, Typeface.Sans, set.SizePt, style.Ink) with
                    {
                        X = room.X + l.X,
                        Baseline = room.Y + l.Baseline,
                    }
                )
            );
        }

        private void Open(LocalDate day, TypeArea place)
        {
            if (place.Width > 2 && place.Height > 2)
            {
                Openings.Add(
                    new SmallOpening(PlaceOf(day), new CardOpening(place.X, place.Y, place.Width, place.Height))
                );
            }
        }

        private static double Column(TypeArea body, int i) => body.X + ((i + 0.5) * body.Width / DaysOfWeek);

        private void Centred(string text, Typeface face, double size, double middle, double baseline, Rgb ink)
        {
            var width = shaper.Shape(face, text).Ends[^1] * size;
            Runs.Add(new TypeRun(face, size, middle - (width / 2), baseline, text, ink));
        }
    }
}
