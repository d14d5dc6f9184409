using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Returns;
using Solvenda.Core.Documents;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;
using Solvenda.Web.Shipping;

namespace Solvenda.Web.Returns;

public sealed record AskReturnBody(IReadOnlyList<GoodsBody> Lines, ReturnFor For, string Reason);

/// <param name="Words">Needed where they may not.</param>
public sealed record DecideReturnBody(bool Allow, string Words = "", long? Seen = null);

/// <param name="Lines">What came; none: all that was to come, back to the shelf.</param>
public sealed record TakeReturnBody(IReadOnlyList<CameBack>? Lines = null, long? Seen = null);

public sealed record SettleReturnBody(long? Seen = null);

/// <summary>A line of a return.</summary>
/// <param name="ToStock">What of it went back to the shelf; 0 before it came.</param>
public sealed record ReturnLine(long Key, string Words, string Unit, decimal Quantity, decimal ToStock);

/// <summary>A return, with what comes next.</summary>
/// <param name="SettledBy">Numbers of credit notes, or of the order that replaces it.</param>
public sealed record ReturnView(
    string Number,
    string Order,
    string Buyer,
    int No,
    ReturnState State,
    ReturnFor For,
    string Reason,
    string Answer,
    DateOnly Day,
    string By,
    DateOnly? BackOn,
    IReadOnlyList<string> SettledBy,
    long Version,
    IReadOnlyList<ReturnLine> Lines
);

/// <summary>A line of an order as far as it can come back.</summary>
public sealed record ReturnableLine(long Key, string Words, string Unit, decimal Left);

/// <summary>What came back of an order, and what can.</summary>
public sealed record OrderReturnsView(
    IReadOnlyList<ReturnView> Returns,
    IReadOnlyList<ReturnableLine> Lines,
    bool MayAsk,
    bool MayTake,
    bool MaySettle
);

/// <summary>Goods that buyers give back.</summary>
public static class ReturnEndpoints
{
    public static void MapReturns(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var of = app.MapGroup("/api/orders/{number}/returns").WithTags("Returns");
        of.MapGet("", OfOrder).Needs(Rights.Look);
        of.MapPost("", Ask).Needs<AskReturn>();
        of.MapPost("/{no:int}/decide", Decide).Needs<DecideReturn>();
        of.MapPost("/{no:int}/take", Take).Needs<TakeReturn>();
        of.MapPost("/{no:int}/settle", Settle).Needs<SettleReturn>();
    }

    private static IQueryable<ReturnRow> Whole(SolvendaDb db) =>
        db
            .Returns.AsNoTracking()
            .Include(r => r.Lines)
            .Include(r => r.Order.Dossier.Buyer)
            .Include(r => r.Order.Sheet.StoredLines)
            .AsSplitQuery();

    private static ReturnView ViewOf(ReturnRow r)
    {
        var lines = r.Order.Sheet.ToDraft().Lines.ToDictionary(l => l.Key);
        return new ReturnView(
            r.Number,
            r.Order.Number,
            r.Order.Dossier.Buyer.Name,
            r.No,
            r.State,
            r.For,
            r.Reason,
            r.Answer,
            r.Day,
            r.ByName,
            r.BackOn,
            r.SettledBy.Split(' ', StringSplitOptions.RemoveEmptyEntries),
            r.Version,
            [
                .. r.Lines.Select(l => new ReturnLine(
                    l.LineKey,
                    lines[l.LineKey].Words,
                    UnitTable.OnSheet(lines[l.LineKey].Unit),
                    l.Quantity,
                    l.ToStock
                )),
            ]
        );
    }

    private static async Task<OrderReturnsView> OfOrder(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var order =
            await db
                .Orders.AsNoTracking()
                .Include(o => o.Sheet.StoredLines)
                .FirstOrDefaultAsync(o => o.Number == number, cancel)
            ?? throw RefusedException.NotFound("such order");
        var left = await ReturnBook.LeftAsync(db, order.Id, cancel);
        var rows = await Whole(db).Where(r => r.OrderId == order.Id).OrderBy(r => r.No).ToListAsync(cancel);
        var who = user.ActorOf();
        return new OrderReturnsView(
            rows.ConvertAll(ViewOf),
            [
                .. order
                    .Sheet.ToDraft()
                    .Lines.Where(l => left.GetValueOrDefault(l.Key) > 0m)
                    .Select(l => new ReturnableLine(l.Key, l.Words, UnitTable.OnSheet(l.Unit), left[l.Key])),
            ],
            Rights.Orders.Allows(who),
            Rights.Ship.Allows(who),
            Rights.Bill.Allows(who)
        );
    }

    private static string NumberOf(string order, int no) => FormattableString.Invariant($"{order}/R{no}");

    private static async Task<OrderReturnsView> Ask(
        string number,
        AskReturnBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var input = new AskReturn(number, GoodsEndpoints.Asked(body.Lines), body.For, body.Reason);
        await acts.RunAsync(user.ActorOf(), input, cancel);
        return await OfOrder(number, user, db, cancel);
    }

    private static async Task<OrderReturnsView> Decide(
        string number,
        int no,
        DecideReturnBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var input = new DecideReturn(NumberOf(number, no), body.Allow, body.Words, body.Seen);
        await acts.RunAsync(user.ActorOf(), input, cancel);
        return await OfOrder(number, user, db, cancel);
    }

    private static async Task<OrderReturnsView> Take(
        string number,
        int no,
        TakeReturnBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var input = new TakeReturn(NumberOf(number, no), [.. body.Lines ?? []], body.Seen);
        await acts.RunAsync(user.ActorOf(), input, cancel);
        return await OfOrder(number, user, db, cancel);
    }

    private static async Task<OrderReturnsView> Settle(
        string number,
        int no,
        SettleReturnBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new SettleReturn(NumberOf(number, no), body.Seen), cancel);
        return await OfOrder(number, user, db, cancel);
    }
}
