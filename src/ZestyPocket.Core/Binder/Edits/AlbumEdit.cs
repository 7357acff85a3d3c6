using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>An album as it lies on the desk: all an edit of it needs.</summary>
/// <param name="Calendar">How it counts time.</param>
/// <param name="Words">What it knows about its words.</param>
/// <param name="Formulas">The patterns its units repeat.</param>
/// <param name="Measures">The keeper's units, for words.</param>
public sealed record AlbumDesk(
    string Name,
    AlbumCalendar Calendar,
    AlbumWords Words,
    AlbumFormulas Formulas,
    MeasureSystem Measures,
    RingBinder Binder
)
{
    /// <summary>How it is kept.</summary>
    public AlbumKeeping Keeping { get; init; } = AlbumKeeping.Usual;

    /// <summary>Legs, expenses and weather of its trips.</summary>
    public TripLog Trip { get; init; } = TripLog.Empty;

    /// <summary>The unit's title by the album's settings, such as <c>Week 19</c>.</summary>
    public string TitleOf(BoundUnit unit)
    {
        ArgumentNullException.ThrowIfNull(unit);
        return unit.Dates.Title(Calendar.Style);
    }
}

/// <summary>What an edit of an album cannot make or know itself.</summary>
/// <param name="NewId">A key for something new.</param>
/// <param name="FindDesign">
/// The unmeasured protector of a page design, built in or from the keeper's collection; null for an unknown key.
/// </param>
/// <param name="Facts">The answers to what <see cref="AlbumEdit.Asks"/>.</param>
public sealed record AlbumTools(Func<Guid> NewId, Func<string, Protector?> FindDesign, AlbumFacts Facts);

/// <summary>What an edit must know beyond the album on the desk.</summary>
public sealed record AlbumQuestions
{
    public static AlbumQuestions None { get; } = new();

    /// <summary>Units of which it must know how many pieces want pockets.</summary>
    public ImmutableArray<Guid> PiecesOf { get; init; } = [];

    /// <summary>Pictures of which it must know the times.</summary>
    public ImmutableArray<Guid> Pictures { get; init; } = [];

    /// <summary>It must know every picture's recorded time.</summary>
    public bool EveryRecordedTime { get; init; }

    /// <summary>It must know at which size pieces were printed.</summary>
    public bool Printed { get; init; }
}

/// <summary>A picture's times.</summary>
/// <param name="Recorded">As the camera wrote it; null when the file has none.</param>
/// <param name="Taken">As corrected, by the clock of the place.</param>
public sealed record PictureTime(string FileName, string? Camera, LocalDateTime? Recorded, LocalDateTime? Taken);

/// <summary>A piece as it was printed last.</summary>
/// <param name="Number">The code on its back.</param>
/// <param name="Cut">The size of its cut lines.</param>
/// <param name="IsCut">It is ticked off as cut.</param>
public sealed record PrintedAs(string Number, Size Cut, bool IsCut = false);

/// <summary>The answers to <see cref="AlbumQuestions"/>.</summary>
public sealed record AlbumFacts
{
    public static AlbumFacts None { get; } = new();

    public IReadOnlyDictionary<Guid, int> PiecesOf { get; init; } = ImmutableDictionary<Guid, int>.Empty;

    public IReadOnlyDictionary<Guid, PictureTime> Pictures { get; init; } =
        ImmutableDictionary<Guid, PictureTime>.Empty;

    public IReadOnlyList<RecordedTime> RecordedTimes { get; init; } = [];

    public IReadOnlyDictionary<Guid, PrintedAs> Printed { get; init; } = ImmutableDictionary<Guid, PrintedAs>.Empty;

    public PictureTime RequirePicture(Guid photoId) =>
        Pictures.GetValueOrDefault(photoId)
        ?? throw new RuleException("That photo is not here any more. Nothing was changed.");
}

/// <summary>What a revision is of.</summary>
public enum Seen
{
    Album,
    Unit,
    Leaf,
    Protector,
    Story,
}

/// <summary>Something of the album as the keeper saw it.</summary>
/// <param name="Id">Its key; the album's own is left out.</param>
public readonly record struct SeenRevision(Seen What, Guid Id, int Revision);

/// <summary>What an edit has made of an album.</summary>
/// <param name="Done">What was done, for the history and the keeper.</param>
/// <param name="UnitId">The unit to look at afterwards; null to stay.</param>
public sealed record AlbumEdited(AlbumDesk Desk, string Done, Guid? UnitId = null)
{
    /// <summary>What else there is to say about it.</summary>
    public ImmutableArray<string> Says { get; init; } = [];

    /// <summary>
    /// Units in whose history the edit stands beside those it changes: undo there takes it back.
    /// </summary>
    public ImmutableArray<Guid> AlsoIn { get; init; } = [];
}

/// <summary>
/// One edit that reaches beyond a single unit's content: tape, leaves, protectors, calendar, formulas, words. Every
/// kind is a record of its own with exactly the fields it needs; its name on the wire is the record's. Applying it is a
/// pure function, so a preview is the same call without saving.
/// </summary>
public abstract record AlbumEdit
{
    /// <summary>What is about to be done, for a refusal that names it.</summary>
    public abstract string Label();

    /// <summary>What the keeper looked at, each with its revision. Empty only for what only adds.</summary>
    public abstract IEnumerable<SeenRevision> MadeOn();

    /// <summary>What the edit must know beyond the album on the desk, see <see cref="AlbumFacts"/>.</summary>
    public virtual AlbumQuestions Asks(AlbumDesk desk) => AlbumQuestions.None;

    /// <summary>
    /// The album after the edit. Throws <see cref="RuleException"/> and changes nothing when it cannot be.
    /// </summary>
    public abstract AlbumEdited Apply(AlbumDesk desk, AlbumTools tools);

    /// <summary>Every unit: what holds for the whole album can be undone from each of them.</summary>
    protected static ImmutableArray<Guid> EveryUnit(AlbumDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        return [.. desk.Binder.Units.Select(u => u.Id)];
    }
}

/// <summary>An edit of what holds for the whole album.</summary>
public abstract record WholeAlbumEdit : AlbumEdit
{
    /// <summary>The revision of the album that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override IEnumerable<SeenRevision> MadeOn() => [new SeenRevision(Seen.Album, Guid.Empty, Revision)];
}

/// <summary>An edit of one unit on the tape or of its leaves.</summary>
public abstract record TapeEdit : AlbumEdit
{
    public required Guid UnitId { get; init; }

    /// <summary>The revision of the unit that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override IEnumerable<SeenRevision> MadeOn() => [new SeenRevision(Seen.Unit, UnitId, Revision)];
}

/// <summary>An edit of one leaf.</summary>
public abstract record LeafEdit : AlbumEdit
{
    public required Guid LeafId { get; init; }

    /// <summary>The revision of the leaf that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override IEnumerable<SeenRevision> MadeOn() => [new SeenRevision(Seen.Leaf, LeafId, Revision)];
}

/// <summary>An edit of one protector of the album.</summary>
public abstract record ProtectorEdit : AlbumEdit
{
    public required Guid ProtectorId { get; init; }

    /// <summary>The revision of the protector that the keeper saw.</summary>
    public required int Revision { get; init; }

    public sealed override IEnumerable<SeenRevision> MadeOn() =>
        [new SeenRevision(Seen.Protector, ProtectorId, Revision)];
}
