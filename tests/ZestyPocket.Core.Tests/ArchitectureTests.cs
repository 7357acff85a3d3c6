using ZestyPocket.Core.Measures;

namespace ZestyPocket.Core.Tests;

/// <summary>The core stays the core: no clock, file, database, web or drawing can be reached from it.</summary>
public sealed class ArchitectureTests
{
    private static readonly string[] Allowed =
    [
        "NodaTime",
        "System.Runtime",
        "System.Collections",
        "System.Linq",
        "System.Text.RegularExpressions",
        "System.Memory",
        "System.Threading",
        // The outline of maps is unpacked from the assembly itself.
        "System.IO.Compression",
        // Names of colours, no drawing.
        "System.Drawing.Primitives",
    ];

    [Fact]
    public void The_core_depends_on_nothing_outward()
    {
        var references = typeof(Length).Assembly.GetReferencedAssemblies().Select(a => a.Name!).ToList();
        references.ShouldNotBeEmpty();
        references
            .Where(name => !Allowed.Any(a => name == a || name.StartsWith(a + ".", StringComparison.Ordinal)))
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData("DateTime.Now")]
    [InlineData("DateTime.UtcNow")]
    [InlineData("SystemClock")]
    [InlineData("new Random")]
    [InlineData("Random.Shared")]
    [InlineData("File.")]
    [InlineData("Guid.New")]
    [InlineData("Guid.CreateVersion7")]
    [InlineData("Console.")]
    public void The_core_reads_no_clock_no_chance_and_no_file(string forbidden)
    {
        var sources = Directory
            .GetFiles(Path.Combine(Repository.Root, "src", "ZestyPocket.Core"), "*.cs", SearchOption.AllDirectories)
            .Where(f =>
                !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)
            )
            .ToList();
        sources.Count.ShouldBeGreaterThan(20);
        sources.Where(f => File.ReadAllText(f).Contains(forbidden, StringComparison.Ordinal)).ShouldBeEmpty();
    }
}
