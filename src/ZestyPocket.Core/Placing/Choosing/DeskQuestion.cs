using System.Collections.Immutable;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>
/// Asks which piece of a unit goes into which of its pockets: what lies somewhere stays there, everything loose is a
/// candidate. The costs are this program's own; what they stand for is common practice.
/// </summary>
public static class DeskQuestion
{
    private const long WholeLost = 1_000_000;
    private const long MoreThanHalfLost = 2_000_000;
    private const long OtherOrientation = 140_000;
    private const long CutThrough = 3_000_000;
    private const long CutShare = 3_000_000;
    private const long Unsharp = 800_000;
    private const long VeryUnsharp = 400_000;
    private const long FavouriteInSmall = 90_000;
    private const long WholeSpreadLate = 150_000;
    private const long Strays = 700_000;
    private const long WordsOver = 4_000_000;
    private const long WordOver = 20_000;
    private const long TypeSmaller = 100_000;
    private const long RoomSpent = 120_000;
    private const long TitleLater = 150_000;
    private const long WordsLater = 5_000;
    private const long SeesThrough = 180_000;

    private const long LeaveTitle = 50_000_000;
    private const long LeaveCard = 45_000_000;
    private const long LeaveOther = 40_000_000;
    private const long LeaveFiller = 35_000_000;
    private const long LeaveWished = 1_500_000;
    private const long LeaveStar = 350_000;
    private const long LeaveKept = 200_000;
    private const long TakeMaybe = 150_000;
    private const long LeaveBest = 60_000;

    /// <summary>A box that loses less than this of itself counts as whole.</summary>
    internal const double Whole = 0.98;

    /// <summary>Pockets touch when no more than a seam lies between them.</summary>
    private static Length SeamAtMost => Length.FromInches(1, 4);

