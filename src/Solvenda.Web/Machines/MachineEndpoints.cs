using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Requests;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Machines;

/// <summary>A request as machines see it.</summary>
/// <param name="Reason">Why it needs a person, or why it could not be read; empty where neither.</param>
public sealed record InboundView(
    long Id,
    string Number,
    RequestState State,
    string Reason,
    string Channel,
    DateTime ReceivedAt,
    ReadingView? Reading
);

/// <summary>A line to be priced: an item's code or GTIN, a quantity, and at most one of discount, net price and margin.</summary>
/// <param name="Unit">UN/ECE Rec 20 code or a word for one; without it the item's stock unit.</param>
public sealed record PriceLine(
    string Item,
    decimal Quantity,
    string? Unit = null,
    decimal? DiscountPercent = null,
    decimal? DiscountAmount = null,
    decimal? NetPrice = null,
    decimal? MarginPercent = null,
    IReadOnlyList<decimal>? Charges = null,
    bool Optional = false
);

/// <summary>A charge on the sheet, such as freight.</summary>
public sealed record PriceCharge(string Kind, decimal Amount);

/// <summary>What would this buyer pay on that day?</summary>
/// <param name="Buyer">Code, name, or key.</param>
/// <param name="Date">Without it: today.</param>
/// <param name="Currency">Without it: the buyer's.</param>
/// <param name="Channel">For campaigns; without it none of a channel is met.</param>
/// <param name="Incoterm">Without it the buyer's; freight and insurance follow it, unless charges of these kinds are given.</param>
/// <param name="DeliverToCountry">ISO 3166-1 alpha-2; without it where the buyer's goods go by default.</param>
public sealed record PriceRequest(
    string Buyer,
    IReadOnlyList<PriceLine> Lines,
    DateOnly? Date = null,
    string? Currency = null,
    string? DeliverToCountry = null,
    decimal? SheetDiscountPercent = null,
    decimal? SheetDiscountAmount = null,
    IReadOnlyList<PriceCharge>? Charges = null,
    string? Channel = null,
    string? Incoterm = null,
    string? IncotermPlace = null,
    string? FreightService = null,
    decimal? Deposit = null
);

/// <summary>The machine's door, kept stable: what comes in, what became of it, and prices.</summary>
public static class MachineEndpoints
{
    /// <summary>Larger bodies are refused at the door: 64 MB.</summary>
    public const long LargestBody = 64L * 1024 * 1024;

    private const int MostLines = 2_000;

    public static void MapMachines(this IEndpointRouteBuilder app)
    {
        var v1 = app.MapGroup("/api/v1").WithTags("Machines").RequireAuthorization(May.Machine);
        v1.MapPost("/inbound", Inbound)
            .WithMetadata(new RequestSizeLimitAttribute(LargestBody))
            .Produces<InboundView>(201)
            .Produces<InboundView>(200);
        v1.MapGet("/requests/{id:long}", Get);
        v1.MapPost("/price", Price);
        app.MapGet("/healthz", Health).AllowAnonymous().ExcludeFromDescription();
    }

    private static async Task<IResult> Inbound(
        HttpRequest http,
        string? filename,
        ClaimsPrincipal user,
        Intake intake,
        CancellationToken cancel
    )
    {
        using var body = new MemoryStream();
        await http.Body.CopyToAsync(body, cancel);
        var (request, isNew) = await intake.ReceiveAsync(
            "machine",
            filename,
            http.ContentType,
            body.ToArray(),
            user.ActorOf(),
            cancel
        );
        var view = ViewOf(request);
        return isNew ? Results.Created($"/api/v1/requests/{request.Id}", view) : Results.Ok(view);
    }

    private static async Task<InboundView> Get(long id, SolvendaDb db, CancellationToken cancel) =>
        ViewOf(
            await db.Requests.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
                ?? throw RefusalException.NotFound("such request")
        );

    private static InboundView ViewOf(RequestRow r) =>
        new(
            r.Id,
            r.Number,
            r.State,
            r.Reason,
            r.Channel,
            r.ReceivedAt,
            r.Reading.Length > 0 ? ReadingView.FromJson(r.Reading) : null
        );

    private static async Task<SheetView> Price(
        PriceRequest body,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        if (body.Lines.Count > MostLines)
            throw RefusalException.Bad("too_many_lines", $"At most {MostLines} lines are priced at once.", "lines");
        var buyer = await FindBuyerAsync(db, body.Buyer.Trim(), cancel);
        var book = await books.BookAsync(db, cancel);
        var finder = await books.ItemsAsync(db, cancel);
        if (!Currency.TryOf(body.Currency ?? buyer.Currency, out var currency))
            throw RefusalException.Bad(
                "currency_unknown",
                $"“{body.Currency}” is not a currency of ISO 4217.",
                "currency"
            );
        if (
            body
            is { SheetDiscountPercent: not null, SheetDiscountAmount: not null }
                or { SheetDiscountPercent: < 0 or > 100 }
                or { SheetDiscountAmount: < 0 }
        )
            throw RefusalException.Bad(
                "number",
                "A discount on the sheet is a percentage from 0 to 100, or an amount.",
                "sheetDiscountPercent"
            );
        var day = body.Date ?? clock.Today;
        var sheet = new Sheet(
            currency,
            day,
            body.DeliverToCountry ?? buyer.DeliverToCountry,
            [.. body.Lines.Select((l, i) => LineOf(l, i, finder))],
            new SheetDiscount(body.SheetDiscountPercent, body.SheetDiscountAmount),
            [.. (body.Charges ?? []).Select(c => new SheetCharge(c.Kind, c.Amount, null, true))],
            body.Deposit ?? 0m
        )
        {
            Channel = body.Channel,
            Incoterm = (body.Incoterm ?? buyer.Incoterm)?.ToUpperInvariant(),
            FreightService = body.FreightService,
        };
        var priced = SheetPricer.Price(book, Rates.On(day, book.Home, book.DatedRates), buyer.ToBuyer(), sheet);
        return await JudgedAsync(db, buyer, priced, body.IncotermPlace ?? buyer.IncotermPlace, cancel);
    }

