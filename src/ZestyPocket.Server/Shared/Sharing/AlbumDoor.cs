using Microsoft.EntityFrameworkCore;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>What albums a keeper may come to, and as what: the one place that decides it.</summary>
public static class AlbumAccess
{
    /// <summary>The albums somebody may do so much with, those in the bin too.</summary>
    public static IQueryable<Album> Of(ZestyContext db, Guid keeperId, AlbumRole needs)
    {
        ArgumentNullException.ThrowIfNull(db);
        var shared = db.Shares.Where(s => s.KeeperId == keeperId);
        return needs switch
        {
            AlbumRole.Owner => db.Albums.Where(a => a.KeeperId == keeperId),
            AlbumRole.Editor => db.Albums.Where(a =>
                a.KeeperId == keeperId || shared.Any(s => s.AlbumId == a.Id && s.Role == AlbumRole.Editor)
            ),
            _ => db.Albums.Where(a => a.KeeperId == keeperId || shared.Any(s => s.AlbumId == a.Id)),
        };
    }

    /// <summary>Null when the album is not there for the keeper at all.</summary>
    public static async Task<AlbumRole?> RoleAsync(
        ZestyContext db,
        Guid keeperId,
        Guid albumId,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var found = await db
            .Albums.AsNoTracking()
            .Where(a => a.Id == albumId)
            .Select(a => new
            {
                a.KeeperId,
                Shared = db
                    .Shares.Where(s => s.AlbumId == a.Id && s.KeeperId == keeperId)
                    .Select(s => (AlbumRole?)s.Role)
                    .FirstOrDefault(),
            })
            .SingleOrDefaultAsync(cancel);
        return found is null ? null
            : found.KeeperId == keeperId ? AlbumRole.Owner
            : found.Shared;
    }
}

/// <summary>
/// The policy of albums and of everything in them: before any operation runs, whoever asks must have the role that the
/// operation needs with the album that its address is about. An album that is another's and one that is not there are
/// answered alike. What belongs to a keeper and to no album is asked for by its keeper alone.
/// </summary>
public static class AlbumDoor
{
    public static IApplicationBuilder UseAlbumDoor(this IApplicationBuilder app) =>
        app.Use(
            async (http, next) =>
            {
                var services = http.RequestServices;
                if (
                    services.GetRequiredService<ZestySettings>().SignIn == SignInMode.Household
                    && http.User.Identity is { IsAuthenticated: true }
                    && ResourceOf(http) is var (kind, id)
                )
                {
                    await RequireAsync(
                        services.GetRequiredService<ZestyContext>(),
                        services.GetRequiredService<ICurrentKeeper>(),
                        kind,
                        id,
                        http.RequestAborted
                    );
                }

                await next(http);
            }
        );

    private static async Task RequireAsync(
        ZestyContext db,
        ICurrentKeeper keeper,
        string kind,
        Guid id,
        CancellationToken cancel
    )
    {
        var albumId = await AlbumOfAsync(db, kind, id, cancel);
        var role = albumId is { } album ? await AlbumAccess.RoleAsync(db, keeper.Id, album, cancel) : null;
        if (role is null)
        {
            throw new MissingException("That");
        }

        if (role < keeper.Needs)
        {
            throw new NotAllowedException(role.Value, keeper.Needs);
        }
    }

    /// <summary>What the address of a request is about; null when it is about no album.</summary>
    private static (string Kind, Guid Id)? ResourceOf(HttpContext http)
    {
        if ((http.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText?.Split('/') is not [_, _, var kind, ..] parts)
        {
            return null;
        }

        var name = parts is [_, _, _, var parameter, ..] ? parameter.Trim('{', '}').Split(':')[0] : string.Empty;
        return AlbumAddresses.Kinds.Contains(kind) && Guid.TryParse(http.GetRouteValue(name)?.ToString(), out var id)
            ? (kind, id)
            : null;
    }

    private static Task<Guid?> AlbumOfAsync(ZestyContext db, string kind, Guid id, CancellationToken cancel)
    {
        return kind switch
        {
            "albums" => Task.FromResult<Guid?>(id),
            "units" => FirstAsync(db.Units.IgnoreQueryFilters().Where(u => u.Id == id).Select(u => (Guid?)u.AlbumId)),
            "photos" => FirstAsync(db.Photos.Where(p => p.Id == id).Select(p => (Guid?)p.AlbumId)),
            "videos" => FirstAsync(db.Videos.Where(v => v.Id == id).Select(v => (Guid?)v.AlbumId)),
            "edits" => FirstAsync(db.Edits.Where(e => e.Id == id).Select(e => (Guid?)e.AlbumId)),
            "imports" => FirstAsync(db.Imports.Where(i => i.Id == id).Select(i => (Guid?)i.AlbumId)),
            "print-jobs" => FirstAsync(db.PrintJobs.Where(j => j.Id == id).Select(j => (Guid?)j.AlbumId)),
            "lab-orders" => FirstAsync(db.LabOrders.Where(j => j.Id == id).Select(j => (Guid?)j.AlbumId)),
            "books" => FirstAsync(db.Books.Where(j => j.Id == id).Select(j => (Guid?)j.AlbumId)),
            "page-searches" => FirstAsync(db.PageSearches.Where(j => j.Id == id).Select(j => (Guid?)j.AlbumId)),
            _ => FirstAsync(db.StretchPlacings.Where(j => j.Id == id).Select(j => (Guid?)j.AlbumId)),
        };

        Task<Guid?> FirstAsync(IQueryable<Guid?> albums) => albums.FirstOrDefaultAsync(cancel);
    }
}
