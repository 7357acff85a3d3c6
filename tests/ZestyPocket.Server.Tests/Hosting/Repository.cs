namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>Where the repository lies, for tests that use its scripts and the packages of the web client.</summary>
public static class Repository
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
