using System.Globalization;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Server.Placing;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Counting;

/// <summary>
/// What people do about too many or too few pieces, in the order in which they try it. Common practice. Each move can
/// be made with one click and says what it gains.
/// </summary>
public sealed class CountMoves(ZestyContext db, FontShelf fonts)
{
    /// <summary>A collage of more than this is no page of pictures any more.</summary>
    private const int LargestCollage = 6;

    public async Task<IReadOnlyList<MoveView>> OfAsync(
        OpenUnit open,
        IReadOnlyList<LeafView> leaves,
        int missing,
        int free,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(leaves);
        var albumId = open.Album.Id;
        var used = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == albumId)
            .GroupBy(l => l.ProtectorId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        // What the album has given up is not proposed; whole pages only.
        var designs = open
            .Album.Protectors.Where(p => !p.Gone)
            .OrderBy(p => p.Ordinal)
            .Select(p => new Make(
                p,
                p.ToProtector(),
                p.Stock is { } owned ? owned - used.GetValueOrDefault(p.Id) : null
            ))
            .Where(d =>
                d.Protector.Form.Kind == LeafKind.Pockets
                && d.Protector.Design.Body == new Size(open.Album.BodyWidth, open.Album.BodyHeight)
            )
            .ToList();
        return missing > 0 ? [.. TooMany(open, leaves, designs, missing)]
            : free > 0 ? [.. TooFew(open, leaves, designs, free)]
            : [];
    }

    private IEnumerable<MoveView> TooMany(
        OpenUnit open,
        IReadOnlyList<LeafView> leaves,
        List<Make> designs,
        int missing
    )
    {
        if (CollageOf(open, missing) is { } collage)
        {
            yield return collage;
        }

        foreach (var leaf in leaves.Where(l => l.MayChange))
        {
            var now = leaf.Pockets / leaf.Faces;
            if (
                designs
                    .Where(d => d.Pockets > now)
                    .OrderBy(d => Math.Abs(((d.Pockets - now) * leaf.Faces) - missing))
                    .FirstOrDefault() is
                { } smaller
            )
            {
                var gain = (smaller.Pockets - now) * leaf.Faces;
                yield return new MoveView(
                    MoveKind.SmallerPockets,
                    $"Smaller pockets: “{smaller.Name}” instead of “{leaf.Design}”",
                    $"{gain} pockets more{smaller.Left}",
                    LeafId: leaf.LeafId,
                    ProtectorId: smaller.Row.Id
                );
            }
        }

        if (Joinable(open) is { } join)
        {
            yield return join;
        }

        if (FuseOf(open, leaves) is { } fuse)
        {
            yield return fuse;
        }

        // What does not hold it all comes after what does.
        foreach (
            var design in designs
                .OrderBy(d => 2 * d.Pockets < missing)
                .ThenBy(d => Math.Abs((2 * d.Pockets) - missing))
                .Take(2)
        )
        {
            yield return new MoveView(
                MoveKind.AddLeaf,
                $"Put in a leaf of “{design.Name}”",
                $"{2 * design.Pockets} pockets more, front and back{design.Left}",
                ProtectorId: design.Row.Id
            );
        }
    }

