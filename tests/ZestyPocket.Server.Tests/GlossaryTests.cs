using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>What the glossary says instead of other words is what the screen says.</summary>
public sealed class GlossaryTests
{
    [Fact]
    public void No_text_of_the_screen_says_what_the_glossary_says_otherwise()
    {
        var root = SourceTree.Root();
        var rows = File.ReadAllLines(Path.Combine(root, "docs", "glossary.md"))
            .SkipWhile(l => !l.StartsWith("## Labels", StringComparison.Ordinal))
            .Where(l =>
                l.StartsWith("| ", StringComparison.Ordinal) && !l.Contains("instead of", StringComparison.Ordinal)
            )
            .Select(l => l.Split('|')[2].Trim())
            .ToList();
        rows.Count.ShouldBeGreaterThan(15);
        var unwanted = rows.SelectMany(r => r.Split(", ")).ToList();
        var files = new[] { "src/web/src", "src/ZestyPocket.Core", "src/ZestyPocket.Server", "src/ZestyPocket.Drawing" }
            .SelectMany(f => Directory.EnumerateFiles(Path.Combine(root, f), "*.*", SearchOption.AllDirectories))
            .Where(f => Path.GetExtension(f) is ".vue" or ".ts" or ".cs")
            .Where(f =>
                !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)
            )
            .ToList();
        files.Count.ShouldBeGreaterThan(200);
        files
            .SelectMany(f =>
                File.ReadLines(f)
                    .Where(line => !IsComment(line))
                    .SelectMany(line => unwanted.Where(u => Says(line, u)).Select(u => $"{Path.GetFileName(f)}: {u}"))
            )
            .ShouldBeEmpty();
    }

    private static bool IsComment(string line) =>
        line.TrimStart() is var text
        && (
            text.StartsWith("//", StringComparison.Ordinal)
            || text.StartsWith('*')
            || text.StartsWith("/*", StringComparison.Ordinal)
        );

    /// <summary>The words as they stand, not as a part of others.</summary>
    private static bool Says(string line, string words)
    {
        for (var at = line.IndexOf(words, StringComparison.Ordinal); at >= 0; )
        {
            var end = at + words.Length;
            if ((at == 0 || !char.IsLetter(line[at - 1])) && (end == line.Length || !char.IsLetter(line[end])))
            {
                return true;
            }

            at = line.IndexOf(words, end, StringComparison.Ordinal);
        }

        return false;
    }
}
