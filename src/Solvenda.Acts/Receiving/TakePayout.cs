using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>Says that money that came is what a sales channel pays out of what it held for us, less its fees.</summary>
/// <param name="Fees">What the channel kept back, in the money's currency.</param>
/// <param name="Seen">The version that was seen.</param>
public sealed record TakePayout(long Receipt, decimal Fees, long Seen) : IAct<long>;

[Leaves(typeof(PayoutTaken))]
public sealed class TakePayoutAct(Seller seller) : Act<TakePayout, long>
{
    public override Right Needs => Rights.Money;

    public override async Task<long> RunAsync(Work work, TakePayout input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var receipt = await Takings.SeenAsync(work.Db, input.Receipt, input.Seen, cancel);
        if (receipt.State != ReceiptState.Open || receipt.LeftMinor != receipt.Minor)
            throw RefusedException.Clash("nothing_left", "Something of it is taken for invoices already.");
        var currency = Currency.Of(receipt.Currency);
        var fees = Amount.Round(input.Fees, currency);
        if (fees.Value != input.Fees || fees.Minor < 0)
            throw RefusedException.Bad("number", "Fees are nothing or more; nothing was booked.", "fees");
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var (paidOut, kept) = (
            Amount.FromMinor(receipt.LeftHomeMinor, seller.Home),
            Amount.Round(fees.Value * books.RateOf(currency), seller.Home)
        );
        await MustBeHeldAsync(work.Db, paidOut + kept, cancel);
        LedgerBook.Post(
            work,
            books,
            receipt.Reference,
            work.Today,
            $"payout of {receipt.Payer}",
            LedgerBook.Of(() => Postings.OfPayout(paidOut, kept, books.Chart))
        );
        (receipt.LeftMinor, receipt.LeftHomeMinor, receipt.State) = (0, 0, ReceiptState.Done);
        receipt.ByName = work.Actor.Name;
        receipt.Version++;
        work.Leave(
            new PayoutTaken(receipt.Reference, receipt.Payer, (paidOut + kept).Value, kept.Value, seller.Home.Code),
            "bank"
        );
        return receipt.Id;
    }

    private static async Task MustBeHeldAsync(SolvendaDb db, Amount asked, CancellationToken cancel)
    {
        var held = await db
            .Entries.Where(e => db.Accounts.Any(a => a.Code == e.Account && a.Use == AccountUse.AtChannels))
            .SumAsync(e => e.DebitMinor - e.CreditMinor, cancel);
        if (asked.Minor > held)
            throw RefusedException.Clash(
                "too_much",
                FormattableString.Invariant(
                    $"Channels hold {Amount.FromMinor(held, asked.Currency).Value:#,0.00} {asked.Currency.Code} of ours in the books, and with its fees it would be {asked.Value:#,0.00}; nothing was booked. What else it is of stays on account."
                )
            );
    }
}
