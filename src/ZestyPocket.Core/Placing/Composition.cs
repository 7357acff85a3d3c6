using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>Where a shape of a composition stands across its piece: at an edge, in the middle, over a third.</summary>
public enum AcrossPlace
{
    Left,
    FirstThird,
    Centre,
    SecondThird,
    Right,
}

/// <summary>Where it stands down its piece.</summary>
public enum DownPlace
{
    Top,
    FirstThird,
    Middle,
    SecondThird,
    Bottom,
}

/// <summary>A shape of a composition with what it holds: a picture, words, a pattern or a colour.</summary>
/// <param name="Shape">Its form.</param>
/// <param name="Across">Where it stands.</param>
/// <param name="Down">Where it stands.</param>
/// <param name="Width">Of its box; cut to the piece.</param>
/// <param name="Height">Of its box; cut to the piece.</param>
public sealed record CompositionShape(CutShape Shape, AcrossPlace Across, DownPlace Down, Length Width, Length Height)
{
    /// <summary>The picture in it; null for none.</summary>
    public Guid? PhotoId { get; init; }

    public Framing Framing { get; init; } = Framing.Middle;

    /// <summary>A filler style whose pattern it shows; null for none.</summary>
    public string? StyleKey { get; init; }

    /// <summary>Its ground.</summary>
    public Rgb Colour { get; init; } = new(255, 255, 255);

    /// <summary>Words that flow inside its outline; empty for none.</summary>
    public string Words { get; init; } = string.Empty;

    /// <summary>A mat around it, larger by its reveal; null for none.</summary>
    public Mat? Mat { get; init; }

    /// <summary>Where it is cut on a piece of a size: snapped to edges, middle and thirds.</summary>
    public Outline On(Size cut)
    {
        var (width, height) = (Length.Min(Width, cut.Width), Length.Min(Height, cut.Height));
        var x = Snap.At((int)Across, width, cut.Width);
        var y = Snap.At((int)Down, height, cut.Height);
        return Outline.In(new Rect(x, y, width, height), Shape, Length.Zero);
    }
}

/// <summary>
/// A piece that is composed of a ground and a few shapes; printed as one. Later shapes lie over earlier ones.
/// </summary>
/// <param name="Name">What it is called.</param>
/// <param name="Ground">Its colour where nothing lies.</param>
/// <param name="GroundStyleKey">A filler style whose pattern covers the ground; null for none.</param>
/// <param name="GroundPhotoId">A picture that covers the ground; null for none.</param>
public sealed record Composition(
    Guid Id,
    string Name,
    Rgb Ground,
    string? GroundStyleKey,
    Guid? GroundPhotoId,
    ImmutableArray<CompositionShape> Shapes
) : Piece(Id)
{
    public const int MostShapes = 8;

    /// <summary>Words keep so far inside their outline, so that a cut a little off leaves them whole.</summary>
    public static Length WordsInset => Length.FromInches(1, 16);

    /// <summary>The pictures it shows.</summary>
    public IEnumerable<Guid> Photos => Shapes.Select(s => s.PhotoId).Append(GroundPhotoId).OfType<Guid>().Distinct();

    /// <summary>Without pictures that have left the unit.</summary>
    public Composition Without(IReadOnlySet<Guid> photoIds) =>
        this with
        {
            GroundPhotoId = GroundPhotoId is { } ground && photoIds.Contains(ground) ? null : GroundPhotoId,
            Shapes =
            [
                .. Shapes.Select(s => s.PhotoId is { } id && photoIds.Contains(id) ? s with { PhotoId = null } : s),
            ],
        };

    /// <summary>Throws <see cref="RuleException"/> when something makes no sense.</summary>
    public Composition Checked(Func<string, bool> isPattern)
    {
        ArgumentNullException.ThrowIfNull(isPattern);
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 60)
        {
            throw new RuleException("A composition needs a name of at most 60 characters. Nothing was changed.");
        }

        if (Shapes.Length > MostShapes)
        {
            throw new RuleException($"A composition has {MostShapes} shapes at most. Nothing was changed.");
        }

        var (least, most) = (Length.FromInches(1, 4), Length.FromInches(24));
        if (Shapes.Any(s => s.Width < least || s.Height < least || s.Width > most || s.Height > most))
        {
            throw new RuleException("A shape is 1/4 to 24 in wide and high. Nothing was changed.");
        }

        if (Shapes.Any(s => s.Words.Length > UnitContent.LongestWords))
        {
            throw new RuleException("These words are longer than a shape can take. Nothing was changed.");
        }

        if (Shapes.Any(s => s.Mat is { } m && (m.Reveal <= Length.Zero || m.Reveal > Length.FromInches(1))))
        {
            throw new RuleException("A mat shows up to 1 in around its shape. Nothing was changed.");
        }

        var named = Shapes.Select(s => s.StyleKey).Concat(Shapes.Select(s => s.Mat?.StyleKey)).Append(GroundStyleKey);
        return named.OfType<string>().FirstOrDefault(key => !isPattern(key)) is { } unknown
            ? throw new RuleException($"There is no pattern “{unknown}”. Nothing was changed: choose another.")
            : this;
    }
}

/// <summary>Compositions to begin with, made for the size of a piece.</summary>
public static class CompositionStarts
{
    private delegate ImmutableArray<CompositionShape> Shapes(Size cut);

