using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Keeping;

/// <summary>An album that is bound into another one.</summary>
/// <param name="After">The week or day it comes after.</param>
public sealed record InsertView(Guid AlbumId, string Name, Guid AfterUnitId, string After, bool Between, string Words);

/// <summary>An album that could be bound in, and where it would best go.</summary>
public sealed record InsertOfferView(Guid AlbumId, string Name, Guid AfterUnitId);

/// <summary>An album that this one is bound into, or could be.</summary>
/// <param name="After">The week or day it comes after.</param>
/// <param name="Revision">Of that album.</param>
public sealed record InsertHostView(Guid AlbumId, string Name, Guid AfterUnitId, string After, int Revision);

/// <summary>What is bound into an album, and what it is bound into.</summary>
/// <param name="Revision">Of the album.</param>
/// <param name="Offers">Albums that begin while this one runs.</param>
/// <param name="Hosts">Albums that this one could go into.</param>
public sealed record InsertsView(
    int Revision,
    IReadOnlyList<InsertView> Inserts,
    IReadOnlyList<InsertOfferView> Offers,
    InsertHostView? BoundInto,
    IReadOnlyList<InsertHostView> Hosts
);

/// <summary>Pages of one album that are read one after another.</summary>
/// <param name="Inserted">They are of an album that is bound in here.</param>
public sealed record BookPart(IReadOnlyList<OpenPage> Pages, bool Inserted)
{
    public IReadOnlyList<OpenUnit> Units { get; } = [.. Pages.Select(p => p.Unit).DistinctBy(u => u.Unit.Id)];
}

/// <summary>Reads which albums are bound into which.</summary>
public sealed class InsertReader(ZestyContext db, AlbumReader albums, InsertedAlbums bound, ICurrentKeeper keeper)
{
    public async Task<InsertsView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var (inserts, units) = (await bound.OfAsync(album, cancel), await UnitsAsync(album, cancel));
        // Who owns both binds one into the other; an editor of somebody's album is offered nothing.
        var others = await db
            .Albums.AsNoTracking()
            .Where(a => a.KeeperId == keeper.Id && a.KeeperId == album.KeeperId)
            .Where(a => a.PutAwayAt == null && a.Id != albumId)
            .OrderBy(a => a.FirstDay)
            .ThenBy(a => a.Name)
            .ToListAsync(cancel);
        var host = others.Find(a => a.ReadKeeping().Inserts.Any(i => i.AlbumId == albumId));
        var hosts = new List<InsertHostView>();
        foreach (var other in others.Where(o => host is null && inserts.Count == 0 && o.FirstDay < album.FirstDay))
        {
            var days = await UnitsAsync(other, cancel);
            if (PlaceOf(days, album) is { } after && days.Exists(u => u.ReadDates().Last >= album.FirstDay))
            {
                hosts.Add(HostOf(other, days, after));
            }
        }

        return new InsertsView(
            album.Revision,
            [
                .. inserts.Select(i => new InsertView(
                    i.Album.Id,
                    i.Album.Name,
                    i.After.Id,
                    TitleOf(i.After, album),
                    i.Insert.Between,
                    NumberWords.Counted(i.Units.Sum(u => u.Faces.Count), "page")
                        + (i.Insert.Between ? " between the pages of " : " after ")
                        + TitleOf(i.After, album)
                )),
            ],
            [
                .. others
                    .Where(o => host is null && inserts.All(i => i.Album.Id != o.Id) && o.ReadKeeping().Inserts.IsEmpty)
                    .Where(o => units.Exists(u => u.ReadDates().Last >= o.FirstDay))
                    .Select(o => (Album: o, After: PlaceOf(units, o)))
                    .Where(o => o.After is not null)
                    .Select(o => new InsertOfferView(o.Album.Id, o.Album.Name, o.After!.Value)),
            ],
            host is null
                ? null
                : HostOf(
                    host,
                    await UnitsAsync(host, cancel),
                    host.ReadKeeping().Inserts.First(i => i.AlbumId == albumId).AfterUnitId
                ),
            hosts
        );
    }

    /// <summary>Pages in the order in which they are read, with what is bound in between.</summary>
    public async Task<IReadOnlyList<BookPart>> PartsAsync(
        Album album,
        IReadOnlyList<OpenUnit> units,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(units);
        var inserts = (await bound.OfAsync(album, cancel)).ToLookup(i => i.After.Id);
        var (parts, part) = (new List<BookPart>(), new List<OpenPage>());
        foreach (var unit in units)
        {
            var (pages, done) = (OpenPage.Of(unit), 0);
            var sides = pages.Select(p => p.Face.Side).ToList();
            foreach (
                var (at, inserted) in inserts[unit.Unit.Id]
                    .Select(i =>
                        (InsertPlace.PageOf(sides, i.Insert.Between), i.Units.SelectMany(OpenPage.Of).ToList())
                    )
                    .Where(i => i.Item2.Count > 0)
                    .OrderBy(i => i.Item1)
            )
            {
                part.AddRange(pages.Skip(done).Take(at - done));
                done = at;
                parts.Add(new BookPart(part, Inserted: false));
                parts.Add(new BookPart(inserted, Inserted: true));
                part = [];
            }

            part.AddRange(pages.Skip(done));
        }

        parts.Add(new BookPart(part, Inserted: false));
        return [.. parts.Where(p => p.Pages.Count > 0)];
    }

    private static InsertHostView HostOf(Album host, List<AlbumUnit> units, Guid after) =>
        new(
            host.Id,
            host.Name,
            after,
            units.Find(u => u.Id == after) is { } unit ? TitleOf(unit, host) : string.Empty,
            host.Revision
        );

    private Task<List<AlbumUnit>> UnitsAsync(Album album, CancellationToken cancel) =>
        db.Units.AsNoTracking().Where(u => u.AlbumId == album.Id).OrderBy(u => u.Ordinal).ToListAsync(cancel);

    private static Guid? PlaceOf(List<AlbumUnit> units, Album other) =>
        InsertPlace.For(units.Select(u => (u.Id, u.ReadDates().First, u.ReadDates().Last)), other.FirstDay);

    private static string TitleOf(AlbumUnit unit, Album album) => unit.ReadDates().Title(album.ReadCalendar().Style);
}
