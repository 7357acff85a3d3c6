using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Keeping;

/// <summary>What an album leaves its binder as.</summary>
public enum BookForm
{
    /// <summary>A PDF with a page for each page.</summary>
    Pages,

    /// <summary>A PDF with a page for each spread, as the album lies open.</summary>
    Spreads,

    /// <summary>An HTML file that is leafed through, with no network.</summary>
    FlipThrough,

    /// <summary>A zip with a JPEG of the cover and of each spread, to send.</summary>
    Pictures,
}

/// <summary>A book that is made of an album or of some of its units.</summary>
public sealed class Book : AskedJob
{
    /// <summary>Which units, in any order; none are all.</summary>
    public List<Guid> UnitIds { get; set; } = [];

    public BookForm Form { get; set; }

    /// <summary>Smaller pictures.</summary>
    public bool Light { get; set; }

    public int PagesDone { get; set; }

    public int PagesTotal { get; set; }

    public long Bytes { get; set; }
}
