using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Keeping.Stash;

/// <summary>What a week or day takes of an item, with its name.</summary>
public sealed record StashClaimView(Guid UnitId, string Unit, int Reserved, int Used);

/// <summary>An item of the stash.</summary>
/// <param name="Words">Count, size and place in a line.</param>
/// <param name="Picture">Address of its picture; null when there is none.</param>
/// <param name="ColourNames">Its colours as people say them.</param>
/// <param name="Entry">As it would be written down.</param>
public sealed record StashItemView(
    Guid Id,
    int Revision,
    string Name,
    StashKind Kind,
    string Words,
    int Count,
    int Free,
    string? Picture,
    IReadOnlyList<string> Colours,
    string ColourNames,
    IReadOnlyList<StashClaimView> Claims,
    StashEntry Entry
);

/// <summary>An edit that can be undone or made again.</summary>
public sealed record StashStepView(Guid StepId, string Summary);

/// <summary>A stash, or a part of it.</summary>
/// <param name="Total">How many items there are that match, of which at most 200 are listed.</param>
public sealed record StashView(
    IReadOnlyList<StashItemView> Items,
    int Total,
    IReadOnlyList<StashKit> Kits,
    IReadOnlyList<string> Themes,
    StashStepView? Undo,
    StashStepView? Redo
);

/// <summary>Reads what a keeper has in stock.</summary>
public sealed class StashReader(ZestyContext db, ICurrentKeeper keeper)
{
    private const int MostShown = 200;

    public async Task<KeeperStash> StashAsync(CancellationToken cancel) =>
        new([
            .. (
                await db
                    .StashItems.AsNoTracking()
                    .Where(i => i.KeeperId == keeper.Id)
                    .OrderBy(i => i.MadeAt)
                    .ThenBy(i => i.Id)
                    .ToListAsync(cancel)
            ).Select(r => r.Read()),
        ]);

    public async Task<StashView> ReadAsync(string? text, StashKind? kind, string? kit, CancellationToken cancel)
    {
        var stash = await StashAsync(cancel);
        var words = (text ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var found = stash
            .Present.Where(i =>
                (kind is null || i.Kind == kind)
                && (string.IsNullOrEmpty(kit) || i.Kit == kit)
                && Array.TrueForAll(words, w => Says(i).Contains(w, StringComparison.CurrentCultureIgnoreCase))
            )
            .OrderBy(i => i.Name, StringComparer.CurrentCultureIgnoreCase)
            .ThenBy(i => i.Id)
            .ToList();
        var steps = await db
            .StashSteps.AsNoTracking()
            .Where(s => s.KeeperId == keeper.Id)
            .OrderByDescending(s => s.Sequence)
            .Select(s => new
            {
                s.Id,
                s.Summary,
                s.Undone,
            })
            .Take(50)
            .ToListAsync(cancel);
        var undo = steps.Find(s => !s.Undone);
        // What was undone after the last edit that stands can be made again, the latest undone first.
        var redo = steps.TakeWhile(s => s.Undone).LastOrDefault();
        return new StashView(
            await ViewsAsync([.. found.Take(MostShown)], cancel),
            found.Count,
            stash.Kits(),
            [.. stash.Present.Select(i => i.Theme).Where(t => t.Length > 0).Distinct().Order(StringComparer.Ordinal)],
            undo is null ? null : new StashStepView(undo.Id, undo.Summary),
            redo is null ? null : new StashStepView(redo.Id, redo.Summary)
        );
    }

    public async Task<IReadOnlyList<StashItemView>> ViewsAsync(
        IReadOnlyCollection<StashItem> items,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(items);
        var ids = items.SelectMany(i => i.Claims).Select(c => c.UnitId).Distinct().ToList();
        var units = await db.Units.AsNoTracking().Where(u => ids.Contains(u.Id)).ToListAsync(cancel);
        var albumIds = units.Select(u => u.AlbumId).Distinct().ToList();
        var albums = await db
            .Albums.AsNoTracking()
            .Where(a => albumIds.Contains(a.Id))
            .ToDictionaryAsync(a => a.Id, cancel);
        var titles = units.ToDictionary(
            u => u.Id,
            u => $"{u.ReadDates().Title(albums[u.AlbumId].ReadCalendar().Style)}, {albums[u.AlbumId].Name}"
        );
        return
        [
            .. items.Select(i => new StashItemView(
                i.Id,
                i.Revision,
                i.Name,
                i.Kind,
                WordsOf(i),
                i.Count,
                i.Free,
                i.Picture is null ? null : $"/api/stash/{i.Id}/picture?v={i.Revision}",
                [.. i.Colours.Select(c => c.Hex)],
                string.Join(", ", i.Colours.Select(ColourWords.NameOf).Distinct()),
                [
                    .. i.Claims.Select(c => new StashClaimView(
                        c.UnitId,
                        titles.GetValueOrDefault(c.UnitId, "a week or day that is gone"),
                        c.Reserved,
                        c.Used
                    )),
                ],
                StashEntry.Of(i, MeasureSystem.Inches)
            )),
        ];
    }

    private static string Says(StashItem item) =>
        string.Join(
            ' ',
            item.Name,
            item.Theme,
            item.Kit,
            item.Place,
            item.Kind,
            string.Join(' ', item.Colours.Select(ColourWords.NameOf))
        );

    private static string WordsOf(StashItem item)
    {
        var parts = new List<string> { item.Kind == StashKind.Other ? "" : item.Kind.ToString() };
        if (item.Size is { } size)
        {
            parts.Add(MeasureText.Show(size, MeasureSystem.Inches));
        }

        parts.Add(
            item.Reserved > 0 ? $"{item.Count} there, {item.Reserved} reserved"
            : item.Used > 0 ? $"{item.Count} left of {item.Count + item.Used}"
            : $"{item.Count} there"
        );
        if (item.Letters is { } letters)
        {
            parts.Add($"letters {letters}");
        }

        if (item.Price is { } price)
        {
            parts.Add($"{price} each");
        }

        parts.Add(item.Place);
        return string.Join(" · ", parts.Where(p => p.Length > 0));
    }
}
