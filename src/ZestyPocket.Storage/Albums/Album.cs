using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Albums;

/// <summary>Whether an album belongs to the demo, and whether it was made to its end.</summary>
public enum DemoState
{
    None,
    Making,
    Ready,
}

/// <summary>A dated album: its page body and the way it counts its days.</summary>
public sealed class Album : IRevisioned
{
    public Guid Id { get; set; }

    public Guid KeeperId { get; set; }

    public required string Name { get; set; }

    public LocalDate FirstDay { get; set; }

    public Length BodyWidth { get; set; }

    public Length BodyHeight { get; set; }

    public MeasureSystem Measures { get; set; }

    /// <summary>How the album counts time: an <see cref="AlbumCalendar"/> as JSON.</summary>
    public string Calendar { get; set; } = "{}";

    /// <summary>What the album knows about its words: an <see cref="AlbumWords"/> as JSON.</summary>
    public string Words { get; set; } = "{}";

    /// <summary>Pages a unit takes: 2 are facing pages, 1 is one page each.</summary>
    public int FacesPerUnit { get; set; } = 2;

    /// <summary>Whether a unit takes facing pages or the two faces of a leaf.</summary>
    public PageSchool School { get; set; }

    /// <summary>The patterns its units repeat: <see cref="AlbumFormulas"/> as JSON.</summary>
    public string Formulas { get; set; } = "{}";

    /// <summary>How it is kept: an <see cref="AlbumKeeping"/> as JSON.</summary>
    public string Keeping { get; set; } = "{}";

    /// <summary>Legs, expenses and weather of its trips: a <see cref="TripLog"/> as JSON.</summary>
    public string Trip { get; set; } = "{}";

    public DemoState Demo { get; set; }

    public Instant MadeAt { get; set; }

    /// <summary>Set when the keeper put the album away; it can be brought back.</summary>
    public Instant? PutAwayAt { get; set; }

    public int Revision { get; set; }

    public Guid? HeadEditId { get; set; }

    public List<AlbumProtector> Protectors { get; set; } = [];

    public List<AlbumUnit> Units { get; set; } = [];

    public List<AlbumLeaf> Leaves { get; set; } = [];

    public AlbumCalendar ReadCalendar() => StoredDocuments.Calendar.Read(Calendar);

    public AlbumWords ReadWords() => StoredDocuments.Words.Read(Words);

    public void WriteWords(AlbumWords words) => Words = StoredDocuments.Words.Write(words);

    public AlbumFormulas ReadFormulas() => StoredDocuments.Formulas.Read(Formulas);

    public void WriteFormulas(AlbumFormulas formulas) => Formulas = StoredDocuments.Formulas.Write(formulas);

    public AlbumKeeping ReadKeeping() => StoredDocuments.Keeping.Read(Keeping);

    public void WriteKeeping(AlbumKeeping keeping) => Keeping = StoredDocuments.Keeping.Write(keeping);

    public TripLog ReadTrip() => StoredDocuments.Trip.Read(Trip);

    public void WriteTrip(TripLog trip) => Trip = StoredDocuments.Trip.Write(trip);

    /// <summary>Takes a calendar over, with the columns that follow from it.</summary>
    public void WriteCalendar(AlbumCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        (Calendar, FirstDay) = (StoredDocuments.Calendar.Write(calendar), calendar.FirstDay);
    }
}
