using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Printing;
using ZestyPocket.Storage.Sharing;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>
/// Reads rows as the program will: each column and each document, and every value in them. What cannot be read, or
/// holds what the program would never have written, is named.
/// </summary>
public sealed class BundleJudge(ZestyContext db)
{
    /// <summary>So many rows are read with one question.</summary>
    private const int Batch = 200;

    /// <summary>The longest side of a picture in pixels.</summary>
    private const int LongestSide = 100_000;

    /// <summary>Rows of a table that cannot be read, with the reason for whoever runs the program.</summary>
    public Task<IReadOnlyList<(Guid Id, string Why)>> UnreadableAsync(
        BundleTable table,
        IReadOnlyCollection<Guid> ids,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(table);
        return table.Name switch
        {
            "Designs" => OfAsync<KeeperDesign>(
                ids,
                d => d.Id,
                d => [d, d.Read(), PageDesign.FromNotation(d.Key, d.Name, d.Notation)],
                cancel
            ),
            "StashItems" => OfAsync<StashedItem>(ids, i => i.Id, i => [i, i.Read()], cancel),
            "Albums" => OfAsync<Album>(ids, a => a.Id, ReadAlbum, cancel),
            "Protectors" => OfAsync<AlbumProtector>(
                ids,
                p => p.Id,
                p => [p, p.ToProtector().Form, Positive(p.OuterWidth.Emu, p.OuterHeight.Emu)],
                cancel
            ),
            "Units" => OfAsync<AlbumUnit>(ids, u => u.Id, u => [u, u.Read(), Ordered(u)], cancel),
            "Leaves" => OfAsync<AlbumLeaf>(ids, l => l.Id, l => [l, l.ReadAlterations()], cancel),
            "Photos" => OfAsync<Photo>(ids, p => p.Id, ReadPhoto, cancel),
            "Videos" => OfAsync<Video>(ids, v => v.Id, v => [v, Positive(v.Width, v.Height)], cancel),
            "Stories" => OfAsync<Story>(ids, s => s.Id, s => [s, s.Read().At(s.Hour)], cancel),
            "PrintedPieces" => OfAsync<PrintedPiece>(ids, p => p.PieceId, p => [p], cancel),
            "PieceTicks" => OfAsync<PieceTick>(ids, t => t.PieceId, t => [t], cancel),
            "Comments" => OfAsync<Comment>(ids, c => c.Id, c => [c], cancel),
            "Edits" => OfAsync<Edit>(ids, e => e.Id, e => [e], cancel),
            "EditChange" => OfAsync<EditChange>(
                ids,
                c => c.Id,
                c => [c, History.StateOf(c.Subject, c.Before), History.StateOf(c.Subject, c.After)],
                cancel
            ),
            _ => throw new ArgumentException($"Nobody knows how to read {table.Name}.", nameof(table)),
        };
    }

    private async Task<IReadOnlyList<(Guid Id, string Why)>> OfAsync<T>(
        IReadOnlyCollection<Guid> ids,
        Expression<Func<T, Guid>> key,
        Func<T, IReadOnlyList<object?>> read,
        CancellationToken cancel
    )
        where T : class
    {
        var (keyOf, found) = (key.Compile(), new List<(Guid, string)>());
        foreach (var some in ids.Chunk(Batch))
        {
            try
            {
                foreach (var row in await RowsAsync(key, some, cancel))
                {
                    if (Problem(row, read) is { } problem)
                    {
                        found.Add((keyOf(row), problem));
                    }
                }
            }
            catch (Exception unreadable) when (unreadable is not (OperationCanceledException or OutOfMemoryException))
            {
                // One of them keeps all of them from being read: which one?
                foreach (var id in some)
                {
                    if (await ProblemAsync(key, id, read, cancel) is { } problem)
                    {
                        found.Add((id, problem));
                    }
                }
            }
        }

        return found;
    }

    private async Task<string?> ProblemAsync<T>(
        Expression<Func<T, Guid>> key,
        Guid id,
        Func<T, IReadOnlyList<object?>> read,
        CancellationToken cancel
    )
        where T : class
    {
        try
        {
            var rows = await RowsAsync(key, [id], cancel);
            return rows.Count == 1 ? Problem(rows[0], read) : null;
        }
        catch (Exception unreadable) when (unreadable is not (OperationCanceledException or OutOfMemoryException))
        {
            return unreadable.Message;
        }
    }

    private static string? Problem<T>(T row, Func<T, IReadOnlyList<object?>> read)
    {
        try
        {
            return read(row).Select(ValueCheck.Problem).FirstOrDefault(p => p is not null);
        }
        catch (Exception unreadable) when (unreadable is not OutOfMemoryException)
        {
            // Each value refuses in its own way what it cannot be.
            return unreadable.Message;
        }
    }

    private Task<List<T>> RowsAsync<T>(Expression<Func<T, Guid>> key, Guid[] ids, CancellationToken cancel)
        where T : class =>
        db.Set<T>()
            .AsNoTracking()
            .IgnoreQueryFilters()
            .Where(
                Expression.Lambda<Func<T, bool>>(
                    Expression.Call(
                        typeof(Enumerable),
                        nameof(Enumerable.Contains),
                        [typeof(Guid)],
                        Expression.Constant(ids),
                        key.Body
                    ),
                    key.Parameters
                )
            )
            .ToListAsync(cancel);

    private static IReadOnlyList<object?> ReadAlbum(Album album) =>
        [
            album,
            album.ReadCalendar(),
            album.ReadWords(),
            album.ReadFormulas(),
            album.ReadKeeping(),
            album.ReadTrip(),
            Positive(album.BodyWidth.Emu, album.BodyHeight.Emu),
            album.FacesPerUnit is 1 or 2 ? 0 : throw new FormatException("A week or day has one page or two."),
        ];

    private static IReadOnlyList<object?> ReadPhoto(Photo photo) =>
        [
            photo,
            Boxes.Read(photo.KeepBoxes).Select(b => b.Checked()).ToList(),
            Boxes.Read(photo.CoverBoxes).Select(b => b.Checked()).ToList(),
            Boxes.ReadPalette(photo.Palette),
            Positive(photo.Width, photo.Height, photo.Bytes),
            photo is { Width: <= LongestSide, Height: <= LongestSide, Favourite: >= 0 and <= 3 }
            && photo.Page >= 1
            && photo.Page <= photo.Pages
            && photo
                is { FocusX: >= 0 and <= 1, FocusY: >= 0 and <= 1, Occurrence: >= 0, KeeperHour: null or >= 0 and < 24 }
                ? 0
                : throw new FormatException("A measure of the picture is none."),
        ];

    private static UnitDates Ordered(AlbumUnit unit) =>
        unit.FirstDay <= unit.LastDay && unit.FirstNumber <= unit.LastNumber
            ? unit.ReadDates()
            : throw new FormatException("It ends before it begins.");

    private static int Positive(params ReadOnlySpan<long> measures)
    {
        foreach (var measure in measures)
        {
            if (measure <= 0)
            {
                throw new FormatException("A measure is not positive.");
            }
        }

        return 0;
    }
}
