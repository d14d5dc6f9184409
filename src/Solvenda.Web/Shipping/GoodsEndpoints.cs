using System.Collections.Immutable;
using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Formats.Tables;
using Solvenda.Web.Security;

namespace Solvenda.Web.Shipping;

/// <summary>Goods on their way out: what may go, what is picked, what went.</summary>
public static class GoodsEndpoints
{
    public static void MapGoods(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var goods = app.MapGroup("/api/goods").WithTags("Goods");
        goods.MapGet("", List).Needs(Rights.Look);
        goods.MapGet("/pick-list", Picks).Needs(Rights.Look).Produces(200, contentType: "application/pdf");
        goods.MapGet("/{order}", Of).Needs(Rights.Look);
        goods.MapPost("/release", Release).Needs<ReleaseGoods>();
        goods.MapPost("/ship", Ship).Needs<ShipOrder>();
        var carriers = app.MapGroup("/api/carriers/{carrier}").WithTags("Goods");
        carriers.MapGet("/file", File).Needs(Rights.Ship).Produces(200, contentType: "text/csv");
        carriers
            .MapPost("/file", Said)
            .Needs<TakeCarrierFile>()
            .WithMetadata(new RequestSizeLimitAttribute(LargestFile));
        var shipments = app.MapGroup("/api/shipments/{order}/{no:int}").WithTags("Goods");
        shipments.MapGet("", Get).Needs(Rights.Look);
        shipments.MapGet("/customs/{paper}", Customs).Needs(Rights.Look).Produces(200, contentType: "application/pdf");
        shipments.MapGet("/note", Note).Needs(Rights.Look).Produces(200, contentType: "application/pdf");
        shipments.MapPost("/pick", Pick).Needs<PickGoods>();
        shipments.MapPost("/pack", Pack).Needs<PackShipment>();
        shipments.MapPost("/send", Send).Needs<SendShipment>();
        shipments.MapPost("/drop", Drop).Needs<DropShipment>();
    }

    private const long LargestFile = 4 * 1024 * 1024;

    /// <summary>As acts take what is to go.</summary>
    public static ImmutableArray<AskedGoods> Asked(IReadOnlyList<GoodsBody>? lines) =>
        [.. (lines ?? []).Select(l => new AskedGoods(l.Key, l.Quantity))];

    private static string Number(string order, int no) => FormattableString.Invariant($"{order}/{no}");

    private static Task<GoodsView> List(
        string? warehouse,
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    ) => GoodsRows.OfAsync(db, warehouse, clock, Rights.Ship.Allows(user.ActorOf()), cancel);

    private static Task<OrderGoodsView> Of(string order, SolvendaDb db, HouseClock clock, CancellationToken cancel) =>
        ShipmentViews.OfOrderAsync(db, order, clock.Today, cancel);

    /// <summary>What is being picked, to be walked with.</summary>
    /// <param name="shipment">Of this one alone.</param>
    /// <param name="wave">Of those that were released together.</param>
    private static async Task<IResult> Picks(
        string? warehouse,
        string? shipment,
        string? wave,
        SolvendaDb db,
        Seller seller,
        CancellationToken cancel
    ) => Results.File(await PickList.OfAsync(db, warehouse, shipment, wave, seller, cancel), "application/pdf");

    /// <param name="paper">commercial-invoice or packing-list.</param>
    private static async Task<IResult> Customs(
        string order,
        int no,
        string paper,
        SolvendaDb db,
        SheetLoader loader,
        Sending sending,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var number = Number(order, no);
        var shipment =
            await db
                .Shipments.AsNoTracking()
                .Include(s => s.Lines)
                .Include(s => s.Picks)
                .FirstOrDefaultAsync(s => s.Number == number, cancel)
            ?? throw RefusedException.NotFound("such shipment");
        if (paper is not ("commercial-invoice" or "packing-list"))
            throw RefusedException.NotFound("such paper");
        var open = await loader.OrderAsync(db, order, cancel);
        return Results.File(
            await sending.CustomsPaperAsync(db, open, shipment, paper, clock.Today, cancel),
            "application/pdf"
        );
    }

