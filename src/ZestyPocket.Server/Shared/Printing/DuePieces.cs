using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing;
using ZestyPocket.Drawing.Words;

namespace ZestyPocket.Server.Shared;

/// <summary>
/// Collects what is printed of units: every placed piece and what goes with it, part by part, with the faces and what
/// there is to say about them.
/// </summary>
public sealed class DuePieces(PieceFaces faces, BoughtCardFaces boughtCards, FontShelf fonts)
{
    private readonly List<DuePiece> _pieces = [];
    private readonly Dictionary<(Guid PieceId, int Part), PieceFace> _faces = [];
    private readonly Dictionary<Guid, Guid> _unitOf = [];
    private readonly List<(Guid PieceId, string Words)> _doubts = [];
    private readonly List<(Guid PieceId, string Number, IReadOnlyList<HandStep> Steps)> _byHand = [];

    public IReadOnlyList<DuePiece> Pieces => _pieces;

    public IReadOnlyDictionary<(Guid PieceId, int Part), PieceFace> Faces => _faces;

    public IReadOnlyDictionary<Guid, Guid> UnitOf => _unitOf;

    /// <summary>
    /// By piece, everything that is printed of it, front and back, and on what: two with one recipe look the same on
    /// paper.
    /// </summary>
    public IReadOnlyDictionary<Guid, string> Recipes =>
        _pieces
            .GroupBy(p => p.PieceId)
            .ToDictionary(
                g => g.Key,
                g =>
                {
                    var parts = g.OrderBy(p => p.Part).ToList();
                    var none = PaperMarks.None.ToString();
                    var backs = parts
                        .Select(p => p.Back)
                        .OfType<DueBack>()
                        .Select(b => (Face: _faces[(b.PieceId, 0)], b.UpsideDown))
                        .ToList();
                    var on = string.Join(
                        ' ',
                        parts
                            .Select(p => $"{p.Stock}")
                            .Concat(backs.Select(b => b.UpsideDown ? "turned" : "back"))
                            // Where it is folded and punched is printed too.
                            .Concat(parts.Where(p => p.Marks.ToString() != none).Select(p => p.Marks.ToString()))
                    );
                    var looks = PieceRecipe.HashOf(
                        parts.Select(p => _faces[(p.PieceId, p.Part)]).Concat(backs.Select(b => b.Face))
                    );
                    return $"{looks} {on}";
                }
            );

    /// <summary>What would not come out as it should, by the piece on whose sheet it is.</summary>
    public IReadOnlyList<(Guid PieceId, string Words)> Doubts => _doubts;

    public IReadOnlyList<(Guid PieceId, string Number, IReadOnlyList<HandStep> Steps)> ByHand => _byHand;

    /// <summary>Everything that lies in pockets of a unit, in reading order.</summary>
    public void TakePlaced(OpenUnit open)
    {
        ArgumentNullException.ThrowIfNull(open);
        foreach (var (face, pocket, place, code) in open.Pockets)
        {
            if (open.Content.At(place) is not { } placement || open.Content.Find(placement.PieceId) is not { } piece)
            {
                continue;
            }

            var cut = open.CutSizeOf(piece);
            Take(open, piece, code, cut, PaperMarks.On(face.Face, pocket, cut));
            foreach (var with in open.Content.AttachedTo(piece.Id).Where(p => !IsBack(p)))
            {
                var own = open.CutSizeOf(with);
                var folded = with.Attachment!.Kind == AttachmentKind.Sleeve;
                var marks = folded ? PaperMarks.OfSleeve(own) : PaperMarks.None;
                Take(open, with, $"{code} {with.Attachment.Name}", own, marks);
            }
        }
    }

    private static bool IsBack(Piece piece) => piece.Attachment?.Kind == AttachmentKind.Back;

    /// <summary>A bought card is there already: its words are printed onto it, and the print that is mounted.</summary>
    private void Take(OpenUnit open, BoughtCard card, string code, Size cut)
    {
        _unitOf[card.Id] = open.Unit.Id;
        if (!card.Steps.IsEmpty)
        {
            _byHand.Add((card.Id, code, card.Steps));
        }

        if (boughtCards.Printed(open, card, cut) is { } words)
        {
            _faces[(card.Id, 0)] = words;
            _pieces.Add(
                new DuePiece(card.Id, code, words.Cut, Stock.WhiteCard) { OnCarrier = true, UnitId = open.Unit.Id }
            );
            _doubts.AddRange(DoubtsOf(card, code, words).Select(d => (card.Id, d)));
        }

        if (boughtCards.Picture(open, card) is { } picture)
        {
            _faces[(card.Id, 1)] = picture;
            _pieces.Add(
                new DuePiece(card.Id, $"{code} picture", picture.Cut, open.Words.PicturesOn, 1)
                {
                    UnitId = open.Unit.Id,
                }
            );
        }
    }

