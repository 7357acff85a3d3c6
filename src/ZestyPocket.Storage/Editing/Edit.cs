using NodaTime;

namespace ZestyPocket.Storage.Editing;

/// <summary>What kind of row a change is about.</summary>
public enum EditSubject
{
    Unit,
    Leaf,
    Photo,
    Album,
    Protector,
    Story,
}

/// <summary>One edit by a keeper: one command, over all the rows it touches.</summary>
public sealed class Edit
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    /// <summary>The window it was made in; null when no window asked for it.</summary>
    public Guid? WindowId { get; set; }

    /// <summary>Order of edits in the database.</summary>
    public long Sequence { get; set; }

    /// <summary>The units in whose history the edit appears.</summary>
    public List<Guid> UnitIds { get; set; } = [];

    /// <summary>What was done, in the keeper's words: "Put a photo into W19 L3".</summary>
    public required string Summary { get; set; }

    public Instant MadeAt { get; set; }

    public bool Undone { get; set; }

    public List<EditChange> Changes { get; set; } = [];
}

/// <summary>A row before and after an edit, as JSON.</summary>
public sealed class EditChange
{
    public Guid Id { get; set; }

    public Guid EditId { get; set; }

    public EditSubject Subject { get; set; }

    public Guid SubjectId { get; set; }

    public int RevisionAfter { get; set; }

    /// <summary>The edit that was on top of the row before this one.</summary>
    public Guid? PreviousHeadEditId { get; set; }

    public required string Before { get; set; }

    public required string After { get; set; }
}
