using System.Collections.Immutable;

namespace ZestyPocket.Core.Keeping.Stash;

/// <summary>A kit and what is left of it.</summary>
/// <param name="Bought">How many pieces there were.</param>
/// <param name="Left">How many lie in the stash.</param>
/// <param name="Free">How many of those nobody has set aside.</param>
public sealed record StashKit(string Name, int Bought, int Left, int Free);

/// <summary>Everything a keeper has in stock for all albums, in the order it came.</summary>
public sealed record KeeperStash(ImmutableArray<StashItem> Items)
{
    /// <summary>A stash of more kinds of things than this is not looked through by anybody.</summary>
    public const int Most = 5_000;

    /// <summary>Those that are not deleted.</summary>
    public IEnumerable<StashItem> Present => Items.Where(i => !i.Deleted);

    public StashItem Require(Guid id) =>
        Items.FirstOrDefault(i => i.Id == id && !i.Deleted)
        ?? throw new RuleException("That item is not in the stash any more. Nothing was changed: load it again.");

    /// <summary>The kits by name, each with what is left of it.</summary>
    public ImmutableArray<StashKit> Kits() =>
        [
            .. Present
                .Where(i => i.Kit.Length > 0)
                .GroupBy(i => i.Kit)
                .Select(g => new StashKit(g.Key, g.Sum(i => i.Count + i.Used), g.Sum(i => i.Count), g.Sum(i => i.Free)))
                .OrderBy(k => k.Name, StringComparer.Ordinal),
        ];
}
