using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using NetVips;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Server.Keeping.Stash;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>The stash as its room asks for it: taken in, reserved, used, matched, undone.</summary>
public sealed class StashTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static Task<StashAnswer> EditAsync(TestHost host, StashEdit edit) =>
        host.PostAsync<StashAnswer>("/api/stash/edits", edit);

    private static Task<StashView> StashAsync(TestHost host, string query = "") =>
        host.GetAsync<StashView>($"/api/stash?text={query}");

    private static async Task<StashItemView> AddAsync(TestHost host, StashEntry entry) =>
        (await EditAsync(host, new AddToStash([entry]))).Items.Single();

    private static Task<HttpResponseMessage> SendAsync(TestHost host, string url, byte[] bytes)
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new("application/octet-stream");
        return host.Client.PostAsync(new Uri(url, UriKind.Relative), content, Cancel);
    }

    private static async Task<T> SentAsync<T>(TestHost host, string url, byte[] bytes)
    {
        var answer = await SendAsync(host, url, bytes);
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        answer.IsSuccessStatusCode.ShouldBeTrue(text);
        return (await answer.Content.ReadFromJsonAsync<T>(TestHost.Json, Cancel))!;
    }

    private static async Task<string> RefusedAsync(TestHost host, string url, byte[] bytes)
    {
        var answer = await SendAsync(host, url, bytes);
        var text = await answer.Content.ReadAsStringAsync(Cancel);
        ((int)answer.StatusCode).ShouldBe(422, text);
        return JsonNode.Parse(text)!["detail"]!.GetValue<string>();
    }

    [Fact]
    public async Task Of_six_that_reserve_the_last_card_at_once_one_has_it_and_undo_gives_it_back()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        var card = await AddAsync(host, new StashEntry(StashKind.Card, "Rain 雨", 1, Size: "3x4", Colours: "teal"));
        var edit = new ReserveFromStash(album.Units[0].Id, [new StashTake(card.Id, card.Revision, 1)]);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(_ =>
                    host.Client.PostAsync(new Uri("/api/stash/edits", UriKind.Relative), TestHost.Written(edit), Cancel)
                )
        );
        answers.Select(a => (int)a.StatusCode).Order().ShouldBe([200, 409, 409, 409, 409, 409]);
        var now = (await StashAsync(host)).Items.Single();
        (now.Count, now.Free).ShouldBe((1, 0));
        now.Claims.Single().Unit.ShouldBe("Week 19, Test year");
        now.Words.ShouldBe("Card · 3 × 4 in · 1 there, 1 reserved");

        var undo = (await StashAsync(host)).Undo!;
        await host.PostAsync<StashAnswer>($"/api/stash/steps/{undo.StepId}/undo", new { });
        (await StashAsync(host)).Items.Single().Free.ShouldBe(1);
        await host.RefusedAsync(422, HttpMethod.Post, $"/api/stash/steps/{undo.StepId}/undo", new { });
        var redo = (await StashAsync(host)).Redo!;
        await host.PostAsync<StashAnswer>($"/api/stash/steps/{redo.StepId}/redo", new { });
        var view = await StashAsync(host);
        view.Items.Single().Free.ShouldBe(0);
        // What was done again can be undone again, and the adding after it.
        await host.PostAsync<StashAnswer>($"/api/stash/steps/{view.Undo!.StepId}/undo", new { });
        await host.PostAsync<StashAnswer>($"/api/stash/steps/{(await StashAsync(host)).Undo!.StepId}/undo", new { });
        (await StashAsync(host)).Items.ShouldBeEmpty();
    }

    [Fact]
    public async Task Nothing_is_taken_for_a_week_that_is_not_there()
    {
        await using var host = await TestHost.StartAsync();
        var card = await AddAsync(host, new StashEntry(StashKind.Card, "Sea", 1));
        var use = new UseFromStash(Guid.NewGuid(), 1) { ItemId = card.Id, Revision = card.Revision };
        var answer = await host.Client.PostAsync(
            new Uri("/api/stash/edits", UriKind.Relative),
            TestHost.Written(use),
            Cancel
        );
        ((int)answer.StatusCode).ShouldBe(404);
        (await StashAsync(host)).Items.Single().Free.ShouldBe(1);
    }

    [Fact]
    public async Task A_table_comes_in_and_goes_out_the_same_and_bad_lines_are_named()
    {
        await using var host = await TestHost.StartAsync();
        const string Table =
            "Name;Kind;Count;Size;Colours;Theme;Kit;Place;Price;Currency\n"
            + "\"Leaf; small\";cards;12;3x4;teal, #f4e9d8;garden;Meadow;blue box;0,45;eur\n"
            + "Dots;papers;3;12x12;;;Meadow;;;\n"
            + ";card;1;;;;;;;\n"
            + "Tape;ribbon;1;;;;;;;\n";
        var taken = await SentAsync<StashAnswer>(host, "/api/stash/file?name=stash.csv", Encoding.UTF8.GetBytes(Table));
        taken.Items.Count.ShouldBe(2);
        taken.Passed.Count.ShouldBe(2);
        taken.Passed[1].ShouldStartWith("Line 5 was passed over: “ribbon” is no kind");
        var written = await host.Client.GetByteArrayAsync(new Uri("/api/stash.csv", UriKind.Relative), Cancel);
        var before = await StashAsync(host);
        before.Kits.Single().ShouldBe(new StashKit("Meadow", 15, 15, 15));
        await host.PostAsync<StashAnswer>($"/api/stash/steps/{taken.StepId}/undo", new { });
        await SentAsync<StashAnswer>(host, "/api/stash/file?name=stash.csv", written);
        (await StashAsync(host)).Items.Select(i => i.Entry).ShouldBe(before.Items.Select(i => i.Entry));
        foreach (var bad in new[] { "", "a,b\n1,2\n", "\0\0\0", "<html>" })
        {
            await RefusedAsync(host, "/api/stash/file?name=bad.csv", Encoding.UTF8.GetBytes(bad));
        }

        (await StashAsync(host)).Total.ShouldBe(2);
    }

    [Fact]
    public async Task Cards_on_one_photo_are_cut_apart_measured_and_added_with_their_colours()
    {
        await using var host = await TestHost.StartAsync();
        var found = await SentAsync<FoundOnPhoto>(host, "/api/stash/photo?name=cards.jpg", Pictures.Cards());
        found.Items.Count.ShouldBe(3);
        // A 3x4, a 6x4 and a 4x4 at one hundred pixels for each inch.
        found.Items.Select(i => i.Entry.Size).ShouldBe(["3x4", "6x4", "4x4"]);
        found.Items[0].Preview.ShouldStartWith("data:image/jpeg;base64,");
        var entries = found.Items.Select((f, i) => f.Entry with { Name = $"Card {i}" }).ToArray();
        var add = new AddToStash([.. entries], found.Upload);
        var added = await EditAsync(host, add);
        added.Items.Select(i => i.ColourNames.Split(',')[0]).ShouldBe(["red", "teal", "light yellow"]);
        var picture = await host.Client.GetByteArrayAsync(new Uri(added.Items[1].Picture!, UriKind.Relative), Cancel);
        using var image = Image.NewFromBuffer(picture);
        ((double)image.Width / image.Height).ShouldBe(1.5, 0.02);

        // The same once more is so many more; the photo is in the vault by now.
        await EditAsync(host, add);
        (await StashAsync(host)).Items.ShouldAllBe(i => i.Count == 2);
        // A hash alone gives nobody a picture.
        var stolen = entries[0] with
        {
            Name = "Stolen",
            Picture = entries[0].Picture! with { Sha256 = Core.Photos.ContentHash.Parse(new string('a', 64)) },
        };
        var refused = await host.Client.PostAsync(
            new Uri("/api/stash/edits", UriKind.Relative),
            TestHost.Written(new AddToStash([stolen], Guid.NewGuid())),
            Cancel
        );
        ((int)refused.StatusCode).ShouldBe(422);
        await RefusedAsync(host, "/api/stash/photo?name=no.jpg", Encoding.UTF8.GetBytes("no picture"));
        await RefusedAsync(host, "/api/stash/photo?name=no.jpg", Pictures.Cards()[..2_000]);
        var empty = await SentAsync<FoundOnPhoto>(host, "/api/stash/photo?name=plain.png", Pictures.Png(300, 400));
        empty.Words.ShouldStartWith("Nothing stands out");
        empty.Items.Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_week_sees_what_goes_with_its_pictures_and_is_planned_from_a_kit()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync();
        await host.AddAsync(album.Id, "a.jpg", Pictures.Jpeg(colourful: true));
        foreach (var (name, colours) in new[] { ("Blue", "#3030c0"), ("Green", "lime"), ("Red", "#e03010") })
        {
            await AddAsync(host, new StashEntry(StashKind.Card, name, 2, Kit: "Sky", Size: "3x4", Colours: colours));
        }

        var week = album.Units[0].Id;
        var seen = await host.GetAsync<UnitStashView>($"/api/units/{week}/stash");
        seen.Colours.ShouldNotBeEmpty();
        seen.Matches.Select(m => m.Item.Name).Last().ShouldBe("Green");
        seen.Matches[0].Reason.ShouldContain("of the pictures");
        var proposed = await host.GetAsync<List<StashProposalView>>($"/api/albums/{album.Id}/use-it-up");
        proposed[0].UnitId.ShouldBe(week);
        var takes = proposed[0].Items.Select(i => new StashTake(i.Item.Id, i.Item.Revision, 1));
        await EditAsync(host, new ReserveFromStash(week, [.. takes]));
        await host.EditAlbumAsync(
            album.Id,
            new PlanSpread(week, "Sky", 2, "Ask for a story") { Revision = TestHost.Latest }
        );
        seen = await host.GetAsync<UnitStashView>($"/api/units/{week}/stash");
        seen.Taken.Count.ShouldBe(proposed[0].Items.Count);
        seen.Plan!.Kit.ShouldBe("Sky");
        seen.Plan.Pockets.ShouldContain($"2 stories, {proposed[0].Items.Count} card");
        (await host.GetAsync<ShoppingView>($"/api/albums/{album.Id}/shopping-list")).Words.ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_thousand_items_are_found_in_a_word()
    {
        await using var host = await TestHost.StartAsync();
        foreach (var part in Enumerable.Range(0, 1_000).Chunk(500))
        {
            await EditAsync(
                host,
                new AddToStash([.. part.Select(i => new StashEntry(StashKind.Card, $"Card {i:0000}", Colours: "teal"))])
            );
        }

        var all = await StashAsync(host);
        (all.Total, all.Items.Count).ShouldBe((1_000, 200));
        (await StashAsync(host, "0999 TEAL")).Items.Single().Name.ShouldBe("Card 0999");
        var two = new AddToStash([
            .. Enumerable.Range(0, 501).Select(i => new StashEntry(StashKind.Card, $"More {i}")),
        ]);
        var refused = await host.Client.PostAsync(
            new Uri("/api/stash/edits", UriKind.Relative),
            TestHost.Written(two),
            Cancel
        );
        ((int)refused.StatusCode).ShouldBe(422);
    }

    [Fact]
    public async Task A_list_with_an_empty_entry_is_refused_as_the_callers_mistake()
    {
        await using var host = await TestHost.StartAsync();
        await host.RefusedAsync(
            400,
            HttpMethod.Post,
            "/api/stash/edits",
            new
            {
                kind = "addToStash",
                entries = new object?[] { null },
                upload = (string?)null,
            }
        );
    }
}
