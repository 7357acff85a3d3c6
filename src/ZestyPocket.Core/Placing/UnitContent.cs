using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// What a unit (a week; later a day or an hour) holds: its pieces, and where those lie that are placed. Immutable;
/// every edit gives a new one or throws <see cref="RuleException"/> and changes nothing.
/// </summary>
/// <remarks>
/// Kept true by every edit: a pocket holds at most one piece, a piece lies in at most one pocket, every placement
/// names a piece that exists, and a photo print always lies in a pocket (out of it, the photo is loose again).
/// </remarks>
public sealed record UnitContent(ImmutableArray<Piece> Pieces, ImmutableArray<Placement> Placements)
{
    /// <summary>Longest story one card may carry, in characters; a page of type holds far less.</summary>
    public const int LongestWords = 20_000;

    public static UnitContent Empty { get; } = new([], []);

    /// <summary>Longest note, in characters.</summary>
    public const int LongestNote = 2_000;

    /// <summary>What a calendar or the keeper noted for the unit's days, to write from.</summary>
    public ImmutableArray<DayNote> Notes { get; init; } = [];

    /// <summary>Pockets that stay empty on purpose.</summary>
    public ImmutableArray<PocketPlace> LeftEmpty { get; init; } = [];

    /// <summary>Pictures that are wanted in one size of pocket only.</summary>
    public ImmutableArray<SizeWish> Wishes { get; init; } = [];

    /// <summary>It stays on the pages it has: no choice of pages gives it a further leaf.</summary>
    public bool KeepsItsPages { get; init; }

    /// <summary>What counts how much when its pockets are filled; null for what the album says.</summary>
    public PlacingWeights? Weights { get; init; }

    /// <summary>Colours its cards take from its pictures; null for those of their styles.</summary>
    public CardTint? Tint { get; init; }

    public Piece? Find(Guid pieceId) => Pieces.FirstOrDefault(p => p.Id == pieceId);

    public Placement? At(PocketPlace place) =>
        Placements.Where(p => p.Place == place).Select(p => (Placement?)p).FirstOrDefault();

    public Placement? PlacementOf(Guid pieceId) =>
        Placements.Where(p => p.PieceId == pieceId).Select(p => (Placement?)p).FirstOrDefault();

    /// <summary>What goes with a piece: over it, behind it, around it, on its back.</summary>
    public IEnumerable<Piece> AttachedTo(Guid pieceId) => Pieces.Where(p => p.Attachment?.To == pieceId);

    /// <summary>The piece that a piece goes with in the end; the piece itself when it goes with none.</summary>
    public Piece CarrierOf(Piece piece)
    {
        ArgumentNullException.ThrowIfNull(piece);
        var carrier = piece;
        // No chain is longer: a back on a flip on a piece.
        for (var step = 0; step < Attachments.Deepest && carrier.Attachment is { } goes; step++)
        {
            carrier = Find(goes.To) ?? carrier;
        }

        return carrier;
    }

    /// <summary>The placement of a piece, or of the piece it goes with.</summary>
    public Placement? PlaceOf(Guid pieceId) => Find(pieceId) is { } piece ? PlacementOf(CarrierOf(piece).Id) : null;

    /// <summary>
    /// Cards and keepsakes that lie in no pocket, go with no other piece and do not lie in the envelope.
    /// </summary>
    public IEnumerable<Piece> Loose =>
        Pieces.Where(p => PlacementOf(p.Id) is null && p.Attachment is null && p is not Keepsake { InEnvelope: true });

    /// <summary>Keepsakes that lie in the album's envelope.</summary>
    public IEnumerable<Keepsake> InEnvelope => Pieces.OfType<Keepsake>().Where(k => k.InEnvelope);

    /// <summary>Whether something lies on a leaf, or something locked when only that is asked.</summary>
    public bool HoldsOn(Guid leafId, bool locked = false) =>
        Placements.Any(p => p.Place.LeafId == leafId && (p.Locked || !locked));

