using System.Security.Claims;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Approvals;

/// <summary>Yes to what was asked, or to less of one figure.</summary>
/// <param name="Until">The last day on which a grant of credit covers anything; null: a fortnight.</param>
public sealed record GrantBody(
    string? Note = null,
    string? Figure = null,
    decimal? UpTo = null,
    DateOnly? Until = null
);

/// <summary>No, with what should change.</summary>
/// <param name="Marks">Keys of the lines that it is about.</param>
public sealed record SendBackBody(string Note, IReadOnlyList<long>? Marks = null);

/// <summary>A question back, or its answer.</summary>
public sealed record TalkBody(string Words);

/// <summary>To whom it is given.</summary>
public sealed record PassOnBody(long To, string? Note = null);

/// <summary>Yes to several at once.</summary>
public sealed record GrantSeveralBody(IReadOnlyList<long> Asks, string? Note = null);

public static class AskEndpoints
{
    public static void MapAsks(this IEndpointRouteBuilder app)
    {
        var asks = app.MapGroup("/api/asks").WithTags("Asks");
        asks.MapGet("/{id:long}", Get).Needs(Rights.Look);
        asks.MapPost("/{id:long}/grant", Grant).Needs<GrantAsk>();
        asks.MapPost("/{id:long}/send-back", SendBack).Needs<SendBackAsk>();
        asks.MapPost("/{id:long}/talk", Talk).Needs<TalkAboutAsk>();
        asks.MapPost("/{id:long}/pass-on", PassOn).Needs<PassOnAsk>();
        asks.MapPost("/{id:long}/withdraw", Withdraw).Needs<WithdrawAsk>();
        asks.MapPost("/grant", GrantSeveral).Needs<GrantAsks>();
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
        GrantBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new GrantAsk(id, body.Note ?? "", body.Figure, body.UpTo, body.Until), cancel);

    private static Task<DocumentRef> SendBack(
        long id,
        SendBackBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new SendBackAsk(id, body.Note, body.Marks), cancel);

    private static Task<DocumentRef> Talk(
        long id,
        TalkBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new TalkAboutAsk(id, body.Words), cancel);

    private static Task<DocumentRef> PassOn(
        long id,
        PassOnBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new PassOnAsk(id, new PersonId(body.To), body.Note ?? ""), cancel);

    private static Task<DocumentRef> Withdraw(
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new WithdrawAsk(id), cancel);

    private static Task<int> GrantSeveral(
        GrantSeveralBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new GrantAsks(body.Asks, body.Note ?? ""), cancel);
}
