using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Binder;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Travel;
using ZestyPocket.Core.Words;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Shared;

/// <summary>One page of an open unit. The protector is as it is after what was done to this leaf.</summary>
public sealed record OpenFace(AlbumLeaf Leaf, AlbumProtector ProtectorRow, UnitFace Face)
{
    public LeafSide Side => Face.Side;

    public Protector Protector => Face.Protector;

    public LeafAlterations Alterations => Face.Alterations;

    /// <summary>A face of a leaf with its alterations.</summary>
    public static OpenFace Of(AlbumLeaf leaf, LeafSide side, AlbumProtector row)
    {
        ArgumentNullException.ThrowIfNull(leaf);
        ArgumentNullException.ThrowIfNull(row);
        var alterations = leaf.ReadAlterations();
        return new OpenFace(
            leaf,
            row,
            new UnitFace(leaf.Id, side, row.ToProtector().Altered(alterations), alterations)
        );
    }

    /// <summary>The face's pockets in reading order with their places.</summary>
    public IEnumerable<(Pocket Pocket, PocketPlace Place, int Number)> Pockets => Face.Pockets;
}

/// <summary>A unit with everything around it that an edit, a view or a print needs.</summary>
public sealed record OpenUnit(
    Album Album,
    AlbumUnit Unit,
    UnitContent Content,
    IReadOnlyList<OpenFace> Faces,
    IReadOnlyDictionary<Guid, Photo> Photos
)
{
    /// <summary>
    /// Pictures of other units whose pieces lie here, since they are stuck to the back of one that was moved.
    /// </summary>
    public IReadOnlyDictionary<Guid, Photo> Guests { get; init; } = new Dictionary<Guid, Photo>();

    /// <summary>
    /// A picture of the unit, or of a piece that came from another; null when it is not there any more.
    /// </summary>
    public Photo? PhotoOf(Guid id) => Photos.GetValueOrDefault(id) ?? Guests.GetValueOrDefault(id);

    public AlbumCalendar Calendar { get; } = Album.ReadCalendar();

    public AlbumWords Words { get; } = Album.ReadWords();

    /// <summary>The trips of the album with their ways; read when a card asks for them.</summary>
    public TripWays Trips => field ??= new TripWays(Album.ReadTrip());

    public UnitDates Dates { get; } = Unit.ReadDates();

    /// <summary>Each of its pockets has something or is empty on purpose.</summary>
    public bool IsFinished =>
        Pockets.Any()
        && !Content.Placements.IsEmpty
        && Pockets.All(p => Content.At(p.Place) is not null || Content.LeftEmpty.Contains(p.Place));

    /// <summary>Such as <c>Week 19</c>.</summary>
    public string Title => Dates.Title(Calendar.Style);

    /// <summary>The unit as a value of the core: what an edit is made on.</summary>
    public UnitDesk Desk
    {
        get
        {
            // A copy with another content has a desk of its own.
            if (field is null || !ReferenceEquals(field.Content, Content))
            {
                field = MakeDesk();
            }

            return field;
        }
    }

    /// <summary>The number of a picture on the legend of the unit; null when it has none.</summary>
    public int? LegendNumberOf(Guid pieceId)
    {
        // Worked out once for all pictures of a content.
        if (_legend is null || !ReferenceEquals(_legend.Value.Of, Content))
        {
            _legend = (Content, Legend.Of(Desk).ToDictionary(e => e.PieceId, e => e.Number));
        }

        return _legend.Value.Numbers.TryGetValue(pieceId, out var number) ? number : null;
    }

    private (UnitContent Of, Dictionary<Guid, int> Numbers)? _legend;

    /// <summary>The size of type a card shares with others of the unit; null when it has its own.</summary>
    public double? LevelOf(Card card, ITextShaper shaper)
    {
        ArgumentNullException.ThrowIfNull(card);
        if (_levels is null || !ReferenceEquals(_levels.Value.Of, Content))
        {
            _levels = (Content, TypeLevels.Of(Desk, shaper));
        }

        return _levels.Value.Levels.TryGetValue(card.Id, out var level) ? level : null;
    }

    private (UnitContent Of, ImmutableDictionary<Guid, double> Levels)? _levels;

    /// <summary>When a picture was taken, with its place among those of the same second.</summary>
    private static LocalDateTime? InOrder(Photo photo) =>
        photo is { Taken: { } taken, TakenAt: { } at }
        && photo.SortAt - at is var behind
        && behind < Duration.FromSeconds(1)
            ? taken.PlusTicks(Math.Max(0, behind.BclCompatibleTicks))
            : photo.Taken;

    private UnitDesk MakeDesk() =>
        new(
            Content,
            new UnitPages(Dates, [.. Faces.Select(f => f.Face)]),
            Dates,
            Title,
            Photos.Values.ToDictionary(
                p => p.Id,
                p => new DeskPhoto(
                    new LoosePhoto(p.Id, p.Pixels, p.Day, InOrder(p)),
                    p.FileName,
                    Framing.Around(p.FocusX, p.FocusY, Boxes.Read(p.KeepBoxes))
                )
                {
                    Favourite = p.Favourite,
                    Palette = Boxes.ReadPalette(p.Palette),
                    Keep = [.. Boxes.Read(p.KeepBoxes)],
                    Tone = p.Tone,
                    Colourfulness = p.Colourfulness ?? PictureJudging.Colourfulness(Boxes.ReadPalette(p.Palette)),
                    Likeness = (ulong)p.Likeness,
                    GroupId = p.GroupId,
                    SuggestedBest = p.SuggestedBest,
                    SeriesId = p.SeriesId,
                    Verdict = p.Verdict,
                }
            ),
            Words,
            Protectors.SelectMany(p => p.Protector.Design.Pockets.Select(f => f.Nominal)).ToHashSet(),
            Album.Measures
        )
        {
            Protectors = Protectors,
            Body = new Size(Album.BodyWidth, Album.BodyHeight),
            Style = Calendar.Style,
            FirstWeekday = Calendar.FirstWeekday,
            Guests = Guests.Keys.ToHashSet(),
        };

    private ImmutableArray<OwnedProtector> Protectors { get; } =
    [
        .. Album
            .Protectors.OrderBy(p => p.Ordinal)
            .Select(p => new OwnedProtector(p.Id, p.ToProtector(), p.OnHand, p.Gone)),
    ];

    /// <summary>Every pocket of the unit's pages in reading order: left page first.</summary>
    public IEnumerable<(OpenFace Face, Pocket Pocket, PocketPlace Place, string Code)> Pockets =>
        Desk.Pages.Pockets.Select(p => (Faces.First(f => ReferenceEquals(f.Face, p.Face)), p.Pocket, p.Place, p.Code));

    /// <summary>The pocket's code such as W19 L5; null when the spread has no such pocket.</summary>
    public string? CodeOf(PocketPlace place) => Desk.Pages.CodeOf(place);

    /// <summary>Whether the piece there is stuck to the one behind it.</summary>
    public bool IsStuck(PocketPlace place) => Desk.Pages.IsStuck(place);

    /// <summary>The size a piece in this pocket is cut to.</summary>
    public Size CutSize(PocketPlace place) => Desk.Pages.CutSize(place);

    /// <summary>The room inside a pocket: as measured, else its nominal size.</summary>
    public Size ClearSize(PocketPlace place) => Desk.Pages.ClearSize(place);

    /// <summary>The whole of a picture over several pockets, and where a slice of it lies in that.</summary>
    public (Size Whole, Rect Slice)? SpanOf(PhotoPrint print) => Desk.Pages.SpanOf(Content, print);

    /// <summary>The size a piece is cut to.</summary>
    public Size CutSizeOf(Piece piece) => Desk.Pages.CutSizeOf(Content, piece);

    /// <summary>What a piece's finish leaves for its picture or its words.</summary>
    public Size RoomOf(Piece piece) => Desk.Pages.RoomOf(Content, piece);
}

