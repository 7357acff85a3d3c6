using System.Collections.Immutable;
using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Keeping.Stash.Edits;

/// <summary>What an edit has made of a stash.</summary>
/// <param name="Changed">The items it changed or added, as they are now.</param>
public sealed record StashEdited(ImmutableArray<StashItem> Changed, string Done);

/// <summary>An item as the keeper saw it.</summary>
public sealed record SeenItem(Guid ItemId, int Revision);

/// <summary>An item of which a week or day takes some.</summary>
public sealed record StashTake(Guid ItemId, int Revision, int Count);

/// <summary>
/// One edit of a keeper's stash. Every kind is a record of its own with exactly the fields it needs; its name on the
/// wire is the record's.
/// </summary>
public abstract record StashEdit
{
    /// <summary>What is about to be done, for a refusal that names it.</summary>
    public abstract string Label();

    /// <summary>What the keeper looked at, each with its revision. Empty only for what only adds.</summary>
    public virtual IEnumerable<SeenItem> MadeOn() => [];

    /// <summary>
    /// What the edit makes of the stash. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public StashEdited Apply(KeeperStash stash, Func<Guid> newId)
    {
        var (changed, done) = Change(stash, newId);
        return new StashEdited([.. changed.Select(i => i with { Revision = i.Revision + 1 })], done);
    }

    protected abstract (ImmutableArray<StashItem> Changed, string Done) Change(KeeperStash stash, Func<Guid> newId);
}

/// <summary>Adds items; one that is there already by kind, name and kit becomes so many more.</summary>
/// <param name="Entries">1 to 500.</param>
/// <param name="Upload">The photo that their pictures are parts of, when it has just arrived.</param>
public sealed record AddToStash(ImmutableArray<StashEntry> Entries, Guid? Upload = null) : StashEdit
{
    public const int MostAtOnce = 500;

    public override string Label() => "Add to the stash";

    protected override (ImmutableArray<StashItem> Changed, string Done) Change(KeeperStash stash, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(stash);
        ArgumentNullException.ThrowIfNull(newId);
        if (Entries.IsDefaultOrEmpty || Entries.Length > MostAtOnce)
        {
            throw new RuleException($"Add 1 to {MostAtOnce} items at once. Nothing was added.");
        }

        var (changed, added) = (new Dictionary<Guid, StashItem>(), 0);
        foreach (var item in Entries.Select(e => e.Item(newId())))
        {
            var same = changed
                .Values.Concat(stash.Present)
                .FirstOrDefault(i => i.Kind == item.Kind && i.Name == item.Name && i.Kit == item.Kit);
            // A sheet of letters is one of its own: its letters are counted.
            if (same is null || item.Letters is not null || same.Letters is not null)
            {
                (changed[item.Id], added) = (item, added + 1);
            }
            else
            {
                changed[same.Id] = same with { Count = Math.Min(StashEntry.Most, same.Count + item.Count) };
            }
        }

        if (stash.Present.Count() + added > KeeperStash.Most)
        {
            throw new RuleException(
                $"A stash holds {KeeperStash.Most:N0} items. Nothing was added: delete what is used up first."
            );
        }

        return (
            [.. changed.Values],
            Entries.Length == 1
                ? $"Added “{Entries[0].Name.Trim()}” to the stash"
                : $"Added {Entries.Length} items to the stash"
        );
    }
}

/// <summary>An edit of one item.</summary>
public abstract record OneItemEdit : StashEdit
{
    public required Guid ItemId { get; init; }

    /// <summary>The revision of the item that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override IEnumerable<SeenItem> MadeOn() => [new SeenItem(ItemId, Revision)];

    protected sealed override (ImmutableArray<StashItem> Changed, string Done) Change(
        KeeperStash stash,
        Func<Guid> newId
    )
    {
        ArgumentNullException.ThrowIfNull(stash);
        var (item, done) = Change(stash.Require(ItemId));
        return ([item], done);
    }

    protected abstract (StashItem Item, string Done) Change(StashItem item);
}

/// <summary>Writes an item down anew.</summary>
public sealed record ChangeInStash(StashEntry Entry) : OneItemEdit
{
    public override string Label() => "Change an item";

    protected override (StashItem Item, string Done) Change(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (Entry.Item(item.Id, item), $"Changed “{item.Name}” in the stash");
    }
}

/// <summary>Deletes an item from the stash; undo brings it back.</summary>
public sealed record DeleteFromStash : OneItemEdit
{
    public override string Label() => "Delete an item";

    protected override (StashItem Item, string Done) Change(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (item with { Deleted = true }, $"Deleted “{item.Name}” from the stash");
    }
}

/// <summary>Takes some of an item out for a week or day.</summary>
/// <param name="Count">From 1.</param>
public sealed record UseFromStash(Guid UnitId, int Count) : OneItemEdit
{
    public override string Label() => "Use from the stash";

    protected override (StashItem Item, string Done) Change(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (item.Use(UnitId, Count), $"Used {Count} × “{item.Name}”");
    }
}

/// <summary>Puts back what a week or day has set aside or taken out.</summary>
/// <param name="Count">From 1.</param>
public sealed record ReturnToStash(Guid UnitId, int Count) : OneItemEdit
{
    public override string Label() => "Return to the stash";

    protected override (StashItem Item, string Done) Change(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return (item.Return(UnitId, Count), $"Returned {Count} × “{item.Name}”");
    }
}

/// <summary>Takes letters off a sheet for words.</summary>
/// <param name="Words">1 to 120 characters.</param>
public sealed record SpellFromStash(string Words) : OneItemEdit
{
    public override string Label() => "Use letters";

    protected override (StashItem Item, string Done) Change(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return Words?.Trim() is { Length: > 0 and <= 120 } words
            ? (item.Spell(words), $"Spelt “{words}” with “{item.Name}”")
            : throw new RuleException("Spell 1 to 120 characters. Nothing was used.");
    }
}

/// <summary>Sets items aside for a week or day, all or none.</summary>
/// <param name="Takes">1 to 100, each item once.</param>
public sealed record ReserveFromStash(Guid UnitId, ImmutableArray<StashTake> Takes) : StashEdit
{
    private const int MostAtOnce = 100;

    public override string Label() => "Reserve from the stash";

    public override IEnumerable<SeenItem> MadeOn() =>
        Takes.IsDefault ? [] : Takes.Select(t => new SeenItem(t.ItemId, t.Revision));

    protected override (ImmutableArray<StashItem> Changed, string Done) Change(KeeperStash stash, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(stash);
        if (
            Takes.IsDefaultOrEmpty
            || Takes.Length > MostAtOnce
            || Takes.DistinctBy(t => t.ItemId).Count() < Takes.Length
        )
        {
            throw new RuleException(
                $"Reserve 1 to {MostAtOnce} items at once, each of them once. Nothing was changed."
            );
        }

        var reserved = Takes.Select(t => stash.Require(t.ItemId).Reserve(UnitId, t.Count)).ToImmutableArray();
        return (
            reserved,
            reserved.Length == 1
                ? $"Reserved {Takes[0].Count} × “{reserved[0].Name}”"
                : $"Reserved {NumberWords.Counted(Takes.Sum(t => t.Count), "piece")} of {reserved.Length} items"
        );
    }
}
