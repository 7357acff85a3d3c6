using ZestyPocket.Core;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Photos;

namespace ZestyPocket.Server.Hosting;

/// <summary>Who may use the program.</summary>
public enum SignInMode
{
    /// <summary>Whoever reaches it: one keeper on this machine.</summary>
    None,

    /// <summary>Those who have an account.</summary>
    Household,
}

/// <summary>Where things are kept; section <c>Zesty</c> of the configuration.</summary>
public sealed class ZestySettings
{
    /// <summary>Folder for photo originals, caches and printed files.</summary>
    public string DataFolder { get; set; } = ".data";

    /// <summary>Whether this process also works on print jobs.</summary>
    public bool RunJobs { get; set; } = true;

    public SignInMode SignIn { get; set; }

    /// <summary>
    /// An object store for originals and made files, for several servers; without one they lie in folders.
    /// </summary>
    public ObjectStoreSettings ObjectStore { get; set; } = new();

    /// <summary>
    /// Most of what one keeper may have in albums of their own, in millions of bytes; null for no end.
    /// </summary>
    public long? QuotaMegabytes { get; set; }

    /// <summary>
    /// Proxies that may say for whom they ask (<c>X-Forwarded-For</c>, <c>X-Forwarded-Proto</c>), as addresses or
    /// networks such as <c>10.0.0.0/8</c>. From anybody else these headers are passed over.
    /// </summary>
    public IReadOnlyList<string> TrustedProxies { get; set; } = [];

    /// <summary>Where traces and metrics go by OTLP, such as <c>http://127.0.0.1:4317</c>; null for nowhere.</summary>
    public string? TelemetryEndpoint { get; set; }

    /// <summary>Names of accounts that see the operator's page; none is the first account.</summary>
    public IReadOnlyList<string> Operators { get; set; } = [];

    /// <summary>Throws <see cref="RuleException"/> where nobody signs in.</summary>
    public void RequireHousehold()
    {
        if (SignIn != SignInMode.Household)
        {
            throw new RuleException(
                "Nobody signs in here, so nothing is shared. Nothing was changed: start it with ./start --household "
                    + "first."
            );
        }
    }

    /// <summary>Whether somebody sees the operator's page.</summary>
    public bool IsOperator(Guid keeperId, string name) =>
        Operators.Count == 0 ? keeperId == Keeper.LocalId : Operators.Contains(name);

    public string Vault => Path.Combine(DataFolder, "vault");

    /// <summary>Most of what is kept of painted pictures, in millions of bytes.</summary>
    public int CacheMegabytes { get; set; } = 2_000;

    public string Cache => Path.Combine(DataFolder, "cache");

    /// <summary>The folder of the simulated phone; in the data folder unless set.</summary>
    public string? Outbox { get; set; }

    public string OutboxFolder => Outbox ?? Path.Combine(DataFolder, "outbox");

    /// <summary>Where bundles are written to and read from; in the data folder unless set.</summary>
    public string? BackupFolder { get; set; }

    public string Backups => BackupFolder ?? Path.Combine(DataFolder, "backups");

    /// <summary>Where the post office puts letters.</summary>
    public string Letters => Path.Combine(DataFolder, "letters");

    /// <summary>How long drawn sheets, books and files for a lab are kept, in days; null for no end.</summary>
    public int? PrintsKeptDays { get; set; } = 60;

    /// <summary>Most of drawn sheets, books and files for a lab, in millions of bytes; null for no end.</summary>
    public long? PrintsMegabytes { get; set; } = 5_000;

    /// <summary>Most of one keeper's bundles, in millions of bytes; null for no end.</summary>
    public long? BundlesMegabytes { get; set; }

    /// <summary>
    /// How long a video stays of which nobody said that it is to be kept, in days; null for no end.
    /// </summary>
    public int? VideosKeptDays { get; set; } = 60;

    public string Prints => Path.Combine(DataFolder, "prints");
}
