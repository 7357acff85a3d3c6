using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Placing;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

/// <summary>Counts pieces against pockets and names the moves people make.</summary>
public sealed class CountReader(ZestyContext db, UnitOpener opener, FontShelf fonts)
{
    /// <summary>Type people read without effort on a card. Common practice.</summary>
    private const double Comfortable = 9;

    public async Task<CountView> CountAsync(Guid unitId, CancellationToken cancel)
    {
        var open = await opener.OpenAsync(unitId, cancel);
        var wants = await WantsAsync(open, cancel);
        var pockets = open.Pockets.ToList();
        var placed = pockets.Count(p => open.Content.At(p.Place) is not null);
        var (missing, free) = (Math.Max(0, wants.Count - pockets.Count), Math.Max(0, pockets.Count - wants.Count));
        var leaves = await LeavesAsync(open, cancel);
        var wanted = wants.GroupBy(w => (w.Name, w.Kind)).Select(g => new WantedView(g.Key.Name, g.Key.Kind, g.Count())).OrderBy(w => w.Kind).ThenByDescending(w => w.Count).ToList();
        return new CountView(
            unitId, open.Unit.Revision, open.Title, open.Dates.Span(open.Calendar.Style), Sum(wanted, wants.Count, pockets.Count), wants.Count, pockets.Count, placed, missing, free,
            wanted,
            [
                .. pockets.GroupBy(p => p.Face.Protector.CutSize(p.Pocket.Nominal)).OrderByDescending(g => g.Count()).ThenBy(g => g.Key.SquareInches)
                    .Select(g => new PocketsView(MeasureText.Show(g.Key, open.Album.Measures), g.Count(), g.Count(p => open.Content.At(p.Place) is null))),
            ],
            leaves,
            open.Dates.LeftOut ? [] : [.. Moves(open, leaves, missing, free)]);
    }

    /// <summary>Everything of a unit that wants a pocket, with the pockets of the album's designs it can go into.</summary>
    public async Task<IReadOnlyList<Want>> WantsAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var sizes = open.Album.Protectors.Select(p => p.ToProtector()).SelectMany(p => p.Design.Pockets.Select(f => p.CutSize(f.Nominal))).Distinct().ToList();
        var wants = new List<Want>();
        wants.AddRange(open.Photos.Values.Select(p => Want.Picture(p.Pixels, sizes)));
        foreach (var card in open.Content.Pieces.OfType<Card>())
        {
            var style = PieceFaces.StyleOf(open, card);
            // Titles and patterns fit everywhere; computed rows are short.
            var anywhere = CardStyle.RoleOf(card.Kind) is StyleRole.Title or StyleRole.Filler || ComputedCards.IsComputed(card.Kind) || string.IsNullOrWhiteSpace(card.Words);
            var heading = ComputedCards.Heading(card.Kind) is not null;
            // Words that fit nowhere still want a pocket: the largest.
            var largest = sizes.MaxBy(s => s.SquareInches);
            var name = CardStyle.RoleOf(card.Kind) == StyleRole.Title ? "title cards" : card.Kind == CardKind.Filler ? "filler cards" : "cards";
            wants.Add(Want.Words(WantKind.Card, name, sizes, s => anywhere || s == largest || CardComposer.Fit(card.Words, style, s, fonts, heading).Fits));
        }

        wants.AddRange(open.Content.Pieces.OfType<Keepsake>().Where(k => !k.InEnvelope).Select(k => Want.Flat(k, sizes)));
        var (first, last) = (open.Dates.First, open.Dates.Last);
        var albumId = open.Album.Id;
        var stories = await db.Stories.AsNoTracking().Where(s => s.AlbumId == albumId && s.Days.Any(d => d >= first && d <= last)).ToListAsync(cancel);
        foreach (var story in stories.Where(s => s.Words.Trim().Length > 0 && open.Content.CardsOf(s.Id).IsEmpty && s.Days[0] >= first))
        {
            var style = open.Words.NewStyle(CardKind.Journaling).WithoutPicture();
            var needed = sizes.ToDictionary(s => s, s => StoryFlow.Needed(story.Words, style, s, Comfortable, fonts).Cards);
            var fewest = needed.Values.Where(n => n > 0).DefaultIfEmpty(1).Min();
            wants.AddRange(Enumerable.Repeat(Want.Words(WantKind.Story, "untold stories", sizes, s => needed[s] > 0 && needed[s] <= fewest), fewest));
        }

