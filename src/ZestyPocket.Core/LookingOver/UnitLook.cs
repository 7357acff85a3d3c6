using System.Globalization;
using NodaTime;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.LookingOver;

/// <summary>
/// Looks over one unit: pure functions of what lies on its desk. Each finding has a remedy where there is one, and the
/// remedy makes it go.
/// </summary>
public sealed class UnitLook
{
    /// <summary>Darker than this a picture is dark, in CIE L*. A choice of this program.</summary>
    public const double Dark = 42;

    /// <summary>So many dark pictures that touch are a clump.</summary>
    public const int Clump = 3;

    /// <summary>The share of a page by which one side may outweigh the other. A choice of this program.</summary>
    public const double Uneven = 0.14;

    private readonly Guid _unitId;
    private readonly UnitDesk _desk;
    private readonly ITextShaper _shaper;
    private readonly Pages _pages;
    private readonly bool _remedies;
    private readonly List<PlacedPhoto> _photos;

    private UnitLook(Guid unitId, UnitDesk desk, ITextShaper shaper, Pages pages, bool remedies)
    {
        (_unitId, _desk, _shaper, _pages, _remedies) = (unitId, desk, shaper, pages, remedies);
        _photos = [.. PlacedPhoto.On(desk)];
    }

    /// <summary>What stays while pieces are swapped: the pockets, which of them touch, fits of cards.</summary>
    private sealed record Pages(
        IReadOnlyList<PocketToFill> Pockets,
        IReadOnlyList<(int First, int Second, int Edge)> Neighbours
    )
    {
        public Dictionary<(Guid CardId, Size Room), FitOutcome> Fits { get; } = [];

        public static Pages Of(UnitDesk desk)
        {
            var pockets = DeskQuestion.PocketsOf(desk);
            return new Pages(pockets, [.. DeskQuestion.NeighboursOf(pockets)]);
        }
    }

    /// <summary>Everything to look at, in the order of the rules and of the pockets.</summary>
    public static IReadOnlyList<Finding> Over(Guid unitId, UnitDesk desk, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(shaper);
        // A unit that nobody has begun has nothing wrong yet.
        return desk.Content.Placements.IsEmpty
            ? []
            : new UnitLook(unitId, desk, shaper, Pages.Of(desk), remedies: true).All();
    }

    private List<Finding> All() =>
        [
            .. Empty(),
            .. Prints(),
            .. Cards(),
            .. EmptyCards(),
            .. Lookalikes(),
            .. Pairs(),
            .. Clumps(),
            .. Leaning(),
            .. Colours(),
            .. Ornaments(),
            .. Days(),
            .. Twice(),
        ];

    private IEnumerable<Finding> Empty()
    {
        var open = _desk
            .Pages.Pockets.Where(p => _desk.Content.At(p.Place) is null && !_desk.Content.LeftEmpty.Contains(p.Place))
            .ToList();
        // Loose is not enough: a keepsake may be too large for what is open, a wished size may not be there.
        var loose = open.Count > 0 && CanBeFilled();
        // Filling mends them all at once; leaving empty is said of each.
        var many = loose && open.Count > 1;
        var words = many
            ? $"{NumberWords.Counted(open.Count, "pocket")} of {_desk.Title} are empty, and there is more to place."
            : "This pocket is empty.";
        return open.Take(many ? 1 : open.Count)
            .Select(p =>
                Of(FindingRule.EmptyPocket, p.Place, "empty", words, 2) with
                {
                    Mend = loose ? new FillSpread { Revision = 0 } : new LeaveEmpty(p.Place, true) { Revision = 0 },
                    MendLabel = loose ? "Fill the spread" : "Leave it empty",
                }
            );
    }

    private bool CanBeFilled()
    {
        var question = DeskQuestion.Of(_desk, _shaper);
        var staying = question.Pockets.Select(p => p.Stays).ToHashSet();
        return question.Pockets.Any(p =>
            p is { Stays: < 0, StaysEmpty: false }
            && question
                .Prices[question.Pockets.IndexOf(p)]
                .Where((price, candidate) => price is not null && !staying.Contains(candidate))
                .Any()
        );
    }

