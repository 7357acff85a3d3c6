using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using ZestyPocket.Core.Binder.Edits;
using ZestyPocket.Core.Keeping.Stash.Edits;
using ZestyPocket.Core.Pages.Edits;
using ZestyPocket.Core.Photos.Edits;
using ZestyPocket.Core.Placing.Edits;
using ZestyPocket.Core.Words.Edits;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// How edits stand on the wire: told apart by <c>kind</c>, which is the record's name, with exactly the fields of their
/// kind. A new edit is known by being there.
/// </summary>
public static class EditWire
{
    /// <summary>
    /// What edits are of: one unit's content, an album, pictures, stories, the collection of page designs,
    /// the stash.
    /// </summary>
    public static IReadOnlyList<Type> Families { get; } =
    [typeof(UnitEdit), typeof(AlbumEdit), typeof(PhotoEdit), typeof(StoryEdit), typeof(DesignEdit), typeof(StashEdit)];

    public static void Modify(JsonTypeInfo type)
    {
        ArgumentNullException.ThrowIfNull(type);
        if (Families.Contains(type.Type))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions
            {
                TypeDiscriminatorPropertyName = "kind",
                UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization,
            };
            // Without a kind nobody knows which edit it is: that is the caller's mistake, not the server's.
            type.CreateObject = () => throw new JsonException("An edit says its kind.");
            foreach (var edit in KindsOf(type.Type))
            {
                type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(edit, NameOf(edit)));
            }
        }

        if (IsEdit(type.Type))
        {
            type.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        }
    }

    /// <summary>
    /// A list with an empty entry is the caller's mistake: annotations of what may be null reach members, not entries.
    /// </summary>
    public static void RefuseEmptyEntries(JsonTypeInfo type)
    {
        ArgumentNullException.ThrowIfNull(type);
        if (type is { Kind: JsonTypeInfoKind.Enumerable, ElementType.IsValueType: false })
        {
            type.OnDeserialized = list =>
            {
                if (((IEnumerable)list).Cast<object?>().Contains(null))
                {
                    throw new JsonException("A list has an empty entry.");
                }
            };
        }
    }

    /// <summary>Whether a type is an edit of some kind.</summary>
    public static bool IsEdit(Type type) => Families.Any(type.IsSubclassOf);

    /// <summary>The kind as it is written.</summary>
    public static string NameOf(Type edit)
    {
        ArgumentNullException.ThrowIfNull(edit);
        return JsonNamingPolicy.CamelCase.ConvertName(edit.Name);
    }

    /// <summary>Every edit of a family, in the order of their names.</summary>
    public static IReadOnlyList<Type> KindsOf(Type family)
    {
        ArgumentNullException.ThrowIfNull(family);
        return
        [
            .. family
                .Assembly.GetTypes()
                .Where(t => t.IsSubclassOf(family) && !t.IsAbstract)
                .OrderBy(t => t.Name, StringComparer.Ordinal),
        ];
    }
}