    /// <summary>Photos that already have a print in a pocket or a cell of a collage.</summary>
    public IReadOnlySet<Guid> PhotosPlaced =>
        Pieces.OfType<PhotoPrint>().Select(p => p.PhotoId).Concat(Pieces.SelectMany(p => p.PhotosInside)).ToHashSet();

    /// <summary>Cards with words of their own, written or computed; titles and patterns are none.</summary>
    public IEnumerable<Card> CardsOfWords =>
        Pieces
            .OfType<Card>()
            .Where(c =>
                CardStyle.RoleOf(c.Kind) is not (StyleRole.Title or StyleRole.Filler)
                && (ComputedCards.IsComputed(c.Kind) || !string.IsNullOrWhiteSpace(c.Words))
            );

    /// <summary>It has a title card.</summary>
    public bool HasTitle => Pieces.OfType<Card>().Any(c => CardStyle.RoleOf(c.Kind) == StyleRole.Title);

    /// <summary>The slices of a picture that runs over several pockets, in the order they were cut.</summary>
    public ImmutableArray<PhotoPrint> SlicesOf(Guid spanId) =>
        [.. Pieces.OfType<PhotoPrint>().Where(p => p.SpanId == spanId)];

    /// <summary>
    /// Puts a loose photo into a pocket as a new print. What lay there before goes back to the tray.
    /// </summary>
    public UnitContent PutPhoto(Guid photoId, PocketPlace place, Guid newPieceId, Framing framing)
    {
        var emptied = At(place) is null ? this : TakeOut(place);
        return this with
        {
            Pieces = emptied.Pieces.Add(new PhotoPrint(newPieceId, photoId, framing.Clamped())),
            Placements = emptied.Placements.Add(new Placement(place, newPieceId, Locked: true)),
            LeftEmpty = emptied.LeftEmpty.Remove(place),
        };
    }

    /// <summary>
    /// Lets a loose photo run over neighbouring pockets of one face, a slice in each. What lay in them goes to the
    /// tray. Which pockets make a rectangle is asked before, see <see cref="Spans"/>.
    /// </summary>
    /// <param name="photoId">A photo that lies in no pocket.</param>
    /// <param name="slices">
    /// The pockets in the order in which the slices are numbered, each with a key for its slice.
    /// </param>
    /// <param name="framing">Of the whole picture.</param>
    public UnitContent PutSpan(Guid photoId, IReadOnlyList<(PocketPlace Place, Guid PieceId)> slices, Framing framing)
    {
        ArgumentNullException.ThrowIfNull(slices);
        var spanId = slices[0].PieceId;
        var emptied = slices.Aggregate(
            this,
            (content, slice) => content.At(slice.Place) is null ? content : content.TakeOut(slice.Place)
        );
        return emptied with
        {
            Pieces = emptied.Pieces.AddRange(
                slices.Select(s => new PhotoPrint(s.PieceId, photoId, framing.Clamped()) { SpanId = spanId })
            ),
            Placements = emptied.Placements.AddRange(
                slices.Select(s => new Placement(s.Place, s.PieceId, Locked: true))
            ),
            LeftEmpty = emptied.LeftEmpty.RemoveAll(c => slices.Any(s => s.Place == c)),
        };
    }

    /// <summary>
    /// Puts the parts of a tall picture into pockets, one in each; they are moved and taken out together.
    /// </summary>
    public UnitContent PutParts(Guid photoId, IReadOnlyList<(PocketPlace Place, Guid PieceId, PicturePart Part)> parts)
    {
        ArgumentNullException.ThrowIfNull(parts);
        var put = PutSpan(photoId, [.. parts.Select(p => (p.Place, p.PieceId))], Framing.Middle);
        var partOf = parts.ToDictionary(p => p.PieceId, p => p.Part);
        return put with
        {
            Pieces =
            [
                .. put.Pieces.Select(p =>
                    p is PhotoPrint print && partOf.TryGetValue(p.Id, out var part) ? print with { Part = part } : p
                ),
            ],
        };
    }