    public static SpreadQuestion Of(UnitDesk desk, ITextShaper shaper, PlacingWeights? weights = null)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(shaper);
        var asking = new Asking(desk, shaper, (weights ?? desk.Weights).Checked());
        return asking.Question();
    }

    /// <summary>What a picture loses in a pocket, lying as it would before anybody framed it.</summary>
    public static (double Loss, bool CutsThrough, double PixelsPerInch) CropOf(DeskPhoto photo, Size cut)
    {
        ArgumentNullException.ThrowIfNull(photo);
        var pixels = photo.Photo.Pixels;
        var crop = Crop.For(pixels, cut, photo.Around);
        return (crop.LossOf(pixels), photo.Keep.Any(b => KeptOf(b, crop, pixels) < Whole), crop.PixelsPerInch(cut));
    }

    /// <summary>The share of a box that a crop keeps.</summary>
    internal static double KeptOf(PictureBox box, Crop crop, PixelSize pixels)
    {
        var (left, top) = (crop.Left / pixels.Width, crop.Top / pixels.Height);
        var (right, foot) = (left + (crop.Width / pixels.Width), top + (crop.Height / pixels.Height));
        var wide = Math.Max(0, Math.Min(box.Right, right) - Math.Max(box.X, left));
        var high = Math.Max(0, Math.Min(box.Bottom, foot) - Math.Max(box.Y, top));
        return wide * high / (box.Width * box.Height);
    }

    /// <summary>The pairs of pockets of one page that touch along an edge.</summary>
    public static IEnumerable<(int First, int Second, int Edge)> NeighboursOf(IReadOnlyList<PocketToFill> pockets)
    {
        ArgumentNullException.ThrowIfNull(pockets);
        for (var i = 0; i < pockets.Count; i++)
        {
            for (var j = i + 1; j < pockets.Count; j++)
            {
                if (
                    pockets[i].Face == pockets[j].Face
                    && Shared(pockets[i].Bounds, pockets[j].Bounds) is > 0 and var edge
                )
                {
                    yield return (i, j, edge);
                }
            }
        }
    }

    /// <summary>The length of the edge that two rectangles share, in thousandths of an inch.</summary>
    private static int Shared(Rect a, Rect b)
    {
        var (across, down) = (Overlap(a.X, a.Right, b.X, b.Right), Overlap(a.Y, a.Bottom, b.Y, b.Bottom));
        return across > Length.Zero && down <= Length.Zero && Length.Zero - down <= SeamAtMost ? Thousandths(across)
            : down > Length.Zero && across <= Length.Zero && Length.Zero - across <= SeamAtMost ? Thousandths(down)
            : 0;

        static Length Overlap(Length from, Length to, Length otherFrom, Length otherTo) =>
            Length.Min(to, otherTo) - Length.Max(from, otherFrom);

        static int Thousandths(Length length) => (int)Math.Round((double)length.Inches * 1000);
    }

    /// <summary>The pockets of a unit in reading order, whatever lies in them.</summary>
    public static IReadOnlyList<PocketToFill> PocketsOf(UnitDesk desk)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var spreads = Binding.SpreadsOf([.. desk.Pages.Faces.Select(f => f.Side)]);
        return [.. desk.Pages.Pockets.Select(p => PocketOf(desk, p, spreads))];
    }

    private static PocketToFill PocketOf(
        UnitDesk desk,
        (UnitFace Face, Pocket Pocket, PocketPlace Place, string Code) p,
        IReadOnlyList<int> spreads
    )
    {
        var face = desk.Pages.Faces.IndexOf(p.Face);
        var right = p.Face.Side == LeafSide.Front;
        var all = p.Face.Pockets.Select(o => o.Pocket.Bounds).ToList();
        return new PocketToFill(p.Place, p.Code, p.Face.Protector.CutSize(p.Pocket), p.Pocket.Nominal, p.Pocket.Bounds)
        {
            Face = face,
            Spread = spreads[face],
            IsRight = right,
            IsOuter = right ? p.Pocket.Bounds.Right == all.Max(b => b.Right) : p.Pocket.Bounds.X == all.Min(b => b.X),
        };
    }

    private sealed class Asking
    {
        private readonly UnitDesk _desk;
        private readonly ITextShaper _shaper;
        private readonly PlacingWeights _weights;
        private readonly List<(Candidate Candidate, DeskPhoto? Photo, Piece? Piece, PocketPlace? Stays)> _things = [];
        private readonly Dictionary<(Guid, Size), FitOutcome> _fits = [];
        private readonly Dictionary<Guid, double> _timeOf;
        private readonly double _largest;
        private readonly int _pockets;

        public Asking(UnitDesk desk, ITextShaper shaper, PlacingWeights weights)
        {
            (_desk, _shaper, _weights) = (desk, shaper, weights);
            _pockets = desk.Pages.Pockets.Count;
            _largest = desk
                .Pages.Pockets.Select(p => (double)p.Face.Protector.CutSize(p.Pocket).SquareInches)
                .DefaultIfEmpty(1)
                .Max();
            var placed = desk.Content.PhotosPlaced;
            var loose = desk.Photos.Values.Where(p => !placed.Contains(p.Id)).ToList();
            foreach (var placement in desk.Content.Placements.Where(p => desk.Pages.CodeOf(p.Place) is not null))
            {
                if (desk.Content.Find(placement.PieceId) is { } piece)
                {
                    var photo =
                        piece is PhotoPrint print && desk.Photos.GetValueOrDefault(print.PhotoId) is { } original
                            ? print.Adjustment?.On(original) ?? original
                            : null;
                    var candidate = photo is null ? Of(piece) : Of(photo) with { Key = piece.Id };
                    _things.Add((candidate, photo, piece, placement.Place));
                }
            }

            _things.AddRange(loose.Select(p => (Of(p), (DeskPhoto?)p, (Piece?)null, (PocketPlace?)null)));
            _things.AddRange(
                desk.Content.Loose.Where(p => p is not WordStrips)
                    .Select(p => (Of(p), (DeskPhoto?)null, (Piece?)p, (PocketPlace?)null))
            );
            _things =
            [
                .. _things
                    .OrderBy(t => t.Candidate.Day ?? LocalDate.MaxIsoValue)
                    .ThenBy(t => t.Candidate.Taken ?? LocalDateTime.MaxIsoValue)
                    .ThenBy(t => t.Candidate.Key),
            ];
            var inTime = _things.Where(t => t.Candidate.Kind == CandidateKind.Photo).ToList();
            var steps = Math.Max(1, Math.Max(inTime.Count, _pockets) - 1);
            _timeOf = inTime.Select((t, i) => (t.Candidate.Key, i)).ToDictionary(t => t.Key, t => (double)t.i / steps);
        }

        public SpreadQuestion Question()
        {
            var pockets = PocketsOf(_desk)
                .Select(p =>
                    p with
                    {
                        Stays = _things.FindIndex(t => t.Stays == p.Place),
                        StaysEmpty = _desk.Content.At(p.Place) is null && _desk.Content.LeftEmpty.Contains(p.Place),
                    }
                )
                .ToImmutableArray();
            return new SpreadQuestion(
                pockets,
                [.. _things.Select(t => t.Candidate)],
                [.. pockets.Select((p, i) => _things.Select(t => Price(t, p, i)).ToImmutableArray())],
                [.. NeighboursOf(pockets)],
                _weights
            );
        }

        private Candidate Of(DeskPhoto photo)
        {
            var wished = _desk.Content.WishFor(photo.Id) is not null;
            return new Candidate(photo.Id, CandidateKind.Photo)
            {
                PhotoId = photo.Id,
                Day = photo.Photo.Day,
                Taken = photo.Photo.Taken,
                Tone = photo.Tone,
                Chroma = photo.Palette.Sum(c => c.Share * c.Lab.Chroma),
                GroupId = photo.GroupId,
                SeriesId = photo.SeriesId,
                Likeness = photo.Likeness,
                LeftOut =
                    (LeaveStar * photo.Favourite)
                    + (wished ? LeaveWished : 0)
                    + (photo.Verdict == Verdict.Keep ? LeaveKept : 0)
                    - (photo.Verdict == Verdict.Maybe ? TakeMaybe : 0)
                    + (photo.SuggestedBest ? LeaveBest : 0),
            };
        }

        private Candidate Of(Piece piece) =>
            piece switch
            {
                Card card => CardStyle.RoleOf(card.Kind) switch
                {
                    StyleRole.Title => new Candidate(card.Id, CandidateKind.Title)
                    {
                        Day = card.Day,
                        LeftOut = LeaveTitle,
                        Tone = ToneOf(card),
                    },
                    StyleRole.Filler => new Candidate(card.Id, CandidateKind.Filler)
                    {
                        Pattern = card.StyleKey,
                        LeftOut = LeaveFiller,
                        Tone = ToneOf(card),
                    },
                    _ => new Candidate(card.Id, CandidateKind.Words)
                    {
                        SpeaksOf = card.PairedWith,
                        Day = card.Day,
                        LeftOut = LeaveCard,
                        Tone = ToneOf(card),
                    },
                },
                _ => new Candidate(piece.Id, CandidateKind.Other) { LeftOut = LeaveOther },
            };

        private double ToneOf(Card card)
        {
            var paper = _desk.StyleOf(card).Paper;
            return LabColour.OfSrgb(paper.R, paper.G, paper.B).L;
        }

        private PocketPrice? Price(
            (Candidate Candidate, DeskPhoto? Photo, Piece? Piece, PocketPlace? Stays) thing,
            PocketToFill pocket,
            int index
        )
        {
            if (thing.Stays is { } place)
            {
                return place == pocket.Place ? new PocketPrice([]) : null;
            }

            if (pocket.Stays >= 0 || pocket.StaysEmpty)
            {
                return null;
            }

            var late = _pockets <= 1 ? 0 : (double)index / (_pockets - 1);
            return thing switch
            {
                { Photo: { } photo } => PhotoPrice(photo, pocket, late),
                { Piece: Card card } => CardPrice(card, pocket, index),
                { Piece: Collage collage } => collage.Body.FitsIn(pocket.Nominal)
                    ? Plain(
                        PlacingTerm.Place,
                        2 * RoomSpent * ((double)(pocket.Nominal.SquareInches / collage.Body.SquareInches) - 1)
                    )
                    : null,
                { Piece: Keepsake keepsake } => keepsake.FitIn(_desk.Pages.ClearSize(pocket.Place)) switch
                {
                    KeepsakeFit.TooLarge => null,
                    KeepsakeFit.Turned => Plain(PlacingTerm.Place, (RoomSpent * Share(pocket)) + (RoomSpent / 2)),
                    _ => Plain(PlacingTerm.Place, RoomSpent * Share(pocket)),
                },
                { Piece: BoughtCard card } => Plain(
                    PlacingTerm.Crop,
                    WholeLost
                        * (
                            (card.Width < pocket.Cut.Width || card.Height < pocket.Cut.Height ? 0.5 : 0)
                            + (1 - (double)(card.KeptFor(pocket.Cut).Size.SquareInches / card.Size.SquareInches))
                        )
                ),
                _ => Plain(PlacingTerm.Place, 2 * RoomSpent * (1 - Share(pocket))),
            };
        }

        private static PocketPrice Plain(PlacingTerm term, double cost) => new([(term, (long)Math.Round(cost))]);

        private double Share(PocketToFill pocket) => (double)pocket.Cut.SquareInches / _largest;

        private PocketPrice? PhotoPrice(DeskPhoto photo, PocketToFill pocket, double late)
        {
            if (_desk.Content.WishFor(photo.Id) is { } wished && wished != pocket.Nominal)
            {
                return null;
            }

            var pixels = photo.Photo.Pixels;
            var crop = Crop.For(pixels, pocket.Cut, photo.Around);
            var loss = crop.LossOf(pixels);
            var ppi = crop.PixelsPerInch(pocket.Cut);
            var kept = photo.Keep.Select(b => KeptOf(b, crop, pixels)).DefaultIfEmpty(1).Min();
            var cuts = kept < Whole;
            var otherWay = (pixels.Proportion - 1) * (pocket.Cut.Proportion - 1) < -0.002;
            var unsharp = Math.Max(0, 1 - (ppi / Resolution.FairPixelsPerInch));
            return new PocketPrice([
                (
                    PlacingTerm.Crop,
                    Weighed((WholeLost * loss) + (MoreThanHalfLost * Math.Max(0, loss - 0.4)), _weights.LessCropping)
                ),
                (PlacingTerm.Orientation, otherWay ? Weighed(OtherOrientation, _weights.LessCropping) : 0),
                // What must stay is not weighed: it must.
                (PlacingTerm.CutThrough, cuts ? CutThrough + (long)Math.Round(CutShare * (1 - kept)) : 0),
                (
                    PlacingTerm.Resolution,
                    Weighed(
                        (Unsharp * unsharp) + (ppi < Resolution.PoorPixelsPerInch ? VeryUnsharp : 0),
                        _weights.Sharpness
                    )
                ),
                (
                    PlacingTerm.Favourite,
                    Weighed(FavouriteInSmall * photo.Favourite * (1 - Share(pocket)), _weights.FavouritesLarge)
                ),
                (
                    PlacingTerm.Time,
                    Weighed(WholeSpreadLate * Math.Abs(_timeOf[photo.Id] - late), _weights.InOrderOfTime)
                ),
                (PlacingTerm.Place, StraysIn(photo, pocket, crop) ? Strays : 0),
            ])
            {
                CropLoss = loss,
                CutsThrough = cuts,
            };
        }

        private bool StraysIn(DeskPhoto photo, PocketToFill pocket, Crop crop)
        {
            var face = _desk.Pages.Faces[pocket.Face];
            return face.Protector.Form.Kind is LeafKind.Sheet or LeafKind.FoldOut
                && MustStay.On(
                    face.Protector,
                    face.Side,
                    face.Alterations,
                    pocket.Bounds,
                    crop,
                    photo.Photo.Pixels,
                    (photo.Around.CenterX, photo.Around.CenterY),
                    photo.Keep
                ) != StrayPlace.None;
        }

        private PocketPrice CardPrice(Card card, PocketToFill pocket, int index)
        {
            var behind = pocket.Place with
            {
                Side = pocket.Place.Side == LeafSide.Front ? LeafSide.Back : LeafSide.Front,
            };
            var through =
                Stocks.SeeThrough(_desk.Words.StockOf(card)) > 0 && _desk.Content.At(behind) is not null
                    ? SeesThrough
                    : 0;
            switch (CardStyle.RoleOf(card.Kind))
            {
                case StyleRole.Title:
                    return Plain(PlacingTerm.Place, (TitleLater * index) + (RoomSpent * Share(pocket)) + through);
                case StyleRole.Filler:
                    var early = _pockets <= 1 ? 0 : 1 - ((double)index / (_pockets - 1));
                    return Plain(PlacingTerm.Place, (RoomSpent * (Share(pocket) + (early / 4))) + through);
                default:
                    var fit = FitOf(card, pocket.Cut);
                    var largest = _desk.StyleOf(card).Type.LargestPt;
                    var over = fit.Fits ? 0 : WordsOver + (WordOver * fit.WordsOver);
                    // What is told of all of it is read before the pictures, where nothing else decides.
                    var late = card.Day is null ? WordsLater * index : 0;
                    var smaller = TypeSmaller * Math.Max(0, 1 - (fit.SizePt / Math.Max(1, largest)));
                    return new PocketPrice([
                        (PlacingTerm.Words, (long)Math.Round(over + smaller)),
                        (PlacingTerm.Place, (long)Math.Round((RoomSpent * Share(pocket)) + late + through)),
                    ]);
            }
        }

        private FitOutcome FitOf(Card card, Size cut)
        {
            if (!_fits.TryGetValue((card.Id, cut), out var fit))
            {
                var heading = ComputedCards.Heading(card.Kind) is not null;
                fit = CardComposer.Fit(card.Words, _desk.StyleOf(card), cut, _shaper, heading);
                _fits.Add((card.Id, cut), fit);
            }

            return fit;
        }

        private static long Weighed(double cost, double weight) => (long)Math.Round(cost * weight);
    }
}
