using NodaTime;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Counting.Edits;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Keeping.Stash;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Placing.Choosing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Storage.Documents;

/// <summary>
/// How everything that is stored as JSON is named. A name never changes: a member that is called otherwise keeps its
/// name here, and what is to be stored in another shape is a new version of its document with an upcaster.
/// </summary>
internal static class DocumentNames
{
    /// <summary>How kinds of piece are told apart.</summary>
    public const string PieceKind = "piece";

    public static IReadOnlyList<(Type Type, string Name)> Pieces { get; } =
    [
        (typeof(PhotoPrint), "photoPrint"),
        (typeof(Card), "card"),
        (typeof(Keepsake), "keepsake"),
        (typeof(Collage), "collage"),
        (typeof(Composition), "composition"),
        (typeof(WordStrips), "label"),
        (typeof(BoughtCard), "boughtCard"),
    ];

    /// <summary>By type, the members that are stored; nothing else of it is.</summary>
    public static IReadOnlyDictionary<Type, (string Member, string Name)[]> Members { get; } =
        new Dictionary<Type, (string Member, string Name)[]>
        {
            [typeof(AlbumFormulas)] = [(nameof(AlbumFormulas.All), "all"), (nameof(AlbumFormulas.Follows), "follows")],
            [typeof(StretchRules)] =
            [
                (nameof(StretchRules.TitleFirst), "titleFirst"),
                (nameof(StretchRules.Words), "words"),
                (nameof(StretchRules.Series), "series"),
            ],
            [typeof(SeriesPocket)] =
            [
                (nameof(SeriesPocket.SeriesId), "seriesId"),
                (nameof(SeriesPocket.Pocket), "pocket"),
            ],
            [typeof(PageChoices)] = [(nameof(PageChoices.All), "all")],
            [typeof(PageChoice)] =
            [
                (nameof(PageChoice.Name), "name"),
                (nameof(PageChoice.Says), "says"),
                (nameof(PageChoice.Leaves), "leaves"),
                (nameof(PageChoice.Empty), "empty"),
                (nameof(PageChoice.CropPercent), "cropPercent"),
                (nameof(PageChoice.Unplaced), "unplaced"),
                (nameof(PageChoice.Buy), "buy"),
                (nameof(PageChoice.Proved), "proved"),
                (nameof(PageChoice.Gap), "gap"),
                (nameof(PageChoice.Units), "units"),
                (nameof(PageChoice.Standing), "standing"),
                (nameof(PageChoice.Extra), "extra"),
            ],
            [typeof(UnitChoice)] =
            [
                (nameof(UnitChoice.UnitId), "unitId"),
                (nameof(UnitChoice.Title), "title"),
                (nameof(UnitChoice.Says), "says"),
                (nameof(UnitChoice.Pockets), "pockets"),
                (nameof(UnitChoice.Empty), "empty"),
                (nameof(UnitChoice.Unplaced), "unplaced"),
            ],
            [typeof(LeafDesign)] =
            [
                (nameof(LeafDesign.LeafId), "leafId"),
                (nameof(LeafDesign.ProtectorId), "protectorId"),
                (nameof(LeafDesign.Fused), "fused"),
            ],
            [typeof(ExtraLeaves)] =
            [
                (nameof(ExtraLeaves.UnitId), "unitId"),
                (nameof(ExtraLeaves.ProtectorId), "protectorId"),
                (nameof(ExtraLeaves.Leaves), "leaves"),
                (nameof(ExtraLeaves.Fused), "fused"),
            ],
            [typeof(Formula)] =
            [
                (nameof(Formula.Id), "id"),
                (nameof(Formula.Name), "name"),
                (nameof(Formula.Own), "own"),
                (nameof(Formula.Between), "between"),
                (nameof(Formula.Pictures), "pictures"),
                (nameof(Formula.Words), "words"),
                (nameof(Formula.Title), "title"),
            ],
            [typeof(AlbumCalendar)] =
            [
                (nameof(AlbumCalendar.Kind), "kind"),
                (nameof(AlbumCalendar.FirstDay), "firstDay"),
                (nameof(AlbumCalendar.Scheme), "scheme"),
                (nameof(AlbumCalendar.CutOff), "cutOff"),
                (nameof(AlbumCalendar.HomeZone), "homeZone"),
                (nameof(AlbumCalendar.Style), "style"),
                (nameof(AlbumCalendar.Waking), "waking"),
                (nameof(AlbumCalendar.Stays), "stays"),
                (nameof(AlbumCalendar.Cameras), "cameras"),
                (nameof(AlbumCalendar.Series), "series"),
            ],
            [typeof(AlbumPerson)] = [(nameof(AlbumPerson.Name), "name"), (nameof(AlbumPerson.Born), "born")],
            [typeof(DateStyle)] = [(nameof(DateStyle.Order), "order"), (nameof(DateStyle.Clock), "clock")],
            [typeof(Stay)] =
            [
                (nameof(Stay.Place), "place"),
                (nameof(Stay.Zone), "zone"),
                (nameof(Stay.From), "from"),
                (nameof(Stay.Until), "until"),
            ],
            [typeof(UnitDates)] =
            [
                (nameof(UnitDates.Kind), "kind"),
                (nameof(UnitDates.First), "first"),
                (nameof(UnitDates.Last), "last"),
                (nameof(UnitDates.Year), "year"),
                (nameof(UnitDates.FirstNumber), "firstNumber"),
                (nameof(UnitDates.LastNumber), "lastNumber"),
                (nameof(UnitDates.FirstOccurrence), "firstOccurrence"),
                (nameof(UnitDates.LastOccurrence), "lastOccurrence"),
                (nameof(UnitDates.LeftOut), "leftOut"),
                (nameof(UnitDates.Name), "name"),
            ],
            [typeof(WakingWindow)] = [(nameof(WakingWindow.From), "from"), (nameof(WakingWindow.Until), "until")],
            [typeof(Fuse)] =
            [
                (nameof(Fuse.PocketKey), "pocketKey"),
                (nameof(Fuse.Upright), "upright"),
                (nameof(Fuse.At), "at"),
            ],
            [typeof(HolePattern)] =
            [
                (nameof(HolePattern.Name), "name"),
                (nameof(HolePattern.FromEdge), "fromEdge"),
                (nameof(HolePattern.Diameter), "diameter"),
                (nameof(HolePattern.FromMiddle), "fromMiddle"),
            ],
            [typeof(IndexTab)] = [(nameof(IndexTab.Words), "words"), (nameof(IndexTab.Place), "place")],
            [typeof(LeafAlterations)] =
            [
                (nameof(LeafAlterations.Fuses), "fuses"),
                (nameof(LeafAlterations.Cut), "cut"),
                (nameof(LeafAlterations.Stuck), "stuck"),
                (nameof(LeafAlterations.Tab), "tab"),
            ],
            [typeof(PageCut)] = [(nameof(PageCut.Keeps), "keeps"), (nameof(PageCut.Size), "size")],
            [typeof(ProtectorForm)] =
            [
                (nameof(ProtectorForm.Kind), "kind"),
                (nameof(ProtectorForm.Name), "name"),
                (nameof(ProtectorForm.Notation), "notation"),
                (nameof(ProtectorForm.Fold), "fold"),
                (nameof(ProtectorForm.Rings), "rings"),
                (nameof(ProtectorForm.Holes), "holes"),
                (nameof(ProtectorForm.Thickness), "thickness"),
            ],
            [typeof(CameraClock)] =
            [
                (nameof(CameraClock.Camera), "camera"),
                (nameof(CameraClock.CorrectionSeconds), "correctionSeconds"),
                (nameof(CameraClock.LeftOnZone), "leftOnZone"),
            ],
            [typeof(Framing)] =
            [
                (nameof(Framing.CenterX), "centerX"),
                (nameof(Framing.CenterY), "centerY"),
                (nameof(Framing.Zoom), "zoom"),
            ],
            [typeof(PaletteColour)] =
            [
                (nameof(PaletteColour.Red), "red"),
                (nameof(PaletteColour.Green), "green"),
                (nameof(PaletteColour.Blue), "blue"),
                (nameof(PaletteColour.Share), "share"),
            ],
            [typeof(PhotoSeries)] =
            [
                (nameof(PhotoSeries.Id), "id"),
                (nameof(PhotoSeries.Name), "name"),
                (nameof(PhotoSeries.Around), "around"),
                (nameof(PhotoSeries.Minutes), "minutes"),
                (nameof(PhotoSeries.Weekday), "weekday"),
            ],
            [typeof(PictureBox)] =
            [
                (nameof(PictureBox.X), "x"),
                (nameof(PictureBox.Y), "y"),
                (nameof(PictureBox.Width), "width"),
                (nameof(PictureBox.Height), "height"),
            ],
            [typeof(Card)] =
            [
                (nameof(Card.Kind), "kind"),
                (nameof(Card.Words), "words"),
                (nameof(Card.StyleKey), "styleKey"),
                (nameof(Card.Setting), "setting"),
                (nameof(Card.StoryId), "storyId"),
                (nameof(Card.PairedWith), "pairedWith"),
                (nameof(Card.Day), "day"),
                (nameof(Card.Picture), "picture"),
                (nameof(Card.SmallPictures), "smallPictures"),
                (nameof(Card.Finish), "finish"),
                (nameof(Card.PrintedOn), "printedOn"),
                (nameof(Card.Steps), "steps"),
                (nameof(Card.Attachment), "attachment"),
                (nameof(Card.Id), "id"),
            ],
            [typeof(SmallPicture)] =
            [
                (nameof(SmallPicture.Place), "place"),
                (nameof(SmallPicture.PhotoId), "photoId"),
                (nameof(SmallPicture.Framing), "framing"),
            ],
            [typeof(CardPicture)] =
            [
                (nameof(CardPicture.PhotoId), "photoId"),
                (nameof(CardPicture.Framing), "framing"),
            ],
            [typeof(Collage)] =
            [
                (nameof(Collage.PrintedOn), "printedOn"),
                (nameof(Collage.Steps), "steps"),
                (nameof(Collage.Attachment), "attachment"),
                (nameof(Collage.Layout), "layout"),
                (nameof(Collage.Cells), "cells"),
                (nameof(Collage.Gutter), "gutter"),
                (nameof(Collage.Ground), "ground"),
                (nameof(Collage.Id), "id"),
            ],
            [typeof(Composition)] =
            [
                (nameof(Composition.PrintedOn), "printedOn"),
                (nameof(Composition.Steps), "steps"),
                (nameof(Composition.Attachment), "attachment"),
                (nameof(Composition.Name), "name"),
                (nameof(Composition.Ground), "ground"),
                (nameof(Composition.GroundStyleKey), "groundStyleKey"),
                (nameof(Composition.GroundPhotoId), "groundPhotoId"),
                (nameof(Composition.Shapes), "shapes"),
                (nameof(Composition.Id), "id"),
            ],
            [typeof(BinderInserts)] =
            [
                (nameof(BinderInserts.SpineWidth), "spineWidth"),
                (nameof(BinderInserts.SpineHeight), "spineHeight"),
                (nameof(BinderInserts.CoverWidth), "coverWidth"),
                (nameof(BinderInserts.CoverHeight), "coverHeight"),
            ],
            [typeof(KeptComposition)] =
            [
                (nameof(KeptComposition.Key), "key"),
                (nameof(KeptComposition.Width), "width"),
                (nameof(KeptComposition.Height), "height"),
                (nameof(KeptComposition.Composition), "composition"),
            ],
            [typeof(CompositionShape)] =
            [
                (nameof(CompositionShape.Shape), "shape"),
                (nameof(CompositionShape.Across), "across"),
                (nameof(CompositionShape.Down), "down"),
                (nameof(CompositionShape.Width), "width"),
                (nameof(CompositionShape.Height), "height"),
                (nameof(CompositionShape.PhotoId), "photoId"),
                (nameof(CompositionShape.Framing), "framing"),
                (nameof(CompositionShape.StyleKey), "styleKey"),
                (nameof(CompositionShape.Colour), "colour"),
                (nameof(CompositionShape.Words), "words"),
                (nameof(CompositionShape.Mat), "mat"),
            ],
            [typeof(CollageCell)] =
            [
                (nameof(CollageCell.Key), "key"),
                (nameof(CollageCell.PhotoId), "photoId"),
                (nameof(CollageCell.Framing), "framing"),
                (nameof(CollageCell.Words), "words"),
            ],
            [typeof(DayNote)] =
            [
                (nameof(DayNote.Id), "id"),
                (nameof(DayNote.Day), "day"),
                (nameof(DayNote.Time), "time"),
                (nameof(DayNote.Text), "text"),
                (nameof(DayNote.Source), "source"),
                (nameof(DayNote.Kind), "kind"),
            ],
            [typeof(Keepsake)] =
            [
                (nameof(Keepsake.PrintedOn), "printedOn"),
                (nameof(Keepsake.Steps), "steps"),
                (nameof(Keepsake.Attachment), "attachment"),
                (nameof(Keepsake.Name), "name"),
                (nameof(Keepsake.Width), "width"),
                (nameof(Keepsake.Height), "height"),
                (nameof(Keepsake.Thickness), "thickness"),
                (nameof(Keepsake.Note), "note"),
                (nameof(Keepsake.PhotoId), "photoId"),
                (nameof(Keepsake.Day), "day"),
                (nameof(Keepsake.InEnvelope), "inEnvelope"),
                (nameof(Keepsake.SeeThrough), "seeThrough"),
                (nameof(Keepsake.Price), "price"),
                (nameof(Keepsake.Id), "id"),
            ],
            [typeof(PictureAdjustment)] =
            [
                (nameof(PictureAdjustment.Straighten), "straighten"),
                (nameof(PictureAdjustment.Lighter), "lighter"),
                (nameof(PictureAdjustment.BlackAndWhite), "blackAndWhite"),
            ],
            [typeof(PhotoPrint)] =
            [
                (nameof(PhotoPrint.PhotoId), "photoId"),
                (nameof(PhotoPrint.Framing), "framing"),
                (nameof(PhotoPrint.Caption), "caption"),
                (nameof(PhotoPrint.SpanId), "spanId"),
                (nameof(PhotoPrint.Part), "part"),
                (nameof(PhotoPrint.Finish), "finish"),
                (nameof(PhotoPrint.Adjustment), "adjustment"),
                (nameof(PhotoPrint.PrintedOn), "printedOn"),
                (nameof(PhotoPrint.Steps), "steps"),
                (nameof(PhotoPrint.Attachment), "attachment"),
                (nameof(PhotoPrint.LegendLine), "legendLine"),
                (nameof(PhotoPrint.Id), "id"),
            ],
            [typeof(WordStrips)] =
            [
                (nameof(WordStrips.Words), "words"),
                (nameof(WordStrips.Form), "form"),
                (nameof(WordStrips.Face), "face"),
                (nameof(WordStrips.SizePt), "sizePt"),
                (nameof(WordStrips.Paper), "paper"),
                (nameof(WordStrips.Width), "width"),
                (nameof(WordStrips.Height), "height"),
                (nameof(WordStrips.PrintedOn), "printedOn"),
                (nameof(WordStrips.Steps), "steps"),
                (nameof(WordStrips.Attachment), "attachment"),
                (nameof(WordStrips.Id), "id"),
            ],
            [typeof(BoughtCard)] =
            [
                (nameof(BoughtCard.Name), "name"),
                (nameof(BoughtCard.PhotoId), "photoId"),
                (nameof(BoughtCard.Corners), "corners"),
                (nameof(BoughtCard.Width), "width"),
                (nameof(BoughtCard.Height), "height"),
                (nameof(BoughtCard.KeepX), "keepX"),
                (nameof(BoughtCard.KeepY), "keepY"),
                (nameof(BoughtCard.Words), "words"),
                (nameof(BoughtCard.WordsPlace), "wordsPlace"),
                (nameof(BoughtCard.PicturePlace), "picturePlace"),
                (nameof(BoughtCard.Picture), "picture"),
                (nameof(BoughtCard.PrintedOn), "printedOn"),
                (nameof(BoughtCard.Steps), "steps"),
                (nameof(BoughtCard.Attachment), "attachment"),
                (nameof(BoughtCard.Id), "id"),
            ],
            [typeof(CardCorners)] =
            [
                (nameof(CardCorners.TopLeft), "topLeft"),
                (nameof(CardCorners.TopRight), "topRight"),
                (nameof(CardCorners.BottomRight), "bottomRight"),
                (nameof(CardCorners.BottomLeft), "bottomLeft"),
            ],
            [typeof(PicturePoint)] = [(nameof(PicturePoint.X), "x"), (nameof(PicturePoint.Y), "y")],
            [typeof(Rect)] =
            [
                (nameof(Rect.X), "x"),
                (nameof(Rect.Y), "y"),
                (nameof(Rect.Width), "width"),
                (nameof(Rect.Height), "height"),
            ],
            [typeof(Attachment)] =
            [
                (nameof(Attachment.To), "to"),
                (nameof(Attachment.Kind), "kind"),
                (nameof(Attachment.Edge), "edge"),
                (nameof(Attachment.Depth), "depth"),
                (nameof(Attachment.Across), "across"),
                (nameof(Attachment.Down), "down"),
            ],
            [typeof(PicturePart)] = [(nameof(PicturePart.Top), "top"), (nameof(PicturePart.Bottom), "bottom")],
            [typeof(HandStep)] =
            [
                (nameof(HandStep.Kind), "kind"),
                (nameof(HandStep.Words), "words"),
                (nameof(HandStep.RoomAt), "roomAt"),
                (nameof(HandStep.Room), "room"),
            ],
            [typeof(Finish)] =
            [
                (nameof(Finish.Shape), "shape"),
                (nameof(Finish.Corner), "corner"),
                (nameof(Finish.Border), "border"),
                (nameof(Finish.Mats), "mats"),
                (nameof(Finish.Strip), "strip"),
            ],
            [typeof(PrintBorder)] =
            [
                (nameof(PrintBorder.Left), "left"),
                (nameof(PrintBorder.Top), "top"),
                (nameof(PrintBorder.Right), "right"),
                (nameof(PrintBorder.Bottom), "bottom"),
                (nameof(PrintBorder.Colour), "colour"),
            ],
            [typeof(Mat)] =
            [
                (nameof(Mat.Reveal), "reveal"),
                (nameof(Mat.Colour), "colour"),
                (nameof(Mat.StyleKey), "styleKey"),
            ],
            [typeof(EdgeStrip)] =
            [
                (nameof(EdgeStrip.Edge), "edge"),
                (nameof(EdgeStrip.Width), "width"),
                (nameof(EdgeStrip.StyleKey), "styleKey"),
            ],
            [typeof(Placement)] =
            [
                (nameof(Placement.Place), "place"),
                (nameof(Placement.PieceId), "pieceId"),
                (nameof(Placement.Locked), "locked"),
            ],
            [typeof(PocketPlace)] =
            [
                (nameof(PocketPlace.LeafId), "leafId"),
                (nameof(PocketPlace.Side), "side"),
                (nameof(PocketPlace.PocketKey), "pocketKey"),
            ],
            [typeof(SizeWish)] =
            [
                (nameof(SizeWish.PhotoId), "photoId"),
                (nameof(SizeWish.Width), "width"),
                (nameof(SizeWish.Height), "height"),
            ],
            [typeof(UnitContent)] =
            [
                (nameof(UnitContent.Pieces), "pieces"),
                (nameof(UnitContent.Placements), "placements"),
                (nameof(UnitContent.Notes), "notes"),
                (nameof(UnitContent.LeftEmpty), "clear"),
                (nameof(UnitContent.Wishes), "wishes"),
                (nameof(UnitContent.KeepsItsPages), "keepsItsPages"),
                (nameof(UnitContent.Tint), "tint"),
                (nameof(UnitContent.Weights), "weights"),
            ],
            [typeof(CardTint)] =
            [
                (nameof(CardTint.Main), "main"),
                (nameof(CardTint.Accent), "accent"),
                (nameof(CardTint.PhotoId), "photoId"),
            ],
            [typeof(AlbumWords)] =
            [
                (nameof(AlbumWords.People), "people"),
                (nameof(AlbumWords.KnownWords), "knownWords"),
                (nameof(AlbumWords.PassedOver), "passedOver"),
                (nameof(AlbumWords.School), "school"),
                (nameof(AlbumWords.Family), "family"),
                (nameof(AlbumWords.MostColourful), "mostColourful"),
                (nameof(AlbumWords.OwnCompositions), "ownCompositions"),
                (nameof(AlbumWords.Inserts), "inserts"),
                (nameof(AlbumWords.PicturesOn), "picturesOn"),
                (nameof(AlbumWords.CardsOn), "cardsOn"),
                (nameof(AlbumWords.OwnStyles), "ownStyles"),
                (nameof(AlbumWords.Hand), "hand"),
                (nameof(AlbumWords.Sheets), "sheets"),
                (nameof(AlbumWords.Weights), "weights"),
                (nameof(AlbumWords.Accepted), "accepted"),
            ],
            [typeof(AlphaSheet)] = [(nameof(AlphaSheet.Counts), "counts"), (nameof(AlphaSheet.Reusable), "reusable")],
            [typeof(PlacingWeights)] =
            [
                (nameof(PlacingWeights.LessCropping), "lessCropping"),
                (nameof(PlacingWeights.Sharpness), "sharpness"),
                (nameof(PlacingWeights.FavouritesLarge), "favouritesLarge"),
                (nameof(PlacingWeights.InOrderOfTime), "inOrderOfTime"),
                (nameof(PlacingWeights.EveryDay), "everyDay"),
                (nameof(PlacingWeights.LookalikesApart), "lookalikesApart"),
                (nameof(PlacingWeights.PicturesTogether), "picturesTogether"),
                (nameof(PlacingWeights.WordsBesidePictures), "wordsBesidePictures"),
                (nameof(PlacingWeights.Calm), "calm"),
                (nameof(PlacingWeights.BookEnds), "bookEnds"),
            ],
            [typeof(CardSetting)] =
            [
                (nameof(CardSetting.LargestPt), "largestPt"),
                (nameof(CardSetting.SmallestPt), "smallestPt"),
                (nameof(CardSetting.Leading), "leading"),
                (nameof(CardSetting.MarginPt), "marginPt"),
                (nameof(CardSetting.ByHand), "byHand"),
                (nameof(CardSetting.OwnSize), "ownSize"),
                (nameof(CardSetting.Seed), "seed"),
                (nameof(CardSetting.Highlight), "highlight"),
                (nameof(CardSetting.OneWeek), "oneWeek"),
                (nameof(CardSetting.Outline), "outline"),
            ],
            [typeof(CardStyle)] =
            [
                (nameof(CardStyle.Key), "key"),
                (nameof(CardStyle.Name), "name"),
                (nameof(CardStyle.Family), "family"),
                (nameof(CardStyle.Role), "role"),
                (nameof(CardStyle.Type), "type"),
                (nameof(CardStyle.Margin), "margin"),
                (nameof(CardStyle.Paper), "paper"),
                (nameof(CardStyle.Ink), "ink"),
                (nameof(CardStyle.Accent), "accent"),
                (nameof(CardStyle.Dress), "dress"),
                (nameof(CardStyle.Columns), "columns"),
                (nameof(CardStyle.Ruled), "ruled"),
                (nameof(CardStyle.BorderPt), "borderPt"),
                (nameof(CardStyle.Corner), "corner"),
                (nameof(CardStyle.Zones), "zones"),
                (nameof(CardStyle.PlanKey), "plan"),
                (nameof(CardStyle.PatternKey), "pattern"),
                (nameof(CardStyle.PrintedOn), "printedOn"),
                (nameof(CardStyle.Highlight), "highlight"),
            ],
            [typeof(CardZones)] =
            [
                (nameof(CardZones.Band), "band"),
                (nameof(CardZones.BandHeight), "bandHeight"),
                (nameof(CardZones.BandPrinted), "bandPrinted"),
                (nameof(CardZones.Indent), "indent"),
                (nameof(CardZones.Picture), "picture"),
                (nameof(CardZones.PictureShare), "pictureShare"),
            ],
            [typeof(HandCapacity)] =
            [
                (nameof(HandCapacity.WordsPerInch), "wordsPerInch"),
                (nameof(HandCapacity.LinePitch), "linePitch"),
            ],
            [typeof(OwnedSheet)] =
            [
                (nameof(OwnedSheet.Id), "id"),
                (nameof(OwnedSheet.Name), "name"),
                (nameof(OwnedSheet.Sheet), "sheet"),
                (nameof(OwnedSheet.Spelt), "spelt"),
            ],
            [typeof(PhotoCaption)] =
            [
                (nameof(PhotoCaption.Words), "words"),
                (nameof(PhotoCaption.Face), "face"),
                (nameof(PhotoCaption.SizePt), "sizePt"),
                (nameof(PhotoCaption.X), "x"),
                (nameof(PhotoCaption.Y), "y"),
                (nameof(PhotoCaption.Width), "width"),
                (nameof(PhotoCaption.Ink), "ink"),
                (nameof(PhotoCaption.Label), "label"),
            ],
            [typeof(Rgb)] = [(nameof(Rgb.R), "r"), (nameof(Rgb.G), "g"), (nameof(Rgb.B), "b")],
            [typeof(SpeltTitle)] =
            [
                (nameof(SpeltTitle.Id), "id"),
                (nameof(SpeltTitle.Title), "title"),
                (nameof(SpeltTitle.Day), "day"),
            ],
            [typeof(TypeRange)] =
            [
                (nameof(TypeRange.Face), "face"),
                (nameof(TypeRange.SmallestPt), "smallestPt"),
                (nameof(TypeRange.LargestPt), "largestPt"),
                (nameof(TypeRange.Leading), "leading"),
            ],
            [typeof(AlbumState)] =
            [
                (nameof(AlbumState.Name), "name"),
                (nameof(AlbumState.Calendar), "calendar"),
                (nameof(AlbumState.Words), "words"),
                (nameof(AlbumState.Formulas), "formulas"),
                (nameof(AlbumState.School), "school"),
                (nameof(AlbumState.Keeping), "keeping"),
                (nameof(AlbumState.Trip), "trip"),
            ],
            [typeof(TripLog)] =
            [
                (nameof(TripLog.Legs), "legs"),
                (nameof(TripLog.Expenses), "expenses"),
                (nameof(TripLog.Weather), "weather"),
                (nameof(TripLog.HomeCurrency), "homeCurrency"),
                (nameof(TripLog.Rates), "rates"),
            ],
            [typeof(TripLeg)] =
            [
                (nameof(TripLeg.Id), "id"),
                (nameof(TripLeg.Day), "day"),
                (nameof(TripLeg.From), "from"),
                (nameof(TripLeg.To), "to"),
                (nameof(TripLeg.Mode), "mode"),
                (nameof(TripLeg.Leaves), "leaves"),
                (nameof(TripLeg.Arrives), "arrives"),
                (nameof(TripLeg.Length), "length"),
                (nameof(TripLeg.Source), "source"),
                (nameof(TripLeg.Stops), "stops"),
                (nameof(TripLeg.Price), "price"),
                (nameof(TripLeg.Companions), "companions"),
                (nameof(TripLeg.Path), "path"),
                (nameof(TripLeg.ClimbMetres), "climbMetres"),
                (nameof(TripLeg.Gaps), "gaps"),
            ],
            [typeof(TripExpense)] =
            [
                (nameof(TripExpense.Id), "id"),
                (nameof(TripExpense.Day), "day"),
                (nameof(TripExpense.Kind), "kind"),
                (nameof(TripExpense.Amount), "amount"),
                (nameof(TripExpense.Note), "note"),
            ],
            [typeof(NotedWeather)] =
            [
                (nameof(NotedWeather.Day), "day"),
                (nameof(NotedWeather.LowCelsius), "lowCelsius"),
                (nameof(NotedWeather.HighCelsius), "highCelsius"),
                (nameof(NotedWeather.Sky), "sky"),
            ],
            [typeof(CurrencyRate)] =
            [
                (nameof(CurrencyRate.Currency), "currency"),
                (nameof(CurrencyRate.InHome), "inHome"),
            ],
            [typeof(Money)] = [(nameof(Money.Amount), "amount"), (nameof(Money.Currency), "currency")],
            [typeof(Distance)] = [(nameof(Distance.Metres), "metres")],
            [typeof(AlbumKeeping)] =
            [
                (nameof(AlbumKeeping.Rings), "rings"),
                (nameof(AlbumKeeping.VolumeStarts), "volumeStarts"),
                (nameof(AlbumKeeping.Habit), "habit"),
                (nameof(AlbumKeeping.LeafPrice), "leafPrice"),
                (nameof(AlbumKeeping.Timed), "timed"),
                (nameof(AlbumKeeping.Plans), "plans"),
                (nameof(AlbumKeeping.Inserts), "inserts"),
            ],
            [typeof(StashChanges)] = [(nameof(StashChanges.All), "all")],
            [typeof(StashChange)] =
            [
                (nameof(StashChange.Before), "before"),
                (nameof(StashChange.After), "after"),
                (nameof(StashChange.PreviousStepId), "previousStepId"),
            ],
            [typeof(StashClaim)] =
            [
                (nameof(StashClaim.UnitId), "unitId"),
                (nameof(StashClaim.Reserved), "reserved"),
                (nameof(StashClaim.Used), "used"),
            ],
            [typeof(Size)] = [(nameof(Size.Width), "width"), (nameof(Size.Height), "height")],
            [typeof(StashPicture)] =
            [
                (nameof(StashPicture.Sha256), "sha256"),
                (nameof(StashPicture.Corners), "corners"),
            ],
            [typeof(StashItem)] =
            [
                (nameof(StashItem.Id), "id"),
                (nameof(StashItem.Kind), "kind"),
                (nameof(StashItem.Name), "name"),
                (nameof(StashItem.Count), "count"),
                (nameof(StashItem.Theme), "theme"),
                (nameof(StashItem.Kit), "kit"),
                (nameof(StashItem.Place), "place"),
                (nameof(StashItem.Size), "size"),
                (nameof(StashItem.Colours), "colours"),
                (nameof(StashItem.Price), "price"),
                (nameof(StashItem.Picture), "picture"),
                (nameof(StashItem.Letters), "letters"),
                (nameof(StashItem.Claims), "claims"),
                (nameof(StashItem.Revision), "revision"),
                (nameof(StashItem.Deleted), "deleted"),
            ],
            [typeof(AlbumInsert)] =
            [
                (nameof(AlbumInsert.AlbumId), "albumId"),
                (nameof(AlbumInsert.AfterUnitId), "afterUnitId"),
                (nameof(AlbumInsert.Between), "between"),
            ],
            [typeof(SpreadPlan)] =
            [
                (nameof(SpreadPlan.UnitId), "unitId"),
                (nameof(SpreadPlan.Kit), "kit"),
                (nameof(SpreadPlan.Stories), "stories"),
                (nameof(SpreadPlan.Note), "note"),
            ],
            [typeof(TimedWork)] = [(nameof(TimedWork.UnitId), "unitId"), (nameof(TimedWork.Minutes), "minutes")],
            [typeof(BinderRings)] =
            [
                (nameof(BinderRings.Shape), "shape"),
                (nameof(BinderRings.Diameter), "diameter"),
                (nameof(BinderRings.Measured), "measured"),
            ],
            [typeof(WorkingHabit)] =
            [
                (nameof(WorkingHabit.Evenings), "evenings"),
                (nameof(WorkingHabit.MinutesAnEvening), "minutesAnEvening"),
                (nameof(WorkingHabit.LagWeeks), "lagWeeks"),
            ],
            [typeof(LeafState)] =
            [
                (nameof(LeafState.ProtectorId), "protectorId"),
                (nameof(LeafState.Ordinal), "ordinal"),
                (nameof(LeafState.FrontUnitId), "frontUnitId"),
                (nameof(LeafState.BackUnitId), "backUnitId"),
                (nameof(LeafState.Gone), "gone"),
                (nameof(LeafState.Form), "form"),
            ],
            [typeof(PhotoState)] =
            [
                (nameof(PhotoState.KeeperDay), "keeperDay"),
                (nameof(PhotoState.KeeperHour), "keeperHour"),
                (nameof(PhotoState.DayTakenAway), "dayTakenAway"),
                (nameof(PhotoState.Verdict), "verdict"),
                (nameof(PhotoState.Favourite), "favourite"),
                (nameof(PhotoState.FocusX), "focusX"),
                (nameof(PhotoState.FocusY), "focusY"),
                (nameof(PhotoState.FocusByKeeper), "focusByKeeper"),
                (nameof(PhotoState.KeepBoxes), "keepBoxes"),
                (nameof(PhotoState.CoverBoxes), "coverBoxes"),
                (nameof(PhotoState.Kind), "kind"),
                (nameof(PhotoState.Page), "page"),
                (nameof(PhotoState.Width), "width"),
                (nameof(PhotoState.Height), "height"),
                (nameof(PhotoState.SeriesId), "seriesId"),
                (nameof(PhotoState.People), "people"),
            ],
            [typeof(ProtectorState)] =
            [
                (nameof(ProtectorState.OuterWidth), "outerWidth"),
                (nameof(ProtectorState.OuterHeight), "outerHeight"),
                (nameof(ProtectorState.RingStrip), "ringStrip"),
                (nameof(ProtectorState.Ease), "ease"),
                (nameof(ProtectorState.ClearSizes), "clearSizes"),
                (nameof(ProtectorState.OnHand), "stock"),
                (nameof(ProtectorState.Gone), "gone"),
                (nameof(ProtectorState.Form), "form"),
            ],
            [typeof(StoryState)] =
            [
                (nameof(StoryState.Title), "title"),
                (nameof(StoryState.Words), "words"),
                (nameof(StoryState.Days), "days"),
                (nameof(StoryState.Theme), "theme"),
                (nameof(StoryState.Author), "author"),
                (nameof(StoryState.People), "people"),
                (nameof(StoryState.Ordinal), "ordinal"),
                (nameof(StoryState.Gone), "gone"),
                (nameof(StoryState.Hour), "hour"),
            ],
            [typeof(UnitState)] =
            [
                (nameof(UnitState.Content), "content"),
                (nameof(UnitState.Dates), "dates"),
                (nameof(UnitState.Ordinal), "ordinal"),
                (nameof(UnitState.Gone), "gone"),
            ],
            [typeof(ClearSizes)] = [(nameof(ClearSizes.Sizes), "sizes")],
            [typeof(ClearSize)] =
            [
                (nameof(ClearSize.NominalWidth), "nominalWidth"),
                (nameof(ClearSize.NominalHeight), "nominalHeight"),
                (nameof(ClearSize.ClearWidth), "clearWidth"),
                (nameof(ClearSize.ClearHeight), "clearHeight"),
            ],
            [typeof(PictureBoxes)] = [(nameof(PictureBoxes.Boxes), "boxes")],
            [typeof(Palette)] = [(nameof(Palette.Colours), "colours")],
        };

