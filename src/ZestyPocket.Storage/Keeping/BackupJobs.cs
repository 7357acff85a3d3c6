using ZestyPocket.Storage.Jobs;

namespace ZestyPocket.Storage.Keeping;

/// <summary>A bundle that is written: one album, or all that a keeper has.</summary>
public sealed class Backup : AskedJob
{
    public List<Guid> AlbumIds { get; set; } = [];

    /// <summary>In the folder of backups.</summary>
    public required string FileName { get; set; }

    /// <summary>It was due, nobody asked for it.</summary>
    public bool Scheduled { get; set; }

    public long Bytes { get; set; }

    public int FilesDone { get; set; }

    public int FilesTotal { get; set; }

    /// <summary>Lines of what could not be taken along.</summary>
    public List<string> Report { get; set; } = [];
}

/// <summary>A bundle that is read back.</summary>
public sealed class Restore : AskedJob
{
    /// <summary>The file's path, in the folder of backups.</summary>
    public required string FileName { get; set; }

    public int FilesDone { get; set; }

    /// <summary>The albums that were made from it.</summary>
    public List<Guid> AlbumIds { get; set; } = [];

    /// <summary>What came back and what did not, a line each.</summary>
    public List<string> Report { get; set; } = [];
}
