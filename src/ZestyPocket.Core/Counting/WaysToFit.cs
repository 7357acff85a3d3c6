using System.Globalization;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Counting;

/// <summary>What to do about too many or too few pieces.</summary>
public enum WayKind
{
    /// <summary>Several pictures become one print: photoIds, size.</summary>
    MakeCollage,

    /// <summary>Two written cards become one: pieceId, otherId.</summary>
    JoinCards,

    /// <summary>Another design on a leaf: leafId, protectorId.</summary>
    SmallerPockets,

    /// <summary>A pocket is parted with a seam: leafId, pocketKey.</summary>
    FusePocket,

    /// <summary>A leaf more: protectorId.</summary>
    AddLeaf,

    /// <summary>A card with a pattern in a pocket that stays empty.</summary>
    AddFiller,

    /// <summary>Another design with fewer pockets on a leaf: leafId, protectorId.</summary>
    LargerPockets,

    /// <summary>A picture runs over neighbouring pockets: photoIds, places.</summary>
    SpanPockets,

    /// <summary>A pocket stays empty on purpose: places.</summary>
    LeaveEmpty,

    /// <summary>A keepsake comes out of the envelope: pieceId, places.</summary>
    UseKeepsake,

    /// <summary>A leaf less: leafId.</summary>
    RemoveLeaf,

    /// <summary>Merge with the part after it.</summary>
    MergeWithNext,
}

/// <summary>A way to make it fit, with what it gains. What it is about stands in the fields its kind names.</summary>
public sealed record WayToFit(
    WayKind Kind,
    string Label,
    string Gain,
    Guid? PieceId = null,
    Guid? OtherId = null,
    Guid? LeafId = null,
    Guid? ProtectorId = null
)
{
    public IReadOnlyList<Guid>? PhotoIds { get; init; }

    public string? Size { get; init; }

    public IReadOnlyList<PocketPlace>? Places { get; init; }

    public string? PocketKey { get; init; }
}