    /// <summary>Says that a pocket stays empty on purpose, or that it does not.</summary>
    public UnitContent LeaveEmpty(PocketPlace place, bool empty)
    {
        if (empty && At(place) is not null)
        {
            throw new RuleException(
                "Something lies in that pocket: take it out before it is left empty. Nothing was changed."
            );
        }

        return this with
        {
            LeftEmpty = empty
                ? LeftEmpty.Contains(place)
                    ? LeftEmpty
                    : LeftEmpty.Add(place)
                : LeftEmpty.Remove(place),
        };
    }

    /// <summary>Says in which size of pocket a picture is wanted; null for any.</summary>
    public UnitContent Wish(Guid photoId, Size? size)
    {
        var others = Wishes.RemoveAll(w => w.PhotoId == photoId);
        return this with
        {
            Wishes = size is { } wanted ? others.Add(new SizeWish(photoId, wanted.Width, wanted.Height)) : others,
        };
    }

    /// <summary>The size of pocket a picture is wanted in; null when any will do.</summary>
    public Size? WishFor(Guid photoId) =>
        Wishes.Where(w => w.PhotoId == photoId).Select(w => (Size?)w.Size).FirstOrDefault();

    /// <summary>Without the prints of pictures: with one slice of a span all of them go.</summary>
    private UnitContent GiveUpPrintsOf(IReadOnlySet<Guid> photoIds) =>
        Pieces
            .OfType<PhotoPrint>()
            .Where(p => photoIds.Contains(p.PhotoId))
            .Aggregate(this, (content, print) => content.Find(print.Id) is null ? content : content.Discard(print.Id));

    /// <summary>Adds a collage to the tray; the prints of its pictures are given up.</summary>
    public UnitContent AddCollage(Collage collage)
    {
        ArgumentNullException.ThrowIfNull(collage);
        var photos = collage.Checked().Photos.ToHashSet();
        var without = GiveUpPrintsOf(photos);
        return without with { Pieces = without.Pieces.Add(collage) };
    }

    /// <summary>Adds a composition to the tray, or changes one; the prints of its pictures are given up.</summary>
    public UnitContent Compose(Composition made)
    {
        ArgumentNullException.ThrowIfNull(made);
        var photos = made.Photos.ToHashSet();
        var without = GiveUpPrintsOf(photos);
        return without.Find(made.Id) is { } old
            ? without.Replace(old, made)
            : without with
            {
                Pieces = without.Pieces.Add(made),
            };
    }

    /// <summary>
    /// Adds a bought card to the tray, or changes one; the prints of the pictures it shows are given up.
    /// </summary>
    public UnitContent AddBoughtCard(BoughtCard card)
    {
        ArgumentNullException.ThrowIfNull(card);
        var without = GiveUpPrintsOf(card.PhotosInside.ToHashSet());
        return without.Find(card.Id) is { } old
            ? without.Replace(old, card)
            : without with
            {
                Pieces = without.Pieces.Add(card),
            };
    }

    /// <summary>Changes the cells, the layout or the gutter of a collage.</summary>
    public UnitContent ChangeCollage(Collage changed)
    {
        ArgumentNullException.ThrowIfNull(changed);
        var old = Find(changed.Id) as Collage ?? throw Gone();
        var added = changed.Checked().Photos.Except(old.Photos).ToHashSet();
        var without = GiveUpPrintsOf(added);
        return without.Replace(old, changed);
    }

    /// <summary>
    /// Moves a piece into a pocket. Coming from another pocket it swaps with what lies there; coming from the tray it
    /// sends that to the tray.
    /// </summary>
    public UnitContent Put(Guid pieceId, PocketPlace place)
    {
        var piece = Find(pieceId) ?? throw Gone();
        if (piece is Keepsake { InEnvelope: true })
        {
            throw new RuleException(
                "That keepsake lies in the envelope: take it out of there first. Nothing was changed."
            );
        }

        if (piece is WordStrips)
        {
            throw new RuleException("A label is stuck on a piece: choose the piece first. Nothing was changed.");
        }

        if (piece.Attachment is not null)
        {
            return Replace(piece, piece with { Attachment = null }).Put(pieceId, place);
        }

        var from = PlacementOf(piece.Id);
        var occupant = At(place);
        if (
            piece is PhotoPrint { SpanId: not null }
            || (from is not null && occupant is { } lies && Find(lies.PieceId) is PhotoPrint { SpanId: not null })
        )
        {
            throw new RuleException(
                "A picture that runs over several pockets is moved as a whole: take it out and let it run over the "
                    + "others. Nothing was changed."
            );
        }

        if (from is { } same && same.Place == place)
        {
            return this;
        }

        if (from is not { } source)
        {
            var emptied = occupant is null ? this : TakeOut(place);
            return emptied with
            {
                Placements = emptied.Placements.Add(new Placement(place, pieceId, Locked: true)),
                LeftEmpty = emptied.LeftEmpty.Remove(place),
            };
        }

        var placements = Placements.Remove(source);
        if (occupant is { } other)
        {
            placements = placements.Remove(other).Add(other with { Place = source.Place, Locked = true });
        }

        return this with
        {
            Placements = placements.Add(new Placement(place, pieceId, Locked: true)),
            LeftEmpty = LeftEmpty.Remove(place),
        };
    }

