using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Placing;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Counting;

/// <summary>Counts pieces against pockets and names the moves people make.</summary>
public sealed class CountReader(ZestyContext db, UnitOpener opener, CountMoves moves, FontShelf fonts)
{
    public async Task<CountView> CountAsync(Guid unitId, CancellationToken cancel) =>
        await CountAsync(await opener.OpenAsync(unitId, cancel), cancel);

    /// <summary>Counts several units of an album, in the order asked for.</summary>
    public async Task<IReadOnlyList<CountView>> CountAsync(IReadOnlyList<Guid> unitIds, CancellationToken cancel)
    {
        var views = new List<CountView>();
        foreach (var open in await opener.OpenManyAsync(unitIds, cancel))
        {
            views.Add(await CountAsync(open, cancel));
        }

        return views;
    }

    private async Task<CountView> CountAsync(OpenUnit open, CancellationToken cancel)
    {
        var wants = await WantsAsync(open, cancel);
        var pockets = open.Pockets.Where(p => !open.Content.Clear.Contains(p.Place)).ToList();
        var placed = pockets.Count(p => open.Content.At(p.Place) is not null);
        var (missing, free) = (Math.Max(0, wants.Count - pockets.Count), Math.Max(0, pockets.Count - wants.Count));
        var leaves = await LeavesAsync(open, cancel);
        var wanted = wants
            .GroupBy(w => (w.Name, w.Kind))
            .Select(g => new WantedView(g.Key.Name, g.Key.Kind, g.Count()))
            .OrderBy(w => w.Kind)
            .ThenByDescending(w => w.Count)
            .ToList();
        return new CountView(
            open.Unit.Id,
            open.Unit.Revision,
            open.Title,
            open.Dates.Span(open.Calendar.Style),
            Sum(wanted, wants.Count, pockets.Count),
            wants.Count,
            pockets.Count,
            placed,
            missing,
            free,
            wanted,
            [
                .. pockets
                    .GroupBy(p => p.Face.Protector.CutSize(p.Pocket))
                    .OrderByDescending(g => g.Count())
                    .ThenBy(g => g.Key.SquareInches)
                    .Select(g => new PocketsView(
                        MeasureText.Show(g.Key, open.Album.Measures),
                        g.Count(),
                        g.Count(p => open.Content.At(p.Place) is null)
                    )),
            ],
            leaves,
            open.Dates.LeftOut ? [] : await moves.OfAsync(open, leaves, missing, free, cancel),
            open.Content.Clear.Length,
            open.Faces.Count(f => f.Pockets.Any()),
            open.Faces.Count(f =>
                f.Pockets.Any()
                && !open.Content.Placements.Any(p => p.Place.LeafId == f.Leaf.Id && p.Place.Side == f.Side)
            ),
            Hint(open, wants.Count),
            Followed(open, wants),
            open.Content.KeepsItsPages
        );
    }

    /// <summary>
    /// Faces come in twos: when the pieces leave the last face without content, a full-size picture fills it. Common
    /// practice, arithmetic.
    /// </summary>
    private static string? Hint(OpenUnit open, int pieces)
    {
        var faces = open.Faces.Where(f => f.Pockets.Any()).ToList();
        if (pieces == 0 || faces.Count < 2 || open.Dates.LeftOut)
        {
            return null;
        }

        var butOne = faces.SkipLast(1).Sum(f => f.Pockets.Count());
        return pieces <= butOne
            ? $"The pieces fill {NumberWords.Of(FacesFor(faces, pieces))} of {NumberWords.Of(faces.Count)} pages "
                + "and the last stays without content: a full-size picture would fill it, or a favourite over "
                + "several pockets."
            : null;

        static int FacesFor(List<OpenFace> faces, int pieces)
        {
            var (count, room) = (0, 0);
            while (room < pieces && count < faces.Count)
            {
                room += faces[count++].Pockets.Count();
            }

            return count;
        }
    }

    /// <summary>The formula a part follows, and what it lacks of it while pictures can still be taken.</summary>
    private static FollowedFormula? Followed(OpenUnit open, IReadOnlyList<Want> wants)
    {
        if (open.Album.ReadFormulas().Of(open.Unit.Id) is not { } formula)
        {
            return null;
        }

        var gap = GapOf(open, wants, formula);
        return new FollowedFormula(
            formula.Id,
            formula.Name,
            gap.IsMet ? string.Empty : gap.Says(SpanLabel.Weekday(open.Dates.Last)),
            gap.Beyond == 0
                ? string.Empty
                : $"{NumberWords.Of(gap.Beyond)} {(gap.Beyond == 1 ? "piece goes" : "pieces go")} beyond it and "
                    + "onto a further leaf"
        );
    }

