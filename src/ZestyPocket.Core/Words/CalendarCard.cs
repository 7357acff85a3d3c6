using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Words;

/// <summary>What a card with the calendar of a month shows.</summary>
/// <param name="Month">Which.</param>
/// <param name="First">The weekday each row begins with.</param>
/// <param name="Marked">Days of the unit, on a disc.</param>
/// <param name="Events">What is noted for a day: words in a cell that has room for them, else a dot.</param>
public sealed record MonthOfCard(
    YearMonth Month,
    IsoDayOfWeek First,
    IReadOnlySet<LocalDate> Marked,
    IReadOnlyDictionary<LocalDate, string> Events
);

/// <summary>Draws the calendar of a month as a grid of seven columns, on a pocket or a whole page.</summary>
public static class CalendarCard
{
    private const int DaysOfWeek = 7;

    /// <summary>Words need a cell of at least this width and height, in points.</summary>
    private const double RoomForWordsPt = 44;

    private const double SmallestPt = 7;

    /// <summary>The first day of each row of a month: four to six rows.</summary>
    public static ImmutableArray<LocalDate> Rows(YearMonth month, IsoDayOfWeek first)
    {
        var start = month.OnDayOfMonth(1);
        var back = ((int)start.DayOfWeek - (int)first + DaysOfWeek) % DaysOfWeek;
        var last = start.PlusMonths(1).PlusDays(-1);
        return
        [
            .. Enumerable.Range(0, 6).Select(i => start.PlusDays((DaysOfWeek * i) - back)).TakeWhile(d => d <= last),
        ];
    }

    public static CardFace Draw(MonthOfCard shown, CardStyle style, Size cut, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(shown);
        ArgumentNullException.ThrowIfNull(style);
        var (width, height) = (cut.Width.Points, cut.Height.Points);
        var body = CardComposer.Column(style, width, height);
        var large = style.Plan?.Large ?? Typeface.Display;
        var name = shown.Month.ToString("MMMM uuuu", CultureInfo.InvariantCulture);
        var head = Math.Min(44, body.Height * 0.18);
        var title = Copyfit.Fit(name, body.Width, head, new TypeRange(large, SmallestPt, 32, 1), shaper);
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
        var names = Math.Clamp(body.Height * 0.07, 9, 16);
        drawing.Weekdays(body, body.Y + head, names);
        drawing.Days(body with { Y = body.Y + head + names, Height = Math.Max(0, body.Height - head - names) });
        var dress = CardComposer.Dress(style, width, height);
        return dress with
        {
            Rules = [.. dress.Rules, .. drawing.Rules],
            Discs = [.. dress.Discs, .. drawing.Discs],
            Runs = [.. drawing.Runs],
            Fit = title,
        };
    }

    private sealed class Drawing(MonthOfCard shown, CardStyle style, ITextShaper shaper)
    {
        private readonly Rgb _quiet = CardComposer.Readable(style.Accent, style.Paper, style.Ink);

        public List<TypeRun> Runs { get; } = [];

        public List<InkLine> Rules { get; } = [];

        public List<InkDisc> Discs { get; } = [];

        /// <summary>The first letter of each weekday over its column.</summary>
        public void Weekdays(TypeArea body, double top, double high)
        {
            var size = Math.Min(9, high * 0.75);
            for (var i = 0; i < DaysOfWeek; i++)
            {
                var day = (IsoDayOfWeek)((((int)shown.First - 1 + i) % DaysOfWeek) + 1);
                Centred(day.ToString()[..1], Typeface.SansStrong, size, Column(body, i), top + (high * 0.75), _quiet);
            }
        }

        public void Days(TypeArea body)
        {
            var rows = Rows(shown.Month, shown.First);
            var (cell, high) = (body.Width / DaysOfWeek, body.Height / rows.Length);
            var words = cell >= RoomForWordsPt && high >= RoomForWordsPt;
            var size = words ? 10 : Math.Min(14, Math.Min(cell * 0.48, high * 0.5));
            for (var row = 0; row < rows.Length; row++)
            {
                var top = body.Y + (row * high);
                Rules.Add(new InkLine(body.X, top, body.X + body.Width, top, 0.4, style.Accent));
                for (var i = 0; i < DaysOfWeek; i++)
                {
                    var day = rows[row].PlusDays(i);
                    if (day.Month == shown.Month.Month)
                    {
                        Day(day, body.X + (i * cell), top, cell, high, size, words);
                    }
                }
            }
        }

        private void Day(LocalDate day, double x, double top, double cell, double high, double size, bool words)
        {
            var middle = words ? x + (size * 0.9) : x + (cell / 2);
            var baseline = words ? top + (size * 1.25) : top + (high / 2) + (size * 0.2);
            var (ink, face) = (style.Ink, Typeface.Sans);
            if (shown.Marked.Contains(day))
            {
                Discs.Add(new InkDisc(middle, baseline - (size * 0.34), size * 0.78, 0, style.Accent));
                (ink, face) = (CardComposer.Readable(style.Paper, style.Accent, style.Ink), Typeface.SansStrong);
            }

            Centred(day.Day.ToString(CultureInfo.InvariantCulture), face, size, middle, baseline, ink);
            if (!shown.Events.TryGetValue(day, out var text))
            {
                return;
            }

            if (!words)
            {
                Discs.Add(new InkDisc(middle, baseline + (size * 0.42), Math.Max(1.1, size * 0.12), 0, _quiet));
                return;
            }

            var under = size * 1.9;
            var set = Copyfit.Fit(
                text,
                cell - 5,
                high - under - 2,
                new TypeRange(Typeface.Sans, SmallestPt, 8, 1.1),
                shaper
            );
            Runs.AddRange(
                set.Lines.Select(l =>
                    TypeRun.Of(l, Typeface.Sans, set.SizePt, style.Ink) with
                    {
                        X = x + 2 + l.X,
                        Baseline = top + under + l.Baseline,
                    }
                )
            );
        }

        private static double Column(TypeArea body, int i) => body.X + ((i + 0.5) * body.Width / DaysOfWeek);

        private void Centred(string text, Typeface face, double size, double middle, double baseline, Rgb ink)
        {
            var width = shaper.Shape(face, text).Ends[^1] * size;
            Runs.Add(new TypeRun(face, size, middle - (width / 2), baseline, text, ink));
        }
    }
}
