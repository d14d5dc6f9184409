using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>So much of an invoice is paid.</summary>
public sealed record AskedTaking(string Number, decimal Amount);

/// <summary>Says what money that came is for; what is left of it stays on the buyer's account.</summary>
/// <param name="Buyer">Whose it is, by their key.</param>
/// <param name="Takes">What of it pays which invoices; empty: all of it stays on account.</param>
/// <param name="Seen">The version that was seen.</param>
public sealed record ApplyReceipt(long Receipt, long Buyer, ImmutableArray<AskedTaking> Takes, long Seen) : IAct<long>;

[Leaves(typeof(MoneyApplied))]
public sealed class ApplyReceiptAct(Seller seller) : Act<ApplyReceipt, long>
{
    public override Right Needs => Rights.Money;

    public override async Task<long> RunAsync(Work work, ApplyReceipt input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var receipt = await Takings.SeenAsync(work.Db, input.Receipt, input.Seen, cancel);
        if (receipt.State == ReceiptState.Returned || receipt.LeftMinor == 0)
            throw RefusedException.Clash("nothing_left", "Nothing of it is left to be taken.");
        if (!await work.Db.Buyers.AnyAsync(b => b.Id == input.Buyer, cancel))
            throw RefusedException.NotFound("such buyer");
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var invoices = new List<long>();
        foreach (var take in input.Takes)
        {
            var item = await Takings.ItemAsync(work.Db, take, input.Buyer, receipt.Currency, cancel);
            var minor = Takings.MinorOf(take, item, receipt);
            await Applying.ApplyLaterAsync(work, books, seller, receipt, item, minor, cancel);
            if (item.InvoiceId is { } id)
                invoices.Add(id);
        }
        receipt.BuyerId = input.Buyer;
        (receipt.State, receipt.ByName) = (ReceiptState.Done, work.Actor.Name);
        receipt.Version++;
        await RememberAsync(work.Db, receipt, cancel);
        await work.Db.SaveChangesAsync(cancel);
        await Applying.FollowAsync(work, invoices, cancel);
        work.Leave(
            new MoneyApplied(
                receipt.Reference,
                Amount.Major(receipt.Minor, receipt.Currency),
                receipt.Currency,
                [.. input.Takes.Select(t => FormattableString.Invariant($"{t.Number} {t.Amount:#,0.00}"))],
                Amount.Major(receipt.LeftMinor, receipt.Currency)
            ),
            "bank"
        );
        return receipt.Id;
    }

    // The next time they are known by the account.
    private static async Task RememberAsync(SolvendaDb db, ReceiptRow receipt, CancellationToken cancel)
    {
        var value = Matching.KeyOf(receipt.PayerAccount);
        if (
            value.Length > 0
            && !await db.BuyerSigns.AnyAsync(s => s.Kind == MatchingBook.PaysFrom && s.Value == value, cancel)
        )
            db.BuyerSigns.Add(
                new BuyerSignRow
                {
                    BuyerId = receipt.BuyerId!.Value,
                    Kind = MatchingBook.PaysFrom,
                    Value = value,
                }
            );
    }
}