    private void Take(OpenUnit open, Piece piece, string code, Size cut, PaperMarks marks)
    {
        if (piece is BoughtCard card)
        {
            Take(open, card, code, cut);
            return;
        }

        if (piece is Keepsake || PrintedFace(open, piece, cut) is not { } face)
        {
            return;
        }

        _unitOf[piece.Id] = open.Unit.Id;
        if (!piece.Steps.IsEmpty)
        {
            _byHand.Add((piece.Id, code, piece.Steps));
        }

        _doubts.AddRange(DoubtsOf(piece, code, face).Select(d => (piece.Id, d)));
        if (piece is Card blank && EmptyCard.Says(open.Desk, blank) is { } says)
        {
            _doubts.Add((piece.Id, $"{code}: {says}"));
        }

        var back = TakeBack(open, piece, code, cut);
        foreach (var (part, shown) in Parts(piece, code, open.Words.StockOf(piece), face))
        {
            _faces[(piece.Id, part.Part)] = shown;
            // The back of the whole is that of the outermost part.
            var own = part with
            {
                UnitId = open.Unit.Id,
            };
            _pieces.Add(own.Part == 0 ? own with { Back = back, Marks = marks } : own);
        }
    }

    private DueBack? TakeBack(OpenUnit open, Piece piece, string code, Size cut)
    {
        if (
            open.Content.AttachedTo(piece.Id).FirstOrDefault(IsBack) is not { } back
            || faces.Of(open, back, cut) is not { } face
        )
        {
            return null;
        }

        var number = $"{code} back";
        _unitOf[back.Id] = open.Unit.Id;
        _faces[(back.Id, 0)] = Stocks.HasOwnGround(open.Words.StockOf(piece)) ? WithoutGround(face) : face;
        _doubts.AddRange(DoubtsOf(back, number, face).Select(d => (piece.Id, d)));
        return new DueBack(back.Id, number, piece.Attachment?.TurnsBackUpsideDown ?? false);
    }

    /// <summary>The face as it lies flat on the sheet.</summary>
    private PieceFace? PrintedFace(OpenUnit open, Piece piece, Size cut) =>
        piece switch
        {
            WordStrips strips => AttachedFaces.OnOneStrip(strips, fonts),
            { Attachment.Kind: AttachmentKind.Sleeve } => faces.Of(open, piece, cut) is { } front
                ? AttachedFaces.Sleeve(front)
                : null,
            _ => faces.Of(open, piece, cut),
        };

    /// <summary>On paper with a ground of its own the ground of a card is not printed.</summary>
    private static PieceFace WithoutGround(PieceFace face) =>
        face switch
        {
            CardPieceFace card => card with { GroundShare = 0 },
            FinishedFace finished => finished with
            {
                Parts =
                [
                    .. finished.Parts.Select(p =>
                        p with
                        {
                            On = [.. p.On.Select(o => o with { Face = WithoutGround(o.Face) })],
                        }
                    ),
                ],
            },
            _ => face,
        };

    /// <summary>What is cut for a piece: the piece, or each of its mats on card and the print by itself.</summary>
    private static IEnumerable<(DuePiece Part, PieceFace Face)> Parts(
        Piece piece,
        string code,
        Stock stock,
        PieceFace face
    )
    {
        face = Stocks.HasOwnGround(stock) ? WithoutGround(face) : face;
        if (face is not FinishedFace finished)
        {
            yield return (new DuePiece(piece.Id, code, face.Cut, stock), face);
            yield break;
        }

        for (var i = 0; i < finished.Parts.Length; i++)
        {
            var (part, own) = (finished.Part(i), finished.Parts[i]);
            yield return (
                new DuePiece(
                    piece.Id,
                    own.Name.Length > 0 ? $"{code} {own.Name}" : code,
                    part.Cut,
                    own.IsMat ? Stock.WhiteCard : stock,
                    i
                ),
                part
            );
        }
    }

    /// <summary>
    /// What would go to paper other than it should: words that have no room, letters that no face has.
    /// </summary>
    private IEnumerable<string> DoubtsOf(Piece piece, string code, PieceFace face)
    {
        if (
            piece is Card card
            && face is CardPieceFace { Card.Fit: { WordsOver: > 0 and var over } fit }
            && fit.SizePt > 0
            && !string.IsNullOrWhiteSpace(card.Words)
        )
        {
            yield return $"{code}: {NumberWords.Counted(over, "word has", "words have")} no room and would not be "
                + "printed.";
        }

        foreach (var missing in RunsOf(face).SelectMany(r => fonts.Lacks(r.Face, r.Text).Missing).Distinct().Chunk(12))
        {
            yield return $"{code}: no face of the program has {string.Join(' ', missing)}; a box would be printed "
                + "instead.";
        }
    }

    private static IEnumerable<TypeRun> RunsOf(PieceFace face) =>
        face switch
        {
            CardPieceFace card => card.Picture is { } picture ? card.Card.Runs.Concat(RunsOf(picture)) : card.Card.Runs,
            PhotoFace photo => photo.Runs,
            CollageFace collage => collage.Cells.SelectMany(c => RunsOf(c.Face)),
            FinishedFace finished => finished.Parts.SelectMany(p => p.On).SelectMany(o => RunsOf(o.Face)),
            _ => [],
        };
}
