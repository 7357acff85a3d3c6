using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Shared;

/// <summary>Reads the keeper's albums for the screen.</summary>
public sealed partial class AlbumReader(ZestyContext db, ICurrentKeeper keeper, IClock clock, ILogger<AlbumReader> log)
{
    /// <summary>The albums the keeper may do with what is being asked for, without those put away.</summary>
    public IQueryable<Album> Mine => AlbumAccess.Of(db, keeper.Id, keeper.Needs).Where(a => a.PutAwayAt == null);

    public async Task<Album> RequireAsync(Guid id, CancellationToken cancel) =>
        await Mine.Include(a => a.Protectors).SingleOrDefaultAsync(a => a.Id == id, cancel)
        ?? throw new MissingException("The album");

    /// <summary>The albums on the shelf. One that cannot be read says so and keeps no other away.</summary>
    public async Task<IReadOnlyList<AlbumSummary>> ShelfAsync(CancellationToken cancel)
    {
        try
        {
            return await SummariesAsync(Mine, cancel);
        }
        catch (Exception unreadable) when (IsOfTheAlbum(unreadable))
        {
            // Which of them? Only what every database row has is asked for all of them.
            var all = await Mine.OrderBy(a => a.MadeAt).Select(a => new { a.Id, a.Name }).ToListAsync(cancel);
            var shelf = new List<AlbumSummary>();
            foreach (var album in all)
            {
                shelf.AddRange(await OneAsync(album.Id, album.Name, cancel));
            }

            return shelf;
        }
    }

    private async Task<IReadOnlyList<AlbumSummary>> OneAsync(Guid id, string name, CancellationToken cancel)
    {
        try
        {
            return await SummariesAsync(Mine.Where(a => a.Id == id), cancel);
        }
        catch (Exception unreadable) when (IsOfTheAlbum(unreadable))
        {
            LogUnreadable(log, id, unreadable);
            return
            [
                new AlbumSummary(
                    id,
                    name,
                    AlbumKind.Weekly,
                    default,
                    string.Empty,
                    0,
                    0,
                    string.Empty,
                    false,
                    await AlbumAccess.RoleAsync(db, keeper.Id, id, cancel) ?? AlbumRole.Owner,
                    string.Empty,
                    null,
                    "This album cannot be opened: something of it is damaged, or was stored by another version. Export "
                        + "it as it is, then restore an earlier backup, or put it away. All other albums are untouched."
                ),
            ];
        }
    }

    /// <summary>Whatever a damaged row or document throws when it is read; not that the database is away.</summary>
    private static bool IsOfTheAlbum(Exception exception) =>
        exception is not (OperationCanceledException or OutOfMemoryException) && Outage.Of(exception) is null;

    [LoggerMessage(Level = LogLevel.Error, Message = "Album {AlbumId} cannot be read and was set aside")]
    private static partial void LogUnreadable(ILogger log, Guid albumId, Exception exception);

