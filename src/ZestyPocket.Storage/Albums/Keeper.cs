using ZestyPocket.Core.Keeping;

namespace ZestyPocket.Storage.Albums;

/// <summary>Whose albums these are. One local keeper for now; sign-in and sharing come to this seam.</summary>
public sealed class Keeper
{
    /// <summary>The keeper of everything made on this machine without signing in.</summary>
    public static readonly Guid LocalId = new("00000000-0000-7000-8000-000000000001");

    public Guid Id { get; set; }

    public required string Name { get; set; }

    /// <summary>Everything is backed up by itself every so many days; null for never.</summary>
    public int? BackupEveryDays { get; set; }

    /// <summary>So many of those bundles are kept.</summary>
    public int BackupsKept { get; set; } = BackupRhythm.Never.Kept;

    public BackupRhythm Rhythm() => new(BackupEveryDays, BackupsKept);
}
