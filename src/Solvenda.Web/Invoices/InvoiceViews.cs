using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Invoicing;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Invoices;

/// <summary>What was taken of an invoice.</summary>
/// <param name="By">By which: the bank's reference, or the number of a credit note; else what was done.</param>
/// <param name="IsSaid">Whether neither money nor a note took it: it was written off, say.</param>
public sealed record PaidPart(DateOnly Day, decimal Amount, string By, bool IsCredit, bool IsSaid);

/// <summary>One side of an entry.</summary>
/// <param name="Debit">In home currency; 0 where it is the other side.</param>
/// <param name="MovedFrom">The account that the rules said, where somebody moved it; empty where nobody did.</param>
public sealed record EntrySide(
    DateOnly Day,
    string Account,
    string Called,
    decimal Debit,
    decimal Credit,
    string MovedFrom
);

/// <summary>A line of an order as far as it can be credited.</summary>
/// <param name="Left">In the order's unit.</param>
/// <param name="Order">The one that it is of.</param>
public sealed record CreditableLine(string Order, long Key, string Number, string Words, string Unit, decimal Left);

/// <summary>An invoice or a credit note on its page.</summary>
/// <param name="Open">What is still to be paid; below nothing where we owe it.</param>
/// <param name="Disputed">What the buyer says against it; empty where nothing.</param>
/// <param name="Notes">Numbers of its credit notes.</param>
/// <param name="Units">What its units are called, by their codes.</param>
/// <param name="Entries">Empty for who may not see the ledger.</param>
/// <param name="Commissions">Those that whoever looks may see.</param>
public sealed record InvoiceView(
    IssuedInvoice Issued,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    decimal ToPay,
    decimal Open,
    string Disputed,
    string ToldTo,
    string By,
    DateTime At,
    string HomeCurrency,
    IReadOnlyList<PaidPart> Paid,
    IReadOnlyList<string> Notes,
    IReadOnlyList<EntrySide> Entries,
    IReadOnlyList<CommissionView> Commissions,
    IReadOnlyDictionary<string, string> Units,
    bool MayBill
);

/// <summary>An invoice in one line, on an order that it is for.</summary>
/// <param name="Total">What of it is of this order.</param>
/// <param name="Open">Of all of it.</param>
/// <param name="IsCollected">Whether others are on it.</param>
/// <param name="IsDeposit">Whether it taxed a deposit.</param>
public sealed record InvoiceInShort(
    string Number,
    bool IsCredit,
    DateOnly Day,
    DateOnly Due,
    decimal Total,
    decimal Open,
    string Credits,
    bool IsCollected,
    bool IsDeposit
);

/// <summary>The money of an order.</summary>
/// <param name="ToBill">Numbers of shipments that no invoice has.</param>
/// <param name="Carriage">Null for who may not see what things cost, and where no carrier said it.</param>
public sealed record OrderMoneyView(
    string Currency,
    IReadOnlyList<InvoiceInShort> Invoices,
    IReadOnlyList<string> ToBill,
    bool MayBill,
    Carriage? Carriage
);

/// <summary>What carriers took for an order, beside what its invoices charge for it, in home currency.</summary>
public sealed record Carriage(decimal Took, decimal Charged, string Currency);

/// <summary>Reads invoices into the shapes that pages need.</summary>
public static class InvoiceViews
{
    public static async Task<InvoiceView> OfAsync(SolvendaDb db, string number, Actor who, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(who);
        var row = await FindAsync(db, number, cancel);
        var issued = Read(row);
        var currency = Currency.Of(row.Currency);
        var items = await db.OpenItems.AsNoTracking().Where(o => o.InvoiceId == row.Id).ToListAsync(cancel);
        var entries = Rights.SeeLedger.Allows(who) ? await EntriesAsync(db, row, cancel) : ("", []);
        return new InvoiceView(
            issued,
            issued.TotalWithoutTax,
            issued.TotalTax,
            issued.TotalWithTax,
            issued.ToPay,
            Amount.FromMinor(items.Sum(o => o.OpenMinor), currency).Value,
            items.Find(o => o.Disputed.Length > 0)?.Disputed ?? "",
            row.ToldTo,
            row.ByName,
            row.At,
            entries.Currency,
            await PaidAsync(db, row, currency, cancel),
            await db
                .Invoices.Where(i => i.CreditsId == row.Id)
                .OrderBy(i => i.Id)
                .Select(i => i.Number)
                .ToListAsync(cancel),
            entries.Sides,
            await NextInvoice.CommissionsAsync(db, row, who, cancel),
            issued.Lines.Select(l => l.Unit).Distinct().ToDictionary(u => u, u => UnitTable.OnSheet(Unit.Of(u))),
            Rights.Bill.Allows(who)
        );
    }

    private static async Task<IReadOnlyList<PaidPart>> PaidAsync(
        SolvendaDb db,
        InvoiceRow row,
        Currency currency,
        CancellationToken cancel
    )
    {
        var paid = await (
            from p in db.Paid
            join o in db.OpenItems on p.OpenItemId equals o.Id
            where o.InvoiceId == row.Id
            orderby p.Id
            select new
            {
                p.Day,
                p.Minor,
                p.Reason,
                Receipt = db.Receipts.Where(r => r.Id == p.ReceiptId).Select(r => r.Reference).FirstOrDefault(),
                Note = db.Invoices.Where(i => i.Id == p.CreditId).Select(i => i.Number).FirstOrDefault(),
            }
        ).ToListAsync(cancel);
        return
        [
            .. paid.Select(p => new PaidPart(
                p.Day,
                Amount.FromMinor(p.Minor, currency).Value,
                p.Note ?? p.Receipt ?? p.Reason,
                p.Note is not null,
                p.Note is null && p.Receipt is null
            )),
        ];
    }

