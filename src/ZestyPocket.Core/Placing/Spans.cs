using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// One picture over neighbouring pockets of a face. The picture continues behind the seams: the strip under a weld is
/// skipped, not squeezed, so that lines run on where the eye expects them. Common practice.
/// </summary>
public static class Spans
{
    public const int MostPockets = 9;

    /// <summary>
    /// The pockets in the order in which their slices are numbered (reading order). Throws <see cref="RuleException"/>
    /// when they are not on one face or do not fill a rectangle.
    /// </summary>
    public static IReadOnlyList<PocketPlace> Checked(Protector protector, IReadOnlyCollection<PocketPlace> places)
    {
        ArgumentNullException.ThrowIfNull(protector);
        ArgumentNullException.ThrowIfNull(places);
        if (places.Select(p => (p.LeafId, p.Side)).Distinct().Count() != 1)
        {
            throw new RuleException("A picture runs over pockets of one page. Nothing was changed.");
        }

        var side = places.First().Side;
        var pockets = protector.Design.Face(side).Where(p => places.Any(w => w.PocketKey == p.Key)).ToList();
        if (pockets.Count != places.Count || pockets.Count is < 2 or > MostPockets)
        {
            throw new RuleException($"A picture runs over 2 to {MostPockets} pockets of a page. Nothing was changed.");
        }

        var around = DesignDraft.Around(pockets.Select(p => p.Bounds));
        return around.Size.SquareEmu != pockets.Aggregate(Int128.Zero, (sum, p) => sum + p.Nominal.SquareEmu)
            ? throw new RuleException(
                "The pockets that a picture runs over are neighbours and fill a rectangle together. Nothing was "
                    + "changed."
            )
            : [.. pockets.Select(p => places.First(w => w.PocketKey == p.Key))];
    }

    /// <summary>
    /// The size of the whole picture, and where each pocket's slice lies in it: cut sizes in the middle of their
    /// pockets.
    /// </summary>
    public static (Size Whole, IReadOnlyDictionary<string, Rect> Slices) Of(
        Protector protector,
        LeafSide side,
        IReadOnlyCollection<string> pocketKeys
    )
    {
        ArgumentNullException.ThrowIfNull(protector);
        var cuts = protector
            .Design.Face(side)
            .Where(p => pocketKeys.Contains(p.Key))
            .ToDictionary(p => p.Key, p => p.Bounds.Centred(protector.CutSize(p)));
        var around = DesignDraft.Around(cuts.Values);
        return (around.Size, cuts.ToDictionary(c => c.Key, c => c.Value.Moved(-around.X, -around.Y)));
    }

    /// <summary>The part of a picture that a slice shows, of the crop of the whole.</summary>
    public static Crop SliceOf(Crop whole, Size size, Rect slice)
    {
        var (across, down) = (whole.Width / size.Width.Emu, whole.Height / size.Height.Emu);
        return whole with
        {
            Left = whole.Left + (slice.X.Emu * across),
            Top = whole.Top + (slice.Y.Emu * down),
            Width = slice.Width.Emu * across,
            Height = slice.Height.Emu * down,
        };
    }
}
