using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Web.Security;

namespace Solvenda.Web.Documents;

/// <param name="Line">Key of the line; null for none.</param>
public sealed record NowOn(long? Line);

/// <summary>Who else has a document open, and what they change, as it happens (server-sent events).</summary>
public static class PresenceEndpoints
{
    // A stream ends after that and is begun anew by the page, so that a session that ended ends it too.
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    public static void MapPresence(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var group = app.MapGroup("/api/presence/{subject}").WithTags("Documents").Needs(Rights.Look);
        group.MapGet("", Sit).ExcludeFromDescription();
        group.MapPost("", Move);
    }

    private static IResult Sit(
        string subject,
        ClaimsPrincipal user,
        Presence presence,
        IHostApplicationLifetime house,
        HttpContext http
    )
    {
        var actor = user.ActorOf();
        var ends = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, house.ApplicationStopping);
        ends.CancelAfter(Longest);
        http.Response.RegisterForDispose(ends);
        return TypedResults.ServerSentEvents(UntilAsync(presence, subject, actor, ends.Token));
    }

    private static async IAsyncEnumerable<Heard> UntilAsync(
        Presence presence,
        string subject,
        Actor actor,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        await using var heard = presence
            .SitAsync(subject, actor.PersonId ?? 0, actor.Name, cancel)
            .GetAsyncEnumerator(cancel);
        while (true)
        {
            try
            {
                if (!await heard.MoveNextAsync())
                    yield break;
            }
            catch (OperationCanceledException)
            {
                // The page was closed, the house stops, or it was long enough: the stream simply ends.
                yield break;
            }
            yield return heard.Current;
        }
    }

    private static IResult Move(string subject, NowOn body, ClaimsPrincipal user, Presence presence)
    {
        presence.Move(subject, user.ActorOf().PersonId ?? 0, body.Line);
        return TypedResults.NoContent();
    }
}