    private static async Task<(string Currency, IReadOnlyList<EntrySide> Sides)> EntriesAsync(
        SolvendaDb db,
        InvoiceRow row,
        CancellationToken cancel
    )
    {
        var entries = await db.Entries.Where(e => e.Document == row.Number).OrderBy(e => e.Id).ToListAsync(cancel);
        var names = await db.Accounts.ToDictionaryAsync(a => a.Code, a => a.Words, cancel);
        return (
            entries.Count > 0 ? entries[0].Currency : "",
            [
                .. entries.Select(e => new EntrySide(
                    e.Day,
                    e.Account,
                    names.GetValueOrDefault(e.Account, ""),
                    Amount.Major(e.DebitMinor, e.Currency),
                    Amount.Major(e.CreditMinor, e.Currency),
                    e.MovedFrom
                )),
            ]
        );
    }

    public static async Task<InvoiceRow> FindAsync(SolvendaDb db, string number, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return await db.Invoices.AsNoTracking().FirstOrDefaultAsync(i => i.Number == number, cancel)
            ?? throw RefusedException.NotFound("such invoice");
    }

    public static IssuedInvoice Read(InvoiceRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return JsonSerializer.Deserialize<IssuedInvoice>(row.Document)!;
    }

    public static async Task<OrderMoneyView> OfOrderAsync(
        SolvendaDb db,
        Seller seller,
        string number,
        Actor who,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var order =
            await db
                .Orders.Where(o => o.Number == number)
                .Select(o => new { o.Id, o.Sheet.Currency })
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such order");
        var invoices = await db
            .InvoiceParts.Where(p => p.OrderId == order.Id)
            .OrderBy(p => p.InvoiceId)
            .Select(p => new
            {
                p.Invoice.Number,
                p.Invoice.Kind,
                p.Invoice.Day,
                p.Invoice.Due,
                p.TotalWithTaxMinor,
                IsCollected = p.Invoice.Parts.Count > 1,
                Open = db.OpenItems.Where(o => o.InvoiceId == p.InvoiceId).Sum(o => o.OpenMinor),
                Credits = db.Invoices.Where(c => c.Id == p.Invoice.CreditsId).Select(c => c.Number).FirstOrDefault(),
            })
            .ToListAsync(cancel);
        return new OrderMoneyView(
            order.Currency,
            [
                .. invoices.Select(i => new InvoiceInShort(
                    i.Number,
                    i.Kind == BillKind.Credit,
                    i.Day,
                    i.Due,
                    Amount.Major(i.TotalWithTaxMinor, order.Currency),
                    Amount.Major(i.Open, order.Currency),
                    i.Credits ?? "",
                    i.IsCollected,
                    i.Kind == BillKind.Deposit
                )),
            ],
            await Unbilled
                .Shipments(db)
                .Where(s => s.OrderId == order.Id)
                .OrderBy(s => s.No)
                .Select(s => s.Number)
                .ToListAsync(cancel),
            Rights.Bill.Allows(who),
            Sight.SeesCost(who.Roles) ? await CarriageAsync(db, seller, order.Id, cancel) : null
        );
    }

    private static async Task<Carriage?> CarriageAsync(
        SolvendaDb db,
        Seller seller,
        long order,
        CancellationToken cancel
    )
    {
        var took = await db
            .Shipments.Where(s => s.OrderId == order && s.CostMinor != null)
            .SumAsync(s => s.CostMinor, cancel);
        if (took is null or 0)
            return null;
        var bills = await db
            .InvoiceParts.Where(p => p.OrderId == order)
            .Select(p => new
            {
                p.Bill,
                p.Invoice.Kind,
                p.Invoice.Currency,
                p.Invoice.Rate,
            })
            .ToListAsync(cancel);
        var charged = bills.Select(b =>
        {
            var all = KeptBill.Read(b.Kind, b.Bill, Currency.Of(b.Currency)).ChargeTotal.Value * b.Rate;
            return Amount.Round(b.Kind == BillKind.Credit ? -all : all, seller.Home);
        });
        return new Carriage(
            Amount.FromMinor(took.Value, seller.Home).Value,
            Amount.Sum(charged, seller.Home).Value,
            seller.Home.Code
        );
    }

    /// <summary>What of an invoice can still be credited, line by line of the order.</summary>
    public static async Task<IReadOnlyList<CreditableLine>> CreditableAsync(
        SolvendaDb db,
        string number,
        CancellationToken cancel
    )
    {
        var row = await FindAsync(db, number, cancel);
        var notes = await db.Invoices.AsNoTracking().Where(i => i.CreditsId == row.Id).ToListAsync(cancel);
        var back = notes
            .Select(Read)
            .SelectMany(n => n.Lines.DistinctBy(l => l.Key).Select(l => (Of: (n.Order, l.Key), l.Quantity)))
            .GroupBy(l => l.Of)
            .ToDictionary(g => g.Key, g => g.Sum(l => l.Quantity));
        var of = Read(row);
        return
        [
            .. of
                .Lines.Select(l => l.Order.Length > 0 ? l : l with { Order = of.Order })
                .DistinctBy(l => (l.Order, l.Key))
                .Select(l => new CreditableLine(
                    l.Order,
                    l.Key,
                    l.Number,
                    l.Words,
                    l.Unit,
                    l.Quantity - back.GetValueOrDefault((l.Order, l.Key))
                ))
                // Lines about deposits are of no line of the order.
                .Where(l => l.Left > 0m && l.Key != 0),
        ];
    }
}
