using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Approvals;

public sealed record Decision(string? Note = null);

public static class AskEndpoints
{
    public static void MapAsks(this IEndpointRouteBuilder app)
    {
        var asks = app.MapGroup("/api/asks").WithTags("Asks");
        asks.MapGet("/{id:long}", Get).Needs(Rights.Decide);
        asks.MapPost("/{id:long}/grant", Grant).Needs<GrantAsk>();
        asks.MapPost("/{id:long}/send-back", SendBack).Needs<SendBackAsk>();
    }

    private static Task<AskView> Get(
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        AskViews views,
        CancellationToken cancel
    ) => views.OfAsync(db, id, user.ActorOf(), cancel);

    private static Task<DocumentRef> Grant(
        long id,
        Decision body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new GrantAsk(id, body.Note ?? ""), cancel);

    private static Task<DocumentRef> SendBack(
        long id,
        Decision body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new SendBackAsk(id, body.Note ?? ""), cancel);
}
