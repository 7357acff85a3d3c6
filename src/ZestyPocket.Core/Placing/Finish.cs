using System.Collections.Immutable;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing;

/// <summary>A border of a print, inside its cut; 0 to 1 in on each side.</summary>
public sealed record PrintBorder(Length Left, Length Top, Length Right, Length Bottom, Rgb Colour)
{
    public static PrintBorder Even(Length width, Rgb colour) => new(width, width, width, width, colour);

    public bool IsEven => Left == Top && Top == Right && Right == Bottom;
}

/// <summary>A layer of card or paper under a piece that peeps out around it everywhere alike.</summary>
/// <param name="Reveal">How far it peeps out, over 0 to 1 in.</param>
/// <param name="Colour">Of the card.</param>
/// <param name="StyleKey">A filler style whose pattern is printed on it; null for plain colour.</param>
public sealed record Mat(Length Reveal, Rgb Colour, string? StyleKey);

/// <summary>An edge of a piece.</summary>
public enum PieceEdge
{
    Left,
    Top,
    Right,
    Bottom,
}

/// <summary>A strip of pattern along an edge of a print, as at both ends of a spread.</summary>
/// <param name="Width">Across the strip, over 0 to 2 in.</param>
/// <param name="StyleKey">The filler style whose pattern it has.</param>
public sealed record EdgeStrip(PieceEdge Edge, Length Width, string StyleKey);

/// <summary>Where the parts of a finished piece lie, all in the coordinates of its pocket's cut size.</summary>
/// <param name="Mats">Outermost first; each is a part that is cut by itself.</param>
/// <param name="Print">The print itself: the part on top.</param>
/// <param name="Strip">On the print; null for none.</param>
/// <param name="Picture">What is left for the picture or the words.</param>
public sealed record FinishedParts(ImmutableArray<Outline> Mats, Outline Print, Rect? Strip, Outline Picture);

/// <summary>
/// How a print or a card is finished: its shape, border, rounded corners, mats under it and a strip along an edge.
/// Measures from the outside in: mats, the cut of the print, strip, border, picture.
/// </summary>
public sealed record Finish
{
    public static Finish None { get; } = new();

    /// <summary>The finish of a piece; null when it has none.</summary>
    public static Finish? Of(Piece piece) =>
        piece switch
        {
            PhotoPrint print => print.Finish,
            Card card => card.Finish,
            _ => null,
        };

    /// <summary>
    /// Where the parts of a piece lie, with the room that is kept for steps by hand; null for a bare piece, and when
    /// too little would be left.
    /// </summary>
    public static FinishedParts? PartsOf(Piece piece, Size cut)
    {
        ArgumentNullException.ThrowIfNull(piece);
        var keepsRoom = piece.Steps.Any(s => s.RoomAt is not null);
        if ((Of(piece) ?? (keepsRoom ? None : null))?.OnOrNull(cut) is not { } parts)
        {
            return null;
        }

        return !keepsRoom ? parts
            : HandStep.LeaveRoom(parts.Picture.Bounds, piece.Steps) is { } left
                ? parts with
                {
                    Picture = Outline.Of(left),
                }
            : Of(piece) is null ? null
            : parts;
    }

    /// <summary>Most layers under a piece.</summary>
    public const int MostMats = 2;

    /// <summary>A picture smaller than this in either way is lost in its frame.</summary>
    public static Length LeastPicture => Length.FromInches(1, 2);

    public CutShape Shape { get; init; }

    /// <summary>Radius of the outermost part's rounded corners, 0 to 1 in; only rectangles have them.</summary>
    public Length Corner { get; init; }

    public PrintBorder? Border { get; init; }

    /// <summary>Outermost first.</summary>
    public ImmutableArray<Mat> Mats { get; init; } = [];

    public EdgeStrip? Strip { get; init; }

    /// <summary>It leaves a piece as it is.</summary>
    public bool IsNone =>
        Shape == CutShape.Rectangle && Corner == Length.Zero && Border is null && Mats.IsEmpty && Strip is null;

