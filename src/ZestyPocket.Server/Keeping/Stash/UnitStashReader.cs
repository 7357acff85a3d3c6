using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>An item that goes with the pictures of a week or day.</summary>
public sealed record StashMatchView(StashItemView Item, string Reason, bool Matches);

/// <summary>What a week or day is planned to be made of.</summary>
/// <param name="Told">Stories that are on its cards already.</param>
/// <param name="Pockets">What its pockets are for, in a sentence.</param>
public sealed record SpreadPlanView(string Kit, int Stories, string Note, int Told, string Pockets);

/// <summary>A page design that could be laid.</summary>
public sealed record PlanDesignView(Guid ProtectorId, string Name);

/// <summary>The stash as it looks from a week or day.</summary>
/// <param name="AlbumRevision">For edits of its plan.</param>
/// <param name="Colours">Of its pictures, the largest share first.</param>
/// <param name="Taken">What it has set aside or used.</param>
/// <param name="Matches">What goes with its pictures, best first.</param>
public sealed record UnitStashView(
    Guid UnitId,
    string Title,
    int AlbumRevision,
    IReadOnlyList<string> Colours,
    IReadOnlyList<StashItemView> Taken,
    IReadOnlyList<StashMatchView> Matches,
    SpreadPlanView? Plan,
    IReadOnlyList<StashKit> Kits,
    IReadOnlyList<PlanDesignView> Designs
);

/// <summary>A card that would go into a pocket, or a paper that goes with the pictures.</summary>
/// <param name="Pocket">Such as <c>3 × 4 in</c>; null for a paper.</param>
public sealed record ProposedItemView(StashItemView Item, string? Pocket, string Reason);

/// <summary>What would go into a week or day.</summary>
public sealed record StashProposalView(Guid UnitId, string Title, IReadOnlyList<ProposedItemView> Items);

/// <summary>Reads what goes with a week or day, and proposes spreads that use the stash up.</summary>
public sealed class UnitStashReader(UnitOpener opener, StashReader stash, IClock clock)
{
    private const int MostMatches = 12;

    /// <summary>Nobody plans further than two months of weeks.</summary>
    private const int MostUnits = 8;

    public async Task<UnitStashView> ReadAsync(Guid unitId, CancellationToken cancel)
    {
        var open = await opener.OpenAsync(unitId, cancel);
        var all = await stash.StashAsync(cancel);
        var colours = ColoursOf(open);
        var matches = StashMatching.Rank(all.Present.Where(i => i.Free > 0), colours).Take(MostMatches).ToList();
        var taken = all.Present.Where(i => i.Claims.Any(c => c.UnitId == unitId)).ToList();
        var views = (await stash.ViewsAsync([.. matches.Select(m => m.Item), .. taken], cancel))
            .DistinctBy(v => v.Id)
            .ToDictionary(v => v.Id);
        return new UnitStashView(
            unitId,
            open.Title,
            open.Album.Revision,
            [.. colours.Select(c => c.Hex)],
            [.. taken.Select(i => views[i.Id])],
            [.. matches.Select(m => new StashMatchView(views[m.Item.Id], m.Reason, m.Matches))],
            PlanOf(open, taken),
            all.Kits(),
            [
                .. open
                    .Album.Protectors.Where(p => !p.Gone)
                    .OrderBy(p => p.Ordinal)
                    .Select(p => new PlanDesignView(p.Id, p.ToProtector().Design.Name)),
            ]
        );
    }

    public async Task<IReadOnlyList<StashProposalView>> ProposeAsync(Guid albumId, CancellationToken cancel)
    {
        var today = clock.GetCurrentInstant().InUtc().Date;
        // Weeks that have pictures, and those to come: a week that went by without any is not filled with cards.
        var units = (await opener.OpenAlbumAsync(albumId, cancel))
            .Where(u => !u.IsFinished && u.Pockets.Any() && (u.Photos.Count > 0 || u.Dates.Last >= today))
            .Take(MostUnits)
            .ToList();
        var all = await stash.StashAsync(cancel);
        var titles = units.ToDictionary(u => u.Unit.Id, u => u);
        var proposals = UseItUp.Propose(
            all,
            units.Select(u => new RoomForStash(u.Unit.Id, EmptyPockets(u), ColoursOf(u)))
        );
        var items = proposals.SelectMany(p => p.Cards.Select(c => c.Item).Concat(p.Papers.Select(m => m.Item)));
        var views = (await stash.ViewsAsync([.. items.DistinctBy(i => i.Id)], cancel)).ToDictionary(v => v.Id);
        return
        [
            .. proposals.Select(p => new StashProposalView(
                p.UnitId,
                titles[p.UnitId].Title,
                [
                    .. p.Cards.Select(c => new ProposedItemView(
                        views[c.Item.Id],
                        MeasureText.Show(c.Pocket, titles[p.UnitId].Album.Measures),
                        c.Reason
                    )),
                    .. p.Papers.Select(m => new ProposedItemView(views[m.Item.Id], null, m.Reason)),
                ]
            )),
        ];
    }

    private static SpreadPlanView? PlanOf(OpenUnit open, List<StashItem> taken)
    {
        if (open.Album.ReadKeeping().PlanOf(open.Unit.Id) is not { } plan)
        {
            return null;
        }

        var cards = taken
            .Where(i => i.Kind == StashKind.Card)
            .Sum(i => i.ClaimOf(open.Unit.Id) is var claim ? claim.Reserved + claim.Used : 0);
        var told = open.Content.Pieces.OfType<Card>().Select(c => c.StoryId).OfType<Guid>().Distinct().Count();
        return new SpreadPlanView(
            plan.Kit,
            plan.Stories,
            plan.Note,
            told,
            plan.PocketsInWords(open.Pockets.Count(), cards)
        );
    }

    private static ImmutableArray<PaletteColour> ColoursOf(OpenUnit open) =>
        open.Photos.Count == 0 ? [] : Palettes.Together(open.Photos.Values.Select(p => Boxes.ReadPalette(p.Palette)));

    private static ImmutableArray<Size> EmptyPockets(OpenUnit open) =>
        [
            .. open
                .Faces.SelectMany(f => f.Pockets.Select(p => (p.Place, Cut: f.Protector.CutSize(p.Pocket))))
                .Where(p => open.Content.At(p.Place) is null && !open.Content.LeftEmpty.Contains(p.Place))
                .Select(p => p.Cut),
        ];
}
