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

    public string Prints => Path.Combine(DataFolder, "prints");
}
