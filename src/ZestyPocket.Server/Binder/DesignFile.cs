using System.Text.Json;
using ZestyPocket.Core;
using ZestyPocket.Core.Pages.Edits;

namespace ZestyPocket.Server.Binder;

/// <summary>
/// A collection of page designs as a file: the program's own JSON (<c>docs/formats.md</c>), or plain text with one
/// design a line, its name before a colon.
/// </summary>
public static class DesignFile
{
    private const int LongestFile = 500_000;
    private const string Format = "zesty-pocket-page-designs";

    /// <summary>
    /// The designs of a file, not yet looked at. Throws <see cref="RuleException"/> for no such file.
    /// </summary>
    public static IReadOnlyList<AddDesign> Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > LongestFile)
        {
            throw new RuleException(
                $"The file is longer than {LongestFile:N0} characters: that is no file of page designs. Nothing was "
                    + "kept."
            );
        }

        var found = text.TrimStart().StartsWith('{') ? FromJson(text) : FromText(text);
        return found.Count is > 0 and <= OwnDesigns.Most
            ? found
            : throw new RuleException(
                $"The file holds {found.Count} designs; 1 to {OwnDesigns.Most} can be taken at once. Nothing was "
                    + "kept."
            );
    }

    public static string Write(IEnumerable<OwnDesign> designs) =>
        JsonSerializer.Serialize(
            new Contents(Format, 1, [.. designs.Select(d => new ContentsDesign(d.Name, d.Notation))]),
            FileJson
        );

    private static readonly JsonSerializerOptions FileJson = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private static List<AddDesign> FromJson(string text)
    {
        try
        {
            var file = JsonSerializer.Deserialize<Contents>(text, FileJson);
            return file is { Format: Format, Version: 1 }
                ? [.. (file.Designs ?? []).Select(d => new AddDesign(d.Name, d.Notation ?? string.Empty))]
                : throw new RuleException("The file is not one of page designs of version 1. Nothing was kept.");
        }
        catch (JsonException broken)
        {
            throw new RuleException(
                $"The file cannot be read at line {(broken.LineNumber ?? 0) + 1}. Nothing was kept."
            );
        }
    }

    private static List<AddDesign> FromText(string text) =>
        [
            .. text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Where(line => !line.StartsWith('#'))
                .Select(line =>
                {
                    var colon = line.IndexOf(':', StringComparison.Ordinal);
                    return colon < 0
                        ? new AddDesign(null, line)
                        : new AddDesign(line[..colon].Trim(), line[(colon + 1)..].Trim());
                }),
        ];

    private sealed record Contents(string Format, int Version, IReadOnlyList<ContentsDesign>? Designs);

    private sealed record ContentsDesign(string? Name, string? Notation);
}
