using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Placing;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

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

    public int Year { get; set; }

    public int FirstNumber { get; set; }

    public int LastNumber { get; set; }

    public int FirstOccurrence { get; set; }

    public int LastOccurrence { get; set; }

    /// <summary>Left out on purpose: nothing is reported as missing.</summary>
    public bool LeftOut { get; set; }

    public string? Name { get; set; }

    /// <summary>Merged into a neighbour, or its making was undone. The row stays, so that it can come back.</summary>
    public bool Gone { get; set; }

    /// <summary>The <see cref="UnitContent"/> as JSON.</summary>
    public string Content { get; set; } = StoredDocuments.Content.Write(UnitContent.Empty);

    /// <summary>Grows by one with every change, undo and redo included.</summary>
    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    /// <summary>Cards in the content with words that are written or computed.</summary>
    public int CardsTold { get; set; }

    public int PiecesPlaced { get; set; }

    /// <summary>Photos with a print in a pocket.</summary>
    public List<Guid> PhotosPlaced { get; set; } = [];

    public int KeepsakesInEnvelope { get; set; }

    public UnitDates ReadDates() =>
        new(Kind, FirstDay, LastDay, Year, FirstNumber, LastNumber, FirstOccurrence, LastOccurrence, LeftOut, Name);

    public void WriteDates(UnitDates dates)
    {
        ArgumentNullException.ThrowIfNull(dates);
        (Kind, FirstDay, LastDay, Year) = (dates.Kind, dates.First, dates.Last, dates.Year);
        (FirstNumber, LastNumber) = (dates.FirstNumber, dates.LastNumber);
        (FirstOccurrence, LastOccurrence) = (dates.FirstOccurrence, dates.LastOccurrence);
        (LeftOut, Name) = (dates.LeftOut, dates.Name);
    }

    public UnitContent Read() => StoredDocuments.Content.Read(Content);

    /// <summary>Takes a new content over, with the columns that follow from it.</summary>
    public void Write(UnitContent content)
    {
        ArgumentNullException.ThrowIfNull(content);
        Content = StoredDocuments.Content.Write(content);
        PiecesPlaced = content.Placements.Length;
        PhotosPlaced = [.. content.PhotosPlaced.Order()];
        KeepsakesInEnvelope = content.InEnvelope.Count();
        CardsTold = content
            .Pieces.OfType<Card>()
            .Count(c => Core.Words.ComputedCards.IsComputed(c.Kind) || !string.IsNullOrWhiteSpace(c.Words));
    }
}
