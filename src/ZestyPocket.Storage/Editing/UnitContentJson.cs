using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Storage.Editing;

/// <summary>The documents kept as JSON: unit contents and the undoable parts of leaves and photos.</summary>
public static class UnitContentJson
{
    /// <summary>Kinds of piece are told apart by name; jsonb reorders keys, so the name may come late.</summary>
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        AllowOutOfOrderMetadataProperties = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { NameKindsOfPiece, KeepOnlyWhatIsStored } },
    };

    public static readonly string Empty = Write(UnitContent.Empty);

    public static string Write(UnitContent content) => JsonSerializer.Serialize(content, Options);

    public static UnitContent Read(string json) => JsonSerializer.Deserialize<UnitContent>(json, Options)
        ?? throw new JsonException("A unit without content.");

    public static string WriteState<T>(T state) => JsonSerializer.Serialize(state, Options);

    public static T ReadState<T>(string json) => JsonSerializer.Deserialize<T>(json, Options)
        ?? throw new JsonException("A row without state.");

    private static void NameKindsOfPiece(JsonTypeInfo type)
    {
        if (type.Type == typeof(Piece))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions
            {
                TypeDiscriminatorPropertyName = "piece",
                DerivedTypes = { new(typeof(PhotoPrint), "photoPrint"), new(typeof(Card), "card") },
            };
        }
    }

    private static void KeepOnlyWhatIsStored(JsonTypeInfo type)
    {
        if (type.Type == typeof(UnitContent))
        {
            foreach (var computed in type.Properties.Where(p => p.Name is "loose" or "photosPlaced").ToList())
            {
                type.Properties.Remove(computed);
            }
        }
    }
}
