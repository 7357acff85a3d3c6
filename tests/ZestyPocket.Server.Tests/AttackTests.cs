using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Placing;
using ZestyPocket.Server.Printing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// What was found by attacking the program: each line is a way in which something was lost, shown or stopped.
/// </summary>
public sealed class AttackTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Growing_by_two_thousand_million_weeks_is_refused_at_once()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var problem = await host.AlbumEditRefusedAsync(
            422,
            album.Id,
            new GrowAlbum(int.MaxValue, AtEnd: true) { Revision = album.Revision }
        );
        problem["detail"]!.GetValue<string>().ShouldContain("Nothing was changed");
    }

    [Fact]
    public async Task Pictures_that_arrive_while_units_are_merged_and_counted_anew_lie_in_units_that_are_there()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        using var stop = new CancellationTokenSource();
        var tape = Task.Run(
            async () =>
            {
                while (!stop.IsCancellationRequested)
                {
                    var units = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units;
                    var revision = (await host.OpenAsync(units[0].Id)).Revision;
                    var merge = await host.Client.PostAsync(
                        $"/api/albums/{album.Id}/edits",
                        TestHost.Written(new MergeUnit { UnitId = units[0].Id, Revision = revision })
                    );
                    if (merge.IsSuccessStatusCode)
                    {
                        var done = (await merge.Content.ReadFromJsonAsync<AlbumEditAnswer>(TestHost.Json))!;
                        await host.Client.PostAsync($"/api/edits/{done.EditId}/undo", null);
                    }
                }
            },
            Cancel
        );
        await Task.WhenAll(
            Enumerable
                .Range(0, 3)
                .Select(sender =>
                    Task.Run(
                        async () =>
                        {
                            for (var i = 0; i < 20; i++)
                            {
                                await host.AddAsync(
                                    album.Id,
                                    $"{sender}-{i}.jpg",
                                    Pictures.Jpeg(600 + i, 400 + sender, $"2026:05:{4 + (i % 14):00} 12:00:00")
                                );
                            }
                        },
                        Cancel
                    )
                )
        );
        await stop.CancelAsync();
        await tape;

        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var there = await db.Units.Where(u => u.AlbumId == album.Id).Select(u => u.Id).ToListAsync(Cancel);
        (await db.Photos.CountAsync(p => p.AlbumId == album.Id, Cancel)).ShouldBe(60);
        (
            await db.Photos.CountAsync(
                p => p.AlbumId == album.Id && (p.UnitId == null || !there.Contains(p.UnitId.Value)),
                Cancel
            )
        ).ShouldBe(0);
    }

    [Fact]
    public async Task A_cover_on_a_keepsakes_picture_changes_its_address_and_an_old_address_is_not_kept()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "ticket.jpg", Pictures.Jpeg(900, 600, "2026:05:04 12:00:00"));
        var unit = await host.OpenAsync(album.Units[0].Id);
        var photo = unit.Photos[0];
        unit = await host.EditAsync(
            unit,
            new AddKeepsake(Keepsake: new WrittenKeepsake("Ticket", "3 x 2 in", "0", "", photo.Id, null, false))
            {
                Revision = 0,
            }
        );
        var before = unit
            .LooseCards.Concat(unit.Faces.SelectMany(f => f.Pockets).Select(p => p.Piece!).Where(p => p is not null))
            .Single(p => p.Kind == PieceKind.Keepsake)
            .FaceUrl!;
        await host.EditPhotosAsync(unit.Id, [photo], new CoverPhoto([new DrawnBox(0.1, 0.1, 0.5, 0.5)]));
        var after = (await host.OpenAsync(unit.Id)).LooseCards.Single(p => p.Kind == PieceKind.Keepsake).FaceUrl!;
        after.ShouldNotBe(before);
        var kept = await host.Client.GetAsync(after, Cancel);
        kept.Headers.CacheControl!.ToString().ShouldContain("max-age");
        (await host.Client.GetAsync(before, Cancel)).Headers.CacheControl!.NoCache.ShouldBeTrue();
        (
            await host.Client.GetAsync($"/api/photos/{photo.Id}/picture?side=100&v=00000000", Cancel)
        ).Headers.CacheControl!.NoCache.ShouldBeTrue();
    }

    [Fact]
    public async Task The_same_words_on_two_days_are_two_stories_and_come_in_once()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        const string file = "# 2026-05-04\nRest day.\n# 2026-05-06\nRest day.\n";
        (await ImportStoriesAsync(host, album, file)).Added.ShouldBe(2);
        var again = await ImportStoriesAsync(host, album, file);
        (again.Added, again.Known).ShouldBe((0, 2));
    }

    [Fact]
    public async Task Six_equal_print_requests_at_once_are_one_job_and_six_good_answers()
    {
        await using var host = await TestHost.StartAsync();
        var (_, unit) = await EditingTests.WeekWithPhotosAsync(host, 6);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var request = new PrintRequest("six", [unit.Id], "letter", "1/4 in", "0");
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ => host.Client.PostAsJsonAsync("/api/print-jobs", request, TestHost.Json, Cancel))
        );
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
        var ids = await Task.WhenAll(
            answers.Select(a => a.Content.ReadFromJsonAsync<PrintJobView>(TestHost.Json, Cancel))
        );
        ids.Select(j => j!.Id).Distinct().Count().ShouldBe(1);
    }

    [Fact]
    public async Task A_print_whose_job_was_never_queued_is_taken_up()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var (album, unit) = await EditingTests.WeekWithPhotosAsync(host, 6);
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var id = Guid.CreateVersion7();
        await using (var scope = host.Services.CreateAsyncScope())
        {
            // As after a kill between the row and the queue.
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            db.PrintJobs.Add(
                new Storage.Printing.PrintJob
                {
                    Id = id,
                    AlbumId = album.Id,
                    KeeperId = Keeper.LocalId,
                    RequestKey = "lost",
                    UnitIds = [unit.Id],
                    PaperKey = "letter",
                    MarginEmu = 228_600,
                    MadeAt = Instant.FromUnixTimeSeconds(1),
                }
            );
            await db.SaveChangesAsync(Cancel);
        }

        await PrintingTests.UntilEndedAsync(host, await host.GetAsync<PrintJobView>($"/api/print-jobs/{id}"));
    }

    [Fact]
    public async Task Words_without_room_and_letters_that_no_face_has_are_named_before_they_are_printed()
    {
        await using var host = await TestHost.StartAsync(runJobs: true);
        var album = await host.MakeAlbumAsync();
        var unit = await host.OpenAsync(album.Units[0].Id);
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: string.Join(' ', Enumerable.Repeat("marmalade", 900)))
            {
                Revision = 0,
            }
        );
        unit = await host.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "Snow \u4E16 and more") { Revision = 0 }
        );
        unit = await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var request = new PrintRequest("doubts", [unit.Id], "letter", "1/4 in", "0");
        var doubts = (await host.PostAsync<PrintPlanView>("/api/print-plans", request)).Doubts;
        doubts.ShouldContain(d => d.Contains("have no room and would not be printed", StringComparison.Ordinal));
        doubts.ShouldContain(d => d.Contains('\u4E16'));
        var job = await PrintingTests.UntilEndedAsync(
            host,
            await host.PostAsync<PrintJobView>("/api/print-jobs", request)
        );
        job.Problem!.ShouldContain("Nothing was printed");
        job = await PrintingTests.UntilEndedAsync(
            host,
            await host.PostAsync<PrintJobView>(
                "/api/print-jobs",
                request with
                {
                    RequestKey = "anyway",
                    DespiteDoubts = true,
                }
            )
        );
        (job.State, job.Problem).ShouldBe((Storage.Jobs.JobState.Done, null));
    }

    [Fact]
    public async Task An_aborted_request_leaves_the_speller_in_step()
    {
        await using var host = await TestHost.StartAsync();
        var speller = host.Services.GetRequiredService<Speller>();
        for (var i = 0; i < 30; i++)
        {
            using var gone = new CancellationTokenSource(TimeSpan.FromMilliseconds(i % 7));
            try
            {
                await speller.CheckAsync(
                    "en_GB",
                    string.Join(
                        ' ',
                        Enumerable.Range(0, 60).Select(n => $"qzx{(char)('a' + (n % 26))}{(char)('a' + i % 26)}")
                    ),
                    [],
                    gone.Token
                );
            }
            catch (OperationCanceledException)
            {
                // Gone half-way, as it was meant to be.
            }

            (await speller.CheckAsync("en_GB", $"harbour window morning {Guid.NewGuid():N}", [], Cancel))!
                .Select(f => f.Found)
                .ShouldNotContain("harbour");
            (await speller.CheckAsync("en_GB", "marmalaid", [], Cancel))!.ShouldHaveSingleItem();
        }
    }

    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    [InlineData("Origin", "http://elsewhere.example")]
    [InlineData("Origin", "null")]
    public async Task A_change_asked_for_by_another_site_is_refused_also_without_a_body(string header, string value)
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/albums/{album.Id}/imports");
        request.Headers.TryAddWithoutValidation(header, value);
        (await host.Client.SendAsync(request, Cancel)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var own = new HttpRequestMessage(HttpMethod.Post, $"/api/albums/{album.Id}/imports");
        own.Headers.TryAddWithoutValidation("Sec-Fetch-Site", "same-origin");
        own.Headers.TryAddWithoutValidation("Origin", host.Client.BaseAddress!.ToString().TrimEnd('/'));
        (await host.Client.SendAsync(own, Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Every_answer_has_the_security_headers_also_one_made_from_an_exception()
    {
        await using var host = await TestHost.StartAsync();
        foreach (var url in new[] { "/", "/api/albums", $"/api/albums/{Guid.NewGuid()}", "/api/nothing", "/healthz" })
        {
            var response = await host.Client.GetAsync(url, Cancel);
            var policy = response.Headers.GetValues("Content-Security-Policy").Single();
            policy.ShouldContain("form-action 'self'");
            policy.ShouldContain("base-uri 'self'");
            policy.ShouldContain("frame-ancestors 'none'");
            response.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
        }
    }

    [Fact]
    public async Task A_host_name_that_is_not_this_servers_is_not_answered()
    {
        await using var host = await TestHost.StartAsync();
        foreach (var (name, status) in new[] { ("localhost", 200), ("127.0.0.1", 200), ("albums.example.org", 400) })
        {
            // A page of another site whose name was made to point here (DNS rebinding) asks under its own name.
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/albums");
            request.Headers.Host = name;
            var response = await host.Client.SendAsync(request, Cancel);
            ((int)response.StatusCode).ShouldBe(status, name);
        }
    }

    [Fact]
    public async Task A_stored_document_with_a_name_that_is_not_known_is_refused_and_stays_as_it_is()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var unit = album.Units[0].Id;
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        await db.Database.ExecuteSqlAsync(
            $"UPDATE \"Units\" SET \"Content\" = jsonb_set(\"Content\", '{{invented}}', '1') WHERE \"Id\" = {unit}",
            Cancel
        );
        var response = await host.Client.GetAsync($"/api/units/{unit}", Cancel);
        ((int)response.StatusCode).ShouldBe(422);
        (await response.Content.ReadAsStringAsync(Cancel)).ShouldContain("another version");
        (await db.Units.Where(u => u.Id == unit).Select(u => u.Content).SingleAsync(Cancel)).ShouldContain("invented");
    }

    [Fact]
    public async Task Opening_a_unit_reads_no_documents_of_edits_that_were_undone()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        for (var i = 0; i < 3; i++)
        {
            var grown = await host.EditAlbumAsync(
                album.Id,
                new GrowAlbum(1, AtEnd: true) { Revision = TestHost.Latest }
            );
            await host.PostAsync<StepAnswer>($"/api/edits/{grown.EditId}/undo", new { });
        }

        await using var scope = host.Services.CreateAsyncScope();
        var log = new List<string>();
        var options = new DbContextOptionsBuilder<ZestyContext>(
            scope.ServiceProvider.GetRequiredService<DbContextOptions<ZestyContext>>()
        ).LogTo(log.Add, [Microsoft.EntityFrameworkCore.Diagnostics.RelationalEventId.CommandExecuted]);
        await using var db = new ZestyContext(options.Options);
        var unit = await db.Units.SingleAsync(u => u.Id == album.Units[0].Id, Cancel);
        log.Clear();
        var next = await new Storage.Editing.History(db, SystemClock.Instance).NextAsync(unit, Cancel);
        next.Redo.ShouldNotBeNull();
        log.ShouldNotBeEmpty();
        log.ShouldAllBe(sql =>
            !sql.Contains("\"Before\"", StringComparison.Ordinal)
            && !sql.Contains("\"After\"", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task A_story_whose_card_moves_to_a_pocket_of_another_size_is_set_anew()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var unit = await host.OpenAsync(album.Units[0].Id);
        var story = await host.EditStoriesAsync(
            album.Id,
            new NewStory(
                string.Join(' ', Enumerable.Repeat("We walked along the river.", 16)),
                "River",
                [unit.FirstDay]
            )
        );
        await host.EditStoriesAsync(
            album.Id,
            new SetStoryOnCards(story.StoryId!.Value, 1) { UnitId = unit.Id, Revision = unit.Revision }
        );
        unit = await host.OpenAsync(unit.Id);
        var card = unit.LooseCards.Single(c => c.StoryId == story.StoryId);
        var pockets = unit.Faces.SelectMany(f => f.Pockets.Select(p => (Face: f, Pocket: p))).ToList();
        var (large, small) = (pockets.First(p => p.Pocket.Size == "6x4"), pockets.First(p => p.Pocket.Size == "3x4"));
        var sizes = new List<double>();
        foreach (var (face, pocket) in new[] { small, large, small })
        {
            unit = await host.EditAsync(
                unit,
                new MovePiece(PieceId: card.Id, Place: new PocketPlace(face.LeafId, face.Side, pocket.Key))
                {
                    Revision = 0,
                }
            );
            sizes.Add(unit.Faces.SelectMany(f => f.Pockets).Single(p => p.Piece?.Id == card.Id).Piece!.Fit!.SizePt);
        }

        sizes[1].ShouldBeGreaterThan(sizes[0]);
        sizes[2].ShouldBe(sizes[0]);
    }

    [Fact]
    public async Task Twelve_pictures_painted_at_once_do_not_wait_for_each_other_for_ever()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var urls = new List<string>();
        for (var week = 0; week < 4; week++)
        {
            for (var i = 0; i < 4; i++)
            {
                await host.AddAsync(
                    album.Id,
                    $"{week}-{i}.jpg",
                    Pictures.Jpeg(900 + i, 600 + week, $"2026:05:{5 + (7 * week):00} 12:00:00")
                );
            }

            var unit = await host.EditAsync(
                await host.OpenAsync(album.Units[week].Id),
                new FillSpread { Revision = 0 }
            );
            urls.AddRange([
                $"/api/units/{unit.Id}/spread.png",
                $"/api/units/{unit.Id}/spread.pdf",
                $"/api/units/{unit.Id}/sheets/1?paper=letter&margin=5 mm&gap=0",
            ]);
        }

        var answers = await Task.WhenAll(urls.Select(url => Task.Run(() => host.Client.GetAsync(url, Cancel))))
            .WaitAsync(TimeSpan.FromMinutes(1), Cancel);
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
    }

    [Fact]
    public async Task Names_show_what_would_turn_them_round_and_accents_are_one_character()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var outcome = await host.AddAsync(album.Id, "photo\u202Egpj.jpg", Pictures.Jpeg());
        outcome.FileName.ShouldBe("photo␣gpj.jpg");
        var unit = await host.EditAsync(
            await host.OpenAsync(album.Units[0].Id),
            new AddCard(CardKind: CardKind.Journaling, Words: "cafe\u0301") { Revision = 0 }
        );
        unit.LooseCards.Single(c => c.CardKind == CardKind.Journaling).Words.ShouldBe("caf\u00E9");
    }

    [Fact]
    public async Task An_outbox_with_a_dangling_link_and_a_pipe_gives_what_can_be_read()
    {
        await using var host = await TestHost.StartAsync();
        var outbox = Path.Combine(host.DataFolder, "outbox");
        Directory.CreateDirectory(outbox);
        File.CreateSymbolicLink(Path.Combine(outbox, "gone.jpg"), "/nowhere/at/all.jpg");
        using (var pipe = System.Diagnostics.Process.Start("mkfifo", Path.Combine(outbox, "pipe.jpg")))
        {
            await pipe.WaitForExitAsync(Cancel);
        }

        await File.WriteAllBytesAsync(Path.Combine(outbox, "good.jpg"), Pictures.Jpeg(), Cancel);
        File.SetLastWriteTimeUtc(Path.Combine(outbox, "good.jpg"), DateTime.UtcNow.AddMinutes(-1));
        (await host.GetAsync<Importing.OutboxView>("/api/outbox")).Files.ShouldBe(1);
        var album = await host.MakeAlbumAsync();
        (await host.PostAsync<Importing.ImportView>($"/api/albums/{album.Id}/imports/outbox", new { })).Files.ShouldBe(
            1
        );
    }

    private static async Task<StoriesArrived> ImportStoriesAsync(TestHost host, AlbumView album, string file)
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(file));
        content.Headers.ContentType = new("application/octet-stream");
        var response = await host.Client.PostAsync(
            $"/api/albums/{album.Id}/stories/file?name=diary.md",
            content,
            Cancel
        );
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<StoriesArrived>(TestHost.Json, Cancel))!;
    }
}
