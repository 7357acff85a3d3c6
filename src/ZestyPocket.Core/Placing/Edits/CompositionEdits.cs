using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>A shape of a composition as written: lengths with their unit, colours as <c>#rrggbb</c>.</summary>
public sealed record WrittenShape(
    CutShape Shape,
    AcrossPlace Across,
    DownPlace Down,
    string Width,
    string Height,
    Guid? PhotoId = null,
    string? StyleKey = null,
    string? Colour = null,
    string? Words = null,
    string? MatReveal = null,
    string? MatColour = null
);

/// <summary>A composition as written.</summary>
public sealed record WrittenComposition(
    string Name,
    string Ground,
    string? GroundStyleKey,
    Guid? GroundPhotoId,
    IReadOnlyList<WrittenShape> Shapes
)
{
    public static WrittenComposition Of(Composition made, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(made);
        return new WrittenComposition(
            made.Name,
            made.Ground.ToString(),
            made.GroundStyleKey,
            made.GroundPhotoId,
            [
                .. made.Shapes.Select(s => new WrittenShape(
                    s.Shape,
                    s.Across,
                    s.Down,
                    MeasureText.Show(s.Width, measures),
                    MeasureText.Show(s.Height, measures),
                    s.PhotoId,
                    s.StyleKey,
                    s.Colour.ToString(),
                    s.Words,
                    s.Mat is { } mat ? MeasureText.Show(mat.Reveal, measures) : null,
                    s.Mat?.Colour.ToString()
                )),
            ]
        );
    }

    /// <summary>Pictures that are framed already keep their framing. Throws <see cref="RuleException"/>.</summary>
    internal Composition Read(UnitDesk desk, Guid id, Composition? old)
    {
        foreach (var photo in Shapes.OfType<WrittenShape>().Select(s => s.PhotoId).Append(GroundPhotoId).OfType<Guid>())
        {
            desk.RequirePhoto(photo);
        }

        return Read(id, desk.Words, s => Framed(s, desk, old)) with
        {
            PrintedOn = old?.PrintedOn,
            Steps = old?.Steps ?? [],
            Attachment = old?.Attachment,
        };
    }

    /// <summary>The same without its pictures. Throws <see cref="RuleException"/>.</summary>
    internal Composition WithoutPictures(AlbumWords words) => Read(Guid.Empty, words, _ => Framing.Middle);

    private Composition Read(Guid id, AlbumWords words, Func<WrittenShape, Framing> framing)
    {
        var patterns = words.Styles.Where(s => s.Role == StyleRole.Filler).Select(s => s.Key).ToHashSet();
        return new Composition(
            id,
            PlainWords.Name(Name),
            Rgb.Read(Ground),
            GroundStyleKey,
            GroundPhotoId,
            [.. Shapes.OfType<WrittenShape>().Select(s => Read(s, framing(s)))]
        ).Checked(patterns.Contains);
    }

    private static Framing Framed(WrittenShape s, UnitDesk desk, Composition? old) =>
        old?.Shapes.FirstOrDefault(o => o.PhotoId == s.PhotoId)?.Framing
        ?? (s.PhotoId is { } photo ? desk.RequirePhoto(photo).Around : Framing.Middle);

    private static CompositionShape Read(WrittenShape s, Framing framing) =>
        new(s.Shape, s.Across, s.Down, MeasureText.ParseLength(s.Width), MeasureText.ParseLength(s.Height))
        {
            PhotoId = s.PhotoId,
            Framing = framing,
            StyleKey = s.StyleKey,
            Colour = s.Colour is null ? new Rgb(255, 255, 255) : Rgb.Read(s.Colour),
            Words = PlainWords.Clean(s.Words ?? string.Empty),
            Mat = string.IsNullOrWhiteSpace(s.MatReveal)
                ? null
                : new Mat(
                    MeasureText.ParseLength(s.MatReveal),
                    s.MatColour is null ? new Rgb(255, 255, 255) : Rgb.Read(s.MatColour),
                    null
                ),
        };
}

/// <summary>
/// Begins a composition in a pocket; loose pictures of the unit go into its shapes in the order they were taken.
/// </summary>
public sealed record AddComposition(string StartKey, PocketPlace Place) : ContentEdit
{
    public override string Label() => "Make a composition";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [Place];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var (place, id) = (desk.Require(Place), tools.NewId());
        var loose = desk.Photos.Keys.Where(p => !desk.Content.PhotosPlaced.Contains(p));
        var ground = desk.Words.NewStyle(CardKind.Filler).Key;
        var cut = desk.Pages.CutSize(place);
        var made = desk.Words.OwnCompositions.FirstOrDefault(c => c.Key == StartKey) is { } kept
            ? kept.For(cut, id, loose)
            : CompositionStarts.Make(StartKey, cut, id, loose, ground);
        made = made with
        {
            Shapes =
            [
                .. made.Shapes.Select(s =>
                    s.PhotoId is { } photo ? s with { Framing = desk.RequirePhoto(photo).Around } : s
                ),
            ],
        };
        return new Edited(
            desk.Content.Compose(made).Put(id, place),
            $"Added a composition in {desk.Pages.CodeOf(place)}",
            id
        );
    }
}

/// <summary>Changes the ground and the shapes of a composition.</summary>
public sealed record ChangeComposition(Guid PieceId, WrittenComposition Composition) : ContentEdit
{
    public override string Label() => "Change a composition";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var old =
            desk.Content.Find(PieceId) as Composition
            ?? throw new RuleException("That composition is no longer here. Nothing was changed.");
        return new Edited(
            desk.Content.Compose(Composition.Read(desk, PieceId, old)),
            $"Changed a composition{desk.Where(PieceId)}",
            PieceId
        );
    }
}
