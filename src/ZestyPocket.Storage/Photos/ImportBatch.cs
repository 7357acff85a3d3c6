using NodaTime;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Photos;

public enum ImportState
{
    /// <summary>Files are still being sent.</summary>
    Receiving,

    /// <summary>All files are here; the job works on them.</summary>
    Working,
    Done,
    Cancelled,
}

public enum ImportSource
{
    Files,
    Outbox,

    /// <summary>Somebody with a contributor's link.</summary>
    Contributor,
}

/// <summary>
/// Files that come into an album together. Its job survives a restart; every file ends with one line.
/// </summary>
public sealed class ImportBatch
{
    public Guid Id { get; set; }

    public Guid AlbumId { get; set; }

    public Guid KeeperId { get; set; }

    public ImportSource Source { get; set; }

    public ImportState State { get; set; }

    public bool CancelAsked { get; set; }

    public Instant MadeAt { get; set; }

    public Instant? EndedAt { get; set; }

    public List<ImportFile> Files { get; set; } = [];
}

public enum ImportStatus
{
    Waiting,
    Added,
    AlreadyHere,
    Refused,
    Cancelled,

    /// <summary>A zip whose files have lines of their own.</summary>
    Opened,
}

/// <summary>One file of an import and what became of it.</summary>
public sealed class ImportFile
{
    public Guid Id { get; set; }

    public Guid BatchId { get; set; }

    /// <summary>
    /// Chosen by the sender and unique in the batch: a file sent again after a lost answer is the same file.
    /// </summary>
    public required string Key { get; set; }

    /// <summary>In the order of arrival.</summary>
    public long Sequence { get; set; }

    public required string FileName { get; set; }

    /// <summary>The zip it lies in; null for a file that was sent by itself.</summary>
    public Guid? ZipFileId { get; set; }

    /// <summary>Its place in the zip.</summary>
    public int? ZipEntry { get; set; }

    /// <summary>SHA-256 of what was received; null while it is still inside its zip.</summary>
    public ContentHash? Sha256 { get; set; }

    public long Bytes { get; set; }

    /// <summary>When the file was last changed where it came from, as far as the sender knows.</summary>
    public LocalDateTime? Modified { get; set; }

    /// <summary>The day that its folders are named for; null when they are not.</summary>
    public LocalDate? FolderDay { get; set; }

    public ImportStatus Status { get; set; }

    /// <summary>It took too long at first and is taken up last, so that the others do not wait for it.</summary>
    public bool SetAside { get; set; }

    /// <summary>Where it went, or why it was refused and what to do.</summary>
    public string Detail { get; set; } = string.Empty;

    public Guid? PhotoId { get; set; }

    public Guid? UnitId { get; set; }
}
