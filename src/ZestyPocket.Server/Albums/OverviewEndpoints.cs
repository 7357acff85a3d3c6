using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Albums;

/// <summary>How far a unit is.</summary>
public enum UnitProgress
{
    LeftOut,
    Empty,
    Gathering,
    Telling,
    Placing,
    Laid,
}

/// <summary>One unit at a glance.</summary>
/// <param name="PicturesWanted">How many more pictures or cards its pockets still need.</param>
/// <param name="Days">Pictures on each of its days; empty for hours.</param>
/// <param name="Next">What to do next, in words.</param>
/// <param name="Step">Where to do it: gather, tell, place, print.</param>
public sealed record OverviewUnit(
    Guid Id,
    string Title,
    string Label,
    bool LeftOut,
    UnitProgress Progress,
    int Photos,
    int Cards,
    int Placed,
    int Pockets,
    int PicturesWanted,
    int Notes,
    IReadOnlyList<OverviewDay> Days,
    string Next,
    string Step,
    string? Picture
);

public sealed record OverviewDay(LocalDate Day, string Label, int Photos);

/// <summary>The whole album at a glance.</summary>
public sealed record OverviewView(
    IReadOnlyList<OverviewUnit> Units,
    int Photos,
    int NoDate,
    int Outside,
    int LeftOut,
    int Undecided,
    int Lookalikes,
    int Keepsakes,
    string? Undo,
    string? Redo,
    Guid? UndoEditId,
    Guid? RedoEditId
);

/// <summary>A keepsake with the unit it belongs to.</summary>
public sealed record KeepsakeView(
    Guid Id,
    Guid UnitId,
    string UnitTitle,
    int UnitRevision,
    string Name,
    string Size,
    string Thickness,
    string Note,
    Guid? PhotoId,
    string? DayLabel,
    bool InEnvelope,
    string? Pocket
);

public static class OverviewEndpoints
{
    public static void MapOverview(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{id:guid}").WithTags("Albums");
        group
            .MapGet(
                "/overview",
                (Guid id, OverviewReader reader, CancellationToken cancel) => reader.ReadAsync(id, cancel)
            )
            .WithName("getOverview")
            .WithProblems();
        group
            .MapGet(
                "/keepsakes",
                (Guid id, OverviewReader reader, CancellationToken cancel) => reader.KeepsakesAsync(id, cancel)
            )
            .WithName("listKeepsakes")
            .WithProblems();
    }
}

