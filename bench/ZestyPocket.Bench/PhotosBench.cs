using NodaTime;
using Npgsql;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Albums;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Bench;

/// <summary>
/// The first screen of albums with 1,000, 10,000 and 50,000 photos, from a server that is a process of its own: the
/// album with its tape, and the first 500 pictures. Median of 40 requests each, taken in turns. The opponent is the
/// same server on the smallest album.
/// </summary>
internal static class PhotosBench
{
    private static readonly int[] Sizes = [1_000, 10_000, 50_000];

    public static async Task RunAsync()
    {
        await using var server = await BenchServer.StartAsync();
        var albums = new List<Guid>();
        foreach (var size in Sizes)
        {
            albums.Add(await FillAsync(server.Connection, size));
        }

        foreach (
            var (name, paths) in new (string, string[])[]
            {
                ("first screen (album and first 500 pictures)", ["", "/photos?take=500"]),
                ("  of it the album with its tape", [""]),
                ("later: the overview", ["/overview"]),
                ("later: how many pictures", ["/photos/count"]),
                ("later: cameras and their doubts", ["/cameras"]),
            }
        )
        {
            var medians = await server.MediansAsync([
                .. albums.Select(a => paths.Select(p => $"/api/albums/{a}{p}").ToArray()),
            ]);
            Console.WriteLine(
                $"photos   {name}: "
                    + string.Join(
                        ", ",
                        Sizes
                            .Zip(medians)
                            .Select(s => $"{s.First:N0}: {s.Second:0.0} ms ({s.Second / medians[0]:0.00}x)")
                    )
            );
        }
    }

    internal static async Task<Guid> FillAsync(string connection, int photos)
    {
        var builder = new Microsoft.EntityFrameworkCore.DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, connection);
        await using var db = new ZestyContext(builder.Options);
        var calendar = new AlbumCalendar { Kind = AlbumKind.Weekly, FirstDay = new LocalDate(2026, 1, 1) };
        var album = AlbumMaking.Rows(
            new NewAlbum(
                $"{photos} photos",
                calendar,
                53,
                2,
                [Protector.Unmeasured(BuiltInDesigns.All[0])],
                MeasureSystem.Inches
            ),
            Keeper.LocalId,
            SystemClock.Instance.GetCurrentInstant()
        );
        db.Albums.Add(album);
        await db.SaveChangesAsync();
        await using var sql = new NpgsqlConnection(connection);
        await sql.OpenAsync();
        await using var insert = new NpgsqlCommand(
            """
            INSERT INTO "Photos" ("Id", "AlbumId", "Sha256", "FileName", "Format", "Bytes", "Width", "Height",
                "Recorded", "TimeSource", "OffsetMinutes", "Camera", "Pages", "AddedAt",
                "Tone", "Sharpness", "Likeness", "Palette", "SuggestedBest", "UnitId", "Taken", "TakenAt", "Day",
                    "Occurrence", "SortAt", "DayTakenAway", "Verdict", "Favourite",
                "FocusX", "FocusY", "FocusByKeeper", "KeepBoxes", "CoverBoxes", "Kind", "Page", "Revision")
            SELECT gen_random_uuid(), @album, encode(sha256((@album::text || n)::bytea), 'hex'),
                'snap_' || n || '.jpg', 'Jpeg', 4000000, 4000, 3000, t, 'File', 60,
                CASE WHEN n % 3 = 0 THEN 'Fennimore 35' ELSE 'Kestrel P4' END, 1, now(), 50, 100, n * 7919, '[]', false,
                (SELECT u."Id" FROM "Units" u
                    WHERE u."AlbumId" = @album AND t::date BETWEEN u."FirstDay" AND u."LastDay"), t,
                    t AT TIME ZONE 'UTC', t::date, 0, t AT TIME ZONE 'UTC', false,
                'Undecided', 0, 0.5, 0.5, false, '[]', '[]', 'Photo', 1, 0
            FROM (SELECT n, timestamp '2026-01-01 08:00' + n * (interval '364 days' / @count) AS t
                FROM generate_series(0, @count - 1) n) s
            """,
            sql
        );
        insert.Parameters.AddWithValue("album", album.Id);
        insert.Parameters.AddWithValue("count", photos);
        insert.CommandTimeout = 300;
        await insert.ExecuteNonQueryAsync();
        await using var analyze = new NpgsqlCommand("VACUUM ANALYZE \"Photos\"", sql);
        await analyze.ExecuteNonQueryAsync();
        return album.Id;
    }
}