    /// <summary>
    /// Empties a pocket: a card goes to the tray, a print is given up and its photo is loose again; of a picture that
    /// runs over several pockets, all of them.
    /// </summary>
    public UnitContent TakeOut(PocketPlace place)
    {
        var placement = At(place) ?? throw new RuleException("That pocket is empty already: nothing was taken out.");
        var placements = Placements.Remove(placement);
        if (Find(placement.PieceId) is PhotoPrint { SpanId: { } span })
        {
            return Discard(SlicesOf(span)[0].Id);
        }

        return Find(placement.PieceId) is PhotoPrint print ? Discard(print.Id) : this with { Placements = placements };
    }

    /// <summary>Empties every pocket that no design on these leaves has any more.</summary>
    public UnitContent KeepOnly(Func<PocketPlace, bool> exists)
    {
        var kept = Placements
            .Where(p => !exists(p.Place))
            .Aggregate(this, (content, gone) => content.At(gone.Place) is null ? content : content.TakeOut(gone.Place));
        return kept with { LeftEmpty = kept.LeftEmpty.RemoveAll(c => !exists(c)) };
    }

    /// <summary>Frames the picture of a print anew.</summary>
    public UnitContent Frame(Guid pieceId, Framing framing) =>
        Find(pieceId) switch
        {
            PhotoPrint { SpanId: { } span } => SlicesOf(span)
                .Aggregate(
                    this,
                    (content, slice) => content.Replace(slice, slice with { Framing = framing.Clamped() })
                ),
            PhotoPrint print => Replace(print, print with { Framing = framing.Clamped() }),
            null => throw Gone(),
            _ => throw new RuleException("Only a photo print can be framed; this piece is a card."),
        };

    /// <summary>Puts words on a print, or takes them off it.</summary>
    public UnitContent Caption(Guid pieceId, PhotoCaption? caption) =>
        Find(pieceId) switch
        {
            PhotoPrint { SpanId: not null } => throw new RuleException(
                "A picture that runs over several pockets carries no words: put them on a card beside it. Nothing "
                    + "was changed."
            ),
            PhotoPrint print => Replace(print, print with { Caption = caption?.Checked() }),
            null => throw Gone(),
            _ => throw new RuleException("Words are put on a photo print; this piece is a card."),
        };

    /// <summary>Straightens a print, makes it lighter or takes its colour; null leaves it as its picture is.</summary>
    public UnitContent Adjust(Guid pieceId, PictureAdjustment? adjustment)
    {
        var to = adjustment?.Checked() is { IsNone: false } some ? some : null;
        return Find(pieceId) switch
        {
            PhotoPrint { SpanId: not null } when to is { Straighten: not 0 } => throw new RuleException(
                "A picture that runs over several pockets cannot be straightened. Nothing was changed."
            ),
            PhotoPrint { SpanId: { } span } => SlicesOf(span)
                .Aggregate(this, (content, slice) => content.Replace(slice, slice with { Adjustment = to })),
            PhotoPrint print => Replace(print, print with { Adjustment = to }),
            null => throw Gone(),
            _ => throw new RuleException("Only a photo print can be adjusted. Nothing was changed."),
        };
    }

