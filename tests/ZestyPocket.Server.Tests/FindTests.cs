using System.Net;
using ZestyPocket.Server.Albums;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Finding weeks, photos and stories of an album by what somebody types.</summary>
public sealed class FindTests
{
    [Fact]
    public async Task A_week_is_found_by_its_number_its_name_and_any_date_in_it()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var second = album.Units[1];
        (await FindAsync(host, album.Id, second.Mark))[0].Id.ShouldBe(second.Id);
        (await FindAsync(host, album.Id, second.Title.ToUpperInvariant()))[0].Id.ShouldBe(second.Id);
        var day = second.FirstDay.PlusDays(3);
        foreach (var words in new[] { $"{day:d MMMM}", $"{day:MMMM d}", $"{day:uuuu'-'MM'-'dd}" })
        {
            var found = (await FindAsync(host, album.Id, words)).ShouldHaveSingleItem(words);
            (found.Kind, found.Id).ShouldBe((FoundKind.Unit, second.Id));
        }
    }

    [Fact]
    public async Task Signs_that_a_search_could_take_for_a_pattern_stand_for_themselves()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "100%_sure.jpg", Pictures.Jpeg(shade: 20));
        await host.AddAsync(album.Id, "weir.jpg", Pictures.Jpeg(shade: 60));
        foreach (var words in new[] { "%", "_", "0%_S", "SURE.jpg" })
        {
            (await FindAsync(host, album.Id, words)).ShouldHaveSingleItem(words).Title.ShouldBe("100%_sure.jpg");
        }

        (await FindAsync(host, album.Id, "\\")).ShouldBeEmpty();
        (await FindAsync(host, album.Id, "  ")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_story_is_found_by_its_words_in_any_script_and_leads_to_its_week()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var third = album.Units[2];
        await host.EditStoriesAsync(album.Id, new NewStory("Jam. שלום to the weir.", "Kitchen", [third.FirstDay]));
        await host.EditStoriesAsync(album.Id, new NewStory("Nothing of it", "Elsewhere", []));
        foreach (var words in new[] { "KITCHEN", "the weir", "שלום" })
        {
            var found = (await FindAsync(host, album.Id, words)).ShouldHaveSingleItem(words);
            (found.Kind, found.Title, found.UnitId).ShouldBe((FoundKind.Story, "Kitchen", third.Id));
            found.Note.ShouldBe("Jam. שלום to the weir.");
        }
    }

    [Fact]
    public async Task What_is_too_long_or_of_another_album_is_refused()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        using var tooLong = await host.Client.GetAsync($"/api/albums/{album.Id}/find?words={new string('a', 101)}");
        tooLong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using var nowhere = await host.Client.GetAsync($"/api/albums/{Guid.NewGuid()}/find?words=a");
        nowhere.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static Task<List<FoundView>> FindAsync(TestHost host, Guid album, string words) =>
        host.GetAsync<List<FoundView>>($"/api/albums/{album}/find?words={Uri.EscapeDataString(words)}");
}
