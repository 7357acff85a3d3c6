using System.Text.RegularExpressions;
using ZestyPocket.Server.Tests.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Features do not reach into each other: what two need lives in the core or in Shared. The arrows are drawn from what
/// each source file names; an unused using would not build.
/// </summary>
public sealed partial class FeatureGraphTests
{
    /// <summary>What every feature may use. The demo plays a keeper: it may use all, and is left out.</summary>
    private static readonly string[] Ground = ["Shared", "Hosting"];

    [GeneratedRegex(
        @"^using ZestyPocket\.Server\.(?<to>\w+);|\bZestyPocket\.Server\.(?<to>\w+)\.",
        RegexOptions.Multiline
    )]
    private static partial Regex Named();

    [GeneratedRegex(
        @"^(public|internal)[\w ]*\b(class|record|interface|enum|struct) (?<type>\w+)",
        RegexOptions.Multiline
    )]
    private static partial Regex Declared();

    private static Dictionary<string, HashSet<string>> Graph()
    {
        var server = Path.Combine(SourceTree.Root(), "src", "ZestyPocket.Server");
        var features = Directory
            .GetDirectories(server)
            .Select(d => Path.GetFileName(d)!)
            .Where(d => d is not ("bin" or "obj" or "Properties" or "Demo") && Sources(Path.Combine(server, d)).Any())
            .ToList();
        // Within a namespace another feature can also be named shortly, such as Placing.UnitEditor.
        var typesOf = features.ToDictionary(
            f => f,
            f =>
                Sources(Path.Combine(server, f))
                    .SelectMany(file => Declared().Matches(File.ReadAllText(file)))
                    .Select(m => m.Groups["type"].Value)
                    .ToHashSet()
        );
        var shortly = new Regex($@"(?<![.\w])(?<to>{string.Join('|', features)})\.(?<type>[A-Z]\w+)");
        return features.ToDictionary(
            f => f,
            f =>
                Sources(Path.Combine(server, f))
                    .Select(File.ReadAllText)
                    .Select(text => Regex.Replace(text, "//.*", string.Empty))
                    .SelectMany(text =>
                        Named()
                            .Matches(text)
                            .Concat(
                                shortly
                                    .Matches(text)
                                    .Where(m => typesOf[m.Groups["to"].Value].Contains(m.Groups["type"].Value))
                            )
                    )
                    .Select(m => m.Groups["to"].Value)
                    .Where(to => to != f && features.Contains(to))
                    .ToHashSet()
        );
    }

    private static IEnumerable<string> Sources(string folder) =>
        Directory.EnumerateFiles(folder, "*.cs", SearchOption.AllDirectories);

    [Fact]
    public void No_feature_reaches_into_another()
    {
        var graph = Graph();
        graph.Count.ShouldBeGreaterThan(8);
        foreach (var (feature, uses) in graph)
        {
            uses.Except(Ground).ShouldBeEmpty($"{feature} uses {string.Join(", ", uses)}");
        }

        graph["Hosting"].ShouldBeEmpty("the ground stands on nothing");
        graph["Shared"].Except(["Hosting"]).ShouldBeEmpty();
    }
}