    private static readonly (string Key, string Name, Shapes Make)[] All =
    [
        ("circle", "Circle in the middle", c => [Round(c, 0.75, AcrossPlace.Centre, DownPlace.Middle)]),
        (
            "circle-and-foot",
            "Circle over a half circle of words",
            c =>
                [
                    Round(c, 0.72, AcrossPlace.Centre, DownPlace.FirstThird),
                    Half(c, CutShape.HalfCircleStanding, 0.95, DownPlace.Bottom, "Words"),
                ]
        ),
        (
            "circle-head-and-foot",
            "Circle between two half circles",
            c =>
                [
                    Round(c, 0.75, AcrossPlace.Centre, DownPlace.Middle),
                    Half(c, CutShape.HalfCircleHanging, 0.6, DownPlace.Top, "Title"),
                    Half(c, CutShape.HalfCircleStanding, 0.9, DownPlace.Bottom, "Words"),
                ]
        ),
        ("arch", "Arch", c => [Part(c, CutShape.Arch, 0.7, 0.85, AcrossPlace.Centre, DownPlace.Bottom)]),
        (
            "arch-and-band",
            "Arch over a band of words",
            c =>
                [
                    Part(c, CutShape.Arch, 0.66, 0.7, AcrossPlace.Centre, DownPlace.FirstThird),
                    Band(c, 0.24, DownPlace.Bottom, "Words"),
                ]
        ),
        ("band", "Band across the middle", c => [Band(c, 0.28, DownPlace.Middle, "Words")]),
        (
            "window",
            "Window with words under it",
            c =>
                [
                    Part(c, CutShape.Rectangle, 0.8, 0.5, AcrossPlace.Centre, DownPlace.FirstThird),
                    Band(c, 0.3, DownPlace.Bottom, "Words"),
                ]
        ),
        (
            "two-circles",
            "Two circles",
            c =>
                [
                    Round(c, 0.48, AcrossPlace.FirstThird, DownPlace.FirstThird),
                    Round(c, 0.48, AcrossPlace.SecondThird, DownPlace.SecondThird),
                ]
        ),
        (
            "three-circles",
            "Three circles",
            c =>
                [
                    Round(c, 0.42, AcrossPlace.Centre, DownPlace.Top),
                    Round(c, 0.42, AcrossPlace.Centre, DownPlace.Middle),
                    Round(c, 0.42, AcrossPlace.Centre, DownPlace.Bottom),
                ]
        ),
        (
            "tag",
            "Tag with words",
            c =>
                [
                    Part(c, CutShape.Tag, 0.62, 0.8, AcrossPlace.Centre, DownPlace.Middle) with
                    {
                        PhotoId = null,
                        Words = "Words",
                    },
                ]
        ),
        (
            "half-sun",
            "Half circle rising from the foot",
            c => [Half(c, CutShape.HalfCircleStanding, 1, DownPlace.Bottom, string.Empty)]
        ),
    ];

    /// <summary>Their keys and names.</summary>
    public static IReadOnlyList<(string Key, string Name)> Names { get; } = [.. All.Select(a => (a.Key, a.Name))];

    /// <summary>
    /// A composition for a size with pictures put into the shapes that want one, in their order. Throws
    /// <see cref="RuleException"/> when there is none of that key.
    /// </summary>
    public static Composition Make(string key, Size cut, Guid id, IEnumerable<Guid> photos, string groundStyleKey)
    {
        ArgumentNullException.ThrowIfNull(photos);
        var (_, name, make) = All.FirstOrDefault(a => a.Key == key);
        if (make is null)
        {
            throw new RuleException($"There is no composition “{key}”. Nothing was changed.");
        }

        var left = new Queue<Guid>(photos);
        return new Composition(
            id,
            name,
            new Rgb(255, 255, 255),
            groundStyleKey,
            null,
            [
                .. make(cut)
                    .Select(s =>
                        s.Words.Length == 0 && left.TryDequeue(out var photo) ? s with { PhotoId = photo } : s
                    ),
            ]
        );
    }

    private static CompositionShape Part(
        Size cut,
        CutShape shape,
        double wide,
        double high,
        AcrossPlace across,
        DownPlace down
    ) => new(shape, across, down, Share(cut.Width, wide), Share(cut.Height, high));

    private static CompositionShape Round(Size cut, double share, AcrossPlace across, DownPlace down)
    {
        var edge = Share(Length.Min(cut.Width, cut.Height), share);
        return new(CutShape.Circle, across, down, edge, edge)
        {
            Mat = new Mat(Length.FromInches(1, 8), new Rgb(255, 255, 255), null),
        };
    }

    private static CompositionShape Half(Size cut, CutShape shape, double wide, DownPlace down, string words)
    {
        var width = Share(cut.Width, wide);
        return new(shape, AcrossPlace.Centre, down, width, width / 2) { Words = words };
    }

    private static CompositionShape Band(Size cut, double high, DownPlace down, string words) =>
        new(CutShape.Rectangle, AcrossPlace.Centre, down, cut.Width, Share(cut.Height, high)) { Words = words };

    /// <summary>A share of a length in whole sixteenths of an inch, as people write sizes.</summary>
    private static Length Share(Length length, double share) =>
        Length.FromInches(Math.Max(4, (int)Math.Round((double)length.Inches * share * 16)), 16);
}
