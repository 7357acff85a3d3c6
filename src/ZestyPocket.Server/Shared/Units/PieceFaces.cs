using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>Makes the face of a piece: the same for the screen, the sheet and the page.</summary>
public sealed class PieceFaces(FontShelf fonts, CompositionFaces compositions, BoughtCardFaces boughtCards)
{
    /// <summary>A piece at a cut size, with its finish; null for a print whose photo has left the week.</summary>
    public PieceFace? Of(OpenUnit open, Piece piece, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        return Finish.PartsOf(piece, cut) is { } parts
            ? Finished(open, piece, Finish.Of(piece) ?? Finish.None, parts, cut)
            : Bare(open, piece, cut);
    }

    /// <summary>
    /// What a pocket shows when everything in it is closed: the piece with what lies over it.
    /// </summary>
    public PieceFace? InPocket(OpenUnit open, Piece piece, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        if (Of(open, piece, cut) is not { } face)
        {
            return null;
        }

        var over = open.Desk.Content.Over(piece.Id).ToList();
        if (over.Count == 0)
        {
            return face;
        }

        var whole = new Rect(Length.Zero, Length.Zero, cut);
        var on = new List<(Rect, PieceFace)> { (whole, face) };
        foreach (var top in over)
        {
            var size = open.CutSizeOf(top);
            if (Of(open, top, size) is { } shown)
            {
                on.Add((top.Attachment!.PlaceOn(cut, size), shown));
            }
        }

        return new CollageFace(cut, [.. on], new Rgb(255, 255, 255));
    }

    /// <summary>
    /// A piece with its finish; null for a print whose photo has left the week. Its picture or words are as large as
    /// the finish leaves room.
    /// </summary>
    private FinishedFace? Finished(OpenUnit open, Piece piece, Finish finish, FinishedParts parts, Size cut)
    {
        var picture = parts.Picture.Bounds;
        if (Bare(open, piece, picture.Size) is not { } inner)
        {
            return null;
        }

        var made = finish
            .Mats.Zip(parts.Mats)
            .Select(
                (m, i) =>
                    new FinishPart(
                        finish.Mats.Length == 1 ? "mat" : $"mat {i + 1}",
                        m.Second,
                        m.First.Colour,
                        m.First.StyleKey is { } key ? [Pattern(open, key, m.Second.Bounds, m.Second)] : [],
                        IsMat: true
                    )
            )
            .ToList();
        var on = new List<FaceOnPart>();
        if (parts.Strip is { } strip)
        {
            on.Add(Pattern(open, finish.Strip!.StyleKey, strip, Outline.Of(strip)));
        }

        on.Add(new FaceOnPart(picture, inner, parts.Picture));
        var ground = finish.Border?.Colour ?? (piece is Card card ? StyleOf(open, card).Paper : new Rgb(255, 255, 255));
        return new FinishedFace(cut, [.. made, new FinishPart(string.Empty, parts.Print, ground, [.. on])]);
    }

    /// <summary>The pattern of a filler style, in the colours of the unit.</summary>
    public static FaceOnPart Pattern(OpenUnit open, string styleKey, Rect bounds, Outline clip)
    {
        var own = open.Words.Style(styleKey, CardKind.Filler);
        var style = open.Content.Tint?.On(own) ?? own;
        return new FaceOnPart(bounds, new CardPieceFace(bounds.Size, CardComposer.Filler(style, bounds.Size)), clip);
    }

    private PieceFace? Bare(OpenUnit open, Piece piece, Size cut) =>
        piece switch
        {
            PhotoPrint { Part: { } part } print => open.PhotoOf(print.PhotoId) is { } tall
                ? PartOf(tall, part, cut, TonesOf(print, tall))
                : null,
            PhotoPrint print => open.PhotoOf(print.PhotoId) is { } photo
                ? Captioned(
                    new PhotoFace(cut, PhotoView.RefOf(photo), photo.Pixels, CropOf(open, print, photo, cut))
                    {
                        Tones = TonesOf(print, photo),
                    },
                    open,
                    print,
                    photo
                )
                : null,
            Collage collage => CollageOf(open, collage, cut),
            Composition made => compositions.Of(open, made, cut),
            BoughtCard card => boughtCards.Of(open, card, cut),
            WordStrips strips => AttachedFaces.Of(strips, fonts),
            Card card => WithPicture(
                open,
                card,
                OnStock(open.Words.StockOf(card), new CardPieceFace(cut, CardFaceOf(open, card, cut)))
            ),
            Keepsake { PhotoId: { } taken } when open.PhotoOf(taken) is { } picture => new PhotoFace(
                cut,
                PhotoView.RefOf(picture),
                picture.Pixels,
                Crop.For(picture.Pixels, cut, Framing.Middle)
            ),
            Keepsake keepsake => new CardPieceFace(cut, CardComposer.KeepsakeNote(keepsake.Name, cut, fonts)),
            _ => throw new ArgumentException("Unknown kind of piece.", nameof(piece)),
        };

