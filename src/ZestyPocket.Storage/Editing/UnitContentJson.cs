using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using ZestyPocket.Core.Counting;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Storage.Editing;

/// <summary>The documents kept as JSON: unit contents and the undoable parts of leaves and photos.</summary>
public static class UnitContentJson
{
    /// <summary>Kinds of piece are told apart by name; jsonb reorders keys, so the name may come late.</summary>
    private static readonly JsonSerializerOptions Options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
    {
        AllowOutOfOrderMetadataProperties = true,
        // A name that is not known would be lost when the document is written back.
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new LengthInEmu() },
        TypeInfoResolver = new DefaultJsonTypeInfoResolver
        {
            Modifiers = { NameKindsOfPiece, KeepOnlyWhatIsStored, KnowFormerNames },
        },
    }.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    public static readonly string Empty = Write(UnitContent.Empty);

    public static string Write(UnitContent content) => JsonSerializer.Serialize(content, Options);

    public static UnitContent Read(string json) => Read<UnitContent>(json, "This part of the album");

    public static string WriteState<T>(T state) => JsonSerializer.Serialize(state, Options);

    public static T ReadState<T>(string json) => Read<T>(json, "Something of this album");

    private static T Read<T>(string json, string what)
    {
        try
        {
            return JsonSerializer.Deserialize<T>(json, Options) ?? throw new JsonException("It is empty.");
        }
        catch (Exception unknown) when (unknown is JsonException or NotSupportedException)
        {
            throw new StoredDocumentException(what, unknown);
        }
    }

    private static void NameKindsOfPiece(JsonTypeInfo type)
    {
        if (type.Type == typeof(Piece))
        {
            type.PolymorphismOptions = new JsonPolymorphismOptions
            {
                TypeDiscriminatorPropertyName = "piece",
                DerivedTypes =
                {
                    new(typeof(PhotoPrint), "photoPrint"),
                    new(typeof(Card), "card"),
                    new(typeof(Keepsake), "keepsake"),
                    new(typeof(Collage), "collage"),
                },
            };
        }
    }

    private static void KeepOnlyWhatIsStored(JsonTypeInfo type)
    {
        // What is computed has no setter.
        if (
            type.Type == typeof(UnitContent)
            || type.Type == typeof(Collage)
            || type.Type == typeof(SizeWish)
            || type.Type == typeof(Keepsake)
            || type.Type == typeof(AlbumCalendar)
            || type.Type == typeof(AlbumWords)
            || type.Type == typeof(Rgb)
            || type.Type == typeof(PictureBox)
            || type.Type == typeof(PaletteColour)
            || type.Type == typeof(CameraClock)
            || type.Type == typeof(WakingWindow)
            || type.Type == typeof(LeafForm)
            || type.Type == typeof(Formula)
        )
        {
            foreach (var computed in type.Properties.Where(p => p.Set is null))
            {
                // Its name stays known, since older versions wrote it.
                computed.ShouldSerialize = static (_, _) => false;
            }
        }
    }

    /// <summary>
    /// Names that earlier versions wrote and that live elsewhere now; they are read by whoever takes them over, and no
    /// more written.
    /// </summary>
    private static void KnowFormerNames(JsonTypeInfo type)
    {
        if (type.Type == typeof(AlbumCalendar))
        {
            // Moved to what the album knows about its words.
            foreach (var name in new[] { "people", "knownWords" })
            {
                var former = type.CreateJsonPropertyInfo(typeof(JsonElement), name);
                former.Set = static (_, _) => { };
                type.Properties.Add(former);
            }
        }
    }

    private sealed class LengthInEmu : JsonConverter<Length>
    {
        public override Length Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            new(reader.GetInt64());

        public override void Write(Utf8JsonWriter writer, Length value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.Emu);
    }
}
