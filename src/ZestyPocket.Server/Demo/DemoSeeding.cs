using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Placing;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Demo;

/// <summary>
/// Makes the demo albums once, through the same doors a keeper uses: photos are files that are imported, and every
/// card and placement is an edit in the history.
/// </summary>
public sealed class DemoSeeding(IServiceScopeFactory scopes, ZestyContext db, ICurrentKeeper keeper, IClock clock)
{
    /// <summary>Does nothing when the demo is there and <paramref name="reset"/> is false; finishes a broken-off attempt anew.</summary>
    public async Task RunAsync(bool reset, Action<string> tell, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(tell);
        var here = await db.Albums.Where(a => a.Demo != DemoState.None && a.KeeperId == keeper.Id).ToListAsync(cancel);
        if (here.Count == 2 && here.TrueForAll(a => a.Demo == DemoState.Ready) && !reset)
        {
            return;
        }

        foreach (var album in here)
        {
            await RemoveAsync(album.Id, cancel);
        }

        tell("Making the demo albums: painting snapshots …");
        var weekly = AlbumMaking.Make(
            DemoHousehold.WeeklyName, new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = DemoHousehold.WeeklyFirstDay, HomeZone = DemoHousehold.HomeZone }, 53, 2,
            Designs("9x12-rows-6x4-3x4", "9x12-rows-3x4-6x4", "9x12-nine-3x4", "9x12-full"), MeasureSystem.Inches, keeper.Id, clock.GetCurrentInstant());
        var trip = AlbumMaking.Make(
            DemoHousehold.TripName, new AlbumCalendar { Kind = AlbumKind.Trip, FirstDay = DemoHousehold.TripFirstDay, HomeZone = DemoHousehold.HomeZone }, 9, 2,
            Designs("6x8-6x4-two-3x4", "6x8-two-6x4", "6x8-four-3x4", "6x8-full"), MeasureSystem.Inches, keeper.Id, clock.GetCurrentInstant());
        (weekly.Demo, trip.Demo) = (DemoState.Making, DemoState.Making);
        db.AddRange(weekly, trip);
        await db.SaveChangesAsync(cancel);

        var shots = DemoHousehold.WeeklyShots().Select(s => (weekly, s)).Concat(DemoHousehold.TripShots().Select(s => (trip, s))).ToList();
        await ImportAsync(shots, tell, cancel);

        tell("Laying out the weeks …");
        var units = weekly.Units.OrderBy(u => u.FirstDay).Where(u => u.FirstDay >= DemoHousehold.FirstPhotoWeek).ToList();
        await LayOutWeeksAsync(weekly, units, cancel);
        await LayOutTripAsync(trip, cancel);

