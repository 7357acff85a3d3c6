using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Server.Photos;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Placing;

/// <summary>Turns an open unit into what the screen shows.</summary>
public sealed class UnitReader(ZestyContext db, History history, PieceFaces faces)
{
    public async Task<UnitView> ViewAsync(OpenUnit open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var (unit, content, style) = (open.Unit, open.Content, open.Calendar.Style);
        var neighbours = await db.Units
            .Where(u => u.AlbumId == unit.AlbumId && (u.Ordinal == unit.Ordinal - 1 || u.Ordinal == unit.Ordinal + 1))
            .Select(u => new { u.Id, u.Ordinal }).ToListAsync(cancel);
        var (undo, redo) = await history.NextAsync(unit.Id, cancel);
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
        return new UnitView(
            unit.Id,
            unit.AlbumId,
            unit.Revision,
            unit.Kind,
            open.Title,
            open.Dates.Name is not null || open.Dates.Kind == UnitKind.Hour ? open.Title : char.ToLowerInvariant(open.Title[0]) + open.Title[1..],
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
            [.. content.Notes.Select(n => new NoteView(
                n.Id, n.Day, SpanLabel.Day(n.Day, style.Order), n.Time is { } time ? SpanLabel.Time(time, style.Clock) : null, n.Text, n.Source is not null, n.Kind))],
            Proposed(open),
            undo?.Summary,
            redo?.Summary,
            new UnitCounts(
                open.Photos.Count,
                open.Photos.Keys.Count(id => !content.PhotosPlaced.Contains(id)),
                pockets,
                pockets - content.Placements.Count(p => open.CodeOf(p.Place) is not null),
                cards.Count,
                cards.Count(c => !ComputedCards.IsComputed(c.Kind) && c.Kind != CardKind.Filler && string.IsNullOrWhiteSpace(c.Words)),
                all.Count(p => p.Fit is { WordsOver: > 0 }),
                all.Count(p => p.Warning is not null),
                open.Dates.LeftOut ? 0 : Math.Max(0, pockets - open.Photos.Count - cards.Count - content.Pieces.OfType<Keepsake>().Count(k => !k.InEnvelope)),
                open.Photos.Values.Count(p => p.Verdict == Verdict.Undecided),
                open.Dates.LeftOut ? 0 : Math.Max(0, open.Photos.Count + cards.Count + content.Pieces.OfType<Keepsake>().Count(k => !k.InEnvelope) - pockets)));
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

        var pictures = open.Photos.Values.Where(p => p.Taken is not null && p.TimeSource != TimeSource.NameDay)
            .Select(p => (p, AlbumMoment.Of(p.Taken!.Value, open.Calendar.CutOff).Minute!.Value)).ToList();
        return HourSlots.Propose(Enumerable.Range(open.Dates.FirstNumber, open.Dates.Weight), pictures).Select(o => o.Nearest?.Id).FirstOrDefault(id => id is not null);
    }

