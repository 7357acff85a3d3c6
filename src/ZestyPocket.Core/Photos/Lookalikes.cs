using System.Collections.Immutable;
using NodaTime;

namespace ZestyPocket.Core.Photos;

/// <summary>A picture as it is compared with its neighbours.</summary>
public sealed record Lookalike(Guid Id, string? Camera, Instant? At, ulong Likeness, double Sharpness, long Pixels);

/// <summary>Pictures of one moment. The best is a proposal; the person decides.</summary>
public sealed record LookalikeGroup(ImmutableArray<Guid> Members, Guid SuggestedBest);

/// <summary>
/// Groups bursts (one camera, within three seconds) and near-duplicates (alike, within two minutes, or alike to the
/// bit at any time, such as a smaller copy sent by a friend). Common practice; the numbers are this program's own.
/// </summary>
public static class Lookalikes
{
    private static readonly Duration BurstGap = Duration.FromSeconds(3);
    private static readonly Duration NearGap = Duration.FromMinutes(2);

    /// <summary>Bits of 64 in which two pictures of one scene may differ.</summary>
    private const int AlikeBits = 8;

    /// <summary>A burst is still one scene: pan away and it is another picture.</summary>
    private const int BurstBits = 20;

    /// <summary>Flat pictures all have nearly no bits set and are alike without being of one scene.</summary>
    private const int FewestBitsToCompare = 8;

    public static ImmutableArray<LookalikeGroup> Group(IReadOnlyList<Lookalike> pictures)
    {
        ArgumentNullException.ThrowIfNull(pictures);
        var inTime = pictures.Where(p => p.At is not null).OrderBy(p => p.At).ThenBy(p => p.Id).ToList();
        var parent = pictures.ToDictionary(p => p.Id, p => p.Id);
        for (var i = 0; i < inTime.Count; i++)
        {
            for (var j = i + 1; j < inTime.Count && inTime[j].At!.Value - inTime[i].At!.Value <= NearGap; j++)
            {
                var (a, b) = (inTime[i], inTime[j]);
                var unlike = PictureJudging.Unlikeness(a.Likeness, b.Likeness);
                var burst = a.Camera == b.Camera && b.At!.Value - a.At!.Value <= BurstGap && unlike <= BurstBits;
                if (burst || AreAlike(a.Likeness, b.Likeness))
                {
                    Join(a.Id, b.Id);
                }
            }
        }

        foreach (
            var copies in pictures
                .Where(p => IsTelling(p.Likeness))
                .GroupBy(p => p.Likeness)
                .Where(g => g.Skip(1).Any())
        )
        {
            var first = copies.First();
            foreach (var copy in copies.Skip(1))
            {
                Join(first.Id, copy.Id);
            }
        }

        return
        [
            .. pictures
                .GroupBy(p => Root(p.Id))
                .Where(g => g.Skip(1).Any())
                .Select(g => g.OrderBy(p => p.At ?? Instant.MaxValue).ThenBy(p => p.Id).ToList())
                .OrderBy(g => g[0].At ?? Instant.MaxValue)
                .ThenBy(g => g[0].Id)
                .Select(g => new LookalikeGroup([.. g.Select(p => p.Id)], Best(g))),
        ];

        Guid Root(Guid id)
        {
            while (parent[id] != id)
            {
                parent[id] = parent[parent[id]];
                id = parent[id];
            }

            return id;
        }

        void Join(Guid a, Guid b) => parent[Root(b)] = Root(a);
    }

    /// <summary>The sharpest of those that have nearly as many pixels as the largest.</summary>
    private static Guid Best(List<Lookalike> group)
    {
        var most = group.Max(p => p.Pixels);
        return group
            .Where(p => p.Pixels * 10 >= most * 9)
            .OrderByDescending(p => p.Sharpness)
            .ThenBy(p => p.Id)
            .First()
            .Id;
    }

    /// <summary>Whether two pictures look alike by their bits, and both have enough in them to tell.</summary>
    public static bool AreAlike(ulong one, ulong two) =>
        IsTelling(one) && IsTelling(two) && PictureJudging.Unlikeness(one, two) <= AlikeBits;

    /// <summary>Whether there is enough in a picture to tell it from others; flat ones have too little.</summary>
    public static bool IsTelling(ulong likeness) =>
        ulong.PopCount(likeness) is >= FewestBitsToCompare and <= 64 - FewestBitsToCompare;
}
