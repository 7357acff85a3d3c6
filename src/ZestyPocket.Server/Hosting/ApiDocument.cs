using Microsoft.AspNetCore.Authorization;
using NodaTime;
using ZestyPocket.Core.Photos;
using ZestyPocket.Core.Placing;

namespace ZestyPocket.Server.Hosting;

/// <summary>The OpenAPI document that the web client's types are generated from.</summary>
public static class ApiDocument
{
    public static IServiceCollection AddApiDocument(this IServiceCollection services) =>
        services.AddOpenApi(
            "v1",
            options =>
            {
                options.AddDocumentTransformer(
                    (document, _, _) =>
                    {
                        document.Info.Title = "Zesty Pocket";
                        document.Info.Version = "1";
                        document.Servers?.Clear();
                        // Who may leave a date away says so where it is used; which use comes first must not decide
                        // what a date is.
                        foreach (
                            var (name, schema) in document.Components?.Schemas
                                ?? new Dictionary<string, Microsoft.OpenApi.IOpenApiSchema>()
                        )
                        {
                            if (
                                name
                                    is nameof(LocalDate)
                                        or nameof(LocalDateTime)
                                        or nameof(Instant)
                                        or nameof(LocalTime)
                                && schema is Microsoft.OpenApi.OpenApiSchema written
                            )
                            {
                                written.Type = Microsoft.OpenApi.JsonSchemaType.String;
                            }
                        }

                        return Task.CompletedTask;
                    }
                );
                // Who may ask: what every answer is checked against in the tests.
                options.AddOperationTransformer(
                    (operation, context, _) =>
                    {
                        var metadata = context.Description.ActionDescriptor.EndpointMetadata;
                        var needs =
                            metadata.OfType<IAllowAnonymous>().Any() ? "nobody"
                            : metadata.OfType<NeedsOperator>().Any() ? "operator"
                            : !AlbumAddresses.IsAboutAnAlbum(context.Description.RelativePath) ? "keeper"
                            : metadata.OfType<NeedsRole>().LastOrDefault() is { Role: var role }
                                ? role.ToString().ToLowerInvariant()
                            : "editor";
                        operation.Extensions ??= new Dictionary<string, Microsoft.OpenApi.IOpenApiExtension>();
                        operation.Extensions["x-needs"] = new Microsoft.OpenApi.JsonNodeExtension(needs);
                        return Task.CompletedTask;
                    }
                );
                // A list in a query may always be left out: it is empty then.
                options.AddOperationTransformer(
                    (operation, _, _) =>
                    {
                        foreach (
                            var list in (operation.Parameters ?? [])
                                .OfType<Microsoft.OpenApi.OpenApiParameter>()
                                .Where(p => p.Schema?.Type == Microsoft.OpenApi.JsonSchemaType.Array)
                        )
                        {
                            list.Required = false;
                        }

                        return Task.CompletedTask;
                    }
                );
                options.AddSchemaTransformer(
                    (schema, context, _) =>
                    {
                        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                        if (
                            type == typeof(LocalDate)
                            || type == typeof(LocalDateTime)
                            || type == typeof(Instant)
                            || type == typeof(LocalTime)
                        )
                        {
                            var nullable = type != context.JsonTypeInfo.Type;
                            schema.Type =
                                Microsoft.OpenApi.JsonSchemaType.String
                                | (nullable ? Microsoft.OpenApi.JsonSchemaType.Null : 0);
                            schema.Format =
                                type == typeof(LocalDate) ? "date"
                                : type == typeof(LocalTime) ? "time"
                                : "date-time";
                            schema.Properties?.Clear();
                            schema.Required?.Clear();
                        }

                        if (type == typeof(ContentHash))
                        {
                            schema.Type = Microsoft.OpenApi.JsonSchemaType.String;
                            schema.Pattern = "^[0-9a-f]{64}$";
                        }

                        // An edit always says its kind, and a place or a framing is whole.
                        if (EditWire.IsEdit(type) || type == typeof(PocketPlace) || type == typeof(Framing))
                        {
                            var whole = EditWire.IsEdit(type) ? ["kind"] : schema.Properties?.Keys ?? [];
                            schema.Required ??= new HashSet<string>();
                            schema.Required.UnionWith(whole);
                        }

                        if (context.JsonTypeInfo.ElementType == typeof(LocalDate))
                        {
                            schema.Items ??= new Microsoft.OpenApi.OpenApiSchema
                            {
                                Type = Microsoft.OpenApi.JsonSchemaType.String,
                                Format = "date",
                            };
                        }

                        return Task.CompletedTask;
                    }
                );
            }
        );
}
