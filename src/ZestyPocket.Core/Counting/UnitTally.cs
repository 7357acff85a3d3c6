using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Counting;

/// <summary>A story that tells of days.</summary>
public sealed record StoryOfDays(Guid Id, string Words, LocalDate FirstDay)
{
    /// <summary>May be empty.</summary>
    public string Title { get; init; } = string.Empty;
}

/// <summary>Pieces of one kind that want pockets.</summary>
public sealed record WantedPieces(string Name, WantKind Kind, int Count);

/// <summary>
/// The tally of a unit: its pieces against the pockets of its pages. Pictures, collages, cards and keepsakes want a
/// pocket each, a picture over several pockets one for each slice, a story that is on no card yet as many as it needs.
/// Common practice.
/// </summary>
public sealed class UnitTally
{
    private readonly UnitDesk _desk;
    private readonly ITextShaper _shaper;
    private readonly ImmutableArray<StoryOfDays> _untold;

    /// <param name="stories">The stories that tell of a day of the unit; those on cards are left out.</param>
    public UnitTally(UnitDesk desk, IEnumerable<StoryOfDays> stories, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(desk);
        (_desk, _shaper) = (desk, shaper);
        _untold =
        [
            // A story of several units is told in the first.
            .. stories.Where(s =>
                s.Words.Trim().Length > 0 && desk.Content.CardsOf(s.Id).IsEmpty && s.FirstDay >= desk.Dates.First
            ),
        ];
        Pockets = [.. desk.Pages.Pockets.Where(p => !desk.Content.LeftEmpty.Contains(p.Place)).Select(p => p.Place)];
    }

    /// <summary>The pockets that count: those left empty on purpose do not.</summary>
    public ImmutableArray<PocketPlace> Pockets { get; }

    /// <summary>Everything that wants a pocket, with the pockets of the album's designs it can go into.</summary>
    public ImmutableArray<Want> Wants => field.IsDefault ? field = [.. AllWants()] : field;

    public int Pieces => Wants.Length;

    public int Placed => Pockets.Count(p => _desk.Content.At(p) is not null);

    /// <summary>Pockets that are missing.</summary>
    public int Lacking => Math.Max(0, Pieces - Pockets.Length);

    /// <summary>Pockets that stay empty when every piece has one.</summary>
    public int Free => Math.Max(0, Pockets.Length - Pieces);

    /// <summary>How many pockets the stories want that are on no card yet.</summary>
    public int UntoldPieces
    {
        get
        {
            var sizes = SizesOfPockets();
            return Needs(sizes, sizes).Sum(n => n.Fewest);
        }
    }

    /// <summary>How many pockets the pieces want, but for untold stories: quicker than <see cref="Wants"/>.</summary>
    public int PiecesButStories
    {
        get
        {
            var content = _desk.Content;
            var inCollages = NeedingNoPocket(content);
            // Of a picture over several pockets each slice wants one; every other picture one, printed yet or not.
            var slices = content.Pieces.OfType<PhotoPrint>().Where(p => p.SpanId is not null).ToList();
            return _desk.Photos.Keys.Count(id => !inCollages.Contains(id))
                + slices.Count
                - slices.Select(p => p.PhotoId).Distinct().Count()
                + PiecesInPockets.Count(p =>
                    p is Card or Collage or Composition or BoughtCard or Keepsake { InEnvelope: false }
                    || (p is PhotoPrint guest && !_desk.Photos.ContainsKey(guest.PhotoId))
                );
        }
    }

    /// <summary>Pieces that want a pocket: what goes with another piece has that one's.</summary>
    private IEnumerable<Piece> PiecesInPockets => _desk.Content.Pieces.Where(p => p.Attachment is null);

    /// <summary>How many pieces go with others: flips, tags, backs, labels.</summary>
    public int PiecesOnOthers => _desk.Content.Pieces.Count(p => p.Attachment is not null);

    private string OnOthers =>
        PiecesOnOthers == 0
            ? string.Empty
            : $" {NumberWords.Counted(PiecesOnOthers, "more piece lies", "more pieces lie")} with others.";

