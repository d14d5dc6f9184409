using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Following;
using Solvenda.Acts.Invoicing;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Invoices;

/// <summary>An order of which something went that no invoice has.</summary>
/// <param name="Went">When the first of it went.</param>
/// <param name="Value">With tax, what of it is not invoiced; of an order that went in part, all that is left.</param>
/// <param name="By">How the invoice goes: mail, edi, paper.</param>
/// <param name="GoesTo">Where it goes; empty where there is no address.</param>
/// <param name="Id">By which it is picked.</param>
/// <param name="IsReady">Whether it goes unless somebody says otherwise; services when somebody says that they are
/// done, a month when it is over.</param>
/// <param name="Collected">Where it is for all of a buyer that goes in a month; null for one order.</param>
public sealed record ToInvoiceRow(
    long Id,
    string Order,
    string Buyer,
    string PoNumber,
    string Shipments,
    DateOnly? Went,
    bool InPart,
    string Currency,
    decimal Value,
    string By,
    string GoesTo,
    bool IsReady,
    ToCollect? Collected
);

/// <summary>What goes to a buyer in a month, for one invoice.</summary>
/// <param name="Until">The last day of it.</param>
public sealed record ToCollect(long Buyer, int Orders, DateOnly Until);

/// <summary>What is to be invoiced.</summary>
/// <param name="More">Keys of orders that went and wait beyond those.</param>
/// <param name="Issued">How many were issued today.</param>
public sealed record ToInvoiceView(
    IReadOnlyList<ToInvoiceRow> Orders,
    IReadOnlyList<long> More,
    int All,
    int Issued,
    bool MayBill
);

/// <summary>Reads what went and is on no invoice: order by order, and month by month for buyers who want it
/// so.</summary>
public static class ToInvoice
{
    private const int Most = 500;
    private const int MostKeys = 10_000;

    private sealed record Waiting(
        long Id,
        string Number,
        BuyerRow Buyer,
        Head Head,
        string Syntax,
        string? PoNumber,
        GoodsTrack Goods,
        string Currency,
        long Minor,
        DateOnly? Went,
        List<int> Shipments
    );

    /// <summary>What is to be invoiced, what went first in front.</summary>
    public static async Task<ToInvoiceView> OfAsync(
        SolvendaDb db,
        DateOnly today,
        bool mayBill,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var services = Unbilled.Services(db).Select(o => o.Id);
        var orders = db.Orders.Where(o =>
            o.Terms == TermsTrack.Confirmed
            && (Unbilled.Shipments(db).Any(s => s.OrderId == o.Id) || services.Contains(o.Id))
        );
        var first = orders
            .OrderBy(o => Unbilled.Shipments(db).Where(s => s.OrderId == o.Id).Min(s => s.Day))
            .ThenBy(o => o.Number);
        var waiting = await first
            .Take(Most)
            .Select(o => new Waiting(
                o.Id,
                o.Number,
                o.Dossier.Buyer,
                o.Sheet.Head,
                db.Requests.Where(r => r.Id == o.RequestId).Select(r => r.Syntax).FirstOrDefault() ?? "",
                o.Sheet.PoNumber,
                o.Goods,
                o.Sheet.Currency,
                o.Sheet.TotalWithTaxMinor - o.InvoicedMinor,
                Unbilled.Shipments(db).Where(s => s.OrderId == o.Id).Min(s => s.Day),
                Unbilled.Shipments(db).Where(s => s.OrderId == o.Id).OrderBy(s => s.No).Select(s => s.No).ToList()
            ))
            .ToListAsync(cancel);
        var more =
            waiting.Count < Most
                ? []
                : await first
                    .Skip(Most)
                    .Where(o => !o.Dossier.Buyer.CollectsInvoices && !services.Contains(o.Id))
                    .Take(MostKeys)
                    .Select(o => o.Id)
                    .ToListAsync(cancel);
        return new ToInvoiceView(
            [
                .. waiting.Where(w => !IsCollected(w)).Select(RowOf),
                .. waiting
                    .Where(IsCollected)
                    .GroupBy(w => (w.Buyer.Id, w.Currency, EndOfMonth(w.Went ?? today)))
                    .Select(g => RowOf([.. g], g.Key.Item3, today)),
            ],
            more,
            waiting.Count < Most ? waiting.Count : await orders.CountAsync(cancel),
            await db.Invoices.CountAsync(i => i.Day == today, cancel),
            mayBill
        );
    }

    // What nobody shipped stands for itself until it is invoiced.
    private static bool IsCollected(Waiting of) => of.Buyer.CollectsInvoices && of.Shipments.Count > 0;

    private static DateOnly EndOfMonth(DateOnly day) =>
        new(day.Year, day.Month, DateTime.DaysInMonth(day.Year, day.Month));

    private static ToInvoiceRow RowOf(Waiting of)
    {
        var way = InvoiceWay.Of(of.Head, of.Syntax, of.Buyer);
        return new ToInvoiceRow(
            of.Id,
            of.Number,
            of.Buyer.Name,
            of.PoNumber ?? "",
            of.Shipments.Count == 0
                ? "services"
                : string.Join(" ", of.Shipments.Select(no => FormattableString.Invariant($"/{no}"))),
            of.Went,
            of.Shipments.Count > 0 && of.Goods != GoodsTrack.Shipped,
            of.Currency,
            Amount.Major(of.Minor, of.Currency),
            way.By,
            way.To,
            IsReady: of.Shipments.Count > 0,
            Collected: null
        );
    }

    private static ToInvoiceRow RowOf(IReadOnlyList<Waiting> all, DateOnly until, DateOnly today)
    {
        var first = all[0];
        var way = InvoiceWay.Of(first.Head, "", first.Buyer);
        return new ToInvoiceRow(
            first.Buyer.Id,
            "",
            first.Buyer.Name,
            "",
            "",
            first.Went,
            all.Any(w => w.Goods != GoodsTrack.Shipped),
            first.Currency,
            Amount.Major(all.Sum(w => w.Minor), first.Currency),
            way.By,
            way.To,
            until <= today,
            new ToCollect(first.Buyer.Id, all.Count, until)
        );
    }
}
