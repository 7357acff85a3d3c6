using Microsoft.EntityFrameworkCore;
using NodaTime;
using ZestyPocket.Core.Measures;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Server.Printing;

/// <summary>A piece as it was printed.</summary>
/// <param name="Sheet">The page of the print, from 1; null at a lab.</param>
/// <param name="Recipe">Everything that was printed of it; null for a back: that of its front has it.</param>
public sealed record PrintedNote(Guid PieceId, Guid UnitId, string Number, Size Cut, int? Sheet, string? Recipe);

/// <summary>Every piece remembers that and how it was printed last.</summary>
public static class PrintedNotes
{
    /// <summary>Notes pieces, each once; the caller saves.</summary>
    /// <param name="by">The print, or the order at a lab.</param>
    public static async Task NoteAsync(
        ZestyContext db,
        Guid albumId,
        Guid by,
        IReadOnlyList<PrintedNote> pieces,
        Instant now,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var ids = pieces.Select(p => p.PieceId).ToList();
        var known = await db
            .PrintedPieces.Where(p => ids.Contains(p.PieceId))
            .ToDictionaryAsync(p => p.PieceId, cancel);
        foreach (var piece in pieces)
        {
            if (!known.TryGetValue(piece.PieceId, out var row))
            {
                row = new PrintedPiece
                {
                    PieceId = piece.PieceId,
                    AlbumId = albumId,
                    Number = piece.Number,
                };
                db.PrintedPieces.Add(row);
            }

            (row.UnitId, row.JobId, row.Number, row.PrintedAt) = (piece.UnitId, by, piece.Number, now);
            (row.CutWidth, row.CutHeight) = (piece.Cut.Width, piece.Cut.Height);
            (row.Sheet, row.Recipe, row.Spoilt) = (piece.Sheet, piece.Recipe, null);
        }
    }
}