    /// <summary>A part of a tall picture at full width from the top; white is left under a short one.</summary>
    private static FinishedFace PartOf(Photo photo, PicturePart part, Size cut, FaceTones? tones)
    {
        var crop = CropOf(photo, part);
        var scale = Math.Min(cut.Width.Points / crop.Width, cut.Height.Points / crop.Height);
        var size = new Size(
            Length.Min(cut.Width, Length.FromPoints((decimal)(crop.Width * scale))),
            Length.Min(cut.Height, Length.FromPoints((decimal)(crop.Height * scale)))
        );
        var shown = new Rect((cut.Width - size.Width) / 2, Length.Zero, size);
        var whole = Outline.Of(new Rect(Length.Zero, Length.Zero, cut));
        return new FinishedFace(
            cut,
            [
                new FinishPart(
                    string.Empty,
                    whole,
                    new Rgb(255, 255, 255),
                    [
                        new FaceOnPart(
                            shown,
                            new PhotoFace(size, PhotoView.RefOf(photo), photo.Pixels, crop) { Tones = tones },
                            whole
                        ),
                    ]
                ),
            ]
        );
    }

    private static Crop CropOf(Photo photo, PicturePart part) =>
        new(0, part.Top * photo.Height, photo.Width, part.Height * photo.Height);

    /// <summary>The kept part of a print; of a picture over several pockets, the part behind this one.</summary>
    public static Crop CropOf(OpenUnit open, PhotoPrint print, Photo photo, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(print);
        ArgumentNullException.ThrowIfNull(photo);
        return print.Part is { } part ? CropOf(photo, part)
            : open.SpanOf(print) is { } span
                ? Spans.SliceOf(Crop.For(photo.Pixels, span.Whole, print.Framing), span.Whole, span.Slice)
            : print.CropFor(photo.Pixels, cut);
    }

    private static FaceTones? TonesOf(PhotoPrint print, Photo photo) =>
        print.Adjustment is { } adjusted && (adjusted.BlackAndWhite || adjusted.Lighter != 0)
            ? new FaceTones(adjusted.BlackAndWhite, adjusted.Gamma(photo.Tone))
            : null;

    /// <summary>Cells of a collage at a cut size, each drawn like the piece it would be by itself.</summary>
    private CollageFace CollageOf(OpenUnit open, Collage collage, Size cut)
    {
        var own = open.Words.NewStyle(CardKind.Journaling).WithoutPicture();
        var style = open.Content.Tint?.On(own) ?? own;
        var cells = new List<(Rect, PieceFace)>();
        foreach (var (key, bounds) in collage.CellsIn(cut))
        {
            if (collage.Cell(key) is not { } cell)
            {
                continue;
            }

            if (cell.PhotoId is { } id && open.PhotoOf(id) is { } photo)
            {
                cells.Add(
                    (
                        bounds,
                        new PhotoFace(
                            bounds.Size,
                            PhotoView.RefOf(photo),
                            photo.Pixels,
                            Crop.For(photo.Pixels, bounds.Size, cell.Framing)
                        )
                    )
                );
            }
            else if (!string.IsNullOrWhiteSpace(cell.Words))
            {
                cells.Add(
                    (
                        bounds,
                        new CardPieceFace(bounds.Size, CardComposer.Journaling(cell.Words, style, bounds.Size, fonts))
                    )
                );
            }
        }

        return new CollageFace(cut, [.. cells], collage.Ground);
    }

    public CardFace CardFaceOf(OpenUnit open, Card card, Size cut) => CardFaceOf(open, card, Levelled(open, card), cut);

