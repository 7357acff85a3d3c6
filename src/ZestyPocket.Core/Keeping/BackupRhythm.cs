using NodaTime;

namespace ZestyPocket.Core.Keeping;

/// <summary>How often everything is backed up by itself, and how many such bundles are kept.</summary>
/// <param name="EveryDays">1 to 90; null for never.</param>
/// <param name="Kept">1 to 50.</param>
public sealed record BackupRhythm(int? EveryDays, int Kept)
{
    public static BackupRhythm Never { get; } = new(null, 5);

    /// <summary>Throws <see cref="RuleException"/> for what makes no sense.</summary>
    public BackupRhythm Checked() =>
        EveryDays is < 1 or > 90 ? throw new RuleException("Back up every 1 to 90 days. Nothing was changed.")
        : Kept is < 1 or > 50 ? throw new RuleException("Keep 1 to 50 bundles. Nothing was changed.")
        : this;

    /// <summary>Whether one is due.</summary>
    /// <param name="last">When the last one was begun; null when there is none.</param>
    public bool IsDue(Instant? last, Instant now) =>
        EveryDays is { } days && (last is not { } then || now - then >= Duration.FromDays(days));

    /// <summary>The bundles that are one too many: all but the newest.</summary>
    /// <param name="whole">Those that are whole, in any order.</param>
    public IReadOnlyList<Guid> TooMany(IEnumerable<(Guid Id, Instant MadeAt)> whole) =>
        [.. whole.OrderByDescending(b => b.MadeAt).ThenByDescending(b => b.Id).Skip(Kept).Select(b => b.Id)];
}