    /// <summary>
    /// Where everything lies on a piece of a cut size. Throws <see cref="RuleException"/> when too little is left for
    /// the picture.
    /// </summary>
    public FinishedParts On(Size cut) =>
        OnOrNull(cut)
        ?? throw new RuleException(
            $"On a piece of {cut} that leaves less than half an inch for the picture. Nothing was changed: make the "
                + "border, mats or strip narrower."
        );

    /// <summary>The same, or null when too little is left for the picture.</summary>
    public FinishedParts? OnOrNull(Size cut)
    {
        var outline = Outline.In(new Rect(Length.Zero, Length.Zero, cut), Shape, Corner);
        var mats = ImmutableArray.CreateBuilder<Outline>();
        foreach (var mat in Mats)
        {
            mats.Add(outline);
            outline = outline.Inset(mat.Reveal);
        }

        var (print, inner, strip) = (outline, outline, (Rect?)null);
        if (Strip is { } along)
        {
            strip = StripOn(print.Bounds, along);
            inner = inner with { Bounds = Without(print.Bounds, along), Corner = Length.Zero };
        }

        if (Border is { } border)
        {
            inner = border.IsEven ? inner.Inset(border.Left) : inner with { Bounds = Within(inner.Bounds, border) };
        }

        // A half circle is twice as wide as high.
        return inner.Bounds.Width < LeastPicture || inner.Bounds.Height < LeastPicture / 2 || !inner.IsWhole
            ? null
            : new FinishedParts(mats.ToImmutable(), print, strip, inner);
    }

    /// <summary>Throws <see cref="RuleException"/> when a measure makes no sense.</summary>
    public Finish Checked(Func<string, bool> isPattern)
    {
        ArgumentNullException.ThrowIfNull(isPattern);
        var inch = Length.FromInches(1);
        if (
            Border is { } b
            && new[] { b.Left, b.Top, b.Right, b.Bottom }.Any(side => side < Length.Zero || side > inch)
        )
        {
            throw new RuleException("A border is 0 to 1 in wide on each side. Nothing was changed.");
        }

        if (Mats.Length > MostMats || Mats.Any(m => m.Reveal <= Length.Zero || m.Reveal > inch))
        {
            throw new RuleException(
                "A piece has two mats at most, each showing up to 1 in around it. Nothing was changed."
            );
        }

        if (Strip is { } strip && (strip.Width <= Length.Zero || strip.Width > 2 * inch))
        {
            throw new RuleException("A strip is up to 2 in wide. Nothing was changed.");
        }

        if (Shape != CutShape.Rectangle && (Strip is not null || Border is { IsEven: false }))
        {
            throw new RuleException(
                "A strip along an edge and a border of several widths need a rectangle. Nothing was changed."
            );
        }

        if (Corner < Length.Zero || Corner > inch)
        {
            throw new RuleException("Corners are rounded by 0 to 1 in. Nothing was changed.");
        }

        var named = Mats.Select(m => m.StyleKey).Append(Strip?.StyleKey).OfType<string>();
        return named.FirstOrDefault(key => !isPattern(key)) is { } unknown
            ? throw new RuleException($"There is no pattern “{unknown}”. Nothing was changed: choose another.")
            : this;
    }

    private static Rect StripOn(Rect print, EdgeStrip strip) =>
        strip.Edge switch
        {
            PieceEdge.Left => print with { Width = strip.Width },
            PieceEdge.Right => print with { X = print.Right - strip.Width, Width = strip.Width },
            PieceEdge.Top => print with { Height = strip.Width },
            _ => print with { Y = print.Bottom - strip.Width, Height = strip.Width },
        };

    private static Rect Without(Rect print, EdgeStrip strip) =>
        strip.Edge switch
        {
            PieceEdge.Left => print with { X = print.X + strip.Width, Width = print.Width - strip.Width },
            PieceEdge.Right => print with { Width = print.Width - strip.Width },
            PieceEdge.Top => print with { Y = print.Y + strip.Width, Height = print.Height - strip.Width },
            _ => print with { Height = print.Height - strip.Width },
        };

    private static Rect Within(Rect rect, PrintBorder border) =>
        new(
            rect.X + border.Left,
            rect.Y + border.Top,
            rect.Width - border.Left - border.Right,
            rect.Height - border.Top - border.Bottom
        );
}
