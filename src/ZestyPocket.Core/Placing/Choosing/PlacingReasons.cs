using System.Globalization;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Placing.Choosing;

/// <summary>Why a piece lies where it lies.</summary>
public sealed record PlacingReason(PocketPlace Place, Guid PieceId, string Words);

/// <summary>What a pocket would be for a loose thing.</summary>
/// <param name="Key">Of the photo or the piece.</param>
/// <param name="Rank">1 is the best of what is compared.</param>
/// <param name="Words">Such as <c>nothing cropped</c>.</param>
public sealed record PocketOffer(PocketPlace Place, string Code, Guid Key, int Rank, string Words);

/// <summary>Puts the sum over a spread into words.</summary>
public static class PlacingReasons
{
    /// <summary>A share of a picture under this is nothing to speak of.</summary>
    private const double Dust = 0.005;

    /// <summary>One or two sentences for each piece in a pocket.</summary>
    public static IReadOnlyList<PlacingReason> Of(UnitDesk desk, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var open = desk with { Content = WithoutPlacements(desk) };
        var question = DeskQuestion.Of(open, shaper, desk.Weights);
        var reasons = new List<PlacingReason>();
        foreach (var (_, pocket, place, code) in desk.Pages.Pockets)
        {
            if (desk.Content.At(place) is { } lies && desk.Content.Find(lies.PieceId) is { } piece)
            {
                reasons.Add(new PlacingReason(place, piece.Id, Words(desk, question, piece, place, lies.Locked)));
            }
        }

        return reasons;
    }

