using System.Net;
using System.Net.ServerSentEvents;
using System.Text.Json;
using Npgsql;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Sharing;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>Several people at one album: who is where, what is new, what they say to each other.</summary>
public sealed class CompanyTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>An open line of news; closed with the test.</summary>
    private sealed class Line(HttpResponseMessage answer, IAsyncEnumerator<SseItem<string>> items) : IAsyncDisposable
    {
        public static async Task<Line> OpenAsync(HttpClient client, Guid album)
        {
            var answer = await client.GetAsync(
                new Uri($"/api/albums/{album}/news", UriKind.Relative),
                HttpCompletionOption.ResponseHeadersRead,
                Cancel
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.OK);
            var items = SseParser
                .Create(await answer.Content.ReadAsStreamAsync(Cancel))
                .EnumerateAsync(Cancel)
                .GetAsyncEnumerator(Cancel);
            return new Line(answer, items);
        }

        /// <summary>The next news of a kind; null when the line has ended.</summary>
        public async Task<NewsView?> NextAsync(NewsKind kind)
        {
            while (await items.MoveNextAsync())
            {
                if (
                    items.Current.EventType == "news"
                    && JsonSerializer.Deserialize<NewsView>(items.Current.Data, TestHost.Json) is { } news
                    && news.Kind == kind
                )
                {
                    return news;
                }
            }

            return null;
        }

        public ValueTask DisposeAsync()
        {
            answer.Dispose();
            return ValueTask.CompletedTask;
        }
    }

    [Fact]
    public async Task An_edit_is_heard_at_another_server_with_the_window_that_made_it_and_a_refused_one_by_nobody()
    {
        await using var host = await TestHost.StartAsync();
        await using var second = host.Twin();
        var album = await host.MakeAlbumAsync();
        var unit = await host.OpenAsync(album.Units[0].Id);
        await using var line = await Line.OpenAsync(second.Client, album.Id);
        // Whoever begins to listen is told to look once, since what happened before was heard by nobody.
        await line.NextAsync(NewsKind.LookAgain);
        var window = Guid.NewGuid();
        host.Client.DefaultRequestHeaders.Add("X-Zesty-Window", window.ToString());
        try
        {
            await host.RefusedAsync(
                409,
                HttpMethod.Post,
                $"/api/units/{unit.Id}/edits",
                new AddCard(CardKind.Journaling, "Stale.") { Revision = unit.Revision + 7 }
            );
            await host.EditAsync(unit, new AddCard(CardKind.Journaling, "Heard.") { Revision = unit.Revision });
            var news = await line.NextAsync(NewsKind.Edit);
            news!.Units.ShouldBe([unit.Id]);
            news.Window.ShouldBe(window);
            (await second.OpenAsync(unit.Id)).LooseCards.ShouldHaveSingleItem().Words.ShouldBe("Heard.");
        }
        finally
        {
            host.Client.DefaultRequestHeaders.Remove("X-Zesty-Window");
        }
    }

    /// <summary>All of them ask the database the same at once: whether they may still read. The pool has 20.</summary>
    [Fact]
    public async Task Two_hundred_windows_at_one_album_all_hear_of_an_edit_through_a_few_connections()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var unit = await host.OpenAsync(album.Units[0].Id);
        await using var first = await Line.OpenAsync(host.Client, album.Id);
        await first.NextAsync(NewsKind.LookAgain);
        var lines = await Task.WhenAll(Enumerable.Range(0, 200).Select(_ => Line.OpenAsync(host.Client, album.Id)));
        await host.EditAsync(unit, new AddCard(CardKind.Journaling, "Heard.") { Revision = unit.Revision });
        foreach (var news in await Task.WhenAll(lines.Select(l => l.NextAsync(NewsKind.Edit))))
        {
            news!.Units.ShouldBe([unit.Id]);
        }

        foreach (var line in lines)
        {
            await line.DisposeAsync();
        }
    }

    [Theory]
    [InlineData("Host=127.0.0.1;Database=zesty", Database.Connections)]
    [InlineData("Host=127.0.0.1;Database=zesty;Maximum Pool Size=7", 7)]
    public void A_server_takes_so_many_connections_that_another_has_room_beside_it(string asked, int most) =>
        new NpgsqlConnectionStringBuilder(Database.WithBoundedPool(asked)).MaxPoolSize.ShouldBe(most);

    [Fact]
    public async Task Whoever_is_sent_away_hears_nothing_more()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        await ShareAsync(ada, ben, album.Id, AlbumRole.Reader);
        await using var line = await Line.OpenAsync(ben.Client, album.Id);
        await line.NextAsync(NewsKind.LookAgain);
        var member = (await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing")).Members.Single();
        await ada.Client.DeleteAsync(
            new Uri($"/api/albums/{album.Id}/members/{member.KeeperId}", UriKind.Relative),
            Cancel
        );
        (await line.NextAsync(NewsKind.Edit)).ShouldBeNull();
    }

    [Fact]
    public async Task Each_sees_who_else_is_there_and_at_which_week_until_their_window_closes()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        await ShareAsync(ada, ben, album.Id, AlbumRole.Reader);
        var (mine, his) = (Guid.NewGuid(), Guid.NewGuid());
        (await BeAsync(ada, mine, album.Units[0].Id)).ShouldBeEmpty();
        (await BeAsync(ben, his, album.Units[1].Id)).ShouldBe([new CompanionView("Ada", album.Units[0].Id)]);
        (await BeAsync(ada, mine, null)).ShouldBe([new CompanionView("Ben", album.Units[1].Id)]);
        // With the key of another's window nobody moves it.
        await BeAsync(ben, mine, album.Units[1].Id);
        (await BeAsync(ben, his, album.Units[1].Id)).ShouldBe([new CompanionView("Ada", null)]);
        await ben.Client.DeleteAsync(new Uri($"/api/albums/{album.Id}/presence/{his}", UriKind.Relative), Cancel);
        (await BeAsync(ada, mine, null)).ShouldBeEmpty();

        async Task<List<CompanionView>> BeAsync(TestHost who, Guid window, Guid? unit)
        {
            var answer = await who.Client.PutAsync(
                new Uri($"/api/albums/{album.Id}/presence", UriKind.Relative),
                TestHost.Written(new PresenceRequest(window, unit)),
                Cancel
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.OK);
            return JsonSerializer.Deserialize<List<CompanionView>>(
                await answer.Content.ReadAsStringAsync(Cancel),
                TestHost.Json
            )!;
        }
    }

    [Fact]
    public async Task A_reader_comments_an_editor_marks_it_done_and_only_its_author_and_the_owner_delete_it()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var edo = await AnotherAsync(ada, "Edo");
        var album = await ada.MakeAlbumAsync();
        await ShareAsync(ada, ben, album.Id, AlbumRole.Reader);
        await ShareAsync(ada, edo, album.Id, AlbumRole.Editor);
        var unit = album.Units[0].Id;
        var comment = await ben.PostAsync<CommentView>(
            $"/api/units/{unit}/comments",
            new CommentRequest("Λείπει η γιαγιά.")
        );
        (await ChangeAsync(edo, comment, new CommentChange(Done: true, Deleted: false))).ShouldBe(200);
        (await ChangeAsync(edo, comment, new CommentChange(Done: true, Deleted: true))).ShouldBe(403);
        (await ChangeAsync(ben, comment, new CommentChange(Done: false, Deleted: false))).ShouldBe(200);
        (await ChangeAsync(ada, comment, new CommentChange(Done: false, Deleted: true))).ShouldBe(200);
        (await ListAsync(edo)).ShouldBeEmpty();
        (await ChangeAsync(ada, comment, new CommentChange(Done: false, Deleted: false))).ShouldBe(200);
        var seen = (await ListAsync(edo)).ShouldHaveSingleItem();
        (seen.By, seen.Mine, seen.Words, seen.Done).ShouldBe(("Ben", false, "Λείπει η γιαγιά.", false));
        await ben.RefusedAsync(422, HttpMethod.Post, $"/api/units/{unit}/comments", new CommentRequest(" "));
        await ben.RefusedAsync(
            422,
            HttpMethod.Post,
            $"/api/units/{unit}/comments",
            new CommentRequest(new string('x', 2_001))
        );

        Task<List<CommentView>> ListAsync(TestHost who) =>
            who.GetAsync<List<CommentView>>($"/api/albums/{album.Id}/comments?unitId={unit}");

        async Task<int> ChangeAsync(TestHost who, CommentView of, CommentChange change) =>
            (int)
                (
                    await who.Client.PutAsync(
                        new Uri($"/api/units/{unit}/comments/{of.Id}", UriKind.Relative),
                        TestHost.Written(change),
                        Cancel
                    )
                ).StatusCode;
    }
}
