using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Acts.Owing;

/// <summary>Writes off the small rest of an invoice, as far as the house lets it be.</summary>
public sealed record WriteOff(string Number, string Reason) : IAct<decimal>;

[Leaves(typeof(RestWrittenOff))]
public sealed class WriteOffAct(Seller seller) : Act<WriteOff, decimal>
{
    public override Right Needs => Rights.Money;

    /// <returns>What was written off, in the invoice's currency.</returns>
    public override async Task<decimal> RunAsync(Work work, WriteOff input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is written off");
        var items = await OwedBook.ItemsAsync(work, input.Number, cancel);
        var books = await OwedBook.BooksAsync(work, seller, items, cancel);
        var home = items.Sum(i => i.HomeMinor ?? 0);
        var most = await OwedBook.MostWrittenOffAsync(work.Db, seller.Home, cancel);
        if (Math.Abs(home) > most.Minor)
            throw RefusedException.Clash(
                "too_much",
                FormattableString.Invariant(
                    $"{Amount.FromMinor(home, seller.Home).Value:#,0.00} {seller.Home.Code} are open of {input.Number}; up to {most.Value:#,0.00} may be written off. What is more than that is credited."
                )
            );
        var open = items.Sum(i => i.OpenMinor);
        foreach (var item in items)
            Paying.Take(work, item, item.OpenMinor, reason: $"written off: {reason}");
        var (receivable, differences) = (AccountUse.Receivable, AccountUse.Differences);
        var (debit, credit) = home > 0 ? (differences, receivable) : (receivable, differences);
        LedgerBook.Post(
            work,
            books,
            input.Number,
            work.Today,
            $"written off: {reason}",
            LedgerBook.Of(() =>
                Postings.Between(
                    books.Chart.For(debit),
                    books.Chart.For(credit),
                    Amount.FromMinor(Math.Abs(home), seller.Home)
                )
            )
        );
        await work.Db.SaveChangesAsync(cancel);
        await OwedBook.FollowAsync(work, items, cancel);
        var amount = Amount.Major(open, items[0].Currency);
        var facts = new RestWrittenOff(input.Number, amount, items[0].Currency, reason);
        await OwedBook.LeaveAsync(work, items[0], facts, cancel);
        return amount;
    }
}