    /// <summary>The pockets for a loose photo or piece, best first, without those that are locked.</summary>
    public static IReadOnlyList<PocketOffer> PocketsFor(UnitDesk desk, ITextShaper shaper, Guid key)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var question = DeskQuestion.Of(desk with { Content = WithoutPlacements(desk) }, shaper, desk.Weights);
        var candidate = IndexOf(question, key);
        return candidate < 0
            ? []
            : Ranked(
                question
                    .Pockets.Select((pocket, p) => (pocket, Price: question.Prices[p][candidate]))
                    .Where(p => p.Price is not null && desk.Content.At(p.pocket.Place) is not { Locked: true })
                    .Select(p => (p.pocket, question.Candidates[candidate], p.Price!))
            );
    }

    /// <summary>The loose things for an open pocket, best first.</summary>
    public static IReadOnlyList<PocketOffer> ThingsFor(UnitDesk desk, ITextShaper shaper, PocketPlace place, int most)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var question = DeskQuestion.Of(desk, shaper);
        var pocket = question.Pockets.Select((p, i) => (p, i)).Where(p => p.p.Place == place).ToList();
        return pocket.Count == 0 || pocket[0].p.Stays >= 0
            ? []
            :
            [
                .. Ranked(
                        question
                            .Candidates.Select((c, i) => (c, Price: question.Prices[pocket[0].i][i]))
                            .Where(c => c.Price is not null)
                            .Select(c => (pocket[0].p, c.c, c.Price!))
                    )
                    .Take(most),
            ];
    }

    private static List<PocketOffer> Ranked(
        IEnumerable<(PocketToFill Pocket, Candidate Thing, PocketPrice Price)> offers
    ) =>
        [
            .. offers
                .OrderBy(o => o.Price.Total - o.Thing.LeftOut)
                .ThenBy(o => o.Pocket.Code, StringComparer.Ordinal)
                .Select(
                    (o, i) =>
                        new PocketOffer(o.Pocket.Place, o.Pocket.Code, o.Thing.Key, i + 1, Price(o.Thing, o.Price))
                ),
        ];

    private static string Price(Candidate thing, PocketPrice price) =>
        thing.Kind == CandidateKind.Photo ? Cropped(price)
        : price.Terms.Any(t => t.Term == PlacingTerm.Words && t.Cost > 1_000_000) ? "the words do not fit"
        : thing.Kind == CandidateKind.Words ? "the words fit"
        : "fits";

    private static string Cropped(PocketPrice price) =>
        price.CutsThrough ? "cuts through what must stay"
        : price.CropLoss < Dust ? "nothing cropped"
        : string.Create(CultureInfo.InvariantCulture, $"{price.CropLoss * 100:0} % cropped");

    private static string Words(UnitDesk desk, SpreadQuestion question, Piece piece, PocketPlace place, bool locked)
    {
        var pocket = question.Pockets.Select((p, i) => (p, i)).First(p => p.p.Place == place);
        if (piece is PhotoPrint { SpanId: not null })
        {
            return "A picture over several pockets lies where it was put.";
        }

        var why = piece switch
        {
            PhotoPrint print when desk.Photos.TryGetValue(print.PhotoId, out var photo) => PhotoWords(
                question,
                photo,
                pocket.p,
                pocket.i,
                AsItIs(desk, print, photo, pocket.p)
            ),
            Card card => CardWords(question, card, pocket.i),
            _ => $"It fits this {pocket.p.Nominal} pocket.",
        };
        return locked ? $"{why} Locked: it stays." : why;
    }

    /// <summary>What the keeper crops away besides, by framing, straightening or a border.</summary>
    private static string? AsItIs(UnitDesk desk, PhotoPrint print, DeskPhoto photo, PocketToFill pocket)
    {
        var pixels = photo.Photo.Pixels;
        var loss = print.CropFor(pixels, desk.Pages.RoomOf(desk.Content, print)).LossOf(pixels);
        return loss - DeskQuestion.CropOf(photo, pocket.Cut).Loss > Dust
            ? string.Create(CultureInfo.InvariantCulture, $" As it is framed now, {loss * 100:0} % is cropped.")
            : null;
    }

    private static string PhotoWords(
        SpreadQuestion question,
        DeskPhoto photo,
        PocketToFill pocket,
        int at,
        string? asItIs
    )
    {
        var candidate = IndexOf(question, photo.Id);
        var price = candidate < 0 ? null : question.Prices[at][candidate];
        var pixels = photo.Photo.Pixels;
        var shape =
            pixels.Width == pixels.Height ? "Square"
            : pixels.IsLandscape ? $"Landscape {Proportions.Name(pixels)}"
            : $"Portrait {Proportions.Name(pixels)}";
        if (price is null)
        {
            return $"{shape} in a {pocket.Nominal} pocket, where it was wanted.";
        }

        var first = $"{shape} in a {pocket.Nominal} pocket: {Cropped(price)}";
        return $"{first}{Besides(question, photo, pocket, price)}.{asItIs ?? Second(question, candidate, at)}";
    }

    /// <summary>What else speaks for this pocket.</summary>
    private static string Besides(SpreadQuestion question, DeskPhoto photo, PocketToFill pocket, PocketPrice price)
    {
        var largest = question.Pockets.Max(p => p.Cut.SquareInches);
        return photo.Favourite > 0 && pocket.Cut.SquareInches == largest ? ", and a favourite gets a large pocket"
            : price.Terms.Where(t => t.Term == PlacingTerm.Time).Sum(t => t.Cost) < 15_000 ? ", and in order of time"
            : string.Empty;
    }

    /// <summary>The pocket that would have been second by its own price.</summary>
    private static string Second(SpreadQuestion question, int candidate, int at)
    {
        var other = question
            .Pockets.Select((p, i) => (p, i, Price: question.Prices[i][candidate]))
            .Where(p => p.i != at && p.Price is not null)
            .OrderBy(p => p.Price!.Total)
            .ThenBy(p => p.i)
            .FirstOrDefault();
        if (other.Price is null)
        {
            return string.Empty;
        }

        var better = other.Price.Total < question.Prices[at][candidate]!.Total;
        return better
            ? $" {other.p.Code} would suit it too ({Cropped(other.Price)}), but the rest of the spread is better so."
            : $" {other.p.Code} would be second, {Cropped(other.Price)}.";
    }

    private static string CardWords(SpreadQuestion question, Card card, int at)
    {
        switch (CardStyle.RoleOf(card.Kind))
        {
            case StyleRole.Title:
                return at == 0 ? "A title comes first." : "A title, in the first pocket that was free.";
            case StyleRole.Filler:
                return "A pattern takes a pocket that is left.";
        }

        var candidate = IndexOf(question, card.Id);
        if (candidate < 0 || question.Prices[at][candidate] is not { } price)
        {
            return "Lies where it was put.";
        }

        var fits = question
            .Prices.Select((row, p) => (Price: row[candidate], question.Pockets[p].Cut))
            .Where(p => p.Price is not null && Fits(p.Price))
            .ToList();
        return !Fits(price) ? "Its words fit no pocket here whole; this is the roomiest."
            : fits.All(p => p.Cut.SquareInches >= question.Pockets[at].Cut.SquareInches)
                ? $"The words fit, and no smaller pocket holds them{Beside(question, card)}."
            : $"The words fit with room to read{Beside(question, card)}.";

        static bool Fits(PocketPrice price) => price.Terms.All(t => t.Term != PlacingTerm.Words || t.Cost < 1_000_000);
    }

    private static string Beside(SpreadQuestion question, Card card) =>
        card.Day is { } day && question.Candidates.Any(c => c.Kind == CandidateKind.Photo && c.Day == day)
            ? "; pictures of its day are near"
            : string.Empty;

    private static int IndexOf(SpreadQuestion question, Guid key)
    {
        for (var i = 0; i < question.Candidates.Length; i++)
        {
            if (question.Candidates[i].Key == key)
            {
                return i;
            }
        }

        return -1;
    }

    /// <summary>Everything on the tray: prints are loose photos again, pieces are loose.</summary>
    private static UnitContent WithoutPlacements(UnitDesk desk) =>
        desk.Content with
        {
            Pieces =
            [
                .. desk.Content.Pieces.Where(p => p is not PhotoPrint print || !desk.Photos.ContainsKey(print.PhotoId)),
            ],
            Placements =
            [
                .. desk.Content.Placements.Where(p =>
                    desk.Content.Find(p.PieceId) is PhotoPrint print && !desk.Photos.ContainsKey(print.PhotoId)
                ),
            ],
        };
}
