using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ledger;

/// <summary>Brings what was owed and held before the house kept a ledger here into it.</summary>
public sealed record OpenBooks : IAct<int>;

[Leaves(typeof(BooksOpened))]
public sealed class OpenBooksAct(Seller seller) : Act<OpenBooks, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How much was brought in.</returns>
    public override async Task<int> RunAsync(Work work, OpenBooks input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var items = await work.Db.OpenItems.Where(o => o.HomeMinor == null && o.OpenMinor != 0).ToListAsync(cancel);
        var deposits = await (
            from d in work.Db.Deposits
            join o in work.Db.Orders on d.OrderId equals o.Id
            where d.HomeMinor == null && d.TakenMinor < d.Minor
            select new
            {
                Deposit = d,
                o.Number,
                o.Sheet.Currency,
            }
        ).ToListAsync(cancel);
        if (items.Count + deposits.Count == 0)
            return 0;
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        foreach (var item in items)
            await OpenAsync(work, books, seller, item, cancel);
        foreach (var one in deposits)
        {
            Open(work, books, seller, one.Deposit, one.Number, one.Currency);
        }
        work.Leave(new BooksOpened(items.Count, deposits.Count), "ledger");
        return items.Count + deposits.Count;
    }

    /// <summary>Brings one thing that is owed into the ledger, where it is not there yet.</summary>
    internal static async Task OpenAsync(
        Work work,
        Books books,
        Seller seller,
        OpenItemRow item,
        CancellationToken cancel
    )
    {
        if (item.HomeMinor is not null)
            return;
        var currency =
            item.Currency.Length > 0
                ? item.Currency
                : await work.Db.Buyers.Where(b => b.Id == item.BuyerId).Select(b => b.Currency).FirstAsync(cancel);
        var home = Home(books, seller, item.OpenMinor, currency);
        (item.HomeMinor, item.Currency) = (home.Minor, currency);
        Post(work, books, item.Number, AccountUse.Receivable, AccountUse.Opening, home);
    }

    /// <summary>Brings money held for an order into the ledger, where it is not there yet.</summary>
    internal static void Open(Work work, Books books, Seller seller, DepositRow deposit, string order, string currency)
    {
        if (deposit.HomeMinor is not null)
            return;
        var home = Home(books, seller, deposit.Minor - deposit.TakenMinor, currency);
        deposit.HomeMinor = home.Minor;
        Post(work, books, order, AccountUse.Opening, AccountUse.OnAccount, home);
    }

    private static Amount Home(Books books, Seller seller, long minor, string currency)
    {
        var amount = Amount.FromMinor(minor, Currency.Of(currency));
        return Amount.Round(amount.Value * books.RateOf(amount.Currency), seller.Home);
    }

    private static void Post(
        Work work,
        Books books,
        string document,
        AccountUse debit,
        AccountUse credit,
        Amount home
    ) =>
        LedgerBook.Post(
            work,
            books,
            document,
            work.Today,
            "from before the books",
            LedgerBook.Of(() => Postings.Between(books.Chart.For(debit), books.Chart.For(credit), home))
        );
}
