using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Travel.Edits;
using ZestyPocket.Core.Words;
using ZestyPocket.Core.Words.Edits;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Shared;
using ZestyPocket.Server.Travel;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Demo;

/// <summary>
/// Makes the demo albums once, through the same doors a keeper uses: photos are files that are imported, and every
/// card and placement is an edit in the history.
/// </summary>
public sealed class DemoSeeding(
    IServiceScopeFactory scopes,
    ZestyContext db,
    LookalikeGroups lookalikes,
    ICurrentKeeper keeper,
    IClock clock
)
{
    /// <summary>How wide snapshots are, as a share of a camera's: small ones are painted sooner.</summary>
    public double Detail { get; set; } = 1;

    /// <summary>
    /// Does nothing when the demo is there and <paramref name="reset"/> is false; finishes a broken-off attempt anew.
    /// </summary>
    public async Task RunAsync(bool reset, Action<string> tell, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(tell);
        var here = await db.Albums.Where(a => a.Demo != DemoState.None && a.KeeperId == keeper.Id).ToListAsync(cancel);
        foreach (var album in here.Where(a => reset || a.Demo != DemoState.Ready).ToList())
        {
            await RemoveAsync(album.Id, cancel);
            here.Remove(album);
        }

        // What a keeper changed in a demo album that is there stays as it is; only missing ones are made.
        var names = here.Select(a => a.Name).ToHashSet();
        var calendar = new AlbumCalendar
        {
            Kind = AlbumKind.Weekly,
            FirstDay = DemoHousehold.WeeklyFirstDay,
            HomeZone = DemoHousehold.HomeZone,
        };
        var plans = new List<(Album Album, List<DemoShot> Shots, Func<Album, Task> LayOut)>();
        Plan(
            DemoHousehold.WeeklyName,
            calendar,
            53,
            2,
            ["9x12-rows-6x4-3x4", "9x12-rows-3x4-6x4", "9x12-nine-3x4", "9x12-full"],
            [.. DemoHousehold.WeeklyShots(), .. DemoHousehold.OddFiles()],
            album => LayOutWeeklyAsync(album, cancel)
        );
        Plan(
            DemoHousehold.TripName,
            calendar with
            {
                Kind = AlbumKind.Trip,
                FirstDay = DemoHousehold.TripFirstDay,
                CutOff = new LocalTime(5, 0),
                Stays = [DemoHousehold.Canal],
            },
            9,
            2,
            ["6x8-6x4-two-3x4", "6x8-two-6x4", "6x8-four-3x4", "6x8-full"],
            [.. DemoHousehold.TripShots()],
            album => LayOutTripAsync(album, cancel)
        );
        Plan(
            DemoHousehold.DayName,
            calendar with
            {
                Kind = AlbumKind.DocumentedDay,
                FirstDay = DemoHousehold.Saturday,
                Style = new DateStyle(DateOrder.DayMonth, HourClock.Twelve),
            },
            1,
            1,
            ["6x8-two-6x4", "6x8-6x4-two-3x4"],
            [.. DemoHousehold.SaturdayShots()],
            album => LayOutDayAsync(album, cancel)
        );
        Plan(
            DemoHousehold.GardenName,
            calendar with
            {
                FirstDay = DemoHousehold.GardenFirstDay,
            },
            DemoHousehold.GardenWeeks.Count,
            2,
            ["6x8-6x4-two-3x4", "6x8-two-6x4"],
            [.. DemoHousehold.GardenShots()],
            album => LayOutGardenAsync(album, cancel),
            PageSchool.Leaf
        );
        if (plans.Count == 0)
        {
            return;
        }

        tell("Making the demo albums: painting snapshots …");
        db.AddRange(plans.Select(p => p.Album));
        await db.SaveChangesAsync(cancel);
        var shots = plans.SelectMany(p => p.Shots.Select(s => (p.Album, s))).ToList();
        await ImportAsync(shots, tell, cancel);

        tell("Laying out the pages …");
        foreach (var (album, _, layOut) in plans)
        {
            await lookalikes.GroupAsync(album.Id, cancel);
            await layOut(album);
        }

        await StockAsync(plans.Find(p => p.Album.Name == DemoHousehold.WeeklyName).Album, cancel);
        // Last of all: an attempt that broke off before this is done again at the next start.
        var ids = plans.Select(p => p.Album.Id).ToList();
        await db
            .Albums.Where(a => ids.Contains(a.Id))
            .ExecuteUpdateAsync(set => set.SetProperty(a => a.Demo, DemoState.Ready), cancel);
        tell($"The demo is ready: {shots.Count} snapshots in {plans.Count} albums.");

        void Plan(
            string name,
            AlbumCalendar counts,
            int units,
            int faces,
            string[] designs,
            List<DemoShot> taken,
            Func<Album, Task> layOut,
            PageSchool school = PageSchool.Spread
        )
        {
            if (names.Contains(name))
            {
                return;
            }

            var made = new NewAlbum(
                name,
                counts,
                units,
                faces,
                [.. Designs(designs).Select(Protector.Unmeasured)],
                MeasureSystem.Inches,
                school
            );
            var album = AlbumMaking.Rows(
                made,
                keeper.Id,
                clock.GetCurrentInstant() + Duration.FromMilliseconds(plans.Count)
            );
            album.Demo = DemoState.Making;
            album.WriteWords(album.ReadWords() with { People = [.. DemoHousehold.People] });
            plans.Add((album, taken, layOut));
        }
    }

    private async Task LayOutWeeklyAsync(Album album, CancellationToken cancel)
    {
        var units = album
            .Units.OrderBy(u => u.FirstDay)
            .Where(u => u.FirstDay >= DemoHousehold.FirstPhotoWeek)
            .ToList();
        await LayOutWeeksAsync(album, units, cancel);
        await EditAsync(
            units[0].Id,
            new AddKeepsake(
                Keepsake: new WrittenKeepsake(
                    "Rhubarb card from Nan",
                    "6 x 4 in",
                    "0.4 mm",
                    "It came with the bundle",
                    null,
                    units[0].FirstDay.PlusDays(3),
                    false
                )
            )
            {
                Revision = 0,
            },
            cancel
        );
        await EditAsync(
            units[1].Id,
            new AddKeepsake(
                Keepsake: new WrittenKeepsake(
                    "Market map",
                    "14 x 10 in",
                    "0.2 mm",
                    "Folded twice",
                    null,
                    units[1].FirstDay.PlusDays(5),
                    true
                )
            )
            {
                Revision = 0,
            },
            cancel
        );
        await EditAsync(
            units[3].Id,
            new WriteNote(
                Note: new WrittenNote(
                    null,
                    units[3].FirstDay.PlusDays(2),
                    "18:30",
                    "Choir, the first time in the new hall"
                )
            )
            {
                Revision = 0,
            },
            cancel
        );
        await EditAsync(
            units[3].Id,
            new WriteNote(Note: new WrittenNote(null, units[3].FirstDay.PlusDays(4), null, "Junie lost a tooth"))
            {
                Revision = 0,
            },
            cancel
        );

        await WriteOfThemesAsync(album, units[4], cancel);

        // Some are judged: the first of each finished week is loved, one or two are only maybe.
        foreach (var unit in units.Take(3))
        {
            var photos = await db
                .Photos.AsNoTracking()
                .Where(p => p.UnitId == unit.Id)
                .OrderBy(p => p.SortAt)
                .Take(8)
                .ToListAsync(cancel);
            await JudgeAsync(album.Id, photos.Take(1), new JudgePhoto(Verdict.Keep), cancel);
            await JudgeAsync(album.Id, photos.Take(1), new StarPhoto(3), cancel);
            await JudgeAsync(album.Id, photos.Skip(3).Take(2), new StarPhoto(1), cancel);
            await JudgeAsync(album.Id, photos.Skip(6).Take(1), new JudgePhoto(Verdict.Maybe), cancel);
        }

        await EditAlbumAsync(
            album.Id,
            revision => new SetSeries(null, "First light", "08:30", 45, null) { Revision = revision },
            cancel
        );
    }

    /// <summary>
    /// A week told by theme, a card around a picture, words on a picture, and a sheet of letters to spell from.
    /// </summary>
    private async Task WriteOfThemesAsync(Album album, AlbumUnit unit, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var stories = scope.ServiceProvider.GetRequiredService<StoryEditor>();
        foreach (var (theme, days, words) in DemoHousehold.ThemesOfWeek)
        {
            await stories.ApplyAsync(
                album.Id,
                new NewStory(words, "", [.. days.Select(d => unit.FirstDay.PlusDays(d))], theme, "Ada"),
                cancel
            );
        }

        var photos = await db
            .Photos.AsNoTracking()
            .Where(p => p.UnitId == unit.Id)
            .OrderBy(p => p.SortAt)
            .Take(1)
            .Select(p => p.Id)
            .ToListAsync(cancel);
        await EditAsync(
            unit.Id,
            new AddCard(CardKind: CardKind.Journaling, StyleKey: "almanac-picture", Words: DemoHousehold.AroundAPicture)
            {
                Revision = 0,
            },
            cancel
        );
        var content = (await db.Units.AsNoTracking().SingleAsync(u => u.Id == unit.Id, cancel)).Read();
        await EditAsync(
            unit.Id,
            new FurnishCard(PieceId: content.Pieces[^1].Id, PhotoId: photos.Count > 0 ? photos[0] : null)
            {
                Revision = 0,
            },
            cancel
        );

        await EditAlbumAsync(
            album.Id,
            revision => new AddSheet(
                "Cork capitals",
                "A6 B2 C2 D3 E8 F2 G2 H2 I5 J1 K2 L4 M3 N4 O5 P2 R4 S4 T4 U3 V1 W2 Y2 ,2 .2 !2",
                Reusable: false
            )
            {
                Revision = revision,
            },
            cancel
        );
        var sheet = (await db.Albums.AsNoTracking().SingleAsync(a => a.Id == album.Id, cancel)).ReadWords().Sheets[0];
        await EditAlbumAsync(
            album.Id,
            revision => new SpellTitle(sheet.Id, "Kite weather", unit.FirstDay.PlusDays(-14)) { Revision = revision },
            cancel
        );
    }

    private async Task LayOutDayAsync(Album album, CancellationToken cancel)
    {
        await EditAlbumAsync(album.Id, r => new ChooseFamily("Ledger") { Revision = r }, cancel);
        foreach (var unit in album.Units.OrderBy(u => u.Ordinal))
        {
            if (DemoHousehold.LinesOfHours.TryGetValue(unit.FirstNumber, out var line))
            {
                await EditAsync(
                    unit.Id,
                    new AddCard(CardKind: CardKind.Journaling, Words: line, StyleKey: "ledger-journal")
                    {
                        Revision = 0,
                    },
                    cancel
                );
                await EditAsync(unit.Id, new FillSpread { Revision = 0 }, cancel);
            }
        }
    }

    /// <summary>A week on one leaf: what is on its front goes on at its back.</summary>
    private async Task LayOutGardenAsync(Album album, CancellationToken cancel)
    {
        await EditAlbumAsync(album.Id, r => new ChooseFamily("Hedgerow") { Revision = r }, cancel);
        foreach (var (unit, week) in album.Units.OrderBy(u => u.Ordinal).Zip(DemoHousehold.GardenWeeks))
        {
            await EditAsync(
                unit.Id,
                new AddCard(CardKind: CardKind.WeekTitle, StyleKey: "hedgerow-title") { Revision = 0 },
                cancel
            );
            await EditAsync(
                unit.Id,
                new AddCard(CardKind: CardKind.Journaling, StyleKey: "hedgerow-journal", Words: week.Words)
                {
                    Revision = 0,
                },
                cancel
            );
            await EditAsync(unit.Id, new FillSpread { Revision = 0 }, cancel);
        }
    }

    private async Task JudgeAsync(Guid albumId, IEnumerable<Photo> photos, PhotoEdit change, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var ids = photos.Select(p => p.Id).ToList();
        var now = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .Photos.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new PhotoAt(p.Id, p.Revision))
            .ToListAsync(cancel);
        await scope
            .ServiceProvider.GetRequiredService<PhotoEditor>()
            .ApplyAsync(albumId, new PhotoEditRequest(now, change), cancel);
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

            if (week == 6)
            {
                await InsertAsync(album, unit, cancel);
            }

            if (DemoHousehold.TitlesOfWeek[week] is { } title)
            {
                await EditAsync(
                    unit,
                    new AddCard(CardKind: CardKind.WeekTitle, StyleKey: title) { Revision = 0 },
                    cancel
                );
            }

            foreach (var (kind, style, words) in DemoHousehold.StoriesOfWeek[week])
            {
                await EditAsync(
                    unit,
                    new AddCard(CardKind: kind, Words: words, StyleKey: style) { Revision = 0 },
                    cancel
                );
            }

            if (DemoHousehold.FillersOfWeek.TryGetValue(week, out var pattern))
            {
                await EditAsync(
                    unit,
                    new AddCard(CardKind: CardKind.Filler, StyleKey: pattern) { Revision = 0 },
                    cancel
                );
                await EditAsync(unit, new FillSpread { Revision = 0 }, cancel);
                await FinishAsync(week, unit, cancel);
            }
            else if (week == 3)
            {
                await HalfFillAsync(unit, cancel);
                await CollageAsync(unit, cancel);
            }
        }
    }

    /// <summary>A short trip gets a leaf of its own between the pages of its week, with two large pictures.</summary>
    private async Task InsertAsync(Album album, Guid unit, CancellationToken cancel)
    {
        var full = album.Protectors.Single(p => p.DesignKey == "9x12-full").Id;
        await using var scope = scopes.CreateAsyncScope();
        var revision = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .Units.Where(u => u.Id == unit)
            .Select(u => u.Revision)
            .SingleAsync(cancel);
        await scope
            .ServiceProvider.GetRequiredService<AlbumEditor>()
            .ApplyAsync(album.Id, new AddLeaf(full) { UnitId = unit, Revision = revision }, preview: false, cancel);
    }

    /// <summary>
    /// One week has rounded corners, one takes its colours from its pictures, one is written by hand, one has white
    /// borders.
    /// </summary>
    private async Task FinishAsync(int week, Guid unit, CancellationToken cancel)
    {
        var finish = week switch
        {
            0 => new WrittenFinish(Corner: "1/4 in"),
            6 => new WrittenFinish(Border: ["1/8 in"]),
            _ => null,
        };
        if (finish is not null)
        {
            var made = (await db.Units.AsNoTracking().SingleAsync(u => u.Id == unit, cancel)).Read();
            var prints = made.Pieces.OfType<PhotoPrint>().Select(p => p.Id).ToList();
            await EditAsync(unit, new FinishPieces(prints, finish) { Revision = 0 }, cancel);
        }

        if (week == 1)
        {
            await EditAsync(unit, new TintCards(FromPictures: true) { Revision = 0 }, cancel);
        }

        if (week == 2)
        {
            var content = (await db.Units.AsNoTracking().SingleAsync(u => u.Id == unit, cancel)).Read();
            var card = content.Pieces.OfType<Card>().First(c => c.Kind == CardKind.Journaling);
            await EditAsync(
                unit,
                new WriteCard(card.Id, Setting: new CardSetting(ByHand: true)) { Revision = 0 },
                cancel
            );
        }
    }

    private async Task LayOutTripAsync(Album album, CancellationToken cancel)
    {
        await EditAlbumAsync(album.Id, r => new ChooseFamily("Paperboat") { Revision = r }, cancel);
        var days = album.Units.OrderBy(u => u.Ordinal).ToList();
        var first = days[0].Id;
        await EditAsync(
            first,
            new AddCard(CardKind: CardKind.WeekTitle, StyleKey: "paperboat-title") { Revision = 0 },
            cancel
        );
        await EditAsync(
            first,
            new AddCard(
                CardKind: CardKind.Journaling,
                StyleKey: "paperboat-journal",
                Words: "We collected the boat at noon. Her name is Plum Duff and she does four miles an hour, downhill."
            )
            {
                Revision = 0,
            },
            cancel
        );
        await EditAsync(first, new FillSpread { Revision = 0 }, cancel);

        // Words before pictures: the evenings' stories are there, one of them set on cards already.
        foreach (var (day, title, author, words) in DemoHousehold.StoriesOfTrip)
        {
            await using var scope = scopes.CreateAsyncScope();
            var editor = scope.ServiceProvider.GetRequiredService<StoryEditor>();
            var unit = days[day - 1];
            var story = await editor.ApplyAsync(
                album.Id,
                new NewStory(words, title, [unit.FirstDay], Author: author),
                cancel
            );
            if (day == 2)
            {
                var revision = await db.Units.Where(u => u.Id == unit.Id).Select(u => u.Revision).SingleAsync(cancel);
                await editor.ApplyAsync(
                    album.Id,
                    new SetStoryOnCards(story.StoryId!.Value, 2, "paperboat-journal")
                    {
                        UnitId = unit.Id,
                        Revision = revision,
                    },
                    cancel
                );
                await EditAsync(
                    unit.Id,
                    new AddCard(CardKind: CardKind.Facts, StyleKey: "paperboat-rows") { Revision = 0 },
                    cancel
                );
                await EditAsync(
                    unit.Id,
                    new AddCard(CardKind: CardKind.Map, StyleKey: "paperboat-rows") { Revision = 0 },
                    cancel
                );
                await EditAsync(
                    unit.Id,
                    new WriteNote(
                        Note: new WrittenNote(
                            null,
                            unit.FirstDay,
                            "11:40",
                            "“It is not lost, it is resting.” Otto, about the oar",
                            NoteKind.Overheard
                        )
                    )
                    {
                        Revision = 0,
                    },
                    cancel
                );
            }
        }

        // Pictures of the third and sixth day still lie on the wrong day by the camera's clock.
        foreach (var day in new[] { days[1], days[3], days[7] })
        {
            await EditAsync(day.Id, new FillSpread { Revision = 0 }, cancel);
        }

        await FoldOutAsync(album, days, cancel);
        await LogTripAsync(album.Id, cancel);
    }

    /// <summary>A receiver knows no names: the household writes them over.</summary>
    private async Task NameMooringsAsync(Guid albumId, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var log = (
            await scope
                .ServiceProvider.GetRequiredService<ZestyContext>()
                .Albums.AsNoTracking()
                .SingleAsync(a => a.Id == albumId, cancel)
        ).ReadTrip();
        var boat = 0;
        foreach (var leg in log.Legs)
        {
            var afloat = leg.Mode == TravelMode.Boat;
            var (from, to) = afloat
                ? (DemoTrip.Moorings[boat], DemoTrip.Moorings[boat + 1])
                : (DemoTrip.Moorings[boat], DemoTrip.Moorings[boat]);
            boat += afloat ? 1 : 0;
            await EditAlbumAsync(
                albumId,
                revision => new WriteLeg(
                    leg.Id,
                    leg.Day,
                    from,
                    to,
                    leg.Mode,
                    ClockText.Show(leg.Leaves!.Value),
                    ClockText.Show(leg.Arrives!.Value),
                    null,
                    [afloat ? "the lock" : "the long view"],
                    null,
                    afloat ? ["Ada", "Ben", "Junie"] : ["Ben", "Junie"]
                )
                {
                    Revision = revision,
                },
                cancel
            );
        }
    }

    /// <summary>Fills an empty stash and an empty drawer of papers, and says what they cost.</summary>
    private async Task StockAsync(Album? weekly, CancellationToken cancel)
    {
        if (!await db.StashItems.AnyAsync(i => i.KeeperId == keeper.Id, cancel))
        {
            await using var scope = scopes.CreateAsyncScope();
            await scope
                .ServiceProvider.GetRequiredService<StashEditor>()
                .ApplyAsync(new AddToStash([.. DemoStash.Items]), [], cancel);
        }

        if (!await db.PapersOnHand.AnyAsync(p => p.KeeperId == keeper.Id, cancel))
        {
            await using var scope = scopes.CreateAsyncScope();
            var drawer = scope.ServiceProvider.GetRequiredService<PaperDrawer>();
            foreach (var (stock, paper, count, price) in DemoStash.Papers)
            {
                await drawer.SaveAsync(new PaperEntry(stock, paper, count, price), cancel);
            }
        }

        if (weekly is not null)
        {
            await EditAlbumAsync(
                weekly.Id,
                revision => new SetLeafPrice(DemoStash.LeafPrice) { Revision = revision },
                cancel
            );
        }
    }

    /// <summary>The track comes as a file; legs, expenses and weather are written beside it.</summary>
    private async Task LogTripAsync(Guid albumId, CancellationToken cancel)
    {
        await using (var scope = scopes.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<TripImport>()
                .AddTracksAsync(albumId, "plum-duff.gpx", DemoTrip.Track(), cancel);
        }

        await NameMooringsAsync(albumId, cancel);
        foreach (var leg in DemoTrip.TypedLegs)
        {
            await EditAlbumAsync(albumId, revision => leg with { Revision = revision }, cancel);
        }

        foreach (var (day, kind, amount, note) in DemoTrip.Expenses)
        {
            await EditAlbumAsync(
                albumId,
                revision => new WriteExpense(null, DemoHousehold.TripFirstDay.PlusDays(day), kind, amount, note)
                {
                    Revision = revision,
                },
                cancel
            );
        }

        await EditAlbumAsync(
            albumId,
            revision => new SetRates("EUR", [new CurrencyRate("GBP", 1.17m)]) { Revision = revision },
            cancel
        );
        await EditAlbumAsync(
            albumId,
            revision => new NoteWeather([.. DemoTrip.Weather]) { Revision = revision },
            cancel
        );
    }

    /// <summary>
    /// Four loose pictures of a week and a cell of words in one print, in a pocket of the right page.
    /// </summary>
    private async Task CollageAsync(Guid unitId, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(unitId, cancel);
        var loose = open
            .Photos.Values.Where(p => !open.Content.PhotosPlaced.Contains(p.Id))
            .Take(5)
            .Select(p => p.Id)
            .ToList();
        var pocket = open.Pockets.First(p =>
            p.Face.Side == LeafSide.Front && p.Pocket.Nominal == Size.FromInches(6, 4)
        );
        await EditAsync(
            unitId,
            new AddCollage(
                Collage: new WrittenCollage("6x4", loose, Gutter: "1/16 in"),
                Place: new PocketPlace(pocket.Place.LeafId, pocket.Place.Side, pocket.Place.PocketKey)
            )
            {
                Revision = 0,
            },
            cancel
        );
    }

    /// <summary>
    /// The day of the long view gets a fold-out, and every day the same pattern; a page the household drew itself.
    /// </summary>
    private async Task FoldOutAsync(Album album, List<AlbumUnit> days, CancellationToken cancel)
    {
        var day = days[4];
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var revision = await db.Units.Where(u => u.Id == day.Id).Select(u => u.Revision).SingleAsync(cancel);
        await scope
            .ServiceProvider.GetRequiredService<AlbumEditor>()
            .ApplyAsync(
                album.Id,
                new AddNewLeaf(new LeafMake(LeafKind.FoldOut, Size: "11x8", Fold: "6 1/2 in"))
                {
                    UnitId = day.Id,
                    Revision = revision,
                },
                preview: false,
                cancel
            );
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(day.Id, cancel);
        var widest = open
            .Photos.Values.OrderByDescending(p => (double)p.Width / p.Height)
            .ThenBy(p => p.SortAt)
            .FirstOrDefault();
        var sheet = open.Pockets.First(p => p.Face.Protector.Form.Kind == LeafKind.FoldOut).Place;
        if (widest is not null)
        {
            await EditAsync(
                day.Id,
                new PutPhoto(widest.Id, Place: new PocketPlace(sheet.LeafId, sheet.Side, sheet.PocketKey))
                {
                    Revision = 0,
                },
                cancel
            );
        }

        var own = album.Protectors.OrderBy(p => p.Ordinal).First().Id;
        await EditAlbumAsync(
            album.Id,
            seen => new KeepFormula(null, "Each day afloat", [own], [], Pictures: 4, Words: 1, Title: true)
            {
                Revision = seen,
            },
            cancel
        );
        await using var third = scopes.CreateAsyncScope();
        var designs = third.ServiceProvider.GetRequiredService<DesignEditor>();
        await designs.ApplyAsync(new AddDesign("Two letters and the long one", "3x4 | 6x4 / 3x4 | 6x4 / 9x4"), cancel);
    }

    /// <summary>Fills the spread and takes every other piece of the right page out again: a week half done.</summary>
    private async Task HalfFillAsync(Guid unitId, CancellationToken cancel)
    {
        await EditAsync(unitId, new FillSpread { Revision = 0 }, cancel);
        await using var scope = scopes.CreateAsyncScope();
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(unitId, cancel);
        foreach (var (face, _, place, _) in open.Pockets.Where(p => p.Face.Side == LeafSide.Front).ToList())
        {
            await EditAsync(
                unitId,
                new TakeOut(Place: new PocketPlace(face.Leaf.Id, face.Side, place.PocketKey)) { Revision = 0 },
                cancel
            );
        }
    }

    private async Task ChooseDesignAsync(Guid unitId, LeafSide side, Guid protectorId, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var open = await scope.ServiceProvider.GetRequiredService<UnitOpener>().OpenAsync(unitId, cancel);
        var leaf = open.Faces.First(f => f.Side == side).Leaf.Id;
        await scope
            .ServiceProvider.GetRequiredService<AlbumEditor>()
            .ApplyAsync(
                open.Album.Id,
                new GiveDesign(leaf, protectorId) { UnitId = unitId, Revision = open.Unit.Revision },
                preview: false,
                cancel
            );
    }

    private async Task EditAsync(Guid unitId, UnitEdit request, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var revision = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .Units.Where(u => u.Id == unitId)
            .Select(u => u.Revision)
            .SingleAsync(cancel);
        await scope
            .ServiceProvider.GetRequiredService<UnitEditor>()
            .ApplyAsync(unitId, request with { Revision = revision }, cancel);
    }

    private async Task EditAlbumAsync(Guid albumId, Func<int, AlbumEdit> edit, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var revision = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .Albums.Where(a => a.Id == albumId)
            .Select(a => a.Revision)
            .SingleAsync(cancel);
        await scope
            .ServiceProvider.GetRequiredService<AlbumEditor>()
            .ApplyAsync(albumId, edit(revision), preview: false, cancel);
    }

    private async Task ImportAsync(
        List<(Album Album, DemoShot Shot)> shots,
        Action<string> tell,
        CancellationToken cancel
    )
    {
        var done = 0;
        var queue = Channel.CreateUnbounded<(Album, DemoShot)>();
        foreach (var shot in shots)
        {
            queue.Writer.TryWrite(shot);
        }

        queue.Writer.Complete();
        await Task.WhenAll(
            Enumerable.Range(0, Math.Max(2, Environment.ProcessorCount)).Select(_ => Task.Run(WorkAsync, cancel))
        );

        async Task WorkAsync()
        {
            await foreach (var (album, shot) in queue.Reader.ReadAllAsync(cancel))
            {
                await using var scope = scopes.CreateAsyncScope();
                using var stream = new MemoryStream(DemoPictures.Jpeg(shot.At(Detail)));
                using var arrived = await scope
                    .ServiceProvider.GetRequiredService<IPhotoVault>()
                    .ReceiveAsync(stream, stream.Length, cancel);
                var outcome = await scope
                    .ServiceProvider.GetRequiredService<PhotoImport>()
                    .TakeAsync(album.Id, shot.FileName, arrived, null, null, cancel);
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
        await db.PrintedPieces.Where(p => p.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.PrintJobs.Where(j => j.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db
            .ImportFiles.Where(f => db.Imports.Any(b => b.Id == f.BatchId && b.AlbumId == albumId))
            .ExecuteDeleteAsync(cancel);
        await db.Imports.Where(b => b.AlbumId == albumId).ExecuteDeleteAsync(cancel);
        await db.Set<Storage.Editing.EditChange>()
            .Where(c => db.Edits.Any(e => e.Id == c.EditId && e.AlbumId == albumId))
            .ExecuteDeleteAsync(cancel);
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
