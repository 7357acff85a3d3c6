using System.Text.Json.Nodes;

namespace ZestyPocket.Storage.Documents;

/// <summary>
/// Brings documents of version 1 to version 2. Version 1 is everything that was written before documents had a version:
/// by the names of members, some of which are computed or live elsewhere now.
/// </summary>
internal static class FromVersion1
{
    public static JsonNode Unchanged(JsonNode node) => node;

    public static JsonNode Content(JsonNode node)
    {
        Drop(node, "loose", "inEnvelope", "photosPlaced", "cardsOfWords", "hasTitle");
        foreach (var piece in Each(node["pieces"]))
        {
            switch (piece[DocumentNames.PieceKind]?.GetValue<string>())
            {
                case "collage":
                    Drop(piece, "photos", "body");
                    DropComputedColour(piece["ground"]);
                    break;
                case "keepsake":
                    Drop(piece, "size");
                    break;
                case "photoPrint":
                    DropComputedColour(piece["caption"]?["ink"]);
                    break;
            }
        }

        foreach (var wish in Each(node["wishes"]))
        {
            Drop(wish, "size");
        }

        return node;
    }

    /// <summary>People and known words stood in the calendar before words were kept apart.</summary>
    public static JsonNode Calendar(JsonNode node)
    {
        Drop(node, "weeks", "travel", "people", "knownWords");
        Drop(node["waking"], "hours");
        foreach (var camera in Each(node["cameras"]))
        {
            Drop(camera, "isPlain", "words");
        }

        return node;
    }

    public static JsonNode Words(JsonNode node)
    {
        Drop(node, "styles");
        foreach (var style in Each(node["ownStyles"]))
        {
            foreach (var colour in new[] { "paper", "ink", "accent" })
            {
                DropComputedColour(style[colour]);
            }
        }

        return node;
    }

    public static JsonNode Formulas(JsonNode node)
    {
        foreach (var formula in Each(node["all"]))
        {
            Drop(formula, "pieces");
        }

        return node;
    }

    public static JsonNode LeafAlterations(JsonNode node)
    {
        Drop(node, "isAltered");
        return node;
    }

    /// <summary>A list by the C# names of its members.</summary>
    public static JsonNode ClearSizes(JsonNode node)
    {
        var sizes = new JsonArray();
        foreach (var size in Each(node))
        {
            sizes.Add(
                new JsonObject
                {
                    ["nominalWidth"] = size["NominalWidth"]?.DeepClone(),
                    ["nominalHeight"] = size["NominalHeight"]?.DeepClone(),
                    ["clearWidth"] = size["ClearWidth"]?.DeepClone(),
                    ["clearHeight"] = size["ClearHeight"]?.DeepClone(),
                }
            );
        }

        return new JsonObject { ["sizes"] = sizes };
    }

    public static JsonNode Boxes(JsonNode node)
    {
        foreach (var box in Each(node))
        {
            Drop(box, "right", "bottom");
        }

        return new JsonObject { ["boxes"] = node.DeepClone() };
    }

    public static JsonNode Palette(JsonNode node)
    {
        foreach (var colour in Each(node))
        {
            Drop(colour, "hex");
        }

        return new JsonObject { ["colours"] = node.DeepClone() };
    }

    /// <summary>Edits made before units could move are the content alone.</summary>
    public static JsonNode UnitState(JsonNode node)
    {
        if (node["content"] is not { } content)
        {
            return new JsonObject { ["content"] = Content(node).DeepClone() };
        }

        Content(content);
        Drop(node["dates"], "isMerged", "weight", "numbers", "code");
        return node;
    }

    public static JsonNode LeafState(JsonNode node)
    {
        if (node["form"] is { } form)
        {
            LeafAlterations(form);
        }

        return node;
    }

    public static JsonNode AlbumState(JsonNode node)
    {
        if (node["calendar"] is JsonObject calendar)
        {
            if (node["words"] is null && calendar["people"] is { } people)
            {
                node["words"] = new JsonObject
                {
                    ["people"] = people.DeepClone(),
                    ["knownWords"] = calendar["knownWords"]?.DeepClone() ?? new JsonArray(),
                };
            }

            Calendar(calendar);
        }

        if (node["words"] is { } words)
        {
            Words(words);
        }

        if (node["formulas"] is { } formulas)
        {
            Formulas(formulas);
        }

        return node;
    }

    /// <summary>The clear sizes were a text within.</summary>
    public static JsonNode ProtectorState(JsonNode node)
    {
        if (node["clearSizes"] is JsonValue text)
        {
            node["clearSizes"] = ClearSizes(Parsed(text))["sizes"]!.DeepClone();
        }

        return node;
    }

    /// <summary>
    /// Boxes were texts within. Edits made before pictures were judged knew the day alone, and that is where it stays:
    /// without boxes such a state is of no effect.
    /// </summary>
    public static JsonNode PhotoState(JsonNode node)
    {
        foreach (var name in new[] { "keepBoxes", "coverBoxes" })
        {
            if (node[name] is JsonValue text)
            {
                node[name] = Boxes(Parsed(text))["boxes"]!.DeepClone();
            }
        }

        return node;
    }

    private static JsonNode Parsed(JsonValue text) => JsonNode.Parse(text.GetValue<string>()) ?? new JsonArray();

    private static void DropComputedColour(JsonNode? colour) => Drop(colour, "luminance");

    private static IEnumerable<JsonObject> Each(JsonNode? list) =>
        list is JsonArray array ? array.OfType<JsonObject>() : [];

    private static void Drop(JsonNode? node, params string[] names)
    {
        if (node is JsonObject value)
        {
            foreach (var name in names)
            {
                value.Remove(name);
            }
        }
    }
}
