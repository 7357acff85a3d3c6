using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Printing;
using ZestyPocket.Core.TuckingIn;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Shared;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.TuckingIn;

/// <summary>A piece that goes into a pocket, with what goes with it.</summary>
/// <param name="Number">Such as <c>W19 L5</c> or <c>W19 L5 flip</c>.</param>
/// <param name="Title">What it is.</param>
/// <param name="Next">What is done next with it.</param>
/// <param name="Cut">It is ticked off as cut.</param>
/// <param name="Tucked">It is ticked off as tucked in.</param>
/// <param name="Sheet">The page it was printed on last; null when that is not known.</param>
/// <param name="PrintedAt">When; null when it never was.</param>
/// <param name="Steps">What is done to it by hand first, in its order.</param>
/// <param name="AlsoCut">What else is cut for it by itself, such as a mat: it is ticked off with it.</param>
/// <param name="With">What goes with it, in the order it is laid on.</param>
public sealed record TuckPiece(
    Guid PieceId,
    string Number,
    string Title,
    string? Picture,
    bool IsPrinted,
    TuckStep Next,
    bool Cut,
    bool Tucked,
    PrintedSheet? Sheet,
    Instant? PrintedAt,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> AlsoCut,
    IReadOnlyList<TuckPiece> With
);

/// <summary>A pocket on the map of a page, in inches from the page's top left corner.</summary>
/// <param name="Piece">What goes in; null for a pocket that stays empty.</param>
/// <param name="IsStuck">It is stuck to the piece behind it: both go in as one.</param>
public sealed record TuckPocket(
    string Code,
    double X,
    double Y,
    double Width,
    double Height,
    TuckPiece? Piece,
    bool IsStuck
);

/// <summary>A side of a leaf.</summary>
public sealed record TuckFace(
    Guid UnitId,
    string UnitTitle,
    LeafSide Side,
    double WidthInches,
    double HeightInches,
    IReadOnlyList<TuckPocket> Pockets
);

/// <summary>A leaf with both its sides, so that it is taken in hand once.</summary>
public sealed record TuckLeaf(Guid LeafId, int Number, string Name, IReadOnlyList<TuckFace> Faces);

/// <summary>The leaves of a stretch, and the cautions for the tools their pieces take.</summary>
public sealed record TuckView(IReadOnlyList<TuckLeaf> Leaves, IReadOnlyList<string> Cautions);

/// <summary>What is ticked off: pieces of an album that are cut or tucked in, or are not after all.</summary>
public sealed record TickRequest(IReadOnlyList<Guid> PieceIds, TuckStep Step, bool Done);

/// <summary>Pieces that are printed again with the next sheets, and why; null when they are not after all.</summary>
public sealed record SpoiltRequest(IReadOnlyList<Guid> PieceIds, Spoilt? Why);

/// <summary>The table where pieces find their pockets.</summary>
public static class TuckingEndpoints
{
    private const int MostUnits = 60;

    private const int MostPieces = 2_000;