        // Last of all: an attempt that broke off before this is done again at the next start.
        (weekly.Demo, trip.Demo) = (DemoState.Ready, DemoState.Ready);
        await db.SaveChangesAsync(cancel);
        tell($"The demo is ready: {shots.Count} snapshots in two albums.");
    }

    private async Task LayOutWeeksAsync(Album album, List<AlbumUnit> units, CancellationToken cancel)
    {
        var mirrored = album.Protectors.Single(p => p.DesignKey == "9x12-rows-3x4-6x4").Id;
        var nine = album.Protectors.Single(p => p.DesignKey == "9x12-nine-3x4").Id;
        for (var week = 0; week < DemoHousehold.PhotosOfWeek.Count; week++)
        {
            var unit = units[week].Id;
            if (week == 1)
            {
                await ChooseDesignAsync(unit, LeafSide.Front, mirrored, cancel);
            }

            if (week == 5)
            {
                await ChooseDesignAsync(unit, LeafSide.Front, nine, cancel);
            }

            if (week != 4)
            {
                await EditAsync(unit, new EditRequest(0, EditKind.AddCard, CardKind: CardKind.WeekTitle, StyleKey: week % 2 == 0 ? "title-peel" : "title-slate"), cancel);
            }

            foreach (var (style, words) in DemoHousehold.StoriesOfWeek[week])
            {
                await EditAsync(unit, new EditRequest(0, EditKind.AddCard, CardKind: CardKind.Journaling, Words: words, StyleKey: style), cancel);
            }

            if (week <= 2)
            {
                await EditAsync(unit, new EditRequest(0, EditKind.Fill), cancel);
            }
            else if (week == 3)
            {
                await HalfFillAsync(unit, cancel);
            }
        }
    }

    private async Task LayOutTripAsync(Album album, CancellationToken cancel)
    {
        var first = album.Units.OrderBy(u => u.FirstDay).First().Id;
        await EditAsync(first, new EditRequest(0, EditKind.AddCard, CardKind: CardKind.Journaling, StyleKey: "note-hand", Words: "We collected the boat at noon. Her name is Plum Duff and she does four miles an hour, downhill."), cancel);
        await EditAsync(first, new EditRequest(0, EditKind.Fill), cancel);
    }

    /// <summary>Fills the spread and takes every other piece of the right page out again: a week half done.</summary>
    private async Task HalfFillAsync(Guid unitId, CancellationToken cancel)
    {
        await EditAsync(unitId, new EditRequest(0, EditKind.Fill), cancel);
        await using var scope = scopes.CreateAsyncScope();
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(unitId, cancel);
        foreach (var (face, _, place, _) in open.Pockets.Where(p => p.Face.Side == LeafSide.Front).ToList())
        {
            await EditAsync(unitId, new EditRequest(0, EditKind.TakeOut, Place: new PlaceRequest(face.Leaf.Id, face.Side, place.PocketKey)), cancel);
        }
    }

    private async Task ChooseDesignAsync(Guid unitId, LeafSide side, Guid protectorId, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(unitId, cancel);
        var leaf = open.Faces.First(f => f.Side == side).Leaf.Id;
        await EditAsync(unitId, new EditRequest(0, EditKind.ChooseDesign, LeafId: leaf, ProtectorId: protectorId), cancel);
    }

    private async Task EditAsync(Guid unitId, EditRequest request, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var revision = await scope.ServiceProvider.GetRequiredService<ZestyContext>().Units.Where(u => u.Id == unitId).Select(u => u.Revision).SingleAsync(cancel);
        await scope.ServiceProvider.GetRequiredService<UnitEditor>().ApplyAsync(unitId, request with { Revision = revision }, cancel);
    }

    private async Task ImportAsync(List<(Album Album, DemoShot Shot)> shots, Action<string> tell, CancellationToken cancel)
    {
        var done = 0;
        var days = shots.Select(s => s.Album).Distinct().ToDictionary(a => a.Id, a => new AlbumDays(a.ReadCalendar(), [.. a.Units.Select(u => (u.Id, u.ReadDates()))]));
        var queue = Channel.CreateUnbounded<(Album, DemoShot)>();
        foreach (var shot in shots)
        {
            queue.Writer.TryWrite(shot);
        }

        queue.Writer.Complete();
        await Task.WhenAll(Enumerable.Range(0, Math.Max(2, Environment.ProcessorCount)).Select(_ => Task.Run(WorkAsync, cancel)));

        async Task WorkAsync()
        {
            await foreach (var (album, shot) in queue.Reader.ReadAllAsync(cancel))
            {
                await using var scope = scopes.CreateAsyncScope();
                using var stream = new MemoryStream(DemoPictures.Jpeg(shot));
                using var arrived = await scope.ServiceProvider.GetRequiredService<IPhotoVault>().ReceiveAsync(stream, stream.Length, cancel);
                var outcome = await scope.ServiceProvider.GetRequiredService<PhotoImport>().TakeAsync(album.Id, days[album.Id], shot.FileName, arrived, null, null, cancel);
                if (outcome.Status == ImportStatus.Refused)
                {
                    throw new InvalidOperationException($"A demo snapshot was refused: {outcome.Detail}");
                }

                var now = Interlocked.Increment(ref done);
                if (now % 60 == 0)
                {
                    tell($"  {now} of {shots.Count} snapshots");
                }
            }
        }
    }

    private async Task RemoveAsync(Guid albumId, CancellationToken cancel)
    {
        await db.PrintJobs.Where(j => j.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.ImportFiles.Where(f => db.Imports.Any(b => b.Id == f.BatchId && b.AlbumId == albumId)).ExecuteDeleteAsync(cancel);
        await db.Imports.Where(b => b.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Set<Storage.Editing.EditChange>()
            .Where(c => db.Edits.Any(e => e.Id == c.EditId && e.AlbumId == albumId)).ExecuteDeleteAsync(cancel);
        await db.Edits.Where(e => e.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Photos.Where(p => p.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Leaves.IgnoreQueryFilters().Where(l => l.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Units.IgnoreQueryFilters().Where(u => u.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Protectors.Where(p => p.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Albums.Where(a => a.Id == albumId).ExecuteDeleteAsync(cancel);
        db.ChangeTracker.Clear();
    }

    private static List<PageDesign> Designs(params string[] keys) => [.. keys.Select(k => BuiltInDesigns.Find(k)!)];
}
