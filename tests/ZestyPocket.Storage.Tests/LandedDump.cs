using System.IO.Compression;
using System.Text;

namespace ZestyPocket.Storage.Tests;

/// <summary>
/// A dump of a database with the demo, made by running a landed version of the program (see tests/Landed/README.md).
/// </summary>
internal static class LandedDump
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Landed");

    public static IEnumerable<string> Names =>
        Directory.GetFiles(Folder, "*.sql.gz").Select(f => Path.GetFileName(f)!).Order(StringComparer.Ordinal);

    /// <summary>The rows of a table by the names of their columns; a value that is missing is null.</summary>
    public static IEnumerable<Dictionary<string, string?>> Rows(string name, string table)
    {
        using var reader = new StreamReader(
            new GZipStream(File.OpenRead(Path.Combine(Folder, name)), CompressionMode.Decompress)
        );
        string[]? columns = null;
        while (reader.ReadLine() is { } line)
        {
            if (columns is null)
            {
                if (line.StartsWith($"COPY public.\"{table}\" (", StringComparison.Ordinal))
                {
                    columns = [.. line.Split('(', ')')[1].Split(", ").Select(c => c.Trim('"'))];
                }
            }
            else if (line == @"\.")
            {
                yield break;
            }
            else
            {
                yield return columns.Zip(line.Split('\t').Select(Unescaped)).ToDictionary(c => c.First, c => c.Second);
            }
        }
    }

    /// <summary>The text format of PostgreSQL's COPY.</summary>
    private static string? Unescaped(string text)
    {
        if (text == @"\N")
        {
            return null;
        }

        var plain = new StringBuilder(text.Length);
        for (var i = 0; i < text.Length; i++)
        {
            plain.Append(
                text[i] != '\\' || i + 1 == text.Length
                    ? text[i]
                    : text[++i] switch
                    {
                        'n' => '\n',
                        't' => '\t',
                        'r' => '\r',
                        var other => other,
                    }
            );
        }

        return plain.ToString();
    }
}
