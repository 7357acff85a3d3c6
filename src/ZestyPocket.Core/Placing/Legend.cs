using System.Globalization;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>A picture with a number and the line that stands for it on the legend.</summary>
public sealed record LegendEntry(Guid PieceId, int Number, string Line);

/// <summary>
/// The legend of a unit: pictures that have a line are numbered in reading order, so moving one numbers them again.
/// </summary>
public static class Legend
{
    public const int LongestLine = 120;

    /// <summary>Radius of the disc with the number, in points.</summary>
    public const double DiscPt = 8.5;

    private const double FromEdgePt = 5;

    public static IReadOnlyList<LegendEntry> Of(UnitDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return
        [
            .. desk
                .Pages.Pockets.Select(p => desk.Content.At(p.Place))
                .Select(placement => placement is { } lies ? desk.Content.Find(lies.PieceId) as PhotoPrint : null)
                .OfType<PhotoPrint>()
                .Where(p => p.LegendLine is { Length: > 0 })
                // Of a picture over several pockets the first part has the number.
                .DistinctBy(p => p.SpanId ?? p.Id)
                .Select((p, i) => new LegendEntry(p.Id, i + 1, p.LegendLine!)),
        ];
    }

    /// <summary>The words of the card: a line for each number.</summary>
    public static string Words(IEnumerable<LegendEntry> entries) =>
        string.Join('\n', entries.Select(e => string.Create(CultureInfo.InvariantCulture, $"{e.Number}  {e.Line}")));

    /// <summary>The disc with the number in the lower right corner of a print of a size in points.</summary>
    public static (InkDisc Ground, InkDisc Ring, TypeRun Number) Mark(
        int number,
        double width,
        double height,
        ITextShaper shaper
    )
    {
        ArgumentNullException.ThrowIfNull(shaper);
        var radius = Math.Min(DiscPt, Math.Min(width, height) / 8);
        var (x, y) = (width - radius - FromEdgePt, height - radius - FromEdgePt);
        var text = number.ToString(CultureInfo.InvariantCulture);
        var size = radius * 1.25;
        var wide = shaper.Shape(Typeface.SansStrong, text).Ends[^1] * size;
        return (
            new InkDisc(x, y, radius, 0, PhotoWords.White),
            new InkDisc(x, y, radius, 0.6, PhotoWords.Dark),
            new TypeRun(Typeface.SansStrong, size, x - (wide / 2), y + (size * 0.35), text, PhotoWords.Dark)
        );
    }
}