    private static async Task<IReadOnlyList<string>> Release(
        ReleaseBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => await acts.RunAsync(user.ActorOf(), new ReleaseGoods(body.Order, Asked(body.Lines), ""), cancel);

    /// <summary>At once, as it is handed over at the counter.</summary>
    private static async Task<IReadOnlyList<string>> Ship(
        ReleaseBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => await acts.RunAsync(user.ActorOf(), new ShipOrder(body.Order, Asked(body.Lines)), cancel);

    /// <summary>What a carrier is told of what goes with them, in the form that the house set for them.</summary>
    /// <param name="day">Of what left on that day; without it what is packed and what left today.</param>
    private static async Task<IResult> File(
        string carrier,
        DateOnly? day,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var left = day ?? clock.Today;
        var (head, rows) = await CarrierRows.OfAsync(
            db,
            carrier,
            s => (day == null && s.State == ShipmentState.Picking) || (s.State == ShipmentState.Gone && s.Day == left),
            clock.Today,
            cancel
        );
        return Results.Stream(
            to => TableWriter.CsvAsync(to, head, rows.ToAsyncEnumerable(), cancel),
            "text/csv",
            $"{carrier} {day ?? clock.Today:yyyy-MM-dd}.csv"
        );
    }

    /// <summary>Takes what a carrier says.</summary>
    /// <param name="dry">Says what would come of it, and changes nothing.</param>
    private static async Task<CarrierFileTaken> Said(
        string carrier,
        string? filename,
        bool? dry,
        HttpRequest http,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var input = new TakeCarrierFile(carrier, filename ?? "the file", await RawBody.ReadAsync(http, cancel));
        return dry == true
            ? (await CarrierFile.ReadAsync(db, input, seller.Home, cancel)).Answer
            : await acts.RunAsync(user.ActorOf(), input, cancel);
    }

    private static Task<ShipmentView> Get(
        string order,
        int no,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    ) => ShipmentViews.OfAsync(db, Number(order, no), Rights.Ship.Allows(user.ActorOf()), cancel);

    /// <summary>The delivery note as it went.</summary>
    private static async Task<IResult> Note(string order, int no, SolvendaDb db, CancellationToken cancel)
    {
        var number = Number(order, no);
        var print = await (
            from s in db.Shipments
            join p in db.Prints on s.PrintId equals p.Id
            where s.Number == number
            select p
        ).FirstOrDefaultAsync(cancel);
        return print is null
            ? throw RefusedException.NotFound("such delivery note")
            : Results.File(print.Bytes, print.ContentType);
    }

    private static Task<ShipmentView> Pick(
        string order,
        int no,
        PickBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) =>
        DoneAsync(
            new PickGoods(
                Number(order, no),
                [.. body.Picked.Select(p => new PickedGoods(p.Line, p.Item, p.Picked, [.. p.Serials ?? []], p.Lots))],
                body.Seen
            ),
            user,
            acts,
            db,
            cancel
        );

    private static Task<ShipmentView> Pack(
        string order,
        int no,
        PackBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) =>
        DoneAsync(
            new PackShipment(Number(order, no), body.Parcels, body.WeightKg, body.Carrier, body.Seen),
            user,
            acts,
            db,
            cancel
        );

    private static Task<ShipmentView> Send(
        string order,
        int no,
        SendBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => DoneAsync(new SendShipment(Number(order, no), body.AsAsked, body.Seen), user, acts, db, cancel);

    private static Task<ShipmentView> Drop(
        string order,
        int no,
        DropBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => DoneAsync(new DropShipment(Number(order, no), body.Reason, body.Seen), user, acts, db, cancel);

    // The shipment as it is since.
    private static async Task<ShipmentView> DoneAsync(
        IAct<string> act,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var number = await acts.RunAsync(user.ActorOf(), act, cancel);
        return await ShipmentViews.OfAsync(db, number, mayShip: true, cancel);
    }
}
