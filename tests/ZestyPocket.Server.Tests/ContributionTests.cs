using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using NodaTime;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Importing;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage.Sharing;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Other people's words: each answers by a link of their own and sees nothing else; a yes makes a story. Common
/// practice of gathering a family's words; no source.
/// </summary>
public sealed class ContributionTests
{
    private static readonly LocalDate Monday = new(2026, 5, 4);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static AskForWords About(params string[] people) =>
        new([.. people.Select(p => new AskedPerson(p))], "What do you remember of that day?", Monday, null, null, 2, 7);

    private static async Task<(TestHost Ada, AlbumView Album)> BeginAsync(TestHost host)
    {
        var (ada, _) = await TwoAsync(host);
        return (ada, await ada.MakeAlbumAsync());
    }

    private static Task<List<ContributorLinkView>> AskAsync(TestHost by, Guid album, AskForWords asked) =>
        by.PostAsync<List<ContributorLinkView>>($"/api/albums/{album}/contributor-links", asked);

    /// <summary>The phone of somebody with a link.</summary>
    private static HttpClient Phone(TestHost host, string path)
    {
        var phone = host.Browser();
        phone.DefaultRequestHeaders.Add("X-Zesty-Link", SecretOf(path));
        return phone;
    }

    private static Task<HttpResponseMessage> WriteAsync(HttpClient phone, string words) =>
        phone.PutAsync(
            new Uri("/api/contribution", UriKind.Relative),
            TestHost.Written(new ContributedWords(words)),
            Cancel
        );

    private static async Task<ContributionView> SeenAsync(HttpClient phone) =>
        (await phone.GetFromJsonAsync<ContributionView>("/api/contribution", TestHost.Json, Cancel))!;

    private static async Task<AskedView> AnswersAsync(TestHost ada, Guid album) =>
        (await ada.GetAsync<List<AskedView>>($"/api/albums/{album}/contributor-links")).Single();

    private static Task<HttpResponseMessage> DecideAsync(TestHost by, Guid album, Guid link, ContributionState state) =>
        SendAsync(by.Client, $"/api/albums/{album}/contributor-links/{link}/decision", new AnswerDecision(state));