    /// <summary>Pictures in a collage or a composition, or on a piece that goes with another one.</summary>
    private static HashSet<Guid> NeedingNoPocket(UnitContent content) =>
        content
            .Pieces.SelectMany(p => p.PhotosInside)
            .Concat(content.Pieces.OfType<PhotoPrint>().Where(p => p.Attachment is not null).Select(p => p.PhotoId))
            .ToHashSet();

    /// <summary>The pieces kind by kind.</summary>
    public IReadOnlyList<WantedPieces> Wanted =>
        [
            .. Wants
                .GroupBy(w => (w.Name, w.Kind))
                .Select(g => new WantedPieces(g.Key.Name, g.Key.Kind, g.Count()))
                .OrderBy(w => w.Kind)
                .ThenByDescending(w => w.Count),
        ];

    /// <summary>The sum in words.</summary>
    public string Sum
    {
        get
        {
            var parts = Wanted.Select(w =>
                string.Create(CultureInfo.InvariantCulture, $"{w.Count} {(w.Count == 1 ? Singular(w.Name) : w.Name)}")
            );
            var (pieces, pockets) = (Pieces, Pockets.Length);
            var outcome =
                pieces > pockets ? $"{pieces - pockets} short"
                : pieces < pockets ? $"{pockets - pieces} free"
                : "it comes out even";
            return pieces == 0
                ? string.Create(CultureInfo.InvariantCulture, $"Nothing yet; {pockets} pockets free.")
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{string.Join(" + ", parts)} = {pieces} {(pieces == 1 ? "piece" : "pieces")}; {pockets} "
                        + $"{(pockets == 1 ? "pocket" : "pockets")}: {outcome}.{OnOthers}"
                );
        }
    }

    /// <summary>
    /// Faces come in twos: when the pieces leave the last face without content, a full-size picture fills it. Common
    /// practice, arithmetic. Null when there is nothing to say.
    /// </summary>
    public string? Hint
    {
        get
        {
            var faces = _desk.Pages.Faces.Where(f => f.Pockets.Any()).ToList();
            if (Pieces == 0 || faces.Count < 2 || _desk.Dates.LeftOut)
            {
                return null;
            }

            var butOne = faces.SkipLast(1).Sum(f => f.Pockets.Count());
            return Pieces <= butOne
                ? $"The pieces fill {NumberWords.Of(FacesFor(faces, Pieces))} of {NumberWords.Of(faces.Count)} pages "
                    + "and the last stays without content: a full-size picture would fill it, or a favourite over "
                    + "several pockets."
                : null;
        }
    }

    /// <summary>What the unit lacks of a formula.</summary>
    public FormulaGap GapOf(Formula formula)
    {
        ArgumentNullException.ThrowIfNull(formula);
        return formula.GapOf(
            _desk.Photos.Count,
            _desk.Content.CardsOfWords.Count() + Wants.Count(w => w.Kind == WantKind.Story),
            _desk.Content.HasTitle,
            Pieces,
            _desk.Pages.Faces.Sum(f => f.Pockets.Count())
        );
    }

    private static int FacesFor(List<UnitFace> faces, int pieces)
    {
        var (count, room) = (0, 0);
        while (room < pieces && count < faces.Count)
        {
            room += faces[count++].Pockets.Count();
        }

        return count;
    }

    private IEnumerable<Want> AllWants()
    {
        var cutsOf = CutsOfNominalSizes();
        var sizes = cutsOf
            .SelectMany(c => c)
            .Concat(
                cutsOf
                    .Where(c => DesignDraft.BoughtSizes.Contains(FusedOffers.HalfOf(c.Key)))
                    .Select(c => FusedOffers.HalfOf(c.Key))
            )
            .Distinct()
            .ToList();
        var ofPockets = SizesOfPockets();
        return PicturesWant(sizes, cutsOf)
            .Concat(PiecesInPockets.OfType<Collage>().Select(c => Want.Together(c, sizes)))
            .Concat(PiecesInPockets.OfType<Card>().Select(c => CardWants(c, sizes, ofPockets)))
            .Concat(PiecesInPockets.OfType<Keepsake>().Where(k => !k.InEnvelope).Select(k => Want.Flat(k, sizes)))
            .Concat(
                Needs(sizes, ofPockets)
                    .SelectMany(n =>
                        Enumerable.Repeat(
                            Want.Words(
                                WantKind.Story,
                                "untold stories",
                                sizes,
                                s => n.Cards[s] > 0 && n.Cards[s] <= n.Fewest
                            ),
                            n.Fewest
                        )
                    )
            );
    }

    private ILookup<Size, Size> CutsOfNominalSizes() =>
        _desk
            .Protectors.Select(p => p.Protector)
            .Concat(_desk.Pages.Faces.Select(f => f.Protector))
            .SelectMany(p =>
                p.Design.Face(LeafSide.Front)
                    .Concat(p.Design.Face(LeafSide.Back))
                    .Select(f => (f.Nominal, Cut: p.CutSize(f)))
            )
            .Distinct()
            .ToLookup(p => p.Nominal, p => p.Cut);

    private IEnumerable<Want> PicturesWant(List<Size> sizes, ILookup<Size, Size> cutsOf)
    {
        var content = _desk.Content;
        var inCollages = NeedingNoPocket(content);
        var spanning = content.Pieces.OfType<PhotoPrint>().Where(p => p.SpanId is not null).ToList();
        foreach (
            var photo in _desk.Photos.Values.Where(p =>
                !inCollages.Contains(p.Id) && spanning.TrueForAll(s => s.PhotoId != p.Id)
            )
        )
        {
            var want = Want.Picture(photo.Photo.Pixels, sizes);
            yield return content.WishFor(photo.Id) is { } size ? want.Only(cutsOf[size].ToHashSet()) : want;
        }

        // A print from another unit stays where it is stuck, and each slice where it lies.
        var guests = PiecesInPockets
            .OfType<PhotoPrint>()
            .Where(p => p.SpanId is null && _desk.Guests.Contains(p.PhotoId));
        foreach (
            var (print, name) in guests
                .Select(g => (g, "pictures stuck to others"))
                .Concat(spanning.Select(s => (s, "parts of large pictures")))
                .Select(p => ((Piece)p.Item1, p.Item2))
                .Concat(PiecesInPockets.OfType<Composition>().Select(c => ((Piece)c, "compositions")))
                .Concat(PiecesInPockets.OfType<BoughtCard>().Select(c => ((Piece)c, "bought cards")))
        )
        {
            yield return Want.Words(WantKind.Picture, name, [_desk.Pages.CutSizeOf(content, print)], _ => true);
        }
    }

    private Want CardWants(Card card, List<Size> sizes, List<Size> ofPockets)
    {
        var style = _desk.StyleOf(card);
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
        return Want.Words(
            WantKind.Card,
            name,
            sizes,
            s => anywhere || s == largest || CardComposer.Fit(card.Words, style, s, _shaper, heading).Fits
        );
    }

    /// <summary>
    /// A sheet outside the pockets may take words too, but what they want is measured by pockets that can be chosen.
    /// </summary>
    private List<Size> SizesOfPockets() =>
        [
            .. _desk
                .Protectors.Where(p => !p.GivenUp)
                .Select(p => p.Protector)
                .Where(p => p.Form.Kind == LeafKind.Pockets)
                .SelectMany(p => p.Design.Pockets.Select(f => p.CutSize(f)))
                .Distinct(),
        ];

    /// <summary>Untold stories, each with the cards it needs in each size and the fewest of them.</summary>
    private IEnumerable<(Dictionary<Size, int> Cards, int Fewest)> Needs(List<Size> sizes, List<Size> ofPockets)
    {
        var style = _desk.Words.NewStyle(CardKind.Journaling).WithoutPicture();
        foreach (var story in _untold)
        {
            var cards = sizes
                .Union(ofPockets)
                .ToDictionary(
                    s => s,
                    s => StoryFlow.Needed(story.Words, style, s, TypeRange.ComfortableOnCardsPt, _shaper).Cards
                );
            yield return (cards, ofPockets.Select(s => cards[s]).Where(n => n > 0).DefaultIfEmpty(1).Min());
        }
    }

    private static string Singular(string name) => name == "untold stories" ? "untold story" : name.TrimEnd('s');
}