    /// <summary>Locks a piece in its pocket or lets it go.</summary>
    public UnitContent Lock(PocketPlace place, bool locked)
    {
        var placement = At(place) ?? throw new RuleException("That pocket is empty: there is nothing to lock.");
        var together = Find(placement.PieceId) is PhotoPrint { SpanId: { } span }
            ? SlicesOf(span).Select(p => p.Id).ToHashSet()
            : [placement.PieceId];
        return this with
        {
            Placements = [.. Placements.Select(p => together.Contains(p.PieceId) ? p with { Locked = locked } : p)],
        };
    }

    /// <summary>Adds a card to the tray.</summary>
    public UnitContent AddCard(Guid newPieceId, CardKind kind, string words, string styleKey) =>
        this with
        {
            Pieces = Pieces.Add(new Card(newPieceId, kind, CheckedWords(words), styleKey)),
        };

    /// <summary>Changes the words, the style and the setting of a card.</summary>
    public UnitContent WriteCard(Guid pieceId, string words, string styleKey, CardSetting? setting = null) =>
        Find(pieceId) switch
        {
            Card card => Replace(
                card,
                card with
                {
                    Words = CheckedWords(words),
                    StyleKey = styleKey,
                    Setting = setting == CardSetting.AsTheStyle ? null : setting?.Checked(),
                }
            ),
            null => throw Gone(),
            _ => throw new RuleException("Words can be written on a card only; this piece is a photo print."),
        };

    /// <summary>
    /// Says which day a card is about, and which picture it carries; null for the whole unit and for none.
    /// </summary>
    public UnitContent Furnish(Guid pieceId, LocalDate? day, CardPicture? picture) =>
        Find(pieceId) switch
        {
            Card card => Replace(card, card with { Day = day, Picture = picture }),
            null => throw Gone(),
            _ => throw new RuleException(
                "Only a card can be about a day or carry a picture; this piece is a photo print."
            ),
        };

    /// <summary>Changes a piece that is printed; a keepsake is refused.</summary>
    public UnitContent Change(Guid pieceId, Func<Piece, Piece> change)
    {
        ArgumentNullException.ThrowIfNull(change);
        return Find(pieceId) switch
        {
            null => throw Gone(),
            Keepsake => throw new RuleException("A keepsake goes in itself: it is not printed. Nothing was changed."),
            var piece => Replace(piece, change(piece)),
        };
    }

    /// <summary>Finishes a print or a card, or takes its finish off.</summary>
    public UnitContent GiveFinish(Guid pieceId, Finish? finish) =>
        Find(pieceId) switch
        {
            PhotoPrint { SpanId: not null } => throw new RuleException(
                "A picture over several pockets has no border or mats of its own. Nothing was changed."
            ),
            PhotoPrint print => Replace(print, print with { Finish = finish }),
            Card card => Replace(card, card with { Finish = finish }),
            null => throw Gone(),
            _ => throw new RuleException("Only prints and cards have a finish. Nothing was changed."),
        };

    /// <summary>Sets the words of one card at the end of another, which frees the first one's pocket.</summary>
    public UnitContent JoinCards(Guid pieceId, Guid otherId)
    {
        if (Find(pieceId) is not Card card || Find(otherId) is not Card other || card.Id == other.Id)
        {
            throw Gone();
        }

        if (
            card.StoryId is not null
            || other.StoryId is not null
            || ComputedCards.IsComputed(card.Kind)
            || ComputedCards.IsComputed(other.Kind)
            || CardKind.Filler == card.Kind
            || CardKind.Filler == other.Kind
        )
        {
            throw new RuleException(
                "Two written cards can be joined; stories are joined as stories, and computed words stay by "
                    + "themselves. Nothing was changed."
            );
        }

        var words = CheckedWords($"{card.Words.TrimEnd()}\n\n{other.Words.Trim()}".Trim());
        return Replace(
                card,
                card with
                {
                    Words = words,
                    Setting = card.Setting is { } set ? set with { LargestPt = null } : null,
                }
            )
            .Discard(otherId);
    }

