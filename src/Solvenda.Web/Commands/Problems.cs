using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Solvenda.Web.Commands;

/// <summary>The one translator from exceptions to problem details (RFC 9457).</summary>
public sealed partial class Problems(ILogger<Problems> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var problem = exception switch
        {
            RefusalException r => Of(r.Status, r.Code, r.Message, r.Field, r.Facts),
            BadHttpRequestException b => Of(b.StatusCode, b.StatusCode == 413 ? "too_large" : "malformed", b.StatusCode == 413 ? "That is too large to take; nothing was kept." : "The request could not be understood."),
            _ => null,
        };
        if (problem is null)
        {
            Unexpected(log, exception, httpContext.Request.Method, httpContext.Request.Path);
            problem = Of(500, "unexpected", "Something went wrong here. Nothing was changed; try again, and tell us if it stays so.");
        }
        httpContext.Response.StatusCode = problem.Status!.Value;
        await httpContext.Response.WriteAsJsonAsync(problem, options: null, "application/problem+json", cancellationToken);
        return true;
    }

    private static ProblemDetails Of(int status, string code, string words, string? field = null, object? facts = null)
    {
        var problem = new ProblemDetails { Status = status, Title = words, Type = $"urn:solvenda:error:{code}" };
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