    // Nothing is stored, so checks that look at documents have nothing to look at; the rest run as on any quote of the account manager's.
    private static async Task<SheetView> JudgedAsync(
        SolvendaDb db,
        BuyerRow buyer,
        PricedSheet priced,
        string? place,
        CancellationToken cancel
    )
    {
        var people = (await db.People.AsNoTracking().ToListAsync(cancel))
            .Select(p => p.ToDecider())
            .ToDictionary(p => p.Id);
        var seller = buyer.AccountManagerId is { } id ? people[new PersonId(id)] : null;
        var figures = SheetFigures.Of(priced);
        var need = seller is null ? ApprovalNeed.Nothing : Core.Approvals.Route.Find(figures, seller, people);
        var headroom = priced.Sold.ToDictionary(
            l => l.Line.Key,
            l => seller is null ? null : Headroom.Line(l, priced, seller.Authority)
        );
        var facts = new CheckFacts(
            DocumentKind.Quote,
            priced,
            priced.Buyer,
            new HeadTerms(null, buyer.PaymentDays, priced.Sheet.Incoterm, place, buyer.DeliverTo, buyer.ShipFrom, null)
            {
                DocumentsBy = buyer.DocumentsBy,
            },
            [],
            new Dictionary<long, LineStock>(),
            null,
            need,
            need.Needed ? ApprovalState.Needed : ApprovalState.NotNeeded,
            figures,
            seller?.Authority ?? Authority.None,
            headroom,
            priced.Tally.TotalWithTax,
            1m,
            []
        );
        return SheetView.Of(
            priced,
            CheckList.Run(facts),
            0,
            0,
            false,
            new HeadView(
                null,
                buyer.PaymentDays,
                priced.Sheet.Incoterm,
                place,
                buyer.DeliverTo,
                priced.Sheet.DeliverToCountry,
                buyer.ShipFrom,
                null,
                "",
                "",
                null
            ),
            facts.Stock,
            headroom,
            seller is null ? [] : Headroom.Sheet(priced, seller, people),
            new ApprovalView(facts.ApprovalState, need.Approver?.Name, [.. need.Fired.Select(f => f.Words)])
        );
    }

    private static async Task<BuyerRow> FindBuyerAsync(SolvendaDb db, string sought, CancellationToken cancel)
    {
        var key = long.TryParse(sought, out var id) ? id : -1;
        return await db
                .Buyers.AsNoTracking()
                .Where(b => b.Code == sought || b.Name == sought || b.Id == key)
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusalException.Bad("buyer_unknown", $"We have no buyer “{sought}”.", "buyer");
    }

    private static SheetLine LineOf(PriceLine line, int at, Core.Reading.ItemFinder finder)
    {
        var field = $"lines[{at}]";
        var item = finder.ByCode(line.Item);
        var hands = new (ByHandKind Kind, decimal? Value)[]
        {
            (ByHandKind.DiscountPercent, line.DiscountPercent),
            (ByHandKind.DiscountAmount, line.DiscountAmount),
            (ByHandKind.NetPrice, line.NetPrice),
            (ByHandKind.Margin, line.MarginPercent),
        }
            .Where(h => h.Value is not null)
            .ToList();
        if (hands.Count > 1)
            throw RefusalException.Bad("number", "A line takes one of discount, amount, net price and margin.", field);
        if (
            line.Quantity is < 0 or > 10_000_000m
            || line.MarginPercent >= 100
            || line.DiscountPercent > 100
            || line.NetPrice < 0
        )
            throw RefusalException.Bad("number", "A figure of the line is out of its range.", field);
        var unit = line.Unit is { Length: > 0 } word
            ? UnitTable.FromCode(word) ?? UnitTable.FromWord(word) ?? Unit.Of(word)
            : item?.StockUnit ?? Unit.Piece;
        return new SheetLine(
            at + 1,
            LineKind.Item,
            item?.Id,
            item?.Words ?? line.Item,
            line.Quantity,
            unit,
            hands.Count == 0 ? ByHand.None : new ByHand(hands[0].Kind, hands[0].Value!.Value, null),
            [.. line.Charges ?? []],
            line.Optional,
            "",
            AskedFor.Nothing
        );
    }

    private static async Task<IResult> Health(SolvendaDb db, CancellationToken cancel) =>
        await db.Database.CanConnectAsync(cancel)
            ? Results.Text("ok")
            : Results.Text("the database does not answer", statusCode: 503);
}
