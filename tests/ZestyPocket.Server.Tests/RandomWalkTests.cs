using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Walks of 200 random commands over an album, with imports, undo and redo between them. All the way each picture lies
/// in exactly one unit that is there or in the undated tray, no pocket holds two pieces, its bundle restores an album
/// that looks the same, and in the end undoing all gives the first state. ZESTY_WALKS says how many walks.
/// </summary>
public sealed class RandomWalkTests
{
    private const int Commands = 200;

    private static int Walks =>
        int.TryParse(Environment.GetEnvironmentVariable("ZESTY_WALKS"), CultureInfo.InvariantCulture, out var walks)
            ? walks
            : Thorough.Of(10, 2);

    private static int FirstSeed =>
        int.TryParse(Environment.GetEnvironmentVariable("ZESTY_WALK_SEED"), CultureInfo.InvariantCulture, out var seed)
            ? seed
            : 1;

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Whatever_is_done_in_whatever_order_nothing_is_lost_and_everything_can_be_undone()
    {
        await using var host = await TestHost.StartAsync();
        var (done, refused) = (0, 0);
        for (var seed = FirstSeed; seed < FirstSeed + Walks; seed++)
        {
            var walk = new Walk(host, seed);
            await walk.BeginAsync();
            for (var i = 0; i < Commands; i++)
            {
                await walk.StepAsync();
                if (i % 10 == 9)
                {
                    await walk.CheckAsync();
                }
            }

            await walk.BundleAsync();
            await walk.UndoAllAsync();
            done += walk.Done;
            refused += walk.Refused;
        }

        // A walk that is mostly refused walks nowhere.
        done.ShouldBeGreaterThan(Walks * Commands / 2, $"{refused} were refused");
        TestContext.Current.TestOutputHelper?.WriteLine($"{Walks} walks, {done} commands done, {refused} refused");
    }

    private sealed class Walk(TestHost host, int seed)
    {
        private static readonly string[] Words =
        [
            "We walked.",
            "It rained all day and we read.",
            "Bread, and the first strawberries of the year; nobody spoke for a while.",
        ];

        private readonly Random _random = new(seed);
        private readonly List<string> _log = [];
        private Guid _album;
        private string _first = string.Empty;
        private int _pictures;

        public int Done { get; private set; }

        public int Refused { get; private set; }

        public async Task BeginAsync()
        {
            _album = (
                await host.PostAsync<AlbumView>(
                    "/api/albums",
                    new MakeAlbumRequest(
                        $"Walk {seed}",
                        new LocalDate(2026, 5, 4),
                        3,
                        ["6x8-four-3x4", "6x8-two-6x4"],
                        MeasureSystem.Inches
                    )
                )
            ).Id;
            for (var i = 0; i < 4; i++)
            {
                await ImportAsync();
            }

            _first = await StateAsync();
        }

        /// <summary>The album as it is now comes back from its bundle, picture by picture of its pages.</summary>
        public async Task BundleAsync()
        {
            var album = await host.GetAsync<AlbumView>($"/api/albums/{_album}");
            var restored = await BundleTests.RestoreAsync(host, await BundleTests.WriteAsync(host, _album));
            restored.Lines.ShouldBeEmpty($"seed {seed}");
            var copy = await host.GetAsync<AlbumView>($"/api/albums/{restored.Albums.Single().Id}");
            (await BundleTests.PaintedAsync(host, copy)).ShouldBe(
                await BundleTests.PaintedAsync(host, album),
                $"seed {seed}"
            );
        }

        public async Task StepAsync()
        {
            await using var scope = host.Services.CreateAsyncScope();
            var services = scope.ServiceProvider;
            try
            {
                _log.Add(await CommandAsync(services, services.GetRequiredService<ZestyContext>()));
                Done++;
            }
            catch (Exception refusal)
                when (refusal is RuleException or StaleRevisionException or Server.Hosting.MissingException)
            {
                Refused++;
            }
            catch (Exception broken) when (broken is not OperationCanceledException)
            {
                throw new InvalidOperationException(
                    $"Walk {seed} broke after: {string.Join(" · ", _log.TakeLast(12))}",
                    broken
                );
            }
        }

