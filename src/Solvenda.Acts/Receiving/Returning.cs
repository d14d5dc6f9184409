using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Bank;

namespace Solvenda.Acts.Receiving;

/// <summary>Takes back money that the bank reversed: what was paid by it is open again.</summary>
internal static class Returning
{
    /// <param name="open">Where it is told that nobody knows what is reversed.</param>
    public static async Task TakeBackAsync(
        Work work,
        Books books,
        Seller seller,
        BankMovement back,
        List<OpenPart> open,
        CancellationToken cancel
    )
    {
        var minor = Amount.Round(-back.Amount, Currency.Of(back.Currency)).Minor;
        var likely = await work
            .Db.Receipts.Where(r =>
                r.Account == back.Account
                && r.Minor == minor
                && r.Currency == back.Currency
                && r.State != ReceiptState.Returned
                && (r.Reference == back.EndToEnd || (back.Words != "" && r.Words == back.Words))
            )
            .Take(2)
            .ToListAsync(cancel);
        if (likely is not [var receipt])
        {
            open.Add(
                new OpenPart(
                    back.Reference,
                    back.Amount,
                    likely.Count == 0
                        ? "it takes back money that is not known here"
                        : "it takes back one of several that are alike"
                )
            );
            return;
        }
        await ReverseAsync(work, books, receipt, back, cancel);
        // Known from now on, so that the same statement takes nothing back twice.
        work.Db.Receipts.Add(
            new ReceiptRow
            {
                Account = back.Account,
                Reference = back.Reference,
                Statement = back.Statement,
                Day = back.Day,
                Minor = -minor,
                Currency = back.Currency,
                Payer = receipt.Payer,
                PayerAccount = receipt.PayerAccount,
                Words = back.Words,
                BuyerId = receipt.BuyerId,
                Why = $"takes back {receipt.Reference}",
                State = ReceiptState.Returned,
                At = work.Now,
                ByName = work.Actor.Name,
            }
        );
        await work.Db.SaveChangesAsync(cancel);
    }

    private static async Task ReverseAsync(
        Work work,
        Books books,
        ReceiptRow receipt,
        BankMovement back,
        CancellationToken cancel
    )
    {
        var taken = await work.Db.Paid.Where(p => p.ReceiptId == receipt.Id).ToListAsync(cancel);
        var ids = taken.ConvertAll(p => p.OpenItemId);
        var items = await work
            .Db.OpenItems.Where(o => EF.Parameter(ids).Contains(o.Id))
            .ToDictionaryAsync(o => o.Id, cancel);
        foreach (var part in taken)
        {
            var item = items[part.OpenItemId];
            item.OpenMinor += part.Minor;
            item.HomeMinor = (item.HomeMinor ?? 0) + part.HomeMinor;
            item.PaidOn = null;
            work.Db.Paid.Add(
                new PaidRow
                {
                    OpenItemId = item.Id,
                    ReceiptId = receipt.Id,
                    Minor = -part.Minor,
                    HomeMinor = -part.HomeMinor,
                    Day = work.Today,
                    At = work.Now,
                    ByName = work.Actor.Name,
                }
            );
        }
        await BookAsync(work, books, receipt, back, cancel);
        (receipt.State, receipt.LeftMinor, receipt.LeftHomeMinor) = (ReceiptState.Returned, 0, 0);
        receipt.Version++;
        await work.Db.SaveChangesAsync(cancel);
        await Applying.FollowAsync(work, [.. items.Values.Select(i => i.InvoiceId).OfType<long>()], cancel);
        work.Leave(
            new MoneyReturned(
                receipt.Reference,
                Amount.Major(receipt.Minor, receipt.Currency),
                receipt.Currency,
                [.. items.Values.Select(i => i.Number)]
            ),
            "bank"
        );
    }

    // What was booked is booked the other way round, under the reference of what takes it back.
    private static async Task BookAsync(
        Work work,
        Books books,
        ReceiptRow receipt,
        BankMovement back,
        CancellationToken cancel
    )
    {
        var booked = await work
            .Db.Entries.Where(e => e.Document == receipt.Reference)
            .OrderBy(e => e.Id)
            .ToListAsync(cancel);
        LedgerBook.Post(
            work,
            books,
            back.Reference,
            back.Day,
            $"takes back {receipt.Reference}",
            [
                .. booked.Select(e => new Posting(
                    e.Account,
                    Amount.FromMinor(e.CreditMinor, Currency.Of(e.Currency)),
                    Amount.FromMinor(e.DebitMinor, Currency.Of(e.Currency))
                )),
            ]
        );
    }
}
