using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>Drawing page designs, the keeper's collection of them, and what albums do with it.</summary>
public sealed class DesignTests
{
    private static Task<DraftView> DraftAsync(TestHost host, DraftRequest request) =>
        host.PostAsync<DraftView>("/api/designs/draft", request);

    private const string Edits = "/api/designs/edits";

    private static Task<DesignEditAnswer> EditAsync(TestHost host, DesignEdit edit) =>
        host.PostAsync<DesignEditAnswer>(Edits, edit);

    [Fact]
    public async Task A_page_is_drawn_by_splits_and_merges_and_kept_for_all_albums()
    {
        await using var host = await TestHost.StartAsync();
        var draft = await DraftAsync(host, new DraftRequest("9x12"));
        (draft.Name, draft.Pockets.Single().Size).ShouldBe(("One full 9x12", "9x12"));
        var thirds = draft.Pockets[0].Splits.Single(s => s is { Upright: false, Parts.Count: 3 });
        draft = await DraftAsync(
            host,
            new DraftRequest(draft.Notation, new DraftSplitRequest("1.1", false, thirds.Parts))
        );
        var row = draft.Pockets[0].Splits.First(s => s.Bought && s.Label == "6x4 | 3x4");
        draft = await DraftAsync(
            host,
            new DraftRequest(draft.Notation, new DraftSplitRequest(draft.Pockets[0].Key, true, row.Parts))
        );
        draft.Notation.ShouldBe("6x4 | 3x4 / 9x4 / 9x4");
        draft = await DraftAsync(host, new DraftRequest(draft.Notation, Merge: ["2.1", "3.1"]));
        draft.Notation.ShouldBe("6x4 | 3x4 / 9x8");

        var kept = (await EditAsync(host, new AddDesign(null, draft.Notation))).Design;
        kept.Design.Name.ShouldBe("One 9x8 + one 6x4 + one 3x4");
        // The same once more is not a second one.
        (await EditAsync(host, new AddDesign(null, draft.Notation))).Design.Id.ShouldBe(kept.Id);
        var album = await host.PostAsync<AlbumView>(
            "/api/albums",
            new MakeAlbumRequest("Own", new LocalDate(2026, 5, 4), 2, [kept.Design.Key], MeasureSystem.Inches)
        );
        album.Units[0].Pockets.ShouldBe(6);

        // Put away while an album uses it: the album keeps it.
        var gone = await EditAsync(host, new DeleteDesign { DesignId = kept.Id, Revision = kept.Revision });
        (await host.GetAsync<List<OwnDesignView>>("/api/designs")).ShouldBeEmpty();
        (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}"))
            .Protectors.Single()
            .DesignName.ShouldBe("One 9x8 + one 6x4 + one 3x4");
        (await host.OpenAsync(album.Units[0].Id)).Faces.ShouldAllBe(f => f.Pockets.Count == 3);
        await host.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/albums",
            new MakeAlbumRequest("Gone", new LocalDate(2026, 5, 4), 2, [kept.Design.Key], MeasureSystem.Inches)
        );
        // From another window that still shows it: both sides are told.
        (
            await host.RefusedAsync(
                409,
                HttpMethod.Post,
                Edits,
                new RenameDesign("Mine") { DesignId = kept.Id, Revision = kept.Revision }
            )
        )["theirs"]!.AsArray()[0]!.GetValue<string>().ShouldBe("“One 9x8 + one 6x4 + one 3x4” was deleted");
        await EditAsync(host, new RestoreDesign { DesignId = kept.Id, Revision = gone.Design.Revision });
        (await host.GetAsync<List<OwnDesignView>>("/api/designs")).ShouldHaveSingleItem();
    }

    [Theory]
    [InlineData("6x4 | 3x3", "character 6")]
    [InlineData("6x4 / 0x4", "more than zero")]
    [InlineData("6x4 | (3x4", "closing bracket")]
    [InlineData("2 1/2x8", "decimals")]
    [InlineData("-3x4", "not a length")]
    public async Task A_notation_that_does_not_tile_is_refused_at_its_place(string notation, string reason)
    {
        await using var host = await TestHost.StartAsync();
        (await host.RefusedAsync(422, HttpMethod.Post, "/api/designs/draft", new DraftRequest(notation)))["detail"]!
            .ToString()
            .ShouldContain(reason);
        await host.RefusedAsync(422, HttpMethod.Post, Edits, new AddDesign("Bad", notation));
    }

    [Fact]
    public async Task A_collection_goes_out_as_a_file_and_comes_back_in_and_bad_lines_are_named()
    {
        await using var host = await TestHost.StartAsync();
        await EditAsync(host, new AddDesign("Mine – für Feste", "6x4 / 6x4"));
        var file = await host.Client.GetStringAsync(new Uri("/api/designs/export", UriKind.Relative));
        file.ShouldContain("zesty-pocket-page-designs");

        await using var other = await TestHost.StartAsync();
        (await other.PostAsync<ImportedDesigns>("/api/designs/import", new ImportDesignsRequest(file))).Kept.ShouldBe([
            "Mine – für Feste",
        ]);
        (await other.GetAsync<List<OwnDesignView>>("/api/designs")).Single().Notation.ShouldBe("6x4 / 6x4");

        var imported = await other.PostAsync<ImportedDesigns>(
            "/api/designs/import",
            new ImportDesignsRequest("# my pages\nStrips: 3x8 | 3x8\nBroken: 3x4 | 3x5\n\n4x6\n")
        );
        imported.Kept.ShouldBe(["Strips", "One full 4x6"]);
        imported.Refused.Single().ShouldStartWith("Broken: The page design does not work at character");
        await other.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/designs/import",
            new ImportDesignsRequest("{ \"format\": \"another\" }")
        );
        await other.RefusedAsync(422, HttpMethod.Post, "/api/designs/import", new ImportDesignsRequest("{ broken"));
        await other.RefusedAsync(422, HttpMethod.Post, "/api/designs/import", new ImportDesignsRequest(""));
        (await other.GetAsync<List<OwnDesignView>>("/api/designs")).Count.ShouldBe(3);
    }

    [Fact]
    public async Task A_smaller_page_is_an_insert_of_the_album()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-nine-3x4");
        await host.EditAlbumAsync(
            album.Id,
            new AddNewLeaf(new LeafMake(LeafKind.Pockets, "6x8-two-6x4"))
            {
                UnitId = album.Units[0].Id,
                Revision = TestHost.Latest,
            }
        );
        var insert = (await host.OpenAsync(album.Units[0].Id)).Faces[1];
        insert.Note!.ShouldContain("hides 6 3/4 × 8 1/4 in of the page behind");
        // It does not take part in the choice of whole pages.
        var count = await host.GetAsync<CountView>($"/api/units/{album.Units[0].Id}/count");
        count.Ways.ShouldNotContain(m =>
            m.Label.Contains("6x4", StringComparison.Ordinal) && m.Kind == WayKind.AddLeaf
        );
    }
}
