using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>An open unit: its pages, the tray, notes, and what can be undone.</summary>
/// <param name="Title">Such as <c>Week 19</c> or <c>Days 10–11</c>.</param>
/// <param name="InSentence">The same for the middle of a sentence.</param>
/// <param name="Label">The printed span.</param>
/// <param name="ProposedPhotoId">On a documented day, the picture nearest to the hour.</param>
public sealed record UnitView(
    Guid Id,
    Guid AlbumId,
    int Revision,
    UnitKind Kind,
    string Title,
    string InSentence,
    string? Name,
    string Label,
    int Weight,
    bool LeftOut,
    LocalDate FirstDay,
    LocalDate LastDay,
    Guid? PreviousUnitId,
    Guid? NextUnitId,
    IReadOnlyList<FaceView> Faces,
    IReadOnlyList<PhotoView> Photos,
    IReadOnlyList<UnitDayView> Days,
    IReadOnlyList<PieceView> LooseCards,
    IReadOnlyList<PieceView> Envelope,
    IReadOnlyList<NoteView> Notes,
    Guid? ProposedPhotoId,
    string? Undo,
    string? Redo,
    UnitCounts Counts,
    bool KeepsItsPages,
    IReadOnlyList<WishView> Wishes,
    TintOfCards? Tint,
    PlacingWeights Weights,
    bool HasOwnWeights,
    int? Hour,
    IReadOnlyList<HourView> Hours
);

/// <summary>An hour of an album by the hour.</summary>
/// <param name="Hour">0 to 29: 24 is the midnight after.</param>
public sealed record HourView(int Hour, string Label);

/// <summary>Colours that the cards of a unit have from its pictures, as <c>#rrggbb</c>.</summary>
/// <param name="PhotoId">The picture they are of; null when they are of all.</param>
public sealed record TintOfCards(string Main, string Accent, Guid? PhotoId)
{
    public static TintOfCards? Of(CardTint? tint) =>
        tint is null ? null : new(tint.Main.ToString(), tint.Accent.ToString(), tint.PhotoId);
}

/// <summary>A picture that is wanted in one size of pocket.</summary>
public sealed record WishView(Guid PhotoId, string Size);

/// <summary>A day of the unit.</summary>
public sealed record UnitDayView(LocalDate Day, string Label);

/// <summary>A note of a day, to write from.</summary>
public sealed record NoteView(
    Guid Id,
    LocalDate Day,
    string DayLabel,
    string? Time,
    string Text,
    bool FromCalendar,
    NoteKind Kind
);

/// <summary>What the unit has and what it still lacks.</summary>
/// <param name="PicturesWanted">How many more pictures or cards fill its pockets.</param>
/// <param name="PiecesShort">Pictures, cards and keepsakes beyond its pockets.</param>
public sealed record UnitCounts(
    int Photos,
    int LoosePhotos,
    int Pockets,
    int OpenPockets,
    int Cards,
    int CardsUnwritten,
    int CardsOver,
    int Warnings,
    int PicturesWanted,
    int Undecided,
    int PiecesShort
);

/// <summary>
/// One page of the spread. Lengths are EMU; pockets are measured from the page's outer top left corner; spreads count
/// from 1.
/// </summary>
/// <param name="Kind">Pockets, a page outside them, a divider, the envelope.</param>
/// <param name="Holes">Where it is punched.</param>
/// <param name="HoleWidth">Diameter of a hole.</param>
/// <param name="Marks">Added seams, a cut edge, a fold.</param>
/// <param name="FoldedWidth">How wide it lies in the album; less than its width for a fold-out.</param>
/// <param name="Note">What to know of it, such as what an insert hides; null when there is nothing.</param>
/// <param name="Tab">Words on its index tab.</param>
public sealed record FaceView(
    Guid LeafId,
    LeafSide Side,
    Guid ProtectorId,
    string DesignName,
    long Width,
    long Height,
    long RingStripX,
    long RingStripWidth,
    IReadOnlyList<PocketView> Pockets,
    string OtherSide,
    int Spread,
    LeafKind Kind,
    IReadOnlyList<PointView> Holes,
    long HoleWidth,
    IReadOnlyList<MarkView> Marks,
    long FoldedWidth,
    string? Note,
    string? Tab
);

/// <summary>A point on a face, in EMU.</summary>
public sealed record PointView(long X, long Y);

/// <summary>A line on a face, in EMU.</summary>
public sealed record MarkView(MarkKind Kind, long X1, long Y1, long X2, long Y2)
{
    public static MarkView Of(LeafMark m) => new(m.Kind, m.X1.Emu, m.Y1.Emu, m.X2.Emu, m.Y2.Emu);
}

