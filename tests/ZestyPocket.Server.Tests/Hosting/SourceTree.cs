namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>The sources that the tests were built from, for rules about the text of the program itself.</summary>
internal static class SourceTree
{
    public static string Root()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "ZestyPocket.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
