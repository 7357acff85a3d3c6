using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Server.Words;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Albums;

/// <summary>
/// Takes over what was measured on a protector. Pieces that are not printed yet are cut to it from then on, because
/// their size is never stored; those that were printed at another size are named.
/// </summary>
public sealed class ProtectorMeasuring(
    ZestyContext db,
    AlbumReader albums,
    History history,
    StoryEditor stories,
    ICurrentKeeper keeper
)
{
    public async Task<MeasuredAnswer> MeasureAsync(
        Guid albumId,
        Guid protectorId,
        MeasureProtectorRequest request,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(request);
        var album = await albums.RequireAsync(albumId, cancel);
        var row =
            album.Protectors.SingleOrDefault(p => p.Id == protectorId) ?? throw new MissingException("The protector");
        var before = row.ToProtector();
        var outer = MeasureText.ParseSize(request.Outer);
        var form = before.Form with
        {
            Rings = request.Rings ?? before.Form.Rings,
            Thickness = string.IsNullOrWhiteSpace(request.Thickness)
                ? before.Form.Thickness
                : Measure(request.Thickness),
            Holes = request.Holes is { } holes ? Read(holes, outer) : before.Form.Holes,
        };
        var measured = before with
        {
            Outer = outer,
            RingStrip = Measure(request.RingStrip),
            Ease = Measure(request.Ease),
            ClearSizes = request
                .Pockets.Where(p => !string.IsNullOrWhiteSpace(p.Clear))
                .ToImmutableDictionary(p => MeasureText.ParseSize(p.Nominal), p => MeasureText.ParseSize(p.Clear)),
            Form = form,
        };
        history.Touch([row]);
        row.Measure(measured.Checked());
        var units = await db.Units.Where(u => u.AlbumId == albumId).ToListAsync(cancel);
        // Cards of other pockets have another size now: their stories are set anew.
        await stories.FlowAnewInAsync(units, cancel);
        await history.SaveAsync(
            albumId,
            keeper.Id,
            $"Measured {measured.Design.Name}",
            units.Select(u => u.Id),
            cancel
        );
        var (recut, printed) = await WhatItMeansAsync(album, row.Id, before, row.ToProtector(), units, cancel);
        return new MeasuredAnswer(await albums.ViewAsync(albumId, cancel), recut, printed);
    }

    /// <summary>
    /// How many pieces are cut to another size now, and which were printed at one that is no longer right.
    /// </summary>
    private async Task<(int Recut, IReadOnlyList<string> Printed)> WhatItMeansAsync(
        Album album,
        Guid protectorId,
        Protector before,
        Protector now,
        List<AlbumUnit> units,
        CancellationToken cancel
    )
    {
        var leaves = await db
            .Leaves.AsNoTracking()
            .Where(l => l.AlbumId == album.Id && l.ProtectorId == protectorId)
            .ToDictionaryAsync(l => l.Id, cancel);
        var printed = await db
            .PrintedPieces.AsNoTracking()
            .Where(p => p.AlbumId == album.Id)
            .ToDictionaryAsync(p => p.PieceId, cancel);
        var (recut, says) = (0, new List<string>());
        foreach (
            var placement in units
                .Where(u => u.PiecesPlaced > 0)
                .OrderBy(u => u.Ordinal)
                .SelectMany(u => u.Read().Placements)
        )
        {
            if (
                !leaves.TryGetValue(placement.Place.LeafId, out var leaf)
                || now.Altered(leaf.ReadForm()).Design.Find(placement.Place.Side, placement.Place.PocketKey)
                    is not { } pocket
            )
            {
                continue;
            }

            var old = before.Altered(leaf.ReadForm()).Design.Find(placement.Place.Side, placement.Place.PocketKey);
            var cut = now.CutSize(pocket);
            if (printed.TryGetValue(placement.PieceId, out var was))
            {
                var size = new Size(was.CutWidth, was.CutHeight);
                if (size != cut)
                {
                    says.Add(
                        $"{was.Number} was printed at {MeasureText.Show(size, album.Measures)} and would be cut to "
                            + $"{MeasureText.Show(cut, album.Measures)} now"
                    );
                }
            }
            else if (old is null || cut != before.CutSize(old))
            {
                recut++;
            }
        }

        return (recut, says);
    }

    private static HolePattern? Read(HolesRequest request, Size outer) =>
        request switch
        {
            { Pattern: "" } => null,
            { FromTop: { Count: > 0 } fromTop, FromEdge: { } edge, Diameter: { } diameter } => HolePattern.Measured(
                outer.Height,
                MeasureText.ParseLength(edge),
                MeasureText.ParseLength(diameter),
                fromTop.Select(MeasureText.ParseLength)
            ),
            _ => HolePattern.Known.FirstOrDefault(h => h.Name == request.Pattern)
                ?? throw new RuleException(
                    $"There is no hole pattern “{request.Pattern}”. Nothing was changed: measure one protector instead."
                ),
        };

    /// <summary>A measure that may be nothing.</summary>
    private static Length Measure(string text) =>
        text.Trim().TrimEnd('.', 'm', 'i', 'n', ' ') == "0" ? Length.Zero : MeasureText.ParseLength(text);
}
