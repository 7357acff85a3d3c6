using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;

namespace ZestyPocket.Core.LookingOver;

/// <summary>A unit of an album that is looked over as a whole.</summary>
public sealed record UnitToLook(Guid UnitId, UnitDesk Desk);

/// <summary>What only the whole album shows.</summary>
public static class AlbumLook
{
    /// <summary>So thick a pocket makes a bump in a closed album. A choice of this program.</summary>
    public static Length Bulky => Length.FromMillimetres(1);

    /// <summary>So many leaves with a bump at one spot let the album gape.</summary>
    public const int BulkyLeaves = 3;

    /// <param name="units">In their order.</param>
    /// <param name="series">Names of the album's series by their key.</param>
    /// <param name="told">What the album's stories say, where names may stand.</param>
    public static IReadOnlyList<Finding> Over(
        IReadOnlyList<UnitToLook> units,
        IReadOnlyDictionary<Guid, string> series,
        IReadOnlyCollection<string> told
    )
    {
        ArgumentNullException.ThrowIfNull(units);
        ArgumentNullException.ThrowIfNull(series);
        ArgumentNullException.ThrowIfNull(told);
        return
        [
            .. Forgotten(units),
            .. Gaps(units, series),
            .. Twice(units),
            .. NeverNamed(units, told),
            .. BulkySpots(units),
        ];
    }

    private static IEnumerable<Finding> Forgotten(IReadOnlyList<UnitToLook> units)
    {
        var done = units.Select(u => IsDone(u.Desk)).ToList();
        for (var i = 0; i < units.Count; i++)
        {
            var desk = units[i].Desk;
            if (
                !desk.Dates.LeftOut
                && desk.Photos.Count > 0
                && desk.Content.Placements.IsEmpty
                && done.Skip(i + 1).Any(d => d)
            )
            {
                yield return new Finding(
                    FindingRule.UnitForgotten,
                    $"{FindingRule.UnitForgotten} {units[i].UnitId}",
                    units[i].UnitId,
                    null,
                    desk.Title,
                    $"{desk.Title} has {NumberWords.Counted(desk.Photos.Count, "photo")} and nothing is placed, though "
                        + "later pages are done.",
                    2
                )
                {
                    Mend = new FillSpread { Revision = 0 },
                    MendLabel = "Fill the spread",
                };
            }
        }
    }

    private static bool IsDone(UnitDesk desk) =>
        desk.Pages.Pockets.Count > 0
        && desk.Pages.Pockets.All(p =>
            desk.Content.At(p.Place) is not null || desk.Content.LeftEmpty.Contains(p.Place)
        );

    private static IEnumerable<Finding> Gaps(IReadOnlyList<UnitToLook> units, IReadOnlyDictionary<Guid, string> series)
    {
        foreach (var (id, name) in series.OrderBy(s => s.Value, StringComparer.Ordinal).ThenBy(s => s.Key))
        {
            var has = units.Select(u => u.Desk.Photos.Values.Any(p => p.SeriesId == id)).ToList();
            var (first, last) = (has.IndexOf(true), has.LastIndexOf(true));
            for (var i = first + 1; first >= 0 && i < last; i++)
            {
                if (!has[i] && !units[i].Desk.Dates.LeftOut)
                {
                    yield return new Finding(
                        FindingRule.SeriesGap,
                        $"{FindingRule.SeriesGap} {id} {units[i].UnitId}",
                        units[i].UnitId,
                        null,
                        units[i].Desk.Title,
                        $"The series “{name}” has no picture here, but before and after.",
                        1
                    );
                }
            }
        }
    }

