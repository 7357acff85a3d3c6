using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Words;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Albums;

/// <summary>Makes albums: their units, and the leaves that carry them.</summary>
public static class AlbumMaking
{
    public const int MostUnits = 530;

    /// <summary>A new album. A unit takes facing pages (two faces) or one page each.</summary>
    public static Album Make(
        string name,
        AlbumCalendar calendar,
        int units,
        int facesPerUnit,
        IReadOnlyList<PageDesign> designs,
        MeasureSystem measures,
        Guid keeperId,
        Instant now,
        PageSchool school = PageSchool.Spread,
        Func<PageDesign, Protector>? asProtector = null
    )
    {
        ArgumentNullException.ThrowIfNull(calendar);
        ArgumentNullException.ThrowIfNull(designs);
        if (string.IsNullOrWhiteSpace(name) || name.Length > 200)
        {
            throw new RuleException("An album needs a name of at most 200 characters. Nothing was made.");
        }

        if (designs.Count == 0)
        {
            throw new RuleException("Choose at least one page design that the album uses. Nothing was made.");
        }

        if (designs.Select(d => d.Body).Distinct().Count() > 1)
        {
            throw new RuleException(
                "The chosen page designs are of different page bodies; one album holds one size of page. Nothing "
                    + "was made."
            );
        }

        if (facesPerUnit is not (1 or 2))
        {
            throw new RuleException("A unit takes facing pages or one page. Nothing was made.");
        }

        if (school == PageSchool.Leaf && facesPerUnit != 2)
        {
            throw new RuleException(
                "The two faces of one leaf are two pages; one page each is another way. Nothing was made."
            );
        }

        if (calendar.Kind != AlbumKind.DocumentedDay && units is < 1 or > MostUnits)
        {
            throw new RuleException($"An album can have 1 to {MostUnits} weeks or days. Nothing was made.");
        }

        var album = new Album
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeperId,
            Name = PlainWords.Name(name),
            BodyWidth = designs[0].Body.Width,
            BodyHeight = designs[0].Body.Height,
            Measures = measures,
            FacesPerUnit = facesPerUnit,
            School = school,
            MadeAt = now,
            Protectors =
            [
                .. designs.Select((d, i) => AlbumProtector.From((asProtector ?? Protector.Unmeasured)(d), i)),
            ],
        };
        album.WriteCalendar(calendar.Checked());
        foreach (var dates in album.ReadCalendar().FirstUnits(units))
        {
            album.Units.Add(Unit(dates, album.Units.Count));
        }

        var ids = new List<Guid>();
        for (var i = 0; i < Binding.LeavesFor(album.Units.Count * facesPerUnit, school); i++)
        {
            var leaf = Leaf(album.Protectors[0].Id, i);
            album.Leaves.Add(leaf);
            ids.Add(leaf.Id);
        }

        var chain = Binding.Chain(ids, [.. album.Units.Select(_ => facesPerUnit)], school);
        foreach (var (unit, faces) in album.Units.Zip(chain))
        {
            foreach (var face in faces)
            {
                Give(album.Leaves.Single(l => l.Id == face.LeafId), face.Side, unit.Id);
            }
        }

        return album;
    }

    public static AlbumUnit Unit(UnitDates dates, int ordinal)
    {
        var unit = new AlbumUnit { Id = Guid.CreateVersion7(), Ordinal = ordinal };
        unit.WriteDates(dates);
        return unit;
    }

    public static AlbumLeaf Leaf(Guid protectorId, int ordinal) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            Ordinal = ordinal,
            ProtectorId = protectorId,
        };

    public static void Give(AlbumLeaf leaf, LeafSide side, Guid? unitId)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        if (side == LeafSide.Front)
        {
            leaf.FrontUnitId = unitId;
        }
        else
        {
            leaf.BackUnitId = unitId;
        }
    }
}
