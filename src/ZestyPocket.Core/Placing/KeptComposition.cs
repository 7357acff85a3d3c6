using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// A composition that the keeper keeps to begin others with: its ground, shapes and words, without pictures.
/// </summary>
/// <param name="Key">Its lasting name.</param>
/// <param name="Width">Of the piece it was made for.</param>
/// <param name="Height">Of the piece it was made for.</param>
public sealed record KeptComposition(string Key, Length Width, Length Height, Composition Composition)
{
    /// <summary>Most of them in an album.</summary>
    public const int Most = 40;

    /// <summary>What their keys begin with, so that none is taken for one that ships.</summary>
    public const string KeyStart = "own-";

    /// <summary>Without the pictures of the piece it is kept from.</summary>
    public static KeptComposition Of(string key, Size size, Composition made)
    {
        ArgumentNullException.ThrowIfNull(made);
        return new KeptComposition(
            key,
            size.Width,
            size.Height,
            made with
            {
                Id = Guid.Empty,
                GroundPhotoId = null,
                Shapes = [.. made.Shapes.Select(s => s with { PhotoId = null, Framing = Photos.Framing.Middle })],
                PrintedOn = null,
                Steps = [],
                Attachment = null,
            }
        );
    }

    /// <summary>
    /// The same for a piece of another size: sizes of shapes grow with it, across by its width and down by its height,
    /// circles and half circles by the smaller of both; mats stay as wide as they are. Pictures go into shapes without
    /// words or pattern, in their order.
    /// </summary>
    public Composition For(Size cut, Guid id, IEnumerable<Guid> photos)
    {
        var left = new Queue<Guid>(photos);
        return Composition with { Id = id, Shapes = [.. Composition.Shapes.Select(Fitted)] };

        CompositionShape Fitted(CompositionShape shape)
        {
            var round = shape.Shape is CutShape.Circle or CutShape.HalfCircleHanging or CutShape.HalfCircleStanding;
            // Exact where the size is the same.
            var (across, down) = ((cut.Width, Width), (cut.Height, Height));
            var least = cut.Width.Emu * Height.Emu < cut.Height.Emu * Width.Emu ? across : down;
            var sized = shape with
            {
                Width = Scaled(shape.Width, round ? least : across),
                Height = Scaled(shape.Height, round ? least : down),
            };
            return sized is { Words.Length: 0, StyleKey: null } && left.TryDequeue(out var photo)
                ? sized with
                {
                    PhotoId = photo,
                }
                : sized;
        }

        static Length Scaled(Length length, (Length To, Length From) by) =>
            new((long)((Int128)length.Emu * by.To.Emu / by.From.Emu));
    }
}