    private async Task<FaceView> FaceAsync(OpenUnit open, OpenFace face, int spread, CancellationToken cancel)
    {
        var protector = face.Protector;
        var (originX, originY) = protector.BodyOrigin(face.Side);
        var otherUnit = face.Side == LeafSide.Front ? face.Leaf.BackUnitId : face.Leaf.FrontUnitId;
        var other = otherUnit is { } id
            ? await db.Units.AsNoTracking().SingleOrDefaultAsync(u => u.Id == id, cancel)
            : null;
        return new FaceView(
            face.Leaf.Id,
            face.Side,
            face.ProtectorRow.Id,
            protector.Design.Name,
            protector.Outer.Width.Emu,
            protector.Outer.Height.Emu,
            face.Side == LeafSide.Front ? 0 : (protector.Outer.Width - protector.RingStrip).Emu,
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
                        MeasureText.Show(protector.CutSize(p.Pocket.Nominal), open.Album.Measures),
                        bounds.X.Emu,
                        bounds.Y.Emu,
                        bounds.Width.Emu,
                        bounds.Height.Emu,
                        piece is null ? null : View(open, piece),
                        placement?.Locked ?? false);
                }),
            ],
            other is not null ? other.ReadDates().Title(open.Calendar.Style) : face.Side == LeafSide.Front ? "the end page" : "the title page",
            spread);
    }

    /// <summary>A piece for the screen; null for a print whose photo is no longer in the week.</summary>
    public PieceView? View(OpenUnit open, Piece piece)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(piece);
        var cut = open.CutSizeOf(piece);
        switch (piece)
        {
            case PhotoPrint print when open.Photos.TryGetValue(print.PhotoId, out var photo):
            {
                var crop = Crop.For(photo.Pixels, cut, print.Framing);
                var ppi = crop.PixelsPerInch(cut);
                var grade = Resolution.Grade(ppi);
                var rounded = Math.Round(ppi).ToString("0", CultureInfo.InvariantCulture);
                var words = grade switch
                {
                    ResolutionGrade.Good => $"{rounded} ppi: sharp.",
                    ResolutionGrade.Fair => $"{rounded} ppi: fair.",
                    ResolutionGrade.Poor => $"Only {rounded} ppi: this print will look soft. Zoom out or choose a smaller pocket.",
                    _ => $"Only {rounded} ppi: this print will look blurred. Choose a much smaller pocket or another picture.",
                };
                return new PieceView(
                    print.Id, PieceKind.Photo, null, photo.FileName, PhotoView.Of(photo, open.Calendar.Style), FramingView.Of(print.Framing),
                    new CropView(
                        crop.Left / photo.Width, crop.Top / photo.Height, crop.Width / photo.Width, crop.Height / photo.Height,
                        ppi, grade, 100 * crop.LossOf(photo.Pixels), words),
                    null, null, null,
                    print.Caption is null ? null : $"/api/units/{open.Unit.Id}/pieces/{print.Id}/face?v={Version($"{photo.Sha256}|{crop}|{cut.Width.Emu}x{cut.Height.Emu}|{print.Caption}|{string.Join(',', PhotoView.RefOf(photo).Covers)}")}",
                    grade >= ResolutionGrade.Poor ? words : null,
                    Caption: print.Caption is { } caption ? CaptionView.Of(caption) : null);
            }

            case Card card:
            {
                var face = faces.CardFaceOf(open, card, cut);
                var fit = CardStyle.RoleOf(card.Kind) is StyleRole.Title or StyleRole.Filler ? null : FitView.Of(face.Fit!);
                var title = Called(open, card);
                var version = Version(face, PieceFaces.WithPicture(open, card, new CardPieceFace(cut, face)).Picture);
                return new PieceView(
                    card.Id, PieceKind.Card, card.Kind, title, null, null, null, card.Words, open.Words.Style(card.StyleKey, card.Kind).Key, fit,
                    $"/api/units/{open.Unit.Id}/pieces/{card.Id}/face?v={version}",
                    fit is { WordsOver: > 0 } ? fit.Verdict : null,
                    Setting: card.Setting,
                    StoryId: card.StoryId,
                    Day: card.Day,
                    PictureId: face.Opening is null ? null : card.Picture?.PhotoId,
                    TakesPicture: open.Words.Style(card.StyleKey, card.Kind).Zones.Picture != PicturePlace.None);
            }

            case Keepsake keepsake:
                var system = open.Album.Measures;
                var placed = open.Content.PlacementOf(keepsake.Id) is { } lies && open.CodeOf(lies.Place) is not null ? lies : (Placement?)null;
                var fits = open.Pockets.Any(p => keepsake.FitIn(open.ClearSize(p.Place)) != KeepsakeFit.TooLarge);
                return new PieceView(
                    keepsake.Id, PieceKind.Keepsake, null, keepsake.Name, null, null, null, null, null, null,
                    $"/api/units/{open.Unit.Id}/pieces/{keepsake.Id}/face?v={Version($"{keepsake.Name}|{keepsake.PhotoId}|{cut.Width.Emu}x{cut.Height.Emu}")}",
                    null,
                    new KeepsakeInfo(
                        keepsake.Name, MeasureText.Exact(keepsake.Size, system), MeasureText.Exact(keepsake.Thickness, MeasureSystem.Millimetres), keepsake.Note,
                        keepsake.PhotoId, keepsake.Day, keepsake.InEnvelope,
                        keepsake.InEnvelope ? "Lies in the album's envelope."
                        : placed is not null ? cut == keepsake.Size ? "Goes in itself." : "Goes in itself, turned."
                        : fits ? "Fits a pocket of these pages." : "Too large for every pocket here: it goes to the envelope."));

            default:
                return null;
        }
    }

    /// <summary>What a card is called in lists.</summary>
    public static string Called(OpenUnit open, Card card)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.WeekTitle => $"Title: {open.Title}",
            CardKind.Filler => "Filler card",
            CardKind.DayTitle => $"Title: {SpanLabel.Day(card.Day ?? open.Dates.First, open.Calendar.Style.Order)}",
            CardKind.Countdown => "Countdown",
            _ => ComputedCards.Heading(card.Kind) is { } heading && (ComputedCards.IsComputed(card.Kind) || string.IsNullOrWhiteSpace(card.Words)) ? heading : Opening(card.Words),
        };
    }

    private static string Opening(string words)
    {
        var first = words.Trim().Split('\n')[0].Trim();
        return first.Length switch { 0 => "Journaling card, no words yet", > 40 => first[..40] + "…", _ => first };
    }

    /// <summary>Changes when anything that shows on the card does, so that a browser may keep the picture for ever.</summary>
    private static string Version(CardFace face, PhotoFace? picture) => Version(string.Join('|', [
        $"{face.Width}x{face.Height}", face.Corner, face.Paper, face.Opening, picture?.Original.Sha256, picture?.Crop, .. picture?.Original.Covers ?? [], .. face.Boxes, .. face.Rules.Take(40), .. face.Discs.Take(8), .. face.Runs.Select(r => $"{r.Face} {r.SizePt} {r.X} {r.Baseline} {r.Ink} {r.Text}")]));

    private static string Version(string recipe) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(recipe)))[..16];
}
