using NodaTime;
using ZestyPocket.Core.Pages.Edits;

namespace ZestyPocket.Storage.Albums;

/// <summary>
/// A page design in a keeper's own collection, for all albums. It is never changed: a changed one is a new one, and the
/// albums that use it hold its notation themselves, so that nothing happens to them when it is deleted.
/// </summary>
public sealed class KeeperDesign
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    public required string Name { get; set; }

    /// <summary>See <see cref="Core.Pages.DesignNotation"/>.</summary>
    public required string Notation { get; set; }

    public Instant MadeAt { get; set; }

    /// <summary>Set when it was deleted; it can be restored.</summary>
    public Instant? PutAwayAt { get; set; }

    /// <summary>Grows by one with every change; an edit made on an older one is refused.</summary>
    public int Revision { get; set; }

    /// <summary>The key its protectors carry.</summary>
    public string Key => KeyOf(Id);

    public static string KeyOf(Guid id) => $"own-{id:N}";

    /// <summary>The design as a value.</summary>
    public OwnDesign Read() => new(Id, Name, Notation, Revision, PutAwayAt is not null);
}
