using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;

namespace ZestyPocket.Server.Tests.Fuzzing;

/// <summary>One operation of the OpenAPI document.</summary>
/// <param name="Needs">Who may ask: nobody in particular, a keeper, or a reader, editor or owner of the album.</param>
public sealed record Operation(
    string Id,
    HttpMethod Method,
    string Path,
    JsonArray Parameters,
    JsonObject? Body,
    string Needs
);

/// <summary>A call that can be sent and written down.</summary>
public sealed record RandomCall(Operation Operation, string Url, string? ContentType, byte[] Body)
{
    public override string ToString() =>
        $"{Operation.Method} {Url} {ContentType} {Encoding.UTF8.GetString(Body.AsSpan(0, Math.Min(Body.Length, 600)))}";
}

/// <summary>
/// Makes calls for every operation of the OpenAPI document: mostly of the right shape with values that hurt, sometimes
/// with fields missing, null or of another kind. The same seed gives the same calls.
/// </summary>
public sealed class RandomCalls(JsonObject document, int seed, Func<string, IReadOnlyList<Guid>> idsFor)
{
    private static readonly string[] Texts =
    [
        "",
        " ",
        "a",
        "3x4",
        "6x4",
        "4 x 6 in",
        "9x12",
        "\uFF13x4",
        "\u0663 mm",
        "0",
        "-1 in",
        "1/0 in",
        "2 1/2 in",
        "5 mm",
        "99999999999999999999 in",
        "1e9",
        "1" + new string(' ', 5_000),
        "\0",
        "a\0b",
        "\u202Egpj",
        "\uFFFF",
        "😀",
        "é",
        "שלום abc",
        new string('x', 4_000),
        "2026-05-04",
        "2026-05-04T12:00:00",
        "9999-12-31",
        "0001-01-01",
        "-9998-01-01",
        "12:00",
        "24:00",
        "Europe/Vienna",
        "Nowhere/Land",
        "Etc/UTC",
        "((((((((((",
        new string('(', 9_000),
        "6x4 | 3x4 / 6x4 | 3x4 / 6x4 | 3x4",
        "../../etc/passwd",
        "<b>",
        "#ffffff",
        "#zzz",
        "plain-sans",
        "letter",
        "a4",
        "9x12-nine-3x4",
        "1.1",
        "journaling",
        "null",
        "true",
        "%",
        "'; DROP",
        "\t",
        "\r\n",
    ];

    private static readonly string[] Dates =
    [
        "2026-05-04",
        "2026-05-06",
        "9999-12-31",
        "0001-01-01",
        "2026-02-30",
        "yesterday",
        "-9998-01-01",
        "2200-01-01",
    ];

    private static readonly long[] Integers =
    [
        0,
        1,
        2,
        3,
        -1,
        7,
        40,
        1_000,
        100_000,
        int.MaxValue,
        int.MinValue,
        long.MaxValue,
    ];

    private static readonly double[] Numbers = [0, 0.5, 1, -1, 2.5, 12, 1e9, 1e308, -1e308, 5e-324];

    private readonly Random _random = new(seed);

    /// <summary>The operations, in the order of the document, without those whose answer never ends.</summary>
    public IReadOnlyList<Operation> Operations { get; } = [.. Of(document, endless: false)];

    /// <summary>Those whose answer never ends: lines of news.</summary>
    public IReadOnlyList<Operation> Lines { get; } = [.. Of(document, endless: true)];

    private static IEnumerable<Operation> Of(JsonObject document, bool endless) =>
        from path in document["paths"]!.AsObject()
        from method in path.Value!.AsObject()
        where method.Key is "get" or "post" or "put" or "delete" or "patch"
        let operation = method.Value!.AsObject()
        where operation["responses"]?["200"]?["content"]?["text/event-stream"] is null != endless
        select new Operation(
            operation["operationId"]!.GetValue<string>(),
            new HttpMethod(method.Key.ToUpperInvariant()),
            path.Key,
            operation["parameters"] as JsonArray ?? [],
            operation["requestBody"] as JsonObject,
            operation["x-needs"]!.GetValue<string>()
        );

    public RandomCall Next(Operation operation)
    {
        ArgumentNullException.ThrowIfNull(operation);
        var (path, query) = (operation.Path, new List<string>());
        foreach (var parameter in operation.Parameters.OfType<JsonObject>())
        {
            var (name, schema) = (parameter["name"]!.GetValue<string>(), parameter["schema"] as JsonObject ?? []);
            var value = Escaped(
                parameter["in"]!.GetValue<string>() == "path"
                    ? PathValue(operation.Path, name, schema)
                    : Plain(Value(schema, name, 0))
            );
            if (parameter["in"]!.GetValue<string>() == "path")
            {
                path = path.Replace("{" + name + "}", value, StringComparison.Ordinal);
            }
            else if (!Chance(0.15))
            {
                query.Add($"{name}={value}");
            }
        }

        var url = query.Count == 0 ? path : $"{path}?{string.Join('&', query)}";
        if (operation.Body?["content"] is not JsonObject content || content.Count == 0)
        {
            return new RandomCall(operation, url, null, []);
        }

        var (type, media) = content.First();
        if (Chance(0.03))
        {
            return new RandomCall(operation, url, "text/html", "<html>"u8.ToArray());
        }

        if (!type.Contains("json", StringComparison.Ordinal))
        {
            return new RandomCall(operation, url, type, Bytes());
        }

        var body =
            Chance(0.03) ? "{"
            : Chance(0.02) ? ""
            : Chance(0.02) ? "[]"
            : (Value(media!["schema"]!.AsObject(), "body", 0)?.ToJsonString() ?? "null");
        return new RandomCall(operation, url, "application/json", Encoding.UTF8.GetBytes(body));
    }