    /// <summary>A card's style, at the size that it shares with other cards of its unit.</summary>
    private CardStyle Levelled(OpenUnit open, Card card)
    {
        var style = StyleOf(open, card);
        return open.LevelOf(card, fonts) is { } level ? TypeLevels.At(level, style) : style;
    }

    /// <summary>A card in a style that it may not have yet.</summary>
    public CardFace CardFaceOf(OpenUnit open, Card card, CardStyle style, Size cut)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        var mark = ComputedCards.Mark(open.Dates, card.Day, open.Calendar.Style);
        switch (card.Kind)
        {
            case CardKind.WeekTitle:
                return CardComposer.UnitTitle(open.Dates, open.Calendar.Style, style, cut, fonts);
            case CardKind.DayTitle:
                return CardComposer.DayTitle(card.Day ?? open.Dates.First, style, cut, fonts);
            case CardKind.Filler:
                return CardComposer.Filler(style, cut, card.Setting?.Seed ?? FillerPatterns.FirstSeed);
            case CardKind.Map when card.Setting is { Outline: true }:
                return MapCard.Draw(
                    MapOf(open, card.Day),
                    style,
                    cut,
                    fonts,
                    open.Album.Measures,
                    ComputedCards.Heading(card.Kind)!,
                    mark
                );
            case CardKind.Map:
                return SketchMap.Card(
                    WayOf(open, card.Day),
                    style,
                    cut,
                    fonts,
                    ComputedCards.Heading(card.Kind)!,
                    mark
                );
            case CardKind.Legend:
                // Lines to be looked up, not a headline.
                var small = new CardSetting(LargestPt: LegendPt).On(style);
                return CardComposer.Journaling(WordsOf(open, card), small, cut, fonts, null, mark);
            case CardKind.Calendar:
                return CalendarCard.Draw(CalendarOf(open, card), style, cut, fonts);
            case CardKind.Divider:
                var (before, figure, way) = ComputedCards.Divider(
                    open.Dates,
                    card.Day ?? open.Dates.First,
                    open.Calendar
                );
                return CardComposer.Title(before, figure, way, style, cut, fonts);
            case CardKind.People when Pictured(open, card) is { Count: > 0 } pictured:
                return PeoplePage.Draw(
                    ComputedCards.PeopleOn(open.Words.People, card.Day ?? open.Dates.First),
                    pictured,
                    style,
                    cut,
                    fonts,
                    ComputedCards.Heading(card.Kind)!
                );
            case CardKind.Countdown:
                var (over, large, foot) = ComputedCards.Countdown(
                    card.Day ?? open.Dates.First,
                    CountdownTo(open),
                    card.Words,
                    open.Calendar.Style
                );
                return CardComposer.Title(over, large, foot, style, cut, fonts);
            case var _ when card.Setting is { ByHand: true }:
                return CardComposer.ByHand(
                    WordsOf(open, card),
                    style,
                    cut,
                    open.Words.Hand,
                    fonts,
                    ComputedCards.Heading(card.Kind),
                    mark
                );
            default:
                return CardComposer.Journaling(
                    WordsOf(open, card),
                    style,
                    cut,
                    fonts,
                    ComputedCards.Heading(card.Kind),
                    mark
                );
        }
    }

    /// <summary>The words that stand on a card: typed, or computed where its kind says so.</summary>
    public string WordsOf(OpenUnit open, Card card)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        return card.Kind switch
        {
            CardKind.People => ComputedCards.People(open.Words.People, card.Day ?? open.Dates.First),
            CardKind.FromTo => ComputedCards.FromTo(open.Calendar, open.Dates.First, open.Dates.Last),
            CardKind.Numbers => ComputedCards.Numbers(
                new AlbumNumbers(
                    Period.DaysBetween(open.Dates.First, open.Dates.Last) + 1,
                    open.Words.People.Length,
                    open.Calendar.Stays.Where(s => s.From.Date <= open.Dates.Last)
                        .Select(s => s.Place)
                        .Distinct()
                        .Count(),
                    open.Photos.Count,
                    open.Content.Pieces.OfType<Card>()
                        .Where(c => !ComputedCards.IsComputed(c.Kind))
                        .Sum(c => Copyfit.CountWords(c.Words))
                ),
                TripTotals
                    .Of(open.Trips.Log, open.Dates.First, open.Dates.Last)
                    .Lines(open.Album.Measures, open.Trips.Log.HomeCurrency)
            ),
            CardKind.Facts => Facts(open, card.Day ?? open.Dates.First),
            CardKind.Map when card.Setting is { Outline: true } => MapOf(open, card.Day).Words,
            CardKind.Map => SketchMap.Words(WayOf(open, card.Day)) ?? string.Empty,
            CardKind.Legend => Legend.Of(open.Desk) is { Count: > 0 } entries
                ? Legend.Words(entries)
                : "No picture has a line of the legend yet.",
            _ => card.Words,
        };
    }

    /// <summary>
    /// A card's style with what was changed on the card, and without a place for a picture when it carries none.
    /// </summary>
    public static CardStyle StyleOf(OpenUnit open, Card card) =>
        StyleOf(open, card, card?.StyleKey ?? string.Empty, card?.Setting);

    /// <summary>Another style and setting as this card would have them.</summary>
    public static CardStyle StyleOf(OpenUnit open, Card card, string styleKey, CardSetting? setting)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        return open.Desk.StyleOf(card, styleKey, setting, id => open.PhotoOf(id) is not null);
    }

    /// <summary>A card as it looks on what it is printed on.</summary>
    private static CardPieceFace OnStock(Stock stock, CardPieceFace face) =>
        face with
        {
            GroundShare = 1 - Stocks.SeeThrough(stock),
            Card = stock == Stock.Kraft ? face.Card with { Paper = KraftGround } : face.Card,
        };

    /// <summary>Kraft card as a screen shows it. A choice of this program.</summary>
    public static Rgb KraftGround { get; } = new(205, 176, 132);

    /// <summary>The words on a print and its number on the legend, drawn over it.</summary>
    private PhotoFace Captioned(PhotoFace face, OpenUnit open, PhotoPrint print, Photo photo)
    {
        if (print.Caption is { } caption)
        {
            var (boxes, runs) = PhotoWords.Draw(
                caption with
                {
                    Words = FilledIn(open, photo, caption.Words),
                },
                face.Cut,
                fonts
            );
            face = face with { Boxes = boxes, Runs = runs };
        }

        if (open.LegendNumberOf(print.Id) is not { } number)
        {
            return face;
        }

        var mark = Legend.Mark(number, face.Cut.Width.Points, face.Cut.Height.Points, fonts);
        return face with { Discs = [mark.Ground, mark.Ring], Runs = face.Runs.Add(mark.Number) };
    }

    /// <summary>Words on a picture with what is computed filled in.</summary>
    public static string FilledIn(OpenUnit open, Photo photo, string words)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(photo);
        var numbered = open.Dates.Kind is UnitKind.TravelDay or UnitKind.NumberedDay;
        return CaptionFields.Fill(
            words,
            new CaptionFacts(
                photo.Taken,
                photo.Day,
                numbered ? open.Dates.FirstNumber : null,
                photo.Day is { } day ? open.Calendar.Stays.LastOrDefault(s => s.From.Date <= day)?.Place : null
            ),
            open.Calendar.Style,
            open.Words.People
        );
    }

    /// <summary>The picture that lies in a card's opening, and the small ones.</summary>
    public static CardPieceFace WithPicture(OpenUnit open, Card card, CardPieceFace face)
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(card);
        ArgumentNullException.ThrowIfNull(face);
        return face with
        {
            Picture =
                face.Card.Opening is { } opening && card.Picture is { } picture
                    ? In(open, opening, picture.PhotoId, picture.Framing)
                    : null,
            SmallPictures =
            [
                .. from place in face.Card.SmallOpenings
                from small in card.SmallPictures
                where small.Place == place.Place
                let shown = In(open, place.At, small.PhotoId, small.Framing)
                where shown is not null
                select new PictureOnCard(place.At, shown),
            ],
        };
    }

    private static PhotoFace? In(OpenUnit open, CardOpening at, Guid photoId, Framing framing)
    {
        var size = new Size(Length.FromPoints((decimal)at.Width), Length.FromPoints((decimal)at.Height));
        return open.PhotoOf(photoId) is { } photo
            ? new PhotoFace(size, PhotoView.RefOf(photo), photo.Pixels, Crop.For(photo.Pixels, size, framing))
            : null;
    }

    /// <summary>
    /// Daylight of a day, where the unit's pictures were taken, and its weather if somebody noted it: what a stand-in
    /// makes up is never printed.
    /// </summary>
    private static string Facts(OpenUnit open, LocalDate day)
    {
        var seen = SeenAtOf(open);
        // The day's own pictures and ways say best where it was.
        var noted = open.Trips.Log.Weather.FirstOrDefault(w => w.Day == day)?.Weather;
        var place = open.Trips.MiddleOf(day, seen) ?? open.Trips.MiddleOfAll(seen);
        if (place is not { } at)
        {
            return noted is null
                ? "No picture says where it was taken."
                : ComputedCards.Facts(null, DateTimeZone.Utc, open.Calendar.Style, noted);
        }

        var zone = open.Calendar.Travel.ZoneOf(day.At(new LocalTime(12, 0)));
        return ComputedCards.Facts(Daylight.On(day, at.Latitude, at.Longitude, zone), zone, open.Calendar.Style, noted);
    }

    /// <summary>Largest type of a legend.</summary>
    private const double LegendPt = 12;

    /// <summary>What a calendar card shows, with the unit's days and what is noted for them.</summary>
    private static CalendarOfCard CalendarOf(OpenUnit open, Card card)
    {
        var about = card.Day ?? open.Dates.First;
        var first = open.Desk.FirstWeekday;
        var noted = open
            .Content.Notes.GroupBy(n => n.Day)
            .ToDictionary(g => g.Key, g => string.Join('\n', g.Select(n => n.Text)));
        var own = Enumerable
            .Range(0, Period.DaysBetween(open.Dates.First, open.Dates.Last) + 1)
            .Select(open.Dates.First.PlusDays)
            .ToHashSet();
        var begins = CalendarOfCard.BeginningOf(about, first);
        var shown = card.Setting is { OneWeek: true }
            ? CalendarOfCard.OfWeek(
                about,
                first,
                SpanLabel.Of(begins, begins.PlusDays(6), open.Calendar.Style.Order),
                own,
                noted
            )
            : CalendarOfCard.OfMonth(about.ToYearMonth(), first, own, noted);
        var pictured = Pictured(open, card);
        return shown with
        {
            // A week whose every day is the unit's has none to mark.
            Marked = shown.Days.All(own.Contains) ? new HashSet<LocalDate>() : own,
            Pictures = shown.Days.Where(d => pictured.Contains(CalendarCard.PlaceOf(d))).ToHashSet(),
        };
    }

    /// <summary>The places of a card whose small picture is here.</summary>
    private static HashSet<string> Pictured(OpenUnit open, Card card) =>
        [.. card.SmallPictures.Where(p => open.PhotoOf(p.PhotoId) is not null).Select(p => p.Place)];

    /// <summary>The unit's pictures in the order of time.</summary>
    private static List<SeenAt> SeenAtOf(OpenUnit open) =>
        [
            .. open
                .Photos.Values.OrderBy(p => p.SortAt)
                .ThenBy(p => p.Id)
                .Select(p => new SeenAt(
                    p.Day,
                    p.TakenAt,
                    p is { Latitude: { } north, Longitude: { } east } ? new GeoPoint(north, east) : null
                )),
        ];

    /// <summary>The map of the unit, or of one of its days.</summary>
    private static TripMap MapOf(OpenUnit open, LocalDate? day) =>
        open.Trips.MapOf(
            day ?? open.Dates.First,
            day ?? open.Dates.Last,
            SeenAtOf(open).Where(p => day is null || p.Day == day),
            open.Album.Measures
        );

    /// <summary>Where the pictures of the unit, or of one of its days, were taken, in the order of time.</summary>
    private static List<GeoPoint> WayOf(OpenUnit open, LocalDate? day) =>
        [
            .. open
                .Photos.Values.Where(p =>
                    p.Latitude is not null && p.Longitude is not null && (day is null || p.Day == day)
                )
                .OrderBy(p => p.SortAt)
                .ThenBy(p => p.Id)
                .Select(p => new GeoPoint(p.Latitude!.Value, p.Longitude!.Value)),
        ];

    /// <summary>
    /// A countdown counts to the beginning of the trip, or on an album without stays to its first day.
    /// </summary>
    private static LocalDate CountdownTo(OpenUnit open) =>
        open.Calendar.Stays.IsEmpty ? open.Calendar.FirstDay : open.Calendar.Stays[0].From.Date;
}
