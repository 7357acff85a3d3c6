using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Routing.Template;
using Microsoft.Net.Http.Headers;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Hosting;

/// <summary>
/// What every request passes before a feature sees it: security headers on each answer, a host name, no changes asked
/// for by another site, no sign in an address that no text can hold.
/// </summary>
public static class RequestGate
{
    /// <summary>A key that each open window of the program chooses for itself.</summary>
    public const string WindowHeader = "X-Zesty-Window";

    public static IApplicationBuilder UseSecurityHeaders(this IApplicationBuilder app) =>
        app.Use(
            (context, next) =>
            {
                // When the answer starts, since an answer made from an exception begins with its headers cleared.
                context.Response.OnStarting(() =>
                {
                    var headers = context.Response.Headers;
                    headers.XContentTypeOptions = "nosniff";
                    headers.ContentSecurityPolicy =
                        "default-src 'self'; img-src 'self' data: blob:; style-src 'self'; "
                        + "object-src 'none'; form-action 'self'; base-uri 'self'; frame-ancestors 'none'";
                    headers["Referrer-Policy"] = "no-referrer";
                    headers["Cross-Origin-Resource-Policy"] = "same-origin";
                    return Task.CompletedTask;
                });
                return next();
            }
        );

    public static IApplicationBuilder UseRequestGate(this IApplicationBuilder app) =>
        app.Use(
            async (context, next) =>
            {
                if (Refusal(context.Request) is { } refusal)
                {
                    await WriteAsync(context, refusal);
                    return;
                }

                // The window that asks hears no news of what it did itself.
                AlbumNews.Window = Guid.TryParse(context.Request.Headers[WindowHeader], out var window) ? window : null;
                await next();
            }
        );

    /// <summary>
    /// Answers an address of the API that no feature took: 405 when it exists for another method, 415 when it exists
    /// for another kind of content, else 404.
    /// </summary>
    public static Task AnswerUnknownAsync(HttpContext context, EndpointDataSource endpoints)
    {
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(endpoints);
        var there = endpoints.Endpoints.OfType<RouteEndpoint>().Where(e => Matches(e, context.Request.Path)).ToList();
        var methods = there
            .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? [])
            .Distinct()
            .ToList();
        if (methods.Count == 0)
        {
            return WriteAsync(
                context,
                new ProblemDetails
                {
                    Status = StatusCodes.Status404NotFound,
                    Title = "Not found",
                    Detail = "There is no such address here.",
                }
            );
        }

        if (!methods.Contains(context.Request.Method, StringComparer.OrdinalIgnoreCase))
        {
            context.Response.Headers[HeaderNames.Allow] = string.Join(", ", methods);
            return WriteAsync(
                context,
                new ProblemDetails
                {
                    Status = StatusCodes.Status405MethodNotAllowed,
                    Title = "Not allowed",
                    Detail = $"This address takes {string.Join(" or ", methods)}. Nothing was changed.",
                }
            );
        }

        return WriteAsync(
            context,
            new ProblemDetails
            {
                Status = StatusCodes.Status415UnsupportedMediaType,
                Title = "Another kind of content is expected",
                Detail = "Nothing was changed: send the kind of content that the API document names.",
            }
        );
    }

    private static ProblemDetails? Refusal(HttpRequest request)
    {
        if (!request.Host.HasValue)
        {
            return new ProblemDetails
            {
                Status = StatusCodes.Status400BadRequest,
                Title = "No host",
                Detail = "A request names the host it is for.",
            };
        }

        if (
            Holds(request.Path.Value, '\0')
            || request.Query.Any(q => Holds(q.Key, '\0') || q.Value.Any(v => Holds(v, '\0')))
        )
        {
            return new ProblemDetails
            {
                Status = StatusCodes.Status400BadRequest,
                Title = "The request could not be read",
                Detail = "Its address holds a zero sign, which no text can hold. Nothing was changed.",
            };
        }

        if (
            MediaTypeHeaderValue.TryParse(request.ContentType, out var type)
            && type.Charset.Length > 0
            && !type.Charset.Equals("utf-8", StringComparison.OrdinalIgnoreCase)
            && !type.Charset.Equals("\"utf-8\"", StringComparison.OrdinalIgnoreCase)
        )
        {
            return new ProblemDetails
            {
                Status = StatusCodes.Status415UnsupportedMediaType,
                Title = "Another kind of content is expected",
                Detail = "Text is sent as UTF-8 here. Nothing was changed: send it as that.",
            };
        }

        return IsFromElsewhere(request)
            ? new ProblemDetails
            {
                Status = StatusCodes.Status403Forbidden,
                Title = "Asked for by another site",
                Detail = "Only the program's own pages may change albums. Nothing was changed.",
            }
            : null;
    }

    private static bool Holds(string? text, char sign) => text?.Contains(sign, StringComparison.Ordinal) ?? false;

    /// <summary>
    /// Whether a browser says that a change was asked for by a page of another origin. Programs that are no browser
    /// send neither header. Source: W3C Fetch Metadata Request Headers; RFC 6454 (origin).
    /// </summary>
    private static bool IsFromElsewhere(HttpRequest request)
    {
        if (
            HttpMethods.IsGet(request.Method)
            || HttpMethods.IsHead(request.Method)
            || HttpMethods.IsOptions(request.Method)
        )
        {
            return false;
        }

        var site = request.Headers["Sec-Fetch-Site"].ToString();
        if (site.Length > 0 && site is not ("same-origin" or "none"))
        {
            return true;
        }

        var origin = request.Headers.Origin.ToString();
        return origin.Length > 0
            && !(
                Uri.TryCreate(origin, UriKind.Absolute, out var from)
                && string.Equals(from.Authority, Authority(request), StringComparison.OrdinalIgnoreCase)
            );
    }

    private static string Authority(HttpRequest request) =>
        Uri.TryCreate($"{request.Scheme}://{request.Host}", UriKind.Absolute, out var own)
            ? own.Authority
            : request.Host.Value ?? string.Empty;

    private static bool Matches(RouteEndpoint endpoint, PathString path)
    {
        if (
            endpoint.Metadata.GetMetadata<IHttpMethodMetadata>() is null
            || endpoint.RoutePattern.RawText is not { } pattern
        )
        {
            return false;
        }

        var template = TemplateParser.Parse(pattern.TrimStart('/'));
        if (template.Parameters.Any(p => p.IsCatchAll))
        {
            return false;
        }

        var values = new RouteValueDictionary();
        return new TemplateMatcher(template, []).TryMatch(path, values)
            && template.Parameters.All(p =>
                p.InlineConstraints.All(c =>
                    c.Constraint switch
                    {
                        "guid" => Guid.TryParse(values[p.Name!]?.ToString(), out _),
                        "int" => int.TryParse(values[p.Name!]?.ToString(), out _),
                        _ => true,
                    }
                )
            );
    }

    /// <summary>Answers with a problem document.</summary>
    internal static Task WriteAsync(HttpContext context, ProblemDetails problem)
    {
        context.Response.StatusCode = problem.Status!.Value;
        return context
            .RequestServices.GetRequiredService<IProblemDetailsService>()
            .WriteAsync(new ProblemDetailsContext { HttpContext = context, ProblemDetails = problem })
            .AsTask();
    }
}
