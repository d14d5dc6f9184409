using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ledger;

/// <summary>A deposit that was taxed when it came, and what of that no invoice took off yet.</summary>
/// <param name="Rate">That of its invoice.</param>
internal sealed record TaxedDeposit(DepositRow Row, string Number, decimal Rate, ImmutableArray<TaxDeduction> Left)
{
    /// <summary>What the ledger has on account of it: without its tax, which was posted.</summary>
    public Amount Home(Currency home) =>
        Left.IsEmpty
            ? Amount.Zero(home)
            : Amount.Round(Amount.Sum(Left.Select(l => l.Basis), Left[0].Basis.Currency).Value * Rate, home);
}

/// <summary>Money that came for an order before it was invoiced, the oldest first.</summary>
internal sealed class HeldMoney(
    IReadOnlyList<DepositRow> deposits,
    IEnumerable<TaxedDeposit> taxed,
    Currency currency,
    Currency home
)
{
    private readonly List<TaxedDeposit> _taxed = [.. taxed];

    public static async Task<HeldMoney> OfOrderAsync(
        Work work,
        OpenSheet open,
        Books books,
        Seller seller,
        CancellationToken cancel
    )
    {
        var order = open.Order!;
        var deposits = await work.Db.Deposits.Where(d => d.OrderId == order.Id).OrderBy(d => d.Id).ToListAsync(cancel);
        foreach (var deposit in deposits)
            OpenBooksAct.Open(work, books, seller, deposit, order.Number, open.Sheet.Currency);
        var currency = Currency.Of(open.Sheet.Currency);
        return new HeldMoney(
            deposits,
            await TaxedAsync(work.Db, order.Id, deposits, currency, cancel),
            currency,
            seller.Home
        );
    }

    private static async Task<List<TaxedDeposit>> TaxedAsync(
        SolvendaDb db,
        long order,
        List<DepositRow> deposits,
        Currency currency,
        CancellationToken cancel
    )
    {
        if (!deposits.Exists(d => d.InvoiceId is not null))
            return [];
        var parts = await db
            .InvoiceParts.AsNoTracking()
            .Include(p => p.Invoice)
            .Where(p => p.OrderId == order)
            .OrderBy(p => p.Id)
            .ToListAsync(cancel);
        Bill Read(InvoicePartRow part) => KeptBill.Read(part.Invoice.Kind, part.Bill, currency);
        var taken = parts.Where(p => p.Invoice.Kind == BillKind.Invoice).SelectMany(p => Read(p).Deductions).ToList();
        return
        [
            .. from deposit in deposits
            let its = parts.Find(p => p.InvoiceId == deposit.InvoiceId)
            where its is not null
            let back = parts.Where(p => p.Invoice.CreditsId == its.InvoiceId).Select(Read)
            select new TaxedDeposit(
                deposit,
                its.Invoice.Number,
                its.Invoice.Rate,
                DepositRules.Left(its.Invoice.Number, Read(its), taken, back)
            ),
        ];
    }

    /// <summary>Books money that came for an order.</summary>
    public static async Task BookAsync(
        Work work,
        OpenSheet open,
        DepositRow deposit,
        AccountUse at,
        Seller seller,
        CancellationToken cancel
    )
    {
        var currency = Currency.Of(open.Sheet.Currency);
        var (amount, home) = (Amount.FromMinor(deposit.Minor, currency), seller.Home);
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var rate = books.RateOf(currency);
        deposit.HomeMinor = Amount.Round(amount.Value * rate, home).Minor;
        LedgerBook.Post(
            work,
            books,
            open.Order!.Number,
            deposit.ReceivedOn,
            $"{deposit.Reference}, for {open.Order.Number}",
            LedgerBook.Of(() => Postings.OfMoney(amount, at, [], rate, home, books.Chart))
        );
    }

    /// <summary>What was not taxed when it came, and no invoice took yet.</summary>
    public Amount Left => Amount.FromMinor(deposits.Sum(Untaxed), currency);

    /// <summary>What was, and no invoice took off yet.</summary>
    public IReadOnlyList<TaxDeduction> Taxed => [.. _taxed.SelectMany(t => t.Left)];

    private static long Untaxed(DepositRow d) => d.Minor - d.TaxedMinor - (d.TakenMinor - d.TaxedTakenMinor);

    /// <summary>Takes off what was taxed.</summary>
    /// <returns>What the ledger had on account for each, in their order.</returns>
    public IReadOnlyList<Amount> TakeTaxed(IEnumerable<TaxDeduction> deductions)
    {
        var held = new List<Amount>();
        foreach (var deduction in deductions)
        {
            var at = _taxed.FindIndex(t => t.Number == deduction.Number);
            var before = _taxed[at];
            var after = _taxed[at] = before with
            {
                Left =
                [
                    .. before
                        .Left.Select(l =>
                            l.Tax == deduction.Tax
                                ? l with
                                {
                                    Basis = l.Basis - deduction.Basis,
                                    TaxAmount = l.TaxAmount - deduction.TaxAmount,
                                }
                                : l
                        )
                        .Where(l => !l.Basis.IsZero),
                ],
            };
            before.Row.TakenMinor += deduction.Total.Minor;
            before.Row.TaxedTakenMinor += deduction.Total.Minor;
            // The last of it takes what rounding left.
            var worth =
                before.Row.TakenMinor == before.Row.Minor
                    ? Amount.FromMinor(before.Row.HomeMinor ?? 0, home)
                    : before.Home(home) - after.Home(home);
            before.Row.HomeMinor -= worth.Minor;
            held.Add(worth);
        }
        return held;
    }

    /// <summary>Takes so much of what was not taxed.</summary>
    public TakenMoney Take(Amount amount)
    {
        var (left, worth) = (amount.Minor, 0L);
        foreach (var deposit in deposits)
        {
            var there = Untaxed(deposit);
            var now = Math.Min(there, left);
            if (now == 0)
                continue;
            var ofTaxed = _taxed.Find(t => t.Row == deposit)?.Home(home).Minor ?? 0;
            var part = Shares.Of((deposit.HomeMinor ?? 0) - ofTaxed, now, there);
            deposit.TakenMinor += now;
            deposit.HomeMinor = (deposit.HomeMinor ?? 0) - part;
            left -= now;
            worth += part;
        }
        return new TakenMoney(amount, Amount.FromMinor(worth, home));
    }
}

internal static class Shares
{
    /// <summary>A share of an amount, rounded; all of it for the whole.</summary>
    public static long Of(long amount, long part, long whole) =>
        whole == part ? amount : (long)Math.Round((decimal)amount * part / whole, MidpointRounding.AwayFromZero);
}