        return wants;
    }

    /// <summary>The leaves of a unit in order, with what may be done to them.</summary>
    public async Task<IReadOnlyList<LeafView>> LeavesAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var views = new List<LeafView>();
        foreach (var faces in open.Faces.GroupBy(f => f.Leaf.Id))
        {
            var leaf = faces.First().Leaf;
            var otherId = faces.Count() == 2 ? null : faces.First().Side == LeafSide.Front ? leaf.BackUnitId : leaf.FrontUnitId;
            var other = otherId is { } id ? await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == id, cancel) : null;
            views.Add(new LeafView(
                leaf.Id,
                leaf.ProtectorId,
                faces.First().Protector.Design.Name,
                faces.Count(),
                open.Content.Placements.Count(p => p.Place.LeafId == leaf.Id),
                // Another design is no loss when nothing is locked on it here and nothing lies on its other face.
                !open.Content.HoldsOn(leaf.Id, locked: true) && other?.Read().HoldsOn(leaf.Id) != true,
                faces.Count() == 2,
                other?.ReadDates().Title(open.Calendar.Style)));
        }

        return views;
    }

    private static string Sum(List<WantedView> wanted, int pieces, int pockets)
    {
        var parts = wanted.Select(w => string.Create(CultureInfo.InvariantCulture, $"{w.Count} {(w.Count == 1 ? Singular(w.Name) : w.Name)}"));
        var outcome = pieces > pockets ? $"{pieces - pockets} short" : pieces < pockets ? $"{pockets - pieces} free" : "it comes out even";
        return pieces == 0
            ? string.Create(CultureInfo.InvariantCulture, $"Nothing yet; {pockets} pockets free.")
            : string.Create(CultureInfo.InvariantCulture, $"{string.Join(" + ", parts)} = {pieces} {(pieces == 1 ? "piece" : "pieces")}; {pockets} {(pockets == 1 ? "pocket" : "pockets")}: {outcome}.");
    }

    private static string Singular(string name) => name == "untold stories" ? "untold story" : name.TrimEnd('s');

    /// <summary>In the order in which people try them. Common practice.</summary>
    private IEnumerable<MoveView> Moves(OpenUnit open, IReadOnlyList<LeafView> leaves, int missing, int free)
    {
        var pocketsOf = open.Album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector().Design.Pockets.Length);
        // What the album has given up is not proposed.
        var designs = open.Album.Protectors.Where(p => !p.Gone).OrderBy(p => p.Ordinal).Select(p => (Row: p, Protector: p.ToProtector())).ToList();
        if (missing > 0)
        {
            foreach (var leaf in leaves.Where(l => l.MayChange))
            {
                var now = pocketsOf[leaf.ProtectorId];
                if (designs.Where(d => d.Protector.Design.Pockets.Length > now).OrderBy(d => Math.Abs(((d.Protector.Design.Pockets.Length - now) * leaf.Faces) - missing)).Select(d => ((AlbumProtector, Protector)?)d).FirstOrDefault() is { } smaller)
                {
                    var gain = (smaller.Item2.Design.Pockets.Length - now) * leaf.Faces;
                    yield return new MoveView(MoveKind.SmallerPockets, $"Smaller pockets: “{smaller.Item2.Design.Name}” instead of “{leaf.Design}”", $"{gain} pockets more", LeafId: leaf.LeafId, ProtectorId: smaller.Item1.Id);
                }
            }

            if (Joinable(open) is { } join)
            {
                yield return join;
            }

            foreach (var (row, protector) in designs.OrderBy(d => TooFew(2 * d.Protector.Design.Pockets.Length, missing)).ThenBy(d => Math.Abs((2 * d.Protector.Design.Pockets.Length) - missing)).Take(2))
            {
                yield return new MoveView(MoveKind.AddLeaf, $"Put in a leaf of “{protector.Design.Name}”", $"{2 * protector.Design.Pockets.Length} pockets more, front and back", ProtectorId: row.Id);
            }
        }
        else if (free > 0)
        {
            foreach (var leaf in leaves.Where(l => l.MayGo && pocketsOf[l.ProtectorId] * 2 <= free))
            {
                yield return new MoveView(MoveKind.RemoveLeaf, $"Take a leaf of “{leaf.Design}” out", "all pieces still have a pocket", LeafId: leaf.LeafId);
            }

            foreach (var leaf in leaves.Where(l => l.MayChange))
            {
                var now = pocketsOf[leaf.ProtectorId];
                if (designs.Where(d => d.Protector.Design.Pockets.Length < now && (now - d.Protector.Design.Pockets.Length) * leaf.Faces <= free).OrderBy(d => d.Protector.Design.Pockets.Length).Select(d => ((AlbumProtector, Protector)?)d).FirstOrDefault() is { } larger)
                {
                    yield return new MoveView(
                        MoveKind.LargerPockets, $"Enlarge: “{larger.Item2.Design.Name}” instead of “{leaf.Design}”", $"{(now - larger.Item2.Design.Pockets.Length) * leaf.Faces} pockets fewer, larger pictures", LeafId: leaf.LeafId, ProtectorId: larger.Item1.Id);
                }
            }

            yield return new MoveView(MoveKind.AddFiller, "Add a filler card", free == 1 ? "nothing stays empty" : $"{free - 1} pockets stay empty");
            if (free * 2 > open.Pockets.Count())
            {
                yield return new MoveView(MoveKind.MergeWithNext, "Merge with the one after it", "more than half of the pockets would stay empty");
            }
        }
    }

    /// <summary>What does not hold it all comes after what does.</summary>
    private static bool TooFew(int pockets, int missing) => pockets < missing;

    /// <summary>The first two written cards whose words fit on one of them.</summary>
    private MoveView? Joinable(OpenUnit open)
    {
        var cards = open.Content.Pieces.OfType<Card>().Where(c => c is { StoryId: null, Kind: CardKind.Journaling, Setting: not { ByHand: true } } && !string.IsNullOrWhiteSpace(c.Words)).ToList();
        foreach (var card in cards)
        {
            var (style, cut) = (PieceFaces.StyleOf(open, card), open.CutSizeOf(card));
            foreach (var other in cards.Where(c => c.Id != card.Id))
            {
                var fit = CardComposer.Fit($"{card.Words.TrimEnd()}\n\n{other.Words.Trim()}", style, cut, fonts);
                if (fit.Fits)
                {
                    return new MoveView(
                        MoveKind.JoinCards, $"Combine “{UnitReader.Called(open, card)}” and “{UnitReader.Called(open, other)}”",
                        $"one pocket more, words at {fit.SizePt.ToString("0.##", CultureInfo.InvariantCulture)} pt", PieceId: card.Id, OtherId: other.Id);
                }
            }
        }

        return null;
    }
}
