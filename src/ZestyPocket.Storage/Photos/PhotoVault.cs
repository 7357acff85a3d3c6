using System.Buffers;
using System.Security.Cryptography;

namespace ZestyPocket.Storage.Photos;

/// <summary>An original in the vault.</summary>
/// <param name="Sha256">Lower-case hex.</param>
/// <param name="Bytes">Its length.</param>
public sealed record StoredOriginal(string Sha256, long Bytes);

/// <summary>A file that has arrived but has not been accepted yet. Disposing it without keeping throws it away.</summary>
public interface IArrivedFile : IDisposable
{
    string Path { get; }

    StoredOriginal Original { get; }

    /// <summary>Moves the file into the vault; the same content twice is one file.</summary>
    void Keep();
}

/// <summary>Where the originals lie, under the hash of their content.</summary>
public interface IPhotoVault
{
    /// <summary>
    /// Takes a stream in under a temporary name, hashed and flushed to disk. Reads at most <paramref name="most"/> + 1
    /// bytes, so that an endless stream ends.
    /// </summary>
    Task<IArrivedFile> ReceiveAsync(Stream content, long most, CancellationToken cancel);

    /// <summary>The file of an original.</summary>
    string PathOf(string sha256);
}

/// <summary>The vault as files on disk: <c>ab/cd/abcd…</c>.</summary>
public sealed class FolderVault : IPhotoVault
{
    private readonly string _root;
    private readonly string _arriving;

    public FolderVault(string root)
    {
        _root = root;
        _arriving = Path.Combine(root, "arriving");
        Directory.CreateDirectory(_arriving);
    }

    public string PathOf(string sha256)
    {
        ArgumentNullException.ThrowIfNull(sha256);
        return Path.Combine(_root, sha256[..2], sha256[2..4], sha256);
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
            await using (var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1, FileOptions.Asynchronous))
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

            var sha = Convert.ToHexStringLower(hash.GetHashAndReset());
            return new Arrived(path, PathOf(sha), new StoredOriginal(sha, total));
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

    private sealed class Arrived(string path, string target, StoredOriginal original) : IArrivedFile
    {
        public string Path { get; private set; } = path;

        public StoredOriginal Original { get; } = original;

        public void Keep()
        {
            Directory.CreateDirectory(System.IO.Path.GetDirectoryName(target)!);
            File.Move(Path, target, overwrite: true);
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
