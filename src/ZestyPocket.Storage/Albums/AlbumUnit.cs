using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>What kind of stretch of days a unit is.</summary>
public enum UnitKind
{
    Week,
}

/// <summary>
/// A dated unit of an album. Its content is one document, read and written whole, so that a revision is a whole state
/// and undo cannot leave half of one behind; what is asked across units is kept beside it in columns.
/// </summary>
public sealed class AlbumUnit : IRevisioned
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public int Ordinal { get; set; }

    public UnitKind Kind { get; set; }

    public LocalDate FirstDay { get; set; }

    public LocalDate LastDay { get; set; }

    /// <summary>The <see cref="UnitContent"/> as JSON.</summary>
    public string Content { get; set; } = UnitContentJson.Empty;

    /// <summary>Grows by one with every change, undo and redo included.</summary>
    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    /// <summary>Cards in the content with words that are written or computed.</summary>
    public int CardsTold { get; set; }

    public int PiecesPlaced { get; set; }

    public Week Week => Week.Holding(FirstDay);

    public UnitContent Read() => UnitContentJson.Read(Content);

    /// <summary>Takes a new content over, with the columns that follow from it.</summary>
    public void Write(UnitContent content)
    {
        ArgumentNullException.ThrowIfNull(content);
        Content = UnitContentJson.Write(content);
        PiecesPlaced = content.Placements.Length;
        CardsTold = content.Pieces.OfType<Card>().Count(c => c.Kind == Core.Words.CardKind.WeekTitle || !string.IsNullOrWhiteSpace(c.Words));
    }
}
