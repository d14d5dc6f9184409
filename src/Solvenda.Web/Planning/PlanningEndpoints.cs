using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Planning;
using Solvenda.Core.Promising;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Planning;

public static class PlanningEndpoints
{
    private const long Largest = 2 * 1024 * 1024;

    public static void MapPlanning(this IEndpointRouteBuilder app)
    {
        var planning = app.MapGroup("/api/planning").WithTags("Planning");
        planning.MapGet("", List).Needs(Rights.Look);
        planning.MapGet("/{item:long}", Outlook).Needs(Rights.Look);
        planning.MapPost("/reliefs", Take).Needs<TakeRelief>();
        planning.MapPost("/anew", Anew).Needs<PromiseAnew>();
        planning.MapPost("/asked", Ask).Needs<AskForStock>();
        planning.MapPost("/counted", Count).Needs<CountStock>();
        planning
            .MapPost("/arrivals", Arrive)
            .Needs<TakeArrivals>()
            .WithMetadata(new RequestSizeLimitAttribute(Largest));
    }

    /// <summary>Where demand is, the short ones first.</summary>
    private static async Task<PlanningView> List(
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var book = await PromiseBook.LoadAsync(db, null, clock.Today, cancel);
        var (usual, asked) = await PlanRows.FactsAsync(db, clock.Today, cancel);
        var rows = book
            .Positions.Where(p => p.Waits.Length > 0 || p.Incoming.Length > 0 || Shortage.Of(p.Outlook) is not null)
            .Select(p => PlanRows.Of(p, usual, asked))
            .OrderByDescending(r => r.Late)
            .ThenBy(r => r.ShortFrom ?? DateOnly.MaxValue)
            .ThenBy(r => r.Code, StringComparer.Ordinal)
            .ThenBy(r => r.Warehouse, StringComparer.Ordinal)
            .ToList();
        return new PlanningView(
            rows,
            book.Positions.Count,
            AnewMove.In(book, clock.Today).ConvertAll(PlanRows.Of),
            Rights.Plan.Allows(user.ActorOf())
        );
    }

    private static Task<OutlookView> Outlook(
        long item,
        string? warehouse,
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    ) => OutlookViews.OfAsync(db, item, warehouse, clock.Today, Rights.Plan.Allows(user.ActorOf()), cancel);

    private static async Task<ReliefTaken> Take(
        TakeReliefBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), new TakeRelief(body.Commitment, body.Sign), cancel));

    private static Task<PromisedAnew> Anew(ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new PromiseAnew(), cancel);

    private static async Task<AskedForStock> Ask(
        AskForBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(
                user.ActorOf(),
                new AskForStock(body.Item, body.Warehouse, body.Quantity, body.Wanted),
                cancel
            )
        );

    private static async Task<StockSince> Count(
        CountBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(
                user.ActorOf(),
                new CountStock(body.Item, body.Warehouse, body.Quantity, body.Seen, body.Reason),
                cancel
            )
        );

    private static async Task<ArrivalsTaken> Arrive(
        string? filename,
        HttpRequest http,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var body = await RawBody.ReadAsync(http, cancel);
        return await acts.RunAsync(user.ActorOf(), new TakeArrivals(filename ?? "the file", body), cancel);
    }
}
