using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Photos;
using ZestyPocket.Server.Binder;
using ZestyPocket.Server.Dates;
using ZestyPocket.Server.Photos;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Tests;

/// <summary>Albums that an older version of the program made are still there, and can still be worked on.</summary>
public sealed class OldAlbumTests
{
    private const string Album = "11111111-0000-7000-8000-000000000001";
    private const string Unit = "11111111-0000-7000-8000-000000000002";
    private const string Protector = "11111111-0000-7000-8000-000000000003";
    private const string Photo = "11111111-0000-7000-8000-000000000004";
    private const string Put = "11111111-0000-7000-8000-000000000005";
    private const string Leaf = "11111111-0000-7000-8000-000000000006";
    private const string OtherLeaf = "11111111-0000-7000-8000-000000000007";

    [Fact]
    public async Task A_week_made_before_pictures_were_judged_keeps_its_pictures_its_days_and_its_undo()
    {
        var print =
            $$"""{"piece":"photoPrint","id":"11111111-0000-7000-8000-00000000000a","photoId":"{{Photo}}","""
            + """ "framing":{"centerX":0.25,"centerY":0.75,"zoom":1.5} }""";
        var placed =
            $$"""{"pieces":[{{print}}],"placements":[{"pieceId":"11111111-0000-7000-8000-00000000000a","""
            + $$""" "place":{"leafId":"{{Leaf}}","side":"back","pocketKey":"1.1"},"locked":false}]}""";
        var connection = await TestDatabase.CreateOldAsync(
            "First",
            $$"""
            INSERT INTO "Albums" VALUES ('{{Album}}', '{{Keeper.LocalId}}', 'Before', '2026-05-04', 7772400, 10972800,
                'Inches', '03:30', 'None', now(), NULL, 1, NULL);
            INSERT INTO "Protectors" VALUES ('{{Protector}}', '{{Album}}', 0, '9x12-nine-3x4', 8229600, 10972800, 0,
                0, '[]', 1, NULL);
            INSERT INTO "Edits" ("Id", "AlbumId", "KeeperId", "UnitIds", "Summary", "MadeAt", "Undone")
                VALUES ('{{Put}}', '{{Album}}', '{{Keeper.LocalId}}', ARRAY['{{Unit}}']::uuid[],
                'Put a photo into a pocket', now(), FALSE);
            INSERT INTO "Units" VALUES ('{{Unit}}', '{{Album}}', 0, 'Week', '2026-05-04', '2026-05-10', '{{placed}}',
                2, '{{Put}}', 0, 1);
            INSERT INTO "Leaves" VALUES ('{{Leaf}}', '{{Album}}', 0, '{{Protector}}', NULL, '{{Unit}}', 1, NULL),
                ('{{OtherLeaf}}', '{{Album}}', 1, '{{Protector}}', '{{Unit}}', NULL, 1, NULL);
            INSERT INTO "EditChange" VALUES ('11111111-0000-7000-8000-000000000008', '{{Put}}', 'Unit', '{{Unit}}', 2,
                NULL, '{"pieces":[],"placements":[]}', '{{placed}}');
            INSERT INTO "Photos" VALUES
                ('{{Photo}}', '{{Album}}', '{{Unit}}', repeat('a', 64), 'garden.jpg', 'jpeg', 1000, 4000, 3000,
                    '2026-05-06 10:15', NULL, 'A camera', NULL, NULL, '2026-05-06', FALSE, now(), FALSE, 1, NULL),
                (gen_random_uuid(), '{{Album}}', '{{Unit}}', repeat('b', 64), 'moved.jpg', 'png', 1000, 4000, 3000,
                    '2026-05-06 10:15', 120, NULL, NULL, NULL, '2026-05-08', TRUE, now(), FALSE, 1, NULL),
                (gen_random_uuid(), '{{Album}}', '{{Unit}}', repeat('c', 64), 'left.jpg', 'jpeg', 1000, 4000, 3000,
                    '2026-05-07 10:15', NULL, NULL, NULL, NULL, '2026-05-07', FALSE, now(), TRUE, 1, NULL),
                (gen_random_uuid(), '{{Album}}', NULL, repeat('d', 64), 'nodate.jpg', 'jpeg', 1000, 4000, 3000, NULL,
                    NULL, NULL, NULL, NULL, NULL, FALSE, now(), FALSE, 1, NULL);
            """
        );

        await using var host = TestHost.On(connection);
        var calendar = await host.GetAsync<CalendarView>($"/api/albums/{Album}/calendar");
        (calendar.Kind, calendar.Scheme, calendar.CutOff).ShouldBe((AlbumKind.Weekly, WeekScheme.Iso, "03:30"));

        var week = await host.OpenAsync(new Guid(Unit));
        week.Title.ShouldBe("Week 19");
        Filled(week).ShouldBe(1);
        week.Faces.SelectMany(f => f.Pockets)
            .Select(p => p.Piece?.Framing)
            .OfType<FramingView>()
            .ShouldBe([new FramingView(0.25, 0.75, 1.5)]);
        week.Photos.Select(p => (p.FileName, p.Day, p.Verdict))
            .OrderBy(p => p.FileName, StringComparer.Ordinal)
            .ShouldBe([
                ("garden.jpg", new LocalDate(2026, 5, 6), Verdict.Undecided),
                ("moved.jpg", new LocalDate(2026, 5, 8), Verdict.Undecided),
            ]);

        var left = await host.GetAsync<PhotoPage>($"/api/albums/{Album}/photos?scope=leftOut");
        left.Photos.Select(p => (p.FileName, p.Day)).ShouldBe([("left.jpg", new LocalDate(2026, 5, 7))]);
        var undated = await host.GetAsync<PhotoPage>($"/api/albums/{Album}/photos?scope=noDate");
        undated.Photos.Select(p => p.FileName).ShouldBe(["nodate.jpg"]);

        week = await host.StepAsync(week, "undo");
        Filled(week).ShouldBe(0);
        week = await host.StepAsync(week, "redo");
        Filled(week).ShouldBe(1);
    }

