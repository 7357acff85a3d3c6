using NodaTime;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>Notes what is done about the sharing of albums, in the transaction of what is done.</summary>
public sealed class ShareLog(ZestyContext db, IClock clock)
{
    public void Add(Guid albumId, Guid? keeperId, string what)
    {
        ArgumentNullException.ThrowIfNull(what);
        db.ShareEntries.Add(
            new ShareEntry
            {
                Id = Guid.CreateVersion7(),
                AlbumId = albumId,
                KeeperId = keeperId,
                What = what.Length <= ShareEntry.LongestWhat ? what : what[..ShareEntry.LongestWhat],
                At = clock.GetCurrentInstant(),
            }
        );
    }
}
