using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using ZestyPocket.Core;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Server.Hosting;

/// <summary>What was asked for does not exist, or belongs to somebody else.</summary>
public sealed class MissingException(string what) : Exception($"{what} was not found. It may have been put away; go back to the shelf.");

/// <summary>Turns refusals into problem documents: what happened, what was kept, what to do.</summary>
public sealed class Problems(IProblemDetailsService service) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
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
            BadHttpRequestException bad => new ProblemDetails
            {
                Status = bad.StatusCode,
                Title = "The request could not be read",
                Detail = "Nothing was changed. Reload the page and try again.",
            },
            OperationCanceledException when httpContext.RequestAborted.IsCancellationRequested => new ProblemDetails
            {
                Status = StatusCodes.Status499ClientClosedRequest,
                Title = "Cancelled",
            },
            _ => null,
        };
        if (problem is null)
        {
            return false;
        }

        httpContext.Response.StatusCode = problem.Status!.Value;
        return await service.TryWriteAsync(new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = problem });
    }
}

/// <summary>Documents the problems that most endpoints can answer with.</summary>
public static class ProblemDocumentation
{
    public static RouteHandlerBuilder WithProblems(this RouteHandlerBuilder route) => route
        .ProducesProblem(StatusCodes.Status404NotFound)
        .ProducesProblem(StatusCodes.Status409Conflict)
        .ProducesProblem(StatusCodes.Status422UnprocessableEntity);
}
