using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>
/// Notes money that came for an order before it is invoiced: it counts against what the buyer owes, and is taxed by a
/// deposit invoice where the house does so.
/// </summary>
/// <param name="Amount">In the order's currency, up to what it comes to.</param>
/// <param name="Reference">The bank's, so that it is found again.</param>
public sealed record NoteDeposit(string Order, decimal Amount, DateOnly ReceivedOn, string Reference)
    : IAct<DocumentRef>;

[Leaves(typeof(DepositNoted), typeof(DepositInvoiced))]
public sealed class NoteDepositAct(SheetLoader loader, Judge judge, Seller seller, DepositInvoices invoices)
    : Act<NoteDeposit, DocumentRef>
{
    private const int MostLetters = 120;
    private const int MostDaysBack = 366;

    public override Right Needs => Rights.Money;

    public override async Task<DocumentRef> RunAsync(Work work, NoteDeposit input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reference = input.Reference.Trim();
        if (reference.Length is 0 or > MostLetters)
            throw RefusedException.Bad("reference_missing", "Say by which reference the bank shows it.", "reference");
        if (input.ReceivedOn > work.Today || input.ReceivedOn < work.Today.AddDays(-MostDaysBack))
            throw RefusedException.Bad("date", "It came today or in the last year; nothing was noted.", "receivedOn");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (order.Terms == TermsTrack.Cancelled || order.Money > MoneyTrack.PartInvoiced)
            throw RefusedException.Clash("order_invoiced", "It is invoiced or cancelled; what comes now is a receipt.");
        var currency = Currency.Of(open.Sheet.Currency);
        var total = Amount.FromMinor(open.Sheet.TotalWithTaxMinor, currency);
        var there = await work
            .Db.Deposits.Where(d => d.OrderId == order.Id)
            .Select(d => new { d.Minor, d.Reference })
            .ToListAsync(cancel);
        if (there.Exists(d => d.Reference == reference))
            throw RefusedException.Clash("deposit_noted", $"What came as {reference} is noted already.");
        var left = total.Value - Amount.FromMinor(there.Sum(d => d.Minor), currency).Value;
        if (input.Amount <= 0 || input.Amount > left || Amount.Round(input.Amount, currency).Value != input.Amount)
            throw RefusedException.Bad(
                "number",
                FormattableString.Invariant(
                    $"A deposit is more than nothing and at most what the order still comes to, {left:#,0.00} {currency.Code}; nothing was noted."
                ),
                "amount"
            );
        var deposit = new DepositRow
        {
            OrderId = order.Id,
            Minor = Amount.Round(input.Amount, currency).Minor,
            ReceivedOn = input.ReceivedOn,
            Reference = reference,
            By = work.Actor.Name,
        };
        work.Db.Deposits.Add(deposit);
        await HeldMoney.BookAsync(work, open, deposit, AccountUse.Bank, seller, cancel);
        await work.Db.SaveChangesAsync(cancel);
        if (open.IsEditable)
            Settling.KeepStops(await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel));
        work.Leave(
            new DepositNoted(input.Amount, currency.Code, input.ReceivedOn, reference),
            open.Subject,
            open.Dossier.Id
        );
        await invoices.IssueAsync(work, open, deposit, cancel);
        return open.Ref;
    }
}
