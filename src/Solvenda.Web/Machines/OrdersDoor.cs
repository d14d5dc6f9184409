using System.Globalization;
using System.Security.Claims;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;
using Solvenda.Web.Shipping;

namespace Solvenda.Web.Machines;

/// <param name="Item">Our code, or a GTIN.</param>
/// <param name="Unit">A code of UN/ECE Rec 20, or a word; without it the item's stock unit.</param>
/// <param name="Price">What the buyer states they pay per <paramref name="PriceBase"/>; it is compared with
/// ours.</param>
/// <param name="Wanted">The day of this line, where it has one of its own.</param>
public sealed record OrderLineBody(
    string Item,
    decimal Quantity,
    string? Unit = null,
    decimal? Price = null,
    decimal PriceBase = 1m,
    string? Note = null,
    DateOnly? Wanted = null
);

/// <summary>
/// An order from a machine. Beside what is named here it takes every other term of the head by its name, as text or a
/// number: paymentDays, incoterm, incotermPlace, deliverTo, billTo, shipFrom, shippingRule, orderedBy, job, language,
/// documentsBy, freightService, note, matter, and the house's own fields.
/// </summary>
/// <param name="Buyer">Their code, or their name.</param>
/// <param name="Wanted">As 2026-12-10.</param>
/// <param name="Currency">ISO 4217; without it the buyer's.</param>
/// <param name="Channel">The sales channel that it came by.</param>
public sealed record OrderBody(
    string Buyer,
    IReadOnlyList<OrderLineBody> Lines,
    string? PoNumber = null,
    DateOnly? Wanted = null,
    string? Currency = null,
    string? Channel = null
)
{
    /// <summary>Every other term of the head.</summary>
    [JsonExtensionData]
    public Dictionary<string, JsonElement>? More { get; init; }
}

/// <param name="NetPrice">Per the price base quantity; null where there is no price.</param>
/// <param name="Net">What the line comes to.</param>
/// <param name="Promised">What was promised; before it is confirmed what could be. Null without a date.</param>
public sealed record OrderLineState(
    long Key,
    string? Item,
    decimal Quantity,
    string Unit,
    decimal? NetPrice,
    decimal Net,
    DateOnly? Promised
);

/// <summary>An order as machines see it.</summary>
public sealed record OrderState(
    string Number,
    long Version,
    TermsTrack Terms,
    GoodsTrack Goods,
    MoneyTrack Money,
    string Currency,
    decimal TotalWithTax,
    IReadOnlyList<FoundFact> Findings,
    IReadOnlyList<OrderLineState> Lines
);

/// <param name="Lines">What goes; none: all that is open and may go.</param>
public sealed record ShipmentBody(IReadOnlyList<GoodsBody>? Lines = null);

/// <param name="Quantity">In the order's unit.</param>
/// <param name="Shipment">The one that it goes with: goods from several warehouses go apart.</param>
public sealed record ShippedLine(long Key, decimal Quantity, string Shipment);

/// <summary>What was shipped.</summary>
/// <param name="Number">Of the shipment; the first of several.</param>
public sealed record ShippedState(string Number, IReadOnlyList<ShippedLine> Lines);

/// <param name="Reason">It is kept, and told to nobody outside.</param>
public sealed record CancelBody(string Reason);

/// <summary>Orders for machines, kept stable: taken, looked at, confirmed, cancelled.</summary>
public static class OrdersDoor
{
    public static void MapOrdersDoor(this RouteGroupBuilder v1)
    {
        ArgumentNullException.ThrowIfNull(v1);
        v1.MapPost("/orders", Take).Needs<TakeOrder>().Produces<OrderState>(201).Produces<OrderState>(200);
        v1.MapGet("/orders/{number}", Get).Needs(Rights.Orders);
        v1.MapPost("/orders/{number}/confirm", Confirm).Needs<ConfirmOrder>();
        v1.MapPost("/orders/{number}/cancel", Cancel).Needs<CancelOrder>();
        v1.MapPost("/orders/{number}/shipments", Ship).Needs<ShipOrder>().Produces<ShippedState>(201);
    }