    /// <summary>A photo is of one unit; a copy in another file is known by its likeness, to the bit.</summary>
    private static IEnumerable<Finding> Twice(IReadOnlyList<UnitToLook> units)
    {
        var seen = new Dictionary<(ulong, Size), (UnitToLook Unit, PlacedPhoto Placed)>();
        foreach (var unit in units)
        {
            foreach (var placed in PlacedPhoto.On(unit.Desk))
            {
                if (!Lookalikes.IsTelling(placed.Photo.Likeness))
                {
                    continue;
                }

                var pixels = placed.Photo.Photo.Pixels;
                var key = (placed.Photo.Likeness, new Size(new Length(pixels.Width), new Length(pixels.Height)));
                if (seen.TryGetValue(key, out var first) && first.Unit.UnitId != unit.UnitId)
                {
                    yield return new Finding(
                        FindingRule.PictureTwice,
                        $"{FindingRule.PictureTwice} {first.Placed.Photo.Id} {placed.Photo.Id}",
                        unit.UnitId,
                        placed.Place,
                        unit.Desk.Pages.CodeOf(placed.Place) ?? unit.Desk.Title,
                        $"{placed.Photo.FileName} looks the same as {first.Placed.Photo.FileName} in "
                            + $"{first.Unit.Desk.Pages.CodeOf(first.Placed.Place)}.",
                        1
                    )
                    {
                        Mend = new TakeOut(placed.Place) { Revision = 0 },
                        MendLabel = "Move to tray",
                    };
                }
                else
                {
                    seen.TryAdd(key, (unit, placed));
                }
            }
        }
    }

    private static IEnumerable<Finding> NeverNamed(IReadOnlyList<UnitToLook> units, IReadOnlyCollection<string> told)
    {
        if (units.Count == 0 || !units.Any(u => IsDone(u.Desk)))
        {
            yield break;
        }

        var words = units
            .SelectMany(u => u.Desk.Content.Pieces.OfType<Card>())
            .SelectMany(c => c.SmallPictures.Select(p => p.Place).Append(c.Words))
            .Concat(told)
            .ToList();
        foreach (var person in units[0].Desk.Words.People)
        {
            // The first name is what people write.
            var name = person.Name.Trim().Split(' ')[0];
            if (name.Length > 0 && !words.Exists(w => Says(w, name)))
            {
                yield return new Finding(
                    FindingRule.PersonNeverNamed,
                    $"{FindingRule.PersonNeverNamed} {person.Name}",
                    null,
                    null,
                    "The album",
                    $"{person.Name} is never named in the words of this album.",
                    1
                );
            }
        }
    }

    private static bool Says(string words, string name)
    {
        for (var at = words.IndexOf(name, StringComparison.Ordinal); at >= 0; )
        {
            var end = at + name.Length;
            if (
                (at == 0 || !char.IsLetterOrDigit(words[at - 1]))
                && (end == words.Length || !char.IsLetterOrDigit(words[end]))
            )
            {
                return true;
            }

            at = words.IndexOf(name, end, StringComparison.Ordinal);
        }

        return false;
    }

    private static IEnumerable<Finding> BulkySpots(IReadOnlyList<UnitToLook> units)
    {
        var bulky =
            from unit in units
            from pocket in unit.Desk.Pages.Pockets
            let thick = PieceThickness.InPocket(unit.Desk, pocket.Place)
            where thick >= Bulky
            select (unit, pocket.Face, pocket.Pocket, pocket.Code, thick);
        foreach (
            var spot in bulky
                // A back shows its columns mirrored: what lies on each other has one name on both sides.
                .GroupBy(b => (b.Face.Protector.Design.Body, b.Pocket.Key))
                .Where(g => g.Select(b => b.Face.LeafId).Distinct().Count() >= BulkyLeaves)
                .OrderBy(g => g.First().Code, StringComparer.Ordinal)
        )
        {
            yield return new Finding(
                FindingRule.BulkySpot,
                $"{FindingRule.BulkySpot} {spot.Key.Key} {string.Join(' ', spot.Select(b => b.Code))}",
                null,
                null,
                string.Join(", ", spot.Select(b => b.Code)),
                "Thick things lie at the same spot of these leaves: the closed album will gape there. Move one to "
                    + "another pocket.",
                1
            );
        }
    }
}