        private async Task<string> CommandAsync(IServiceProvider services, ZestyContext db)
        {
            var units = await db
                .Units.AsNoTracking()
                .Where(u => u.AlbumId == _album)
                .OrderBy(u => u.Ordinal)
                .ToListAsync();
            var unit = Any(units);
            switch (_random.Next(22))
            {
                case 0:
                    await ImportAsync();
                    return "import";
                case 1:
                    return await AlbumAsync(new MergeUnit { UnitId = unit.Id, Revision = unit.Revision });
                case 2:
                    return await AlbumAsync(new SplitUnit { UnitId = unit.Id, Revision = unit.Revision });
                case 3:
                    return units.Count > 8
                        ? throw new RuleException("Long enough.")
                        : await AlbumAsync(new GrowAlbum(1, _random.Next(2) == 0) { Revision = await RevisionAsync() });
                case 4:
                    return await AlbumAsync(
                        new CountWeeks(Any(Enum.GetValues<WeekScheme>())) { Revision = await RevisionAsync() }
                    );
                case 5:
                    return await AlbumAsync(
                        new LeaveUnitOut(_random.Next(2) == 0) { UnitId = unit.Id, Revision = unit.Revision }
                    );
                case 6:
                    return await EditPhotoAsync(services, db);
                case 7:
                    return await TellAsync(services, db, unit);
                case 8 when units.Count < 9:
                    var protector = Any(
                        await db.Protectors.AsNoTracking().Where(p => p.AlbumId == _album).ToListAsync()
                    );
                    return await AlbumAsync(new AddLeaf(protector.Id) { UnitId = unit.Id, Revision = unit.Revision });
                case 12 or 13:
                    return await LeafAsync(db);
                case 9 or 10 or 11:
                    return await StepBackOrForthAsync(services, db, unit);
                default:
                    return (
                        await services
                            .GetRequiredService<UnitEditor>()
                            .ApplyAsync(unit.Id, await EditAsync(services, unit), default)
                    ).Done;
            }
        }

        private async Task<string> AlbumAsync(AlbumEdit edit)
        {
            await using var scope = host.Services.CreateAsyncScope();
            var editor = scope.ServiceProvider.GetRequiredService<AlbumEditor>();
            // What a preview says is what then happens.
            var preview = await editor.ApplyAsync(_album, edit, preview: true, default);
            await using var second = host.Services.CreateAsyncScope();
            var done = await second
                .ServiceProvider.GetRequiredService<AlbumEditor>()
                .ApplyAsync(_album, edit, preview: false, default);
            done.Done.ShouldBe(preview.Done);
            done.Changes.Take(preview.Changes.Count).ShouldBe(preview.Changes);
            return done.Done;
        }

        private async Task<int> RevisionAsync()
        {
            await using var scope = host.Services.CreateAsyncScope();
            return await scope
                .ServiceProvider.GetRequiredService<ZestyContext>()
                .Albums.Where(a => a.Id == _album)
                .Select(a => a.Revision)
                .SingleAsync();
        }

        private async Task<string> LeafAsync(ZestyContext db)
        {
            var leaves = await db
                .Leaves.AsNoTracking()
                .Where(l => l.AlbumId == _album)
                .OrderBy(l => l.Ordinal)
                .ToListAsync();
            var leaf = Any(leaves);
            var (id, revision) = (leaf.Id, leaf.Revision);
            var owner = await db.Units.AsNoTracking().FirstOrDefaultAsync(u => u.Id == leaf.FrontUnitId);
            return await AlbumAsync(
                _random.Next(6) switch
                {
                    0 => new MoveLeaf(_random.Next(leaves.Count)) { LeafId = id, Revision = revision },
                    1 => new FusePocket("1.1") { LeafId = id, Revision = revision },
                    2 => new RenewLeaf { LeafId = id, Revision = revision },
                    3 => new StickPieces("1.1", _random.Next(2) == 0) { LeafId = id, Revision = revision },
                    4 => new ChangeSchool(Any(Enum.GetValues<PageSchool>())) { Revision = await RevisionAsync() },
                    _ => new RemoveLeaf(id) { UnitId = owner?.Id ?? Guid.Empty, Revision = owner?.Revision ?? 0 },
                }
            );
        }