    /// <summary>The cards that carry a story, in the order they were made.</summary>
    public ImmutableArray<Card> CardsOf(Guid storyId) => [.. Pieces.OfType<Card>().Where(c => c.StoryId == storyId)];

    /// <summary>Gives a card its part of a story.</summary>
    public UnitContent Carry(Guid pieceId, Guid storyId, string words, string styleKey, CardSetting setting)
    {
        var changed = WriteCard(pieceId, words, styleKey, setting);
        return changed.Replace(changed.Find(pieceId)!, ((Card)changed.Find(pieceId)!) with { StoryId = storyId });
    }

    /// <summary>
    /// Throws a card or a collage away, in a pocket or not; of a picture over several pockets, all slices.
    /// </summary>
    public UnitContent Discard(Guid pieceId)
    {
        var piece = Find(pieceId) ?? throw Gone();
        var gone = piece is PhotoPrint { SpanId: { } span } ? SlicesOf(span).Select(p => p.Id).ToHashSet() : [pieceId];
        return this.Without(gone);
    }

    /// <summary>
    /// Takes a piece in that lay in another unit, into an empty pocket: the back of a stuck pair goes where the pair
    /// goes.
    /// </summary>
    public UnitContent Receive(Piece piece, PocketPlace place)
    {
        ArgumentNullException.ThrowIfNull(piece);
        return At(place) is null && Find(piece.Id) is null
            ? this with
            {
                Pieces = Pieces.Add(piece),
                Placements = Placements.Add(new Placement(place, piece.Id, false)),
            }
            : throw new RuleException("That pocket is taken. Nothing was changed.");
    }

    /// <summary>
    /// Gives up the prints of photos that have left the unit; their pockets are empty then, and cards lose such
    /// pictures.
    /// </summary>
    public UnitContent WithoutPrintsOf(IReadOnlySet<Guid> photoIds)
    {
        ArgumentNullException.ThrowIfNull(photoIds);
        var without = GiveUpPrintsOf(photoIds);
        without = without
            .Pieces.OfType<Collage>()
            .Where(c => c.Photos.Any(photoIds.Contains))
            .Aggregate(without, (content, collage) => content.Replace(collage, collage.Without(photoIds)));
        without = without
            .Pieces.OfType<Composition>()
            .Where(c => c.Photos.Any(photoIds.Contains))
            .Aggregate(without, (content, made) => content.Replace(made, made.Without(photoIds)));
        // Without its photo nothing is known of a bought card.
        without = without.Without(
            without.Pieces.OfType<BoughtCard>().Where(c => photoIds.Contains(c.PhotoId)).Select(c => c.Id).ToHashSet()
        );
        without = without
            .Pieces.OfType<BoughtCard>()
            .Where(c => c.Picture is { } picture && photoIds.Contains(picture.PhotoId))
            .Aggregate(without, (content, card) => content.Replace(card, card with { Picture = null }));
        without = without
            .Pieces.OfType<Card>()
            .Where(c => c.SmallPictures.Any(p => photoIds.Contains(p.PhotoId)))
            .Aggregate(
                without,
                (content, card) =>
                    content.Replace(
                        card,
                        card with
                        {
                            SmallPictures = card.SmallPictures.RemoveAll(p => photoIds.Contains(p.PhotoId)),
                        }
                    )
            );
        without = without with { Wishes = without.Wishes.RemoveAll(w => photoIds.Contains(w.PhotoId)) };
        return without
            .Pieces.OfType<Card>()
            .Where(c => c.Picture is { } picture && photoIds.Contains(picture.PhotoId))
            .Aggregate(without, (content, card) => content.Replace(card, card with { Picture = null }));
    }

