using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>Takes money that came for what is owed, and books it.</summary>
internal static class Applying
{
    private const int AtOnce = 500;

    /// <summary>Books money that has just come; what nothing is taken of stays on account.</summary>
    public static async Task ApplyAsync(
        Work work,
        Books books,
        Seller seller,
        ReceiptRow receipt,
        ImmutableArray<(OpenItemRow Item, long Minor)> takes,
        CancellationToken cancel,
        AccountUse at = AccountUse.Bank
    )
    {
        var currency = Currency.Of(receipt.Currency);
        var rate = books.RateOf(currency);
        var owed = ImmutableArray.CreateBuilder<TakenOwed>(takes.Length);
        foreach (var (item, minor) in takes)
            owed.Add(await TakeAsync(work, books, seller, receipt, item, minor, cancel));
        receipt.LeftHomeMinor = Amount
            .Round(Amount.FromMinor(receipt.LeftMinor, currency).Value * rate, seller.Home)
            .Minor;
        var amount = Amount.FromMinor(receipt.Minor, currency);
        LedgerBook.Post(
            work,
            books,
            receipt.Reference,
            receipt.Day,
            $"{receipt.Payer} {receipt.Words}".Trim(),
            LedgerBook.Of(() => Postings.OfMoney(amount, at, owed, rate, seller.Home, books.Chart))
        );
        foreach (var (item, _) in takes)
            await PaidEarly.CloseAsync(work, books, seller, receipt, item, cancel);
    }

    /// <summary>Takes of money that is on account already.</summary>
    public static async Task ApplyLaterAsync(
        Work work,
        Books books,
        Seller seller,
        ReceiptRow receipt,
        OpenItemRow item,
        long minor,
        CancellationToken cancel
    )
    {
        var (currency, home) = (Currency.Of(receipt.Currency), seller.Home);
        var worth = Shares.Of(receipt.LeftHomeMinor, minor, receipt.LeftMinor);
        receipt.LeftHomeMinor -= worth;
        var owed = await TakeAsync(work, books, seller, receipt, item, minor, cancel);
        var money = new TakenMoney(Amount.FromMinor(minor, currency), Amount.FromMinor(worth, home));
        LedgerBook.Post(
            work,
            books,
            receipt.Reference,
            work.Today,
            $"for {item.Number}",
            LedgerBook.Of(() => Postings.OfTaking(money, owed, home, books.Chart))
        );
        await PaidEarly.CloseAsync(work, books, seller, receipt, item, cancel);
    }

    private static async Task<TakenOwed> TakeAsync(
        Work work,
        Books books,
        Seller seller,
        ReceiptRow receipt,
        OpenItemRow item,
        long minor,
        CancellationToken cancel
    )
    {
        await OpenBooksAct.OpenAsync(work, books, seller, item, cancel);
        var worth = Paying.Take(work, item, minor, receiptId: receipt.Id);
        receipt.LeftMinor -= minor;
        return new TakenOwed(
            Amount.FromMinor(minor, Currency.Of(receipt.Currency)),
            Amount.FromMinor(worth, seller.Home)
        );
    }

    /// <summary>Puts the money of orders where their invoices are, of those that are invoiced whole.</summary>
    public static async Task FollowAsync(Work work, IReadOnlyCollection<long> invoices, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var db = work.Db;
        foreach (var some in invoices.Distinct().Chunk(AtOnce))
        {
            var touched = some.ToList();
            var of = db.InvoiceParts.Where(p => EF.Parameter(touched).Contains(p.InvoiceId)).Select(p => p.OrderId);
            var whole = db.Orders.Where(o =>
                of.Contains(o.Id)
                && (o.Money == MoneyTrack.Invoiced || o.Money == MoneyTrack.PartPaid || o.Money == MoneyTrack.Paid)
            );
            var orders = await OrderMoney.Of(db, whole).ToListAsync(cancel);
            foreach (var one in orders)
            {
                var so = new MoneySoFar(GoodsTrack.Shipped, false, true, one.Open, one.Total);
                one.Order.Money = so.Track;
                work.Touch(one.Order.Number);
            }
            await db.SaveChangesAsync(cancel);
        }
    }
}
