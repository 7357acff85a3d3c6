using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Binder;

/// <summary>The leaves of an album in their order, front and back, and one of them with all that lies on it.</summary>
public sealed class BinderReader(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    PieceFaces faces,
    InsertedAlbums bound,
    ICurrentKeeper keeper
)
{
    public async Task<IReadOnlyList<BinderLeaf>> LeavesAsync(Guid albumId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == albumId)
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var units = await db.Units.AsNoTracking().Where(u => u.AlbumId == albumId).ToDictionaryAsync(u => u.Id, cancel);
        var inserts = (await InsertsAsync(album, leaves, cancel)).ToLookup(i => i.LeafId, i => i.Insert);
        return [.. Views(album, leaves, units).Select(l => l with { Inserts = [.. inserts[l.LeafId]] })];
    }

    /// <summary>What is inserted behind which leaf; who does not own both albums sees the one they asked for.</summary>
    private async Task<IReadOnlyList<(Guid LeafId, InsertedLeaves Insert)>> InsertsAsync(
        Album album,
        List<AlbumLeaf> leaves,
        CancellationToken cancel
    )
    {
        if (album.KeeperId != keeper.Id)
        {
            return [];
        }

        var found = new List<(Guid, InsertedLeaves)>();
        foreach (var inserted in await bound.OfAsync(album, cancel))
        {
            if (InsertPlace.LeafBefore(AlbumRows.Bound(leaves), inserted.Insert) is not { } leaf)
            {
                continue;
            }

            var own = await db.Leaves.CountAsync(l => l.AlbumId == inserted.Album.Id, cancel);
            var where = inserted.Insert.Between ? "between the pages of " : "after ";
            found.Add(
                (
                    leaf,
                    new InsertedLeaves(
                        inserted.Album.Id,
                        inserted.Album.Name,
                        own,
                        $"{NumberWords.Counted(own, "leaf", "leaves")} {where}"
                            + inserted.After.ReadDates().Title(album.ReadCalendar().Style)
                    )
                )
            );
        }

        return found;
    }

    public async Task<LeafDetail> LeafAsync(Guid albumId, Guid leafId, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == albumId)
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var leaf = leaves.Find(l => l.Id == leafId) ?? throw new MissingException("The leaf");
        var owners = new[] { leaf.FrontUnitId, leaf.BackUnitId }.OfType<Guid>().ToList();
        var units = await db
            .Units.AsNoTracking()
            .Where(u => owners.Contains(u.Id))
            .ToDictionaryAsync(u => u.Id, cancel);
        var view = Views(album, leaves, units).Single(l => l.LeafId == leafId);
        var row = album.Protectors.Single(p => p.Id == leaf.ProtectorId);
        var (front, back) = (OpenFace.Of(leaf, LeafSide.Front, row), OpenFace.Of(leaf, LeafSide.Back, row));
        var opened = new Dictionary<Guid, OpenUnit>();
        foreach (var owner in owners.Distinct())
        {
            opened[owner] = await opener.OpenAsync(owner, cancel);
        }

        var contents = units.ToDictionary(u => u.Key, u => u.Value.Read());
        var design = front.Protector.Design;
        var ways = front.Protector.Form.Kind == LeafKind.Pockets;
        return new LeafDetail(
            view,
            front.Protector.Outer.Width.Emu,
            front.Protector.Outer.Height.Emu,
            Face(front, back, leaf.FrontUnitId, leaf.BackUnitId),
            Face(back, front, leaf.BackUnitId, leaf.FrontUnitId),
            ways
                ?
                [
                    .. design
                        .Face(LeafSide.Front)
                        .Where(CanBeFused)
                        .Select(p => new LeafWay(
                            $"Fuse {p.Nominal} (pocket {Number(front, p.Key)}) into two "
                                + $"{Core.Counting.FusedOffers.HalfOf(p.Nominal)}",
                            p.Key,
                            null,
                            null
                        )),
                ]
                : [],
            ways && front.Alterations.Cut is null
                ?
                [
                    .. Ways(CutKeeps.Columns)
                        .Select(size => new LeafWay(
                            $"Keep {MeasureText.Show(size, album.Measures)} beside the rings",
                            null,
                            CutKeeps.Columns,
                            MeasureText.Exact(size, album.Measures)
                        )),
                    .. Ways(CutKeeps.Rows)
                        .Select(size => new LeafWay(
                            $"Keep the upper {MeasureText.Show(size, album.Measures)}",
                            null,
                            CutKeeps.Rows,
                            MeasureText.Exact(size, album.Measures)
                        )),
                ]
                : [],
            front.Alterations.IsAltered,
            view.Between ? view.Front.Title : null,
            MeasureText.Show(front.Protector.Form.Thickness, MeasureSystem.Millimetres)
        );

        string? FaceUrl(OpenUnit open, Piece piece) =>
            faces.Of(open, piece, open.CutSizeOf(piece)) is { } face
                ? $"{UnitReader.FaceUrl(open, piece, face)}&ppi=48"
                : null;

        IEnumerable<Length> Ways(CutKeeps keeps) => Alterations.CutsOf(design, keeps, front.Protector.Form.Rings);

        LeafFaceDetail Face(OpenFace face, OpenFace other, Guid? owner, Guid? behind)
        {
            var (x, y) = face.Protector.BodyOrigin(face.Side);
            return new LeafFaceDetail(
                [
                    .. face.Pockets.Select(p =>
                    {
                        var bounds = p.Pocket.Bounds.Moved(x, y);
                        var piece = At(owner, p.Place);
                        return new LeafPocket(
                            p.Pocket.Key,
                            p.Number,
                            Number(other, p.Pocket.Key),
                            p.Pocket.Nominal.ToString(),
                            bounds.X.Emu,
                            bounds.Y.Emu,
                            bounds.Width.Emu,
                            bounds.Height.Emu,
                            piece is null ? null : UnitReader.Named(piece),
                            piece is null ? null : FaceUrl(opened[owner!.Value], piece),
                            face.Alterations.Stuck.Contains(p.Pocket.Key),
                            owner is { } id && contents.TryGetValue(id, out var own) && own.LeftEmpty.Contains(p.Place),
                            piece is Keepsake { SeeThrough: true }
                                || At(behind, p.Place with { Side = other.Side }) is Keepsake { SeeThrough: true }
                        );
                    }),
                ],
                [.. face.Protector.MarksOn(face.Side, face.Alterations).Select(MarkView.Of)],
                [.. face.Protector.HolesOn(face.Side).Select(h => new PointView(h.X.Emu, h.Y.Emu))],
                face.Protector.RingStripX(face.Side).Emu,
                face.Protector.RingStrip.Emu,
                face.Protector.Form.Holes?.Diameter.Emu ?? 0
            );
        }

        Piece? At(Guid? owner, PocketPlace place) =>
            owner is { } id && contents.TryGetValue(id, out var content) && content.At(place) is { } lies
                ? content.Find(lies.PieceId)
                : null;
    }

    private static bool CanBeFused(Pocket pocket)
    {
        var half = Core.Counting.FusedOffers.HalfOf(pocket.Nominal);
        return half.Width >= Alterations.Narrowest && half.Height >= Alterations.Narrowest;
    }

    private static int? Number(OpenFace face, string key) =>
        face.Pockets.Where(p => p.Pocket.Key == key).Select(p => (int?)p.Number).FirstOrDefault();

    private static List<BinderLeaf> Views(Album album, List<AlbumLeaf> leaves, Dictionary<Guid, AlbumUnit> units)
    {
        var style = album.ReadCalendar().Style;
        var titles = units.ToDictionary(u => u.Key, u => u.Value.ReadDates().Title(style));
        // How many pieces lie on each face, from each content read once.
        var placed = units
            .Values.Where(u => u.PiecesPlaced > 0)
            .SelectMany(u => u.Read().Placements)
            .GroupBy(p => new FaceOfLeaf(p.Place.LeafId, p.Place.Side))
            .ToDictionary(g => g.Key, g => g.Count());
        var makes = album.Protectors.ToDictionary(p => p.Id, p => p.ToProtector());
        var page = new Size(album.BodyWidth, album.BodyHeight);
        var usual = album
            .Protectors.OrderBy(p => p.Ordinal)
            .Select(p => makes[p.Id])
            .First(p => p.Form.Kind == LeafKind.Pockets && p.Design.Body == page);
        var seen = new HashSet<Guid>();
        return
        [
            .. leaves.Select(
                (leaf, i) =>
                {
                    var alterations = leaf.ReadAlterations();
                    var protector = makes[leaf.ProtectorId].Altered(alterations);
                    // In the leaf school the first leaf of a part is the one it stands on.
                    var first = leaf.FrontUnitId is { } unit && seen.Add(unit);
                    var between =
                        leaf.FrontUnitId is { } front
                        && leaf.BackUnitId == front
                        && !(album.School == PageSchool.Leaf && first);
                    return new BinderLeaf(
                        leaf.Id,
                        leaf.Revision,
                        i + 1,
                        protector.Form.Kind,
                        leaf.ProtectorId,
                        protector.Design.Name,
                        UnitReader.NoteOf(protector, usual.Outer, album.Measures),
                        alterations.Tab?.Words,
                        alterations.Tab?.Place ?? 0,
                        between,
                        (double)protector.WidthInAlbum.Emu / usual.Outer.Width.Emu,
                        (double)protector.Outer.Height.Emu / usual.Outer.Height.Emu,
                        Face(leaf.Id, LeafSide.Front, leaf.FrontUnitId, i == 0 ? "title page" : "empty", protector),
                        Face(
                            leaf.Id,
                            LeafSide.Back,
                            leaf.BackUnitId,
                            i == leaves.Count - 1 ? "end page" : "empty",
                            protector
                        ),
                        [
                            .. protector
                                .Design.Face(LeafSide.Front)
                                .Select(p => new PocketShape(
                                    p.Key,
                                    p.Bounds.X.Emu,
                                    p.Bounds.Y.Emu,
                                    p.Bounds.Width.Emu,
                                    p.Bounds.Height.Emu
                                )),
                        ],
                        protector.Design.Body.Width.Emu,
                        protector.Design.Body.Height.Emu,
                        []
                    );
                }
            ),
        ];

        BinderFace Face(Guid leafId, LeafSide side, Guid? unitId, string otherwise, Protector protector)
        {
            var pockets = protector.Design.Face(side).Count;
            return unitId is { } id && titles.TryGetValue(id, out var title)
                ? new BinderFace(id, title, placed.GetValueOrDefault(new FaceOfLeaf(leafId, side)), pockets)
                : new BinderFace(null, unitId is null ? otherwise : string.Empty, 0, pockets);
        }
    }
}
