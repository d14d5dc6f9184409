using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Bank;

/// <summary>Money that came, in a line.</summary>
/// <param name="Left">What nothing is taken of yet.</param>
/// <param name="Why">Why somebody has to look; empty where it went by itself.</param>
public sealed record ReceiptLine(
    long Id,
    long Version,
    DateOnly Day,
    string Reference,
    string Payer,
    string Words,
    string Currency,
    decimal Amount,
    decimal Left,
    ReceiptState State,
    string Why,
    string? Buyer
);

/// <summary>Money that came: what needs somebody, and what went by itself with the newest statement.</summary>
/// <param name="Went">How many of it went by themselves.</param>
/// <param name="Waiting">Statements that lie there and are not taken in yet, by their names.</param>
public sealed record BankView(
    string Statement,
    DateOnly? Day,
    string Currency,
    decimal Sum,
    int Came,
    int Went,
    IReadOnlyList<ReceiptLine> Open,
    IReadOnlyList<ReceiptLine> Done,
    bool MayApply,
    IReadOnlyList<string> Waiting
);

/// <summary>An invoice that money may be for.</summary>
/// <param name="Taken">What the proposal takes of it.</param>
public sealed record MayPay(string Number, DateOnly Due, string For, decimal Open, decimal Taken);

/// <summary>What money that came may be for.</summary>
/// <param name="Owes">All that the buyer owes in its currency.</param>
/// <param name="KnownBy">How the buyer is known: by account, by name, or because somebody picked them.</param>
public sealed record ReceiptView(
    ReceiptLine Line,
    string PayerAccount,
    long? BuyerId,
    string? Buyer,
    string KnownBy,
    decimal Owes,
    IReadOnlyList<MayPay> Invoices,
    IReadOnlyList<MayPay> Paid
);

/// <summary>Reads money that came into the shapes that its page needs.</summary>
public static class BankViews
{
    private const int Most = 300;

    public static async Task<BankView> OfAsync(SolvendaDb db, bool mayApply, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var newest = await db
            .Receipts.Where(r => r.Minor > 0)
            .OrderByDescending(r => r.Id)
            .Select(r => new { r.Statement, r.Account })
            .FirstOrDefaultAsync(cancel);
        var of = db.Receipts.Where(r =>
            newest != null && r.Statement == newest.Statement && r.Account == newest.Account && r.Minor > 0
        );
        var sums = await of.GroupBy(r => r.Currency)
            .Select(g => new
            {
                g.Key,
                Sum = g.Sum(r => r.Minor),
                Came = g.Count(),
            })
            .OrderByDescending(g => g.Came)
            .ToListAsync(cancel);
        var done = await LinesAsync(
            db,
            of.Where(r => r.State != ReceiptState.Open).OrderBy(r => r.Day).ThenBy(r => r.Id),
            cancel
        );
        return new BankView(
            newest?.Statement ?? "",
            await of.Select(r => (DateOnly?)r.Day).MaxAsync(cancel),
            sums.FirstOrDefault()?.Key ?? "",
            sums.Count == 0 ? 0m : Amount.Major(sums[0].Sum, sums[0].Key),
            sums.Sum(s => s.Came),
            await of.CountAsync(r => r.Why == "", cancel),
            await LinesAsync(
                db,
                db.Receipts.Where(r => r.State == ReceiptState.Open).OrderBy(r => r.Day).ThenBy(r => r.Id),
                cancel
            ),
            done,
            mayApply,
            []
        );
    }

