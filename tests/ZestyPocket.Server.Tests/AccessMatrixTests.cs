using System.Net;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Server.Tests.Fuzzing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Sharing;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Every operation of the API document, asked by everybody there is, about what is theirs, what is another's and what
/// is nowhere. What each operation needs stands in the document itself.
/// </summary>
public sealed partial class AccessMatrixTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Nobody_comes_further_than_their_role_and_what_is_anothers_is_answered_like_what_is_nowhere()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var (reader, editor) = (await AnotherAsync(ada, "Rosa"), await AnotherAsync(ada, "Edo"));
        var own = await WithJobsAsync(ada, await FuzzTests.FurnishAsync(ada));
        var foreign = await WithJobsAsync(ben, await FuzzTests.FurnishAsync(ben));
        await ShareAsync(ada, reader, own["albums"][0], AlbumRole.Reader);
        await ShareAsync(ada, editor, own["albums"][0], AlbumRole.Editor);
        var asked = await ada.PostAsync<List<ContributorLinkView>>(
            $"/api/albums/{own["albums"][0]}/contributor-links",
            new AskForWords([new AskedPerson("Oma")], "What do you remember?", null, null, null, 0, 7)
        );
        var contributor = host.Browser();
        contributor.DefaultRequestHeaders.Add("X-Zesty-Link", SecretOf(asked[0].Path));
        var unknown = own.ToDictionary(k => k.Key, k => (IReadOnlyList<Guid>)[Guid.CreateVersion7()]);
        (string Name, HttpClient Client, int Rank)[] people =
        [
            ("nobody", host.Browser(), -2),
            ("contributor", contributor, -2),
            ("other", (await AnotherAsync(ada, "Otto")).Client, -1),
            ("reader", reader.Client, 0),
            ("editor", editor.Client, 1),
            ("owner", ada.Client, 2),
        ];
        var leaks = new List<string>();
        var counted = 0;
        foreach (var (whose, ids) in new[] { ("own", own), ("foreign", foreign), ("unknown", unknown) })
        {
            var calls = await CallsAsync(host, ids, seed: 7);
            foreach (
                var operation in calls
                    .Operations.Concat(calls.Lines)
                    .SelectMany(o => Enumerable.Repeat(o, Thorough.Of(5, 1)))
                    .Where(o => Lasting(o) && o.Needs != "nobody")
            )
            {
                var call = Tame(calls.Next(operation), ids);
                var known = ids.ContainsKey(operation.Path.Split('/')[2]);
                // From the least to the most, so that what is deleted is deleted last.
                foreach (var (name, client, rank) in people)
                {
                    using var answer = await AnswerAsync(client, call);
                    counted++;
                    // The gate before everything turns a zero character away.
                    if (
                        !call.Url.Contains("%00", StringComparison.Ordinal)
                        && Leak(operation, known ? whose : "unknown", rank, (int)answer.StatusCode) is { } leak
                    )
                    {
                        leaks.Add($"{name} {whose} {leak}: {(int)answer.StatusCode} {call}");
                    }
                }
            }
        }

        leaks.ShouldBeEmpty();
        // A matrix of nothing would have no leaks either.
        counted.ShouldBeGreaterThan(2_000);
    }

    /// <summary>With a job of each kind, an edit and an import of the keeper.</summary>
    private static async Task<Dictionary<string, IReadOnlyList<Guid>>> WithJobsAsync(
        TestHost host,
        Dictionary<string, IReadOnlyList<Guid>> ids
    )
    {
        var (album, unit) = (ids["albums"][0], ids["units"][0]);
        var book = await host.PostAsync<Keeping.BookView>(
            $"/api/albums/{album}/books",
            new Keeping.BookRequest("one", Storage.Keeping.BookForm.Pages, true, [])
        );
        var print = await host.PostAsync<Printing.PrintJobView>(
            "/api/print-jobs",
            new Printing.PrintRequest("one", [unit], "a4", "5 mm", "2 mm")
        );
        var stretch = await host.PostAsync<Placing.StretchPlacingView>(
            $"/api/albums/{album}/stretch-placings",
            new Placing.PlaceStretchRequest("one", unit, 1, true, new())
        );
        var search = await host.SearchPagesAsync(album, new Counting.ChoosePagesRequest(unit, 1));
        var order = await host.PostAsync<Printing.LabOrderView>(
            "/api/lab-orders",
            new Printing.LabRequest("one", [unit], Core.Printing.PrintChoice.All)
        );
        await host.AddAsync(album, "film.mp4", Films.Moving("creation_time=2026-05-04T10:00:00Z"));
        var film = (await host.GetAsync<List<Importing.VideoView>>($"/api/albums/{album}/videos")).Single();
        var backup = await host.PostAsync<Keeping.BackupView>("/api/backups", new Keeping.BackupRequest("one", null));
        var printer = await host.PostAsync<Printing.PrinterView>("/api/printers", new Printing.NamePrinter("Den"));
        var edit = await host.EditStoriesAsync(album, new Core.Words.Edits.NewStory("Words."));
        return new Dictionary<string, IReadOnlyList<Guid>>(ids)
        {
            ["books"] = [book.Id],
            ["print-jobs"] = [print.Id],
            ["stretch-placings"] = [stretch.Id],
            ["page-searches"] = [search.Id],
            ["lab-orders"] = [order.Id],
            ["videos"] = [film.Id],
            ["backups"] = [backup.Id],
            ["printers"] = [printer.Id],
            ["edits"] = [edit.EditId!.Value],
        };
    }

    /// <summary>What is wrong with an answer; null when nothing is.</summary>
    private static string? Leak(Operation operation, string whose, int rank, int status)
    {
        var ofAlbum = operation.Needs is "reader" or "editor" or "owner";
        var needs = operation.Needs switch
        {
            "owner" => 2,
            "editor" => 1,
            "reader" => 0,
            _ => -1,
        };
        // Another kind of content than the operation takes is refused before it is known what it is about.
        if (status is 415 or 429)
        {
            return null;
        }

        // Before anything else, also before a body that is none.
        if (rank == -2)
        {
            return status == 401 ? null : "should sign in";
        }

        // A body that is none is refused whoever asks, unless the address says already what it is about.
        if (status == 400 && (rank >= needs && whose == "own" || !ofAlbum || !Addressed().IsMatch(operation.Path)))
        {
            return null;
        }

        if (operation.Needs == "operator")
        {
            return (status == 403) == (rank < 2) ? null : "is for whoever runs the program";
        }

        if (!ofAlbum)
        {
            // What belongs to a keeper is there for nobody else, whatever they may do in an album.
            return status is 401 or 403 ? "should be let in"
                : KeptByKeeper().IsMatch(operation.Path) && (whose != "own" || rank < 2) && status is not (404 or 422)
                    ? "should find nothing"
                : null;
        }

        if (whose != "own" || rank == -1)
        {
            return status == 404 ? null : "should find nothing";
        }

        return rank < needs
            ? status == 403
                ? null
                : "should not be allowed"
            : status is 401 or 403
                ? "should be allowed"
                : null;
    }

    /// <summary>Operations that end the matrix itself are tried elsewhere.</summary>
    private static bool Lasting(Operation operation) =>
        operation.Id
            is not (
                "signOut"
                or "signOutEverywhere"
                or "putAlbumAway"
                or "leaveAlbum"
                or "removeMember"
                or "setRole"
                or "changePassword"
                or "revokeContributorLink"
            );

    /// <summary>The keys in the address are of what it is about, not of something else.</summary>
    private static RandomCall Tame(RandomCall call, Dictionary<string, IReadOnlyList<Guid>> ids)
    {
        var path = Parameter()
            .Replace(
                call.Operation.Path,
                m =>
                    m.Groups[2].Value is "id" or "albumId" && ids.TryGetValue(m.Groups[1].Value, out var known)
                        ? $"/{m.Groups[1].Value}/{known[0]}"
                    : m.Groups[2].Value == "side" ? $"/{m.Groups[1].Value}/front"
                    : m.Groups[2].Value == "number" ? $"/{m.Groups[1].Value}/1"
                    : $"/{m.Groups[1].Value}/{ids.GetValueOrDefault(m.Groups[2].Value)?[0] ?? Guid.CreateVersion7()}"
            );
        var query = call.Url.Contains('?', StringComparison.Ordinal) ? call.Url[call.Url.IndexOf('?')..] : "";
        return call with { Url = path + query };
    }

    [GeneratedRegex(@"^/api/(backups|printers)/\{id\}")]
    private static partial Regex KeptByKeeper();

    [GeneratedRegex(@"^/api/[a-z-]+/\{(id|albumId)\}")]
    private static partial Regex Addressed();

    [GeneratedRegex(@"/([a-z-]+)/\{(\w+)\}")]
    private static partial Regex Parameter();

    [Fact]
    public async Task What_a_reader_sees_of_an_album_is_its_pages_and_no_loose_photo()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var ids = await FuzzTests.FurnishAsync(ada);
        await ShareAsync(ada, ben, ids["albums"][0], AlbumRole.Reader);
        foreach (
            var (path, status) in new[]
            {
                ($"/api/albums/{ids["albums"][0]}", 200),
                ($"/api/albums/{ids["albums"][0]}/pages", 200),
                ($"/api/units/{ids["units"][0]}/spread.png", 200),
                ($"/api/albums/{ids["albums"][0]}/photos", 403),
                ($"/api/photos/{ids["photos"][0]}/picture", 403),
                ($"/api/albums/{ids["albums"][0]}/stories", 403),
                ($"/api/albums/{ids["albums"][0]}/trip", 403),
                ($"/api/albums/{ids["albums"][0]}/costs", 403),
            }
        )
        {
            var answer = await ben.Client.GetAsync(new Uri(path, UriKind.Relative), Cancel);
            ((int)answer.StatusCode).ShouldBe(status, path);
        }
    }

    [Fact]
    public async Task Whoever_was_sent_away_is_out_at_once_also_from_jobs_files_and_undo()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var ids = await FuzzTests.FurnishAsync(ada);
        var album = ids["albums"][0];
        await ShareAsync(ada, ben, album, AlbumRole.Editor);
        var edit = await ben.EditStoriesAsync(album, new Core.Words.Edits.NewStory("Words of Ben."));
        var print = await ben.PostAsync<Printing.PrintJobView>(
            "/api/print-jobs",
            new Printing.PrintRequest("one", [ids["units"][0]], "a4", "5 mm", "2 mm")
        );
        await SendAwayAsync(ada, album);
        foreach (
            var path in new[] { $"/api/albums/{album}", $"/api/print-jobs/{print.Id}", $"/api/units/{ids["units"][0]}" }
        )
        {
            (await ben.Client.GetAsync(new Uri(path, UriKind.Relative), Cancel)).StatusCode.ShouldBe(
                HttpStatusCode.NotFound,
                path
            );
        }

        await ben.RefusedAsync(404, HttpMethod.Post, $"/api/edits/{edit.EditId}/undo", new { });
        // What Ben wrote stays, and Ada may go on with it.
        (await ada.GetAsync<List<StoryView>>($"/api/albums/{album}/stories")).ShouldContain(s =>
            s.Words == "Words of Ben."
        );
    }

    [Fact]
    public async Task A_job_that_began_before_somebody_was_sent_away_finds_the_album_gone()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var ids = await FuzzTests.FurnishAsync(ada);
        var album = ids["albums"][0];
        await ShareAsync(ada, ben, album, AlbumRole.Editor);
        var asked = await ben.PostAsync<Placing.StretchPlacingView>(
            $"/api/albums/{album}/stretch-placings",
            new Placing.PlaceStretchRequest("one", ids["units"][0], 1, true, new())
        );
        await SendAwayAsync(ada, album);
        await using var scope = host.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<Placing.StretchRunner>().RunAsync(asked.Id, Cancel);
        var job = await scope
            .ServiceProvider.GetRequiredService<ZestyContext>()
            .StretchPlacings.AsNoTracking()
            .SingleAsync(j => j.Id == asked.Id, Cancel);
        job.State.ShouldBe(Storage.Jobs.JobState.Failed);
        job.Problem.ShouldNotBeNull().ShouldContain("was not found");
    }
}
