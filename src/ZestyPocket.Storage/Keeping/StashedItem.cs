using NodaTime;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Storage.Keeping;

/// <summary>An item of a keeper's stash.</summary>
public sealed class StashedItem
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>The item: a <see cref="StashItem"/> as JSON.</summary>
    public string Item { get; set; } = "{}";

    public int Revision { get; set; }

    /// <summary>The edit on top of it, see <see cref="StashStep"/>; null for none that can be undone.</summary>
    public Guid? HeadStepId { get; set; }

    public Instant MadeAt { get; set; }

    public StashItem Read() => StoredDocuments.StashItem.Read(Item) with { Id = Id, Revision = Revision };

    public void Write(StashItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        (Item, Revision) = (StoredDocuments.StashItem.Write(item), item.Revision);
    }
}

/// <summary>One edit of a stash, so that it can be undone.</summary>
public sealed class StashStep
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>Order of edits in the database.</summary>
    public long Sequence { get; set; }

    /// <summary>What was done, in the keeper's words.</summary>
    public required string Summary { get; set; }

    public Instant MadeAt { get; set; }

    public bool Undone { get; set; }

    /// <summary>The items before and after: <see cref="StashChanges"/> as JSON.</summary>
    public required string Changes { get; set; }

    public StashChanges ReadChanges() => StoredDocuments.StashChanges.Read(Changes);

    public void WriteChanges(StashChanges changes) => Changes = StoredDocuments.StashChanges.Write(changes);
}