/// <summary>Opens units of the keeper's albums.</summary>
public sealed class UnitOpener(ZestyContext db, AlbumReader albums)
{
    public async Task<OpenUnit> OpenAsync(Guid unitId, CancellationToken cancel)
    {
        var unit =
            await db.Units.SingleOrDefaultAsync(u => u.Id == unitId, cancel)
            ?? throw new MissingException("That week or day");
        var album = await albums.RequireAsync(unit.AlbumId, cancel);
        var photos = await db
            .Photos.AsNoTracking()
            .Where(p => p.UnitId == unitId && p.Verdict != Verdict.Leave)
            .OrderBy(p => p.SortAt)
            .ThenBy(p => p.Id)
            .ToDictionaryAsync(p => p.Id, cancel);
        var content = unit.Read();
        return new OpenUnit(album, unit, content, await FacesAsync(unitId, cancel), photos)
        {
            Guests = await GuestsAsync(album.Id, [content], photos.Keys.ToHashSet(), cancel),
        };
    }

    /// <summary>Pictures that pieces show and that are not among those of their units.</summary>
    private async Task<IReadOnlyDictionary<Guid, Photo>> GuestsAsync(
        Guid albumId,
        IEnumerable<UnitContent> contents,
        HashSet<Guid> own,
        CancellationToken cancel
    )
    {
        var ids = contents
            .SelectMany(c => c.Pieces)
            .SelectMany(ShownBy)
            .Where(id => !own.Contains(id))
            .Distinct()
            .ToList();
        return ids.Count == 0
            ? new Dictionary<Guid, Photo>()
            : await db
                .Photos.AsNoTracking()
                .Where(p => p.AlbumId == albumId && ids.Contains(p.Id) && p.Verdict != Verdict.Leave)
                .ToDictionaryAsync(p => p.Id, cancel);
    }

