using System.Collections.Immutable;
using ZestyPocket.Core;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Storage.Photos;

/// <summary>Boxes and palettes of a photo as they are kept.</summary>
public static class Boxes
{
    public static ImmutableArray<PictureBox> Read(string json) => StoredDocuments.Boxes.Read(json).Boxes;

    /// <summary>Throws <see cref="RuleException"/> for a box outside the picture or for too many.</summary>
    public static string Write(IReadOnlyCollection<PictureBox> boxes)
    {
        ArgumentNullException.ThrowIfNull(boxes);
        return boxes.Count <= PictureBox.MostBoxes
            ? StoredDocuments.Boxes.Write(new PictureBoxes([.. boxes.Select(b => b.Checked())]))
            : throw new RuleException(
                $"A picture can have {PictureBox.MostBoxes} boxes of a kind at most. Nothing was changed."
            );
    }

    public static ImmutableArray<PaletteColour> ReadPalette(string json) => StoredDocuments.Palette.Read(json).Colours;

    public static string WritePalette(ImmutableArray<PaletteColour> palette) =>
        StoredDocuments.Palette.Write(new Palette(palette));
}