    /// <summary>
    /// Moves everything from old faces to new ones, face by face in their order; what has no pocket there goes to the
    /// tray.
    /// </summary>
    public UnitContent OnFaces(
        IReadOnlyList<FaceOfLeaf> old,
        IReadOnlyList<FaceOfLeaf> now,
        Func<PocketPlace, bool> exists
    )
    {
        ArgumentNullException.ThrowIfNull(old);
        ArgumentNullException.ThrowIfNull(now);
        // A face the unit keeps stays what it is; the others take over in their order.
        var freed = old.Where(f => !now.Contains(f)).ToList();
        var fresh = now.Where(f => !old.Contains(f)).ToList();
        var moves = freed.Zip(fresh).ToDictionary(pair => pair.First, pair => pair.Second);
        var moved = this with
        {
            Placements =
            [
                .. Placements.Select(p =>
                    moves.TryGetValue(new FaceOfLeaf(p.Place.LeafId, p.Place.Side), out var to)
                        ? p with
                        {
                            Place = p.Place with { LeafId = to.LeafId, Side = to.Side },
                        }
                        : p
                ),
            ],
            LeftEmpty =
            [
                .. LeftEmpty.Select(c =>
                    moves.TryGetValue(new FaceOfLeaf(c.LeafId, c.Side), out var to)
                        ? c with
                        {
                            LeafId = to.LeafId,
                            Side = to.Side,
                        }
                        : c
                ),
            ],
        };
        return moved.KeepOnly(place => now.Contains(new FaceOfLeaf(place.LeafId, place.Side)) && exists(place));
    }

    /// <summary>Both contents together, as when neighbours are merged; pockets must not be shared.</summary>
    public UnitContent With(UnitContent other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return new UnitContent(Pieces.AddRange(other.Pieces), Placements.AddRange(other.Placements))
        {
            Notes = Notes.AddRange(other.Notes),
            LeftEmpty = LeftEmpty.AddRange(other.LeftEmpty),
            Wishes = Wishes.AddRange(other.Wishes),
            KeepsItsPages = KeepsItsPages || other.KeepsItsPages,
        };
    }

    /// <summary>Adds a flat keepsake to the tray, or to the envelope.</summary>
    public UnitContent AddKeepsake(Keepsake keepsake)
    {
        ArgumentNullException.ThrowIfNull(keepsake);
        return this with { Pieces = Pieces.Add(keepsake.Checked()) };
    }

    /// <summary>Changes a keepsake. What goes into the envelope leaves its pocket.</summary>
    public UnitContent ChangeKeepsake(Keepsake changed)
    {
        ArgumentNullException.ThrowIfNull(changed);
        var old = Find(changed.Id) as Keepsake ?? throw Gone();
        var content = Replace(old, changed.Checked());
        return changed.InEnvelope
            ? content with
            {
                Placements = content.Placements.RemoveAll(p => p.PieceId == changed.Id),
            }
            : content;
    }

    /// <summary>Writes a note, or changes it.</summary>
    public UnitContent Note(DayNote note)
    {
        ArgumentNullException.ThrowIfNull(note);
        var text = note.Text.Trim();
        if (text.Length is 0 or > LongestNote)
        {
            throw new RuleException($"A note needs 1 to {LongestNote:N0} characters. Nothing was changed.");
        }

        return this with
        {
            Notes =
            [
                .. Notes
                    .Where(n => n.Id != note.Id)
                    .Append(note with { Text = text })
                    .OrderBy(n => n.Day)
                    .ThenBy(n => n.Time ?? default)
                    .ThenBy(n => n.Text, StringComparer.Ordinal),
            ],
        };
    }

    /// <summary>Throws a note away.</summary>
    public UnitContent DropNote(Guid noteId) =>
        Notes.Any(n => n.Id == noteId)
            ? this with
            {
                Notes = Notes.RemoveAll(n => n.Id == noteId),
            }
            : throw new RuleException("That note is no longer here. Nothing was changed.");

    private UnitContent Replace(Piece old, Piece changed) => this with { Pieces = Pieces.Replace(old, changed) };

    private static string CheckedWords(string words)
    {
        ArgumentNullException.ThrowIfNull(words);
        return words.Length <= LongestWords
            ? words.Replace("\r\n", "\n", StringComparison.Ordinal)
            : throw new RuleException(
                $"These words are {words.Length:N0} characters long and one card takes at most {LongestWords:N0}. "
                    + "Nothing was changed: split them over several cards."
            );
    }

    private static RuleException Gone() =>
        new(
            "That piece is no longer here, perhaps after an undo. Nothing was changed: look at the tray and try again."
        );
}
