using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using ZestyPocket.Core.Placing.Edits;

namespace ZestyPocket.Server.Placing;

/// <summary>
/// How edits stand on the wire: told apart by <c>kind</c>, which is the record's name, with exactly the fields of their
/// kind. A new edit is known by being there.
/// </summary>
public static class UnitEditWire
{
    public static void Modify(JsonTypeInfo type)
    {
        ArgumentNullException.ThrowIfNull(type);
        if (type.Type == typeof(UnitEdit))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions
            {
                TypeDiscriminatorPropertyName = "kind",
                UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization,
            };
            // Without a kind nobody knows which edit it is: that is the caller's mistake, not the server's.
            type.CreateObject = () => throw new JsonException("An edit says its kind.");
            foreach (var edit in Kinds)
            {
                type.PolymorphismOptions.DerivedTypes.Add(
                    new JsonDerivedType(edit, JsonNamingPolicy.CamelCase.ConvertName(edit.Name))
                );
            }
        }

        if (type.Type.IsSubclassOf(typeof(UnitEdit)))
        {
            type.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        }
    }

    /// <summary>Every edit there is, in the order of their names.</summary>
    public static IReadOnlyList<Type> Kinds { get; } =
    [
        .. typeof(UnitEdit)
            .Assembly.GetTypes()
            .Where(t => t.IsSubclassOf(typeof(UnitEdit)) && !t.IsAbstract)
            .OrderBy(t => t.Name, StringComparer.Ordinal),
    ];
}
