namespace ZestyPocket.Core.Words;

/// <summary>Where the words of a card stand when they do not fill it.</summary>
public enum WordsPlace
{
    /// <summary>From the top.</summary>
    Hung,

    /// <summary>A little over the middle, where the eye takes the middle to be. Common practice.</summary>
    Centred,

    /// <summary>With a third of the free room over them.</summary>
    Third,

    /// <summary>At the foot.</summary>
    Foot,
}

/// <summary>What stands over the words.</summary>
public enum HeadPlan
{
    /// <summary>Nothing; a heading is printed only on cards whose kind has one.</summary>
    Heading,

    /// <summary>A line in small capitals over a rule: the heading at the left, the date or hour at the right.</summary>
    RunningHead,

    /// <summary>A line in small type: heading and date after one another.</summary>
    Label,
}

/// <summary>How a title card is laid out.</summary>
public enum TitlePlan
{
    /// <summary>The number in words, centred in a fine frame.</summary>
    InWords,

    /// <summary>Numerals as large as the card, running off its foot.</summary>
    RunningOff,

    /// <summary>The title at the top, a scene at the foot.</summary>
    OverScene,

    /// <summary>Label, numerals and span on squared paper.</summary>
    OnSquares,

    /// <summary>Written large, a leaf in the corner.</summary>
    ByHand,

    /// <summary>Numerals over a rising segment.</summary>
    OverSegment,
}

/// <summary>How short rows such as names and ages are set.</summary>
public enum RowPlan
{
    /// <summary>As lines of words.</summary>
    Lines,

    /// <summary>What it is at the left, how much at the right, a rule over each.</summary>
    Ruled,

    /// <summary>The same with a row of dots under each.</summary>
    Dotted,
}

/// <summary>What is drawn behind the words or in the room they leave.</summary>
public enum Ornament
{
    None,

    /// <summary>Squared paper over the whole card.</summary>
    Squares,

    /// <summary>A fine frame inside the margins.</summary>
    FineFrame,

    /// <summary>Hills, water and a boat of cut paper.</summary>
    Harbour,

    /// <summary>A stem with leaves.</summary>
    Stem,

    /// <summary>An opening quotation mark, large and pale.</summary>
    QuoteMark,

    /// <summary>Segments of an orange in a corner.</summary>
    Segment,
}

/// <summary>
/// How a family of styles composes its cards: what stands over the words, where they stand when they leave room, and
/// what is drawn in that room.
/// </summary>
/// <param name="Key">Its lasting name.</param>
public sealed record CardPlan(string Key)
{
    /// <summary>
    /// The least share of the room within the margins that <see cref="LettersToCover"/> letters or more and their
    /// ornament cover, seen in squares of an eighth of an inch, on cards from 3x4 to 6x8.
    /// </summary>
    public const double LeastCovered = 0.1;

    /// <summary>A short sentence.</summary>
    public const int LettersToCover = 30;

    /// <summary>See <see cref="TypeArea.MeasureEm"/>.</summary>
    public double MeasureEm { get; init; } = 33;

    public WordsPlace Place { get; init; }

    public HeadPlan Head { get; init; }

    public TitlePlan Title { get; init; }

    public RowPlan Rows { get; init; }

    public Ornament Ornament { get; init; }

    /// <summary>A story of five lines or more begins with a letter three lines high.</summary>
    public bool DropCapital { get; init; }

    /// <summary>Face of headings and of who said what.</summary>
    public Typeface Label { get; init; } = Typeface.SansStrong;

    /// <summary>Face of large headings and numerals.</summary>
    public Typeface Large { get; init; } = Typeface.Display;

    public static IReadOnlyList<CardPlan> All { get; } =
    [
        new("almanac")
        {
            Head = HeadPlan.RunningHead,
            Place = WordsPlace.Third,
            Title = TitlePlan.InWords,
            Rows = RowPlan.Ruled,
            DropCapital = true,
            Label = Typeface.BookSmallCapitals,
            Large = Typeface.OldStyleItalic,
        },
        new("almanac-quote")
        {
            Place = WordsPlace.Centred,
            Ornament = Ornament.FineFrame,
            Label = Typeface.BookSmallCapitals,
            Large = Typeface.OldStyleItalic,
        },
        new("signal")
        {
            Head = HeadPlan.Label,
            Place = WordsPlace.Foot,
            Title = TitlePlan.RunningOff,
            Rows = RowPlan.Ruled,
            Label = Typeface.Condensed,
            Large = Typeface.Poster,
        },
        new("paperboat")
        {
            Head = HeadPlan.Label,
            Place = WordsPlace.Foot,
            Title = TitlePlan.OverScene,
            Rows = RowPlan.Dotted,
            Ornament = Ornament.Harbour,
            Label = Typeface.Rounded,
            Large = Typeface.Rounded,
        },
        new("ledger")
        {
            Head = HeadPlan.Label,
            Place = WordsPlace.Foot,
            Title = TitlePlan.OnSquares,
            Rows = RowPlan.Ruled,
            Ornament = Ornament.Squares,
            Label = Typeface.Mono,
            Large = Typeface.MonoStrong,
        },
        new("sprig")
        {
            Place = WordsPlace.Third,
            Title = TitlePlan.ByHand,
            Rows = RowPlan.Dotted,
            Ornament = Ornament.Stem,
            Label = Typeface.SansStrong,
            Large = Typeface.Handwriting,
        },
        new("sprig-quote")
        {
            Place = WordsPlace.Third,
            Ornament = Ornament.QuoteMark,
            Label = Typeface.SansStrong,
            Large = Typeface.OldStyle,
        },
        new("peel")
        {
            Place = WordsPlace.Hung,
            Title = TitlePlan.OverSegment,
            Rows = RowPlan.Dotted,
            Ornament = Ornament.Segment,
            Label = Typeface.SansStrong,
            Large = Typeface.Display,
        },
    ];

    /// <summary>The plan of a key. Throws <see cref="RuleException"/> when there is none.</summary>
    public static CardPlan Find(string key) =>
        All.FirstOrDefault(p => p.Key == key)
        ?? throw new RuleException($"There is no way to compose a card called “{key}”. Nothing was changed.");
}