/// <summary>A pocket of a face.</summary>
/// <param name="LeftEmpty">It stays empty on purpose.</param>
/// <param name="Behind">What lies behind it on the other face; null when nothing does.</param>
/// <param name="BehindFace">Address of what shows through its piece from behind; null when nothing does.</param>
/// <param name="Stuck">Its piece and the one behind are stuck together and move as one.</param>
public sealed record PocketView(
    string Key,
    int Number,
    string Code,
    string Size,
    string CutLabel,
    long X,
    long Y,
    long Width,
    long Height,
    PieceView? Piece,
    bool Locked,
    bool LeftEmpty,
    string? Behind,
    bool Stuck,
    string? BehindFace,
    string? Thickness = null
);

/// <summary>A place for a small picture on a card.</summary>
/// <param name="Place">By which it is asked for.</param>
/// <param name="Label">A day or a name.</param>
/// <param name="PhotoId">The picture that lies there; null for none.</param>
public sealed record SmallPictureView(string Place, string Label, Guid? PhotoId);

/// <summary>A piece; fields that do not belong to its kind are null.</summary>
public sealed record PieceView(
    Guid Id,
    PieceKind Kind,
    CardKind? CardKind,
    string Title,
    PhotoView? Photo,
    FramingView? Framing,
    CropView? Crop,
    string? Words,
    string? StyleKey,
    FitView? Fit,
    string? FaceUrl,
    string? Warning,
    KeepsakeInfo? Keepsake = null,
    CardSetting? Setting = null,
    Guid? StoryId = null,
    Guid? PairedWith = null,
    LocalDate? Day = null,
    Guid? PictureId = null,
    bool TakesPicture = false,
    WrittenCaption? Caption = null,
    SpanView? Span = null,
    CollageView? Collage = null,
    WrittenFinish? Finish = null,
    Stock Stock = Stock.WhiteCard,
    Stock? OwnStock = null,
    string? LegendLine = null,
    PictureAdjustment? Adjustment = null,
    IReadOnlyList<WrittenStep>? Steps = null,
    WrittenComposition? Composition = null,
    WrittenLabel? Label = null,
    WrittenBoughtCard? BoughtCard = null,
    PlacesOnCard? OnCard = null,
    AttachmentView? Attachment = null,
    IReadOnlyList<PieceView>? Attached = null,
    bool IsPart = false,
    IReadOnlyList<string>? Offcuts = null,
    IReadOnlyList<SmallPictureView>? SmallPictures = null
);

/// <summary>A label as it can be written back.</summary>
public sealed record WrittenLabel(
    string Words,
    StripForm Form,
    double SizePt,
    string Paper,
    string Ink,
    Typeface Face,
    string Size
);

/// <summary>How a piece goes with another one. Places are shares of the pocket's width and height.</summary>
/// <param name="ToId">The piece it goes with.</param>
/// <param name="Depth">As written; null for what is usual.</param>
/// <param name="Size">Its cut size in words.</param>
/// <param name="Closed">Where it lies when everything is closed.</param>
/// <param name="Lifted">Where a flip lies when it is lifted; null for other pieces.</param>
/// <param name="TurnsBack">Its back stands head down behind it.</param>
public sealed record AttachmentView(
    Guid ToId,
    AttachmentKind Kind,
    PieceEdge Edge,
    string? Depth,
    AcrossPlace Across,
    DownPlace Down,
    string Size,
    ShareBox Closed,
    ShareBox? Lifted,
    bool TurnsBack
);

/// <summary>A place as shares of what it lies on; may reach beyond it.</summary>
public sealed record ShareBox(double X, double Y, double Width, double Height)
{
    public static ShareBox Of(Rect place, Size whole) =>
        new(
            place.X.Points / whole.Width.Points,
            place.Y.Points / whole.Height.Points,
            place.Width.Points / whole.Width.Points,
            place.Height.Points / whole.Height.Points
        );
}

public enum PieceKind
{
    Photo,
    Card,
    Keepsake,
    Collage,
    Composition,
    Label,
    BoughtCard,
}

/// <summary>A slice of a picture that runs over several pockets: which of how many.</summary>
public sealed record SpanView(Guid SpanId, int Number, int Of);

/// <summary>A collage as it can be written back.</summary>
/// <param name="Layout">Its cells in the notation of page designs.</param>
/// <param name="Gutter">As written.</param>
/// <param name="Size">The size it is made for, as written.</param>
/// <param name="Cells">Cell by cell, in reading order of the layout.</param>
public sealed record CollageView(string Layout, string Gutter, string Size, IReadOnlyList<CollageCellView> Cells);

