using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>What the open weeks and days of an album will need and is not there.</summary>
/// <param name="Words">All of it in a sentence.</param>
public sealed record ShoppingView(string Words, IReadOnlyList<ShoppingLine> Lines);

/// <summary>Works out what to buy for an album.</summary>
public sealed class ShoppingReader(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    StashReader stash,
    ThicknessReader thickness,
    ICurrentKeeper keeper
)
{
    public async Task<ShoppingView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var units = await opener.OpenAlbumAsync(albumId, cancel);
        var printed = (
            await db.PrintedPieces.Where(p => p.AlbumId == albumId).Select(p => p.PieceId).ToListAsync(cancel)
        ).ToHashSet();
        var all = await stash.StashAsync(cancel);
        var lines = ShoppingList
            .Papers(
                ShoppingList.Needed(
                    [.. units.Where(u => u.IsFinished).Select(u => Area(u, []))],
                    [.. units.Where(u => !u.IsFinished).Select(u => Area(u, printed))]
                ),
                await DrawerAsync(cancel)
            )
            .ToList();
        lines.AddRange(await ProtectorsAsync(albumId, all, album.ReadKeeping().LeafPrice?.Amount, cancel));
        var keeping = await thickness.ReadAsync(albumId, cancel);
        var binders = keeping.Proposed.Count(p => p.UnitId != Guid.Empty);
        if (binders > 0)
        {
            lines.Add(
                new ShoppingLine(
                    binders,
                    $"{(binders == 1 ? "binder" : "binders")} with rings of {keeping.Rings.Diameter}",
                    keeping.Words
                )
            );
        }

        return new ShoppingView(WordsOf(lines, album.ReadKeeping()), lines);
    }

    private static ImmutableSortedDictionary<Stock, decimal> Area(OpenUnit unit, HashSet<Guid> printed) =>
        MaterialUse.SquareInches(unit.Desk, unit.Faces.Select(f => f.Face), printed);

    private async Task<List<PaperInDrawer>> DrawerAsync(CancellationToken cancel) =>
        [
            .. (await db.PapersOnHand.AsNoTracking().Where(p => p.KeeperId == keeper.Id).ToListAsync(cancel))
                .Select(p => (Row: p, Paper: Paper.Find(p.PaperKey)))
                .Where(p => p.Paper is not null)
                .Select(p => new PaperInDrawer(p.Row.Stock, p.Paper!.Name, p.Paper.Size, p.Row.Count, p.Row.Price)),
        ];

    private async Task<IEnumerable<ShoppingLine>> ProtectorsAsync(
        Guid albumId,
        KeeperStash all,
        decimal? each,
        CancellationToken cancel
    )
    {
        var owned = await db
            .Protectors.AsNoTracking()
            .Where(p => p.AlbumId == albumId && p.OnHand != null)
            .OrderBy(p => p.Ordinal)
            .ToListAsync(cancel);
        var leaves = await db
            .Leaves.Where(l => l.AlbumId == albumId)
            .GroupBy(l => l.ProtectorId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        return owned
            .Select(p =>
            {
                var name = p.ToProtector().Design.Name;
                var spare = all
                    .Present.Where(i =>
                        i.Kind == StashKind.Protector && i.Name.Equals(name, StringComparison.OrdinalIgnoreCase)
                    )
                    .Sum(i => i.Free);
                return ShoppingList.Protectors(name, leaves.GetValueOrDefault(p.Id), p.OnHand!.Value, spare, each);
            })
            .OfType<ShoppingLine>();
    }

    private static string WordsOf(List<ShoppingLine> lines, AlbumKeeping keeping)
    {
        if (lines.Count == 0)
        {
            return "Nothing to buy: what the open weeks and days need is there.";
        }

        var priced = lines.Where(l => l.Price is not null).Sum(l => l.Price!.Value);
        var unpriced = lines.Count(l => l.Price is null);
        var sum = string.Create(CultureInfo.InvariantCulture, $"About {priced:N2} {keeping.LeafPrice?.Currency}")
            .Trim();
        return priced == 0 ? $"{NumberWords.Counted(lines.Count, "thing")} to buy; nobody told their prices."
            : unpriced == 0 ? $"{sum} in all."
            : $"{sum}, and {NumberWords.Counted(unpriced, "thing")} whose price nobody told.";
    }
}
