using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>Notes money that no statement of the bank shows yet: paid over the counter, by cheque, by card.</summary>
/// <param name="Amount">In <paramref name="Currency"/>; more than nothing.</param>
/// <param name="Day">When it came: today, or in the last year.</param>
/// <param name="How">One of <see cref="EnterReceiptAct.Hows"/>.</param>
/// <param name="Takes">What of it pays which invoices; what is left stays on account.</param>
public sealed record EnterReceipt(
    long Buyer,
    decimal Amount,
    string Currency,
    DateOnly Day,
    string How,
    string Words,
    ImmutableArray<AskedTaking> Takes
) : IAct<string>;

[Leaves(typeof(MoneyNoted))]
public sealed class EnterReceiptAct(Seller seller) : Act<EnterReceipt, string>
{
    /// <summary>The account of ours that stands for what no bank shows.</summary>
    public const string ByHand = "by hand";

    /// <summary>How money comes that no statement shows.</summary>
    public static readonly ImmutableArray<string> Hows = ["cash", "cheque", "card", "transfer"];

    private const int MostLetters = 120;
    private const int MostDaysBack = 366;

    public override Right Needs => Rights.Money;

    /// <returns>The number that it got.</returns>
    public override async Task<string> RunAsync(Work work, EnterReceipt input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (currency, amount) = Checked(input, work.Today);
        var buyer =
            await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == input.Buyer, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        books.RateOf(currency);
        var receipt = new ReceiptRow
        {
            Account = ByHand,
            Reference = await work.NumberAsync(NumberSeries.Receipt, cancel),
            Day = input.Day,
            Minor = amount.Minor,
            LeftMinor = amount.Minor,
            Currency = currency.Code,
            Payer = buyer.Name,
            Words = $"{input.How} {input.Words.Trim()}".Trim(),
            BuyerId = buyer.Id,
            State = ReceiptState.Done,
            At = work.Now,
            ByName = work.Actor.Name,
        };
        work.Db.Receipts.Add(receipt);
        await work.Db.SaveChangesAsync(cancel);
        var takes = ImmutableArray.CreateBuilder<(OpenItemRow Item, long Minor)>();
        var left = amount.Minor;
        foreach (var take in input.Takes)
        {
            var item = await Takings.ItemAsync(work.Db, take, buyer.Id, currency.Code, cancel);
            var minor = Takings.MinorOf(take, item, receipt);
            left -= minor;
            takes.Add((item, minor));
        }
        if (left < 0 || takes.Select(t => t.Item.Id).Distinct().Count() != takes.Count)
            throw RefusedException.Bad(
                "number",
                "That is more than came, or an invoice stands there twice; nothing was booked.",
                "takes"
            );
        var at = input.How == "cash" ? AccountUse.Till : AccountUse.Bank;
        await Applying.ApplyAsync(work, books, seller, receipt, takes.ToImmutable(), cancel, at);
        await work.Db.SaveChangesAsync(cancel);
        await Applying.FollowAsync(work, [.. takes.Select(t => t.Item.InvoiceId).OfType<long>()], cancel);
        work.Leave(
            new MoneyNoted(
                receipt.Reference,
                amount.Value,
                currency.Code,
                input.How,
                [.. input.Takes.Select(t => FormattableString.Invariant($"{t.Number} {t.Amount:#,0.00}"))]
            ),
            "bank"
        );
        return receipt.Reference;
    }

    private static (Currency, Amount) Checked(EnterReceipt input, DateOnly today)
    {
        if (!Hows.Contains(input.How))
            throw RefusedException.Bad(
                "money_how",
                $"Money comes by {string.Join(", ", Hows)}; nothing was noted.",
                "how"
            );
        if (input.Words.Length > MostLetters)
            throw RefusedException.Bad("words_long", "That is too long; nothing was noted.", "words");
        if (input.Day > today || input.Day < today.AddDays(-MostDaysBack))
            throw RefusedException.Bad("date", "It came today or in the last year; nothing was noted.", "day");
        if (!Currency.TryOf(input.Currency, out var currency))
            throw RefusedException.Bad(
                "currency",
                $"“{input.Currency}” is no currency; nothing was noted.",
                "currency"
            );
        var amount = Amount.Round(input.Amount, currency);
        return amount.Value == input.Amount && amount.Minor > 0 && input.Amount < MostAmount
            ? (currency, amount)
            : throw RefusedException.Bad(
                "number",
                "An amount is more than nothing and has the decimals of its currency; nothing was noted.",
                "amount"
            );
    }

    private const decimal MostAmount = 1_000_000_000m;
}
