using System.Globalization;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>Compares whole spreads in words.</summary>
public static class WaysInWords
{
    /// <summary>100 for the best, less the more the sum is worse; never under 1.</summary>
    public static int Score(SpreadAnswer best, SpreadAnswer way)
    {
        ArgumentNullException.ThrowIfNull(best);
        ArgumentNullException.ThrowIfNull(way);
        // A whole picture lost to its crop costs 1,000,000: on the scale it takes 25 points.
        return (int)Math.Clamp(100 - Math.Round((way.Cost - best.Cost) / 40_000.0), 1, 100);
    }

    /// <summary>Such as <c>5 % cropped on average; seven pockets differ from the first.</c></summary>
    public static string Of(SpreadQuestion question, SpreadAnswer best, SpreadAnswer way)
    {
        ArgumentNullException.ThrowIfNull(question);
        ArgumentNullException.ThrowIfNull(best);
        ArgumentNullException.ThrowIfNull(way);
        var photos = way
            .Candidates.Select((c, p) => (c, p))
            .Where(x =>
                x.c >= 0 && question.Candidates[x.c].Kind == CandidateKind.Photo && question.Pockets[x.p].Stays < 0
            )
            .Select(x => question.Prices[x.p][x.c]!)
            .ToList();
        var lost = photos.Count == 0 ? 0 : photos.Average(p => p.CropLoss);
        var other = photos.Count(p => p.Terms.Any(t => t is { Term: PlacingTerm.Orientation, Cost: > 0 }));
        var cropped =
            photos.Count == 0 ? "No photos to place"
            : lost < 0.005 ? "Nothing cropped"
            : string.Create(CultureInfo.InvariantCulture, $"{lost * 100:0} % cropped on average");
        var shapes =
            other == 0 ? string.Empty : $", {NumberWords.Counted(other, "photo")} in a pocket of the other shape";
        if (ReferenceEquals(best, way))
        {
            return $"{cropped}{shapes}.";
        }

        var differ = best.Candidates.Zip(way.Candidates).Count(p => p.First != p.Second);
        var verb = differ == 1 ? "differs" : "differ";
        return $"{cropped}{shapes}; {NumberWords.Counted(differ, "pocket")} {verb} from the first.";
    }
}
