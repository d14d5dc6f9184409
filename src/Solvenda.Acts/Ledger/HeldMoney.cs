using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ledger;

/// <summary>Money that came for an order before it was invoiced, the oldest first.</summary>
internal sealed class HeldMoney(IReadOnlyList<DepositRow> deposits, Currency currency, Currency home)
{
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
        return new HeldMoney(deposits, Currency.Of(open.Sheet.Currency), seller.Home);
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

    public Amount Left => Amount.FromMinor(deposits.Sum(d => d.Minor - d.TakenMinor), currency);

    /// <summary>Takes so much of it.</summary>
    public TakenMoney Take(Amount amount)
    {
        var (left, worth) = (amount.Minor, 0L);
        foreach (var deposit in deposits)
        {
            var there = deposit.Minor - deposit.TakenMinor;
            var now = Math.Min(there, left);
            if (now == 0)
                continue;
            var part = Shares.Of(deposit.HomeMinor ?? 0, now, there);
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
