using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Drawing;

/// <summary>
/// The hash of everything that is drawn of a piece: pictures with their covers, crops, words, inks, places. Two pieces
/// with one hash look the same, so a picture whose address has it may be kept for ever.
/// </summary>
public static class PieceRecipe
{
    /// <summary>24 hexadecimal digits.</summary>
    public static string HashOf(params IEnumerable<PieceFace> faces)
    {
        ArgumentNullException.ThrowIfNull(faces);
        var recipe = new StringBuilder();
        foreach (var face in faces)
        {
            Add(recipe, face);
        }

        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(recipe.ToString())))[..24];
    }

    private static void Add(StringBuilder recipe, PieceFace face)
    {
        Line(recipe, $"piece {face.Cut.Width.Emu} {face.Cut.Height.Emu}");
        switch (face)
        {
            case PhotoFace photo:
                Add(recipe, photo);
                break;
            case SquaredFace squared:
                Line(
                    recipe,
                    $"squared {squared.Original.Sha256} {squared.Original.Page} {squared.Whole} {squared.Kept}"
                );
                foreach (var corner in squared.Corners.All)
                {
                    Line(recipe, $"corner {corner.X:R} {corner.Y:R}");
                }

                foreach (var cover in squared.Original.Covers)
                {
                    Line(recipe, $"cover {cover.X:R} {cover.Y:R} {cover.Width:R} {cover.Height:R}");
                }

                break;
            case CollageFace collage:
                Line(recipe, $"collage {collage.Ground}");
                foreach (var (bounds, cell) in collage.Cells)
                {
                    Line(recipe, $"cell {bounds.X.Emu} {bounds.Y.Emu}");
                    Add(recipe, cell);
                }

                break;
            case FinishedFace finished:
                foreach (var part in finished.Parts)
                {
                    Line(recipe, $"part {part.Outline.Path()} {part.Ground}");
                    foreach (var (bounds, on, clip) in part.On)
                    {
                        Line(recipe, $"on {bounds.X.Emu} {bounds.Y.Emu} {clip.Path()}");
                        Add(recipe, on);
                    }
                }

                break;
            case CardPieceFace card:
                Line(recipe, $"ground {card.GroundShare:R}");
                Add(recipe, card.Card);
                if (card.Picture is { } picture)
                {
                    Add(recipe, (PieceFace)picture);
                }

                foreach (var (at, small) in card.SmallPictures)
                {
                    Line(recipe, $"small {at.X:R} {at.Y:R} {at.Width:R} {at.Height:R}");
                    Add(recipe, (PieceFace)small);
                }

                break;
            default:
                throw new ArgumentException("Unknown kind of piece.", nameof(face));
        }
    }

    private static void Add(StringBuilder recipe, PhotoFace photo)
    {
        var (crop, original) = (photo.Crop, photo.Original);
        Line(
            recipe,
            $"photo {original.Sha256} {original.Page} {crop.Left:R} {crop.Top:R} {crop.Width:R} {crop.Height:R}"
        );
        if (crop.Degrees != 0 || photo.Tones is not null)
        {
            Line(recipe, $"adjusted {crop.Degrees:R} {photo.Tones?.BlackAndWhite} {photo.Tones?.Gamma:R}");
        }

        foreach (var cover in original.Covers)
        {
            Line(recipe, $"cover {cover.X:R} {cover.Y:R} {cover.Width:R} {cover.Height:R}");
        }

        foreach (var disc in photo.Discs)
        {
            Line(recipe, $"disc {disc.X:R} {disc.Y:R} {disc.Radius:R} {disc.Thickness:R} {disc.Ink}");
        }

        Add(recipe, photo.Boxes, photo.Runs);
    }

    private static void Add(StringBuilder recipe, CardFace card)
    {
        var border = card.Border;
        Line(
            recipe,
            $"card {card.Width:R} {card.Height:R} {card.Paper} {card.Corner:R} {border?.Thickness:R} {border?.Ink}"
        );
        Line(
            recipe,
            $"opening {card.Opening?.X:R} {card.Opening?.Y:R} {card.Opening?.Width:R} {card.Opening?.Height:R}"
        );
        foreach (var (place, at) in card.SmallOpenings)
        {
            Line(recipe, $"small opening {place} {at.X:R} {at.Y:R} {at.Width:R} {at.Height:R}");
        }

        foreach (var shape in card.Shapes)
        {
            Line(
                recipe,
                $"shape {shape.X:R} {shape.Y:R} {shape.Scale:R} {shape.Ink} {shape.Thickness:R} {shape.RoundEnds}"
            );
            Line(recipe, $"path {shape.Path}");
        }

        Line(recipe, $"numerals {card.Numerals.Length}");
        Add(recipe, [], card.Numerals);
        Add(recipe, card.Boxes, card.Runs);
        foreach (var rule in card.Rules)
        {
            Line(recipe, $"rule {rule.X1:R} {rule.Y1:R} {rule.X2:R} {rule.Y2:R} {rule.Thickness:R} {rule.Ink}");
        }

        foreach (var disc in card.Discs)
        {
            Line(recipe, $"disc {disc.X:R} {disc.Y:R} {disc.Radius:R} {disc.Thickness:R} {disc.Ink}");
        }
    }

    private static void Add(StringBuilder recipe, IEnumerable<InkBox> boxes, IEnumerable<TypeRun> runs)
    {
        foreach (var box in boxes)
        {
            Line(recipe, $"box {box.X:R} {box.Y:R} {box.Width:R} {box.Height:R} {box.Ink}");
        }

        foreach (var run in runs)
        {
            var levels = run.Levels.IsDefaultOrEmpty ? string.Empty : Convert.ToHexString(run.Levels.AsSpan());
            Line(
                recipe,
                $"run {run.Face} {run.SizePt:R} {run.X:R} {run.Baseline:R} {run.Ink} {run.Tracking:R} {levels}"
            );
            Line(recipe, $"text {run.Text}");
        }
    }

    private static void Line(StringBuilder recipe, FormattableString line) =>
        recipe.Append(line.ToString(CultureInfo.InvariantCulture)).Append('\n');
}