    private IEnumerable<Finding> Prints()
    {
        foreach (var print in _photos)
        {
            if (print.PixelsPerInch < Resolution.FairPixelsPerInch - 0.5)
            {
                yield return WithSwap(
                    Of(
                        FindingRule.LowResolution,
                        print.Place,
                        $"{print.Photo.Id}",
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{print.Photo.FileName} prints at {print.PixelsPerInch:0} ppi: it will look soft."
                        ),
                        print.PixelsPerInch < Resolution.PoorPixelsPerInch ? 3 : 2
                    ),
                    print.Place
                );
            }

            if (print.CutsThrough)
            {
                var finding = Of(
                    FindingRule.CutThrough,
                    print.Place,
                    $"{print.Photo.Id}",
                    $"{print.Photo.FileName} is cropped through what must stay.",
                    3
                );
                yield return print.WouldKeepAround
                    ? finding with
                    {
                        Mend = new FramePhoto(print.Print.Id, print.Photo.Around) { Revision = 0 },
                        MendLabel = "Frame it around that",
                    }
                    : WithSwap(finding, print.Place);
            }

            if (print.Stray(_desk) is var stray and not StrayPlace.None)
            {
                yield return WithSwap(
                    Of(
                        FindingRule.OnHolesOrFold,
                        print.Place,
                        $"{print.Photo.Id}",
                        stray == StrayPlace.Fold
                            ? $"What matters of {print.Photo.FileName} lies on the fold."
                            : $"What matters of {print.Photo.FileName} lies where the page is punched.",
                        3
                    ),
                    print.Place
                );
            }
        }
    }

    private IEnumerable<Finding> Cards()
    {
        string[] names = [.. _desk.Words.People.Select(p => p.Name)];
        foreach (var card in _desk.Content.Pieces.OfType<Card>())
        {
            var typed =
                !ComputedCards.IsComputed(card.Kind)
                && CardStyle.RoleOf(card.Kind) is not (StyleRole.Title or StyleRole.Filler);
            if (!typed || _desk.Content.PlaceOf(card.Id) is not { } lies)
            {
                continue;
            }

            var fit = FitOf(card);
            if (!fit.Fits && card.Setting is not { ByHand: true })
            {
                yield return WithSwap(
                    Of(
                        FindingRule.WordsCutOff,
                        lies.Place,
                        $"{card.Id}",
                        $"{NumberWords.Counted(fit.WordsOver, "word")} of the card "
                            + $"{(fit.WordsOver == 1 ? "has" : "have")} no room.",
                        3
                    ),
                    lies.Place
                );
            }

            // A swap changes no words, and the words of a story are looked over with it.
            if (card.StoryId is not null || !_remedies)
            {
                continue;
            }

            foreach (var wrong in WordChecks.Of(card.Words, DaysOf(card), names, _desk.Style.Order))
            {
                yield return Of(
                    FindingRule.WordsWrong,
                    lies.Place,
                    $"{card.Id} {wrong.Kind} {wrong.Start} {wrong.Found}",
                    wrong.Found.Trim().Length > 0 ? $"“{wrong.Found}”: {wrong.Says}" : wrong.Says,
                    2
                ) with
                {
                    Mend = wrong.Mend is null
                        ? null
                        : new WriteCard(card.Id, WordChecks.Mended(card.Words, wrong)) { Revision = 0 },
                    MendLabel =
                        wrong.Mend is null ? null
                        : wrong.Mend.Trim().Length > 0 ? $"Write “{wrong.Mend}”"
                        : "Remove it",
                };
            }
        }
    }

    private IEnumerable<Finding> EmptyCards() =>
        from card in _desk.Content.Pieces.OfType<Card>()
        let place = _desk.Content.PlaceOf(card.Id)?.Place
        let says = place is null ? null : EmptyCard.Says(_desk, card)
        where says is not null
        select Of(FindingRule.CardEmpty, place.Value, $"{card.Id}", says, 2) with
        {
            Mend = new DiscardPiece(card.Id) { Revision = 0 },
            MendLabel = "Delete the card",
        };

    /// <summary>
    /// Stories of a unit's days that are on no card of the album, also when nothing lies in its pockets yet.
    /// </summary>
    /// <param name="stories">That are told in the unit.</param>
    /// <param name="onCards">Stories that stand on a card somewhere.</param>
    public static IReadOnlyList<Finding> Untold(
        Guid unitId,
        UnitDesk desk,
        IEnumerable<StoryOfDays> stories,
        IReadOnlySet<Guid> onCards
    )
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(stories);
        ArgumentNullException.ThrowIfNull(onCards);
        return
        [
            .. stories
                .Where(s => !string.IsNullOrWhiteSpace(s.Words) && !onCards.Contains(s.Id))
                .Select(s =>
                    new Finding(
                        FindingRule.StoryUntold,
                        $"{FindingRule.StoryUntold} {unitId} {s.Id}",
                        unitId,
                        null,
                        desk.Title,
                        $"The story “{Beginning(s)}” is on no card.",
                        2
                    ) with
                    {
                        Opens = FindingRoom.Stories,
                        MendLabel = "Open the story",
                    }
                ),
        ];

        static string Beginning(StoryOfDays story)
        {
            var words = story.Words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
            return story.Title.Length > 0 ? story.Title
                : words.Length <= 8 ? string.Join(' ', words)
                : string.Join(' ', words.Take(8)) + " …";
        }
    }

    private FitOutcome FitOf(Card card)
    {
        var room = _desk.Pages.RoomOf(_desk.Content, card);
        if (!_pages.Fits.TryGetValue((card.Id, room), out var fit))
        {
            var heading = ComputedCards.Heading(card.Kind) is not null;
            fit = CardComposer.Fit(card.Words, _desk.StyleOf(card), room, _shaper, heading);
            _pages.Fits.Add((card.Id, room), fit);
        }

        return fit;
    }

    private IReadOnlyList<LocalDate> DaysOf(Card card) =>
        WordChecks.DaysOf(card.Day, [], _desk.Dates.First, _desk.Dates.Last);

    private IEnumerable<Finding> Lookalikes()
    {
        foreach (var (one, two) in Touching())
        {
            if (
                one.Photo.GroupId is { } moment
                && moment == two.Photo.GroupId
                && (one.Photo.SeriesId is null || one.Photo.SeriesId != two.Photo.SeriesId)
                && one.Photo.Id != two.Photo.Id
            )
            {
                yield return WithSwap(
                    Of(
                        FindingRule.LookalikesTouch,
                        two.Place,
                        $"{one.Photo.Id} {two.Photo.Id}",
                        $"{two.Photo.FileName} lies beside {one.Photo.FileName}, a picture of the same moment.",
                        1
                    ),
                    two.Place,
                    one.Place
                );
            }
        }
    }

    private IEnumerable<Finding> Pairs()
    {
        var at = _pages.Pockets.Select((p, i) => (p.Place, i)).ToDictionary(p => p.Place, p => p.i);
        foreach (var card in _desk.Content.Pieces.OfType<Card>().Where(c => c.PairedWith is not null))
        {
            if (
                _desk.Content.PlacementOf(card.Id) is not { } lies
                || !at.TryGetValue(lies.Place, out var pocket)
                || _photos.Find(p => p.Photo.Id == card.PairedWith) is not { } picture
                || _pages.Neighbours.Any(n =>
                    (n.First == pocket && n.Second == at[picture.Place])
                    || (n.Second == pocket && n.First == at[picture.Place])
                )
            )
            {
                continue;
            }

            yield return WithSwap(
                Of(
                    FindingRule.PairApart,
                    lies.Place,
                    $"{card.Id} {picture.Photo.Id}",
                    $"This card is to lie beside {picture.Photo.FileName}, which lies in "
                        + $"{_desk.Pages.CodeOf(picture.Place)}.",
                    1
                ),
                lies.Place,
                picture.Place
            );
        }
    }

    private IEnumerable<Finding> Clumps()
    {
        var dark = _photos.Where(p => p.Photo.Tone < Dark).ToList();
        var left = new HashSet<PocketPlace>(dark.Select(p => p.Place));
        var touching = Touching().Where(t => left.Contains(t.One.Place) && left.Contains(t.Two.Place)).ToList();
        foreach (var start in dark.Where(p => left.Contains(p.Place)))
        {
            var clump = new List<PocketPlace> { start.Place };
            for (var i = 0; i < clump.Count; i++)
            {
                foreach (var (one, two) in touching)
                {
                    var next =
                        one.Place == clump[i] ? two.Place
                        : two.Place == clump[i] ? one.Place
                        : (PocketPlace?)null;
                    if (next is { } found && !clump.Contains(found))
                    {
                        clump.Add(found);
                    }
                }
            }

            left.ExceptWith(clump);
            if (clump.Count >= Clump)
            {
                yield return WithSwap(
                    Of(
                        FindingRule.DarkClump,
                        start.Place,
                        string.Join(' ', clump.Select(p => _desk.Content.At(p)!.Value.PieceId).Order()),
                        $"{NumberWords.Counted(clump.Count, "dark picture")} lie in a clump.",
                        1
                    ),
                    [.. clump]
                );
            }
        }
    }

    private IEnumerable<Finding> Leaning()
    {
        foreach (var balance in SpreadBalance.Of(_desk, _pages.Pockets))
        {
            if (Math.Abs(balance.RightLessLeft) > Uneven && balance.IsFilled)
            {
                var side = balance.RightLessLeft > 0 ? "right" : "left";
                yield return WithSwap(
                    new Finding(
                        FindingRule.OneSideHeavier,
                        $"{FindingRule.OneSideHeavier} {_unitId} {balance.Spread}",
                        _unitId,
                        null,
                        _desk.Title,
                        $"The {side} page is darker and stronger in colour than the other.",
                        1
                    ),
                    [.. _photos.Select(p => p.Place)]
                );
            }
        }
    }

    private IEnumerable<Finding> Colours()
    {
        if (_desk.Words.MostColourful is not { } most)
        {
            yield break;
        }

        foreach (var colours in SpreadColours.Of(_desk, _pages.Pockets).Where(s => s.Colourfulness > most))
        {
            var tools = new EditTools(() => Guid.Empty, _shaper);
            // Of those that are enough, the one that changes least.
            var way = CalmerWays.Of(_desk, _pages.Pockets, colours.Spread, tools).LastOrDefault(w => w.After <= most);
            yield return new Finding(
                FindingRule.TooColourful,
                $"{FindingRule.TooColourful} {_unitId} {colours.Spread}",
                _unitId,
                null,
                _desk.Title,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The spread is very colourful: {colours.Colourfulness:0} where the album allows {most:0}."
                ),
                1
            )
            {
                Mend = way?.Edit,
                MendLabel = way is null ? null : $"Use {way.Words}",
            };
        }
    }

    /// <summary>
    /// Two, four or more things stuck on are said; one alone is an accent, and a pattern is the keeper's.
    /// </summary>
    private IEnumerable<Finding> Ornaments() =>
        from spread in _pages.Pockets.GroupBy(p => p.Spread)
        let count = spread
            .Select(p => _desk.Content.At(p.Place))
            .Where(lies => lies is not null)
            .Select(lies => _desk.Content.Find(lies!.Value.PieceId))
            .OfType<Piece>()
            .Sum(piece => piece.Steps.Where(s => s.Kind == HandStepKind.StickOn).Sum(s => s.Things))
        where count > 0 && count % 2 == 0
        select new Finding(
            FindingRule.OrnamentsEven,
            $"{FindingRule.OrnamentsEven} {_unitId} {spread.Key} {count}",
            _unitId,
            null,
            _desk.Title,
            $"{NumberWords.Counted(count, "thing")} are stuck onto this spread: an odd number looks less stiff.",
            1
        );

    private IEnumerable<Finding> Days()
    {
        if (_desk.Dates.Kind == UnitKind.Hour || _desk.Dates.First == _desk.Dates.Last)
        {
            yield break;
        }

        var told = _desk.Content.Pieces.OfType<Card>().Select(c => c.Day).ToHashSet();
        var shown = _photos.Select(p => p.Photo.Photo.Day).ToHashSet();
        var inside = _desk.Content.PhotosPlaced;
        foreach (
            var day in _desk.Photos.Values.GroupBy(p => p.Photo.Day).Where(g => g.Key is not null).OrderBy(g => g.Key)
        )
        {
            if (!shown.Contains(day.Key) && !told.Contains(day.Key) && !day.Any(p => inside.Contains(p.Id)))
            {
                var label = SpanLabel.Day(day.Key!.Value, _desk.Style.Order);
                yield return new Finding(
                    FindingRule.DayWithNothing,
                    $"{FindingRule.DayWithNothing} {_unitId} {day.Key}",
                    _unitId,
                    null,
                    _desk.Title,
                    $"{label} has {NumberWords.Counted(day.Count(), "photo")}, but neither a picture in a pocket nor "
                        + "words of its own.",
                    1
                )
                {
                    Mend = new AddCard(CardKind.Journaling, Day: day.Key) { Revision = 0 },
                    MendLabel = "Add a card for it",
                };
            }
        }
    }

    private IEnumerable<Finding> Twice() =>
        _photos
            .Where(p => p.Print.SpanId is null)
            .GroupBy(p => p.Photo.Id)
            .Where(g => g.Skip(1).Any())
            .Select(g =>
                Of(
                    FindingRule.PictureTwice,
                    g.Last().Place,
                    $"{g.Key}",
                    $"{g.First().Photo.FileName} lies in {_desk.Pages.CodeOf(g.First().Place)} too.",
                    2
                ) with
                {
                    Mend = new TakeOut(g.Last().Place) { Revision = 0 },
                    MendLabel = "Move to tray",
                }
            );

    private IEnumerable<(PlacedPhoto One, PlacedPhoto Two)> Touching()
    {
        var at = _photos.ToDictionary(p => p.Place);
        foreach (var (first, second, _) in _pages.Neighbours)
        {
            if (
                at.TryGetValue(_pages.Pockets[first].Place, out var one)
                && at.TryGetValue(_pages.Pockets[second].Place, out var two)
            )
            {
                yield return (one, two);
            }
        }
    }

    private Finding Of(FindingRule rule, PocketPlace place, string about, string words, int weight) =>
        new(
            rule,
            $"{rule} {_unitId} {place.LeafId} {place.Side} {place.PocketKey} {about}",
            _unitId,
            place,
            _desk.Pages.CodeOf(place) ?? _desk.Title,
            words,
            weight
        );

    /// <summary>
    /// With the first swap of one of these pockets after which fewer findings of the rule are left and all findings
    /// together weigh less; without one when there is none.
    /// </summary>
    private Finding WithSwap(Finding finding, params PocketPlace[] from)
    {
        if (!_remedies || SwapMending(finding, from) is not { } swap)
        {
            return finding;
        }

        return finding with
        {
            Mend = swap,
            MendLabel = $"Swap with {_desk.Pages.CodeOf(swap.Place)}",
        };
    }

    private MovePiece? SwapMending(Finding finding, PocketPlace[] from)
    {
        var plain = new UnitLook(_unitId, _desk, _shaper, _pages, remedies: false);
        var (now, weighed) = Weighed(plain, finding.Rule);
        MovePiece? best = null;
        var least = weighed;
        foreach (var one in from.Where(IsMovable))
        {
            foreach (var two in _pages.Pockets.Select(p => p.Place).Where(p => p != one && IsMovable(p)))
            {
                var move = new MovePiece(_desk.Content.At(one)!.Value.PieceId, two) { Revision = 0 };
                var moved = _desk with { Content = _desk.Content.Put(move.PieceId, two) };
                var look = new UnitLook(_unitId, moved, _shaper, _pages, remedies: false);
                var (left, weight) = Weighed(look, finding.Rule);
                if (left < now && weight < least)
                {
                    (best, least) = (move, weight);
                }
            }
        }

        return best;
    }

    /// <summary>
    /// How many findings of a rule there are, and what all weigh; what is cropped away weighs a little, so that of two
    /// swaps the one that crops less is taken.
    /// </summary>
    private static (int OfRule, double All) Weighed(UnitLook look, FindingRule rule)
    {
        List<Finding> all =
        [
            .. look.Prints(),
            .. look.Cards(),
            .. look.Lookalikes(),
            .. look.Pairs(),
            .. look.Clumps(),
            .. look.Leaning(),
        ];
        return (all.Count(f => f.Rule == rule), all.Sum(f => f.Weight) + look._photos.Sum(p => p.CropLoss));
    }

    private bool IsMovable(PocketPlace place) =>
        _desk.Content.At(place) is { Locked: false } lies
        && !_desk.Pages.IsStuck(place)
        && _desk.Content.Find(lies.PieceId) is PhotoPrint { SpanId: null } or Card;
}