    [Fact]
    public async Task People_who_were_named_in_the_calendar_are_still_known_and_their_naming_can_be_undone()
    {
        const string counts =
            """{"kind":"weekly","firstDay":"2026-05-04","scheme":"iso","cutOff":"03:00:00","""
            + """ "homeZone":"Etc/UTC","people":""";
        var named = counts + """[{"name":"Otto","born":"1961-05-06"}],"knownWords":["kettel"]}""";
        var connection = await TestDatabase.CreateOldAsync(
            "Tell",
            $$"""
            INSERT INTO "Albums" ("Id", "KeeperId", "Name", "FirstDay", "BodyWidth", "BodyHeight", "Measures",
                "Calendar", "FacesPerUnit", "Demo", "MadeAt", "Revision", "HeadEditId")
                VALUES ('{{Album}}', '{{Keeper.LocalId}}', 'Before', '2026-05-04', 7772400, 10972800, 'Inches',
                    '{{named}}', 2, 'None', now(), 2, '{{Put}}');
            INSERT INTO "Edits" ("Id", "AlbumId", "KeeperId", "UnitIds", "Summary", "MadeAt", "Undone")
                VALUES ('{{Put}}', '{{Album}}', '{{Keeper.LocalId}}', ARRAY[]::uuid[], 'Named one person', now(),
                FALSE);
            INSERT INTO "EditChange" ("Id", "EditId", "Subject", "SubjectId", "RevisionAfter", "PreviousHeadEditId",
                "Before", "After")
                VALUES ('11111111-0000-7000-8000-000000000008', '{{Put}}', 'Album', '{{Album}}', 2, NULL,
                    '{"name":"Before","calendar":{{counts}}[]} }', '{"name":"Before","calendar":{{named}} }');
            """
        );

        await using var host = TestHost.On(connection);
        var words = await host.GetAsync<AlbumWordsView>($"/api/albums/{Album}/words");
        words.People.ShouldBe([new PersonView("Otto", new LocalDate(1961, 5, 6))]);
        (words.KnownWords.Single(), words.Family, words.Hand).ShouldBe(("kettel", "Peel", new HandView(2.2, 7)));

        await host.PostAsync<object>($"/api/edits/{Put}/undo", new { });
        (await host.GetAsync<AlbumWordsView>($"/api/albums/{Album}/words")).People.ShouldBeEmpty();
        await host.PostAsync<object>($"/api/edits/{Put}/redo", new { });
        (await host.GetAsync<AlbumWordsView>($"/api/albums/{Album}/words")).People.Single().Name.ShouldBe("Otto");
    }

