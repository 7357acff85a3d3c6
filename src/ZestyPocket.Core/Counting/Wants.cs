using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Counting;

/// <summary>What kind of thing wants a pocket.</summary>
public enum WantKind
{
    Picture,
    Card,

    /// <summary>A story that is on no card yet.</summary>
    Story,
    Keepsake,
}

/// <summary>
/// A piece that wants a pocket, with the pockets it can go into and what it loses there in thousandths.
/// </summary>
public sealed record Want(WantKind Kind, string Name, ImmutableDictionary<Size, int> Costs)
{
    /// <summary>
    /// A print may lose this much at most before it is another picture: a lying one in an upright pocket.
    /// </summary>
    private const int MostLoss = 700;

    /// <summary>
    /// A picture goes into any pocket; it loses what is cropped away, and more where it has too few pixels for its
    /// size.
    /// </summary>
    public static Want Picture(PixelSize pixels, IEnumerable<Size> pockets)
    {
        ArgumentNullException.ThrowIfNull(pockets);
        var name =
            pixels.Width == pixels.Height ? "square photos"
            : pixels.Width > pixels.Height ? "landscape photos"
            : "portrait photos";
        return new Want(
            WantKind.Picture,
            name,
            pockets
                .Distinct()
                .Select(p => (p, Loss: LossOf(pixels, p)))
                .Where(p => p.Loss <= MostLoss)
                .ToImmutableDictionary(p => p.p, p => p.Loss)
        );
    }

    /// <summary>
    /// A picture that is wanted in one size of pocket only, given as the cut sizes that pockets of it have.
    /// </summary>
    public Want Only(IReadOnlySet<Size> cuts)
    {
        ArgumentNullException.ThrowIfNull(cuts);
        return this with
        {
            Costs = Costs.RemoveRange(Costs.Keys.Where(k => !cuts.Contains(k))),
            Name = $"{Name} in one size",
        };
    }

    /// <summary>A collage goes where it is not stretched, also where it has to shrink a little.</summary>
    public static Want Together(Collage collage, IEnumerable<Size> pockets)
    {
        ArgumentNullException.ThrowIfNull(collage);
        var body = collage.Body;
        return Words(
            WantKind.Picture,
            "collages",
            pockets,
            p => Math.Abs((p.Proportion / body.Proportion) - 1) <= 0.05 && p.SquareInches * 2 >= body.SquareInches
        );
    }

    /// <summary>Words go where they fit.</summary>
    public static Want Words(WantKind kind, string name, IEnumerable<Size> pockets, Func<Size, bool> fits)
    {
        ArgumentNullException.ThrowIfNull(pockets);
        return new Want(kind, name, pockets.Distinct().Where(fits).ToImmutableDictionary(p => p, _ => 0));
    }

    /// <summary>A keepsake goes in itself, also turned.</summary>
    public static Want Flat(Keepsake keepsake, IEnumerable<Size> pockets)
    {
        ArgumentNullException.ThrowIfNull(keepsake);
        return Words(WantKind.Keepsake, "keepsakes", pockets, p => keepsake.FitIn(p) != KeepsakeFit.TooLarge);
    }

    /// <summary>Equal wants together, in the order they first came.</summary>
    public static ImmutableArray<Demand> Together(IEnumerable<Want> wants)
    {
        ArgumentNullException.ThrowIfNull(wants);
        return
        [
            .. wants
                .GroupBy(w =>
                    (
                        w.Name,
                        Key: string.Join(
                            ';',
                            w.Costs.OrderBy(c => c.Key.Width)
                                .ThenBy(c => c.Key.Height)
                                .Select(c => $"{c.Key.Width.Emu}x{c.Key.Height.Emu}:{c.Value}")
                        )
                    )
                )
                .Select(g => new Demand(g.First().Kind, g.Key.Name, g.Count(), g.First().Costs)),
        ];
    }

    private static int LossOf(PixelSize pixels, Size pocket)
    {
        var crop = Crop.For(pixels, pocket, Framing.Middle);
        var loss = (int)Math.Round(1_000 * crop.LossOf(pixels));
        return Resolution.Grade(crop.PixelsPerInch(pocket)) switch
        {
            ResolutionGrade.Poor => Math.Min(1_000, loss + 150),
            ResolutionGrade.AskFirst => Math.Min(1_000, loss + 400),
            _ => loss,
        };
    }
}
