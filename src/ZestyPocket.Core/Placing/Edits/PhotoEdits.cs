using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>Puts a picture into a pocket.</summary>
public sealed record PutPhoto(Guid PhotoId, PocketPlace Place) : ContentEdit
{
    public override string Label() => "Put a photo into a pocket";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => [Place];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var (photo, id) = (desk.RequirePhoto(PhotoId), tools.NewId());
        var content = desk.Content.PutPhoto(photo.Id, desk.Require(Place), id, photo.Around);
        return new Edited(content, $"Put {photo.FileName} into {desk.Pages.CodeOf(Place)}", id);
    }
}

/// <summary>Lets a picture run over several pockets of one page.</summary>
public sealed record PutSpan(Guid PhotoId, IReadOnlyList<PocketPlace> Places) : ContentEdit
{
    public override string Label() => "Place a picture over several pockets";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) => Places;

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var photo = desk.RequirePhoto(PhotoId);
        var places = Places.Select(desk.Require).Distinct().ToList();
        var without = desk.Content.Pieces.OfType<PhotoPrint>().FirstOrDefault(p => p.PhotoId == photo.Id) is { } print
            ? desk.Content.Discard(print.Id)
            : desk.Content;
        var face =
            desk.Pages.Faces.FirstOrDefault(f =>
                places.Count > 0 && f.LeafId == places[0].LeafId && f.Side == places[0].Side
            ) ?? throw new RuleException("Say over which pockets the picture runs. Nothing was changed.");
        var slices = Spans.Checked(face.Protector, places).Select(place => (place, tools.NewId())).ToList();
        return new Edited(
            without.PutSpan(photo.Id, slices, photo.Around),
            $"Let {photo.FileName} run over {NumberWords.Of(slices.Count)} pockets",
            slices[0].Item2
        );
    }
}

/// <summary>A part of a tall picture and the pocket it goes into; shares of the picture's height.</summary>
public sealed record WrittenPart(PocketPlace Place, double Top, double Bottom);

/// <summary>Puts the parts of a tall picture into pockets, from its top to its foot.</summary>
public sealed record PutParts(Guid PhotoId, IReadOnlyList<WrittenPart> Parts) : ContentEdit
{
    public override string Label() => "Place a tall picture in parts";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) =>
        Parts.OfType<WrittenPart>().Select(p => p.Place);

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var photo = desk.RequirePhoto(PhotoId);
        var parts = Parts.OfType<WrittenPart>().ToList();
        foreach (var part in parts)
        {
            desk.Require(part.Place);
        }

        if (
            parts.Count is < 2 or > ScrollCuts.MostParts
            || parts.Select(p => p.Place).Distinct().Count() != parts.Count
            || parts.Exists(p => !(p.Top >= 0 && p.Bottom <= 1 && p.Bottom - p.Top >= 0.005))
        )
        {
            throw new RuleException(
                $"A tall picture has 2 to {ScrollCuts.MostParts} parts, each in a pocket of its own. Nothing was "
                    + "changed."
            );
        }

        var without = desk.Content.Pieces.OfType<PhotoPrint>().FirstOrDefault(p => p.PhotoId == photo.Id) is { } print
            ? desk.Content.Discard(print.Id)
            : desk.Content;
        var put = parts.ConvertAll(p => (p.Place, tools.NewId(), new PicturePart(p.Top, p.Bottom)));
        return new Edited(
            without.PutParts(photo.Id, put),
            $"Put {photo.FileName} into {NumberWords.Of(put.Count)} pockets",
            put[0].Item2
        );
    }
}

/// <summary>Frames the picture of a print anew.</summary>
public sealed record FramePhoto(Guid PieceId, Framing Framing) : ContentEdit
{
    public override string Label() => "Frame a picture";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(desk.Content.Frame(PieceId, Framing), $"Framed the picture{desk.Where(PieceId)}", PieceId);
}

/// <summary>Words on a print as written; colours as <c>#rrggbb</c>, places as shares of the print.</summary>
public sealed record WrittenCaption(
    string Words,
    Typeface Face,
    double SizePt,
    double X,
    double Y,
    double Width,
    string Ink,
    string? Label
)
{
    public static WrittenCaption Of(PhotoCaption caption)
    {
        ArgumentNullException.ThrowIfNull(caption);
        return new WrittenCaption(
            caption.Words,
            caption.Face,
            caption.SizePt,
            caption.X,
            caption.Y,
            caption.Width,
            caption.Ink.ToString(),
            caption.Label?.ToString()
        );
    }

    public PhotoCaption ToCaption() =>
        new PhotoCaption(
            PlainWords.Clean(Words),
            Face,
            SizePt,
            X,
            Y,
            Width,
            Rgb.Read(Ink),
            Label is null ? null : Rgb.Read(Label)
        ).Checked();
}

/// <summary>Puts words on a print; null takes them off.</summary>
public sealed record CaptionPhoto(Guid PieceId, WrittenCaption? Caption = null) : ContentEdit
{
    public override string Label() => "Add words to a picture";

    protected override Edited Change(UnitDesk desk, EditTools tools) =>
        new(
            desk.Content.Caption(PieceId, Caption?.ToCaption()),
            Caption is null ? "Removed the words from a picture" : "Added words to a picture",
            PieceId
        );
}

/// <summary>Says in which size of pocket a picture is wanted, such as <c>6x4</c>; null in any.</summary>
public sealed record WishSize(Guid PhotoId, string? Size = null) : ContentEdit
{
    public override string Label() => "Choose a pocket size for a picture";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var photo = desk.RequirePhoto(PhotoId);
        var size = string.IsNullOrWhiteSpace(Size) ? (Measures.Size?)null : MeasureText.ParseSize(Size);
        if (size is { } wanted && !desk.NominalSizes.Contains(wanted))
        {
            throw new RuleException(
                $"None of the album's page designs has a pocket of {wanted}. Nothing was changed: let the album use "
                    + "one "
                    + "that has."
            );
        }

        return new Edited(
            desk.Content.Wish(photo.Id, size),
            size is null ? $"{photo.FileName} may have any size" : $"{photo.FileName} is wanted at {size}"
        );
    }
}