    public static void MapTuckingIn(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/albums/{albumId:guid}").WithTags("TuckingIn");
        group
            .MapGet(
                "/assembly",
                async (
                    Guid albumId,
                    [FromQuery] Guid from,
                    [FromQuery] int count,
                    AlbumReader albums,
                    TuckingReader reader,
                    CancellationToken cancel
                ) =>
                    await reader.ReadAsync(
                        albumId,
                        await albums.StretchAsync(albumId, from, count, MostUnits, cancel),
                        cancel
                    )
            )
            .WithName("getAssembly")
            .WithProblems();
        group
            .MapPost(
                "/ticks",
                async (Guid albumId, TickRequest request, TuckingReader reader, CancellationToken cancel) =>
                {
                    if (request.Step is not (TuckStep.Cut or TuckStep.TuckIn))
                    {
                        throw new RuleException("Only cutting and tucking in are ticked off. Nothing was changed.");
                    }

                    if (request.PieceIds.Count is 0 or > MostPieces)
                    {
                        throw new RuleException($"Tick off 1 to {MostPieces} pieces at once. Nothing was changed.");
                    }

                    await reader.TickAsync(albumId, request, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("tickPieces")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
        group
            .MapPost(
                "/spoilt",
                async (Guid albumId, SpoiltRequest request, TuckingReader reader, CancellationToken cancel) =>
                {
                    if (request.PieceIds.Count is 0 or > MostPieces)
                    {
                        throw new RuleException($"Name 1 to {MostPieces} pieces at once. Nothing was changed.");
                    }

                    await reader.SpoilAsync(albumId, request, cancel);
                    return Results.NoContent();
                }
            )
            .WithName("printAgain")
            .Produces(StatusCodes.Status204NoContent)
            .WithProblems();
    }
}

/// <summary>Reads the maps of leaves, and keeps what was ticked off.</summary>
public sealed class TuckingReader(
    ZestyContext db,
    AlbumReader albums,
    UnitOpener opener,
    UnitReader units,
    PlacedPieces placed,
    IClock clock
)
{
    public async Task<TuckView> ReadAsync(Guid albumId, IReadOnlyList<Guid> unitIds, CancellationToken cancel)
    {
        var album = await albums.RequireAsync(albumId, cancel);
        var asked = await opener.OpenManyAsync(unitIds, cancel);
        // The other side of a leaf may be another unit's: the leaf is taken in hand once.
        var leafIds = asked.SelectMany(u => u.Faces.Select(f => f.Leaf.Id)).ToHashSet();
        var others = await db
            .Leaves.AsNoTracking()
            .Where(l => leafIds.Contains(l.Id))
            .Select(l => new { l.FrontUnitId, l.BackUnitId })
            .ToListAsync(cancel);
        var all = await opener.OpenManyAsync(
            [.. others.SelectMany(l => new[] { l.FrontUnitId, l.BackUnitId }).OfType<Guid>().Union(unitIds)],
            cancel
        );
        var ids = all.Select(u => u.Unit.Id).ToList();
        var due = placed.Of(all);
        var recipes = due.Recipes;
        var standing = (await placed.StandingAsync(due, WantedPieces.All, cancel)).ToDictionary(
            s => s.PieceId,
            s => (s, recipes[s.PieceId])
        );
        var parts = due.Pieces.ToLookup(p => p.PieceId, p => p.Number);
        var ticks = await db
            .PieceTicks.AsNoTracking()
            .Where(t => t.AlbumId == album.Id && ids.Contains(t.UnitId))
            .ToDictionaryAsync(t => t.PieceId, cancel);
        var table = new Table(standing, ticks, parts, units);
        var leaves = all.SelectMany(u => u.Faces.Select(f => (Unit: u, Face: f)))
            .Where(f => leafIds.Contains(f.Face.Leaf.Id))
            .GroupBy(f => f.Face.Leaf.Id)
            .Select(g => g.OrderBy(f => f.Face.Side).ToList())
            .OrderBy(g => g[0].Face.Leaf.Ordinal)
            .Select(g => new TuckLeaf(
                g[0].Face.Leaf.Id,
                g[0].Face.Leaf.Ordinal + 1,
                g[0].Face.Protector.Design.Name,
                [.. g.Select(f => table.FaceOf(f.Unit, f.Face))]
            ))
            .ToList();
        var kinds = all.SelectMany(u => u.Content.Pieces)
            .SelectMany(p => p.Steps)
            .Select(s => s.Kind)
            .Distinct()
            .Order();
        var own = kinds.Select(HandStep.Caution).OfType<string>().ToList();
        return new TuckView(leaves, own.Count == 0 ? [] : [HandStep.MakersFirst, .. own]);
    }

    /// <summary>Ticks pieces off, or takes the ticks back.</summary>
    public async Task TickAsync(Guid albumId, TickRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var wanted = request.PieceIds.ToHashSet();
        var unitOf = await UnitsOfAsync(album.Id, wanted, cancel);
        var open = await opener.OpenManyAsync([.. unitOf.Values.Distinct()], cancel);
        var recipes = (await placed.StandingAsync(open, cancel)).ToDictionary(s => s.Standing.PieceId, s => s.Recipe);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // Two windows ticking the same piece at once write one row after the other.
        await db.Database.ExecuteSqlAsync(
            $"SELECT pg_advisory_xact_lock(hashtextextended({album.Id.ToString()}, 7))",
            cancel
        );
        var rows = await db.PieceTicks.Where(t => wanted.Contains(t.PieceId)).ToDictionaryAsync(t => t.PieceId, cancel);
        foreach (var (pieceId, unitId) in unitOf)
        {
            if (!rows.TryGetValue(pieceId, out var row))
            {
                db.PieceTicks.Add(row = new PieceTick { PieceId = pieceId, AlbumId = album.Id });
            }

            var at = request.Done ? clock.GetCurrentInstant() : (Instant?)null;
            row.UnitId = unitId;
            if (request.Step == TuckStep.Cut)
            {
                row.CutAt = at;
            }
            else
            {
                (row.TuckedAt, row.TuckedRecipe) = (at, request.Done ? recipes.GetValueOrDefault(pieceId) : null);
                // What lies in its pocket has been cut.
                row.CutAt ??= at;
            }
        }

        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>
    /// Notes that printed pieces were lost, smudged or cut wrong: they are due, and no longer cut or tucked in.
    /// </summary>
    public async Task SpoilAsync(Guid albumId, SpoiltRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var ids = request.PieceIds.Distinct().ToList();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var changed = await db
            .PrintedPieces.Where(p => p.AlbumId == album.Id && ids.Contains(p.PieceId))
            .ExecuteUpdateAsync(set => set.SetProperty(p => p.Spoilt, request.Why), cancel);
        if (changed < ids.Count)
        {
            throw new RuleException(
                "A piece of these was never printed: there is nothing to print again. Nothing was changed."
            );
        }

        if (request.Why is not null)
        {
            await db.PieceTicks.Where(t => t.AlbumId == album.Id && ids.Contains(t.PieceId)).ExecuteDeleteAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
    }

    private async Task<Dictionary<Guid, Guid>> UnitsOfAsync(
        Guid albumId,
        HashSet<Guid> pieces,
        CancellationToken cancel
    )
    {
        var rows = await db.Units.AsNoTracking().Where(u => u.AlbumId == albumId).ToListAsync(cancel);
        var found = rows.SelectMany(u => u.Read().Pieces.Select(p => (p.Id, UnitId: u.Id)))
            .Where(p => pieces.Contains(p.Id))
            .DistinctBy(p => p.Id)
            .ToDictionary(p => p.Id, p => p.UnitId);
        return found.Count < pieces.Count
            ? throw new RuleException("A piece is not in this album any more. Nothing was ticked off: reload the page.")
            : found;
    }

    /// <summary>What the maps are made of.</summary>
    private sealed class Table(
        Dictionary<Guid, (PieceStanding Standing, string Recipe)> standing,
        Dictionary<Guid, PieceTick> ticks,
        ILookup<Guid, string> parts,
        UnitReader units
    )
    {
        public TuckFace FaceOf(OpenUnit unit, OpenFace face)
        {
            var (bodyX, bodyY) = face.Protector.BodyOrigin(face.Side);
            return new TuckFace(
                unit.Unit.Id,
                unit.Title,
                face.Side,
                Inches(face.Protector.Outer.Width),
                Inches(face.Protector.Outer.Height),
                [
                    .. unit
                        .Pockets.Where(p => ReferenceEquals(p.Face, face))
                        .Select(p =>
                        {
                            var bounds = p.Pocket.Bounds.Moved(bodyX, bodyY);
                            var piece = unit.Content.At(p.Place) is { } lies ? unit.Content.Find(lies.PieceId) : null;
                            return new TuckPocket(
                                p.Code,
                                Inches(bounds.X),
                                Inches(bounds.Y),
                                Inches(bounds.Width),
                                Inches(bounds.Height),
                                piece is null ? null : PieceOf(unit, piece, p.Code, piece.Id),
                                unit.IsStuck(p.Place)
                            );
                        }),
                ]
            );
        }

        private static double Inches(Length length) => (double)length.Inches;

        private TuckPiece PieceOf(OpenUnit unit, Piece piece, string number, Guid carrier)
        {
            (PieceStanding Standing, string Recipe)? known = standing.TryGetValue(piece.Id, out var found)
                ? found
                : null;
            var tick = ticks.GetValueOrDefault(piece.Id);
            // Cut before it was printed last, it was another print that was cut.
            var cut = tick?.CutAt is { } at && (known?.Standing.PrintedAt is not { } last || at >= last);
            var tucked = tick?.TuckedAt is not null;
            var next = PieceProgress.NextOf(
                known is not null,
                known?.Standing.Standing ?? PrintStanding.Printed,
                cut,
                tucked,
                tuckedAsItIs: known is null || tick?.TuckedRecipe == known.Value.Recipe
            );
            var view = units.View(unit, piece);
            return new TuckPiece(
                piece.Id,
                number,
                view?.Title ?? "A picture that is gone",
                view?.FaceUrl ?? (view?.Photo is { } photo ? $"{photo.Picture}512" : null),
                known is not null,
                next,
                cut,
                tucked,
                known?.Standing.LastSheet,
                known?.Standing.PrintedAt,
                [.. piece.Steps.Select(s => s.Says())],
                [.. parts[piece.Id].Skip(1)],
                piece.Id != carrier
                    ? []
                    :
                    [
                        .. unit
                            .Content.AttachedTo(piece.Id)
                            .Where(p => p.Attachment?.Kind != AttachmentKind.Back)
                            .Select(p => PieceOf(unit, p, $"{number} {p.Attachment!.Name}", carrier)),
                    ]
            );
        }
    }
}
