using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Mail;
using Solvenda.Formats.X12;
using Solvenda.Web.Approvals;
using Solvenda.Web.Commands;
using Solvenda.Web.Printing;
using Solvenda.Web.Quotes;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

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
public sealed record Waive(string Check, long? Line, string Reason);

public static class OrderEndpoints
{
    public static void MapOrders(this IEndpointRouteBuilder app)
    {
        var orders = app.MapGroup("/api/orders").WithTags("Orders");
        orders.MapGet("", List).RequireAuthorization(May.Look);
        orders.MapGet("/{number}", Get).RequireAuthorization(May.Look);
        orders.MapPost("/{number}/ask", Ask).RequireAuthorization(May.Write);
        orders.MapPost("/{number}/waive", WaiveStop).RequireAuthorization(May.Decide);
        orders.MapPost("/{number}/confirm", Confirm).RequireAuthorization(May.Write);
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
                o is { Terms: TermsTrack.Open, Stops: > 0 } ? TermsTrack.Held : o.Terms,
                o.Goods,
                o.Money,
                o.Currency,
                QuoteEndpoints.Major(o.TotalWithTaxMinor, o.Currency),
                o.Channel,
                o.CreatedAt,
                o.Matter,
                o.Stops,
                o.FirstStop
            )),
        ];
    }

    private static async Task<DocumentView> Get(
        string number,
        SolvendaDb db,
        SheetLoader loader,
        DocumentViews views,
        CancellationToken cancel
    ) => await views.OfAsync(db, await loader.OrderAsync(db, number, cancel), cancel);

    private static async Task<DocumentView> Ask(
        string number,
        AskWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.OrderAsync(work.Db, number, cancel);
                await Versions.MatchAsync(work.Db, open, ifMatch, cancel);
                Asking.Ask(work, open, await judge.JudgeAsync(work.Db, open, cancel), body.Why);
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, await loader.OrderAsync(work.Db, number, cancel), cancel);
            },
            cancel
        );

    private static async Task<DocumentView> WaiveStop(
        string number,
        Waive body,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(body.Reason))
            throw RefusalException.Bad("reason_missing", "Say why it may pass; the reason is kept.", "reason");
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.OrderAsync(work.Db, number, cancel);
                if (!open.IsEditable)
                    throw RefusalException.Clash(
                        "sheet_closed",
                        "The order is confirmed; there is nothing to let pass."
                    );
                var judged = await judge.JudgeAsync(work.Db, open, cancel);
                var finding =
                    judged.Findings.FirstOrDefault(f =>
                        f.Check == body.Check && f.Line == body.Line && f.Outcome == Outcome.Stop
                    ) ?? throw RefusalException.Clash("no_such_stop", "That no longer stops the order.");
                var me = open.People[new PersonId(work.Actor.PersonId!.Value)];
                MayWaive(finding, work.Actor, me);
                work.Db.Waivers.Add(
                    new WaiverRow
                    {
                        OrderId = open.Order!.Id,
                        Check = finding.Check,
                        LineKey = finding.Line,
                        Fingerprint = finding.Fingerprint,
                        Excess = finding.Excess,
                        ById = me.Id.Value,
                        ByName = me.Name,
                        Reason = body.Reason.Trim(),
                        At = work.Now,
                    }
                );
                work.History(
                    number,
                    open.Dossier.Id,
                    "order.waived",
                    $"{finding.Check} let pass by {me.Name}",
                    finding.Words,
                    null,
                    body.Reason.Trim()
                );
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, await loader.OrderAsync(work.Db, number, cancel), cancel);
            },
            cancel
        );
    }

    private static void MayWaive(Finding finding, Actor actor, Decider me)
    {
        var may = finding.Waive switch
        {
            WaiveBy.Lead => actor.Roles.HasFlag(Roles.Lead),
            WaiveBy.Credit => me.Authority.CreditOver is { } over && finding.Excess <= over,
            _ => false,
        };
        if (!may)
        {
            throw RefusalException.Forbidden(
                finding.Waive switch
                {
                    WaiveBy.Nobody => "Nobody may let this pass; it has to be cured.",
                    WaiveBy.Credit => me.Authority.CreditOver is null
                        ? "That is the credit controller's to decide."
                        : "That is more than you may let pass.",
                    _ => "A lead may let this pass.",
                }
            );
        }
    }

    /// <summary>Commits the stock, fixes the dates, and acknowledges to the buyer the way their documents go.</summary>
    private static async Task<DocumentView> Confirm(
        string number,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        Seller seller,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.OrderAsync(work.Db, number, cancel);
                var order = open.Order!;
                if (!open.IsEditable)
                    throw RefusalException.Clash("sheet_closed", "It is confirmed already.");
                await Versions.MatchAsync(work.Db, open, ifMatch, cancel);
                var judged = await judge.JudgeAsync(work.Db, open, cancel);
                if (judged.Findings.FirstOrDefault(f => f.Outcome == Outcome.Stop) is { } stop)
                    throw RefusalException.Clash("stopped", stop.Words);
                open.Sheet.Kept = KeptLines.Write(judged.Priced);
                foreach (var line in judged.Priced.Sold.Where(l => !l.Line.Optional))
                    Commit(work, open, judged, line);
                (order.Terms, order.ConfirmedAt, order.Stops, order.FirstStop) = (
                    TermsTrack.Confirmed,
                    work.Now,
                    0,
                    ""
                );
                open.Sheet.Version++;
                await AcknowledgeAsync(work, open, judged, seller, cancel);
                work.History(
                    number,
                    open.Dossier.Id,
                    "order.confirmed",
                    "confirmed to the buyer",
                    nameof(TermsTrack.Open),
                    nameof(TermsTrack.Confirmed)
                );
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, open, cancel);
            },
            cancel
        );

    private static void Commit(Work work, OpenSheet open, Judged judged, Core.Sheets.PricedLine line)
    {
        if (!judged.Facts.Stock.TryGetValue(line.Line.Key, out var stock))
            return;
        open.Sheet.Lines.First(l => l.Key == line.Line.Key).Promised = stock.Promise?.Arrives;
        foreach (var need in stock.Needs)
        {
            var parts = stock.Parts.IsEmpty
                ? [(stock.Promise?.Taken ?? work.Today, need.Quantity)]
                : stock.Parts.Select(p => (p.Promise.Taken, p.Quantity)).ToList();
            foreach (var (day, quantity) in parts)
                work.Db.Commitments.Add(
                    new CommitmentRow
                    {
                        OrderId = open.Order!.Id,
                        LineKey = line.Line.Key,
                        ItemId = need.Item.Value,
                        Warehouse = open.Sheet.ShipFrom!,
                        Day = day,
                        Quantity = quantity,
                    }
                );
        }
    }

    private static async Task AcknowledgeAsync(
        Work work,
        OpenSheet open,
        Judged judged,
        Seller seller,
        CancellationToken cancel
    )
    {
        var key = $"{open.Order!.Number}.acknowledgement".ToLowerInvariant();
        if (open.Sheet.DocumentsBy == DocumentsBy.Edi && open.Order.RequestId is { } requestId)
        {
            var raw = await work.Db.Requests.Where(r => r.Id == requestId).Select(r => r.Text).FirstAsync(cancel);
            if (raw.StartsWith("ISA", StringComparison.Ordinal) && X12Interchange.Open(raw).Interchange is { } order)
            {
                var control = await Series.NextCountInTransactionAsync(work.Db, Series.Interchange, 0, cancel);
                var text = Acknowledgement.Write(X12Ack(work, open, judged, order, control));
                work.Send(
                    "edi",
                    key,
                    order.Sender,
                    $"855-{open.Order.Number}.x12",
                    System.Text.Encoding.ASCII.GetBytes(text)
                );
                return;
            }
        }
        var letter = BuyerLetters.Acknowledgement(open, seller);
        if (open.Sheet.DocumentsBy == DocumentsBy.Paper)
        {
            Outgoing.Addressed(DocumentsBy.Paper, open.Buyer.Address);
            Outgoing.Post(
                work,
                key,
                open.Buyer.Address,
                SheetPrint.Acknowledgement(
                    judged,
                    seller,
                    work.Today,
                    SheetPrint.Letter(open, open.Buyer.Address, letter.Text)
                )
            );
            return;
        }
        Outgoing.Addressed(DocumentsBy.Mail, open.Buyer.ContactMail ?? "");
        Outgoing.Mail(
            work,
            seller,
            key,
            open.Buyer.ContactMail!,
            letter,
            ($"{letter.Subject}.pdf", SheetPrint.Acknowledgement(judged, seller, work.Today))
        );
    }

    // Units and price bases are theirs: the acknowledgement speaks the language of the order.
    private static OrderAcknowledgement X12Ack(
        Work work,
        OpenSheet open,
        Judged judged,
        EdiInterchange order,
        int control
    )
    {
        var po1 = order.Segments.Where(s => s.Tag == "PO1").ToList();
        var lines = ImmutableArray.CreateBuilder<ConfirmedLine>();
        var withChanges = false;
        foreach (var line in judged.Priced.Sold)
        {
            var asked = line.Line.Asked;
            var theirs = Theirs(po1, asked, po1.Count == judged.Priced.Sold.Count() ? lines.Count : null);
            var (unit, quantity, price, basis) = InTheirs(line, theirs);
            var promised = judged.Facts.Stock.GetValueOrDefault(line.Line.Key)?.Promise;
            var changed = theirs is not null && asked.Price is { } p && price != p;
            withChanges |= changed;
            var codes = new List<(string, string)>();
            if (asked.Code is { } code && asked.Code != line.Item?.Code)
                codes.Add(("BP", code));
            if (line.Item is { } item)
                codes.Add(("VP", item.Code));
            lines.Add(
                new ConfirmedLine(
                    theirs?[1] ?? line.Line.Key.ToString(CultureInfo.InvariantCulture),
                    quantity,
                    unit,
                    price,
                    basis,
                    changed ? "IP" : "IA",
                    promised?.Ready,
                    [.. codes]
                )
            );
        }
        var beg = order.Segments.FirstOrDefault(s => s.Tag == "BEG");
        var poDate = DateOnly.TryParseExact(
            beg?[5],
            "yyyyMMdd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : (DateOnly?)null;
        return new OrderAcknowledgement(
            order.Receiver,
            order.Sender,
            control,
            work.Now,
            open.Sheet.PoNumber ?? "",
            poDate,
            open.Order!.Number,
            withChanges,
            open.Sheet.Currency,
            lines.ToImmutable()
        );
    }

    // By the code and quantity that they wrote, since lines may have been left out, split or added; else by its place, as long as there are as many.
    private static Segment? Theirs(List<Segment> po1, Core.Sheets.AskedFor asked, int? place)
    {
        bool Names(Segment s) =>
            asked.Code is { } code && Enumerable.Range(6, Math.Max(0, s.Elements - 5)).Any(e => s.Says(e, code));
        return po1.FirstOrDefault(s =>
                Names(s)
                && decimal.TryParse(
                    s[2],
                    NumberStyles.AllowDecimalPoint,
                    CultureInfo.InvariantCulture,
                    out var quantity
                )
                && quantity == asked.Quantity
            )
            ?? po1.FirstOrDefault(Names)
            ?? (place is { } at ? po1[at] : null);
    }

    private static (string Unit, decimal Quantity, decimal Price, string Basis) InTheirs(
        Core.Sheets.PricedLine line,
        Segment? theirs
    )
    {
        var net = line.Figures.NetPrice / line.Terms.PriceBase;
        if (
            theirs is null
            || UnitTable.FromCode(theirs[3]) is not { } unit
            || line.Item?.Factor(unit) is not { } to
            || line.Item.Factor(line.Line.Unit) is not { } from
        )
            return (line.Line.Unit.Code, line.Line.Quantity, Core.Money.UnitPrice.Round4(net), "PE");
        var times = line.Line.Asked.PriceBase;
        return (
            theirs[3],
            decimal.Round(line.Line.Quantity * from / to, 4),
            Core.Money.UnitPrice.Round4(net / from * to * times),
            theirs[5].Length > 0 ? theirs[5] : "PE"
        );
    }
}
