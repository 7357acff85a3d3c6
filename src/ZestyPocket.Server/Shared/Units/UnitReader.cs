using System.Globalization;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>Turns an open unit into what the screen shows.</summary>
public sealed class UnitReader(
    ZestyContext db,
    History history,
    PieceFaces faces,
    StoriesOfDays stories,
    FontShelf fonts,
    CompositionFaces compositions,
    BoughtCardFaces boughtCards
)
{
    public async Task<UnitView> ViewAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var (unit, content, style) = (open.Unit, open.Content, open.Calendar.Style);
        var neighbours = await db
            .Units.Where(u =>
                u.AlbumId == unit.AlbumId && (u.Ordinal == unit.Ordinal - 1 || u.Ordinal == unit.Ordinal + 1)
            )
            .Select(u => new { u.Id, u.Ordinal })
            .ToListAsync(cancel);
        var (undo, redo) = await history.NextAsync(unit, cancel);
        var faceViews = new List<FaceView>();
        var spreads = Binding.SpreadsOf([.. open.Faces.Select(f => f.Side)]);
        foreach (var (face, spread) in open.Faces.Zip(spreads))
        {
            faceViews.Add(await FaceAsync(open, face, spread, cancel));
        }

        var cards = content.Pieces.OfType<Card>().ToList();
        var loose = content.Loose.Select(p => View(open, p)).OfType<PieceView>().ToList();
        var all = faceViews.SelectMany(f => f.Pockets).Select(p => p.Piece).OfType<PieceView>().Concat(loose).ToList();
        var pockets = faceViews.Sum(f => f.Pockets.Count);
        var told = await stories.OfAsync([open], cancel);
        var tally = new UnitTally(open.Desk, told[unit.Id], fonts);
        var (pieces, room) = (
            tally.PiecesButStories + tally.UntoldPieces,
            pockets - open.Pockets.Count(p => content.LeftEmpty.Contains(p.Place))
        );
        return new UnitView(
            unit.Id,
            unit.AlbumId,
            unit.Revision,
            unit.Kind,
            open.Title,
            open.Dates.Name is not null || open.Dates.Kind == UnitKind.Hour
                ? open.Title
                : char.ToLowerInvariant(open.Title[0]) + open.Title[1..],
            open.Dates.Name,
            open.Dates.Span(open.Calendar.Style),
            open.Dates.Weight,
            open.Dates.LeftOut,
            unit.FirstDay,
            unit.LastDay,
            neighbours.Find(n => n.Ordinal < unit.Ordinal)?.Id,
            neighbours.Find(n => n.Ordinal > unit.Ordinal)?.Id,
            faceViews,
            [.. open.Photos.Values.Select(p => PhotoView.Of(p, style))],
            [.. Days(unit).Select(d => new UnitDayView(d, SpanLabel.Day(d, style.Order)))],
            loose,
            [.. content.InEnvelope.Select(k => View(open, k)).OfType<PieceView>()],
            [
                .. content.Notes.Select(n => new NoteView(
                    n.Id,
                    n.Day,
                    SpanLabel.Day(n.Day, style.Order),
                    n.Time is { } time ? SpanLabel.Time(time, style.Clock) : null,
                    n.Text,
                    n.Source is not null,
                    n.Kind
                )),
            ],
            Proposed(open),
            undo?.Summary,
            redo?.Summary,
            new UnitCounts(
                open.Photos.Count,
                open.Photos.Keys.Count(id => !content.PhotosPlaced.Contains(id)),
                pockets,
                room - content.Placements.Count(p => open.CodeOf(p.Place) is not null),
                cards.Count,
                cards.Count(c =>
                    !ComputedCards.IsComputed(c.Kind) && c.Kind != CardKind.Filler && string.IsNullOrWhiteSpace(c.Words)
                ),
                all.Count(p => p.Fit is { WordsOver: > 0 }),
                all.Count(p => p.Warning is not null),
                open.Dates.LeftOut ? 0 : Math.Max(0, room - pieces),
                open.Photos.Values.Count(p => p.Verdict == Verdict.Undecided),
                open.Dates.LeftOut ? 0 : Math.Max(0, pieces - room)
            ),
            content.KeepsItsPages,
            [.. content.Wishes.Select(w => new WishView(w.PhotoId, w.Size.ToString()))],
            TintOfCards.Of(content.Tint),
            open.Desk.Weights,
            content.Weights is not null,
            open.Dates.Hour,
            open.Dates.Kind == UnitKind.Hour
                ? [.. open.Calendar.Waking.Hours.Select(h => new HourView(h, SpanLabel.Hour(h, style.Clock)))]
                : []
        );
    }

    private static IEnumerable<NodaTime.LocalDate> Days(Storage.Albums.AlbumUnit unit)
    {
        for (var day = unit.FirstDay; day <= unit.LastDay; day = day.PlusDays(1))
        {
            yield return day;
        }
    }

    /// <summary>For an hour, the picture nearest to it.</summary>
    private static Guid? Proposed(OpenUnit open)
    {
        if (open.Dates.Kind != UnitKind.Hour)
        {
            return null;
        }

        var pictures = open
            .Photos.Values.Where(p => p.Taken is not null && p.TimeSource != TimeSource.NameDay)
            .Select(p => (p, AlbumMoment.Of(p.Taken!.Value, open.Calendar.CutOff).Minute!.Value))
            .ToList();
        return HourSlots
            .Propose(Enumerable.Range(open.Dates.FirstNumber, open.Dates.Weight), pictures)
            .Select(o => o.Nearest?.Id)
            .FirstOrDefault(id => id is not null);
    }

    private async Task<FaceView> FaceAsync(OpenUnit open, OpenFace face, int spread, CancellationToken cancel)
    {
        var protector = face.Protector;
        var (originX, originY) = protector.BodyOrigin(face.Side);
        var body = new Size(open.Album.BodyWidth, open.Album.BodyHeight);
        var otherUnit = face.Side == LeafSide.Front ? face.Leaf.BackUnitId : face.Leaf.FrontUnitId;
        var other = otherUnit is { } id
            ? await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == id, cancel)
            : null;
        var behind =
            otherUnit == open.Unit.Id ? open.Content
            : other is { PiecesPlaced: > 0 } ? other.Read()
            : UnitContent.Empty;
        var otherSide = face.Side == LeafSide.Front ? LeafSide.Back : LeafSide.Front;
        return new FaceView(
            face.Leaf.Id,
            face.Side,
            face.ProtectorRow.Id,
            protector.Design.Name,
            protector.Outer.Width.Emu,
            protector.Outer.Height.Emu,
            protector.RingStripX(face.Side).Emu,
            protector.RingStrip.Emu,
            [
                .. face.Pockets.Select(p =>
                {
                    var bounds = p.Pocket.Bounds.Moved(originX, originY);
                    var placement = open.Content.At(p.Place);
                    var piece = placement is { } found ? open.Content.Find(found.PieceId) : null;
                    return new PocketView(
                        p.Pocket.Key,
                        p.Number,
                        open.CodeOf(p.Place)!,
                        p.Pocket.Nominal.ToString(),
                        MeasureText.Show(protector.CutSize(p.Pocket), open.Album.Measures),
                        bounds.X.Emu,
                        bounds.Y.Emu,
                        bounds.Width.Emu,
                        bounds.Height.Emu,
                        piece is null ? null : SeenThrough(open, View(open, piece), piece, Behind(p.Place)),
                        placement?.Locked ?? false,
                        open.Content.LeftEmpty.Contains(p.Place),
                        Behind(p.Place) is { } back ? Named(back) : null,
                        face.Alterations.Stuck.Contains(p.Pocket.Key),
                        piece is not null
                        && Stocks.SeeThrough(open.Words.StockOf(piece)) > 0
                        && Behind(p.Place) is { } shows
                            ? $"/api/units/{otherUnit}/pieces/{shows.Id}/face"
                            : null,
                        piece is null
                            ? null
                            : MeasureText.Exact(PieceThickness.InPocket(open.Desk, p.Place), MeasureSystem.Millimetres)
                    );
                }),
            ],
            other is not null ? other.ReadDates().Title(open.Calendar.Style)
                : face.Side == LeafSide.Front ? "the end page"
                : "the title page",
            spread,
            protector.Form.Kind,
            [.. protector.HolesOn(face.Side).Select(h => new PointView(h.X.Emu, h.Y.Emu))],
            protector.Form.Holes?.Diameter.Emu ?? 0,
            [.. protector.MarksOn(face.Side, face.Alterations).Select(MarkView.Of)],
            protector.WidthInAlbum.Emu,
            NoteOf(protector, Protector.UsualOuter(body), open.Album.Measures),
            face.Alterations.Tab?.Words
        );

        Piece? Behind(PocketPlace place) =>
            behind.At(place with { Side = otherSide }) is { } lies ? behind.Find(lies.PieceId) : null;
    }

    /// <summary>What there is to know of a leaf that is not a whole page of pockets.</summary>
    public static string? NoteOf(Protector protector, Size page, MeasureSystem measures)
    {
        ArgumentNullException.ThrowIfNull(protector);
        return protector.Form switch
        {
            { Kind: LeafKind.FoldOut, Fold: { } fold } =>
                $"Folds {MeasureText.Show(fold, measures)} from the ring edge and leaves a flap of "
                    + $"{MeasureText.Show(protector.Outer.Width - fold, measures)}; nothing important within "
                    + $"{MeasureText.Show(MustStay.ClearOfFold, measures)} of the fold.",
            { Kind: LeafKind.Sheet } => "Outside the pockets: nothing that matters within "
                + $"{MeasureText.Show(protector.RingStrip, measures)} of the ring edge, where it is punched.",
            { Kind: LeafKind.Divider } => "A clear divider: it holds nothing, and what lies behind it shows through.",
            { Kind: LeafKind.Envelope } => "The envelope holds the keepsakes that are too large for a pocket.",
            _ when protector.Hides(page) is { } hidden =>
                $"A smaller leaf: turned, it hides {MeasureText.Show(hidden, measures)} of the page behind, beside "
                    + "the rings.",
            _ => null,
        };
    }

    /// <summary>A piece on clear film shows its back on the other face.</summary>
    private static PieceView? SeenThrough(OpenUnit open, PieceView? view, Piece piece, Piece? behind) =>
        view is null || behind is null ? view
        : piece is Keepsake { SeeThrough: true }
            ? view with
            {
                Warning =
                    view.Warning
                    ?? $"See-through: its back shows behind it, where {Named(behind)} lies. Leave that pocket empty "
                        + "or put the same shape there.",
            }
        : piece is Card { Kind: not CardKind.Filler } && Stocks.SeeThrough(open.Words.StockOf(piece)) > 0
            ? view with
            {
                Warning =
                    view.Warning
                    ?? $"On {Stocks.Name(open.Words.StockOf(piece))} {Named(behind)} behind it shows through the "
                        + "words. Leave that pocket empty or choose white card.",
            }
        : behind is Keepsake { SeeThrough: true } shows
            ? view with
            {
                Warning = view.Warning ?? $"{shows.Name} behind it is see-through: this piece shows through it.",
            }
        : view;

    /// <summary>A piece in a sentence, without opening its own part of the album.</summary>
    public static string Named(Piece piece) =>
        piece switch
        {
            PhotoPrint { SpanId: not null } => "part of a picture",
            PhotoPrint => "a picture",
            Collage => "a collage",
            Composition made => $"the composition “{made.Name}”",
            BoughtCard bought => $"the bought card “{bought.Name}”",
            WordStrips strips => $"the label “{UnitDesk.Opening(strips.Words)}”",
            Keepsake keepsake => keepsake.Name,
            Card card when ComputedCards.Heading(card.Kind) is { } heading => $"the card “{heading}”",
            Card { Kind: CardKind.WeekTitle or CardKind.DayTitle } => "a title card",
            Card { Kind: CardKind.Filler } => "a filler card",
            Card card => string.IsNullOrWhiteSpace(card.Words)
                ? "a card without words"
                : $"the card “{UnitDesk.Opening(card.Words)}”",
            _ => "a piece",
        };

    /// <summary>A piece for the screen; null for a print whose photo is no longer in the week.</summary>
    public PieceView? View(OpenUnit open, Piece piece)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(piece);
        return OwnView(open, piece) is { } view
            ? view with
            {
                Stock = open.Words.StockOf(piece),
                OwnStock = piece.PrintedOn,
                Steps = [.. piece.Steps.Select(s => WrittenStep.Of(s, open.Album.Measures))],
                Attachment = piece.Attachment is { } goes ? AttachmentOf(open, piece, goes) : null,
                Attached = [.. open.Content.AttachedTo(piece.Id).Select(with => View(open, with)).OfType<PieceView>()],
            }
            : null;
    }

    private static AttachmentView? AttachmentOf(OpenUnit open, Piece piece, Attachment goes)
    {
        if (open.Content.Find(goes.To) is not { } to)
        {
            return null;
        }

        var (whole, own) = (open.CutSizeOf(to), open.CutSizeOf(piece));
        return new AttachmentView(
            goes.To,
            goes.Kind,
            goes.Edge,
            goes.Depth is { } depth ? MeasureText.Show(depth, open.Album.Measures) : null,
            goes.Across,
            goes.Down,
            MeasureText.Show(own, open.Album.Measures),
            ShareBox.Of(goes.PlaceOn(whole, own), whole),
            goes.Kind == AttachmentKind.Flip ? ShareBox.Of(goes.LiftedOn(whole, own), whole) : null,
            goes.TurnsBackUpsideDown
        );
    }

    private PieceView? OwnView(OpenUnit open, Piece piece)
    {
        var cut = open.CutSizeOf(piece);
        switch (piece)
        {
            case PhotoPrint print when open.PhotoOf(print.PhotoId) is { } photo:
            {
                var room = open.RoomOf(print);
                var crop = PieceFaces.CropOf(open, print, photo, room);
                // A part of a tall picture is as wide as the print, however high it is.
                var ppi = print.Part is null
                    ? crop.PixelsPerInch(room)
                    : Math.Max(crop.Width / (double)room.Width.Inches, crop.Height / (double)room.Height.Inches);
                var grade = Resolution.Grade(ppi);
                var rounded = Math.Round(ppi).ToString("0", CultureInfo.InvariantCulture);
                var words = grade switch
                {
                    ResolutionGrade.Good => $"{rounded} ppi: sharp.",
                    ResolutionGrade.Fair => $"{rounded} ppi: fair.",
                    ResolutionGrade.Poor =>
                        $"Only {rounded} ppi: this print will look soft. Zoom out or choose a smaller pocket.",
                    _ => $"Only {rounded} ppi: this print will look blurred. Choose a much smaller pocket or another "
                        + "picture.",
                };
                return new PieceView(
                    print.Id,
                    PieceKind.Photo,
                    null,
                    photo.FileName,
                    PhotoView.Of(photo, open.Calendar.Style),
                    FramingView.Of(print.Framing),
                    new CropView(
                        crop.Left / photo.Width,
                        crop.Top / photo.Height,
                        crop.Width / photo.Width,
                        crop.Height / photo.Height,
                        ppi,
                        grade,
                        100 * LossOf(open, print, photo, crop),
                        words,
                        crop.Degrees
                    ),
                    null,
                    null,
                    null,
                    print
                        is {
                            Caption: null,
                            Finish: null,
                            Adjustment: null,
                            LegendLine: null,
                            Attachment: null,
                            Part: null
                        }
                        ? null
                        : FaceUrl(open, print, faces.Of(open, print, cut)!),
                    grade >= ResolutionGrade.Poor
                        ? words
                        : NoRoomForFinish(print.Finish, cut) ?? OnStrip(open, print, photo, crop, cut),
                    Caption: print.Caption is { } caption ? WrittenCaption.Of(caption) : null,
                    IsPart: print.Part is not null,
                    Span: print.SpanId is { } span ? SpanOf(open, print, span) : null,
                    Finish: WrittenFinish.Of(print.Finish, open.Album.Measures),
                    LegendLine: print.LegendLine,
                    Adjustment: print.Adjustment
                );
            }

            case Collage collage:
                return View(open, collage, cut);

            case Composition made:
                return View(open, made, cut);

            case BoughtCard bought when faces.Of(open, bought, cut) is { } shown:
                return View(open, bought, cut, shown);

            case WordStrips strips:
                return new PieceView(
                    strips.Id,
                    PieceKind.Label,
                    null,
                    UnitDesk.Opening(strips.Words),
                    null,
                    null,
                    null,
                    strips.Words,
                    null,
                    null,
                    FaceUrl(open, strips, faces.Of(open, strips, cut)!),
                    null,
                    Label: new WrittenLabel(
                        strips.Words,
                        strips.Form,
                        strips.SizePt,
                        strips.Paper.ToString(),
                        strips.Ink.ToString(),
                        strips.Face,
                        MeasureText.Show(strips.Size, open.Album.Measures)
                    )
                );

            case Card card:
            {
                var face = faces.CardFaceOf(open, card, open.RoomOf(card));
                var fit = CardStyle.RoleOf(card.Kind) is StyleRole.Title or StyleRole.Filler
                    ? null
                    : FitView.Of(face.Fit!);
                var title = open.Desk.Called(card);
                return new PieceView(
                    card.Id,
                    PieceKind.Card,
                    card.Kind,
                    title,
                    null,
                    null,
                    null,
                    card.Words,
                    open.Words.Style(card.StyleKey, card.Kind).Key,
                    fit,
                    FaceUrl(open, card, faces.Of(open, card, cut)!),
                    fit is { WordsOver: > 0 }
                        ? fit.Verdict
                        : NoRoomForFinish(card.Finish, cut) ?? HardToRead(open, card),
                    Setting: card.Setting,
                    StoryId: card.StoryId,
                    PairedWith: card.PairedWith,
                    Day: card.Day,
                    PictureId: face.Opening is null ? null : card.Picture?.PhotoId,
                    TakesPicture: open.Words.Style(card.StyleKey, card.Kind).Zones.Picture != PicturePlace.None,
                    Finish: WrittenFinish.Of(card.Finish, open.Album.Measures),
                    SmallPictures: SmallPicturesOf(open, card)
                );
            }

            case Keepsake keepsake:
                var system = open.Album.Measures;
                var placed =
                    open.Content.PlacementOf(keepsake.Id) is { } lies && open.CodeOf(lies.Place) is not null
                        ? lies
                        : (Placement?)null;
                var fits = open.Pockets.Any(p => keepsake.FitIn(open.ClearSize(p.Place)) != KeepsakeFit.TooLarge);
                return new PieceView(
                    keepsake.Id,
                    PieceKind.Keepsake,
                    null,
                    keepsake.Name,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    FaceUrl(open, keepsake, faces.Of(open, keepsake, cut)!),
                    null,
                    new KeepsakeInfo(
                        keepsake.Name,
                        MeasureText.Exact(keepsake.Size, system),
                        MeasureText.Exact(keepsake.Thickness, MeasureSystem.Millimetres),
                        keepsake.Note,
                        keepsake.PhotoId,
                        keepsake.Day,
                        keepsake.InEnvelope,
                        keepsake.InEnvelope ? "Lies in the album's envelope."
                            : placed is not null
                                ? cut == keepsake.Size ? "Goes in itself."
                                    : "Goes in itself, turned."
                            : fits ? "Fits a pocket of these pages."
                            : "Too large for every pocket here: it goes to the envelope.",
                        keepsake.SeeThrough,
                        keepsake.Price
                    )
                );

            default:
                return null;
        }
    }

    private PieceView View(OpenUnit open, BoughtCard card, Size cut, PieceFace face)
    {
        var fit = boughtCards.FitOf(open, card) is { } words ? FitView.Of(words) : null;
        var measures = open.Album.Measures;
        var smaller = card.Width < cut.Width || card.Height < cut.Height;
        var offcuts = card.OffcutsFor(cut);
        return new PieceView(
            card.Id,
            PieceKind.BoughtCard,
            null,
            card.Name,
            null,
            null,
            null,
            card.Words,
            null,
            fit,
            FaceUrl(open, card, face),
            fit is { WordsOver: > 0 } ? fit.Verdict
                : smaller
                    ? $"The card is {MeasureText.Show(card.Size, measures)} and its pocket "
                        + $"{MeasureText.Show(cut, measures)}: mount it on paper of pocket size."
                : null,
            PictureId: card.PhotoId,
            BoughtCard: WrittenBoughtCard.Of(card, measures),
            OnCard: PlacesOnCard.Of(card, cut),
            Offcuts: [.. offcuts.Select(s => MeasureText.Show(s, measures))]
        );
    }

    private PieceView View(OpenUnit open, Composition made, Size cut)
    {
        var over = made
            .Shapes.Select((s, i) => (Fit: compositions.FitOf(open, s, cut), Number: i + 1))
            .Where(s => s.Fit is { Fits: false })
            .Select(s => $"Shape {s.Number}: {FitView.Of(s.Fit!).Verdict}")
            .ToList();
        var soft = made
            .Shapes.Where(s => s.PhotoId is { } id && open.PhotoOf(id) is { } photo && IsSoft(s, photo))
            .Count();
        return new PieceView(
            made.Id,
            PieceKind.Composition,
            null,
            made.Name,
            null,
            null,
            null,
            null,
            null,
            null,
            FaceUrl(open, made, faces.Of(open, made, cut)!),
            over.Count > 0 ? string.Join(" ", over)
                : soft > 0 ? $"{NumberWords.Counted(soft, "picture")} under 200 ppi: make its shape smaller."
                : null,
            Composition: WrittenComposition.Of(made, open.Album.Measures)
        );

        bool IsSoft(CompositionShape shape, Photo photo)
        {
            var size = shape.On(cut).Bounds.Size;
            var ppi = Crop.For(photo.Pixels, size, shape.Framing).PixelsPerInch(size);
            return Resolution.Grade(ppi) >= ResolutionGrade.Poor;
        }
    }

    private PieceView View(OpenUnit open, Collage collage, Size cut)
    {
        var cells = collage.CellsIn(cut);
        var poor = cells
            .Select(c => (c.Bounds, Photo: collage.Cell(c.Key)?.PhotoId is { } id ? open.PhotoOf(id) : null))
            .Where(c => c.Photo is not null)
            .Count(c =>
                Resolution.Grade(Crop.For(c.Photo!.Pixels, c.Bounds.Size, Framing.Middle).PixelsPerInch(c.Bounds.Size))
                >= ResolutionGrade.Poor
            );
        var face = (CollageFace)faces.Of(open, collage, cut)!;
        var pictures = collage.Photos.Count();
        return new PieceView(
            collage.Id,
            PieceKind.Collage,
            null,
            $"Collage of {NumberWords.Of(pictures)} {(pictures == 1 ? "picture" : "pictures")}",
            null,
            null,
            null,
            null,
            null,
            null,
            FaceUrl(open, collage, face),
            poor > 0
                    ? $"{poor} {(poor == 1 ? "picture has" : "pictures have")} too few pixels for "
                        + $"{(poor == 1 ? "its cell" : "their cells")}."
                : Math.Abs((cut.Proportion / collage.Body.Proportion) - 1) > 0.05
                    ? $"Made for {collage.Body}: in a pocket of {cut} its cells are stretched."
                : null,
            Collage: new CollageView(
                collage.Layout,
                MeasureText.Exact(collage.Gutter, open.Album.Measures),
                collage.Body.ToString(),
                [
                    .. cells.Select(c => new CollageCellView(
                        c.Key,
                        collage.Cell(c.Key)?.PhotoId,
                        collage.Cell(c.Key)?.Words ?? string.Empty,
                        (double)c.Bounds.X.Emu / cut.Width.Emu,
                        (double)c.Bounds.Y.Emu / cut.Height.Emu,
                        (double)c.Bounds.Width.Emu / cut.Width.Emu,
                        (double)c.Bounds.Height.Emu / cut.Height.Emu,
                        collage.Cell(c.Key)?.PhotoId is { } id && open.PhotoOf(id) is { } photo
                            ? Math.Round(
                                100 * Crop.For(photo.Pixels, c.Bounds.Size, Framing.Middle).LossOf(photo.Pixels),
                                1
                            )
                            : 0
                    )),
                ]
            )
        );
    }

    private static SpanView SpanOf(OpenUnit open, PhotoPrint print, Guid span)
    {
        var slices = open.Content.SlicesOf(span);
        return new SpanView(span, slices.IndexOf(print) + 1, slices.Length);
    }

    /// <summary>What is cropped away; a slice loses only what the whole picture does.</summary>
    private static double LossOf(OpenUnit open, PhotoPrint print, Photo photo, Crop crop) =>
        print.Part is not null ? 0
        : open.SpanOf(print) is { } span ? Crop.For(photo.Pixels, span.Whole, print.Framing).LossOf(photo.Pixels)
        : crop.LossOf(photo.Pixels);

    /// <summary>On a page outside the pockets, what must stay may not lie where it is punched or folded.</summary>
    private static string? OnStrip(OpenUnit open, PhotoPrint print, Photo photo, Crop crop, Size cut)
    {
        if (
            open.Content.PlacementOf(print.Id) is not { } lies
            || open.Faces.FirstOrDefault(f => f.Leaf.Id == lies.Place.LeafId && f.Side == lies.Place.Side)
                is not { Protector.Form.Kind: LeafKind.Sheet or LeafKind.FoldOut } face
        )
        {
            return null;
        }

        var found = face.Pockets.First(p => p.Place == lies.Place);
        var (bodyX, bodyY) = face.Protector.BodyOrigin(face.Side);
        var bounds = found.Pocket.Bounds.Moved(bodyX, bodyY);
        var stray = MustStay.On(
            face.Protector,
            face.Side,
            face.Alterations,
            new Rect(bounds.X, bounds.Y, cut),
            crop,
            photo.Pixels,
            (photo.FocusX, photo.FocusY),
            Boxes.Read(photo.KeepBoxes)
        );
        return stray switch
        {
            StrayPlace.HoleStrip =>
                "What must stay of this picture lies in the hole strip: frame it away from the rings.",
            StrayPlace.Fold => "What must stay of this picture lies on the fold: frame it to one side.",
            _ => null,
        };
    }

    /// <summary>Words in pale ink on brown card.</summary>
    private static string? HardToRead(OpenUnit open, Card card)
    {
        if (open.Words.StockOf(card) == Stock.Kraft)
        {
            var contrast = Rgb.Contrast(PieceFaces.StyleOf(open, card).Ink, PieceFaces.KraftGround);
            return contrast < PhotoWords.ReadableContrast
                ? "These words are hard to read on kraft card: choose a style with darker ink."
                : null;
        }

        return null;
    }

    private static string? NoRoomForFinish(Finish? finish, Size cut) =>
        finish is not null && finish.OnOrNull(cut) is null
            ? "This pocket is too small for the finish: the piece is shown and printed without it."
            : null;

    /// <summary>
    /// The address of a piece's picture: the hash of what is drawn, so that a browser may keep it for ever.
    /// </summary>
    public static string FaceUrl(OpenUnit open, Piece piece, PieceFace face)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(piece);
        return $"/api/units/{open.Unit.Id}/pieces/{piece.Id}/face?v={PieceRecipe.HashOf(face)}";
    }

    /// <summary>The places for small pictures on a card with what lies there; null for other cards.</summary>
    private static List<SmallPictureView>? SmallPicturesOf(OpenUnit open, Card card) =>
        SmallPictures.PlacesOf(open.Desk, card) is { Count: > 0 } places
            ?
            [
                .. places.Select(place => new SmallPictureView(
                    place,
                    LocalDatePattern.Iso.Parse(place) is { Success: true } day
                        ? SpanLabel.Day(day.Value, open.Calendar.Style.Order)
                        : place,
                    card.SmallPictures.FirstOrDefault(p => p.Place == place)?.PhotoId
                )),
            ]
            : null;
}