    private static IEnumerable<Guid> ShownBy(Piece piece) =>
        piece switch
        {
            PhotoPrint print => [print.PhotoId],
            Collage or Composition or BoughtCard => piece.PhotosInside,
            Keepsake { PhotoId: { } photo } => [photo],
            Card { Picture: { } picture } => [picture.PhotoId],
            Card card => card.SmallPictures.Select(p => p.PhotoId),
            _ => [],
        };

    /// <summary>Opens every unit of an album for looking at, in their order.</summary>
    public async Task<IReadOnlyList<OpenUnit>> OpenAlbumAsync(Guid albumId, CancellationToken cancel) =>
        await OpenManyAsync(
            await db
                .Units.AsNoTracking()
                .Where(u => u.AlbumId == albumId)
                .OrderBy(u => u.Ordinal)
                .Select(u => u.Id)
                .ToListAsync(cancel),
            cancel
        );

    /// <summary>
    /// Opens several units of one album for looking at, in the order asked for: as many questions to the database as
    /// one unit takes. Units that are gone are left out.
    /// </summary>
    public async Task<IReadOnlyList<OpenUnit>> OpenManyAsync(IReadOnlyList<Guid> unitIds, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(unitIds);
        var units = await db
            .Units.AsNoTracking()
            .Where(u => unitIds.Contains(u.Id))
            .ToDictionaryAsync(u => u.Id, cancel);
        if (units.Count == 0)
        {
            return [];
        }

        var album = await albums.RequireAsync(units.Values.First().AlbumId, cancel);
        if (units.Values.Any(u => u.AlbumId != album.Id))
        {
            throw new RuleException("What is opened together must be of one album.");
        }

        var photos = (
            await db
                .Photos.AsNoTracking()
                .Where(p => p.UnitId != null && unitIds.Contains(p.UnitId.Value) && p.Verdict != Verdict.Leave)
                .OrderBy(p => p.SortAt)
                .ThenBy(p => p.Id)
                .ToListAsync(cancel)
        ).ToLookup(p => p.UnitId!.Value);
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l =>
                (l.BackUnitId != null && unitIds.Contains(l.BackUnitId.Value))
                || (l.FrontUnitId != null && unitIds.Contains(l.FrontUnitId.Value))
            )
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var protectors = await db
            .Protectors.AsNoTracking()
            .Where(p => p.AlbumId == album.Id)
            .ToDictionaryAsync(p => p.Id, cancel);
        var contents = units.ToDictionary(u => u.Key, u => u.Value.Read());
        // A picture of one of these units may be a guest in another of them.
        var known = photos.SelectMany(p => p).ToDictionary(p => p.Id);
        var foreign = await GuestsAsync(album.Id, contents.Values, [.. known.Keys], cancel);
        return
        [
            .. unitIds
                .Distinct()
                .Where(units.ContainsKey)
                .Select(id => new OpenUnit(
                    album,
                    units[id],
                    contents[id],
                    Faces(id, leaves.Where(l => l.BackUnitId == id || l.FrontUnitId == id), protectors),
                    photos[id].ToDictionary(p => p.Id)
                )
                {
                    Guests = GuestsOf(contents[id], id),
                }),
        ];

        Dictionary<Guid, Photo> GuestsOf(UnitContent content, Guid unitId) =>
            content
                .Pieces.SelectMany(ShownBy)
                .Distinct()
                .Select(id => known.GetValueOrDefault(id) ?? foreign.GetValueOrDefault(id))
                .OfType<Photo>()
                .Where(p => p.UnitId != unitId)
                .ToDictionary(p => p.Id);
    }

    private async Task<IReadOnlyList<OpenFace>> FacesAsync(Guid unitId, CancellationToken cancel)
    {
        var leaves = await db
            .Leaves.Where(l => l.BackUnitId == unitId || l.FrontUnitId == unitId)
            .OrderBy(l => l.Ordinal)
            .ToListAsync(cancel);
        var ids = leaves.ConvertAll(l => l.ProtectorId);
        return Faces(
            unitId,
            leaves,
            await db.Protectors.Where(p => ids.Contains(p.Id)).ToDictionaryAsync(p => p.Id, cancel)
        );
    }

    private static List<OpenFace> Faces(
        Guid unitId,
        IEnumerable<AlbumLeaf> leaves,
        Dictionary<Guid, AlbumProtector> protectors
    ) =>
        [
            .. from leaf in leaves
            from side in new[] { LeafSide.Front, LeafSide.Back }
            where (side == LeafSide.Front ? leaf.FrontUnitId : leaf.BackUnitId) == unitId
            select OpenFace.Of(leaf, side, protectors[leaf.ProtectorId]),
        ];
}
