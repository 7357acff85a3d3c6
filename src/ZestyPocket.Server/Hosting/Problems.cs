using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using ZestyPocket.Core;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Storage.Documents;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Hosting;

/// <summary>What was asked for does not exist, or belongs to somebody else.</summary>
public sealed class MissingException(string what)
    : Exception($"{what} was not found. It may have been put away; go back to the shelf.");

/// <summary>Somebody is known here, but may not do this.</summary>
public sealed class NotAllowedException(string message) : Exception(message)
{
    /// <summary>Somebody may come to an album, but not do this there.</summary>
    public NotAllowedException(AlbumRole role, AlbumRole needs)
        : this(
            needs == AlbumRole.Owner
                ? "Only the owner of this album does that. Nothing was changed: ask the owner."
                : $"You are a {role.ToString().ToLowerInvariant()} of this album, and this is for its editors. Nothing "
                    + "was changed: ask its owner."
        ) { }
}

/// <summary>Turns refusals into problem documents: what happened, what was kept, what to do.</summary>
public sealed class Problems(IProblemDetailsService service) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        ArgumentNullException.ThrowIfNull(httpContext);
        var problem = exception switch
        {
            StaleRevisionException stale => new ProblemDetails
            {
                Status = StatusCodes.Status409Conflict,
                Title = "Changed in another window",
                Detail = stale.Message,
                Extensions =
                {
                    ["yours"] = stale.Yours,
                    ["theirs"] = stale.Theirs,
                    ["currentRevision"] = stale.CurrentRevision,
                },
            },
            RuleException rule => new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Title = "That does not work",
                Detail = rule.Message,
            },
            MissingException missing => new ProblemDetails
            {
                Status = StatusCodes.Status404NotFound,
                Title = "Not found",
                Detail = missing.Message,
            },
            NotAllowedException refused => new ProblemDetails
            {
                Status = StatusCodes.Status403Forbidden,
                Title = "Not for you",
                Detail = refused.Message,
            },
            StoredDocumentException stored => new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Title = "Stored by another version",
                Detail = stored.Message,
            },
            PictureRefusedException refused => new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Title = "The picture cannot be read",
                Detail = refused.Message,
            },
            BadHttpRequestException bad => Unreadable(bad),
            OperationCanceledException when httpContext.RequestAborted.IsCancellationRequested => new ProblemDetails
            {
                Status = StatusCodes.Status499ClientClosedRequest,
                Title = "Cancelled",
            },
            _ when HoldsUnstorableText(exception) => new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Title = "That does not work",
                Detail =
                    "A text holds a sign that cannot be kept, such as a zero sign. Nothing was changed: take it out.",
            },
            _ => Outage.Of(exception)?.Problem,
        };
        if (problem is null)
        {
            return false;
        }

        httpContext.Response.StatusCode = problem.Status!.Value;
        if (problem.Status == StatusCodes.Status503ServiceUnavailable)
        {
            httpContext.Response.Headers.RetryAfter = Outage.RetryAfterSeconds.ToString(CultureInfo.InvariantCulture);
        }

        return await service.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = problem }
        );
    }

    /// <summary>
    /// Texts of the database hold no U+0000 and no half characters. Source: PostgreSQL, Appendix A, class 22.
    /// </summary>
    private static bool HoldsUnstorableText(Exception exception) =>
        (exception as PostgresException ?? exception.InnerException as PostgresException)
            is { SqlState: PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter };

    /// <summary>Names the place in the document that could not be read, when the reader says it.</summary>
    private static ProblemDetails Unreadable(BadHttpRequestException bad)
    {
        var place = bad.InnerException is JsonException { Path: { Length: > 1 } path }
            ? $"“{path}” could not be read. "
            : string.Empty;
        return new ProblemDetails
        {
            Status = bad.StatusCode,
            Title = "The request could not be read",
            Detail = $"{place}Nothing was changed. Reload the page and try again.",
        };
    }
}

/// <summary>Documents the problems that most endpoints can answer with.</summary>
public static class ProblemDocumentation
{
    public static RouteHandlerBuilder WithProblems(this RouteHandlerBuilder route) =>
        route
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);
}
