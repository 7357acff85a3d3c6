using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Albums;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Bench;

/// <summary>
/// Opening full albums of 40, 80 and 160 units with 50, 100 and 200 leaves, every fifth leaf altered: the album with
/// its tape, and the binder with both faces of every leaf. Median of 40 requests each; the opponent is the same server
/// on the smallest album.
/// </summary>
internal static class OpenBench
{
    private static readonly int[] Units = [40, 80, 160];

    public static async Task RunAsync()
    {
        await using var server = await BenchServer.StartAsync();
        var albums = new List<Guid>();
        foreach (var units in Units)
        {
            albums.Add(await FillAsync(server.Connection, units));
        }

        foreach (
            var (name, path) in new[]
            {
                ("the album with its tape", ""),
                ("the binder, both faces of every leaf", "/leaves"),
            }
        )
        {
            var medians = await server.MediansAsync([.. albums.Select(a => new[] { $"/api/albums/{a}{path}" })]);
            Console.WriteLine(
                $"open     {name}: "
                    + string.Join(
                        ", ",
                        Units
                            .Zip(medians)
                            .Select(s => $"{s.First} units: {s.Second:0.0} ms ({s.Second / medians[0]:0.00}x)")
                    )
            );
        }
    }

    private static async Task<Guid> FillAsync(string connection, int units)
    {
        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, connection);
        await using var db = new ZestyContext(builder.Options);
        var calendar = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = new LocalDate(2023, 1, 2) };
        var album = AlbumMaking.Rows(
            new NewAlbum(
                $"{units} units",
                calendar,
                units,
                2,
                [Protector.Unmeasured(BuiltInDesigns.All[0]), Protector.Unmeasured(BuiltInDesigns.All[1])],
                MeasureSystem.Inches
            ),
            Keeper.LocalId,
            SystemClock.Instance.GetCurrentInstant()
        );
        // A leaf between the pages of every fourth unit: 200 leaves for 160 units.
        foreach (var unit in album.Units.Where((_, i) => i % 4 == 1).ToList())
        {
            var after = album.Leaves.Single(l => l.BackUnitId == unit.Id);
            album.Leaves.Insert(
                album.Leaves.IndexOf(after) + 1,
                new AlbumLeaf
                {
                    Id = Guid.CreateVersion7(),
                    ProtectorId = album.Protectors[1].Id,
                    FrontUnitId = unit.Id,
                    BackUnitId = unit.Id,
                }
            );
        }

        for (var i = 0; i < album.Leaves.Count; i++)
        {
            album.Leaves[i].Ordinal = i;
            if (i % 5 == 0)
            {
                album
                    .Leaves[i]
                    .WriteAlterations(
                        LeafAlterations.Plain.With(new Fuse("1.1", Upright: true, Length.FromInches(1.5m)))
                    );
            }
        }

        var makes = album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector());
        foreach (var unit in album.Units)
        {
            var content = UnitContent.Empty;
            foreach (
                var (leaf, side) in album
                    .Leaves.SelectMany(l => new[] { (l, LeafSide.Front), (l, LeafSide.Back) })
                    .Where(f => (f.Item2 == LeafSide.Front ? f.l.FrontUnitId : f.l.BackUnitId) == unit.Id)
            )
            {
                foreach (var pocket in makes[leaf.ProtectorId].Altered(leaf.ReadAlterations()).Design.Face(side))
                {
                    var id = Guid.CreateVersion7();
                    content = content
                        .AddCard(id, CardKind.Journaling, "We planted beans and it rained on them.", "reading-serif")
                        .Put(id, new PocketPlace(leaf.Id, side, pocket.Key));
                }
            }

            unit.Write(content);
        }

        db.Albums.Add(album);
        await db.SaveChangesAsync();
        return album.Id;
    }
}
