using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>A pattern that weeks repeat: defined, learnt, applied, and what falls short of it.</summary>
public sealed class FormulaTests
{
    private static async Task AddAsync(TestHost host, AlbumView album, string day, int count)
    {
        for (var i = 0; i < count; i++)
        {
            await host.AddAsync(
                album.Id,
                $"{day[^2..]}-{i:00}.jpg",
                Pictures.Jpeg(1800, 1200, $"{day} 1{i / 10}:0{i % 10}:00", shade: (11 * i) % 255)
            );
        }
    }

    private static Task<AlbumEditAnswer> KeepAsync(TestHost host, Guid album, KeepFormula formula) =>
        host.EditAlbumAsync(album, formula);

    private static async Task<ApplyFormula> OverAsync(TestHost host, AlbumView album, Guid formula, int count)
    {
        var units = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Units.Take(count);
        return new ApplyFormula(formula, [.. units.Select(u => new UnitAt(u.Id, u.Revision))]);
    }

    [Fact]
    public async Task A_formula_is_kept_applied_to_a_stretch_and_says_what_is_missing_and_where_leaves_come_in()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4", "9x12-nine-3x4");
        var (rows, nine) = (album.Protectors[0].Id, album.Protectors[1].Id);
        await host.EditAlbumAsync(
            album.Id,
            new UseProtector(new LeafMake(LeafKind.Sheet)) { Revision = TestHost.Latest }
        );
        var sheet = (await host.GetAsync<AlbumView>($"/api/albums/{album.Id}"))
            .Protectors.Single(p => p.Kind == LeafKind.Sheet)
            .Id;
        await AddAsync(host, album, "2026:05:06", 4);
        await AddAsync(host, album, "2026:05:13", 25);
        var edit = await KeepAsync(
            host,
            album.Id,
            new KeepFormula(null, "Every week", [rows, nine], [sheet], 6, 1, true) { Revision = TestHost.Latest }
        );
        var formula = (await host.GetAsync<List<FormulaView>>($"/api/albums/{album.Id}/formulas")).Single();
        formula.Says.ShouldContain("at least 6 pictures and 1 card of words, with a title card");

        var apply = await OverAsync(host, album, formula.Id, 3);
        var preview = await host.EditAlbumAsync(album.Id, apply, preview: true);
        preview.EditId.ShouldBeNull();
        (await host.OpenAsync(album.Units[0].Id)).Faces.Count.ShouldBe(2);
        var applied = await host.EditAlbumAsync(album.Id, apply);
        var first = await host.OpenAsync(album.Units[0].Id);
        first.Faces.Select(f => f.Kind).ShouldBe([LeafKind.Pockets, LeafKind.Sheet, LeafKind.Sheet, LeafKind.Pockets]);
        // Sizes alternate from week to week: six on the left, nine on the right, then the other way round.
        (first.Faces[0].Pockets.Count, first.Faces[^1].Pockets.Count).ShouldBe((6, 9));
        var second = await host.OpenAsync(album.Units[1].Id);
        // Nine, two sheets and six hold 17 of 25 pictures: a leaf of nine comes in.
        second.Faces.Count.ShouldBe(6);

        var stand = await host.GetAsync<List<FormulaPart>>(
            $"/api/albums/{album.Id}/formulas/stand?from={album.Units[0].Id}&count=3"
        );
        stand
            .Select(s => s.Missing)
            .ShouldBe([
                "two more pictures, one more card of words and the title card by Sunday",
                "one more card of words and the title card by Sunday",
                "six more pictures, one more card of words and the title card by Sunday",
            ]);
        stand.ShouldAllBe(s => s.Formula == "Every week" && s.Beyond.Length == 0);
        await AddAsync(host, album, "2026:05:14", 12);
        (await host.GetAsync<CountView>($"/api/units/{second.Id}/count")).Formula!.Beyond.ShouldBe(
            "two pieces go beyond it and onto a further leaf"
        );

        await host.PostAsync<object>($"/api/edits/{applied.EditId}/undo", new { });
        (await host.OpenAsync(album.Units[0].Id)).Faces.Count.ShouldBe(2);
        (await host.GetAsync<List<FormulaView>>($"/api/albums/{album.Id}/formulas")).Single().Followers.ShouldBe(0);
        await host.PostAsync<object>($"/api/edits/{edit.EditId}/undo", new { });
        (await host.GetAsync<List<FormulaView>>($"/api/albums/{album.Id}/formulas")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_formula_is_learnt_from_a_finished_week()
    {
        await using var host = await TestHost.StartAsync();
        var album = await host.MakeAlbumAsync("9x12-rows-6x4-3x4", "9x12-full");
        await AddAsync(host, album, "2026:05:06", 9);
        var (week, full) = (album.Units[0].Id, album.Protectors[1].Id);
        await host.EditAlbumAsync(album.Id, new AddLeaf(full) { UnitId = week, Revision = TestHost.Latest });
        var unit = await host.EditAsync(
            await host.OpenAsync(week),
            new AddCard(CardKind: CardKind.WeekTitle) { Revision = 0 }
        );
        unit = await host.EditAsync(unit, new AddCard(CardKind: CardKind.Journaling, Words: "Beans.") { Revision = 0 });
        await host.EditAsync(unit, new FillSpread { Revision = 0 });
        var learnt = await host.GetAsync<FormulaView>($"/api/albums/{album.Id}/formulas/learn?unitId={week}");
        (learnt.Pictures, learnt.Words, learnt.Title, learnt.Name).ShouldBe((9, 1, true, "Like Week 19"));
        learnt.Between.ShouldBe([full]);
        // What was learnt can be kept and repeated, and locked pieces stay where they lie.
        await KeepAsync(
            host,
            album.Id,
            new KeepFormula(
                null,
                learnt.Name,
                [.. learnt.Own],
                [.. learnt.Between],
                learnt.Pictures,
                learnt.Words,
                learnt.Title
            )
            {
                Revision = TestHost.Latest,
            }
        );
        var formula = (await host.GetAsync<List<FormulaView>>($"/api/albums/{album.Id}/formulas")).Single();
        await host.EditAlbumAsync(album.Id, await OverAsync(host, album, formula.Id, 4));
        (await host.OpenAsync(album.Units[3].Id)).Faces.Count.ShouldBe(4);
        (await host.OpenAsync(week)).Faces.SelectMany(f => f.Pockets).Count(p => p.Piece is not null).ShouldBe(11);

        var none = new KeepFormula(null, "None", [], [], 0, 0, false) { Revision = TestHost.Latest };
        await host.AlbumEditRefusedAsync(422, album.Id, none);
        await host.AlbumEditRefusedAsync(422, album.Id, none with { Own = [Guid.NewGuid()] });
        await host.AlbumEditRefusedAsync(422, album.Id, await OverAsync(host, album, Guid.NewGuid(), 1));
        await host.EditAlbumAsync(album.Id, new DeleteFormula(formula.Id) { Revision = TestHost.Latest });
        (await host.GetAsync<CountView>($"/api/units/{week}/count")).Formula.ShouldBeNull();
    }
}