    private string PathValue(string path, string name, JsonObject schema)
    {
        if (schema["format"]?.GetValue<string>() == "uuid")
        {
            // The last fixed part before the parameter says of what it is the key.
            var before = path[..path.IndexOf("{" + name + "}", StringComparison.Ordinal)].TrimEnd('/').Split('/')[^1];
            var known = idsFor(before);
            return known.Count > 0 && !Chance(0.1) ? known[_random.Next(known.Count)].ToString()
                : Chance(0.5) ? Guid.NewGuid().ToString()
                : "not-a-key";
        }

        return Plain(Value(schema, name, 0)) is { Length: > 0 and < 200 } text && !text.Contains('\0') ? text : "1";
    }

    private JsonNode? Value(JsonObject schema, string name, int depth)
    {
        if (depth > 6)
        {
            return null;
        }

        if (schema["$ref"]?.GetValue<string>() is { } reference)
        {
            return Value(document["components"]!["schemas"]![reference.Split('/')[^1]]!.AsObject(), name, depth + 1);
        }

        if ((schema["oneOf"] ?? schema["anyOf"] ?? schema["allOf"]) is JsonArray choices)
        {
            return Value(choices[_random.Next(choices.Count)]!.AsObject(), name, depth + 1);
        }

        if (Chance(0.03))
        {
            return Odd();
        }

        if (schema["enum"] is JsonArray values)
        {
            return values[_random.Next(values.Count)]?.DeepClone();
        }

        return Kind(schema) switch
        {
            "object" => Fields(schema, depth),
            "array" => Items(schema, name, depth),
            "integer" => JsonValue.Create(
                name == "revision" && !Chance(0.2) ? _random.Next(4) : Integers[_random.Next(Integers.Length)]
            ),
            "number" => JsonValue.Create(Numbers[_random.Next(Numbers.Length)]),
            "boolean" => JsonValue.Create(Chance(0.5)),
            "null" => null,
            _ => JsonValue.Create(Text(schema, name)),
        };
    }

    private JsonObject Fields(JsonObject schema, int depth)
    {
        var made = new JsonObject();
        foreach (var (name, field) in schema["properties"] as JsonObject ?? [])
        {
            if (!Chance(0.06))
            {
                made[name] = Chance(0.03) ? null : Value(field!.AsObject(), name, depth + 1);
            }
        }

        return made;
    }

    private JsonArray Items(JsonObject schema, string name, int depth)
    {
        var count = Chance(0.02) ? 1_000 : _random.Next(4);
        return [.. Enumerable.Range(0, count).Select(_ => Value(schema["items"] as JsonObject ?? [], name, depth + 1))];
    }

    private string Text(JsonObject schema, string name) =>
        schema["format"]?.GetValue<string>() switch
        {
            "uuid" => idsFor(name) is { Count: > 0 } known && !Chance(0.2)
                ? known[_random.Next(known.Count)].ToString()
                : Guid.NewGuid().ToString(),
            "date" => Dates[_random.Next(Dates.Length)],
            "date-time" => Dates[_random.Next(Dates.Length)] + "T12:00:00",
            _ => Texts[_random.Next(Texts.Length)],
        };

    private JsonNode? Odd() =>
        _random.Next(5) switch
        {
            0 => null,
            1 => JsonValue.Create(1),
            2 => JsonValue.Create("x"),
            3 => new JsonObject(),
            _ => new JsonArray(),
        };

    private string Kind(JsonObject schema) =>
        schema["type"] switch
        {
            JsonArray several => several[_random.Next(several.Count)]!.GetValue<string>(),
            JsonValue one => one.GetValue<string>(),
            _ => schema["properties"] is null ? "string" : "object",
        };

    private byte[] Bytes()
    {
        string[] starts =
        [
            "",
            "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:x\r\nDTSTART:99991231T235959\r\n"
                + "RRULE:FREQ=SECONDLY;INTERVAL=2147483647\r\nEND:VEVENT\r\nEND:VCALENDAR",
            "# 2026-05-04\nwords\0",
            "{\"items\":[{}]}",
            "<rss/>",
            "PK\u0003\u0004",
            "%PDF-1.4",
            "\u00FF\u00D8\u00FF\u00E0",
        ];
        var start = Encoding.Latin1.GetBytes(starts[_random.Next(starts.Length)]);
        var rest = new byte[_random.Next(200)];
        _random.NextBytes(rest);
        return [.. start, .. Chance(0.5) ? rest : []];
    }

    private static string Plain(JsonNode? node) =>
        node switch
        {
            null => string.Empty,
            JsonValue value when value.TryGetValue<string>(out var text) => text,
            JsonValue value when value.TryGetValue<double>(out var number) => number.ToString(
                "R",
                CultureInfo.InvariantCulture
            ),
            _ => node.ToJsonString(),
        };

    private static string Escaped(string text) => Uri.EscapeDataString(text.Length > 6_000 ? text[..6_000] : text);

    private bool Chance(double of) => _random.NextDouble() < of;
}
