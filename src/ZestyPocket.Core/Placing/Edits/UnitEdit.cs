namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// One edit of a unit, made on the revision the keeper was looking at. Every kind is a record of its own with exactly
/// the fields it needs; its name on the wire is the record's.
/// </summary>
public abstract record UnitEdit
{
    /// <summary>The revision of the unit that the keeper saw.</summary>
    public required int Revision { get; init; }

    /// <summary>What is about to be done, for a refusal that names it.</summary>
    public abstract string Label();
}

/// <summary>What an edit has made of a unit.</summary>
/// <param name="Content">The unit's new content.</param>
/// <param name="Done">What was done, for the history and the keeper.</param>
/// <param name="PieceId">The piece in hand afterwards; null when there is none.</param>
public sealed record Edited(UnitContent Content, string Done, Guid? PieceId = null);

/// <summary>What an edit cannot make itself: keys for new pieces, and the measure of type.</summary>
public sealed record EditTools(Func<Guid> NewId, Words.ITextShaper Shaper);

/// <summary>An edit that changes nothing but what one unit holds: a pure function of the unit on the desk.</summary>
public abstract record ContentEdit : UnitEdit
{
    /// <summary>
    /// The unit after the edit. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public Edited Apply(UnitDesk desk, EditTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        foreach (var place in Disturbs(desk))
        {
            // One of two pieces that are stuck together cannot go by itself.
            if (desk.Pages.IsStuck(place) && desk.Content.At(place) is not null)
            {
                throw new RuleException(
                    $"The piece in {desk.Pages.CodeOf(place)} is stuck to the one behind it: take the two apart first, "
                        + "in the drawer of the leaf. Nothing was changed."
                );
            }
        }

        return Change(desk, tools);
    }

    protected abstract Edited Change(UnitDesk desk, EditTools tools);

    /// <summary>Pockets whose piece would have to go.</summary>
    protected virtual IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [];
}
