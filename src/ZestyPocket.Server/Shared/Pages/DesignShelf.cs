using Microsoft.EntityFrameworkCore;
using ZestyPocket.Core.Pages;
using ZestyPocket.Server.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Albums;

namespace ZestyPocket.Server.Shared;

/// <summary>The page designs there are: those built in and the keeper's own collection.</summary>
public sealed class DesignShelf(ZestyContext db, ICurrentKeeper keeper)
{
    private List<KeeperDesign> _own = [];

    /// <summary>Reads the keeper's collection, for <see cref="Find"/>.</summary>
    public async Task<IReadOnlyList<KeeperDesign>> LoadAsync(CancellationToken cancel)
    {
        _own = await db
            .Designs.Where(d => d.KeeperId == keeper.Id && d.PutAwayAt == null)
            .OrderBy(d => d.MadeAt)
            .ThenBy(d => d.Id)
            .ToListAsync(cancel);
        return _own;
    }

    /// <summary>
    /// A design by its key; null when there is none. The keeper's own are known once they were loaded.
    /// </summary>
    public PageDesign? Find(string? key) =>
        key is null
            ? null
            : BuiltInDesigns.Find(key)
                ?? _own.Where(d => d.Key == key)
                    .Select(d => PageDesign.FromNotation(d.Key, d.Name, d.Notation))
                    .FirstOrDefault();

    /// <summary>
    /// An unmeasured protector; one of the keeper's own carries its notation, so that it outlives the collection.
    /// </summary>
    public Protector AsProtector(PageDesign design)
    {
        ArgumentNullException.ThrowIfNull(design);
        var protector = Protector.Unmeasured(design);
        return _own.Find(d => d.Key == design.Key) is { } own
            ? protector with
            {
                Form = protector.Form with { Name = own.Name, Notation = own.Notation },
            }
            : protector;
    }
}