        private async Task<UnitEdit> EditAsync(IServiceProvider services, AlbumUnit unit)
        {
            var open = await services.GetRequiredService<UnitOpener>().OpenAsync(unit.Id, default);
            // What is not there is asked for too: it is refused.
            var place = Any(open.Pockets.ToList()) is { Place: { PocketKey: not null } at }
                ? at
                : new PocketPlace(Guid.Empty, LeafSide.Front, "1");
            var piece = open.Content.Pieces.IsEmpty ? Guid.Empty : Any(open.Content.Pieces).Id;
            var photo = open.Photos.Count == 0 ? Guid.Empty : Any(open.Photos.Keys.ToList());
            return _random.Next(9) switch
            {
                0 => new FillSpread { Revision = unit.Revision },
                1 => new AddCard(
                    CardKind: CardKind.Journaling,
                    Words: Any(Words),
                    Place: _random.Next(2) == 0 ? place : (PocketPlace?)null
                )
                {
                    Revision = unit.Revision,
                },
                2 => new MovePiece(PieceId: piece, Place: place) { Revision = unit.Revision },
                3 => new TakeOut(Place: place) { Revision = unit.Revision },
                4 => new DiscardPiece(PieceId: piece) { Revision = unit.Revision },
                5 => new LockPocket(Place: place, Locked: _random.Next(2) == 0) { Revision = unit.Revision },
                6 => new AddKeepsake(
                    Keepsake: new WrittenKeepsake("Ticket", "2 x 3 in", "0", "", null, null, _random.Next(2) == 0)
                )
                {
                    Revision = unit.Revision,
                },
                7 => new LeaveEmpty(Place: place, Empty: _random.Next(2) == 0) { Revision = unit.Revision },
                _ => new PutPhoto(PhotoId: photo, Place: place) { Revision = unit.Revision },
            };
        }

        private async Task<string> EditPhotoAsync(IServiceProvider services, ZestyContext db)
        {
            var photo = Any(await db.Photos.AsNoTracking().Where(p => p.AlbumId == _album).ToListAsync());
            PhotoEdit change = _random.Next(3) switch
            {
                0 => new JudgePhoto(Any(Enum.GetValues<Verdict>())),
                1 => new DatePhoto(new LocalDate(2026, 5, 1).PlusDays(_random.Next(30))),
                _ => new TakeDayAway(),
            };
            return (
                await services
                    .GetRequiredService<PhotoEditor>()
                    .ApplyAsync(_album, new PhotoEditRequest([new PhotoAt(photo.Id, photo.Revision)], change), default)
            ).Done;
        }

        private async Task<string> TellAsync(IServiceProvider services, ZestyContext db, AlbumUnit unit)
        {
            var stories = services.GetRequiredService<StoryEditor>();
            if (await db.Stories.AsNoTracking().Where(s => s.AlbumId == _album).ToListAsync() is { Count: > 3 } told)
            {
                return (
                    await stories.ApplyAsync(
                        _album,
                        new SetStoryOnCards(Any(told).Id, 1 + _random.Next(2))
                        {
                            UnitId = unit.Id,
                            Revision = unit.Revision,
                        },
                        default
                    )
                ).Done;
            }

            return (await stories.ApplyAsync(_album, new NewStory(Any(Words), "", [unit.FirstDay]), default)).Done;
        }

        private async Task<string> StepBackOrForthAsync(IServiceProvider services, ZestyContext db, AlbumUnit unit)
        {
            var steps = services.GetRequiredService<UnitSteps>();
            var (undo, redo) = await services.GetRequiredService<History>().NextOfAlbumAsync(_album, default);
            db.ChangeTracker.Clear();
            return _random.Next(4) switch
            {
                0 => (await steps.UndoAsync(unit.Id, unit.Revision, default)).Done,
                1 => (await steps.RedoAsync(unit.Id, unit.Revision, default)).Done,
                2 when redo is not null => (await steps.RedoEditAsync(redo.Id, default)).Done,
                _ when undo is not null => (await steps.UndoEditAsync(undo.Id, default)).Done,
                _ => throw new RuleException("Nothing to undo."),
            };
        }

        private async Task ImportAsync()
        {
            var i = _pictures++;
            var taken =
                _random.Next(8) == 0
                    ? null
                    : $"2026:05:{1 + _random.Next(30):00} {_random.Next(24):00}:{_random.Next(60):00}:00";
            await host.AddAsync(_album, $"{i}.jpg", Pictures.Jpeg(64 + i, 48, taken, shade: (seed + i) % 250));
        }

