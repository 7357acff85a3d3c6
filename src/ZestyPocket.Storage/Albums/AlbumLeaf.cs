using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>A leaf in the ring binder. Each face belongs to a unit or to none (title and end page).</summary>
public sealed class AlbumLeaf : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public int Ordinal { get; set; }

    public Guid ProtectorId { get; set; }

    public Guid? FrontUnitId { get; set; }

    public Guid? BackUnitId { get; set; }

    /// <summary>What was done to it: a <see cref="LeafAlterations"/> as JSON.</summary>
    public string Alterations { get; set; } = "{}";

    /// <summary>Taken out of the binder; the row stays, so that it can come back.</summary>
    public bool Gone { get; set; }

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    public LeafAlterations ReadAlterations() =>
        Alterations == "{}" ? LeafAlterations.Plain : StoredDocuments.LeafAlterations.Read(Alterations);

    public void WriteAlterations(LeafAlterations alterations) =>
        Alterations = StoredDocuments.LeafAlterations.Write(alterations);
}
