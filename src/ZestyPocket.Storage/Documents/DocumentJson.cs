using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Storage.Documents;

/// <summary>Values as JSON by the names of <see cref="DocumentNames"/>; a name that is not there is refused.</summary>
internal static class DocumentJson
{
    public static JsonSerializerOptions Options { get; } = Made();

    private static JsonSerializerOptions Made()
    {
        var options = new JsonSerializerOptions
        {
            // Kinds of piece are told apart by name; the database reorders names, so it may come late.
            AllowOutOfOrderMetadataProperties = true,
            // A name that is not known would be lost when the document is written back.
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
            Converters = { new LengthInEmu(), new HashAsJson() },
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { ByName } },
        };
        foreach (var type in DocumentNames.Values.Keys)
        {
            options.Converters.Add(
                (JsonConverter)Activator.CreateInstance(typeof(NamedValues<>).MakeGenericType(type))!
            );
        }

        return options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
    }

    private static void ByName(JsonTypeInfo type)
    {
        if (type.Type == typeof(Piece))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions
            {
                TypeDiscriminatorPropertyName = DocumentNames.PieceKind,
            };
            foreach (var (kind, name) in DocumentNames.Pieces)
            {
                type.PolymorphismOptions.DerivedTypes.Add(new JsonDerivedType(kind, name));
            }

            type.Properties.Clear();
            return;
        }

        if (type.Kind != JsonTypeInfoKind.Object || Nullable.GetUnderlyingType(type.Type) is not null)
        {
            return;
        }

        if (!DocumentNames.Members.TryGetValue(type.Type, out var members))
        {
            throw new NotSupportedException($"{type.Type.Name} has no names for documents.");
        }

        // The resolver names members by their C# names until they are named here.
        var known = type.Properties.ToDictionary(p => p.Name);
        type.Properties.Clear();
        foreach (var (member, name) in members)
        {
            var property = known[member];
            property.Name = name;
            type.Properties.Add(property);
        }
    }

    private sealed class LengthInEmu : JsonConverter<Length>
    {
        public override Length Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new(reader.GetInt64());

        public override void Write(Utf8JsonWriter writer, Length value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.Emu);
    }

    private sealed class NamedValues<T> : JsonConverter<T>
        where T : struct, Enum
    {
        private static readonly Dictionary<string, T> ByName = DocumentNames
            .Values[typeof(T)]
            .ToDictionary(v => v.Name, v => Enum.Parse<T>(v.Member), StringComparer.Ordinal);

        private static readonly Dictionary<T, string> NameOf = ByName.ToDictionary(v => v.Value, v => v.Key);

        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && ByName.TryGetValue(reader.GetString()!, out var value)
                ? value
                : throw new JsonException($"No {typeof(T).Name} is called “{Text(ref reader)}”.");

        private static string Text(ref Utf8JsonReader reader) =>
            reader.TokenType == JsonTokenType.String ? reader.GetString()! : reader.TokenType.ToString();

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(
                NameOf.TryGetValue(value, out var name)
                    ? name
                    : throw new JsonException($"{value} of {typeof(T).Name} has no name for documents.")
            );
    }
}
