using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Data;
using Solvenda.Web.Security;
using Solvenda.Web.Workers;

namespace Solvenda.Web.House;

/// <summary>Something that a worker could not do.</summary>
/// <param name="Subject">What it was at; empty for its whole round.</param>
/// <param name="Apart">Not tried any more, until somebody says so.</param>
public sealed record TroubleView(
    long Id,
    string Worker,
    string Subject,
    string Words,
    DateTime FirstAt,
    DateTime LastAt,
    int Times,
    bool Apart
);

/// <summary>What the administrator has to look at.</summary>
/// <param name="LeftOut">Records that no price can be made from, with the reason.</param>
public sealed record TroublesView(IReadOnlyList<TroubleView> Troubles, IReadOnlyList<string> LeftOut);

/// <param name="Again">To be tried once more; else it stays undone.</param>
public sealed record SettleTroubleBody(bool Again);

public static class TroubleEndpoints
{
    public static void MapTroubles(this IEndpointRouteBuilder app)
    {
        var troubles = app.MapGroup("/api/troubles").WithTags("House");
        troubles.MapGet("", List).Needs(Rights.Administer);
        troubles.MapPost("/{id:long}/settle", Settle).Needs<SettleTrouble>();
    }

    private static async Task<TroublesView> List(SolvendaDb db, PriceBooks books, CancellationToken cancel)
    {
        var rows = await db
            .Troubles.Where(t => !t.Left)
            .OrderByDescending(t => t.Apart)
            .ThenByDescending(t => t.LastAt)
            .Take(500)
            .Select(t => new TroubleView(t.Id, t.Worker, t.Subject, t.Words, t.FirstAt, t.LastAt, t.Times, t.Apart))
            .ToListAsync(cancel);
        return new TroublesView(rows, books.LeftOut);
    }

    private static async Task<TroublesView> Settle(
        long id,
        SettleTroubleBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        Troubles troubles,
        Acts.Requests.ReadingBell bell,
        SolvendaDb db,
        PriceBooks books,
        CancellationToken cancel
    )
    {
        var settled = await acts.RunAsync(user.ActorOf(), new SettleTrouble(id, body.Again), cancel);
        if (settled.Again)
            troubles.Forget(settled.Worker, settled.Subject);
        bell.Signal.Wake();
        return await List(db, books, cancel);
    }
}