    private static IEnumerable<MoveView> TooFew(
        OpenUnit open,
        IReadOnlyList<LeafView> leaves,
        List<Make> designs,
        int free
    )
    {
        foreach (var leaf in leaves.Where(l => l.MayGo && l.Kind == LeafKind.Pockets && l.Pockets <= free))
        {
            yield return new MoveView(
                MoveKind.RemoveLeaf,
                $"Take a leaf of “{leaf.Design}” out",
                "all pieces still have a pocket",
                LeafId: leaf.LeafId
            );
        }

        foreach (var leaf in leaves.Where(l => l.MayChange))
        {
            var now = leaf.Pockets / leaf.Faces;
            if (
                designs
                    .Where(d => d.Pockets < now && (now - d.Pockets) * leaf.Faces <= free)
                    .OrderBy(d => d.Pockets)
                    .FirstOrDefault() is
                { } larger
            )
            {
                yield return new MoveView(
                    MoveKind.LargerPockets,
                    $"Enlarge: “{larger.Name}” instead of “{leaf.Design}”",
                    $"{(now - larger.Pockets) * leaf.Faces} pockets fewer, larger pictures{larger.Left}",
                    LeafId: leaf.LeafId,
                    ProtectorId: larger.Row.Id
                );
            }
        }

        if (SpanOf(open) is { } span)
        {
            yield return span;
        }

        yield return new MoveView(
            MoveKind.AddFiller,
            "Add a filler card",
            free == 1 ? "nothing stays empty" : $"{free - 1} {(free == 2 ? "pocket stays" : "pockets stay")} empty"
        );
        var empty = open
            .Pockets.Where(p => open.Content.At(p.Place) is null && !open.Content.Clear.Contains(p.Place))
            .ToList();
        if (empty.Count > 0)
        {
            var last = empty[^1];
            yield return new MoveView(
                MoveKind.LeaveClear,
                $"Leave {last.Code} clear on purpose",
                "it is not counted as free any more"
            )
            {
                Places = [last.Place],
            };
        }

        foreach (var keepsake in open.Content.InEnvelope)
        {
            if (
                empty
                    .Where(p => keepsake.FitIn(open.ClearSize(p.Place)) != KeepsakeFit.TooLarge)
                    .OrderBy(p => p.Pocket.Nominal.SquareInches)
                    .Select(p => (PocketPlace?)p.Place)
                    .FirstOrDefault() is
                { } place
            )
            {
                yield return new MoveView(
                    MoveKind.UseKeepsake,
                    $"Use the keepsake “{keepsake.Name}”",
                    $"out of the envelope into {open.CodeOf(place)}",
                    PieceId: keepsake.Id
                )
                {
                    Places = [place],
                };
                break;
            }
        }

        if (free * 2 > open.Pockets.Count())
        {
            yield return new MoveView(
                MoveKind.MergeWithNext,
                "Merge with the one after it",
                "more than half of the pockets would stay empty"
            );
        }
    }

