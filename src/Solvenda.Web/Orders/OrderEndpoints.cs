using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Web.Documents;
using Solvenda.Web.Security;

namespace Solvenda.Web.Orders;

public sealed record OrderListRow(
    string Number,
    string Buyer,
    string PoNumber,
    DateOnly? Wanted,
    TermsTrack Terms,
    GoodsTrack Goods,
    MoneyTrack Money,
    string Currency,
    decimal Total,
    string Channel,
    DateTime CreatedAt,
    string Matter,
    int Stops,
    string FirstStop
);

/// <summary>Lets a stop pass, with the reason.</summary>
/// <param name="Field">Which, where a check found more than one thing.</param>
public sealed record Waive(string Check, long? Line, string Reason, string? Field = null);

public static class OrderEndpoints
{
    public static void MapOrders(this IEndpointRouteBuilder app)
    {
        var orders = app.MapGroup("/api/orders").WithTags("Orders");
        orders.MapGet("", List).Needs(Rights.Look);
        orders.MapGet("/{number}", Get).Needs(Rights.Look);
        orders.MapPost("/{number}/ask", Ask).Needs<AskApproval>();
        orders.MapPost("/{number}/waive", WaiveIt).Needs<WaiveStop>();
        orders.MapPost("/{number}/confirm", Confirm).Needs<ConfirmOrder>();
    }

    /// <param name="open">Only those whose goods are not all gone.</param>
    private static async Task<List<OrderListRow>> List(SolvendaDb db, bool? open, CancellationToken cancel)
    {
        var rows = await db
            .Orders.Where(o => open != true || (o.Goods != GoodsTrack.Shipped && o.Terms != TermsTrack.Cancelled))
            .OrderByDescending(o => o.CreatedAt)
            .ThenByDescending(o => o.Id)
            .Select(o => new
            {
                o.Number,
                Buyer = o.Dossier.Buyer.Name,
                o.Sheet.PoNumber,
                o.Sheet.Wanted,
                o.Terms,
                o.Goods,
                o.Money,
                o.Sheet.Currency,
                o.Sheet.TotalWithTaxMinor,
                o.Channel,
                o.CreatedAt,
                o.Dossier.Matter,
                o.Stops,
                o.FirstStop,
            })
            .Take(2000)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(o => new OrderListRow(
                o.Number,
                o.Buyer,
                o.PoNumber ?? "",
                o.Wanted,
                Tracks.Of(o.Terms, o.Goods, o.Money, o.Stops).Terms,
                o.Goods,
                o.Money,
                o.Currency,
                Amount.Major(o.TotalWithTaxMinor, o.Currency),
                o.Channel,
                o.CreatedAt,
                o.Matter,
                o.Stops,
                o.FirstStop
            )),
        ];
    }

    private static Task<DocumentView> Get(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    ) => views.OfAsync(db, new DocumentRef("order", number), user.ActorOf(), cancel);

    private static async Task<DocumentView> Ask(
        string number,
        AskWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var order = new DocumentRef("order", number);
        await acts.RunAsync(actor, new AskApproval(order, body.Why, Seen.Of(ifMatch)), cancel);
        return await views.OfAsync(db, order, actor, cancel);
    }

    private static async Task<DocumentView> WaiveIt(
        string number,
        Waive body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var waive = new WaiveStop(number, body.Check, body.Line, body.Field, body.Reason);
        return await views.OfAsync(db, await acts.RunAsync(actor, waive, cancel), actor, cancel);
    }

    private static async Task<DocumentView> Confirm(
        string number,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var order = await acts.RunAsync(actor, new ConfirmOrder(number, Seen.Of(ifMatch)), cancel);
        return await views.OfAsync(db, order, actor, cancel);
    }
}
