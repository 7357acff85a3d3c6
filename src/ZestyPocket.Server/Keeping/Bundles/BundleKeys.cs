using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace ZestyPocket.Server.Keeping.Bundles;

/// <summary>
/// New keys for everything that comes in by a bundle. A key of the file becomes one that nobody could have chosen, the
/// same wherever it stands, so that the rows of a bundle go on naming each other and can name nothing else: not what
/// somebody else has, and not what is here already.
/// </summary>
internal sealed partial class BundleKeys
{
    private readonly byte[] _seed = RandomNumberGenerator.GetBytes(32);

    private readonly Dictionary<Guid, Guid> _known = [];

    /// <summary>Lets a key of the file stand for one of the keeper's own.</summary>
    public void Let(Guid inFile, Guid here) => _known[inFile] = here;

    /// <summary>
    /// The key here of a key in the file. It keeps the moment that a key of version 7 begins with, and with it its
    /// place among the others. Source: RFC 9562, 5.7.
    /// </summary>
    public Guid Of(Guid inFile)
    {
        if (_known.TryGetValue(inFile, out var here))
        {
            return here;
        }

        Span<byte> key = stackalloc byte[16];
        inFile.TryWriteBytes(key, bigEndian: true, out _);
        Span<byte> hash = stackalloc byte[32];
        HMACSHA256.HashData(_seed, key, hash);
        hash[6..16].CopyTo(key[6..]);
        key[6] = (byte)(0x70 | (key[6] & 0x0F));
        key[8] = (byte)(0x80 | (key[8] & 0x3F));
        return _known[inFile] = new Guid(key, bigEndian: true);
    }

    /// <summary>Every key in a document, also within longer texts and as a name.</summary>
    public JsonNode? In(JsonNode? node)
    {
        switch (node)
        {
            case JsonObject all:
                var now = new JsonObject();
                foreach (var (name, value) in all)
                {
                    now[In(name)] = In(value);
                }

                return now;
            case JsonArray list:
                return new JsonArray([.. list.Select(In)]);
            case JsonValue value when value.TryGetValue<string>(out var text):
                return In(text);
            default:
                return node?.DeepClone();
        }
    }

    private string In(string text) =>
        text.Length < 36 ? text : Keys().Replace(text, m => Of(Guid.Parse(m.Value)).ToString());

    /// <summary>A key that is always the same for one keeper: what is the keeper's comes once.</summary>
    public static Guid Of(Guid keeperId, Guid inFile) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"{keeperId} {inFile}")).AsSpan(0, 16));

    [GeneratedRegex(
        "[0-9a-fA-F]{8}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{4}-[0-9a-fA-F]{12}",
        RegexOptions.NonBacktracking
    )]
    private static partial Regex Keys();
}
