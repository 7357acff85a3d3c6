using System.Collections.Immutable;
using ZestyPocket.Core;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Photos;

/// <summary>Boxes and palettes of a photo as they are kept: JSON lists.</summary>
public static class Boxes
{
    public static ImmutableArray<PictureBox> Read(string json) =>
        UnitContentJson.ReadState<ImmutableArray<PictureBox>>(json);

    /// <summary>Throws <see cref="RuleException"/> for a box outside the picture or for too many.</summary>
    public static string Write(IReadOnlyCollection<PictureBox> boxes)
    {
        ArgumentNullException.ThrowIfNull(boxes);
        return boxes.Count <= PictureBox.MostBoxes
            ? UnitContentJson.WriteState(boxes.Select(b => b.Checked()).ToImmutableArray())
            : throw new RuleException(
                $"A picture can have {PictureBox.MostBoxes} boxes of a kind at most. Nothing was changed."
            );
    }

    /// <summary>Read and written anew, so that the database's own spelling of JSON never looks like a change.</summary>
    internal static string Plain(string json) => UnitContentJson.WriteState(Read(json));

    public static ImmutableArray<PaletteColour> ReadPalette(string json) =>
        UnitContentJson.ReadState<ImmutableArray<PaletteColour>>(json);

    public static string WritePalette(ImmutableArray<PaletteColour> palette) => UnitContentJson.WriteState(palette);
}
