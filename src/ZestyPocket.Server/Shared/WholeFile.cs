namespace ZestyPocket.Server.Shared;

/// <summary>Writes files that are there whole or not at all, whenever the program or the work on them ends.</summary>
public static class WholeFile
{
    /// <summary>
    /// Has a file written under a longer name beside its own, which it takes when the writing has ended well. What a
    /// crash leaves under the longer name is swept by the recoveries.
    /// </summary>
    /// <param name="write">Gets the path to write to, of a file that is not there yet.</param>
    public static async Task WriteAsync(string path, Func<string, Task> write)
    {
        ArgumentNullException.ThrowIfNull(write);
        Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(path))!);
        var temporary = $"{path}.{Guid.NewGuid():N}";
        try
        {
            await write(temporary);
            File.Move(temporary, path, overwrite: true);
        }
        finally
        {
            File.Delete(temporary);
        }
    }
}
