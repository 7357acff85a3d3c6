using NodaTime;
using ZestyPocket.Core.Keeping;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Storage.Jobs;

/// <summary>
/// Files that jobs make or work on, such as a PDF or a bundle: made at one server and fetched at any. Where servers
/// share a folder there is nothing to do.
/// </summary>
public interface IMadeFiles
{
    /// <summary>After a file was made, before the job says that it is done.</summary>
    Task ShareAsync(string path, CancellationToken cancel);

    /// <summary>The file on this machine; null when it is nowhere.</summary>
    Task<string?> FetchAsync(string path, CancellationToken cancel);

    /// <summary>Away from this machine and from where others would fetch it.</summary>
    Task RemoveAsync(string path, CancellationToken cancel);

    /// <summary>
    /// The whole files of a folder of this machine, and those that others would fetch into one: a store keeps them
    /// under their names alone.
    /// </summary>
    Task<IReadOnlyList<MadeFile>> ListAsync(string folder, CancellationToken cancel);

    /// <summary>Whether nobody but this program puts files there.</summary>
    bool IsOwn { get; }
}

/// <summary>In a folder that all servers have.</summary>
public sealed class MadeFilesInFolder : IMadeFiles
{
    public bool IsOwn => false;

    public Task ShareAsync(string path, CancellationToken cancel) => Task.CompletedTask;

    public Task<string?> FetchAsync(string path, CancellationToken cancel) =>
        Task.FromResult(File.Exists(path) ? path : null);

    public Task RemoveAsync(string path, CancellationToken cancel)
    {
        File.Delete(path);
        return Task.CompletedTask;
    }

    public Task<IReadOnlyList<MadeFile>> ListAsync(string folder, CancellationToken cancel) =>
        Task.FromResult(Here(folder));

    internal static IReadOnlyList<MadeFile> Here(string folder) =>
        new DirectoryInfo(folder) is { Exists: true } there
            ?
            [
                .. there
                    .EnumerateFiles()
                    .Select(f => new MadeFile(f.Name, f.Length, Instant.FromDateTimeUtc(f.LastWriteTimeUtc))),
            ]
            : [];
}

/// <summary>In an object store, under the name of the file.</summary>
public sealed class MadeFilesInStore(ObjectStore store) : IMadeFiles
{
    public bool IsOwn => true;

    private const string Prefix = "made/";

    private static string KeyOf(string path) => Prefix + Path.GetFileName(path);

    public Task ShareAsync(string path, CancellationToken cancel) => store.PutAsync(KeyOf(path), path, cancel);

    public async Task<string?> FetchAsync(string path, CancellationToken cancel) =>
        File.Exists(path) || await store.GetAsync(KeyOf(path), path, cancel) ? path : null;

    public Task RemoveAsync(string path, CancellationToken cancel)
    {
        File.Delete(path);
        return store.DeleteAsync(KeyOf(path), cancel);
    }

    public async Task<IReadOnlyList<MadeFile>> ListAsync(string folder, CancellationToken cancel) =>
        [
            .. MadeFilesInFolder
                .Here(folder)
                .Concat(
                    (await store.ListAsync(Prefix, cancel)).Select(o => new MadeFile(
                        o.Key[Prefix.Length..],
                        o.Bytes,
                        Instant.FromDateTimeUtc(o.AtUtc)
                    ))
                )
                .GroupBy(f => f.Name)
                .Select(g => g.MaxBy(f => f.At)),
        ];
}
