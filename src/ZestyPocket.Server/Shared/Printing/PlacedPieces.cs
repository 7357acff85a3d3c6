using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Printing;
using ZestyPocket.Drawing.Words;
using ZestyPocket.Storage;

namespace ZestyPocket.Server.Shared;

/// <summary>How a placed piece stands to what was printed of it.</summary>
/// <param name="Number">Such as <c>W19 L5</c>.</param>
/// <param name="PrintedAt">When it was printed last; null when it never was.</param>
/// <param name="OnSheets">It is on the sheets of this plan.</param>
/// <param name="LastSheet">The page it was printed on last; null when that is not known.</param>
public sealed record PieceStanding(
    Guid PieceId,
    Guid UnitId,
    string Number,
    PrintStanding Standing,
    Instant? PrintedAt,
    bool OnSheets,
    PrintedSheet? LastSheet = null
);

/// <summary>A page of a print.</summary>
/// <param name="Number">From 1.</param>
public sealed record PrintedSheet(Guid PrintId, int Number);

/// <summary>What of the pieces is printed.</summary>
/// <param name="Pieces">The chosen ones; counts with <see cref="PrintChoice.Chosen"/> alone.</param>
public sealed record WantedPieces(PrintChoice Choice, IReadOnlyCollection<Guid> Pieces)
{
    public static WantedPieces All { get; } = new(PrintChoice.All, []);

    public bool Has(PieceStanding piece)
    {
        ArgumentNullException.ThrowIfNull(piece);
        return Choice switch
        {
            PrintChoice.Due => piece.Standing != PrintStanding.Printed,
            PrintChoice.Chosen => Pieces.Contains(piece.PieceId),
            _ => true,
        };
    }
}

/// <summary>What lies in pockets, as far as paper asks: what is printed of it, and how it stands to what was.</summary>
public sealed class PlacedPieces(PieceFaces faces, BoughtCardFaces boughtCards, FontShelf fonts, ZestyContext db)
{
    /// <summary>Everything that is printed of units, in reading order.</summary>
    public DuePieces Of(IEnumerable<OpenUnit> units)
    {
        ArgumentNullException.ThrowIfNull(units);
        var due = new DuePieces(faces, boughtCards, fonts);
        foreach (var open in units)
        {
            due.TakePlaced(open);
        }

        return due;
    }

    /// <summary>How all of it stands to what was printed of it, with what it looks like now.</summary>
    public async Task<IReadOnlyList<(PieceStanding Standing, string Recipe)>> StandingAsync(
        IEnumerable<OpenUnit> units,
        CancellationToken cancel
    )
    {
        var due = Of(units);
        var recipes = due.Recipes;
        return [.. (await StandingAsync(due, WantedPieces.All, cancel)).Select(s => (s, recipes[s.PieceId]))];
    }

    /// <summary>How each piece stands to what was printed of it last.</summary>
    public async Task<IReadOnlyList<PieceStanding>> StandingAsync(
        DuePieces due,
        WantedPieces wanted,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(due);
        ArgumentNullException.ThrowIfNull(wanted);
        var (ids, recipes) = (due.Pieces.Select(p => p.PieceId).Distinct().ToList(), due.Recipes);
        var printed = await db
            .PrintedPieces.AsNoTracking()
            .Where(p => ids.Contains(p.PieceId))
            .ToDictionaryAsync(p => p.PieceId, cancel);
        return
        [
            .. due
                .Pieces.GroupBy(p => p.PieceId)
                .Select(g =>
                {
                    var row = printed.GetValueOrDefault(g.Key);
                    var standing =
                        row is null ? PrintStanding.NeverPrinted
                        : row.Spoilt is not null ? PrintStanding.Spoilt
                        // An older version did not note what it printed: nothing is printed twice by accident.
                        : row.Recipe is null || row.Recipe == recipes[g.Key] ? PrintStanding.Printed
                        : PrintStanding.Changed;
                    var piece = new PieceStanding(
                        g.Key,
                        due.UnitOf[g.Key],
                        g.MaxBy(p => p.Part)!.Number,
                        standing,
                        row?.PrintedAt,
                        OnSheets: false,
                        row?.Sheet is { } sheet ? new PrintedSheet(row.JobId, sheet) : null
                    );
                    return piece with { OnSheets = wanted.Has(piece) };
                }),
        ];
    }
}
