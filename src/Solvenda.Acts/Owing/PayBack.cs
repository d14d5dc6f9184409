using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Owing;

/// <summary>Pays a buyer back: what a credit note left over, or money of theirs that is on account.</summary>
/// <param name="Document">Number of the credit note, or the reference of the money.</param>
/// <param name="Amount">In its currency, at most what is theirs of it.</param>
public sealed record PayBack(long Buyer, string Document, decimal Amount, string Reason) : IAct<decimal>;

[Leaves(typeof(MoneyPaidBack))]
public sealed class PayBackAct(Seller seller) : Act<PayBack, decimal>
{
    public override Right Needs => Rights.Money;

    /// <returns>What is still theirs of it.</returns>
    public override async Task<decimal> RunAsync(Work work, PayBack input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is paid back");
        var note = await work.Db.OpenItems.FirstOrDefaultAsync(
            o => o.Number == input.Document && o.BuyerId == input.Buyer && o.OpenMinor < 0,
            cancel
        );
        return note is not null
            ? await OfNoteAsync(work, note, input, reason, cancel)
            : await OfReceiptAsync(work, input, reason, cancel);
    }

    private async Task<decimal> OfNoteAsync(
        Work work,
        OpenItemRow note,
        PayBack input,
        string reason,
        CancellationToken cancel
    )
    {
        var books = await OwedBook.BooksAsync(work, seller, [note], cancel);
        var currency = Currency.Of(note.Currency);
        var minor = MinorOf(input, -note.OpenMinor, currency);
        var worth = Paying.Take(work, note, -minor, reason: $"paid back: {reason}");
        Book(work, books, AccountUse.Receivable, input.Document, reason, Amount.FromMinor(minor, currency), -worth);
        await work.Db.SaveChangesAsync(cancel);
        await OwedBook.FollowAsync(work, [note], cancel);
        var facts = new MoneyPaidBack(input.Document, input.Amount, currency.Code, reason);
        await OwedBook.LeaveAsync(work, note, facts, cancel);
        return Amount.Major(-note.OpenMinor, currency.Code);
    }

    private async Task<decimal> OfReceiptAsync(Work work, PayBack input, string reason, CancellationToken cancel)
    {
        var receipt =
            await work.Db.Receipts.FirstOrDefaultAsync(
                r => r.Reference == input.Document && r.BuyerId == input.Buyer && r.LeftMinor > 0,
                cancel
            )
            ?? throw RefusedException.Clash(
                "nothing_left",
                $"Nothing of {input.Document} is theirs; nothing was paid back."
            );
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var currency = Currency.Of(receipt.Currency);
        var minor = MinorOf(input, receipt.LeftMinor, currency);
        var worth = Shares.Of(receipt.LeftHomeMinor, minor, receipt.LeftMinor);
        receipt.LeftMinor -= minor;
        receipt.LeftHomeMinor -= worth;
        if (receipt.LeftMinor == 0)
            receipt.State = ReceiptState.Done;
        receipt.Version++;
        Book(work, books, AccountUse.OnAccount, input.Document, reason, Amount.FromMinor(minor, currency), worth);
        work.Leave(
            new MoneyPaidBack(input.Document, input.Amount, currency.Code, reason),
            Work.SubjectOf("buyers", input.Buyer)
        );
        work.Touch("bank");
        return Amount.Major(receipt.LeftMinor, currency.Code);
    }

    private static long MinorOf(PayBack input, long most, Currency currency)
    {
        var amount = Amount.Round(input.Amount, currency);
        return amount.Value == input.Amount && amount.Minor > 0 && amount.Minor <= most
            ? amount.Minor
            : throw RefusedException.Bad(
                "number",
                FormattableString.Invariant(
                    $"{Amount.FromMinor(most, currency).Value:#,0.00} {currency.Code} of {input.Document} are theirs, not {input.Amount:#,0.######}; nothing was paid back."
                ),
                "amount"
            );
    }

    private void Book(
        Work work,
        Books books,
        AccountUse from,
        string document,
        string reason,
        Amount amount,
        long worth
    )
    {
        var home = seller.Home;
        LedgerBook.Post(
            work,
            books,
            document,
            work.Today,
            $"paid back: {reason}",
            LedgerBook.Of(() =>
                Postings.OfPayingBack(
                    new TakenMoney(amount, Amount.FromMinor(worth, home)),
                    from,
                    books.RateOf(amount.Currency),
                    books.Chart
                )
            )
        );
    }
}
