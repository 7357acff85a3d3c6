using NodaTime;

namespace ZestyPocket.Server.Hosting;

/// <summary>The OpenAPI document that the web client's types are generated from.</summary>
public static class ApiDocument
{
    public static IServiceCollection AddApiDocument(this IServiceCollection services) => services.AddOpenApi("v1", options =>
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info.Title = "Zesty Pocket";
            document.Info.Version = "1";
            document.Servers?.Clear();
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
            if (type == typeof(LocalDate) || type == typeof(LocalDateTime) || type == typeof(Instant) || type == typeof(LocalTime))
            {
                var nullable = type != context.JsonTypeInfo.Type;
                schema.Type = Microsoft.OpenApi.JsonSchemaType.String | (nullable ? Microsoft.OpenApi.JsonSchemaType.Null : 0);
                schema.Format = type == typeof(LocalDate) ? "date" : type == typeof(LocalTime) ? "time" : "date-time";
                schema.Properties?.Clear();
                schema.Required?.Clear();
            }

            return Task.CompletedTask;
        });
    });
}
