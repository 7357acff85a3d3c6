using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Edits;

/// <summary>
/// Lets a piece go with another one: a card or keepsake that is there, a loose picture, or, when neither is named, a
/// new card. Said of a piece that goes with it already, it changes how.
/// </summary>
/// <param name="ToId">The piece it goes with.</param>
/// <param name="As">How it goes with it.</param>
/// <param name="Edge">Where a flip is hinged, where a tag stands out.</param>
/// <param name="Depth">How far a flip reaches or a tag stands out, as <c>2 in</c>; empty for what is usual.</param>
public sealed record AttachPiece(
    Guid ToId,
    AttachmentKind As,
    PieceEdge Edge = PieceEdge.Top,
    string? Depth = null,
    Guid? PieceId = null,
    Guid? PhotoId = null,
    AcrossPlace Across = AcrossPlace.Centre,
    DownPlace Down = DownPlace.Bottom
) : ContentEdit
{
    public override string Label() => "Add a piece to another one";

    protected override IEnumerable<PocketPlace> Disturbs(UnitDesk desk) =>
        PieceId is { } id && desk.Content.PlacementOf(id) is { } lies ? [lies.Place] : [];

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        if (As == AttachmentKind.StuckOn && PieceId is null)
        {
            throw new RuleException("Write a label first, then stick it on. Nothing was changed.");
        }

        var piece = PieceOf(desk, tools);
        var attachment = new Attachment(ToId, As, Edge)
        {
            Depth = string.IsNullOrWhiteSpace(Depth) ? null : MeasureText.ParseLength(Depth),
            Across = Across,
            Down = Down,
        };
        var known = desk.Content.Find(piece.Id)?.Attachment?.To == ToId;
        var content = desk.Content.Attach(piece, attachment);
        return new Edited(
            content,
            known ? $"Changed the {attachment.Name}{desk.Where(ToId)}" : $"Added a {attachment.Name}{desk.Where(ToId)}",
            piece.Id
        );
    }

    private Piece PieceOf(UnitDesk desk, EditTools tools)
    {
        if (PieceId is { } id)
        {
            return desk.Content.Find(id)
                ?? throw new RuleException("That piece is no longer here. Nothing was changed.");
        }

        if (PhotoId is { } photo)
        {
            return desk.Content.PhotosPlaced.Contains(photo)
                ? throw new RuleException("That picture lies somewhere already. Nothing was changed.")
                : new PhotoPrint(tools.NewId(), photo, desk.RequirePhoto(photo).Around.Clamped());
        }

        return new Card(tools.NewId(), CardKind.Journaling, string.Empty, desk.Words.NewStyle(CardKind.Journaling).Key);
    }
}

/// <summary>Takes a piece off the one it goes with: a card goes to the tray, a picture is loose again.</summary>
public sealed record DetachPiece(Guid PieceId) : ContentEdit
{
    public override string Label() => "Take a piece off another one";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var name = desk.Content.Find(PieceId)?.Attachment?.Name ?? "piece";
        return new Edited(desk.Content.Detach(PieceId), $"Took the {name} off{desk.Where(PieceId)}");
    }
}

/// <summary>
/// Writes a label, strips of words or letters and sticks them on a piece, or changes them. The backing is the colour
/// given, white for none; the ink follows from it.
/// </summary>
/// <param name="Words">A line for each strip.</param>
/// <param name="ToId">The piece they are stuck on; null leaves a new one in the tray, a known one where it is.</param>
/// <param name="PieceId">The label that is changed; null for a new one.</param>
public sealed record WriteLabel(
    string Words,
    StripForm Form = StripForm.Label,
    double SizePt = 12,
    string? Paper = null,
    Typeface? Face = null,
    Guid? ToId = null,
    Guid? PieceId = null,
    AcrossPlace Across = AcrossPlace.Centre,
    DownPlace Down = DownPlace.Bottom
) : ContentEdit
{
    public override string Label() => "Write a label";

    protected override Edited Change(UnitDesk desk, EditTools tools)
    {
        var old = PieceId is { } id
            ? desk.Content.Find(id) as WordStrips
                ?? throw new RuleException(
                    "That label is no longer here. Your words were not saved: copy them before you reload."
                )
            : null;
        var style = desk.Words.NewStyle(Form == StripForm.Letters ? CardKind.WeekTitle : CardKind.Journaling);
        var made = WordStrips.Make(
            old?.Id ?? tools.NewId(),
            Words,
            Form,
            Face ?? old?.Face ?? style.Type.Face,
            SizePt,
            Paper is { } paper ? Rgb.Read(paper) : old?.Paper ?? new Rgb(255, 255, 255),
            tools.Shaper
        );
        if (old is not null)
        {
            made = made with { PrintedOn = old.PrintedOn, Steps = old.Steps, Attachment = old.Attachment };
        }

        var content = old is null
            ? desk.Content with
            {
                Pieces = desk.Content.Pieces.Add(made),
            }
            : desk.Content with
            {
                Pieces = desk.Content.Pieces.Replace(old, made),
            };
        if ((ToId ?? old?.Attachment?.To) is { } to)
        {
            content = content.Attach(made, new Attachment(to, AttachmentKind.StuckOn) { Across = Across, Down = Down });
        }

        return new Edited(
            content,
            old is null ? $"Added a label{In(desk, ToId)}" : $"Changed a label{desk.Where(old.Id)}",
            made.Id
        );
    }

    private static string In(UnitDesk desk, Guid? to) => to is { } id ? desk.Where(id) : string.Empty;
}