    /// <summary>What a part lacks of a formula.</summary>
    public static FormulaGap GapOf(OpenUnit open, IReadOnlyList<Want> wants, Formula formula)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(wants);
        ArgumentNullException.ThrowIfNull(formula);
        return formula.GapOf(
            open.Photos.Count,
            open.Content.CardsOfWords.Count() + wants.Count(w => w.Kind == WantKind.Story),
            open.Content.HasTitle,
            wants.Count,
            open.Faces.Sum(f => f.Pockets.Count())
        );
    }

    /// <summary>How many pockets the pieces of a unit want, but for its untold stories.</summary>
    public static int PiecesOf(OpenUnit open)
    {
        ArgumentNullException.ThrowIfNull(open);
        var content = open.Content;
        var inCollages = content.Pieces.OfType<Collage>().SelectMany(c => c.Photos).ToHashSet();
        // Of a picture over several pockets each slice wants one; every other picture wants one, printed yet or not.
        var slices = content.Pieces.OfType<PhotoPrint>().Where(p => p.SpanId is not null).ToList();
        return open.Photos.Keys.Count(id => !inCollages.Contains(id))
            + slices.Count
            - slices.Select(p => p.PhotoId).Distinct().Count()
            + content.Pieces.Count(p =>
                p is Card or Collage or Keepsake { InEnvelope: false }
                || (p is PhotoPrint guest && !open.Photos.ContainsKey(guest.PhotoId))
            );
    }

    /// <summary>
    /// Everything of a unit that wants a pocket, with the pockets of the album's designs it can go into.
    /// </summary>
    public async Task<IReadOnlyList<Want>> WantsAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var cutsOf = open
            .Album.Protectors.Select(p => p.ToProtector())
            .Concat(open.Faces.Select(f => f.Protector))
            .SelectMany(p =>
                p.Design.Face(LeafSide.Front)
                    .Concat(p.Design.Face(LeafSide.Back))
                    .Select(f => (f.Nominal, Cut: p.CutSize(f)))
            )
            .Distinct()
            .ToLookup(p => p.Nominal, p => p.Cut);
        var sizes = cutsOf
            .SelectMany(c => c)
            .Concat(
                cutsOf
                    .Where(c => FusedOffers.HalfOf(c.Key) is var half && DesignDraft.BoughtSizes.Contains(half))
                    .Select(c => FusedOffers.HalfOf(c.Key))
            )
            .Distinct()
            .ToList();
        var ofPockets = SizesOfPockets(open);
        var wants = new List<Want>();
        var inCollages = open.Content.Pieces.OfType<Collage>().SelectMany(c => c.Photos).ToHashSet();
        var spanning = open.Content.Pieces.OfType<PhotoPrint>().Where(p => p.SpanId is not null).ToList();
        foreach (
            var photo in open.Photos.Values.Where(p =>
                !inCollages.Contains(p.Id) && spanning.TrueForAll(s => s.PhotoId != p.Id)
            )
        )
        {
            var want = Want.Picture(photo.Pixels, sizes);
            wants.Add(open.Content.WishFor(photo.Id) is { } size ? want.Only(cutsOf[size].ToHashSet()) : want);
        }

        // A print from another unit stays where it is stuck.
        wants.AddRange(
            open.Content.Pieces.OfType<PhotoPrint>()
                .Where(p =>
                    p.SpanId is null && !open.Photos.ContainsKey(p.PhotoId) && open.PhotoOf(p.PhotoId) is not null
                )
                .Select(p => open.CutSizeOf(p))
                .Select(cut => Want.Words(WantKind.Picture, "pictures stuck to others", [cut], _ => true))
        );

        // Each slice stays where it lies.
        wants.AddRange(
            spanning
                .Select(s => open.CutSizeOf(s))
                .Select(cut => Want.Words(WantKind.Picture, "parts of large pictures", [cut], _ => true))
        );
        wants.AddRange(open.Content.Pieces.OfType<Collage>().Select(c => Want.Together(c, sizes)));
        foreach (var card in open.Content.Pieces.OfType<Card>())
        {
            var style = PieceFaces.StyleOf(open, card);
            // Titles and patterns fit everywhere; computed rows are short.
            var anywhere =
                CardStyle.RoleOf(card.Kind) is StyleRole.Title or StyleRole.Filler
                || ComputedCards.IsComputed(card.Kind)
                || string.IsNullOrWhiteSpace(card.Words);
            var heading = ComputedCards.Heading(card.Kind) is not null;
            // Words that fit nowhere still want a pocket: the largest.
            var largest = ofPockets.MaxBy(s => s.SquareInches);
            var name =
                CardStyle.RoleOf(card.Kind) == StyleRole.Title ? "title cards"
                : card.Kind == CardKind.Filler ? "filler cards"
                : "cards";
            wants.Add(
                Want.Words(
                    WantKind.Card,
                    name,
                    sizes,
                    s => anywhere || s == largest || CardComposer.Fit(card.Words, style, s, fonts, heading).Fits
                )
            );
        }

        wants.AddRange(
            open.Content.Pieces.OfType<Keepsake>().Where(k => !k.InEnvelope).Select(k => Want.Flat(k, sizes))
        );
        foreach (var (needed, fewest) in await UntoldAsync(open, sizes, ofPockets, cancel))
        {
            wants.AddRange(
                Enumerable.Repeat(
                    Want.Words(WantKind.Story, "untold stories", sizes, s => needed[s] > 0 && needed[s] <= fewest),
                    fewest
                )
            );
        }

        return wants;
    }

    /// <summary>How many pockets the stories of a unit want that are on no card yet.</summary>
    public async Task<int> UntoldAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var ofPockets = SizesOfPockets(open);
        return (await UntoldAsync(open, ofPockets, ofPockets, cancel)).Sum(s => s.Fewest);
    }

    /// <summary>
    /// A sheet outside the pockets may take words too, but what they want is measured by pockets that can be chosen.
    /// </summary>
    private static List<Size> SizesOfPockets(OpenUnit open) =>
        [
            .. open
                .Album.Protectors.Select(p => p.ToProtector())
                .Where(p => p.Form.Kind == LeafKind.Pockets)
                .SelectMany(p => p.Design.Pockets.Select(f => p.CutSize(f)))
                .Distinct(),
        ];

    /// <summary>Untold stories, each with the cards it needs in each size and the fewest of them.</summary>
    private async Task<List<(Dictionary<Size, int> Needed, int Fewest)>> UntoldAsync(
        OpenUnit open,
        List<Size> sizes,
        List<Size> ofPockets,
        CancellationToken cancel
    )
    {
        var (first, last, albumId) = (open.Dates.First, open.Dates.Last, open.Album.Id);
        var stories = await db
            .Stories.AsNoTracking()
            .Where(s => s.AlbumId == albumId && s.Days.Any(d => d >= first && d <= last))
            .ToListAsync(cancel);
        var style = open.Words.NewStyle(CardKind.Journaling).WithoutPicture();
        var untold = new List<(Dictionary<Size, int>, int)>();
        foreach (
            var story in stories.Where(s =>
                s.Words.Trim().Length > 0 && open.Content.CardsOf(s.Id).IsEmpty && s.Days[0] >= first
            )
        )
        {
            var needed = sizes
                .Union(ofPockets)
                .ToDictionary(
                    s => s,
                    s => StoryFlow.Needed(story.Words, style, s, TypeRange.ComfortableOnCardsPt, fonts).Cards
                );
            untold.Add((needed, ofPockets.Select(s => needed[s]).Where(n => n > 0).DefaultIfEmpty(1).Min()));
        }

        return untold;
    }

    /// <summary>The leaves of a unit in order, with what may be done to them.</summary>
    public async Task<IReadOnlyList<LeafView>> LeavesAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var views = new List<LeafView>();
        foreach (var faces in open.Faces.GroupBy(f => f.Leaf.Id))
        {
            var leaf = faces.First().Leaf;
            var otherId =
                faces.Count() == 2 ? null
                : faces.First().Side == LeafSide.Front ? leaf.BackUnitId
                : leaf.FrontUnitId;
            var other = otherId is { } id
                ? await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == id, cancel)
                : null;
            views.Add(
                new LeafView(
                    leaf.Id,
                    leaf.Revision,
                    leaf.ProtectorId,
                    faces.First().Protector.Design.Name,
                    faces.Count(),
                    open.Content.Placements.Count(p => p.Place.LeafId == leaf.Id),
                    faces.Sum(f => f.Pockets.Count()),
                    faces.First().Protector.Form.Kind,
                    // Another design is no loss when nothing is locked on it here and nothing lies on its other face.
                    faces.First().Protector.Form.Kind == LeafKind.Pockets
                        && !open.Content.HoldsOn(leaf.Id, locked: true)
                        && other?.Read().HoldsOn(leaf.Id) != true,
                    faces.Count() == 2 && open.Faces.Count > 2,
                    other?.ReadDates().Title(open.Calendar.Style)
                )
            );
        }

        return views;
    }

    private static string Sum(List<WantedView> wanted, int pieces, int pockets)
    {
        var parts = wanted.Select(w =>
            string.Create(CultureInfo.InvariantCulture, $"{w.Count} {(w.Count == 1 ? Singular(w.Name) : w.Name)}")
        );
        var outcome =
            pieces > pockets ? $"{pieces - pockets} short"
            : pieces < pockets ? $"{pockets - pieces} free"
            : "it comes out even";
        return pieces == 0
            ? string.Create(CultureInfo.InvariantCulture, $"Nothing yet; {pockets} pockets free.")
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{string.Join(" + ", parts)} = {pieces} {(pieces == 1 ? "piece" : "pieces")}; {pockets} "
                    + $"{(pockets == 1 ? "pocket" : "pockets")}: {outcome}."
            );
    }

    private static string Singular(string name) => name == "untold stories" ? "untold story" : name.TrimEnd('s');
}