/// <summary>A cell; its place as shares of the print.</summary>
public sealed record CollageCellView(
    string Key,
    Guid? PhotoId,
    string Words,
    double X,
    double Y,
    double Width,
    double Height,
    double LossPercent
);

/// <summary>A keepsake as it can be written back, and how it fits.</summary>
public sealed record KeepsakeInfo(
    string Name,
    string Size,
    string Thickness,
    string Note,
    Guid? PhotoId,
    LocalDate? Day,
    bool InEnvelope,
    string FitWords,
    bool SeeThrough,
    Money? Price
);

/// <summary>Places on the kept part of a bought card, to be drawn with the pointer.</summary>
/// <param name="WidthMm">Of the kept part.</param>
/// <param name="HeightMm">Of the kept part.</param>
/// <param name="KeepXMm">Where the kept part begins on the card.</param>
/// <param name="KeepYMm">Where the kept part begins on the card.</param>
/// <param name="MostXMm">Where it can begin at most.</param>
/// <param name="MostYMm">Where it can begin at most.</param>
/// <param name="Words">In fractions of the kept part; null when there is none.</param>
/// <param name="Picture">In fractions of the kept part; null when there is none.</param>
public sealed record PlacesOnCard(
    double WidthMm,
    double HeightMm,
    double KeepXMm,
    double KeepYMm,
    double MostXMm,
    double MostYMm,
    BoxView? Words,
    BoxView? Picture
)
{
    public static PlacesOnCard Of(BoughtCard card, Size cut)
    {
        ArgumentNullException.ThrowIfNull(card);
        var kept = card.KeptFor(cut);
        return new PlacesOnCard(
            Mm(kept.Width),
            Mm(kept.Height),
            Mm(kept.X),
            Mm(kept.Y),
            Mm(card.Width - kept.Width),
            Mm(card.Height - kept.Height),
            Box(card.WordsPlace),
            Box(card.PicturePlace)
        );

        static double Mm(Length length) => (double)length.Millimetres;

        BoxView? Box(Rect? place) =>
            place is { } p
                ? new BoxView(
                    Mm(p.X) / Mm(kept.Width),
                    Mm(p.Y) / Mm(kept.Height),
                    Mm(p.Width) / Mm(kept.Width),
                    Mm(p.Height) / Mm(kept.Height)
                )
                : null;
    }
}

/// <summary>A <see cref="Core.Photos.Framing"/> on the wire.</summary>
public sealed record FramingView(double CenterX, double CenterY, double Zoom)
{
    public static FramingView Of(Framing framing) => new(framing.CenterX, framing.CenterY, framing.Zoom);
}

/// <summary>The kept part as fractions of the portrait photo, and what the crop means.</summary>
/// <param name="Degrees">How far the picture is turned clockwise around the middle of that part.</param>
public sealed record CropView(
    double Left,
    double Top,
    double Width,
    double Height,
    double PixelsPerInch,
    ResolutionGrade Grade,
    double LossPercent,
    string Words,
    double Degrees
);

/// <summary>How the words of a card came out, in words too.</summary>
public sealed record FitView(double SizePt, int Lines, int LinesLeft, int WordCount, int WordsOver, string Verdict)
{
    public static FitView Of(FitOutcome fit)
    {
        ArgumentNullException.ThrowIfNull(fit);
        var size = fit.SizePt.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture);
        var verdict = fit switch
        {
            { SizePt: 0, WordsOver: > 0 } => $"By hand: {fit.WordsOver} of {fit.Words} words too many for "
                + $"{NumberWords.Counted(fit.LinesThatFit, "line")}.",
            { SizePt: 0 } => $"By hand: {NumberWords.Counted(fit.Words, "word")} on "
                + $"{NumberWords.Counted(fit.LinesThatFit, "line")}.",
            { Words: 0 } => "No words yet.",
            { Fits: true } => $"Fits at {size} pt: {NumberWords.Counted(fit.Lines.Length, "line")}"
                + (fit.LinesLeft > 0 ? $", room for {fit.LinesLeft} more." : "."),
            { WordsOver: 1 } => $"1 word too many, even at {size} pt.",
            _ => $"{fit.WordsOver} words too many, even at {size} pt.",
        };
        return new FitView(fit.SizePt, fit.Lines.Length, fit.LinesLeft, fit.Words, fit.WordsOver, verdict);
    }
}

/// <summary>The unit after an edit, and what to tell the keeper about it.</summary>
public sealed record EditAnswer(UnitView Unit, string Done, Guid? PieceId);

public sealed record RevisionRequest(int Revision);