    [Fact]
    public async Task Leaves_made_before_they_could_be_altered_are_plain_and_their_old_changes_can_be_undone()
    {
        const string counts =
            """{"kind":"weekly","firstDay":"2026-05-04","scheme":"iso","cutOff":"03:00:00","homeZone":"Etc/UTC"}""";
        const string nine = "11111111-0000-7000-8000-000000000009";
        string State(string protector) =>
            $$"""{"protectorId":"{{protector}}","ordinal":0,"frontUnitId":null,"backUnitId":"{{Unit}}","gone":false}""";
        var connection = await TestDatabase.CreateOldAsync(
            "GivenUpDesigns",
            $$"""
            INSERT INTO "Albums" ("Id", "KeeperId", "Name", "FirstDay", "BodyWidth", "BodyHeight", "Measures",
                "Calendar", "Words", "FacesPerUnit", "Demo", "MadeAt", "Revision", "HeadEditId")
                VALUES ('{{Album}}', '{{Keeper.LocalId}}', 'Before', '2026-05-04', 8229600, 10972800, 'Inches',
                    '{{counts}}', '{}', 2, 'None', now(), 1, NULL);
            INSERT INTO "Protectors" ("Id", "AlbumId", "Ordinal", "DesignKey", "OuterWidth", "OuterHeight",
                "RingStrip", "Ease", "ClearSizes", "Gone", "Revision")
                VALUES ('{{Protector}}', '{{Album}}', 0, '9x12-rows-6x4-3x4', 8915400, 11201400, 571500, 28575, '[]',
                    FALSE, 1),
                       ('{{nine}}', '{{Album}}', 1, '9x12-nine-3x4', 8915400, 11201400, 571500, 28575, '[]', FALSE, 1);
            INSERT INTO "Units" ("Id", "AlbumId", "Ordinal", "Kind", "FirstDay", "LastDay", "Year", "FirstNumber",
                "LastNumber", "FirstOccurrence", "LastOccurrence", "LeftOut", "Gone", "Content", "Revision",
                "CardsTold", "PiecesPlaced", "PhotosPlaced", "KeepsakesInEnvelope")
                VALUES ('{{Unit}}', '{{Album}}', 0, 'Week', '2026-05-04', '2026-05-10', 2026, 19, 19, 0, 0, FALSE,
                    FALSE, '{"pieces":[],"placements":[],"notes":[]}', 1, 0, 0, ARRAY[]::uuid[], 0);
            INSERT INTO "Edits" ("Id", "AlbumId", "KeeperId", "UnitIds", "Summary", "MadeAt", "Undone")
                VALUES ('{{Put}}', '{{Album}}', '{{Keeper.LocalId}}', ARRAY['{{Unit}}']::uuid[],
                'Changed a leaf to Nine 3x4', now(), FALSE);
            INSERT INTO "Leaves" ("Id", "AlbumId", "Ordinal", "ProtectorId", "FrontUnitId", "BackUnitId", "Gone",
                "Revision", "HeadEditId")
                VALUES ('{{Leaf}}', '{{Album}}', 0, '{{nine}}', NULL, '{{Unit}}', FALSE, 2, '{{Put}}'),
                    ('{{OtherLeaf}}', '{{Album}}', 1, '{{Protector}}', '{{Unit}}', NULL, FALSE, 1, NULL);
            INSERT INTO "EditChange" ("Id", "EditId", "Subject", "SubjectId", "RevisionAfter", "PreviousHeadEditId",
                "Before", "After")
                VALUES ('11111111-0000-7000-8000-000000000008', '{{Put}}', 'Leaf', '{{Leaf}}', 2, NULL, '{{State(
                Protector
            )}}', '{{State(nine)}}');
            """
        );

        await using var host = TestHost.On(connection);
        var week = await host.OpenAsync(new Guid(Unit));
        week.Faces.Select(f => f.Pockets.Count).ShouldBe([9, 6]);
        week.Faces.ShouldAllBe(f => f.Marks.Count == 0 && f.Holes.Count == 0 && f.Kind == Core.Pages.LeafKind.Pockets);
        var leaves = await host.GetAsync<List<BinderLeaf>>($"/api/albums/{Album}/leaves");
        leaves
            .Select(l => (l.Design, l.Tab, l.Between))
            .ShouldBe([("Nine 3x4", null, false), ("Three rows of 6x4 + 3x4", null, false)]);
        await host.PostAsync<object>($"/api/edits/{Put}/undo", new { });
        (await host.OpenAsync(new Guid(Unit))).Faces.Select(f => f.Pockets.Count).ShouldBe([6, 6]);
        await host.PostAsync<object>($"/api/edits/{Put}/redo", new { });
        (await host.OpenAsync(new Guid(Unit))).Faces.Select(f => f.Pockets.Count).ShouldBe([9, 6]);
    }

    private static int Filled(UnitView week) => week.Counts.Pockets - week.Counts.OpenPockets;
}
