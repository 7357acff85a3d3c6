using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Pages;

/// <summary>Writes a set of pockets in the notation of <see cref="DesignNotation"/>.</summary>
public static class DesignTiling
{
    /// <summary>
    /// The notation of rectangles that tile a page. Throws <see cref="RuleException"/> when they cannot be reached by
    /// splits that go right across, such as four pockets around a fifth: no page is welded so.
    /// </summary>
    public static string Write(IReadOnlyCollection<Rect> pockets)
    {
        ArgumentNullException.ThrowIfNull(pockets);
        return pockets.Count == 0
            ? throw new RuleException("A page has at least one pocket. Nothing was changed.")
            : Rows(pockets);
    }

    private static string Rows(IReadOnlyCollection<Rect> pockets) =>
        string.Join(" / ", Parts(pockets, p => p.Y, p => p.Bottom).Select(Row));

    private static string Row(IReadOnlyCollection<Rect> pockets)
    {
        var items = Parts(pockets, p => p.X, p => p.Right);
        return items.Count == 1 && pockets.Count > 1
            ? throw new RuleException(
                "These pockets cannot be split by seams that go right across: no page is welded like that. Nothing "
                    + "was changed."
            )
            : string.Join(" | ", items.Select(item => item.Count == 1 ? Exact(item[0].Size) : $"({Rows(item)})"));
    }

    /// <summary>The pockets parted wherever no pocket lies across.</summary>
    private static List<List<Rect>> Parts(
        IReadOnlyCollection<Rect> pockets,
        Func<Rect, Length> from,
        Func<Rect, Length> to
    )
    {
        var parts = new List<List<Rect>>();
        var until = Length.Zero;
        foreach (var pocket in pockets.OrderBy(from).ThenBy(p => p.X).ThenBy(p => p.Y))
        {
            if (parts.Count == 0 || from(pocket) >= until)
            {
                parts.Add([]);
                until = to(pocket);
            }

            parts[^1].Add(pocket);
            until = Length.Max(until, to(pocket));
        }

        return parts;
    }

    /// <summary>A size that reads back as the very same one, without fractions: a stroke begins a new row.</summary>
    private static string Exact(Size size) =>
        size.Width.Emu % Length.EmuPerMillimetre == 0
        && size.Height.Emu % Length.EmuPerMillimetre == 0
        && size.Width.Emu % (Length.EmuPerInch / 32) != 0
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{size.Width.Millimetres:0.#####}x{size.Height.Millimetres:0.#####} mm"
            )
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{size.Width.Inches:0.#######}x{size.Height.Inches:0.#######}"
            );
}
