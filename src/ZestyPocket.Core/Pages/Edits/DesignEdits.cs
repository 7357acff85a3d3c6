using System.Collections.Immutable;

namespace ZestyPocket.Core.Pages.Edits;

/// <summary>
/// A page design in a keeper's own collection. Its notation is never changed: a changed one is a new one, and albums
/// that use it hold the notation themselves, so that nothing happens to them when it is deleted.
/// </summary>
/// <param name="Revision">Grows by one with every change.</param>
/// <param name="Deleted">It can be restored.</param>
public sealed record OwnDesign(Guid Id, string Name, string Notation, int Revision = 0, bool Deleted = false)
{
    /// <summary>In characters.</summary>
    public const int LongestName = 120;
}

/// <summary>A keeper's own page designs, for all albums.</summary>
public sealed record OwnDesigns(ImmutableArray<OwnDesign> Designs)
{
    /// <summary>A collection of more than this is not looked through by anybody.</summary>
    public const int Most = 400;

    /// <summary>Those that are not deleted.</summary>
    public IEnumerable<OwnDesign> Present => Designs.Where(d => !d.Deleted);

    public OwnDesign Require(Guid id) =>
        Designs.FirstOrDefault(d => d.Id == id)
        ?? throw new RuleException("That page design is not in your collection. Nothing was changed.");

    /// <summary>The collection with a design as it is now.</summary>
    public OwnDesigns With(OwnDesign design) => new(Designs.Replace(Require(design.Id), design));
}

/// <summary>What an edit has made of a collection.</summary>
/// <param name="Design">The design in hand afterwards.</param>
public sealed record CollectionEdited(OwnDesigns Collection, string Done, OwnDesign Design);

/// <summary>
/// One edit of a keeper's collection of page designs. Every kind is a record of its own with exactly the fields it
/// needs; its name on the wire is the record's.
/// </summary>
public abstract record DesignEdit
{
    /// <summary>What is about to be done, for a refusal that names it.</summary>
    public abstract string Label();

    /// <summary>The design that the keeper looked at, with its revision; null for what only adds.</summary>
    public virtual (Guid DesignId, int Revision)? MadeOn() => null;

    /// <summary>
    /// The collection after the edit. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public abstract CollectionEdited Apply(OwnDesigns collection, Func<Guid> newId);
}

/// <summary>Adds a design; the same one once more adds nothing.</summary>
/// <param name="Name">Null for what it holds, in words.</param>
/// <param name="Notation">See <see cref="DesignNotation"/>.</param>
public sealed record AddDesign(string? Name, string Notation) : DesignEdit
{
    public override string Label() => "Add a page design";

    public override CollectionEdited Apply(OwnDesigns collection, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(collection);
        ArgumentNullException.ThrowIfNull(newId);
        var draft = DesignDraft.Read(Notation);
        var name = string.IsNullOrWhiteSpace(Name) ? DesignDraft.NameOf(draft.Pockets) : RenameDesign.Checked(Name);
        if (collection.Present.FirstOrDefault(d => d.Name == name && d.Notation == draft.Notation) is { } same)
        {
            return new CollectionEdited(collection, $"“{name}” was in your collection already", same);
        }

        if (collection.Present.Count() >= OwnDesigns.Most)
        {
            throw new RuleException(
                $"A collection holds {OwnDesigns.Most} designs. Nothing was kept: delete some first."
            );
        }

        var added = new OwnDesign(newId(), name, draft.Notation);
        return new CollectionEdited(
            new OwnDesigns(collection.Designs.Add(added)),
            $"Added “{name}” to your collection",
            added
        );
    }
}

/// <summary>An edit of one design of the collection.</summary>
public abstract record OneDesignEdit : DesignEdit
{
    public required Guid DesignId { get; init; }

    /// <summary>The revision of the design that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override (Guid DesignId, int Revision)? MadeOn() => (DesignId, Revision);

    public sealed override CollectionEdited Apply(OwnDesigns collection, Func<Guid> newId)
    {
        ArgumentNullException.ThrowIfNull(collection);
        var before = collection.Require(DesignId);
        var (after, done) = Change(before);
        var counted = after == before ? after : after with { Revision = before.Revision + 1 };
        return new CollectionEdited(collection.With(counted), done, counted);
    }

    protected abstract (OwnDesign Design, string Done) Change(OwnDesign design);
}

/// <summary>Gives a design another name. Albums that use it keep the one they took it with.</summary>
public sealed record RenameDesign(string Name) : OneDesignEdit
{
    public override string Label() => "Rename a page design";

    protected override (OwnDesign Design, string Done) Change(OwnDesign design)
    {
        var name = Checked(Name);
        return (design with { Name = name }, $"Renamed the page design to “{name}”");
    }

    /// <summary>A name of a design. Throws <see cref="RuleException"/> when it is empty or too long.</summary>
    public static string Checked(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return name.Trim() is { Length: > 0 and <= OwnDesign.LongestName } trimmed
            ? trimmed
            : throw new RuleException(
                $"A page design has a name of 1 to {OwnDesign.LongestName} characters. Nothing was kept."
            );
    }
}

/// <summary>Deletes a design from the collection. Albums that use it keep it.</summary>
public sealed record DeleteDesign : OneDesignEdit
{
    public override string Label() => "Delete a page design";

    protected override (OwnDesign Design, string Done) Change(OwnDesign design) =>
        (design with { Deleted = true }, $"Deleted “{design.Name}” from your collection; albums that use it keep it");
}

/// <summary>Brings a deleted design back.</summary>
public sealed record RestoreDesign : OneDesignEdit
{
    public override string Label() => "Restore a page design";

    protected override (OwnDesign Design, string Done) Change(OwnDesign design) =>
        (design with { Deleted = false }, $"“{design.Name}” is in your collection again");
}