/// <summary>Reads an album at a glance.</summary>
public sealed class OverviewReader(ZestyContext db, AlbumReader albums, Storage.Editing.History history)
{
    public async Task<OverviewView> ReadAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.ViewAsync(albumId, cancel);
        var style = new DateStyle(album.DateOrder, album.Clock);
        var days = await db
            .Photos.Where(p => p.AlbumId == albumId && p.Verdict != Verdict.Leave && p.UnitId != null)
            .GroupBy(p => new { p.UnitId, p.Day })
            .Select(g => new
            {
                g.Key.UnitId,
                g.Key.Day,
                Count = g.Count(),
            })
            .ToListAsync(cancel);
        var perDay = days.ToLookup(d => d.UnitId!.Value);
        var notes = await db
            .Units.Where(u => u.AlbumId == albumId)
            .Select(u => new { u.Id, Notes = EF.Functions.JsonContains(u.Content, """{"notes":[{}]}""") })
            .ToDictionaryAsync(u => u.Id, u => u.Notes, cancel);
        // The most loved picture of each unit stands for it.
        var faces = await db
            .Photos.Where(p => p.AlbumId == albumId && p.Verdict != Verdict.Leave && p.UnitId != null)
            .GroupBy(p => p.UnitId)
            .Select(g => g.OrderByDescending(p => p.Favourite).ThenBy(p => p.SortAt).ThenBy(p => p.Id).First())
            .AsNoTracking()
            .ToListAsync(cancel);
        var pictureOf = faces.ToDictionary(p => p.UnitId!.Value, p => PhotoView.Of(p, style).Picture);
        var counts = await db
            .Photos.Where(p => p.AlbumId == albumId)
            .GroupBy(_ => 1)
            .Select(g => new
            {
                Photos = g.Count(p => p.Verdict != Verdict.Leave),
                NoDate = g.Count(p => p.Verdict != Verdict.Leave && p.Day == null),
                Outside = g.Count(p => p.Verdict != Verdict.Leave && p.Day != null && p.UnitId == null),
                LeftOut = g.Count(p => p.Verdict == Verdict.Leave),
                Undecided = g.Count(p => p.Verdict == Verdict.Undecided),
                Lookalikes = g.Count(p => p.Verdict == Verdict.Undecided && p.GroupId != null),
            })
            .SingleOrDefaultAsync(cancel);
        var keepsakes = await db.Units.Where(u => u.AlbumId == albumId).SumAsync(u => u.KeepsakesInEnvelope, cancel);
        var (undo, redo) = await history.NextOfAlbumAsync(albumId, cancel);
        return new OverviewView(
            [
                .. album.Units.Select(u =>
                {
                    var photos = perDay[u.Id].Sum(d => d.Count);
                    var wanted = Math.Max(0, u.Pockets - photos - u.CardsTold);
                    var (progress, next, step) = Next(u, wanted);
                    return new OverviewUnit(
                        u.Id,
                        u.Title,
                        u.Label,
                        u.LeftOut,
                        progress,
                        photos,
                        u.CardsTold,
                        u.PiecesPlaced,
                        u.Pockets,
                        u.LeftOut ? 0 : wanted,
                        notes.GetValueOrDefault(u.Id) ? 1 : 0,
                        album.Kind is AlbumKind.DocumentedDay
                            ? []
                            :
                            [
                                .. Days(u.FirstDay, u.LastDay)
                                    .Select(d => new OverviewDay(
                                        d,
                                        SpanLabel.Day(d, style.Order),
                                        perDay[u.Id].Where(p => p.Day == d).Sum(p => p.Count)
                                    )),
                            ],
                        next,
                        step,
                        pictureOf.GetValueOrDefault(u.Id)
                    );
                }),
            ],
            counts?.Photos ?? 0,
            counts?.NoDate ?? 0,
            counts?.Outside ?? 0,
            counts?.LeftOut ?? 0,
            counts?.Undecided ?? 0,
            counts?.Lookalikes ?? 0,
            keepsakes,
            undo?.Summary,
            redo?.Summary,
            undo?.Id,
            redo?.Id
        );
    }

    public async Task<IReadOnlyList<KeepsakeView>> KeepsakesAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var style = album.ReadCalendar().Style;
        var units = await db
            .Units.AsNoTracking()
            .Where(u =>
                u.AlbumId == albumId && EF.Functions.JsonContains(u.Content, """{"pieces":[{"piece":"keepsake"}]}""")
            )
            .OrderBy(u => u.Ordinal)
            .ToListAsync(cancel);
        return
        [
            .. units.SelectMany(u =>
            {
                var content = u.Read();
                return content
                    .Pieces.OfType<Keepsake>()
                    .Select(k => new KeepsakeView(
                        k.Id,
                        u.Id,
                        u.ReadDates().Title(style),
                        u.Revision,
                        k.Name,
                        MeasureText.Show(k.Size, album.Measures),
                        MeasureText.Show(k.Thickness, MeasureSystem.Millimetres),
                        k.Note,
                        k.PhotoId,
                        k.Day is { } day ? SpanLabel.Day(day, style.Order) : null,
                        k.InEnvelope,
                        content.PlacementOf(k.Id) is null ? null : "in its pocket"
                    ));
            }),
        ];
    }

    private static (UnitProgress Progress, string Next, string Step) Next(UnitSummary unit, int wanted) =>
        unit switch
        {
            { LeftOut: true } => (UnitProgress.LeftOut, "Left out on purpose.", "gather"),
            { Photos: 0, CardsTold: 0 } => (UnitProgress.Empty, "Add photos.", "gather"),
            { Photos: 0 } => (UnitProgress.Gathering, "It has words; add photos.", "gather"),
            { CardsTold: 0 } => (
                UnitProgress.Telling,
                wanted > 0 ? $"Write its words; {wanted} more pieces fill its pockets." : "Write its words.",
                "tell"
            ),
            _ when unit.PiecesPlaced >= unit.Pockets => (UnitProgress.Laid, "Ready to print.", "print"),
            _ when wanted > 0 => (
                UnitProgress.Gathering,
                $"Add {NumberWords.Counted(wanted, "more photo")}.",
                "gather"
            ),
            _ => (
                UnitProgress.Placing,
                $"Fill {NumberWords.Counted(unit.Pockets - unit.PiecesPlaced, "empty pocket")}.",
                "place"
            ),
        };

    private static IEnumerable<LocalDate> Days(LocalDate first, LocalDate last)
    {
        for (var day = first; day <= last; day = day.PlusDays(1))
        {
            yield return day;
        }
    }
}