    /// <summary>By type, its values.</summary>
    public static IReadOnlyDictionary<Type, (string Member, string Name)[]> Values { get; } =
        new Dictionary<Type, (string Member, string Name)[]>
        {
            [typeof(StashKind)] =
            [
                (nameof(StashKind.Card), "card"),
                (nameof(StashKind.Paper), "paper"),
                (nameof(StashKind.Sticker), "sticker"),
                (nameof(StashKind.Letters), "letters"),
                (nameof(StashKind.Protector), "protector"),
                (nameof(StashKind.Rings), "rings"),
                (nameof(StashKind.Other), "other"),
            ],
            [typeof(IsoDayOfWeek)] =
            [
                (nameof(IsoDayOfWeek.None), "none"),
                (nameof(IsoDayOfWeek.Monday), "monday"),
                (nameof(IsoDayOfWeek.Tuesday), "tuesday"),
                (nameof(IsoDayOfWeek.Wednesday), "wednesday"),
                (nameof(IsoDayOfWeek.Thursday), "thursday"),
                (nameof(IsoDayOfWeek.Friday), "friday"),
                (nameof(IsoDayOfWeek.Saturday), "saturday"),
                (nameof(IsoDayOfWeek.Sunday), "sunday"),
            ],
            [typeof(AlbumKind)] =
            [
                (nameof(AlbumKind.Weekly), "weekly"),
                (nameof(AlbumKind.Trip), "trip"),
                (nameof(AlbumKind.DocumentedDay), "documentedDay"),
                (nameof(AlbumKind.Countdown), "countdown"),
            ],
            [typeof(DateOrder)] = [(nameof(DateOrder.DayMonth), "dayMonth"), (nameof(DateOrder.MonthDay), "monthDay")],
            [typeof(HourClock)] = [(nameof(HourClock.TwentyFour), "twentyFour"), (nameof(HourClock.Twelve), "twelve")],
            [typeof(UnitKind)] =
            [
                (nameof(UnitKind.Week), "week"),
                (nameof(UnitKind.TravelDay), "travelDay"),
                (nameof(UnitKind.Hour), "hour"),
                (nameof(UnitKind.NumberedDay), "numberedDay"),
            ],
            [typeof(WeekScheme)] =
            [
                (nameof(WeekScheme.Iso), "iso"),
                (nameof(WeekScheme.SundayFirst), "sundayFirst"),
                (nameof(WeekScheme.FromFirstDay), "fromFirstDay"),
            ],
            [typeof(CutKeeps)] = [(nameof(CutKeeps.Columns), "columns"), (nameof(CutKeeps.Rows), "rows")],
            [typeof(LeafKind)] =
            [
                (nameof(LeafKind.Pockets), "pockets"),
                (nameof(LeafKind.Sheet), "sheet"),
                (nameof(LeafKind.FoldOut), "foldOut"),
                (nameof(LeafKind.Divider), "divider"),
                (nameof(LeafKind.Envelope), "envelope"),
            ],
            [typeof(LeafSide)] = [(nameof(LeafSide.Front), "front"), (nameof(LeafSide.Back), "back")],
            [typeof(PageSchool)] = [(nameof(PageSchool.Spread), "spread"), (nameof(PageSchool.Leaf), "leaf")],
            [typeof(RingSide)] = [(nameof(RingSide.Left), "left"), (nameof(RingSide.Right), "right")],
            [typeof(NoteKind)] =
            [
                (nameof(NoteKind.Plain), "plain"),
                (nameof(NoteKind.Overheard), "overheard"),
                (nameof(NoteKind.Price), "price"),
                (nameof(NoteKind.Weather), "weather"),
            ],
            [typeof(BandPlace)] =
            [
                (nameof(BandPlace.None), "none"),
                (nameof(BandPlace.Head), "head"),
                (nameof(BandPlace.Foot), "foot"),
            ],
            [typeof(CardDress)] =
            [
                (nameof(CardDress.Plain), "plain"),
                (nameof(CardDress.EdgeBand), "edgeBand"),
                (nameof(CardDress.TopBand), "topBand"),
                (nameof(CardDress.Frame), "frame"),
                (nameof(CardDress.Dots), "dots"),
                (nameof(CardDress.Stripes), "stripes"),
                (nameof(CardDress.Segments), "segments"),
                (nameof(CardDress.RisingDisc), "risingDisc"),
                (nameof(CardDress.HeadAndFoot), "headAndFoot"),
                (nameof(CardDress.CornerTag), "cornerTag"),
                (nameof(CardDress.Crosses), "crosses"),
            ],
            [typeof(CardKind)] =
            [
                (nameof(CardKind.Journaling), "journaling"),
                (nameof(CardKind.WeekTitle), "weekTitle"),
                (nameof(CardKind.DayTitle), "dayTitle"),
                (nameof(CardKind.Filler), "filler"),
                (nameof(CardKind.Overheard), "overheard"),
                (nameof(CardKind.Prompts), "prompts"),
                (nameof(CardKind.HighsAndLows), "highsAndLows"),
                (nameof(CardKind.Incident), "incident"),
                (nameof(CardKind.Why), "why"),
                (nameof(CardKind.Facts), "facts"),
                (nameof(CardKind.FromTo), "fromTo"),
                (nameof(CardKind.Map), "map"),
                (nameof(CardKind.People), "people"),
                (nameof(CardKind.Numbers), "numbers"),
                (nameof(CardKind.Countdown), "countdown"),
                (nameof(CardKind.Calendar), "calendar"),
                (nameof(CardKind.Divider), "divider"),
                (nameof(CardKind.Legend), "legend"),
            ],
            [typeof(CutShape)] =
            [
                (nameof(CutShape.Rectangle), "rectangle"),
                (nameof(CutShape.Circle), "circle"),
                (nameof(CutShape.HalfCircleHanging), "halfCircleHanging"),
                (nameof(CutShape.HalfCircleStanding), "halfCircleStanding"),
                (nameof(CutShape.Arch), "arch"),
                (nameof(CutShape.Tag), "tag"),
            ],
            [typeof(Stock)] =
            [
                (nameof(Stock.PhotoPaper), "photoPaper"),
                (nameof(Stock.WhiteCard), "whiteCard"),
                (nameof(Stock.PatternedPaper), "patternedPaper"),
                (nameof(Stock.Vellum), "vellum"),
                (nameof(Stock.ClearFilm), "clearFilm"),
                (nameof(Stock.Kraft), "kraft"),
                (nameof(Stock.Label), "label"),
            ],
            [typeof(AttachmentKind)] =
            [
                (nameof(AttachmentKind.Flip), "flip"),
                (nameof(AttachmentKind.Behind), "behind"),
                (nameof(AttachmentKind.Tag), "tag"),
                (nameof(AttachmentKind.Sleeve), "sleeve"),
                (nameof(AttachmentKind.Back), "back"),
                (nameof(AttachmentKind.StuckOn), "stuckOn"),
            ],
            [typeof(StripForm)] =
            [
                (nameof(StripForm.Label), "label"),
                (nameof(StripForm.Strips), "strips"),
                (nameof(StripForm.Letters), "letters"),
            ],
            [typeof(HandStepKind)] =
            [
                (nameof(HandStepKind.Stamp), "stamp"),
                (nameof(HandStepKind.Write), "write"),
                (nameof(HandStepKind.Stitch), "stitch"),
                (nameof(HandStepKind.Staple), "staple"),
                (nameof(HandStepKind.Emboss), "emboss"),
                (nameof(HandStepKind.StickOn), "stickOn"),
                (nameof(HandStepKind.CutByHand), "cutByHand"),
                (nameof(HandStepKind.PunchHole), "punchHole"),
            ],
            [typeof(AcrossPlace)] =
            [
                (nameof(AcrossPlace.Left), "left"),
                (nameof(AcrossPlace.FirstThird), "firstThird"),
                (nameof(AcrossPlace.Centre), "centre"),
                (nameof(AcrossPlace.SecondThird), "secondThird"),
                (nameof(AcrossPlace.Right), "right"),
            ],
            [typeof(DownPlace)] =
            [
                (nameof(DownPlace.Top), "top"),
                (nameof(DownPlace.FirstThird), "firstThird"),
                (nameof(DownPlace.Middle), "middle"),
                (nameof(DownPlace.SecondThird), "secondThird"),
                (nameof(DownPlace.Bottom), "bottom"),
            ],
            [typeof(PieceEdge)] =
            [
                (nameof(PieceEdge.Left), "left"),
                (nameof(PieceEdge.Top), "top"),
                (nameof(PieceEdge.Right), "right"),
                (nameof(PieceEdge.Bottom), "bottom"),
            ],
            [typeof(PicturePlace)] =
            [
                (nameof(PicturePlace.None), "none"),
                (nameof(PicturePlace.Left), "left"),
                (nameof(PicturePlace.Right), "right"),
                (nameof(PicturePlace.Top), "top"),
            ],
            [typeof(StorySchool)] = [(nameof(StorySchool.ByDay), "byDay"), (nameof(StorySchool.ByTheme), "byTheme")],
            [typeof(StyleRole)] =
            [
                (nameof(StyleRole.Words), "words"),
                (nameof(StyleRole.Title), "title"),
                (nameof(StyleRole.Quote), "quote"),
                (nameof(StyleRole.Rows), "rows"),
                (nameof(StyleRole.Filler), "filler"),
            ],
            [typeof(Typeface)] =
            [
                (nameof(Typeface.Sans), "sans"),
                (nameof(Typeface.SansStrong), "sansStrong"),
                (nameof(Typeface.Serif), "serif"),
                (nameof(Typeface.Typewriter), "typewriter"),
                (nameof(Typeface.Handwriting), "handwriting"),
                (nameof(Typeface.Display), "display"),
                (nameof(Typeface.BookSerif), "bookSerif"),
                (nameof(Typeface.BookSmallCapitals), "bookSmallCapitals"),
                (nameof(Typeface.BookItalic), "bookItalic"),
                (nameof(Typeface.OldStyle), "oldStyle"),
                (nameof(Typeface.OldStyleItalic), "oldStyleItalic"),
                (nameof(Typeface.Poster), "poster"),
                (nameof(Typeface.Condensed), "condensed"),
                (nameof(Typeface.Grotesque), "grotesque"),
                (nameof(Typeface.Rounded), "rounded"),
                (nameof(Typeface.Mono), "mono"),
                (nameof(Typeface.MonoStrong), "monoStrong"),
            ],
            [typeof(PictureKind)] =
            [
                (nameof(PictureKind.Photo), "photo"),
                (nameof(PictureKind.Screenshot), "screenshot"),
                (nameof(PictureKind.Scan), "scan"),
                (nameof(PictureKind.Page), "page"),
            ],
            [typeof(Verdict)] =
            [
                (nameof(Verdict.Undecided), "undecided"),
                (nameof(Verdict.Keep), "keep"),
                (nameof(Verdict.Maybe), "maybe"),
                (nameof(Verdict.Leave), "leave"),
            ],
        };
}
