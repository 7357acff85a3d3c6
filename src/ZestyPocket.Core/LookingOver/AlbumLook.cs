using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

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
            .. EmptyBacks(units),
            .. Clashes(units),
            .. SpeltTwoWays(units, told),
            .. Short(units),
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

    /// <summary>A page that was skipped: its leaf is used on the other side, and the album goes on behind it.</summary>
    private static IEnumerable<Finding> EmptyBacks(IReadOnlyList<UnitToLook> units)
    {
        var pages = units
            .SelectMany((u, i) => u.Desk.Pages.Faces.Select(f => (Unit: u, Ordinal: i, Face: f)))
            .Where(p => p.Face.Pockets.Any())
            .ToList();
        var last = pages.FindLastIndex(p => !IsEmpty(p.Unit.Desk, p.Face));
        for (var i = 0; i < last; i++)
        {
            var (unit, _, face) = pages[i];
            if (
                !IsEmpty(unit.Desk, face)
                // A unit without anything is forgotten, which is said by itself.
                || unit.Desk.Content.Placements.IsEmpty
                || face.Pockets.All(p => unit.Desk.Content.LeftEmpty.Contains(p.Place))
                || !pages.Exists(p =>
                    p.Face.LeafId == face.LeafId && p.Face.Side != face.Side && !IsEmpty(p.Unit.Desk, p.Face)
                )
            )
            {
                continue;
            }

            var side = face.Side == LeafSide.Back ? "left" : "right";
            yield return new Finding(
                FindingRule.EmptyBack,
                $"{FindingRule.EmptyBack} {unit.UnitId} {face.LeafId} {face.Side}",
                unit.UnitId,
                null,
                unit.Desk.Title,
                $"The {side} page of {unit.Desk.Title} is empty, though the other side of its leaf is filled.",
                2
            )
            {
                Mend = new LeavePageEmpty(face.LeafId, face.Side) { Revision = 0 },
                MendLabel = "Leave the page empty",
            };
        }

        static bool IsEmpty(UnitDesk desk, UnitFace face) => face.Pockets.All(p => desk.Content.At(p.Place) is null);
    }

    /// <summary>
    /// Two units whose pages lie open together, with card colours that are neither near each other nor opposite.
    /// The angles are this program's choice; that neighbouring and opposite hues go together is common practice.
    /// </summary>
    private static IEnumerable<Finding> Clashes(IReadOnlyList<UnitToLook> units)
    {
        for (var i = 0; i + 1 < units.Count; i++)
        {
            var (one, two) = (units[i], units[i + 1]);
            // The last page of one unit is a left one and the first of the next a right one: they face each other.
            if (
                one.Desk.Pages.Faces is not [.., { Side: LeafSide.Back }]
                || two.Desk.Pages.Faces is not [{ Side: LeafSide.Front }, ..]
                || AccentOn(one.Desk, one.Desk.Pages.Faces[^1]) is not { } left
                || AccentOn(two.Desk, two.Desk.Pages.Faces[0]) is not { } right
                || !Clash(left, right)
            )
            {
                continue;
            }

            yield return new Finding(
                FindingRule.ColoursClash,
                $"{FindingRule.ColoursClash} {one.UnitId} {two.UnitId}",
                two.UnitId,
                null,
                two.Desk.Title,
                $"The cards of {one.Desk.Title} and {two.Desk.Title} lie open together and their colours clash.",
                1
            )
            {
                Mend = MendedClash(two.Desk, left),
                MendLabel = "Take the colours of the pictures",
            };
        }
    }

    private static TintCards? MendedClash(UnitDesk desk, LabColour left)
    {
        var mend = new TintCards(FromPictures: true) { Revision = 0 };
        if (CardTint.From(Palettes.Together(TintCards.Shown(desk, null).Select(p => p.Palette))) is not { } tint)
        {
            return null;
        }

        var after = desk with { Content = desk.Content with { Tint = tint } };
        return AccentOn(after, after.Pages.Faces[0]) is { } right && Clash(left, right) ? null : mend;
    }

    /// <summary>The strongest card accent on a page; null when no card there has one.</summary>
    private static LabColour? AccentOn(UnitDesk desk, UnitFace face) =>
        face
            .Pockets.Select(p => desk.Content.At(p.Place))
            .Where(lies => lies is not null)
            .Select(lies => desk.Content.Find(lies!.Value.PieceId))
            .OfType<Card>()
            .Select(card => desk.StyleOf(card).Accent)
            .Select(accent => LabColour.OfSrgb(accent.R, accent.G, accent.B))
            .Where(lab => lab.Chroma >= StrongAccent)
            .OrderByDescending(lab => lab.Chroma)
            .Select(lab => (LabColour?)lab)
            .FirstOrDefault();

    private const double StrongAccent = 30;

    internal static bool Clash(LabColour one, LabColour two)
    {
        var turn = Math.Abs(one.HueDegrees - two.HueDegrees);
        var apart = Math.Min(turn, 360 - turn);
        return apart is > 50 and < 120 && one.DifferenceTo(two) > 35;
    }

    /// <summary>
    /// Two names that differ by one letter: both are written with a capital only, each in the middle of a sentence at
    /// least once.
    /// </summary>
    private static IEnumerable<Finding> SpeltTwoWays(IReadOnlyList<UnitToLook> units, IReadOnlyCollection<string> told)
    {
        if (units.Count == 0)
        {
            yield break;
        }

        var known = units[0].Desk.Words;
        var written = units
            .SelectMany(u => u.Desk.Content.Pieces.OfType<Card>())
            .Where(c => c.StoryId is null)
            .Select(c => c.Words)
            .Concat(told);
        var names = NamesInWords.Of(written);
        foreach (var (usual, other) in NamesInWords.SpeltTwoWays(names, known.KnownWords))
        {
            yield return new Finding(
                FindingRule.NameSpeltTwoWays,
                $"{FindingRule.NameSpeltTwoWays} {usual} {other}",
                null,
                null,
                "The album",
                $"“{other}” stands in the words, and “{usual}” more often: one person, spelt two ways?",
                2
            );
        }
    }

    /// <summary>Designs of which the units hold more leaves than are owned.</summary>
    private static IEnumerable<Finding> Short(IReadOnlyList<UnitToLook> units)
    {
        if (units.Count == 0)
        {
            yield break;
        }

        var used = units
            .SelectMany(u => u.Desk.Pages.Faces)
            .DistinctBy(f => f.LeafId)
            .GroupBy(f => f.Protector.Design.Key)
            .ToDictionary(g => g.Key, g => g.Count());
        foreach (var owned in units[0].Desk.Protectors.Where(p => p.OnHand is not null))
        {
            var needs = used.GetValueOrDefault(owned.Protector.Design.Key);
            if (needs > owned.OnHand)
            {
                yield return new Finding(
                    FindingRule.StockShort,
                    $"{FindingRule.StockShort} {owned.Id} {needs}",
                    null,
                    null,
                    owned.Protector.Design.Name,
                    $"The album has {NumberWords.Counted(needs, "leaf", "leaves")} of {owned.Protector.Design.Name} "
                        + $"and you own {owned.OnHand}: buy {needs - owned.OnHand}.",
                    2
                );
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