        /// <summary>What must hold at every moment.</summary>
        public async Task CheckAsync()
        {
            await using var scope = host.Services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == _album);
            var days = await PhotoDays.ReadAsync(db, album, default);
            foreach (var photo in await db.Photos.AsNoTracking().Where(p => p.AlbumId == _album).ToListAsync())
            {
                photo.UnitId.ShouldBe(
                    days.Place(photo).UnitId,
                    $"walk {seed}: {photo.FileName} of {photo.Day} after {string.Join(" · ", _log.TakeLast(10))}"
                );
            }

            var leaves = await db.Leaves.AsNoTracking().Where(l => l.AlbumId == _album).ToListAsync();
            var seen = new HashSet<Guid>();
            foreach (var unit in await db.Units.AsNoTracking().Where(u => u.AlbumId == _album).ToListAsync())
            {
                var content = unit.Read();
                var says = $"walk {seed}: after {string.Join(" · ", _log.TakeLast(10))}";
                content.Placements.Select(p => p.Place).ShouldBeUnique();
                content.Placements.Select(p => p.PieceId).ShouldBeUnique();
                content.Placements.ShouldAllBe(p => content.Find(p.PieceId) != null, says);
                content.Pieces.ShouldAllBe(p => seen.Add(p.Id), says);
                content.Placements.ShouldAllBe(
                    p =>
                        leaves.Any(l =>
                            l.Id == p.Place.LeafId
                            && (p.Place.Side == Core.Pages.LeafSide.Front ? l.FrontUnitId : l.BackUnitId) == unit.Id
                        ),
                    says
                );
            }
        }

        public async Task UndoAllAsync()
        {
            for (var i = 0; ; i++)
            {
                await using var scope = host.Services.CreateAsyncScope();
                var (undo, _) = await scope
                    .ServiceProvider.GetRequiredService<History>()
                    .NextOfAlbumAsync(_album, default);
                if (undo is null)
                {
                    break;
                }

                i.ShouldBeLessThan(2 * Commands, "undoing never ends");
                await using var own = host.Services.CreateAsyncScope();
                await own.ServiceProvider.GetRequiredService<UnitSteps>().UndoEditAsync(undo.Id, default);
            }

            await CheckAsync();
            (await StateAsync()).ShouldBe(_first, $"walk {seed} does not end where it began");
        }

        /// <summary>Everything an edit can change, as text; pictures that were imported since do not count.</summary>
        private async Task<string> StateAsync()
        {
            await using var scope = host.Services.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            var album = await db.Albums.AsNoTracking().SingleAsync(a => a.Id == _album);
            var units = await db
                .Units.AsNoTracking()
                .Where(u => u.AlbumId == _album)
                .OrderBy(u => u.Ordinal)
                .ToListAsync();
            var leaves = await db
                .Leaves.AsNoTracking()
                .Where(l => l.AlbumId == _album)
                .OrderBy(l => l.Ordinal)
                .ToListAsync();
            var photos = await db
                .Photos.AsNoTracking()
                .Where(p => p.AlbumId == _album)
                .OrderBy(p => p.AddedAt)
                .ThenBy(p => p.FileName)
                .Take(4)
                .ToListAsync();
            return string.Join(
                '\n',
                [
                    StoredDocuments.Calendar.Write(album.ReadCalendar()),
                    StoredDocuments.Words.Write(album.ReadWords()),
                    album.Name,
                    .. units.Select(u =>
                        $"{u.Id} {u.Ordinal} {u.ReadDates()} {StoredDocuments.Content.Write(u.Read())}"
                    ),
                    .. leaves.Select(l =>
                        $"{l.Id} {l.Ordinal} {l.ProtectorId} {l.FrontUnitId} {l.BackUnitId} "
                        + $"{StoredDocuments.LeafAlterations.Write(l.ReadAlterations())}"
                    ),
                    .. photos.Select(p => $"{p.Id} {p.Verdict} {p.KeeperDay} {p.DayTakenAway} {p.UnitId}"),
                    $"{await db.Stories.CountAsync(s => s.AlbumId == _album)} stories",
                ]
            );
        }

        private T Any<T>(IReadOnlyList<T> among) =>
            among.Count == 0 ? throw new RuleException("There is none.") : among[_random.Next(among.Count)];
    }
}
