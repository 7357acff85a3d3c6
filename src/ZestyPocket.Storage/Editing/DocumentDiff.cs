using System.Text.Json;
using System.Text.Json.Nodes;

namespace ZestyPocket.Storage.Editing;

/// <summary>
/// Where two states of a row differ, as paths of names: enough to tell whether two people changed different things.
/// Entries of a list are told apart by their key or their place, so that two who change different pieces of a week do
/// not meet; a list of anything else is one thing.
/// </summary>
public static class DocumentDiff
{
    /// <summary>What an entry of a list is known by, in this order.</summary>
    private static readonly string[] Identities = ["id", "place", "day", "key"];

    /// <summary>The paths at which two JSON documents differ, each written as a JSON array.</summary>
    public static IReadOnlySet<string> Between(string before, string after)
    {
        var found = new HashSet<string>();
        Compare(JsonNode.Parse(before), JsonNode.Parse(after), string.Empty, found);
        return found;
    }

    /// <summary>Whether a path of one lies at or under a path of the other.</summary>
    public static bool Meet(IReadOnlySet<string> one, IReadOnlySet<string> other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        return one.Any(a => other.Any(b => Holds(a, b) || Holds(b, a)));
    }

    private static bool Holds(string path, string under) =>
        under.Length == path.Length
            ? under == path
            : under.Length > path.Length
                && under.StartsWith(path, StringComparison.Ordinal)
                && (path.Length == 0 || under[path.Length] == '\n');

    private static void Compare(JsonNode? before, JsonNode? after, string path, HashSet<string> found)
    {
        switch (before, after)
        {
            case (JsonObject a, JsonObject b):
                foreach (var name in a.Select(p => p.Key).Union(b.Select(p => p.Key)))
                {
                    if (a.ContainsKey(name) != b.ContainsKey(name))
                    {
                        found.Add(Under(path, name));
                    }
                    else
                    {
                        Compare(a[name], b[name], Under(path, name), found);
                    }
                }

                break;
            case (JsonArray a, JsonArray b)
                when Keyed(a) is { } ours && Keyed(b) is { } theirs && SameOrder(ours, theirs):
                foreach (var key in ours.Keys.Union(theirs.Keys))
                {
                    Compare(ours.GetValueOrDefault(key), theirs.GetValueOrDefault(key), Under(path, key), found);
                }

                break;
            default:
                if (!JsonNode.DeepEquals(before, after))
                {
                    found.Add(path);
                }

                break;
        }
    }

    private static string Under(string path, string name) => $"{path}\n{JsonSerializer.Serialize(name)}";

    /// <summary>The entries by what they are known by; null when not all are or two are known by the same.</summary>
    private static OrderedDictionary<string, JsonNode?>? Keyed(JsonArray list)
    {
        var keyed = new OrderedDictionary<string, JsonNode?>();
        foreach (var entry in list)
        {
            if (
                entry is not JsonObject named
                || Identities.FirstOrDefault(named.ContainsKey) is not { } identity
                || named[identity] is not { } key
                || !keyed.TryAdd($"{identity} {key.ToJsonString()}", entry)
            )
            {
                return null;
            }
        }

        return keyed;
    }

    private static bool SameOrder(
        OrderedDictionary<string, JsonNode?> one,
        OrderedDictionary<string, JsonNode?> other
    ) => one.Keys.Where(other.ContainsKey).SequenceEqual(other.Keys.Where(one.ContainsKey));
}