    /// <summary>Three to six of the pictures that matter least in one print, in the pocket nearest to a 4x6.</summary>
    private static MoveView? CollageOf(OpenUnit open, int missing)
    {
        var locked = open.Content.Placements.Where(p => p.Locked).Select(p => p.PieceId).ToHashSet();
        var taken = open
            .Content.Pieces.OfType<PhotoPrint>()
            .Where(p => locked.Contains(p.Id) || p.SpanId is not null)
            .Select(p => p.PhotoId)
            .Concat(open.Content.Pieces.OfType<Collage>().SelectMany(c => c.Photos))
            .Concat(open.Content.Wishes.Select(w => w.PhotoId))
            .ToHashSet();
        var least = open
            .Photos.Values.Where(p => !taken.Contains(p.Id))
            .OrderBy(p => p.Favourite)
            .ThenBy(p => p.SortAt)
            .ThenBy(p => p.Id)
            .Take(Math.Clamp(missing + 1, 3, LargestCollage))
            .ToList();
        var sizes = open
            .Pockets.Select(p => p.Pocket.Nominal)
            .Where(s => s.SquareInches >= 12)
            .Distinct()
            .OrderBy(s => Math.Abs(s.SquareInches - 24))
            .ThenBy(s => s.Width)
            .ToList();
        if (least.Count < 3 || sizes.Count == 0)
        {
            return null;
        }

        var pictures = least.OrderBy(p => p.SortAt).ThenBy(p => p.Id).ToList();
        var (_, _, loss) = CollageLayouts.Best(sizes[0], [.. pictures.Select(p => p.Pixels)], 0, Collage.UsualGutter);
        return new MoveView(
            MoveKind.MakeCollage,
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
    private static MoveView? FuseOf(OpenUnit open, IReadOnlyList<LeafView> leaves)
    {
        foreach (var leaf in leaves.Where(l => l.MayChange))
        {
            var faces = open.Faces.Where(f => f.Leaf.Id == leaf.LeafId).ToList();
            if (FusedOffers.Fusible(faces[0].Protector.Design).FirstOrDefault() is { } key)
            {
                var pocket = faces[0].Protector.Design.Pockets.First(p => p.Key == key);
                var code = open.CodeOf(new PocketPlace(leaf.LeafId, faces[0].Side, key));
                return new MoveView(
                    MoveKind.FusePocket,
                    $"Fuse {code}: {pocket.Nominal} into two {FusedOffers.HalfOf(pocket.Nominal)}",
                    $"{NumberWords.Of(leaf.Faces)} {(leaf.Faces == 1 ? "pocket" : "pockets")} more; a seam with a "
                        + "heat tool, on both faces",
                    LeafId: leaf.LeafId
                )
                {
                    PocketKey = key,
                    LeafRevision = leaf.Revision,
                };
            }
        }

        return null;
    }

    /// <summary>The favourite that loses least over two neighbouring free pockets.</summary>
    private static MoveView? SpanOf(OpenUnit open)
    {
        var candidates = open
            .Photos.Values.Where(p => !open.Content.PhotosPlaced.Contains(p.Id))
            .OrderByDescending(p => p.Favourite)
            .ThenByDescending(p => p.Width * p.Height)
            .Take(4)
            .ToList();
        (double Cost, Storage.Photos.Photo Photo, List<(PocketPlace Place, string Code)> Places)? best = null;
        foreach (var face in open.Faces.Where(f => f.Protector.Form.Kind == LeafKind.Pockets))
        {
            var empty = face
                .Pockets.Where(p => open.Content.At(p.Place) is null && !open.Content.Clear.Contains(p.Place))
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
                        var crop = Crop.For(photo.Pixels, whole, Framing.Middle);
                        var cost =
                            crop.LossOf(photo.Pixels)
                            - (0.05 * photo.Favourite)
                            + (crop.PixelsPerInch(whole) < 200 ? 1 : 0);
                        if (best is not { } so || cost < so.Cost - 1e-9)
                        {
                            best = (
                                cost,
                                photo,
                                [(one.Place, open.CodeOf(one.Place)!), (two.Place, open.CodeOf(two.Place)!)]
                            );
                        }
                    }
                }
            }
        }

        return best is not { Cost: < 0.6 } found
            ? null
            : new MoveView(
                MoveKind.SpanPockets,
                $"Let {found.Photo.FileName} run over {found.Places[0].Code} and {found.Places[1].Code}",
                "one pocket fewer; the picture goes on behind the seam"
            )
            {
                PhotoIds = [found.Photo.Id],
                Places = [.. found.Places.Select(p => p.Place)],
            };
    }

    /// <summary>The first two written cards whose words fit on one of them.</summary>
    private MoveView? Joinable(OpenUnit open)
    {
        var cards = open
            .Content.Pieces.OfType<Card>()
            .Where(c =>
                c is { StoryId: null, Kind: CardKind.Journaling, Setting: not { ByHand: true } }
                && !string.IsNullOrWhiteSpace(c.Words)
            )
            .ToList();
        foreach (var card in cards)
        {
            var (style, cut) = (PieceFaces.StyleOf(open, card), open.CutSizeOf(card));
            foreach (var other in cards.Where(c => c.Id != card.Id))
            {
                var fit = CardComposer.Fit($"{card.Words.TrimEnd()}\n\n{other.Words.Trim()}", style, cut, fonts);
                if (fit.Fits)
                {
                    return new MoveView(
                        MoveKind.JoinCards,
                        $"Combine “{UnitReader.Called(open, card)}” and “{UnitReader.Called(open, other)}”",
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
    private sealed record Make(AlbumProtector Row, Protector Protector, int? InStock)
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
