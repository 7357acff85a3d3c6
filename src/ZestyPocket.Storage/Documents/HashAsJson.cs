using System.Text.Json;
using System.Text.Json.Serialization;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Storage.Documents;

/// <summary>The hash of a file as its digits; any other text is refused with <see cref="JsonException"/>.</summary>
public sealed class HashAsJson : JsonConverter<ContentHash>
{
    public override ContentHash Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String && ContentHash.TryParse(reader.GetString(), out var hash)
            ? hash
            : throw new JsonException($"The hash of a file is {ContentHash.Digits} lower-case hexadecimal digits.");

    public override void Write(Utf8JsonWriter writer, ContentHash value, JsonSerializerOptions options)
    {
        ArgumentNullException.ThrowIfNull(writer);
        ArgumentNullException.ThrowIfNull(value);
        writer.WriteStringValue(value.ToString());
    }
}
