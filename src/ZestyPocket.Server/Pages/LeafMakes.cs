using ZestyPocket.Core;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Counting;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Pages;

/// <summary>A kind of leaf that an album may not have yet.</summary>
/// <param name="Kind">
/// Pockets for a design by key; a page outside the pockets, a fold-out, a divider, the envelope.
/// </param>
/// <param name="DesignKey">Of a design, built in or from the keeper's collection.</param>
/// <param name="Size">
/// Of a page outside the pockets or a fold-out; the outer size of the album's protectors when it is not given.
/// </param>
/// <param name="Fold">How far from the ring edge a fold-out is folded.</param>
public sealed record MakeRequest(LeafKind Kind, string? DesignKey = null, string? Size = null, string? Fold = null);

/// <summary>The makes of leaf that an album uses: designs of pockets, and leaves outside the pockets.</summary>
public sealed class LeafMakes(
    ZestyContext db,
    DesignShelf designs,
    Binder binder,
    History history,
    ICurrentKeeper keeper
)
{
    /// <summary>Lets the album use a make of leaf.</summary>
    public async Task<LeavesAnswer> UseAsync(Guid albumId, MakeRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        await binder.LoadAsync(albumId, cancel);
        await designs.LoadAsync(cancel);
        var row = Known(binder, request);
        if (row is { Gone: false })
        {
            throw new RuleException($"The album uses “{row.ToProtector().Design.Name}” already. Nothing was changed.");
        }

        var made = row ?? Add(binder, Protector(binder, request));
        history.Touch([made]);
        made.Gone = false;
        return await SaveAsync($"The album uses “{made.ToProtector().Design.Name}”", cancel);
    }

    /// <summary>The album does not take a make any more; its leaves of it stay as they are.</summary>
    public async Task<LeavesAnswer> GiveUpAsync(Guid albumId, Guid protectorId, CancellationToken cancel)
    {
        await binder.LoadAsync(albumId, cancel);
        var row =
            binder.Album.Protectors.Find(p => p.Id == protectorId && !p.Gone)
            ?? throw new MissingException("The page design");
        if (
            binder.Album.Protectors.TrueForAll(p =>
                p.Gone || p.Id == protectorId || p.ToProtector().Form.Kind != LeafKind.Pockets
            )
        )
        {
            throw new RuleException("An album uses at least one page design. Nothing was changed.");
        }

        history.Touch([row]);
        row.Gone = true;
        return await SaveAsync($"The album takes no more of “{row.ToProtector().Design.Name}”", cancel);
    }

    /// <summary>The album's protector of a make, added within the edit under way when it has none.</summary>
    public async Task<Guid> FindAsync(Binder under, MakeRequest request, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(under);
        ArgumentNullException.ThrowIfNull(request);
        await designs.LoadAsync(cancel);
        var row = Known(under, request) ?? Add(under, Protector(under, request));
        history.Touch([row]);
        row.Gone = false;
        return row.Id;
    }

    private AlbumProtector? Known(Binder under, MakeRequest request)
    {
        if (request.Kind == LeafKind.Pockets)
        {
            return under.Album.Protectors.Find(p => p.DesignKey == request.DesignKey);
        }

        var wanted = Protector(under, request);
        return under.Album.Protectors.Find(p => p.DesignKey == wanted.Design.Key);
    }

    private AlbumProtector Add(Binder under, Protector protector)
    {
        var row = AlbumProtector.From(protector, under.Album.Protectors.Count);
        // Undoing it is the state before: not used.
        (row.AlbumId, row.Gone) = (under.Album.Id, true);
        db.Protectors.Add(row);
        under.Know(row);
        return row;
    }

    private Protector Protector(Binder under, MakeRequest request)
    {
        var album = under.Album;
        var usual = under
            .Album.Protectors.OrderBy(p => p.Ordinal)
            .Select(p => p.ToProtector())
            .First(p => p.Form.Kind == LeafKind.Pockets);
        switch (request.Kind)
        {
            case LeafKind.Sheet:
            {
                var size = string.IsNullOrWhiteSpace(request.Size) ? usual.Outer : MeasureText.ParseSize(request.Size);
                return Core
                    .Pages.Protector.Sheet($"sheet-{size.Width.Emu}x{size.Height.Emu}", size, usual.RingStrip)
                    .Like(usual)
                    .Checked();
            }

            case LeafKind.FoldOut:
            {
                var size = string.IsNullOrWhiteSpace(request.Size)
                    ? throw new RuleException(
                        "A fold-out needs the size of its sheet, such as 6x8. Nothing was changed."
                    )
                    : MeasureText.ParseSize(request.Size);
                var fold = string.IsNullOrWhiteSpace(request.Fold)
                    ? throw new RuleException(
                        "A fold-out needs the distance from the ring edge to the fold, such as 3 1/2 in. Nothing "
                            + "was changed."
                    )
                    : MeasureText.ParseLength(request.Fold);
                if (fold > usual.Outer.Width || size.Height > usual.Outer.Height)
                {
                    throw new RuleException(
                        $"Folded, the sheet would be {MeasureText.ShortName(new Size(fold, size.Height))} and stick "
                            + $"out of pages of {MeasureText.ShortName(usual.Outer)}. Nothing was changed: fold it "
                            + "nearer to the rings or cut it lower."
                    );
                }

                return Core
                    .Pages.Protector.FoldOut(
                        $"foldout-{size.Width.Emu}x{size.Height.Emu}-{fold.Emu}",
                        size,
                        fold,
                        usual.RingStrip
                    )
                    .Like(usual)
                    .Checked();
            }

            case LeafKind.Divider:
            case LeafKind.Envelope:
                return Core
                    .Pages.Protector.WithoutPockets(
                        request.Kind == LeafKind.Divider ? "divider" : "envelope",
                        request.Kind,
                        usual.Outer,
                        usual.RingStrip
                    )
                    .Like(usual);

            default:
                var design =
                    designs.Find(request.DesignKey)
                    ?? throw new RuleException($"There is no page design “{request.DesignKey}”. Nothing was changed.");
                if (design.Body.Width > album.BodyWidth || design.Body.Height > album.BodyHeight)
                {
                    throw new RuleException(
                        $"“{design.Name}” is for pages of {design.Body}; this album's pages are "
                            + $"{new Size(album.BodyWidth, album.BodyHeight)}, and a leaf cannot be larger than "
                            + "they are. Nothing was changed."
                    );
                }

                return designs.AsProtector(design).Like(usual);
        }
    }

    private async Task<LeavesAnswer> SaveAsync(string done, CancellationToken cancel) =>
        new(
            done,
            await history.SaveAsync(binder.Album.Id, keeper.Id, done, binder.Units.Select(u => u.Id), cancel),
            []
        );
}
