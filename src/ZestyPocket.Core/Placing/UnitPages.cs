using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Placing;

/// <summary>
/// One page of a unit: a side of a leaf, with the protector as it is after what was done to the leaf.
/// </summary>
public sealed record UnitFace(Guid LeafId, LeafSide Side, Protector Protector, LeafAlterations Alterations)
{
    /// <summary>The face's pockets in reading order with their places, numbered from 1.</summary>
    public IEnumerable<(Pocket Pocket, PocketPlace Place, int Number)> Pockets =>
        Protector.Design.Face(Side).Select((pocket, i) => (pocket, new PocketPlace(LeafId, Side, pocket.Key), i + 1));
}

/// <summary>The pages of a unit, left before right, and the pockets on them.</summary>
public sealed class UnitPages(UnitDates dates, ImmutableArray<UnitFace> faces)
{
    private readonly (UnitFace Face, Pocket Pocket, PocketPlace Place, string Code)[] _pockets =
    [
        .. from face in faces.Zip(
            Binding.SpreadsOf([.. faces.Select(f => f.Side)]),
            (f, spread) => (Face: f, Spread: spread)
        )
        from pocket in face.Face.Pockets
        select (
            face.Face,
            pocket.Pocket,
            pocket.Place,
            PieceNumber.For(dates.Code, face.Face.Side, face.Spread, pocket.Number)
        ),
    ];

    public ImmutableArray<UnitFace> Faces { get; } = faces;

    /// <summary>Every pocket of the unit's pages in reading order, with its code such as <c>W19 L5</c>.</summary>
    public IReadOnlyList<(UnitFace Face, Pocket Pocket, PocketPlace Place, string Code)> Pockets => _pockets;

    /// <summary>The pocket's code; null when the unit has no such pocket.</summary>
    public string? CodeOf(PocketPlace place) =>
        _pockets.Where(p => p.Place == place).Select(p => p.Code).FirstOrDefault();

    /// <summary>Whether the piece there is stuck to the one behind it.</summary>
    public bool IsStuck(PocketPlace place) =>
        Faces.Any(f => f.LeafId == place.LeafId && f.Alterations.Stuck.Contains(place.PocketKey));

    /// <summary>The size a piece in this pocket is cut to.</summary>
    public Size CutSize(PocketPlace place)
    {
        var found = _pockets.First(p => p.Place == place);
        return found.Face.Protector.CutSize(found.Pocket);
    }

    /// <summary>The room inside a pocket: as measured, else its nominal size.</summary>
    public Size ClearSize(PocketPlace place)
    {
        var found = _pockets.First(p => p.Place == place);
        return found.Face.Protector.ClearSize(found.Pocket);
    }

    /// <summary>What a piece's finish leaves for its picture or its words; all of it on a bare piece.</summary>
    public Size RoomOf(UnitContent content, Piece piece)
    {
        var cut = CutSizeOf(content, piece);
        return Finish.PartsOf(piece, cut)?.Picture.Bounds.Size ?? cut;
    }

    /// <summary>
    /// The size a piece is cut to: that of its pocket, or for a loose card the unit's most usual pocket, which is where
    /// it will most likely go.
    /// </summary>
    public Size CutSizeOf(UnitContent content, Piece piece)
    {
        ArgumentNullException.ThrowIfNull(content);
        ArgumentNullException.ThrowIfNull(piece);
        if (piece.Attachment is { } goes && content.Find(goes.To) is { } carrier)
        {
            return goes.SizeOn(CutSizeOf(content, carrier)) ?? OwnSize(piece);
        }

        if (piece is WordStrips strips)
        {
            return strips.Size;
        }

        if (piece is Keepsake keepsake)
        {
            // It goes in itself: its size is its own, turned when only that way it fits.
            return
                content.PlacementOf(piece.Id) is { } lies
                && CodeOf(lies.Place) is not null
                && keepsake.FitIn(ClearSize(lies.Place)) == KeepsakeFit.Turned
                ? new Size(keepsake.Height, keepsake.Width)
                : keepsake.Size;
        }

        var own =
            content.PlacementOf(piece.Id) is { } placement && CodeOf(placement.Place) is not null
                ? CutSize(placement.Place)
                : Usual(piece);
        // The sleeve is what has to go into the pocket: what it goes around is that much narrower.
        return content.AttachedTo(piece.Id).Any(p => p.Attachment!.Kind == AttachmentKind.Sleeve)
            ? own with
            {
                Width = own.Width - Attachment.SleeveEase,
            }
            : own;
    }

    /// <summary>Of a loose piece.</summary>
    private Size Usual(Piece piece)
    {
        return piece is Collage collage
            ? collage.Body
            : _pockets
                .Select(p => p.Face.Protector.CutSize(p.Pocket))
                .GroupBy(s => s)
                .OrderByDescending(g => g.Count())
                .ThenBy(g => g.Key.Width)
                .ThenBy(g => g.Key.Height)
                .Select(g => g.Key)
                .FirstOrDefault(Size.FromInches(3, 4));
    }

    private static Size OwnSize(Piece piece) =>
        piece switch
        {
            WordStrips strips => strips.Size,
            Keepsake keepsake => keepsake.Size,
            _ => Size.FromInches(1, 1),
        };

    /// <summary>
    /// The whole of a picture that runs over several pockets, and where a slice of it lies in that; null for every
    /// other print.
    /// </summary>
    public (Size Whole, Rect Slice)? SpanOf(UnitContent content, PhotoPrint print)
    {
        ArgumentNullException.ThrowIfNull(content);
        ArgumentNullException.ThrowIfNull(print);
        if (
            print is not { SpanId: { } span, Part: null }
            || content.PlacementOf(print.Id) is not { } placement
            || Faces.FirstOrDefault(f => f.LeafId == placement.Place.LeafId && f.Side == placement.Place.Side)
                is not { } face
        )
        {
            return null;
        }

        var keys = content
            .SlicesOf(span)
            .Select(s => content.PlacementOf(s.Id)?.Place.PocketKey)
            .OfType<string>()
            .ToList();
        var (whole, slices) = Spans.Of(face.Protector, face.Side, keys);
        return slices.TryGetValue(placement.Place.PocketKey, out var slice) ? (whole, slice) : null;
    }
}
