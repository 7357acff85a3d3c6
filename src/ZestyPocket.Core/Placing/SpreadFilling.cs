using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Placing;

/// <summary>A pocket that may be filled, in reading order over the spread.</summary>
public readonly record struct OpenPocket(PocketPlace Place, Size Cut)
{
    /// <summary>The size the trade calls it by.</summary>
    public Size Nominal { get; init; }
}

/// <summary>A photo of the unit that lies in no pocket yet.</summary>
public sealed record LoosePhoto(Guid Id, PixelSize Pixels, LocalDate? Day, LocalDateTime? Taken);

/// <summary>A photo and the pocket it should go into, with what it costs.</summary>
public readonly record struct FillChoice(Guid PhotoId, PocketPlace Place, double CropLoss);

/// <summary>
/// Fills the open pockets of a spread with loose photos: the least crop loss and resolution shortfall, and, weakly,
/// time in reading order. What already lies in a pocket is not touched.
/// </summary>
public static class SpreadFilling
{
    /// <summary>Losing the whole picture to the crop would cost this much.</summary>
    private const double CropWeight = 1000;

    /// <summary>Half the wanted 200 ppi would cost half of this.</summary>
    private const double ResolutionWeight = 800;

    /// <summary>First picture in the last pocket would cost this much: time order is weak.</summary>
    private const double TimeWeight = 150;

    /// <summary>
    /// The best pocket for each chosen photo, exactly, in reading order. The same input gives the same answer.
    /// </summary>
    public static IReadOnlyList<FillChoice> Propose(IReadOnlyList<OpenPocket> pockets, IReadOnlyList<LoosePhoto> photos)
    {
        ArgumentNullException.ThrowIfNull(pockets);
        ArgumentNullException.ThrowIfNull(photos);
        if (pockets.Count == 0 || photos.Count == 0)
        {
            return [];
        }

        var chosen = Choose(SharpEnough(photos, pockets), pockets.Count);
        var cost = new long[chosen.Count, pockets.Count];
        // With pictures for every pocket both run from first to last; with fewer, the empty pockets come last.
        var places = Math.Max(chosen.Count, pockets.Count);
        for (var i = 0; i < chosen.Count; i++)
        {
            for (var j = 0; j < pockets.Count; j++)
            {
                cost[i, j] = Cost(chosen[i], pockets[j], Fraction(i, places), Fraction(j, places));
            }
        }

        var columns = Assignment.Solve(cost);
        return
        [
            .. columns
                .Select((column, i) => (Photo: chosen[i], Pocket: pockets[column], column))
                .OrderBy(x => x.column)
                .Select(x => new FillChoice(x.Photo.Id, x.Pocket.Place, Loss(x.Photo, x.Pocket))),
        ];
    }

    /// <summary>
    /// When there are more pictures than pockets, every day gets its turn: one from each day, then a second, until the
    /// pockets are full; within a day they are taken evenly over its hours.
    /// </summary>
    public static IReadOnlyList<LoosePhoto> Choose(IReadOnlyList<LoosePhoto> photos, int room)
    {
        var ordered = InTime(photos);
        if (ordered.Count <= room)
        {
            return ordered;
        }

        var days = ordered.GroupBy(p => p.Day).Select(g => g.ToList()).ToList();
        var quota = new int[days.Count];
        var left = room;
        for (var round = 0; left > 0; round++)
        {
            foreach (var day in Enumerable.Range(0, days.Count).Where(d => days[d].Count > round))
            {
                if (left == 0)
                {
                    break;
                }

                quota[day]++;
                left--;
            }
        }

        return InTime([.. days.SelectMany((day, d) => Evenly(day, quota[d]))]);
    }

    /// <summary>Pictures too small for the largest pocket stay out while there are enough others.</summary>
    private static IReadOnlyList<LoosePhoto> SharpEnough(
        IReadOnlyList<LoosePhoto> photos,
        IReadOnlyList<OpenPocket> pockets
    )
    {
        var largest = pockets.MaxBy(p => p.Cut.SquareInches).Cut;
        var sharp = photos
            .Where(p => Math.Max(Ppi(p, largest), Ppi(p, largest.Turned)) >= Resolution.FairPixelsPerInch)
            .ToList();
        return sharp.Count >= pockets.Count ? sharp : photos;

        static double Ppi(LoosePhoto photo, Size cut) => Crop.For(photo.Pixels, cut, Framing.Middle).PixelsPerInch(cut);
    }

    private static List<LoosePhoto> InTime(IReadOnlyList<LoosePhoto> photos) =>
        [
            .. photos
                .OrderBy(p => p.Day ?? LocalDate.MaxIsoValue)
                .ThenBy(p => p.Taken ?? LocalDateTime.MaxIsoValue)
                .ThenBy(p => p.Id),
        ];

    private static IEnumerable<LoosePhoto> Evenly(List<LoosePhoto> day, int count) =>
        Enumerable.Range(0, count).Select(i => day[((2 * i) + 1) * day.Count / (2 * count)]);

    private static long Cost(LoosePhoto photo, OpenPocket pocket, double photoTime, double pocketTime)
    {
        var crop = Crop.For(photo.Pixels, pocket.Cut, Framing.Middle);
        var shortfall = Math.Max(0, 1 - (crop.PixelsPerInch(pocket.Cut) / Resolution.FairPixelsPerInch));
        var cost =
            (CropWeight * crop.LossOf(photo.Pixels))
            + (ResolutionWeight * shortfall)
            + (TimeWeight * Math.Abs(photoTime - pocketTime));
        return (long)Math.Round(cost * 1000);
    }

    private static double Loss(LoosePhoto photo, OpenPocket pocket) =>
        Crop.For(photo.Pixels, pocket.Cut, Framing.Middle).LossOf(photo.Pixels);

    private static double Fraction(int index, int count) => count <= 1 ? 0.5 : (double)index / (count - 1);
}
