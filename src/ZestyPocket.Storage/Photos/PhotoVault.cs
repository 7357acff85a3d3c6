using System.Buffers;
using System.Security.Cryptography;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Photos;

/// <summary>An original in the vault.</summary>
/// <param name="Bytes">Its length.</param>
public sealed record StoredOriginal(ContentHash Sha256, long Bytes);

/// <summary>
/// A file that has arrived but has not been accepted yet. Disposing it without keeping throws it away.
/// </summary>
public interface IArrivedFile : IDisposable
{
    string Path { get; }

    StoredOriginal Original { get; }

    /// <summary>Moves the file into the vault; the same content twice is one file.</summary>
    void Keep();

    /// <summary>Sets the file aside under a key, to be taken up again later, also after a restart.</summary>
    void Park(Guid key);
}

/// <summary>Where the originals lie, under the hash of their content.</summary>
public interface IPhotoVault
{
    /// <summary>
    /// Takes a stream in under a temporary name, hashed and flushed to disk. Reads at most <paramref name="most"/> + 1
    /// bytes, so that an endless stream ends.
    /// </summary>
    Task<IArrivedFile> ReceiveAsync(Stream content, long most, CancellationToken cancel);

    /// <summary>
    /// Takes a parked file up again. When it was kept already, before a crash, it is the one in the vault. Throws
    /// <see cref="FileNotFoundException"/> when it is in neither place.
    /// </summary>
    IArrivedFile TakeUp(Guid key, StoredOriginal original);

    /// <summary>The path of a parked file that is read in place, such as a zip.</summary>
    string PathOfParked(Guid key);

    /// <summary>Throws a parked file away; one that is not there is no error.</summary>
    void DropParked(Guid key);

    /// <summary>The parked files that arrived before an instant.</summary>
    IReadOnlyList<Guid> ParkedBefore(DateTime instantUtc);

    /// <summary>The file of an original.</summary>
    string PathOf(ContentHash sha256);

    /// <summary>Throws a kept file away; one that is not there is no error.</summary>
    void Remove(ContentHash sha256);

    /// <summary>The originals that came before an instant; other files in the vault are none.</summary>
    IReadOnlyList<ContentHash> KeptBefore(DateTime instantUtc);

    /// <summary>Throws away what arrived before an instant and was never taken: leftovers of a crash.</summary>
    void SweepArriving(DateTime olderThanUtc);
}

/// <summary>The vault as files on disk: <c>ab/cd/abcd…</c>.</summary>
public sealed class FolderVault : IPhotoVault
{
    private readonly string _root;
    private readonly string _arriving;
    private readonly string _parked;

    public FolderVault(string root)
    {
        _root = Path.GetFullPath(root);
        (_arriving, _parked) = (Path.Combine(root, "arriving"), Path.Combine(root, "parked"));
        Directory.CreateDirectory(_arriving);
        Directory.CreateDirectory(_parked);
    }

    public string PathOfParked(Guid key) => Path.Combine(_parked, key.ToString("N"));

    public void DropParked(Guid key) => File.Delete(PathOfParked(key));

    public IReadOnlyList<Guid> ParkedBefore(DateTime instantUtc) =>
        [
            .. new DirectoryInfo(_parked)
                .EnumerateFiles()
                .Where(f => f.LastWriteTimeUtc < instantUtc)
                .Select(f => Guid.ParseExact(f.Name, "N")),
        ];

    public IReadOnlyList<ContentHash> KeptBefore(DateTime instantUtc) =>
        [
            .. new DirectoryInfo(_root)
                .EnumerateFiles("*", SearchOption.AllDirectories)
                .Where(f => f.LastWriteTimeUtc < instantUtc)
                .Select(f => ContentHash.TryParse(f.Name, out var hash) && f.FullName == PathOf(hash) ? hash : null)
                .OfType<ContentHash>(),
        ];

