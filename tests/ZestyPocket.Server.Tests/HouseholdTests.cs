using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Keeping.Books;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.Tests.Fuzzing;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>A household's server: who has no account gets nothing, and nobody gets what is another keeper's.</summary>
public sealed class HouseholdTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task On_one_machine_nobody_signs_in_and_nobody_can()
    {
        await using var host = await TestHost.StartAsync();
        (await host.GetAsync<MeView>("/api/me")).State.ShouldBe(SignInState.NotNeeded);
        await host.RefusedAsync(422, HttpMethod.Post, "/api/sign-in", new SignInRequest("Ada", Password));
        await host.RefusedAsync(422, HttpMethod.Post, "/api/account-links", new { });
        (await host.MakeAlbumAsync()).Name.ShouldBe("Test year");
    }

    [Fact]
    public async Task The_first_account_has_the_albums_of_the_machine_and_its_link_works_once()
    {
        await using var host = await TestHost.HouseholdAsync();
        (await host.GetAsync<MeView>("/api/me")).State.ShouldBe(SignInState.SetUp);
        var secret = await FirstSecretAsync(host);
        await host.RefusedAsync(422, HttpMethod.Post, "/api/accounts", new NewAccountRequest(secret, "Ada", "short"));
        await host.RefusedAsync(422, HttpMethod.Post, "/api/accounts", new NewAccountRequest("guess", "Ada", Password));
        // Six at once: one account.
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(i =>
                    SendAsync(host.Browser(), "/api/accounts", new NewAccountRequest(secret, $"Ada {i}", Password))
                )
        );
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        var name = (
            await answers.Single(a => a.IsSuccessStatusCode).Content.ReadFromJsonAsync<MeView>(TestHost.Json, Cancel)
        )!.Name!;
        (await host.GetAsync<MeView>("/api/me")).State.ShouldBe(SignInState.Needed);

        var client = host.Browser();
        (await SendAsync(client, "/api/sign-in", new SignInRequest(name, Password))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        var ada = host.As(client);
        await ada.MakeAlbumAsync();
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        (await db.Albums.Select(a => a.KeeperId).SingleAsync(Cancel)).ShouldBe(Keeper.LocalId);
    }

    [Fact]
    public async Task A_wrong_name_and_a_wrong_password_are_refused_alike_and_many_tries_are_stopped()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var client = host.Browser();
        var said = new List<string>();
        foreach (var (name, password) in new[] { ("Nobody", Password), ("Ada", "not this one at all") })
        {
            var answer = await SendAsync(client, "/api/sign-in", new SignInRequest(name, password));
            ((int)answer.StatusCode).ShouldBe(422);
            answer.Headers.Contains("Set-Cookie").ShouldBeFalse();
            said.Add(JsonNode.Parse(await answer.Content.ReadAsStringAsync(Cancel))!["detail"]!.GetValue<string>());
        }

        said.Distinct().ShouldHaveSingleItem();
        var statuses = new List<int>();
        for (var i = 0; i < 25; i++)
        {
            var answer = await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", $"wrong password {i}"));
            statuses.Add((int)answer.StatusCode);
        }

        statuses[^1].ShouldBe(429);
        var account = await ada.GetAsync<AccountView>("/api/account");
        account.SignIns.ShouldContain(s => s.What == "locked for five minutes" && !s.Succeeded);
        account.SignIns.ShouldContain(s => s.What == "account made" && s.Succeeded);
    }

    private static string SessionOf(HttpResponseMessage answer) =>
        answer
            .Headers.GetValues("Set-Cookie")
            .Single(c => c.StartsWith("zesty-session=", StringComparison.Ordinal))
            .Split(';')[0];

    [Fact]
    public async Task Wrong_passwords_from_elsewhere_lock_nobody_out_who_signed_in_here_before()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var known = host.Browser();
        (await SendAsync(known, "/api/sign-in", new SignInRequest("Ada", Password))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        await SendAsync(known, "/api/sign-out", new { });
        for (var i = 0; i < PasswordTries.Most; i++)
        {
            await SendAsync(host.Browser(), "/api/sign-in", new SignInRequest("Ada", $"wrong password {i}"));
        }

        // Here and there are one address in this test: what tells them apart is that one signed in before.
        (
            (int)(await SendAsync(host.Browser(), "/api/sign-in", new SignInRequest("Ada", Password))).StatusCode
        ).ShouldBe(422);
        (await SendAsync(known, "/api/sign-in", new SignInRequest("Ada", Password))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
    }

    [Fact]
    public async Task Twelve_wrong_passwords_at_once_are_twelve()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(i => SendAsync(host.Browser(), "/api/sign-in", new SignInRequest("Ada", $"wrong password {i}")))
        );
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.UnprocessableEntity);
        var wrong = (await ada.GetAsync<AccountView>("/api/account")).SignIns.Where(s => !s.Succeeded).ToList();
        wrong.Count.ShouldBe(12);
        wrong.ShouldContain(s => s.What == "locked for five minutes");
    }

    [Fact]
    public async Task Signing_out_ends_the_session_for_every_copy_of_its_cookie_and_for_no_other()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var (here, elsewhere) = (host.Browser(), host.Browser());
        var answer = await SendAsync(here, "/api/sign-in", new SignInRequest("Ada", Password));
        await SendAsync(elsewhere, "/api/sign-in", new SignInRequest("Ada", Password));
        var cookie = SessionOf(answer);
        (await CopiedAsync()).ShouldBe(HttpStatusCode.OK);
        await SendAsync(here, "/api/sign-out", new { });
        (await CopiedAsync()).ShouldBe(HttpStatusCode.Unauthorized);
        (await elsewhere.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );

        async Task<HttpStatusCode> CopiedAsync()
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/albums");
            request.Headers.Add("Cookie", cookie);
            return (await host.Browser().SendAsync(request, Cancel)).StatusCode;
        }
    }

    [Fact]
    public async Task New_recovery_codes_ask_for_the_password_and_a_charset_that_is_none_is_refused()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var refused = await ada.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/account/recovery-codes",
            new MakeCodesRequest("not this one")
        );
        refused["detail"]!.GetValue<string>().ShouldContain("No codes were made");
        using var body = new StringContent("{}");
        body.Headers.TryAddWithoutValidation("Content-Type", "application/json; charset=nope");
        body.Headers.Remove("Content-Type");
        body.Headers.TryAddWithoutValidation("Content-Type", "application/json; charset=nope");
        (
            (int)(await ada.Client.PostAsync(new Uri("/api/backups", UriKind.Relative), body, Cancel)).StatusCode
        ).ShouldBe(415);
    }

    [Fact]
    public async Task An_account_whose_name_looks_like_another_one_is_not_made()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        foreach (var name in new[] { "Аda", "A\u200Bda", "ada ", "ＡＤＡ" })
        {
            var link = await ada.PostAsync<AccountLinkView>("/api/account-links", new { });
            (
                (int)
                    (
                        await SendAsync(
                            host.Browser(),
                            "/api/accounts",
                            new NewAccountRequest(SecretOf(link.Path), name, Password)
                        )
                    ).StatusCode
            ).ShouldBe(422, name);
        }
    }

    [Fact]
    public async Task A_session_is_a_cookie_no_script_reads_and_no_other_site_sends_and_ends_everywhere_at_once()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var answer = await SendAsync(host.Browser(), "/api/sign-in", new SignInRequest("Ada", Password));
        // The session, and that this browser signed in before.
        answer.Headers.GetValues("Set-Cookie").Count().ShouldBe(2);
        foreach (var cookie in answer.Headers.GetValues("Set-Cookie"))
        {
            cookie.ShouldContain("httponly", Case.Insensitive);
            cookie.ShouldContain("samesite=strict", Case.Insensitive);
        }

        var (here, there) = (host.Browser(), host.Browser());
        foreach (var client in new[] { here, there })
        {
            await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", Password));
            (await client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
        }

        await SendAsync(here, "/api/sign-out-everywhere", new { });
        foreach (var client in new[] { here, there })
        {
            var refused = await client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel);
            refused.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            refused.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        }
    }

    [Fact]
    public async Task A_session_that_somebody_chose_beforehand_is_no_session_and_signing_in_gives_another_one()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var client = host.Browser();
        client.DefaultRequestHeaders.Add("Cookie", "zesty-session=chosen-by-somebody-else");
        (await client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        var given = new HashSet<string>();
        for (var i = 0; i < 2; i++)
        {
            var answer = await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", Password));
            given.Add(SessionOf(answer));
        }

        given.Count.ShouldBe(2);
        given.ShouldNotContain("zesty-session=chosen-by-somebody-else");
    }

    [Fact]
    public async Task Whoever_says_that_they_ask_for_others_is_counted_as_one_unless_the_proxy_is_trusted()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var statuses = new List<int>();
        for (var i = 0; i < 25; i++)
        {
            var client = host.Browser();
            client.DefaultRequestHeaders.Add("X-Forwarded-For", $"192.0.2.{i}");
            var answer = await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", $"wrong password {i}"));
            statuses.Add((int)answer.StatusCode);
        }

        statuses[^1].ShouldBe(429);
    }

    [Fact]
    public async Task A_name_that_is_none_takes_as_long_to_refuse_as_a_wrong_password()
    {
        await using var host = await TestHost.HouseholdAsync();
        await TwoAsync(host);
        var client = host.Browser();
        var (known, unknown) = (await TimeAsync("Ada"), await TimeAsync("Nobody at all"));
        // Without the work of a hash a refusal takes a fiftieth of the time; the rest is the noise of the machine.
        (unknown / known).ShouldBeGreaterThan(0.2);
        (unknown / known).ShouldBeLessThan(5);

        async Task<double> TimeAsync(string name)
        {
            var times = new List<double>();
            for (var i = 0; i < 5; i++)
            {
                var watch = System.Diagnostics.Stopwatch.StartNew();
                await SendAsync(client, "/api/sign-in", new SignInRequest(name, $"wrong password {i}"));
                times.Add(watch.Elapsed.TotalMilliseconds);
            }

            return times.Order().ElementAt(2);
        }
    }

    [Fact]
    public async Task The_operators_page_is_for_the_first_account_and_tells_of_refused_sign_ins()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        await SendAsync(host.Browser(), "/api/sign-in", new SignInRequest("Ada", "not this one at all"));
        var seen = await ada.GetAsync<OperationsView>("/api/operations");
        seen.RefusedSignIns.ShouldContain(r => r.What == "wrong password" && r.Times == 1);
        (seen.Accounts, seen.DiskFree > 0, seen.Database > 0).ShouldBe((2, true, true));
        seen.Queues.Select(q => q.Name).ShouldBe(["imports", "prints", "searches"]);
        (await ben.Client.GetAsync(new Uri("/api/operations", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await ada.GetAsync<AccountView>("/api/account")).IsOperator.ShouldBeTrue();
        (await ben.GetAsync<AccountView>("/api/account")).IsOperator.ShouldBeFalse();
    }

    [Fact]
    public async Task It_is_live_without_asking_anybody_and_ready_with_its_database()
    {
        await using var host = await TestHost.HouseholdAsync();
        foreach (var path in new[] { "/livez", "/healthz" })
        {
            (await host.Browser().GetAsync(new Uri(path, UriKind.Relative), Cancel)).StatusCode.ShouldBe(
                HttpStatusCode.OK,
                path
            );
        }
    }

    [Fact]
    public async Task A_recovery_code_sets_the_password_once_ends_every_session_and_new_codes_end_the_old_ones()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var old = await ada.PostAsync<RecoveryCodesView>("/api/account/recovery-codes", new MakeCodesRequest(Password));
        var codes = (
            await ada.PostAsync<RecoveryCodesView>("/api/account/recovery-codes", new MakeCodesRequest(Password))
        ).Codes;
        codes.Distinct().Count().ShouldBe(8);
        codes.ShouldAllBe(c => c.Length == 19);
        const string wanted = "another plum for the boat";
        foreach (
            var (name, code, password) in new[]
            {
                ("Ada", old.Codes[0], wanted),
                ("Nobody", codes[0], wanted),
                ("Ben", codes[0], wanted),
                ("Ada", "", wanted),
                ("Ada", codes[0], "short"),
            }
        )
        {
            var refused = await SendAsync(host.Browser(), "/api/recover", new RecoverRequest(name, code, password));
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, name);
        }

        var six = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    SendAsync(
                        host.Browser(),
                        "/api/recover",
                        new RecoverRequest("Ada", codes[0].ToUpperInvariant(), wanted)
                    )
                )
        );
        six.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        (await ada.Client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        var client = host.Browser();
        (await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", wanted))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (await host.As(client).GetAsync<AccountView>("/api/account")).RecoveryCodes.ShouldBe(7);
    }

    [Fact]
    public async Task Another_password_ends_the_other_sessions_and_not_this_one()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var there = host.Browser();
        await SendAsync(there, "/api/sign-in", new SignInRequest("Ada", Password));
        await ada.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/account/password",
            new PasswordRequest("not the old one", "a longer one for the boat")
        );
        await SendAsync(
            ada.Client,
            "/api/account/password",
            new PasswordRequest(Password, "a longer one for the boat")
        );
        (await ada.Client.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (await there.GetAsync(new Uri("/api/albums", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
    }

    [Fact]
    public async Task Whoever_does_not_sign_in_gets_nothing_of_any_operation()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var calls = await CallsAsync(host, await FuzzTests.FurnishAsync(ada), seed: 3);
        var nobody = host.Browser();
        foreach (var operation in calls.Operations.Where(o => o.Needs != "nobody"))
        {
            var call = calls.Next(operation);
            var answer = await AnswerAsync(nobody, call);
            // An address that is no address at all is refused before anybody looks who asks.
            ((int)answer.StatusCode).ShouldBeOneOf([401, 400, 404], call.ToString());
            if ((int)answer.StatusCode != 401)
            {
                (await AnswerAsync(ada.Client, call)).StatusCode.ShouldBe(answer.StatusCode, call.ToString());
            }
        }
    }

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Another_keeper_gets_and_changes_nothing_of_any_operation()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var ids = await FuzzTests.FurnishAsync(ada);
        await ada.PostAsync<StashAnswer>(
            "/api/stash/edits",
            new AddToStash([new StashEntry(StashKind.Card, "Adas Zwetschgen")])
        );
        var before = await SeenAsync(ada, ids["albums"][0]);
        var leaks = new List<string>();
        for (var round = 0; round < Thorough.Of(20, 4); round++)
        {
            var calls = await CallsAsync(host, ids, seed: 100 + round);
            foreach (var operation in calls.Operations.Where(o => o.Id is not ("signOut" or "signOutEverywhere")))
            {
                var call = calls.Next(operation);
                var answer = await AnswerAsync(ben.Client, call);
                var text = await answer.Content.ReadAsStringAsync(Cancel);
                var named = call.Url.Split('?')[0].Split('/').Any(p => Guid.TryParse(p, out var id) && Owned(ids, id));
                if ((named && answer.IsSuccessStatusCode) || text.Contains("Zwetschgen", StringComparison.Ordinal))
                {
                    leaks.Add($"{(int)answer.StatusCode} {call}");
                }
            }
        }

        leaks.ShouldBeEmpty();
        (await SeenAsync(ada, ids["albums"][0])).ShouldBe(before);
        await using var scope = host.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
        var album = ids["albums"][0];
        (await db.PrintJobs.CountAsync(j => j.AlbumId == album, Cancel)).ShouldBe(0);
        (await db.LabOrders.CountAsync(j => j.AlbumId == album, Cancel)).ShouldBe(0);
        (await db.Books.CountAsync(j => j.AlbumId == album, Cancel)).ShouldBe(0);
        (await db.Backups.CountAsync(b => b.AlbumIds.Contains(album), Cancel)).ShouldBe(0);
        (await db.Edits.CountAsync(e => e.AlbumId == album && e.KeeperId != Keeper.LocalId, Cancel)).ShouldBe(0);
    }

    [Fact]
    public async Task A_job_works_for_the_keeper_who_asked_for_it()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (_, ben) = await TwoAsync(host);
        var album = await ben.MakeAlbumAsync();
        var asked = await ben.PostAsync<BookView>(
            $"/api/albums/{album.Id}/books",
            new BookRequest("one", BookForm.Pages, true, [album.Units[0].Id])
        );
        await using (var scope = host.Services.CreateAsyncScope())
        {
            await scope.ServiceProvider.GetRequiredService<BookRunner>().RunAsync(asked.Id, Cancel);
        }

        var done = await ben.GetAsync<BookView>($"/api/books/{asked.Id}");
        (done.State, done.Problem).ShouldBe((JobState.Done, null));
    }

    /// <summary>What its keeper sees of an album.</summary>
    private static async Task<string> SeenAsync(TestHost host, Guid album)
    {
        var seen = new List<string>();
        foreach (
            var path in new[] { "/api/albums", $"/api/albums/{album}", $"/api/albums/{album}/leaves", "/api/stash" }
        )
        {
            seen.Add(await host.Client.GetStringAsync(new Uri(path, UriKind.Relative), Cancel));
        }

        foreach (var unit in (await host.GetAsync<AlbumView>($"/api/albums/{album}")).Units)
        {
            seen.Add(await host.Client.GetStringAsync(new Uri($"/api/units/{unit.Id}", UriKind.Relative), Cancel));
        }

        return string.Join('\n', seen);
    }
}
