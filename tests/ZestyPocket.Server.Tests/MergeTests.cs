using System.Net;
using System.Text.Json.Nodes;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Two people at one album: what does not touch is merged, what does is told to both, and nobody overwrites words they
/// have not seen.
/// </summary>
public sealed class MergeTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The server as a window of its own sees it.</summary>
    private static TestHost Window(TestHost host)
    {
        var client = host.Browser();
        client.DefaultRequestHeaders.Add("X-Zesty-Window", Guid.NewGuid().ToString());
        return host.As(client);
    }

    private static async Task<(TestHost One, TestHost Two, AlbumView Album, UnitView Unit)> TwoWindowsAsync(
        TestHost host
    )
    {
        var album = await host.MakeAlbumAsync();
        for (var i = 0; i < 2; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{i}.jpg",
                Pictures.Jpeg(800 + i, 600, "2026:05:04 12:00:00", shade: 20 * i)
            );
        }

        return (Window(host), Window(host), album, await host.OpenAsync(album.Units[0].Id));
    }

    [Fact]
    public async Task Two_who_fill_different_pockets_of_one_week_at_once_both_succeed_and_each_is_undone_by_itself()
    {
        await using var host = await TestHost.StartAsync();
        var (one, two, _, unit) = await TwoWindowsAsync(host);
        List<PocketPlace> places = [EditingTests.Place(unit, 0), EditingTests.Place(unit, 1)];
        await one.EditAsync(unit, new PutPhoto(unit.Photos[0].Id, places[0]) { Revision = unit.Revision });
        var merged = await two.EditAsync(unit, new PutPhoto(unit.Photos[1].Id, places[1]) { Revision = unit.Revision });
        merged.Revision.ShouldBe(unit.Revision + 2);
        merged.Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(2);
        var back = await two.StepAsync(merged, "undo");
        back.Faces.SelectMany(f => f.Pockets)
            .Single(p => p.Piece is not null)
            .ShouldBeSameAs(back.Faces.SelectMany(f => f.Pockets).First());
    }

    [Fact]
    public async Task Two_who_fill_the_same_pocket_or_one_who_sends_the_same_edit_twice_are_told_both_sides()
    {
        await using var host = await TestHost.StartAsync();
        var (one, two, _, unit) = await TwoWindowsAsync(host);
        var place = EditingTests.Place(unit, 0);
        var card = new AddCard(CardKind.Journaling, "Mine.") { Revision = unit.Revision };
        await one.EditAsync(unit, new PutPhoto(unit.Photos[0].Id, place) { Revision = unit.Revision });
        var refused = await two.RefusedAsync(
            409,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new PutPhoto(unit.Photos[1].Id, place) { Revision = unit.Revision }
        );
        refused["theirs"]!.AsArray().Select(t => t!.GetValue<string>()).ShouldHaveSingleItem().ShouldContain("0.jpg");
        // Merged once; the same again from the same window may be the one whose answer was lost.
        await two.EditAsync(unit, card);
        await two.RefusedAsync(409, HttpMethod.Post, $"/api/units/{unit.Id}/edits", card);
        (await host.OpenAsync(unit.Id)).LooseCards.Count.ShouldBe(1);
    }

    [Fact]
    public async Task The_title_of_a_story_and_its_words_are_merged_and_two_who_write_its_words_are_told()
    {
        await using var host = await TestHost.StartAsync();
        var (one, two, album, _) = await TwoWindowsAsync(host);
        var id = (await host.EditStoriesAsync(album.Id, new NewStory("We walked."))).StoryId!.Value;
        var seen = (await StoryAsync()).Revision;
        await one.EditStoriesAsync(album.Id, new WriteStory("We ran.") { StoryId = id, Revision = seen });
        await two.EditStoriesAsync(
            album.Id,
            new DescribeStory("The hill", "", "Ada", []) { StoryId = id, Revision = seen }
        );
        var story = await StoryAsync();
        (story.Words, story.Title, story.Author).ShouldBe(("We ran.", "The hill", "Ada"));
        await two.RefusedAsync(
            409,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/stories/edits",
            new WriteStory("We crept.") { StoryId = id, Revision = seen }
        );
        (await StoryAsync()).Words.ShouldBe("We ran.");

        async Task<StoryView> StoryAsync() =>
            (await host.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).Single();
    }

    [Fact]
    public async Task An_edit_on_something_that_was_undone_since_is_told_and_not_merged()
    {
        await using var host = await TestHost.StartAsync();
        var (one, two, _, unit) = await TwoWindowsAsync(host);
        var changed = await one.EditAsync(
            unit,
            new AddCard(CardKind.Journaling, "Theirs.") { Revision = unit.Revision }
        );
        await one.StepAsync(changed, "undo");
        await two.RefusedAsync(
            409,
            HttpMethod.Post,
            $"/api/units/{unit.Id}/edits",
            new AddCard(CardKind.Journaling, "Mine.") { Revision = unit.Revision }
        );
    }

    [Fact]
    public async Task The_name_of_an_album_and_its_cut_off_are_merged()
    {
        await using var host = await TestHost.StartAsync();
        var (one, two, album, _) = await TwoWindowsAsync(host);
        await one.EditAlbumAsync(album.Id, new RenameAlbum("Another name") { Revision = album.Revision });
        await two.EditAlbumAsync(album.Id, new SetCutOff("02:00") { Revision = album.Revision });
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Name.ShouldBe("Another name");
        var calendar = await host.GetAsync<JsonObject>($"/api/albums/{album.Id}/calendar");
        calendar["cutOff"]!.GetValue<string>().ShouldStartWith("02:00");
    }

    /// <summary>
    /// Ten windows write on ten cards of one week, each on the state it saw last, which may be old. Whatever is
    /// accepted must be written on the words its writer saw: otherwise somebody's words were overwritten unseen.
    /// </summary>
    [Trait("Duration", "Long")]
    [Fact]
    public async Task Of_many_interleaved_edits_of_ten_people_none_overwrites_words_its_writer_has_not_seen()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var unit = await host.OpenAsync(album.Units[0].Id);
        for (var i = 0; i < 10; i++)
        {
            unit = await host.EditAsync(unit, new AddCard(CardKind.Journaling, "0") { Revision = unit.Revision });
        }

        var written = new System.Collections.Concurrent.ConcurrentBag<(Guid Card, string Saw, string Wrote)>();
        var (accepted, told) = (0, 0);
        await Task.WhenAll(Enumerable.Range(0, 10).Select(PersonAsync));
        // Of each card the accepted writings are one chain from its first words to its last.
        var last = await host.OpenAsync(unit.Id);
        foreach (var card in last.LooseCards)
        {
            var chain = written.Where(w => w.Card == card.Id).ToDictionary(w => w.Saw, w => w.Wrote);
            var (words, length) = ("0", 0);
            while (chain.TryGetValue(words, out var next))
            {
                (words, length) = (next, length + 1);
            }

            length.ShouldBe(chain.Count);
            words.ShouldBe(card.Words);
        }

        accepted.ShouldBe(written.Count);
        accepted.ShouldBeGreaterThan(Edits / 4);
        told.ShouldBeGreaterThan(0);

        async Task PersonAsync(int person)
        {
            var (window, random, saw) = (Window(host), new Random(person), unit);
            for (var i = 0; i < Edits / 10; i++)
            {
                if (random.Next(3) == 0)
                {
                    saw = await window.OpenAsync(unit.Id);
                }

                var card = saw.LooseCards[random.Next(saw.LooseCards.Count)];
                var wrote = $"{person}-{i}";
                using var content = TestHost.Written(new WriteCard(card.Id, wrote) { Revision = saw.Revision });
                var answer = await window.Client.PostAsync(
                    new Uri($"/api/units/{unit.Id}/edits", UriKind.Relative),
                    content,
                    Cancel
                );
                if (answer.StatusCode == HttpStatusCode.OK)
                {
                    written.Add((card.Id, card.Words!, wrote));
                    Interlocked.Increment(ref accepted);
                    saw = await window.OpenAsync(unit.Id);
                }
                else
                {
                    answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
                    Interlocked.Increment(ref told);
                    saw = await window.OpenAsync(unit.Id);
                }
            }
        }
    }

    private static readonly int Edits = Thorough.Of(10_000, 400);
}