    public IArrivedFile TakeUp(Guid key, StoredOriginal original)
    {
        ArgumentNullException.ThrowIfNull(original);
        var (parked, kept) = (PathOfParked(key), PathOf(original.Sha256));
        var path =
            File.Exists(parked) ? parked
            : File.Exists(kept) ? kept
            : throw new FileNotFoundException("The file that was received is not there any more.", parked);
        return new TakenUp(path, kept, original);
    }

    public void SweepArriving(DateTime olderThanUtc)
    {
        foreach (
            var file in new DirectoryInfo(_arriving).EnumerateFiles().Where(f => f.LastWriteTimeUtc < olderThanUtc)
        )
        {
            file.Delete();
        }
    }

    /// <summary>
    /// Keeps no more than so many bytes of originals, those that were used last; only where they lie elsewhere too.
    /// </summary>
    internal void Bound(long most)
    {
        var kept = new DirectoryInfo(_root)
            .EnumerateFiles("*", SearchOption.AllDirectories)
            .Where(f => f.Name.Length == 64)
            .OrderByDescending(f => f.LastAccessTimeUtc)
            .ToList();
        var total = 0L;
        foreach (var file in kept)
        {
            total += file.Length;
            if (total > most)
            {
                file.Delete();
            }
        }
    }

    public void Remove(ContentHash sha256)
    {
        if (File.Exists(PathOf(sha256)))
        {
            File.Delete(PathOf(sha256));
        }
    }

    public string PathOf(ContentHash sha256)
    {
        ArgumentNullException.ThrowIfNull(sha256);
        var name = sha256.ToString();
        return Path.Combine(_root, name[..2], name[2..4], name);
    }

    public async Task<IArrivedFile> ReceiveAsync(Stream content, long most, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(content);
        var path = Path.Combine(_arriving, Guid.NewGuid().ToString("N"));
        var buffer = ArrayPool<byte>.Shared.Rent(1 << 17);
        try
        {
            using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
            long total = 0;
            await using (
                var file = new FileStream(
                    path,
                    FileMode.CreateNew,
                    FileAccess.Write,
                    FileShare.None,
                    1,
                    FileOptions.Asynchronous
                )
            )
            {
                int read;
                while (total <= most && (read = await content.ReadAsync(buffer, cancel)) > 0)
                {
                    hash.AppendData(buffer, 0, read);
                    await file.WriteAsync(buffer.AsMemory(0, read), cancel);
                    total += read;
                }

                file.Flush(flushToDisk: true);
            }

            var sha = ContentHash.Of(hash.GetHashAndReset());
            return new Arrived(path, PathOf(sha), new StoredOriginal(sha, total), PathOfParked);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }
    }

    /// <summary>
    /// A file taken up from where it was parked: when anything goes wrong it stays there for the next try.
    /// </summary>
    private sealed class TakenUp(string path, string target, StoredOriginal original) : IArrivedFile
    {
        public string Path { get; private set; } = path;

        public StoredOriginal Original { get; } = original;

        public void Keep() => Path = MoveInto(Path, target);

        public void Park(Guid key) => throw new InvalidOperationException("The file is parked already.");

        public void Dispose() { }
    }

    private static string MoveInto(string path, string target)
    {
        if (path != target)
        {
            Directory.CreateDirectory(System.IO.Path.GetDirectoryName(target)!);
            File.Move(path, target, overwrite: true);
        }

        return target;
    }

    private sealed class Arrived(string path, string target, StoredOriginal original, Func<Guid, string> parked)
        : IArrivedFile
    {
        public string Path { get; private set; } = path;

        public StoredOriginal Original { get; } = original;

        public void Keep() => Path = MoveInto(Path, target);

        public void Park(Guid key)
        {
            File.Move(Path, parked(key), overwrite: true);
            Path = target;
        }

        public void Dispose()
        {
            if (Path != target)
            {
                File.Delete(Path);
            }
        }
    }
}
