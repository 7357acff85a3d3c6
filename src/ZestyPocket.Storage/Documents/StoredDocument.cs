using System.Collections.Concurrent;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace ZestyPocket.Storage.Documents;

/// <summary>
/// One kind of document that is stored as JSON: it is written with its version, and read from any earlier one by way of
/// the upcasters in between.
/// </summary>
/// <param name="what">For a refusal that names it, such as <c>This week or day</c>.</param>
/// <param name="upcasters">The first brings version 1 to version 2, and so on; the version written is the last.</param>
public sealed class StoredDocument<T>(string what, params Func<JsonNode, JsonNode>[] upcasters)
    where T : notnull
{
    private const string VersionName = "version";

    /// <summary>In characters.</summary>
    private const int LongestKept = 300;

    private const int MostKept = 500;

    /// <summary>
    /// Short documents as they were read: thousands of pictures have the same few, such as no boxes at all, and a value
    /// is never changed.
    /// </summary>
    private readonly ConcurrentDictionary<string, T> _kept = new(StringComparer.Ordinal);

    /// <summary>The version that is written. What has none is of version 1.</summary>
    public int Version { get; } = upcasters.Length + 1;

    public string Write(T value) => Stamped(JsonSerializer.Serialize(value, DocumentJson.Options));

    /// <summary>
    /// Throws <see cref="StoredDocumentException"/> for one that a later version wrote or that is damaged.
    /// </summary>
    public T Read(string json)
    {
        ArgumentNullException.ThrowIfNull(json);
        if (json.Length > LongestKept)
        {
            return Parsed(json);
        }

        if (!_kept.TryGetValue(json, out var value))
        {
            value = Parsed(json);
            if (_kept.Count < MostKept)
            {
                _kept[json] = value;
            }
        }

        return value;
    }

    private T Parsed(string json)
    {
        try
        {
            var utf8 = Encoding.UTF8.GetBytes(json);
            var version = TakeVersion(utf8);
            return version == Version ? Of(JsonSerializer.Deserialize<T>(utf8, DocumentJson.Options))
                : version > Version
                    ? throw new JsonException($"It has version {version}, and this program knows {Version}.")
                : Of(Upcast(JsonNode.Parse(utf8)!, version).Deserialize<T>(DocumentJson.Options));
        }
        catch (Exception unknown) when (unknown is not OutOfMemoryException)
        {
            // Values check what they are given: a damaged document fails in as many ways as there are values.
            throw new StoredDocumentException(what, unknown);
        }
    }

    /// <summary>An earlier version of this document inside another one, in its present shape.</summary>
    internal JsonNode Upcast(JsonNode node, int version) =>
        upcasters.Skip(version - 1).Aggregate(node, (now, upcaster) => upcaster(now));

    private static T Of(T? value) => value ?? throw new JsonException("It is empty.");

    private string Stamped(string json) =>
        json == "{}" ? $$"""{"{{VersionName}}":{{Version}}}""" : $$"""{"{{VersionName}}":{{Version}},{{json[1..]}}""";

    /// <summary>
    /// Reads the version and blanks it out, with one of the commas beside it: it is no member of the value. What has
    /// none is of version 1.
    /// </summary>
    private static int TakeVersion(byte[] utf8)
    {
        var reader = new Utf8JsonReader(utf8);
        if (!reader.Read() || reader.TokenType != JsonTokenType.StartObject)
        {
            return 1;
        }

        while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
        {
            var (isVersion, from) = (reader.ValueTextEquals(VersionName), (int)reader.TokenStartIndex);
            reader.Read();
            if (!isVersion)
            {
                reader.Skip();
                continue;
            }

            if (reader.TokenType != JsonTokenType.Number || !reader.TryGetInt32(out var version) || version < 1)
            {
                throw new JsonException("Its version is no number.");
            }

            var to = (int)reader.BytesConsumed;
            if (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
            {
                to = (int)reader.TokenStartIndex;
            }
            else
            {
                while (utf8[from - 1] is (byte)',' or (byte)' ' or (byte)'\n' or (byte)'\r' or (byte)'\t')
                {
                    from--;
                }
            }

            utf8.AsSpan(from, to - from).Fill((byte)' ');
            return version;
        }

        return 1;
    }
}