    private static async Task<IReadOnlyList<ReceiptLine>> LinesAsync(
        SolvendaDb db,
        IQueryable<ReceiptRow> of,
        CancellationToken cancel
    )
    {
        var rows = await of.AsNoTracking()
            .Take(Most)
            .Select(r => new
            {
                Row = r,
                Buyer = db.Buyers.Where(b => b.Id == r.BuyerId).Select(b => b.Name).FirstOrDefault(),
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(r => LineOf(r.Row, r.Buyer));
    }

    private static ReceiptLine LineOf(ReceiptRow r, string? buyer) =>
        new(
            r.Id,
            r.Version,
            r.Day,
            r.Reference,
            r.Payer,
            r.Words,
            r.Currency,
            Amount.Major(r.Minor, r.Currency),
            Amount.Major(r.LeftMinor, r.Currency),
            r.State,
            r.Why,
            buyer
        );

    /// <param name="buyer">Code of whose it may be, where somebody looks at another than was found.</param>
    public static async Task<ReceiptView> OfAsync(SolvendaDb db, long id, string? buyer, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row =
            await db.Receipts.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusedException.NotFound("such money");
        var found = buyer is null
            ? await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == row.BuyerId, cancel)
            : await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Code == buyer, cancel)
                ?? throw RefusedException.NotFound("such buyer");
        var (whose, name) = (found?.Id, found?.Name);
        var known = row.PayerAccount.Length > 0 ? Core.Receiving.Matching.KeyOf(row.PayerAccount) : "";
        return new ReceiptView(
            LineOf(row, name),
            row.PayerAccount,
            whose,
            name,
            whose is null ? ""
                : buyer is not null ? "picked"
                : await db.BuyerSigns.AnyAsync(s => s.Value == known && s.BuyerId == whose, cancel) ? "by account"
                : "by name",
            await OwesAsync(db, whose, row.Currency, cancel),
            whose is null ? [] : await InvoicesAsync(db, row, whose.Value, cancel),
            await PaidAsync(db, row, cancel)
        );
    }

    private static IQueryable<OpenItemRow> OwedBy(SolvendaDb db, long? buyer, string currency) =>
        from o in db.OpenItems
        join b in db.Buyers on o.BuyerId equals b.Id
        where
            o.OpenMinor > 0
            && (b.Id == buyer || b.ParentId == buyer)
            && (o.Currency == currency || (o.Currency == "" && b.Currency == currency))
        select o;

    private static async Task<decimal> OwesAsync(
        SolvendaDb db,
        long? buyer,
        string currency,
        CancellationToken cancel
    ) => Amount.Major(await OwedBy(db, buyer, currency).SumAsync(o => o.OpenMinor, cancel), currency);

    // The oldest first, as far as the money goes: what is proposed.
    private static async Task<IReadOnlyList<MayPay>> InvoicesAsync(
        SolvendaDb db,
        ReceiptRow row,
        long buyer,
        CancellationToken cancel
    )
    {
        var owed = await OwedBy(db, buyer, row.Currency)
            .OrderBy(o => o.Due)
            .ThenBy(o => o.Id)
            .Take(Most)
            .Select(o => new
            {
                o.Number,
                o.Due,
                o.OpenMinor,
                For = db
                    .Invoices.Where(i => i.Id == o.InvoiceId)
                    .Select(i => i.Order.Number + " " + i.Order.Dossier.Matter)
                    .FirstOrDefault(),
            })
            .ToListAsync(cancel);
        var left = row.LeftMinor;
        return
        [
            .. owed.Select(o =>
            {
                var taken = Math.Min(left, o.OpenMinor);
                left -= taken;
                return new MayPay(
                    o.Number,
                    o.Due,
                    o.For ?? "",
                    Amount.Major(o.OpenMinor, row.Currency),
                    Amount.Major(taken, row.Currency)
                );
            }),
        ];
    }

    private static async Task<IReadOnlyList<MayPay>> PaidAsync(SolvendaDb db, ReceiptRow row, CancellationToken cancel)
    {
        var paid = await (
            from p in db.Paid
            join o in db.OpenItems on p.OpenItemId equals o.Id
            where p.ReceiptId == row.Id
            orderby p.Id
            select new
            {
                o.Number,
                o.Due,
                o.OpenMinor,
                p.Minor,
            }
        ).ToListAsync(cancel);
        return paid.ConvertAll(p => new MayPay(
            p.Number,
            p.Due,
            "",
            Amount.Major(p.OpenMinor, row.Currency),
            Amount.Major(p.Minor, row.Currency)
        ));
    }
}
