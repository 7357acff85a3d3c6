using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Pages;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Placing;

/// <summary>Carries one edit of a unit out and keeps it in the history.</summary>
public sealed class UnitEditor(
    ZestyContext db,
    UnitOpener opener,
    History history,
    ICurrentKeeper keeper,
    FontShelf fonts,
    StuckPairs pairs,
    StoryEditor stories
)
{
    /// <summary>
    /// Does the edit or throws and changes nothing. Returns what was done, in words, and the piece in hand.
    /// </summary>
    public async Task<(string Done, Guid? PieceId)> ApplyAsync(
        Guid unitId,
        EditRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        request = Cleaned(request);
        var open = await opener.OpenAsync(unitId, cancel);
        await history.RequireAsync(open.Unit, request.Revision, Words(request.Kind), cancel);
        if (request.Kind == EditKind.ChooseDesign)
        {
            return (await ChooseDesignAsync(open, request, cancel), null);
        }

        if (
            request is { Kind: EditKind.Put, PieceId: { } moved, Place: { } to }
            && open.Content.PlacementOf(moved) is { } lay
            && (open.IsStuck(lay.Place) || open.IsStuck(to.ToPlace()))
        )
        {
            return await pairs.MoveAsync(open, moved, lay.Place, PlaceIn(open, to), cancel);
        }

        RefuseHalfAPair(open, request);
        var (content, done, piece) = Change(open, request);
        history.Touch([open.Unit]);
        open.Unit.Write(content);
        var told = CardsChangeSize(open, content) ? await stories.FlowAnewInAsync([open.Unit], cancel) : [];
        await history.SaveAsync(open.Album.Id, keeper.Id, done, told.Prepend(unitId), cancel);
        return (done, piece);
    }

    /// <summary>All words of a request as they are kept.</summary>
    private static EditRequest Cleaned(EditRequest request) =>
        request with
        {
            Words = Clean(request.Words),
            Keepsake = request.Keepsake is { } keepsake
                ? keepsake with
                {
                    Name = PlainWords.Name(keepsake.Name),
                    Note = PlainWords.Clean(keepsake.Note),
                }
                : null,
            Note = request.Note is { } note ? note with { Text = PlainWords.Clean(note.Text) } : null,
            Caption = request.Caption is { } caption ? caption with { Words = PlainWords.Clean(caption.Words) } : null,
            Collage = request.Collage is { } collage
                ? collage with
                {
                    Cells = collage.Cells?.Select(c => c with { Words = Clean(c.Words) }).ToList(),
                }
                : null,
        };

    private static string? Clean(string? words) => words is null ? null : PlainWords.Clean(words);

    /// <summary>Whether a card of a story is cut to another size after an edit: then the story is set anew.</summary>
    private static bool CardsChangeSize(OpenUnit open, UnitContent content)
    {
        var now = open with { Content = content };
        return content
            .Pieces.OfType<Card>()
            .Any(c =>
                c.StoryId is not null
                && (open.Content.Find(c.Id) is not { } before || open.CutSizeOf(before) != now.CutSizeOf(c))
            );
    }

    private (UnitContent Content, string Done, Guid? Piece) Change(OpenUnit open, EditRequest request)
    {
        var content = open.Content;
        switch (request.Kind)
        {
            case EditKind.PutPhoto:
            {
                var photo =
                    open.Photos.GetValueOrDefault(Need(request.PhotoId))
                    ?? throw new RuleException("That photo is not here any more. Nothing was changed.");
                var place = PlaceIn(open, request.Place);
                var id = Guid.CreateVersion7();
                return (
                    content.PutPhoto(photo.Id, place, id, Around(photo)),
                    $"Put {photo.FileName} into {open.CodeOf(place)}",
                    id
                );
            }

            case EditKind.Put:
            {
                var place = PlaceIn(open, request.Place);
                var id = Need(request.PieceId);
                Admit(open, content.Find(id), place);
                var swapped =
                    content.PlacementOf(id) is { } from && from.Place != place && content.At(place) is not null;
                var code = open.CodeOf(place);
                return (content.Put(id, place), swapped ? $"Swapped with {code}" : $"Moved a piece to {code}", id);
            }

            case EditKind.TakeOut:
            {
                var place = PlaceIn(open, request.Place);
                return (content.TakeOut(place), $"Took the piece out of {open.CodeOf(place)}", null);
            }

            case EditKind.Frame:
            {
                var id = Need(request.PieceId);
                return (
                    content.Frame(id, request.Framing?.ToFraming() ?? throw Incomplete()),
                    $"Framed the picture{Where(open, id)}",
                    id
                );
            }

            case EditKind.Lock:
            {
                var place = PlaceIn(open, request.Place);
                var locked = request.Locked ?? throw Incomplete();
                return (
                    content.Lock(place, locked),
                    $"{(locked ? "Locked" : "Unlocked")} {open.CodeOf(place)}",
                    content.At(place)?.PieceId
                );
            }

            case EditKind.AddCard:
            {
                var kind = request.CardKind ?? throw Incomplete();
                var id = Guid.CreateVersion7();
                var changed = content
                    .AddCard(id, kind, request.Words ?? ComputedCards.Beginning(kind), StyleOf(open, request, kind))
                    .Furnish(id, DayOf(open, request.Day), null);
                if (request.Place is not null)
                {
                    changed = changed.Put(id, PlaceIn(open, request.Place));
                }

                return (changed, $"Added a {Name(kind)}", id);
            }

            case EditKind.WriteCard:
            {
                var id = Need(request.PieceId);
                var card =
                    content.Find(id) as Card
                    ?? throw new RuleException(
                        "That card is no longer here. Your words were not saved: copy them before you reload."
                    );
                if (
                    card.StoryId is not null
                    && (
                        (request.Words is { } words && words != card.Words)
                        || (request.StyleKey is { } other && other != card.StyleKey)
                    )
                )
                {
                    throw new RuleException(
                        "These words flow here from a story: change the story, and all its cards change with it. "
                            + "Nothing was changed."
                    );
                }

                return (
                    content.WriteCard(
                        id,
                        request.Words ?? card.Words,
                        StyleOf(open, request, card.Kind, card.StyleKey),
                        request.Setting ?? card.Setting
                    ),
                    $"Wrote on a {Name(card.Kind)}{Where(open, id)}",
                    id
                );
            }

            case EditKind.Furnish:
            {
                var id = Need(request.PieceId);
                var card =
                    content.Find(id) as Card
                    ?? throw new RuleException("That card is no longer here. Nothing was changed.");
                if (request.PhotoId is { } shown && !open.Photos.ContainsKey(shown))
                {
                    throw new RuleException("That photo is not here any more. Nothing was changed.");
                }

                var picture = request.PhotoId is { } photo
                    ? new CardPicture(photo, request.Framing?.ToFraming() ?? Around(open.Photos[photo]))
                    : null;
                var done =
                    picture != card.Picture
                        ? picture is null
                            ? "Took the picture off a card"
                            : "Put a picture on a card"
                        : "Said which day a card is about";
                return (content.Furnish(id, DayOf(open, request.Day), picture), done, id);
            }

            case EditKind.JoinCards:
                return (
                    content.JoinCards(Need(request.PieceId), Need(request.OtherId)),
                    "Joined two cards",
                    request.PieceId
                );

            case EditKind.Caption:
            {
                var id = Need(request.PieceId);
                return (
                    content.Caption(id, request.Caption?.ToCaption()),
                    request.Caption is null ? "Took the words off a picture" : "Put words on a picture",
                    id
                );
            }

            case EditKind.Discard:
            {
                var id = Need(request.PieceId);
                var name = content.Find(id) switch
                {
                    Card card => Name(card.Kind),
                    Keepsake => "keepsake",
                    Collage => "collage",
                    _ => "print",
                };
                return (content.Discard(id), $"Threw a {name} away", null);
            }

            case EditKind.Fill:
                return Fill(open);

            case EditKind.AddKeepsake:
            {
                var keepsake = Measured(Guid.CreateVersion7(), open, request.Keepsake);
                return (
                    content.AddKeepsake(keepsake),
                    keepsake.InEnvelope
                        ? $"Put {keepsake.Name} into the envelope"
                        : $"Added the keepsake {keepsake.Name}",
                    keepsake.Id
                );
            }

            case EditKind.ChangeKeepsake:
            {
                var keepsake = Measured(Need(request.PieceId), open, request.Keepsake);
                var was = content.Find(keepsake.Id) as Keepsake;
                var verb = (was?.InEnvelope, keepsake.InEnvelope) switch
                {
                    (false, true) => $"Put {keepsake.Name} into the envelope",
                    (true, false) => $"Took {keepsake.Name} out of the envelope",
                    _ => $"Changed the keepsake {keepsake.Name}",
                };
                var changed = content.ChangeKeepsake(keepsake);
                if (changed.PlacementOf(keepsake.Id) is { } lies)
                {
                    Admit(open, keepsake, lies.Place);
                }

                return (changed, verb, keepsake.Id);
            }

            case EditKind.WriteNote:
            {
                var note = request.Note ?? throw Incomplete();
                if (
                    !Enumerable
                        .Range(0, Period.DaysBetween(open.Dates.First, open.Dates.Last) + 1)
                        .Any(d => open.Dates.First.PlusDays(d) == note.Day)
                )
                {
                    throw new RuleException(
                        $"That day is not one of {open.Title}. Nothing was changed: write the note there."
                    );
                }

                var time =
                    string.IsNullOrWhiteSpace(note.Time) ? (LocalTime?)null
                    : NoteTime.Parse(note.Time) is { Success: true, Value: var at } ? at
                    : throw new RuleException(
                        $"“{note.Time}” is not a time of day. Write it as 19:30. Nothing was changed."
                    );
                return (
                    content.Note(
                        new DayNote(note.Id ?? Guid.CreateVersion7(), note.Day, time, note.Text, null)
                        {
                            Kind = note.Kind ?? NoteKind.Plain,
                        }
                    ),
                    "Wrote a note",
                    null
                );
            }

            case EditKind.UseKeepsake:
            {
                var keepsake =
                    content.Find(Need(request.PieceId)) as Keepsake
                    ?? throw new RuleException("That keepsake is no longer here. Nothing was changed.");
                var place = PlaceIn(open, request.Place);
                Admit(open, keepsake, place);
                return (
                    content.ChangeKeepsake(keepsake with { InEnvelope = false }).Put(keepsake.Id, place),
                    $"Took {keepsake.Name} out of the envelope into {open.CodeOf(place)}",
                    keepsake.Id
                );
            }

            case EditKind.PutSpan:
            {
                var photo =
                    open.Photos.GetValueOrDefault(Need(request.PhotoId))
                    ?? throw new RuleException("That photo is not here any more. Nothing was changed.");
                var places = (request.Places ?? throw Incomplete()).Select(p => PlaceIn(open, p)).Distinct().ToList();
                var without = content.Pieces.OfType<PhotoPrint>().FirstOrDefault(p => p.PhotoId == photo.Id)
                    is { } print
                    ? content.Discard(print.Id)
                    : content;
                var face =
                    open.Faces.FirstOrDefault(f =>
                        places.Count > 0 && f.Leaf.Id == places[0].LeafId && f.Side == places[0].Side
                    ) ?? throw Incomplete();
                var slices = Spans
                    .Checked(face.Protector, places)
                    .Select(place => (place, Guid.CreateVersion7()))
                    .ToList();
                return (
                    without.PutSpan(photo.Id, slices, Around(photo)),
                    $"Let {photo.FileName} run over {NumberWords.Of(slices.Count)} pockets",
                    slices[0].Item2
                );
            }

            case EditKind.LeaveClear:
            {
                var place = PlaceIn(open, request.Place);
                var clear = request.Locked ?? throw Incomplete();
                return (
                    content.LeaveClear(place, clear),
                    clear
                        ? $"Left {open.CodeOf(place)} clear on purpose"
                        : $"{open.CodeOf(place)} is to be filled again",
                    null
                );
            }

            case EditKind.Wish:
            {
                var photo =
                    open.Photos.GetValueOrDefault(Need(request.PhotoId))
                    ?? throw new RuleException("That photo is not here any more. Nothing was changed.");
                var size = string.IsNullOrWhiteSpace(request.Size) ? (Size?)null : MeasureText.ParseSize(request.Size);
                if (
                    size is { } wanted
                    && !open.Album.Protectors.Exists(p => p.ToProtector().Design.Pockets.Any(f => f.Nominal == wanted))
                )
                {
                    throw new RuleException(
                        $"None of the album's page designs has a pocket of {wanted}. Nothing was changed: let the "
                            + "album use one that has."
                    );
                }

                return (
                    content.Wish(photo.Id, size),
                    size is null ? $"{photo.FileName} may have any size" : $"{photo.FileName} is wanted at {size}",
                    null
                );
            }

            case EditKind.KeepPages:
            {
                var keep = request.Locked ?? throw Incomplete();
                return (
                    content with
                    {
                        KeepsItsPages = keep,
                    },
                    keep ? $"{open.Title} stays on the pages it has" : $"{open.Title} may get further leaves",
                    null
                );
            }

            case EditKind.AddCollage:
            {
                var collage = CollageOf(open, Guid.CreateVersion7(), request.Collage ?? throw Incomplete(), null);
                var added = content.AddCollage(collage);
                return (
                    request.Place is null ? added : added.Put(collage.Id, PlaceIn(open, request.Place)),
                    $"Made a collage of {NumberWords.Of(collage.Photos.Count())} pictures",
                    collage.Id
                );
            }

            case EditKind.ChangeCollage:
            {
                var id = Need(request.PieceId);
                var old =
                    content.Find(id) as Collage
                    ?? throw new RuleException("That collage is no longer here. Nothing was changed.");
                return (
                    content.ChangeCollage(CollageOf(open, id, request.Collage ?? throw Incomplete(), old)),
                    $"Changed a collage{Where(open, id)}",
                    id
                );
            }

            case EditKind.DropNote:
                return (content.DropNote(Need(request.PieceId)), "Threw a note away", null);

            default:
                throw Incomplete();
        }
    }

    /// <summary>A collage as asked for, with the layout in which its pictures lose least when none is named.</summary>
    private static Collage CollageOf(OpenUnit open, Guid id, CollageRequest request, Collage? old)
    {
        var size = MeasureText.ParseSize(request.Size);
        var gutter =
            string.IsNullOrWhiteSpace(request.Gutter) ? old?.Gutter ?? Collage.UsualGutter
            : request.Gutter.Trim().StartsWith("0 ", StringComparison.Ordinal) || request.Gutter.Trim() == "0"
                ? Length.Zero
            : MeasureText.ParseLength(request.Gutter);
        var photos = request
            .PhotoIds.Distinct()
            .Select(p =>
                open.Photos.GetValueOrDefault(p)
                ?? throw new RuleException("A photo of the collage is not here any more. Nothing was changed.")
            )
            .ToList();
        var ground = old?.Ground ?? Rgb.Read("#ffffff");
        if (request is { Layout: { } layout, Cells: { } cells })
        {
            var draft = DesignDraft.Read(layout);
            return new Collage(
                id,
                draft.Notation,
                [
                    .. cells.Select(c => new CollageCell(
                        c.Key,
                        c.PhotoId,
                        c.PhotoId is { } p && open.Photos.TryGetValue(p, out var photo)
                            ? Around(photo)
                            : Framing.Middle,
                        c.Words ?? string.Empty
                    )),
                ],
                gutter,
                ground
            ).Checked();
        }

        if (photos.Count == 0)
        {
            throw new RuleException("A collage has at least one picture. Nothing was changed.");
        }

        var words = request.WordCells ?? 0;
        var (best, cellOf, _) = CollageLayouts.Best(size, [.. photos.Select(p => p.Pixels)], words, gutter);
        var kept = old?.Cells.Where(c => c.PhotoId is null && c.Words.Length > 0).Select(c => c.Words).ToList() ?? [];
        var free = DesignDraft.Read(best).Pockets.Select(p => p.Key).Except(cellOf).ToList();
        return new Collage(
            id,
            best,
            [
                .. photos.Select((p, i) => new CollageCell(cellOf[i], p.Id, Around(p), string.Empty)),
                .. free.Select(
                    (key, i) => new CollageCell(key, null, Framing.Middle, i < kept.Count ? kept[i] : string.Empty)
                ),
            ],
            gutter,
            ground
        ).Checked();
    }

    /// <summary>One of two pieces that are stuck together cannot go by itself.</summary>
    private static void RefuseHalfAPair(OpenUnit open, EditRequest request)
    {
        IEnumerable<PocketPlace> places = request.Kind switch
        {
            EditKind.PutPhoto or EditKind.Put or EditKind.TakeOut when request.Place is { } place => [place.ToPlace()],
            EditKind.PutSpan when request.Places is { } several => several.Select(p => p.ToPlace()),
            EditKind.Discard when request.PieceId is { } id && open.Content.PlacementOf(id) is { } lies => [lies.Place],
            _ => [],
        };
        if (
            places.FirstOrDefault(p => open.IsStuck(p) && open.Content.At(p) is not null) is
            { PocketKey: not null } half
        )
        {
            throw new RuleException(
                $"The piece in {open.CodeOf(half)} is stuck to the one behind it: take the two apart first, in the "
                    + "drawer of the leaf. Nothing was changed."
            );
        }
    }

    /// <summary>Title card first, then written cards where their words fit best, then photos in the rest.</summary>
    private (UnitContent Content, string Done, Guid? Piece) Fill(OpenUnit open)
    {
        var content = open.Content;
        var free = open
            .Pockets.Where(p => content.At(p.Place) is null && !content.Clear.Contains(p.Place))
            .Select(p => new OpenPocket(p.Place, p.Face.Protector.CutSize(p.Pocket)) { Nominal = p.Pocket.Nominal })
            .ToList();
        if (free.Count == 0)
        {
            throw new RuleException(
                "Every pocket of this spread is taken: there is nothing to fill. Take a piece out first."
            );
        }

        var cards = 0;
        foreach (
            var card in content
                .Loose.OfType<Card>()
                .OrderBy(c => CardStyle.RoleOf(c.Kind) == StyleRole.Title ? 0 : 1)
                .ToList()
        )
        {
            if (PocketFor(open, card, free) is { } pocket)
            {
                content = content.Put(card.Id, pocket.Place).Lock(pocket.Place, locked: false);
                free.Remove(pocket);
                cards++;
            }
        }

        var collages = 0;
        foreach (var collage in content.Loose.OfType<Collage>().ToList())
        {
            if (
                free.Where(p => collage.Body.FitsIn(p.Nominal))
                    .OrderBy(p => p.Nominal.SquareInches)
                    .Select(p => (OpenPocket?)p)
                    .FirstOrDefault() is
                { } pocket
            )
            {
                content = content.Put(collage.Id, pocket.Place).Lock(pocket.Place, locked: false);
                free.Remove(pocket);
                collages++;
            }
        }

        // Pictures that are wanted in one size come first, so that the others leave it to them.
        var wished = 0;
        foreach (
            var (id, size) in content
                .Wishes.Where(w => open.Photos.ContainsKey(w.PhotoId) && !content.PhotosPlaced.Contains(w.PhotoId))
                .Select(w => (w.PhotoId, w.Size))
                .ToList()
        )
        {
            if (free.Where(p => p.Nominal == size).Select(p => (OpenPocket?)p).FirstOrDefault() is { } pocket)
            {
                content = content
                    .PutPhoto(id, pocket.Place, Guid.CreateVersion7(), Around(open.Photos[id]))
                    .Lock(pocket.Place, locked: false);
                free.Remove(pocket);
                wished++;
            }
        }

        var loose = open
            .Photos.Values.Where(p => !content.PhotosPlaced.Contains(p.Id) && content.WishFor(p.Id) is null)
            .Select(p => new LoosePhoto(p.Id, p.Pixels, p.Day, p.Taken))
            .ToList();
        var choices = SpreadFilling.Propose(free, loose);
        foreach (var choice in choices)
        {
            content = content
                .PutPhoto(choice.PhotoId, choice.Place, Guid.CreateVersion7(), Around(open.Photos[choice.PhotoId]))
                .Lock(choice.Place, locked: false);
        }

        if (cards + collages + wished + choices.Count == 0)
        {
            throw new RuleException(
                "There is nothing loose to fill the spread with: gather photos or add a card first."
            );
        }

        var left = open.Photos.Keys.Count(id => !content.PhotosPlaced.Contains(id));
        var over = left > 0 ? $"; {left} found no pocket" : string.Empty;
        var prints = collages == 0 ? string.Empty : $", {collages} {(collages == 1 ? "collage" : "collages")}";
        return (
            content,
            $"Filled the spread with {choices.Count + wished} "
                + $"{(choices.Count + wished == 1 ? "photo" : "photos")}{prints} and {cards} "
                + $"{(cards == 1 ? "card" : "cards")}{over}",
            null
        );
    }

    private OpenPocket? PocketFor(OpenUnit open, Card card, List<OpenPocket> free)
    {
        if (free.Count == 0)
        {
            return null;
        }

        if (CardStyle.RoleOf(card.Kind) == StyleRole.Title)
        {
            return free[0];
        }

        if (card.Kind == CardKind.Filler)
        {
            return free[^1];
        }

        // The smallest pocket that holds the words; if none does, the largest.
        var style = PieceFaces.StyleOf(open, card);
        return free.OrderBy(p => p.Cut.SquareInches)
            .Where(p =>
                CardComposer.Fit(card.Words, style, p.Cut, fonts, ComputedCards.Heading(card.Kind) is not null).Fits
            )
            .Concat(free.OrderByDescending(p => p.Cut.SquareInches))
            .First();
    }

    private async Task<string> ChooseDesignAsync(OpenUnit open, EditRequest request, CancellationToken cancel)
    {
        var leaf =
            open.Faces.Select(f => f.Leaf).FirstOrDefault(l => l.Id == Need(request.LeafId))
            ?? throw new RuleException("That leaf does not belong here. Nothing was changed.");
        var protector =
            open.Album.Protectors.Find(p => p.Id == Need(request.ProtectorId))
            ?? throw new RuleException("The album does not use that page design. Nothing was changed.");
        var design = protector.ToProtector().Design;

        var ids = new[] { leaf.FrontUnitId, leaf.BackUnitId }.OfType<Guid>().ToList();
        var units = await db.Units.Where(u => ids.Contains(u.Id)).ToListAsync(cancel);
        LeafDesigns.Spoil(history, leaf, open.Album.Protectors);
        var lost = LeafDesigns.Change(history, leaf, protector.Id, protector.ToProtector(), units);
        var tray = lost > 0 ? $"; {lost} pieces went to the tray" : string.Empty;
        var summary = $"Changed a leaf to {design.Name}{tray}";
        var told = await stories.FlowAnewInAsync(units, cancel);
        await history.SaveAsync(open.Album.Id, keeper.Id, summary, ids.Append(open.Unit.Id).Concat(told), cancel);
        return summary;
    }

    private static readonly LocalTimePattern NoteTime = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    /// <summary>A keepsake must fit its pocket, also turned.</summary>
    private static void Admit(OpenUnit open, Piece? piece, PocketPlace place)
    {
        if (piece is Keepsake keepsake && keepsake.FitIn(open.ClearSize(place)) == KeepsakeFit.TooLarge)
        {
            var system = open.Album.Measures;
            throw new RuleException(
                $"{keepsake.Name} is {MeasureText.Show(keepsake.Size, system)} and {open.CodeOf(place)} has "
                    + $"{MeasureText.Show(open.ClearSize(place), system)}: it does not fit, turned or not. Choose a "
                    + "larger pocket or put it into the envelope."
            );
        }
    }

    private static Keepsake Measured(Guid id, OpenUnit open, KeepsakeRequest? request)
    {
        var asked = request ?? throw Incomplete();
        var size = MeasureText.ParseSize(asked.Size);
        var thickness =
            string.IsNullOrWhiteSpace(asked.Thickness) || asked.Thickness.Trim() == "0"
                ? Length.Zero
                : MeasureText.ParseLength(asked.Thickness);
        if (asked.PhotoId is { } photo && !open.Photos.ContainsKey(photo))
        {
            throw new RuleException($"The picture of the keepsake is not one of {open.Title}. Nothing was changed.");
        }

        return new Keepsake(
            id,
            asked.Name,
            size.Width,
            size.Height,
            thickness,
            asked.Note,
            asked.PhotoId,
            asked.Day,
            asked.InEnvelope
        )
        {
            SeeThrough = asked.SeeThrough ?? false,
        }.Checked();
    }

    private static Framing Around(Photo photo) =>
        Framing.Around(photo.FocusX, photo.FocusY, Boxes.Read(photo.KeepBoxes));

    private static PocketPlace PlaceIn(OpenUnit open, PlaceRequest? request)
    {
        var place = (request ?? throw Incomplete()).ToPlace();
        return open.CodeOf(place) is not null
            ? place
            : throw new RuleException(
                "That pocket is not on this spread any more; the page design may have changed. Nothing was changed."
            );
    }

    private static string StyleOf(OpenUnit open, EditRequest request, CardKind kind, string? otherwise = null) =>
        request.StyleKey is { } asked && open.Words.Style(asked, kind).Key != asked
            ? throw new RuleException($"There is no card style “{asked}” for a {Name(kind)}. Nothing was changed.")
            : request.StyleKey
                ?? (otherwise is null ? open.Words.NewStyle(kind) : open.Words.Style(otherwise, kind)).Key;

    private static LocalDate? DayOf(OpenUnit open, LocalDate? day) =>
        day is null || (day >= open.Dates.First && day <= open.Dates.Last)
            ? day
            : throw new RuleException($"That day is not one of {open.Title}. Nothing was changed.");

    private static string Where(OpenUnit open, Guid pieceId) =>
        open.Content.PlacementOf(pieceId) is { } placement && open.CodeOf(placement.Place) is { } code
            ? $" in {code}"
            : string.Empty;

    private static string Name(CardKind kind) =>
        kind switch
        {
            CardKind.WeekTitle => "title card",
            CardKind.DayTitle => "title card of a day",
            CardKind.Filler => "filler card",
            CardKind.Overheard => "card of overheard words",
            CardKind.Prompts => "card of prompts",
            CardKind.HighsAndLows => "card of highs and lows",
            CardKind.Incident => "card of an incident",
            CardKind.Why => "card that says why",
            CardKind.Facts => "card of facts",
            CardKind.FromTo => "card of where from and where to",
            CardKind.Map => "card of the way",
            CardKind.People => "card of who was there",
            CardKind.Numbers => "card of numbers",
            CardKind.Countdown => "countdown card",
            _ => "journaling card",
        };

    private static string Words(EditKind kind) =>
        kind switch
        {
            EditKind.PutPhoto => "Put a photo into a pocket",
            EditKind.Put => "Move a piece",
            EditKind.TakeOut => "Take a piece out",
            EditKind.Frame => "Frame a picture",
            EditKind.Lock => "Lock or unlock a pocket",
            EditKind.AddCard => "Add a card",
            EditKind.WriteCard => "Write on a card",
            EditKind.Furnish => "Say what a card is about",
            EditKind.JoinCards => "Join two cards",
            EditKind.Caption => "Put words on a picture",
            EditKind.Discard => "Throw a card away",
            EditKind.Fill => "Fill the spread",
            EditKind.AddKeepsake or EditKind.ChangeKeepsake or EditKind.UseKeepsake => "Measure a keepsake",
            EditKind.PutSpan => "Let a picture run over several pockets",
            EditKind.LeaveClear => "Leave a pocket clear",
            EditKind.Wish => "Say which size a picture is wanted in",
            EditKind.KeepPages => "Keep a part on its pages",
            EditKind.AddCollage or EditKind.ChangeCollage => "Make a collage",
            EditKind.WriteNote or EditKind.DropNote => "Write a note",
            _ => "Change a page design",
        };

    private static Guid Need(Guid? id) => id ?? throw Incomplete();

    private static RuleException Incomplete() =>
        new("The edit was incomplete. Nothing was changed: reload the page and try again.");
}
