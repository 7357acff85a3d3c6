using NodaTime;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Importing;

/// <summary>A file that waits on the phone.</summary>
public sealed record OutboxFile(string Name, long Bytes, LocalDateTime Modified);

/// <summary>
/// Where the phone leaves its pictures. The shipped one is a folder that fills; a real service would do the same.
/// </summary>
public interface IPhoneOutbox
{
    /// <summary>Files that are whole: one that is still being written is not listed yet.</summary>
    IReadOnlyList<OutboxFile> List();

    Stream Open(string name);

    /// <summary>Called when the program has the file safe.</summary>
    void Remove(string name);
}

/// <summary>
/// The simulated phone: a watched folder, set by <c>Zesty:Outbox</c>, in the data folder unless changed.
/// </summary>
public sealed class FolderOutbox : IPhoneOutbox
{
    /// <summary>A file that changed this recently may still be growing.</summary>
    private static readonly TimeSpan Settled = TimeSpan.FromSeconds(1);

    private readonly string _folder;

    public FolderOutbox(ZestySettings settings)
    {
        ArgumentNullException.ThrowIfNull(settings);
        _folder = settings.OutboxFolder;
        Directory.CreateDirectory(_folder);
    }

    public IReadOnlyList<OutboxFile> List() =>
        [
            .. new DirectoryInfo(_folder)
                .EnumerateFiles()
                .Where(f => !f.Name.StartsWith('.') && IsPlain(f) && f.LastWriteTimeUtc < DateTime.UtcNow - Settled)
                .OrderBy(f => f.Name, StringComparer.Ordinal)
                .Select(f => new OutboxFile(f.Name, f.Length, LocalDateTime.FromDateTime(f.LastWriteTime))),
        ];

    /// <summary>Links could lead anywhere or nowhere, and a pipe never ends: only files are pictures.</summary>
    private static bool IsPlain(FileInfo file) =>
        file.LinkTarget is null
        && (file.Attributes & (FileAttributes.Device | FileAttributes.ReparsePoint | FileAttributes.Directory)) == 0
        && file.Length > 0;

    public Stream Open(string name) => File.OpenRead(PathOf(name));

    public void Remove(string name) => File.Delete(PathOf(name));

    /// <summary>Names are names of the folder's own files, never paths.</summary>
    private string PathOf(string name) => Path.Combine(_folder, Path.GetFileName(name));
}
