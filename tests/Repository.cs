namespace ZestyPocket.Tests;

/// <summary>Where the repository lies, for tests that use its scripts and the packages of the web client.</summary>
internal static class Repository
{
    public static string Root { get; } = Find();

    private static string Find()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            if (File.Exists(Path.Combine(folder.FullName, "ZestyPocket.slnx")))
            {
                return folder.FullName;
            }
        }

        throw new DirectoryNotFoundException("The tests do not run inside their repository.");
    }
}
