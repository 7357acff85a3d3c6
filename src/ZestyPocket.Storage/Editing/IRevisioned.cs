namespace ZestyPocket.Storage.Editing;

/// <summary>A row whose changes are kept as revisions.</summary>
public interface IRevisioned
{
    Guid Id { get; }

    /// <summary>Grows by one with every change; a write on an older one is refused.</summary>
    int Revision { get; set; }

    /// <summary>The edit that brought the row to its present state; null before the first.</summary>
    Guid? HeadEditId { get; set; }
}
