using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Acts.Acting;
using Solvenda.Core.Reading;

namespace Solvenda.Web;

/// <summary>The one translator from exceptions to problem details (RFC 9457).</summary>
public sealed partial class Problems(ILogger<Problems> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        var problem = exception switch
        {
            RefusedException r => Of(StatusOf(r.Kind), r.Code, r.Message, r.Field, r.Facts),
            BadHttpRequestException b => b.StatusCode switch
            {
                413 => Of(413, "too_large", "That is too large to take; nothing was kept."),
                415 => Of(415, "content_type", "That content type is not taken here."),
                _ => Of(b.StatusCode, "malformed", $"The request could not be understood: {Cause(b)}"),
            },
            // Core reckons in types that have an end.
            OverflowException => Of(
                StatusCodes.Status422UnprocessableEntity,
                "too_large_a_number",
                "An amount would be larger than can be reckoned with; nothing was changed."
            ),
            // What was typed or chosen is still on the screen; a busy machine is no fault of theirs.
            TookTooLongException or RegexMatchTimeoutException => Of(
                503,
                "took_too_long",
                "Reading that took too long; nothing was changed. Try again in a while."
            ),
            _ => null,
        };
        // An engineer sees where a figure ran over.
        if (problem is null || exception is OverflowException)
            Unexpected(log, exception, httpContext.Request.Method, httpContext.Request.Path);
        if (problem is null)
        {
            problem = Of(
                500,
                "unexpected",
                "Something went wrong here. Nothing was changed; try again, and tell us if it stays so."
            );
        }
        if (exception is RefusedException { RetryAfter: { } wait })
            httpContext.Response.Headers.RetryAfter = Math.Ceiling(wait.TotalSeconds)
                .ToString(System.Globalization.CultureInfo.InvariantCulture);
        httpContext.Response.StatusCode = problem.Status!.Value;
        await httpContext.Response.WriteAsJsonAsync(
            problem,
            options: null,
            "application/problem+json",
            cancellationToken
        );
        return true;
    }

    /// <summary>
    /// Gives the framework's own answers (401, 403, 404, 405, 415, 429) the same shape and a stable code.
    /// </summary>
    public static void Complete(ProblemDetailsContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        var problem = context.ProblemDetails;
        if (problem.Extensions.ContainsKey("code"))
            return;
        var (code, words) = problem.Status switch
        {
            401 => ("not_signed_in", "Sign in first, or send a key that is valid."),
            403 => ("not_allowed", "That is not yours to do."),
            404 => ("not_found", "There is nothing at this address."),
            405 => ("method_unknown", "This address does not take that method."),
            415 => ("content_type", "That content type is not taken here."),
            429 => ("too_many", "Too many tries; wait a minute."),
            _ => ("refused", "That was refused."),
        };
        (problem.Title, problem.Type, problem.Extensions["code"]) = (words, $"urn:solvenda:error:{code}", code);
    }

    private static int StatusOf(Refused kind) =>
        kind switch
        {
            Refused.Forbidden => StatusCodes.Status403Forbidden,
            Refused.NotFound => StatusCodes.Status404NotFound,
            Refused.Clash => StatusCodes.Status409Conflict,
            Refused.VersionMissing => StatusCodes.Status428PreconditionRequired,
            Refused.Gone => StatusCodes.Status410Gone,
            Refused.NotSignedIn => StatusCodes.Status401Unauthorized,
            Refused.TooMany => StatusCodes.Status429TooManyRequests,
            _ => StatusCodes.Status422UnprocessableEntity,
        };

    // What the JSON reader missed; its own words name the property.
    private static string Cause(BadHttpRequestException bad) =>
        bad.InnerException is System.Text.Json.JsonException json ? json.Message : bad.Message;

    private static ProblemDetails Of(int status, string code, string words, string? field = null, object? facts = null)
    {
        var problem = new ProblemDetails
        {
            Status = status,
            Title = words,
            Type = $"urn:solvenda:error:{code}",
        };
        problem.Extensions["code"] = code;
        if (field is not null)
            problem.Extensions["field"] = field;
        if (facts is not null)
            problem.Extensions["facts"] = facts;
        return problem;
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected failure at {Method} {Path}")]
    private static partial void Unexpected(ILogger logger, Exception exception, string method, string path);
}
