using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using ZestyPocket.Storage.Documents;

namespace ZestyPocket.Storage.Tests;

/// <summary>
/// Every document of every landed version is read, and what it said is said by the present version of it too, field by
/// field. The dumps were made by running those versions.
/// </summary>
public sealed partial class LandedDocumentTests
{
    public static TheoryData<string> Dumps => [.. LandedDump.Names];

    /// <summary>What earlier versions wrote though it follows from the rest, or what lives elsewhere now.</summary>
    [GeneratedRegex(
        """
            (^|\.)(loose|photosPlaced|cardsOfWords|hasTitle|isMerged|weight|numbers|code|isAltered)(\b|\[)
            |(^|\.)(luminance|hex|isPlain|hours|weeks|travel|styles)(\b|\[)
            |^(content\.)?inEnvelope\b
            |^(content\.)?(pieces\[\d+\]|wishes\[\d+\])\.(size|photos|body)\b
            |^(formulas\.)?all\[\d+\]\.pieces$
            |oxes\[\d+\]\.(right|bottom)$
            |^(calendar\.)?(people|knownWords)\b
            """,
        RegexOptions.IgnorePatternWhitespace | RegexOptions.CultureInvariant
    )]
    private static partial Regex NotStored();

    [Theory]
    [MemberData(nameof(Dumps))]
    public void Every_document_says_what_it_said(string dump)
    {
        var looked = new Dictionary<string, int>();
        foreach (var (kind, json) in DocumentsOf(dump))
        {
            var now = Fields(JsonNode.Parse(Again(kind, json))!);
            foreach (var (path, value) in Fields(Wrapped(kind, JsonNode.Parse(json)!)))
            {
                if (!NotStored().IsMatch(path))
                {
                    now.ShouldContainKeyAndValue(path, value, $"{dump}, {kind}: {json[..Math.Min(json.Length, 300)]}");
                }
            }

            looked[kind] = looked.GetValueOrDefault(kind) + 1;
        }

        foreach (var kind in new[] { "content", "unit", "sizes" })
        {
            looked.GetValueOrDefault(kind).ShouldBeGreaterThan(2, $"{dump} holds documents of {kind}");
        }
    }

    /// <summary>People and words stood in the calendar once: they are with the words of the album now.</summary>
    [Theory]
    [MemberData(nameof(Dumps))]
    public void People_of_an_undone_edit_are_found_with_the_words(string dump)
    {
        foreach (var (_, json) in DocumentsOf(dump).Where(d => d.Kind == "album"))
        {
            var old = JsonNode.Parse(json)!;
            if (old["words"] is null && old["calendar"]?["people"] is JsonArray people)
            {
                var now = JsonNode.Parse(Again("album", json))!;
                now["words"]!["people"]!.AsArray().Count.ShouldBe(people.Count);
            }
        }
    }

    private static string Again(string kind, string json) =>
        kind switch
        {
            "content" => Again(StoredDocuments.Content, json),
            "calendar" => Again(StoredDocuments.Calendar, json),
            "words" => Again(StoredDocuments.Words, json),
            "formulas" => Again(StoredDocuments.Formulas, json),
            "leafForm" => Again(StoredDocuments.LeafAlterations, json),
            "protectorForm" => Again(StoredDocuments.ProtectorForm, json),
            "sizes" => Again(StoredDocuments.ClearSizes, json),
            "boxes" => Again(StoredDocuments.Boxes, json),
            "palette" => Again(StoredDocuments.Palette, json),
            "unit" => Again(StoredDocuments.UnitState, json),
            "leaf" => Again(StoredDocuments.LeafState, json),
            "album" => Again(StoredDocuments.AlbumState, json),
            "protector" => Again(StoredDocuments.ProtectorState, json),
            "photo" => Again(StoredDocuments.PhotoState, json),
            "story" => Again(StoredDocuments.StoryState, json),
            _ => throw new ArgumentException($"No document is called {kind}.", nameof(kind)),
        };

    /// <summary>Written by the present version, and read and written once more: the same.</summary>
    private static string Again<T>(StoredDocument<T> document, string json)
        where T : notnull
    {
        var written = document.Write(document.Read(json));
        document.Write(document.Read(written)).ShouldBe(written);
        return written;
    }

    private static IEnumerable<(string Kind, string Json)> DocumentsOf(string dump)
    {
        foreach (
            var (table, column, kind) in new[]
            {
                ("Units", "Content", "content"),
                ("Albums", "Calendar", "calendar"),
                ("Albums", "Words", "words"),
                ("Albums", "Formulas", "formulas"),
                ("Leaves", "Form", "leafForm"),
                ("Protectors", "Form", "protectorForm"),
                ("Protectors", "ClearSizes", "sizes"),
                ("Photos", "KeepBoxes", "boxes"),
                ("Photos", "CoverBoxes", "boxes"),
                ("Photos", "Palette", "palette"),
            }
        )
        {
            foreach (var row in LandedDump.Rows(dump, table))
            {
                if (row.GetValueOrDefault(column) is { } json and not "{}")
                {
                    yield return (kind, json);
                }
            }
        }

        foreach (var change in LandedDump.Rows(dump, "EditChange"))
        {
            var kind = change["Subject"]!.ToLowerInvariant();
            yield return (kind, change["Before"]!);
            yield return (kind, change["After"]!);
        }
    }

    /// <summary>An old document with what is within others, or a list, where it is now.</summary>
    private static JsonNode Wrapped(string kind, JsonNode old)
    {
        switch (kind)
        {
            case "sizes" when old is JsonArray:
                return new JsonObject { ["sizes"] = CamelCased(old) };
            case "boxes" when old is JsonArray:
                return new JsonObject { ["boxes"] = old.DeepClone() };
            case "palette" when old is JsonArray:
                return new JsonObject { ["colours"] = old.DeepClone() };
            case "unit" when old["content"] is null:
                return new JsonObject { ["content"] = old.DeepClone() };
            case "protector" when old["clearSizes"] is JsonValue text:
                old["clearSizes"] = CamelCased(JsonNode.Parse(text.GetValue<string>())!);
                return old;
            case "photo":
                foreach (var name in new[] { "keepBoxes", "coverBoxes" })
                {
                    if (old[name] is JsonValue text)
                    {
                        old[name] = JsonNode.Parse(text.GetValue<string>());
                    }
                }

                return old;
            default:
                return old;
        }
    }

    private static JsonArray CamelCased(JsonNode sizes) =>
        [
            .. sizes
                .AsArray()
                .Select(size => new JsonObject(
                    size!
                        .AsObject()
                        .Select(p =>
                            KeyValuePair.Create(char.ToLowerInvariant(p.Key[0]) + p.Key[1..], p.Value?.DeepClone())
                        )
                )),
        ];

    /// <summary>Every value by its path; numbers as numbers, nothing for null.</summary>
    private static Dictionary<string, string> Fields(JsonNode node)
    {
        var fields = new Dictionary<string, string>();
        Walk(node, string.Empty);
        return fields;

        void Walk(JsonNode? at, string path)
        {
            switch (at)
            {
                case JsonObject value:
                    foreach (var (name, child) in value)
                    {
                        Walk(child, path.Length == 0 ? name : $"{path}.{name}");
                    }

                    break;
                case JsonArray list:
                    for (var i = 0; i < list.Count; i++)
                    {
                        Walk(list[i], $"{path}[{i}]");
                    }

                    break;
                case JsonValue value when path != "version":
                    fields[path] = value.TryGetValue<double>(out var number)
                        ? number.ToString("R", CultureInfo.InvariantCulture)
                        : value.ToString();
                    break;
            }
        }
    }
}