    private async Task<IReadOnlyList<AlbumSummary>> SummariesAsync(IQueryable<Album> among, CancellationToken cancel)
    {
        var rows = await among
            .OrderBy(a => a.MadeAt)
            .Select(a => new
            {
                Album = a,
                Owner = db.Keepers.Where(k => k.Id == a.KeeperId).Select(k => k.Name).First(),
                Role = db
                    .Shares.Where(s => s.AlbumId == a.Id && s.KeeperId == keeper.Id)
                    .Select(s => (AlbumRole?)s.Role)
                    .FirstOrDefault(),
                Cover = a
                    .Units.Where(u => u.PiecesPlaced > 0)
                    .OrderByDescending(u => u.Ordinal)
                    .Select(u => (Guid?)u.Id)
                    .FirstOrDefault(),
                Weeks = a.Units.Count,
                First = a.Units.Min(u => (LocalDate?)u.FirstDay),
                Last = a.Units.Max(u => (LocalDate?)u.LastDay),
                Photos = db.Photos.Count(p => p.AlbumId == a.Id && p.Verdict != Verdict.Leave),
            })
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new AlbumSummary(
                r.Album.Id,
                r.Album.Name,
                r.Album.ReadCalendar().Kind,
                r.Album.FirstDay,
                r.First is { } first && r.Last is { } last
                    ? SpanLabel.Of(first, last, r.Album.ReadCalendar().Style.Order)
                    : string.Empty,
                r.Weeks,
                r.Photos,
                MeasureText.Show(new Size(r.Album.BodyWidth, r.Album.BodyHeight), r.Album.Measures),
                r.Album.Demo != DemoState.None,
                r.Album.KeeperId == keeper.Id ? AlbumRole.Owner : r.Role ?? AlbumRole.Reader,
                r.Owner,
                r.Cover
            )),
        ];
    }

    /// <summary>
    /// A stretch of an album: so many units from one on, without those left out. Throws when there are more than
    /// <paramref name="most"/> or the first one is not the album's.
    /// </summary>
    public async Task<IReadOnlyList<Guid>> StretchAsync(
        Guid albumId,
        Guid from,
        int count,
        int most,
        CancellationToken cancel
    )
    {
        await RequireAsync(albumId, cancel);
        if (count < 1 || count > most)
        {
            throw new RuleException($"Choose 1 to {most} weeks or days at once.");
        }

        var first =
            await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == from && u.AlbumId == albumId, cancel)
            ?? throw new MissingException("That week or day");
        return await db
            .Units.AsNoTracking()
            .Where(u => u.AlbumId == albumId && u.Ordinal >= first.Ordinal && !u.LeftOut)
            .OrderBy(u => u.Ordinal)
            .Take(count)
            .Select(u => u.Id)
            .ToListAsync(cancel);
    }

    public async Task<AlbumView> ViewAsync(Guid id, CancellationToken cancel)
    {
        var album = await RequireAsync(id, cancel);
        // The documents themselves are not needed for the tape, only the columns beside them.
        var units = await db
            .Units.Where(u => u.AlbumId == id)
            .OrderBy(u => u.Ordinal)
            .Select(u => new
            {
                u.Id,
                u.Revision,
                u.CardsTold,
                u.PiecesPlaced,
                Photos = db
                    .Photos.Where(p => p.AlbumId == id && p.UnitId == u.Id && p.Verdict != Verdict.Leave)
                    .Take(UnitSummary.MostCounted)
                    .Count(),
                Dates = new UnitDates(
                    u.Kind,
                    u.FirstDay,
                    u.LastDay,
                    u.Year,
                    u.FirstNumber,
                    u.LastNumber,
                    u.FirstOccurrence,
                    u.LastOccurrence,
                    u.LeftOut,
                    u.Name
                ),
            })
            .ToListAsync(cancel);
        var withoutUnit = await db.Photos.CountAsync(
            p => p.AlbumId == id && p.UnitId == null && p.Verdict != Verdict.Leave,
            cancel
        );
        var leaves = await db.Leaves.Where(l => l.AlbumId == id).ToListAsync(cancel);

        var printed = await db
            .PrintedPieces.Where(p => p.AlbumId == id && p.Spoilt == null)
            .GroupBy(p => p.UnitId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        var tucked = await db
            .PieceTicks.Where(t => t.AlbumId == id && t.TuckedAt != null)
            .GroupBy(t => t.UnitId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);

        var makes = album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector());
        var pockets = leaves
            .SelectMany(l =>
                new[]
                {
                    (Unit: l.FrontUnitId, Leaf: l, Side: LeafSide.Front),
                    (Unit: l.BackUnitId, Leaf: l, Side: LeafSide.Back),
                }
            )
            .Where(f => f.Unit is not null)
            .GroupBy(f => f.Unit!.Value)
            .ToDictionary(
                g => g.Key,
                g => g.Sum(f => makes[f.Leaf.ProtectorId].Altered(f.Leaf.ReadAlterations()).Design.Face(f.Side).Count)
            );

        var calendar = album.ReadCalendar();
        var dates = units.ConvertAll(u => u.Dates);
        return new AlbumView(
            album.Id,
            album.Name,
            album.Revision,
            calendar.Kind,
            album.FirstDay,
            album.Measures,
            SizeView.Of(new Size(album.BodyWidth, album.BodyHeight), album.Measures),
            [
                .. album
                    .Protectors.Where(p => !p.Gone || leaves.Exists(l => l.ProtectorId == p.Id))
                    .OrderBy(p => p.Ordinal)
                    .Select(p => View(p, album.Measures, leaves.Count(l => l.ProtectorId == p.Id))),
            ],
            [
                .. units.Select(u => new UnitSummary(
                    u.Id,
                    u.Revision,
                    u.Dates.Title(calendar.Style),
                    Mark(u.Dates),
                    u.Dates.Span(calendar.Style),
                    u.Dates.First,
                    u.Dates.Last,
                    u.Dates.Weight,
                    u.Dates.LeftOut,
                    u.Photos,
                    u.CardsTold,
                    u.PiecesPlaced,
                    pockets.GetValueOrDefault(u.Id),
                    printed.GetValueOrDefault(u.Id),
                    tucked.GetValueOrDefault(u.Id)
                )),
            ],
            withoutUnit,
            dates.Count > 0 && calendar.Beyond(dates, atEnd: false) is not null,
            dates.Count > 0 && calendar.Beyond(dates, atEnd: true) is not null,
            calendar.Style.Order,
            calendar.Style.Clock,
            album.School,
            album.FacesPerUnit,
            AlbumDay.Of(clock.GetCurrentInstant().InZone(Zones.Find(calendar.HomeZone)).LocalDateTime, calendar.CutOff),
            album.KeeperId == keeper.Id
                ? AlbumRole.Owner
                : await AlbumAccess.RoleAsync(db, keeper.Id, id, cancel) ?? AlbumRole.Reader
        );

        string Mark(UnitDates unit) =>
            unit.Kind == UnitKind.Hour ? SpanLabel.Hour(unit.FirstNumber, calendar.Style.Clock) : unit.Numbers;
    }

    private static ProtectorView View(AlbumProtector row, MeasureSystem system, int inUse)
    {
        var protector = row.ToProtector();
        return new ProtectorView(
            row.Id,
            row.Revision,
            row.DesignKey,
            protector.Design.Name,
            MeasureText.Exact(protector.Outer, system),
            MeasureText.Exact(protector.RingStrip, system),
            MeasureText.Exact(protector.Ease, system),
            [
                .. protector
                    .Design.Pockets.Concat(protector.Design.OfBack ?? [])
                    .Select(p => p.Nominal)
                    .Distinct()
                    .Select(nominal => new ClearSizeView(
                        nominal.ToString(),
                        protector.ClearSizes.TryGetValue(nominal, out var clear)
                            ? MeasureText.Exact(clear, system)
                            : null,
                        MeasureText.Show(protector.CutSize(nominal), system)
                    )),
            ],
            protector.Design.Pockets.Length,
            row.OnHand,
            inUse,
            row.Gone,
            protector.Form.Kind,
            protector.Form.Rings,
            MeasureText.Exact(protector.Form.Thickness, MeasureSystem.Millimetres),
            protector.Form.Holes is { } holes
                ? new HolesView(
                    holes.Name,
                    MeasureText.Exact(holes.FromEdge, system),
                    MeasureText.Exact(holes.Diameter, system),
                    [.. holes.FromTop(protector.Outer.Height).Select(t => MeasureText.Exact(t, system))]
                )
                : null,
            protector.Design.Body.ToString()
        );
    }
}