    [Fact]
    public async Task A_link_of_an_editor_who_was_sent_away_does_not_hold_any_more()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        await ShareAsync(ada, ben, album.Id, Storage.Sharing.AlbumRole.Editor);
        var link = (await AskAsync(ben, album.Id, About("Oma"))).Single();
        (await SeenAsync(Phone(host, link.Path))).From.ShouldBe("Ben");
        await SendAwayAsync(ada, album.Id);
        ((int)(await WriteAsync(Phone(host, link.Path), "Still here.")).StatusCode).ShouldBe(422);
        using var photo = new ByteArrayContent(Pictures.Jpeg(200, 150));
        photo.Headers.ContentType = new("application/octet-stream");
        var sent = await Phone(host, link.Path)
            .PostAsync(new Uri("/api/contribution/photos?name=a.jpg", UriKind.Relative), photo, Cancel);
        ((int)sent.StatusCode).ShouldBe(422);
    }

    [Fact]
    public async Task One_question_to_three_people_comes_back_side_by_side_and_a_yes_makes_a_story_by_its_author()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, album) = await BeginAsync(host);
        var links = await AskAsync(ada, album.Id, About("Oma", "Ιωάννα", "Otto"));
        var seen = await SeenAsync(Phone(host, links[0].Path));
        (seen.Person, seen.From, seen.Sent, seen.Words).ShouldBe(("Oma", "Ada", false, ""));
        foreach (var (link, words) in links.Zip(["The soup was too hot.", "Η λίμνη ήταν κρύα."]))
        {
            (await WriteAsync(Phone(host, link.Path), words)).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        var asked = await AnswersAsync(ada, album.Id);
        asked.Answers.Select(a => a.Words).ShouldBe(["The soup was too hot.", "Η λίμνη ήταν κρύα.", null]);
        // Nothing is in the album before somebody says yes.
        (await ada.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).ShouldBeEmpty();

        var six = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => DecideAsync(ada, album.Id, links[1].Id, ContributionState.Accepted))
        );
        six.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(1);
        var story = (await ada.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories")).ShouldHaveSingleItem();
        (story.Author, story.Words).ShouldBe(("Ιωάννα", "Η λίμνη ήταν κρύα."));
        story.Days.ShouldBe([Monday]);
        (await SeenAsync(Phone(host, links[1].Path))).Taken.ShouldBeTrue();
        (await WriteAsync(Phone(host, links[1].Path), "Other words.")).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await DecideAsync(ada, album.Id, links[2].Id, ContributionState.Accepted)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "words that were not sent"
        );
    }

    [Fact]
    public async Task A_yes_is_undone_like_any_edit_and_the_words_wait_again_and_a_no_can_be_taken_back()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, album) = await BeginAsync(host);
        var link = (await AskAsync(ada, album.Id, About("Oma")))[0];
        var phone = Phone(host, link.Path);
        await WriteAsync(phone, "The soup was too hot.");
        var yes = await ada.PostAsync<StoryAnswer>(
            $"/api/albums/{album.Id}/contributor-links/{link.Id}/decision",
            new AnswerDecision(ContributionState.Accepted)
        );
        await ada.PostAsync<JsonObject>($"/api/edits/{yes.EditId}/undo", new { });
        (await AnswersAsync(ada, album.Id)).Answers[0].State.ShouldBe(ContributionState.Waiting);
        (await WriteAsync(phone, "The soup was much too hot.")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await DecideAsync(ada, album.Id, link.Id, ContributionState.Declined)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AnswersAsync(ada, album.Id)).Answers[0].State.ShouldBe(ContributionState.Declined);
        (await DecideAsync(ada, album.Id, link.Id, ContributionState.Accepted)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ada.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories"))
            .ShouldHaveSingleItem()
            .Words.ShouldBe("The soup was much too hot.");
    }

    [Fact]
    public async Task Words_for_a_card_stand_on_that_card_and_wait_beside_it_when_it_has_words_by_then()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, album) = await BeginAsync(host);
        var unit = await ada.OpenAsync(album.Units[0].Id);
        unit = await ada.EditAsync(
            unit,
            new AddCard(CardKind: CardKind.Journaling, Words: "") { Revision = unit.Revision }
        );
        var card = unit.LooseCards.Single();
        var asked = About("Oma", "Otto") with { Day = null, UnitId = unit.Id, PieceId = card.Id };
        var links = await AskAsync(ada, album.Id, asked);
        foreach (var link in links)
        {
            await WriteAsync(Phone(host, link.Path), $"Words of {link.Person}.");
            (await DecideAsync(ada, album.Id, link.Id, ContributionState.Accepted)).StatusCode.ShouldBe(
                HttpStatusCode.OK
            );
        }

        unit = await ada.OpenAsync(unit.Id);
        unit.LooseCards.ShouldHaveSingleItem().Words.ShouldBe("Words of Oma.");
        var stories = await ada.GetAsync<List<StoryView>>($"/api/albums/{album.Id}/stories");
        stories.Select(s => s.Author).ShouldBe(["Oma", "Otto"]);
        await ada.RefusedAsync(
            404,
            HttpMethod.Post,
            $"/api/albums/{album.Id}/contributor-links",
            asked with
            {
                PieceId = Guid.CreateVersion7(),
            }
        );
    }

    [Fact]
    public async Task Photos_come_in_up_to_the_limit_also_at_once_and_are_dated_to_the_day_that_was_asked_about()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, album) = await BeginAsync(host);
        var link = (await AskAsync(ada, album.Id, About("Oma")))[0];
        var phone = Phone(host, link.Path);
        (await SendPhotoAsync(phone, "notes.jpg", "no picture"u8.ToArray())).Added.ShouldBeFalse();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(i =>
                    phone.PostAsync(
                        new Uri($"/api/contribution/photos?name=lake-{i}.jpg", UriKind.Relative),
                        new ByteArrayContent(Pictures.Jpeg(800, 600, null, shade: 20 * i))
                        {
                            Headers = { ContentType = new("application/octet-stream") },
                        },
                        Cancel
                    )
                )
        );
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(2);
        answers.Count(a => a.StatusCode == HttpStatusCode.UnprocessableEntity).ShouldBe(4);
        var photos = await ada.GetAsync<PhotoPage>($"/api/albums/{album.Id}/photos");
        photos.Photos.Count.ShouldBe(2);
        photos.Photos.ShouldAllBe(p => p.Day == Monday);
        (await SeenAsync(phone)).Photos.ShouldBe(2);
    }

    private static async Task<ContributedPhoto> SendPhotoAsync(HttpClient phone, string name, byte[] bytes)
    {
        using var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        var answer = await phone.PostAsync(
            new Uri($"/api/contribution/photos?name={name}", UriKind.Relative),
            content,
            Cancel
        );
        return (await answer.Content.ReadFromJsonAsync<ContributedPhoto>(TestHost.Json, Cancel))!;
    }

    [Fact]
    public async Task A_revoked_link_is_dead_at_once_and_what_was_sent_stays()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, album) = await BeginAsync(host);
        var link = (await AskAsync(ada, album.Id, About("Oma")))[0];
        var phone = Phone(host, link.Path);
        await WriteAsync(phone, "The soup was too hot.");
        foreach (var words in new[] { "", "   ", new string('x', 8_001) })
        {
            (await WriteAsync(phone, words)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }

        await ada.Client.DeleteAsync(
            new Uri($"/api/albums/{album.Id}/contributor-links/{link.Id}", UriKind.Relative),
            Cancel
        );
        (await WriteAsync(phone, "Other words.")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await phone.GetAsync(new Uri("/api/contribution", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        var answer = (await AnswersAsync(ada, album.Id)).Answers[0];
        (answer.Words, answer.Holds).ShouldBe(("The soup was too hot.", false));
    }

    [Fact]
    public async Task Guessing_links_is_slowed_down()
    {
        await using var host = await TestHost.HouseholdAsync();
        await BeginAsync(host);
        var statuses = new List<int>();
        for (var i = 0; i < 125; i++)
        {
            var guess = await Phone(host, $"/write#{i}")
                .GetAsync(new Uri("/api/contribution", UriKind.Relative), Cancel);
            statuses.Add((int)guess.StatusCode);
        }

        statuses.Take(120).ShouldAllBe(s => s == 422);
        statuses[^1].ShouldBe(429);
    }
}