/// <summary>
/// What people do about too many or too few pieces, in the order in which they try it. Common practice. Each way can be
/// taken with one click and says what it gains.
/// </summary>
/// <param name="leaves">The unit's leaves.</param>
/// <param name="inUse">By protector, how many leaves of it are in the binder.</param>
public sealed class WaysToFit(
    UnitDesk desk,
    IReadOnlyList<LeafTally> leaves,
    IReadOnlyDictionary<Guid, int> inUse,
    ITextShaper shaper
)
{
    /// <summary>A collage of more than this is no page of pictures any more.</summary>
    private const int LargestCollage = 6;

    /// <summary>What the album has given up is not proposed; whole pages only.</summary>
    private readonly List<Offer> _offers =
    [
        .. desk
            .Protectors.Where(p =>
                !p.GivenUp && p.Protector.Form.Kind == LeafKind.Pockets && p.Protector.Design.Body == desk.Body
            )
            .Select(p => new Offer(p.Id, p.Protector, p.OnHand - inUse.GetValueOrDefault(p.Id))),
    ];

    private IReadOnlyList<LeafTally> Leaves => leaves;

    /// <summary>The ways for so many missing, or so many free pockets; none when it comes out even.</summary>
    public IReadOnlyList<WayToFit> Of(int missing, int free) =>
        missing > 0 ? [.. TooMany(missing)]
        : free > 0 ? [.. TooFew(free)]
        : [];

    /// <summary>Such as <c> on the left page</c>: two leaves of one design would offer the same words twice.</summary>
    private string On(LeafTally leaf) =>
        leaf.Faces == 2 ? " on both faces of a leaf"
        : desk.Pages.Faces.First(f => f.LeafId == leaf.LeafId).Side == LeafSide.Back ? " on the left page"
        : " on the right page";

    private IEnumerable<WayToFit> TooMany(int missing)
    {
        if (CollageOf(missing) is { } collage)
        {
            yield return collage;
        }

        foreach (var leaf in Leaves.Where(l => l.MayChange))
        {
            var now = leaf.Pockets / leaf.Faces;
            if (
                _offers
                    .Where(d => d.Pockets > now)
                    .OrderBy(d => Math.Abs(((d.Pockets - now) * leaf.Faces) - missing))
                    .FirstOrDefault() is
                { } smaller
            )
            {
                var gain = (smaller.Pockets - now) * leaf.Faces;
                yield return new WayToFit(
                    WayKind.SmallerPockets,
                    $"Smaller pockets{On(leaf)}: “{smaller.Name}” instead of “{leaf.Design}”",
                    $"{gain} pockets more{smaller.Left}",
                    LeafId: leaf.LeafId,
                    ProtectorId: smaller.Id
                );
            }
        }

        if (Joinable() is { } join)
        {
            yield return join;
        }

        if (FuseOf() is { } fuse)
        {
            yield return fuse;
        }

        // What does not hold it all comes after what does.
        foreach (
            var design in _offers
                .OrderBy(d => 2 * d.Pockets < missing)
                .ThenBy(d => Math.Abs((2 * d.Pockets) - missing))
                .Take(2)
        )
        {
            yield return new WayToFit(
                WayKind.AddLeaf,
                $"Add a leaf of “{design.Name}”",
                $"{2 * design.Pockets} pockets more, front and back{design.Left}",
                ProtectorId: design.Id
            );
        }
    }

    private IEnumerable<WayToFit> TooFew(int free)
    {
        foreach (var leaf in Leaves.Where(l => l.MayGo && l.Kind == LeafKind.Pockets && l.Pockets <= free))
        {
            yield return new WayToFit(
                WayKind.RemoveLeaf,
                $"Take a leaf of “{leaf.Design}” out",
                "all pieces still have a pocket",
                LeafId: leaf.LeafId
            );
        }

        foreach (var leaf in Leaves.Where(l => l.MayChange))
        {
            var now = leaf.Pockets / leaf.Faces;
            if (
                _offers
                    .Where(d => d.Pockets < now && (now - d.Pockets) * leaf.Faces <= free)
                    .OrderBy(d => d.Pockets)
                    .FirstOrDefault() is
                { } larger
            )
            {
                yield return new WayToFit(
                    WayKind.LargerPockets,
                    $"Enlarge{On(leaf)}: “{larger.Name}” instead of “{leaf.Design}”",
                    $"{(now - larger.Pockets) * leaf.Faces} pockets fewer, larger pictures{larger.Left}",
                    LeafId: leaf.LeafId,
                    ProtectorId: larger.Id
                );
            }
        }

        if (SpanOf() is { } span)
        {
            yield return span;
        }

        yield return new WayToFit(
            WayKind.AddFiller,
            "Add a filler card",
            free == 1 ? "nothing stays empty" : $"{free - 1} {(free == 2 ? "pocket stays" : "pockets stay")} empty"
        );
        var empty = desk
            .Pages.Pockets.Where(p => desk.Content.At(p.Place) is null && !desk.Content.LeftEmpty.Contains(p.Place))
            .ToList();
        if (empty.Count > 0)
        {
            var last = empty[^1];
            yield return new WayToFit(
                WayKind.LeaveEmpty,
                $"Leave {last.Code} clear on purpose",
                "it is not counted as free any more"
            )
            {
                Places = [last.Place],
            };
        }

        foreach (var keepsake in desk.Content.InEnvelope)
        {
            if (
                empty
                    .Where(p => keepsake.FitIn(desk.Pages.ClearSize(p.Place)) != KeepsakeFit.TooLarge)
                    .OrderBy(p => p.Pocket.Nominal.SquareInches)
                    .Select(p => (PocketPlace?)p.Place)
                    .FirstOrDefault() is
                { } place
            )
            {
                yield return new WayToFit(
                    WayKind.UseKeepsake,
                    $"Use the keepsake “{keepsake.Name}”",
                    $"out of the envelope into {desk.Pages.CodeOf(place)}",
                    PieceId: keepsake.Id
                )
                {
                    Places = [place],
                };
                break;
            }
        }

        if (free * 2 > desk.Pages.Pockets.Count)
        {
            yield return new WayToFit(
                WayKind.MergeWithNext,
                "Merge with the one after it",
                "more than half of the pockets would stay empty"
            );
        }
    }

    /// <summary>Three to six of the pictures that matter least in one print, in the pocket nearest to a 4x6.</summary>
    private WayToFit? CollageOf(int missing)
    {
        var locked = desk.Content.Placements.Where(p => p.Locked).Select(p => p.PieceId).ToHashSet();
        var taken = desk
            .Content.Pieces.OfType<PhotoPrint>()
            .Where(p => locked.Contains(p.Id) || p.SpanId is not null)
            .Select(p => p.PhotoId)
            .Concat(desk.Content.Pieces.SelectMany(p => p.PhotosInside))
            .Concat(desk.Content.Wishes.Select(w => w.PhotoId))
            .ToHashSet();
        var least = desk
            .Photos.Values.Where(p => !taken.Contains(p.Id))
            .OrderBy(p => p.Favourite)
            .Take(Math.Clamp(missing + 1, 3, LargestCollage))
            .ToList();
        var sizes = desk
            .Pages.Pockets.Select(p => p.Pocket.Nominal)
            .Where(s => s.SquareInches >= 12)
            .Distinct()
            .OrderBy(s => Math.Abs(s.SquareInches - 24))
            .ThenBy(s => s.Width)
            .ToList();
        if (least.Count < 3 || sizes.Count == 0)
        {
            return null;
        }

        // In the order they were taken.
        var pictures = desk.Photos.Values.Where(least.Contains).ToList();
        var (_, _, loss) = CollageLayouts.Best(
            sizes[0],
            [.. pictures.Select(p => p.Photo.Pixels)],
            0,
            Collage.UsualGutter
        );
        return new WayToFit(
            WayKind.MakeCollage,
            $"Make a collage of {NumberWords.Of(pictures.Count)} small pictures in one {sizes[0]}",
            string.Create(
                CultureInfo.InvariantCulture,
                $"{NumberWords.Of(pictures.Count - 1)} pockets more; {100 * loss / pictures.Count:0.#} % of them is "
                    + $"cropped away"
            )
        )
        {
            PhotoIds = [.. pictures.Select(p => p.Id)],
            Size = sizes[0].ToString(),
        };
    }

    /// <summary>The first pocket that becomes two which hold something, where nothing locked lies in it.</summary>
    private WayToFit? FuseOf()
    {
        foreach (var leaf in Leaves.Where(l => l.MayChange))
        {
            var faces = desk.Pages.Faces.Where(f => f.LeafId == leaf.LeafId).ToList();
            if (FusedOffers.Fusible(faces[0].Protector.Design).FirstOrDefault() is { } key)
            {
                var pocket = faces[0].Protector.Design.Pockets.First(p => p.Key == key);
                var code = desk.Pages.CodeOf(new PocketPlace(leaf.LeafId, faces[0].Side, key));
                return new WayToFit(
                    WayKind.FusePocket,
                    $"Fuse {code}: {pocket.Nominal} into two {FusedOffers.HalfOf(pocket.Nominal)}",
                    $"{NumberWords.Of(leaf.Faces)} {(leaf.Faces == 1 ? "pocket" : "pockets")} more; a seam with a "
                        + "heat tool, on both faces",
                    LeafId: leaf.LeafId
                )
                {
                    PocketKey = key,
                };
            }
        }

        return null;
    }

    /// <summary>The favourite that loses least over two neighbouring free pockets.</summary>
    private WayToFit? SpanOf()
    {
        var candidates = desk
            .Photos.Values.Where(p => !desk.Content.PhotosPlaced.Contains(p.Id))
            .OrderByDescending(p => p.Favourite)
            .ThenByDescending(p => (long)p.Photo.Pixels.Width * p.Photo.Pixels.Height)
            .Take(4)
            .ToList();
        (double Cost, DeskPhoto Photo, List<(PocketPlace Place, string Code)> Places)? best = null;
        foreach (var face in desk.Pages.Faces.Where(f => f.Protector.Form.Kind == LeafKind.Pockets))
        {
            var empty = face
                .Pockets.Where(p => desk.Content.At(p.Place) is null && !desk.Content.LeftEmpty.Contains(p.Place))
                .ToList();
            foreach (var (one, i) in empty.Select((p, i) => (p, i)))
            {
                foreach (var two in empty.Skip(i + 1))
                {
                    var around = DesignDraft.Around([one.Pocket.Bounds, two.Pocket.Bounds]);
                    if (around.Size.SquareEmu != one.Pocket.Nominal.SquareEmu + two.Pocket.Nominal.SquareEmu)
                    {
                        continue;
                    }

                    var (whole, _) = Spans.Of(face.Protector, face.Side, [one.Pocket.Key, two.Pocket.Key]);
                    foreach (var photo in candidates)
                    {
                        var crop = Crop.For(photo.Photo.Pixels, whole, Framing.Middle);
                        var cost =
                            crop.LossOf(photo.Photo.Pixels)
                            - (0.05 * photo.Favourite)
                            + (crop.PixelsPerInch(whole) < Resolution.FairPixelsPerInch ? 1 : 0);
                        if (best is not { } so || cost < so.Cost - 1e-9)
                        {
                            best = (
                                cost,
                                photo,
                                [(one.Place, desk.Pages.CodeOf(one.Place)!), (two.Place, desk.Pages.CodeOf(two.Place)!)]
                            );
                        }
                    }
                }
            }
        }

        return best is not { Cost: < 0.6 } found
            ? null
            : new WayToFit(
                WayKind.SpanPockets,
                $"Let {found.Photo.FileName} run over {found.Places[0].Code} and {found.Places[1].Code}",
                "one pocket fewer; the picture goes on behind the seam"
            )
            {
                PhotoIds = [found.Photo.Id],
                Places = [.. found.Places.Select(p => p.Place)],
            };
    }

    /// <summary>The first two written cards whose words fit on one of them.</summary>
    private WayToFit? Joinable()
    {
        var cards = desk
            .Content.Pieces.OfType<Card>()
            .Where(c =>
                c is { StoryId: null, Kind: CardKind.Journaling, Setting: not { ByHand: true } }
                && !string.IsNullOrWhiteSpace(c.Words)
            )
            .ToList();
        foreach (var card in cards)
        {
            var (style, cut) = (desk.StyleOf(card), desk.Pages.RoomOf(desk.Content, card));
            foreach (var other in cards.Where(c => c.Id != card.Id))
            {
                var fit = CardComposer.Fit($"{card.Words.TrimEnd()}\n\n{other.Words.Trim()}", style, cut, shaper);
                if (fit.Fits)
                {
                    return new WayToFit(
                        WayKind.JoinCards,
                        $"Combine “{desk.Called(card)}” and “{desk.Called(other)}”",
                        $"one pocket more, words at {fit.SizePt.ToString("0.##", CultureInfo.InvariantCulture)} pt",
                        PieceId: card.Id,
                        OtherId: other.Id
                    );
                }
            }
        }

        return null;
    }

    /// <summary>
    /// A make the album uses, and how many leaves of it are owned and not in the binder; null when they never run out.
    /// </summary>
    private sealed record Offer(Guid Id, Protector Protector, int? InStock)
    {
        public int Pockets => Protector.Design.Pockets.Length;

        public string Name => Protector.Design.Name;

        public string Left =>
            InStock switch
            {
                null => string.Empty,
                <= 0 => "; none left in stock",
                1 => "; one left in stock",
                _ => $"; {NumberWords.Of(InStock.Value)} left in stock",
            };
    }
}