    private static async Task<IResult> Take(
        OrderBody body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        MachineOrders orders,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        try
        {
            var (order, again) = await acts.RunOnceAsync(actor, Read(body), key, cancel);
            var state = await orders.StateAsync(order.Number, actor, cancel);
            return again ? Results.Ok(state) : Results.Created($"/api/v1/orders/{order.Number}", state);
        }
        // With a body of its own the key is what is wrong with what was sent.
        catch (RefusedException e) when (e.Code == "key_used")
        {
            throw RefusedException.Bad(e.Code, e.Message, "Idempotency-Key");
        }
    }

    private static TakeOrder Read(OrderBody body)
    {
        var terms = new SortedDictionary<string, string>(StringComparer.Ordinal);
        if (body.PoNumber is { } po)
            terms[HeadTerms.PoNumber.Name] = po;
        if (body.Wanted is { } day)
            terms[HeadTerms.Wanted.Name] = day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        foreach (var (name, value) in body.More ?? [])
            terms[name] = value.ValueKind switch
            {
                JsonValueKind.String or JsonValueKind.Number => value.ToString(),
                JsonValueKind.Null => "",
                _ => throw RefusedException.Bad("field_unknown", $"“{name}” is a text or a number.", name),
            };
        // What is left out is as the buyer has it by default.
        foreach (var empty in terms.Where(t => t.Value.Length == 0).Select(t => t.Key).ToList())
            terms.Remove(empty);
        return new TakeOrder(
            body.Buyer,
            terms,
            body.Currency,
            body.Channel,
            [
                .. body.Lines.Select(l => new OrderedLine(
                    l.Item,
                    l.Quantity,
                    l.Unit,
                    l.Price,
                    l.PriceBase,
                    l.Note ?? "",
                    l.Wanted
                )),
            ]
        );
    }

    private static Task<OrderState> Get(
        string number,
        ClaimsPrincipal user,
        MachineOrders orders,
        CancellationToken cancel
    ) => orders.StateAsync(number, user.ActorOf(), cancel);

    private static async Task<OrderState> Confirm(
        string number,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        MachineOrders orders,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        await acts.RunAsync(actor, new ConfirmOrder(number, Seen.Of(ifMatch)), cancel, key);
        return await orders.StateAsync(number, actor, cancel);
    }

    // What goes from several houses is several shipments; the first is named, the others with their lines too.
    private static async Task<IResult> Ship(
        string number,
        ShipmentBody? body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var made = await acts.RunAsync(
            user.ActorOf(),
            new ShipOrder(number, GoodsEndpoints.Asked(body?.Lines)),
            cancel,
            key
        );
        var lines = await (
            from s in db.Shipments
            where EF.Parameter(made.ToList()).Contains(s.Number)
            orderby s.No
            from l in s.Lines
            where l.Quantity > 0
            orderby l.LineKey
            select new ShippedLine(l.LineKey, l.Quantity, s.Number)
        ).ToListAsync(cancel);
        return Results.Created($"/api/v1/orders/{number}", new ShippedState(made[0], lines));
    }

    private static async Task<OrderState> Cancel(
        string number,
        CancelBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        MachineOrders orders,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        await acts.RunAsync(actor, new CancelOrder(number, body.Reason, Seen.Of(ifMatch)), cancel, key);
        return await orders.StateAsync(number, actor, cancel);
    }
}

/// <summary>Shows orders to machines, as far as their key may see.</summary>
public sealed class MachineOrders(SolvendaDb db, SheetLoader loader, Judge judge)
{
    public async Task<OrderState> StateAsync(string number, Actor who, CancellationToken cancel)
    {
        var open = await loader.OrderAsync(db, number, cancel);
        var judged = await judge.JudgeAsync(db, open, who.Hand, cancel);
        var view = SheetView.Of(judged, who);
        var tracks = Standings.TracksOf(judged)!;
        return new OrderState(
            number,
            view.Version,
            tracks.Terms,
            tracks.Goods,
            tracks.Money,
            view.Currency,
            view.Tally.TotalWithTax,
            FoundFact.Of(judged, who),
            [
                .. view
                    .Lines.Where(l => l.Kind is Core.Sheets.LineKind.Item or Core.Sheets.LineKind.Charge)
                    .Select(l => new OrderLineState(l.Key, l.Code, l.Quantity, l.Unit, l.NetPrice, l.Net, l.Promise)),
            ]
        );
    }
}
