using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Placing;

/// <summary>How a piece goes with another one that lies in a pocket.</summary>
public enum AttachmentKind
{
    /// <summary>Hinged at an edge over the pocket; lifted, it shows its back and what lies below.</summary>
    Flip,

    /// <summary>Lies in the same pocket, behind the piece.</summary>
    Behind,

    /// <summary>Lies behind the piece and stands out at an edge, where it is pulled.</summary>
    Tag,

    /// <summary>Goes around the piece.</summary>
    Sleeve,

    /// <summary>Is printed on the back of the piece.</summary>
    Back,

    /// <summary>Is stuck on the piece.</summary>
    StuckOn,
}

/// <summary>
/// A piece that wants no pocket, because it goes with another piece: over it, behind it, around it, on its back.
/// </summary>
/// <param name="To">The piece it goes with.</param>
/// <param name="Kind">How.</param>
/// <param name="Edge">Where a flip is hinged, where a tag stands out.</param>
public sealed record Attachment(Guid To, AttachmentKind Kind, PieceEdge Edge = PieceEdge.Top)
{
    /// <summary>How far a flip reaches from its hinge, or a tag stands out; null for what is usual.</summary>
    public Length? Depth { get; init; }

    /// <summary>Where something that is stuck on lies.</summary>
    public AcrossPlace Across { get; init; } = AcrossPlace.Centre;

    /// <summary>Where something that is stuck on lies.</summary>
    public DownPlace Down { get; init; } = DownPlace.Bottom;

    /// <summary>How far a tag stands out: enough for two fingers. Common practice.</summary>
    public static Length UsualPull => Length.FromInches(1, 2);

    /// <summary>How much narrower a tag is than its pocket, so that it slides. Common practice.</summary>
    public static Length TagEase => Length.FromInches(1, 4);

    /// <summary>How much wider the inside of a sleeve is than what it goes around. Common practice.</summary>
    public static Length SleeveEase => Length.FromInches(1, 16);

    /// <summary>The strip of a sleeve that is glued under its other edge. Common practice.</summary>
    public static Length SleeveFlap => Length.FromInches(1, 2);

    /// <summary>It goes across the hinge or the pull: the edge is at the left or the right.</summary>
    public bool IsSideways => Edge is PieceEdge.Left or PieceEdge.Right;

    /// <summary>
    /// The back of a piece that is lifted at its head or foot stands upside down on it, so that it reads upright when
    /// it is lifted. Arithmetic.
    /// </summary>
    public bool TurnsBackUpsideDown => !IsSideways;

    /// <summary>
    /// The size of such a piece on one of a cut size; for a sleeve that of its front. Null for what is stuck on, which
    /// has its own size.
    /// </summary>
    public Size? SizeOn(Size cut) =>
        Kind switch
        {
            AttachmentKind.Flip => IsSideways
                ? new Size(Length.Min(Depth ?? cut.Width, cut.Width), cut.Height)
                : new Size(cut.Width, Length.Min(Depth ?? cut.Height, cut.Height)),
            AttachmentKind.Tag => IsSideways
                ? new Size(cut.Width + (Depth ?? UsualPull), cut.Height - TagEase)
                : new Size(cut.Width - TagEase, cut.Height + (Depth ?? UsualPull)),
            AttachmentKind.Sleeve => new Size(cut.Width + SleeveEase, Length.Min(Depth ?? cut.Height, cut.Height)),
            AttachmentKind.StuckOn => null,
            _ => cut,
        };

    /// <summary>Where it lies on a piece of a cut size when everything is closed; may reach beyond it.</summary>
    public Rect PlaceOn(Size cut, Size own)
    {
        var (right, foot) = (cut.Width - own.Width, cut.Height - own.Height);
        return Kind switch
        {
            AttachmentKind.StuckOn => new Rect(
                Snap.At((int)Across, own.Width, cut.Width),
                Snap.At((int)Down, own.Height, cut.Height),
                own
            ),
            AttachmentKind.Tag => Edge switch
            {
                PieceEdge.Left => new Rect(right, (cut.Height - own.Height) / 2, own),
                PieceEdge.Right => new Rect(Length.Zero, (cut.Height - own.Height) / 2, own),
                PieceEdge.Top => new Rect(right / 2, foot, own),
                _ => new Rect(right / 2, Length.Zero, own),
            },
            AttachmentKind.Sleeve => new Rect(right / 2, foot / 2, own),
            _ => Edge switch
            {
                PieceEdge.Right => new Rect(right, Length.Zero, own),
                PieceEdge.Bottom => new Rect(Length.Zero, foot, own),
                _ => new Rect(Length.Zero, Length.Zero, own),
            },
        };
    }

    /// <summary>Where a flip lies when it is lifted: on the other side of its hinge.</summary>
    public Rect LiftedOn(Size cut, Size own)
    {
        var closed = PlaceOn(cut, own);
        return Edge switch
        {
            PieceEdge.Left => closed.Moved(Length.Zero - own.Width, Length.Zero),
            PieceEdge.Right => closed.Moved(own.Width, Length.Zero),
            PieceEdge.Top => closed.Moved(Length.Zero, Length.Zero - own.Height),
            _ => closed.Moved(Length.Zero, own.Height),
        };
    }

    /// <summary>What it is called beside the number of its pocket.</summary>
    public string Name =>
        Kind switch
        {
            AttachmentKind.Flip => "flip",
            AttachmentKind.Behind => "behind",
            AttachmentKind.Tag => "tag",
            AttachmentKind.Sleeve => "sleeve",
            AttachmentKind.Back => "back",
            _ => "label",
        };

    /// <summary>Throws <see cref="RuleException"/> when a measure makes no sense.</summary>
    public Attachment Checked() =>
        Depth is { } depth && (depth < Length.FromInches(1, 4) || depth > Length.FromInches(24))
            ? throw new RuleException("A flip or the pull of a tag is 1/4 to 24 in deep. Nothing was changed.")
            : this;
}

/// <summary>
/// The sheet of a sleeve: front, back and a strip for glue, folded twice. The front is as wide as what it goes around
/// and an ease; the back as wide again. Common practice, arithmetic.
/// </summary>
public static class SleeveSheet
{
    /// <summary>The flat size of the sheet for a front of a size.</summary>
    public static Size Flat(Size front) => new((2 * front.Width) + Attachment.SleeveFlap, front.Height);

    /// <summary>Where it is folded, from the left: after the strip for glue, then after the back.</summary>
    public static (Length First, Length Second) Folds(Size front) =>
        (Attachment.SleeveFlap, Attachment.SleeveFlap + front.Width);
}

/// <summary>Places that things snap to along an edge.</summary>
public static class Snap
{
    /// <summary>0 the first edge, 1 and 3 over the thirds, 2 the middle, 4 the last edge.</summary>
    public static Length At(int place, Length own, Length whole)
    {
        var rest = whole - own;
        return place switch
        {
            0 => Length.Zero,
            2 => rest / 2,
            4 => rest,
            _ => Length.Max(Length.Zero, Length.Min(rest, (whole * ((place + 1) / 2) / 3) - (own / 2))),
        };
    }
}
