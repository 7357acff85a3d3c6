using System.Text.Json;
using Microsoft.EntityFrameworkCore;

namespace ZestyPocket.Storage.Editing;

/// <summary>What is new in an album.</summary>
public enum NewsKind
{
    /// <summary>An edit was made, undone or done again.</summary>
    Edit,

    /// <summary>Pictures came.</summary>
    Photos,

    /// <summary>A comment was written or changed.</summary>
    Comments,

    /// <summary>Somebody came, went, or looks at another week or day.</summary>
    Presence,

    /// <summary>Words of a contributor came or were decided on.</summary>
    Words,

    /// <summary>Who may come to the album has changed.</summary>
    Sharing,

    /// <summary>Nobody knows what was missed: everything is read anew.</summary>
    LookAgain,
}

/// <summary>One line of news for whoever has the album open.</summary>
/// <param name="Units">The weeks or days it is about; none when it may be about any.</param>
/// <param name="Window">The window it was asked for in, which knows already; null when no window asked.</param>
public sealed record AlbumNewsLine(Guid Album, NewsKind Kind, IReadOnlyList<Guid> Units, Guid? Window);

/// <summary>
/// Tells every server what is new in an album, through PostgreSQL: NOTIFY in the transaction of the change reaches the
/// others when it is committed, and never when it is not.
/// </summary>
public static class AlbumNews
{
    public const string Channel = "zesty_album";

    /// <summary>
    /// A notification holds less than 8,000 bytes (PostgreSQL, NOTIFY): with more units than this it names none.
    /// </summary>
    private const int MostUnits = 100;

    private static readonly AsyncLocal<Guid?> Asking = new();

    /// <summary>The window for which this request works; null for none.</summary>
    public static Guid? Window
    {
        get => Asking.Value;
        set => Asking.Value = value;
    }

    public static Task TellAsync(
        ZestyContext db,
        Guid albumId,
        NewsKind kind,
        IReadOnlyList<Guid> units,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(units);
        var line = new AlbumNewsLine(albumId, kind, units.Count > MostUnits ? [] : units, Window);
        return db.Database.ExecuteSqlAsync($"SELECT pg_notify({Channel}, {JsonSerializer.Serialize(line)})", cancel);
    }

    /// <summary>Null when a notification is none of this program's, or of a later version of it.</summary>
    public static AlbumNewsLine? Read(string payload)
    {
        try
        {
            return JsonSerializer.Deserialize<AlbumNewsLine>(payload);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
