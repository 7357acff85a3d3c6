using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Albums;

/// <summary>Makes weekly albums and lengthens them: weeks with the leaves that carry them.</summary>
public static class AlbumMaking
{
    public const int MostWeeks = 530;

    /// <summary>A new weekly album in which a week takes facing pages.</summary>
    public static Album Weekly(
        string name, LocalDate firstDay, int weeks, IReadOnlyList<PageDesign> designs, MeasureSystem measures, Guid keeperId, Instant now)
    {
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
            throw new RuleException("The chosen page designs are of different page bodies; one album holds one size of page. Nothing was made.");
        }

        if (firstDay.Year is < 1900 or > 2200)
        {
            throw new RuleException("The first day must lie between 1900 and 2200. Nothing was made.");
        }

        var album = new Album
        {
            Id = Guid.CreateVersion7(),
            KeeperId = keeperId,
            Name = name.Trim(),
            FirstDay = firstDay,
            BodyWidth = designs[0].Body.Width,
            BodyHeight = designs[0].Body.Height,
            Measures = measures,
            LateNightCutOff = AlbumDay.DefaultCutOff,
            MadeAt = now,
            Protectors = [.. designs.Select((d, i) => AlbumProtector.From(Protector.Unmeasured(d), i))],
        };
        AddWeeks(album, weeks);
        return album;
    }

    /// <summary>Adds weeks at the end; the album's units and leaves must be loaded.</summary>
    public static void AddWeeks(Album album, int count)
    {
        ArgumentNullException.ThrowIfNull(album);
        if (count < 1 || album.Units.Count + count > MostWeeks)
        {
            throw new RuleException($"An album can have 1 to {MostWeeks} weeks. Nothing was changed.");
        }

        var start = album.Units.Count == 0 ? album.FirstDay : album.Units.Max(u => u.LastDay).PlusDays(1);
        var ordinal = album.Units.Count;
        foreach (var week in Week.Run(start, count))
        {
            album.Units.Add(new AlbumUnit
            {
                Id = Guid.CreateVersion7(),
                Kind = UnitKind.Week,
                Ordinal = ordinal++,
                FirstDay = week.First,
                LastDay = week.Last,
            });
        }

        var units = album.Units.OrderBy(u => u.Ordinal).ToList();
        var leaves = album.Leaves.OrderBy(l => l.Ordinal).ToList();
        var protectors = album.Protectors.OrderBy(p => p.Ordinal).ToList();
        while (leaves.Count < Binding.LeavesForFacingPages(units.Count))
        {
            var leaf = new AlbumLeaf
            {
                Id = Guid.CreateVersion7(),
                Ordinal = leaves.Count,
                ProtectorId = protectors[0].Id,
            };
            leaves.Add(leaf);
            album.Leaves.Add(leaf);
        }

        var leafIds = leaves.ConvertAll(l => l.Id);
        for (var k = 0; k < units.Count; k++)
        {
            var spread = Binding.FacingPages(leafIds, k);
            leaves.Single(l => l.Id == spread.Left.LeafId).BackUnitId = units[k].Id;
            leaves.Single(l => l.Id == spread.Right.LeafId).FrontUnitId = units[k].Id;
        }
    }
}
