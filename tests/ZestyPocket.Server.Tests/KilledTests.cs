using System.Diagnostics;
using ZestyPocket.Core.Measures;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// The server and the database are killed, with -9, again and again at different moments of an import of many files
/// that is still being sent, each time with a print just begun. Afterwards every file is there once, no row is without
/// its file, and every print is drawn.
/// </summary>
public sealed class KilledTests
{
    private static readonly int Files = Thorough.Of(200, 40);
    private static readonly int[] Moments =
    [
        .. new[] { 3, 17, 31, 52, 74, 96, 118, 139, 161, 183 }.Take(Thorough.Of(10, 2)),
    ];

    [Fact]
    public async Task An_import_survives_kills_of_the_server()
    {
        await using var machine = await Machine.StartAsync();
        await ImportAsync(
            machine,
            async () =>
            {
                machine.KillServer();
                await machine.StartServerAsync();
            }
        );
    }

    [Fact]
    public async Task An_import_survives_kills_of_the_database()
    {
        await using var machine = await Machine.StartAsync();
        await ImportAsync(
            machine,
            () =>
            {
                machine.KillDatabase();
                machine.StartDatabase();
                return Task.CompletedTask;
            }
        );
    }

    private static async Task ImportAsync(Machine machine, Func<Task> kill)
    {
        var album = await machine.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest(
                "Killed",
                new NodaTime.LocalDate(2026, 5, 4),
                4,
                ["9x12-nine-3x4"],
                MeasureSystem.Inches
            )
        );
        var batch = (await machine.PostAsync<ImportView>($"/api/albums/{album.Id}/imports", new { })).Id;
        var next = -1;
        var senders = Enumerable
            .Range(0, 3)
            .Select(_ =>
                Task.Run(async () =>
                {
                    for (int i; (i = Interlocked.Increment(ref next)) < Files; )
                    {
                        var bytes = Pictures.Jpeg(
                            700 + i,
                            500,
                            $"2026:05:{4 + (i % 28):00} 12:{i % 60:00}:00",
                            shade: i % 200
                        );
                        await Machine.PersistAsync(() => machine.SendAsync(batch, i, bytes));
                    }
                })
            )
            .ToList();

        var unit = await machine.FillAsync(album.Units[0].Id);
        var (prints, longest) = (new List<Guid>(), TimeSpan.Zero);
        foreach (var moment in Moments)
        {
            await Machine.PersistAsync(async () =>
            {
                if (await machine.CountAsync("SELECT count(*) FROM \"Photos\"") < moment)
                {
                    throw new TimeoutException($"The import never came to {moment} photos.");
                }
            });
            await Machine.PersistAsync(async () =>
                prints.Add(
                    (
                        await machine.PostAsync<PrintJobView>(
                            "/api/print-jobs",
                            new PrintRequest($"at {moment}", [unit], "letter", "1/4 in", "0")
                        )
                    ).Id
                )
            );
            var watch = Stopwatch.StartNew();
            await kill();
            await Machine.PersistAsync(() => machine.GetAsync<AlbumView>($"/api/albums/{album.Id}"));
            longest = longest < watch.Elapsed ? watch.Elapsed : longest;
        }

        // Told, not judged: how long it takes depends on what else the machine is doing.
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"After a kill it answered again within {longest.TotalSeconds:0.0} s at the longest"
        );
        await Task.WhenAll(senders);
        await Machine.PersistAsync(() => machine.PostAsync<ImportView>($"/api/imports/{batch}/close", new { }));
        ImportView? done = null;
        await Machine.PersistAsync(async () =>
        {
            done = await machine.GetAsync<ImportView>($"/api/imports/{batch}");
            if (done.State != ImportState.Done)
            {
                throw new TimeoutException($"The import is still {done.State}: {done.Waiting} wait.");
            }
        });

        (done!.Files, done.Added, done.AlreadyHere, done.Refused).ShouldBe((Files, Files, 0, 0));
        (await machine.CountAsync("SELECT count(DISTINCT \"Sha256\") FROM \"Photos\"")).ShouldBe(
            Files,
            "none lost, none twice"
        );
        (await machine.CountAsync("SELECT count(*) FROM \"Photos\"")).ShouldBe(Files);
        var vault = new FolderVault(Path.Combine(machine.DataFolder, "vault"));
        foreach (var sha in await machine.ShasAsync())
        {
            var path = vault.PathOf(Core.Photos.ContentHash.Parse(sha));
            File.Exists(path).ShouldBeTrue("a row without its file");
            Convert
                .ToHexStringLower(System.Security.Cryptography.SHA256.HashData(await File.ReadAllBytesAsync(path)))
                .ShouldBe(sha);
        }

        foreach (var print in prints)
        {
            PrintJobView? job = null;
            await Machine.PersistAsync(async () =>
            {
                job = await machine.GetAsync<PrintJobView>($"/api/print-jobs/{print}");
                if (job.State is JobState.Waiting or JobState.Running)
                {
                    throw new TimeoutException($"A print is still {job.State}.");
                }
            });
            (job!.State, job.Problem).ShouldBe((JobState.Done, null));
            File.Exists(Path.Combine(machine.DataFolder, "prints", $"{print:N}.pdf")).ShouldBeTrue();
        }

        // Half-written sheets are swept at the next start.
        var folder = Path.Combine(machine.DataFolder, "prints");
        await File.WriteAllTextAsync(Path.Combine(folder, $"{prints[0]:N}.pdf.half"), "%PDF-");
        foreach (var file in Directory.GetFiles(folder))
        {
            File.SetLastWriteTimeUtc(file, DateTime.UtcNow.AddHours(-1));
        }

        // What was received but not yet noted when the kill came was sent again; a day later the leftover is thrown
        // away.
        var parked = Path.Combine(machine.DataFolder, "vault", "parked");
        foreach (var leftover in Directory.GetFiles(parked))
        {
            File.SetLastWriteTimeUtc(leftover, DateTime.UtcNow.AddDays(-2));
        }

        machine.KillServer();
        await machine.StartServerAsync();
        await Machine.PersistAsync(() =>
            Array.TrueForAll(Directory.GetFiles(folder), f => Path.GetExtension(f) == ".pdf")
                ? Task.CompletedTask
                : throw new TimeoutException("Half-written sheets stay for ever.")
        );
        // What is finished stays, however old it is.
        prints.ShouldAllBe(print => File.Exists(Path.Combine(folder, $"{print:N}.pdf")));
        await Machine.PersistAsync(() =>
            Directory.GetFiles(parked).Length == 0
                ? Task.CompletedTask
                : throw new TimeoutException("Leftovers stay for ever.")
        );
    }
}
