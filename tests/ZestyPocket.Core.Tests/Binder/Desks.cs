using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Binder;

/// <summary>Albums as values, for tests of what is done to them.</summary>
internal static class Desks
{
    public static readonly LocalDate Monday = new(2026, 5, 4);

    private static int _next = 1;

    public static Guid NewId() => new($"00000000-0000-7000-8000-{Interlocked.Increment(ref _next):000000000000}");

    public static AlbumTools Tools(params (Guid Unit, int Pieces)[] pieces) =>
        new(
            NewId,
            key => BuiltInDesigns.Find(key) is { } design ? Protector.Unmeasured(design) : null,
            AlbumFacts.None with
            {
                PiecesOf = pieces.ToDictionary(p => p.Unit, p => p.Pieces),
            }
        );

    /// <summary>Weeks from 4 May 2026 on, on pages of nine 3x4 unless other designs are named.</summary>
    public static AlbumDesk Weeks(int weeks, PageSchool school = PageSchool.Spread, params string[] designs) =>
        Album(AlbumKind.Weekly, weeks, school, designs);

    /// <summary>Days of a trip from 4 May 2026 on.</summary>
    public static AlbumDesk Days(int days) => Album(AlbumKind.Trip, days, PageSchool.Spread);

    private static AlbumDesk Album(AlbumKind kind, int units, PageSchool school, params string[] designs) =>
        new NewAlbum(
            "Test",
            new AlbumCalendar { Kind = kind, FirstDay = Monday },
            units,
            2,
            [
                .. (designs.Length == 0 ? ["9x12-nine-3x4"] : designs).Select(d =>
                    Protector.Unmeasured(BuiltInDesigns.Find(d)!)
                ),
            ],
            MeasureSystem.Inches,
            school
        ).Made(NewId);

    /// <summary>A card in each of a unit's pockets, or in the first so many of them.</summary>
    public static AlbumDesk Filled(this AlbumDesk desk, int unit, int most = int.MaxValue)
    {
        var (binder, content) = (desk.Binder, desk.Binder.Units[unit].Content);
        foreach (
            var place in binder.PocketsOf(binder.Units[unit].Id).Take(most).Where(p => content.At(p) is null).ToList()
        )
        {
            var id = NewId();
            content = content.AddCard(id, CardKind.Journaling, "Soup.", "plain-sans").Put(id, place);
        }

        return desk with
        {
            Binder = binder.With(binder.Units[unit] with { Content = content }),
        };
    }

    public static IEnumerable<PocketPlace> PocketsOf(this RingBinder binder, Guid unitId) =>
        from face in binder.FacesOf(unitId)
        from pocket in binder.On(binder.RequireLeaf(face.LeafId)).Design.Face(face.Side)
        select new PocketPlace(face.LeafId, face.Side, pocket.Key);

    public static AlbumDesk After(this AlbumDesk desk, params AlbumEdit[] edits) =>
        edits.Aggregate(desk, (now, edit) => edit.Apply(now, Tools()).Desk);

    public static string Refused(this AlbumDesk desk, AlbumEdit edit) =>
        Should.Throw<RuleException>(() => edit.Apply(desk, Tools())).Message;

    public static string[] Titles(this AlbumDesk desk) => [.. desk.Binder.Units.Select(desk.TitleOf)];

    public static int Placed(this AlbumDesk desk, int unit) => desk.Binder.Units[unit].Content.Placements.Length;

    /// <summary>Whose front and whose back each leaf carries, such as <c>19|20</c>; a dot for nobody's.</summary>
    public static string Leaves(this AlbumDesk desk)
    {
        return string.Join(' ', desk.Binder.Leaves.Select(l => $"{Of(l.Front)}|{Of(l.Back)}"));

        string Of(Guid? id) => id is { } unit ? desk.Binder.Require(unit).Dates.Numbers : "·";
    }

    /// <summary>What holds of every album, whatever was done to it.</summary>
    public static void ShouldHold(this AlbumDesk desk)
    {
        var binder = desk.Binder;
        binder.Leaves.Length.ShouldBe(Binding.LeavesFor(Laid(binder).Faces, binder.School));
        var reading = Binding.ReadingOrder([.. binder.Leaves.Select(l => l.Id)], binder.School).ToList();
        var given = binder.Units.SelectMany(u => binder.FacesOf(u.Id)).ToList();
        var (starts, _) = Laid(binder);
        given.ShouldBe(
            binder.Units.SelectMany((u, k) => reading.Skip(starts[k]).Take(binder.FacesOf(u.Id).Length)),
            "faces belong to the units in reading order"
        );
        foreach (var unit in binder.Units)
        {
            var pockets = binder.PocketsOf(unit.Id).ToHashSet();
            unit.Content.Placements.ShouldAllBe(p => pockets.Contains(p.Place), desk.TitleOf(unit));
            unit.Content.Placements.Select(p => p.Place).ShouldBeUnique();
            unit.Content.Placements.ShouldAllBe(p => unit.Content.Find(p.PieceId) != null);
        }
    }

    private static (IReadOnlyList<int> Starts, int Faces) Laid(RingBinder binder) =>
        Binding.Laid(
            [.. binder.Units.Select(u => binder.FacesOf(u.Id).Length)],
            Enumerable
                .Range(0, binder.Units.Length)
                .Where(k => binder.VolumeStarts.Contains(binder.Units[k].Id))
                .ToHashSet(),
            binder.School
        );
}
