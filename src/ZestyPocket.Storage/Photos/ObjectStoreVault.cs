using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Photos;

/// <summary>
/// The vault in an object store, for several servers: originals and parked files lie there, and a folder of this
/// machine holds those that were used last. An original has the hash of its content for a name, so a copy can never be
/// old.
/// </summary>
/// <remarks>The store is asked with the thread waiting: readers of pictures are programs that want a file.</remarks>
public sealed class ObjectStoreVault(ObjectStore store, string folder, int localMegabytes) : IPhotoVault
{
    private const string Originals = "originals/";

    private const string Parked = "parked/";

    private readonly FolderVault _local = new(folder);

    public async Task<IArrivedFile> ReceiveAsync(Stream content, long most, CancellationToken cancel) =>
        new Arrived(store, await _local.ReceiveAsync(content, most, cancel));

    public IArrivedFile TakeUp(Guid key, StoredOriginal original)
    {
        ArgumentNullException.ThrowIfNull(original);
        // Parked here or at another server, or kept already before a crash: whichever is there.
        if (!File.Exists(PathOfParked(key)))
        {
            PathOf(original.Sha256);
        }

        return new Arrived(store, _local.TakeUp(key, original));
    }

    public string PathOfParked(Guid key) => Fetched(Parked + key.ToString("N"), _local.PathOfParked(key));

    public void DropParked(Guid key)
    {
        _local.DropParked(key);
        Wait(store.DeleteAsync(Parked + key.ToString("N"), CancellationToken.None));
    }

    public IReadOnlyList<Guid> ParkedBefore(DateTime instantUtc) =>
        [
            .. Wait(store.ListAsync(Parked, CancellationToken.None))
                .Where(o => o.AtUtc < instantUtc)
                .Select(o => Guid.ParseExact(o.Key[Parked.Length..], "N")),
        ];

    public string PathOf(ContentHash sha256) => Fetched(KeyOf(sha256), _local.PathOf(sha256));

    public void Remove(ContentHash sha256)
    {
        _local.Remove(sha256);
        Wait(store.DeleteAsync(KeyOf(sha256), CancellationToken.None));
    }

    public IReadOnlyList<ContentHash> KeptBefore(DateTime instantUtc) =>
        [
            .. Wait(store.ListAsync(Originals, CancellationToken.None))
                .Where(o => o.AtUtc < instantUtc)
                .Select(o =>
                    ContentHash.TryParse(o.Key.Split('/')[^1], out var hash) && o.Key == KeyOf(hash) ? hash : null
                )
                .OfType<ContentHash>(),
        ];

    public void SweepArriving(DateTime olderThanUtc)
    {
        _local.SweepArriving(olderThanUtc);
        _local.Bound(localMegabytes * 1_000_000L);
    }

    private static string KeyOf(ContentHash sha256)
    {
        var name = sha256.ToString();
        return $"{Originals}{name[..2]}/{name[2..4]}/{name}";
    }

    private string Fetched(string key, string path)
    {
        if (!File.Exists(path))
        {
            Wait(store.GetAsync(key, path, CancellationToken.None));
        }

        return path;
    }

    private static void Wait(Task task) => task.GetAwaiter().GetResult();

    private static T Wait<T>(Task<T> task) => task.GetAwaiter().GetResult();

    private sealed class Arrived(ObjectStore store, IArrivedFile local) : IArrivedFile
    {
        public string Path => local.Path;

        public StoredOriginal Original => local.Original;

        /// <summary>In the store before it has its place here: whoever finds it here may rely on it.</summary>
        public void Keep()
        {
            Wait(store.PutAsync(KeyOf(Original.Sha256), local.Path, CancellationToken.None));
            local.Keep();
        }

        public void Park(Guid key)
        {
            Wait(store.PutAsync(Parked + key.ToString("N"), local.Path, CancellationToken.None));
            local.Park(key);
        }

        public void Dispose() => local.Dispose();
    }
}
