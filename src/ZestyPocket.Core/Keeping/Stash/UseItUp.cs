using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>A week or day with room for something from the stash.</summary>
/// <param name="Pockets">The cut sizes of its empty pockets.</param>
/// <param name="Pictures">The colours of its pictures; may be empty.</param>
public sealed record RoomForStash(Guid UnitId, ImmutableArray<Size> Pockets, ImmutableArray<PaletteColour> Pictures);

/// <summary>A card that would go into a pocket.</summary>
/// <param name="Reason">Why this one, in a sentence.</param>
public sealed record ProposedCard(StashItem Item, Size Pocket, string Reason);

/// <summary>What would go into a week or day.</summary>
/// <param name="Papers">Papers and stickers whose colours go with it, best first.</param>
public sealed record StashProposal(Guid UnitId, ImmutableArray<ProposedCard> Cards, ImmutableArray<StashMatch> Papers);

/// <summary>Proposes spreads that use a stash up: the oldest things first where their colours allow it.</summary>
public static class UseItUp
{
    /// <summary>A week that is all bought cards tells nothing of it. A choice of this program.</summary>
    public const int MostCards = 3;

    private const int MostPapers = 2;

    /// <summary>What age counts against colour: the oldest thing may be so much further off.</summary>
    private const double OldestFirst = 8;

    /// <summary>Colours nobody told: neither good nor bad.</summary>
    private const double NoColours = 16;

    /// <summary>A square inch cut away counts so much.</summary>
    private const double WasteCost = 0.4;

    /// <summary>Leaving a pocket to something else is better than this.</summary>
    private const double LeftOpen = 30;

    /// <summary>
    /// Unit by unit in their order, each thing proposed as often as it is free. Cards go into pockets so that colour,
    /// age and what is cut away add up to the least; a pocket that nothing suits stays open.
    /// </summary>
    public static ImmutableArray<StashProposal> Propose(KeeperStash stash, IEnumerable<RoomForStash> units)
    {
        ArgumentNullException.ThrowIfNull(stash);
        ArgumentNullException.ThrowIfNull(units);
        var items = stash.Present.ToList();
        var free = items.ToDictionary(i => i.Id, i => i.Free);
        var age = items.Select((i, at) => (i.Id, Share: (double)at / Math.Max(1, items.Count - 1)));
        var young = age.ToDictionary(a => a.Id, a => a.Share);
        var proposals = ImmutableArray.CreateBuilder<StashProposal>();
        foreach (var unit in units)
        {
            var cards = Cards(unit);
            foreach (var card in cards)
            {
                free[card.Item.Id]--;
            }

            var papers = StashMatching
                .Rank(items.Where(i => i.Kind is StashKind.Paper or StashKind.Sticker && free[i.Id] > 0), unit.Pictures)
                .Where(m => m.Matches)
                .Take(MostPapers)
                .ToImmutableArray();
            foreach (var paper in papers)
            {
                free[paper.Item.Id]--;
            }

            if (cards.Length + papers.Length > 0)
            {
                proposals.Add(new StashProposal(unit.UnitId, cards, papers));
            }
        }

        return proposals.ToImmutable();

        ImmutableArray<ProposedCard> Cards(RoomForStash unit)
        {
            var matches = StashMatching
                .Rank(items.Where(i => i.Kind == StashKind.Card), unit.Pictures)
                .ToDictionary(m => m.Item.Id);
            // One copy of each: the same card twice on a spread looks like a mistake.
            var copies = items.Where(i => i is { Kind: StashKind.Card, Size: not null } && free[i.Id] > 0).ToList();
            var pockets = unit.Pockets;
            if (copies.Count == 0 || pockets.IsEmpty)
            {
                return [];
            }

            var cost = new long[pockets.Length, copies.Count + pockets.Length];
            for (var p = 0; p < pockets.Length; p++)
            {
                for (var c = 0; c < copies.Count + pockets.Length; c++)
                {
                    cost[p, c] =
                        c < copies.Count
                            ? Cost(copies[c], pockets[p], matches.GetValueOrDefault(copies[c].Id))
                            : (long)(LeftOpen * 1_000);
                }
            }

            return
            [
                .. Assignment
                    .Solve(cost)
                    .Select((column, p) => (Column: column, Pocket: pockets[p], Cost: cost[p, column]))
                    .Where(a => a.Column < copies.Count)
                    .OrderBy(a => a.Cost)
                    .ThenBy(a => a.Column)
                    .Take(MostCards)
                    .Select(a => new ProposedCard(
                        copies[a.Column],
                        a.Pocket,
                        ReasonOf(copies[a.Column], a.Pocket, matches.GetValueOrDefault(copies[a.Column].Id))
                    )),
            ];
        }

        long Cost(StashItem item, Size pocket, StashMatch? match) =>
            StashFit.WasteIn(item.Size!.Value, pocket) is not { } waste
                ? (long)(LeftOpen * 10_000)
                : (long)
                    Math.Round(
                        1_000
                            * (
                                (match?.Difference ?? NoColours)
                                + (OldestFirst * young[item.Id])
                                + (WasteCost * (double)waste)
                            )
                    );
    }

    private static string ReasonOf(StashItem item, Size pocket, StashMatch? match)
    {
        var cut =
            StashFit.WasteIn(item.Size!.Value, pocket) > 1 ? $" Cut it down to {MeasureText.ShortName(pocket)}." : "";
        var why =
            match?.Reason
            ?? (
                item.Colours.IsDefaultOrEmpty
                    ? "Nobody told its colours yet."
                    : "There are no pictures yet, so the oldest things come first."
            );
        return why + cut;
    }
}
