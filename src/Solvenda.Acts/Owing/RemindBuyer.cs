using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Mail;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Owing;

/// <summary>Reminds a buyer of what is late: by the furthest step that is due, of all that is late.</summary>
public sealed record RemindBuyer(long Buyer) : IAct<int>;

[Leaves(typeof(BuyerReminded))]
public sealed class RemindBuyerAct(Seller seller) : Act<RemindBuyer, int>
{
    public override Right Needs => Rights.Money;

    /// <returns>The step that they were reminded by.</returns>
    public override async Task<int> RunAsync(Work work, RemindBuyer input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var buyer = await AccountSteps.BuyerAsync(work, input.Buyer, cancel);
        var steps = await OwedBook.StepsAsync(work.Db, cancel);
        var late = await work
            .Db.OpenItems.Where(o => o.BuyerId == buyer.Id && o.OpenMinor > 0 && o.Due < work.Today && o.Disputed == "")
            .OrderBy(o => o.Due)
            .ToListAsync(cancel);
        var step = late.Select(i => steps.NextOf(OwedBook.LateOf(i), work.Today)).DefaultIfEmpty().Max();
        if (step == 0)
            throw RefusedException.Clash(
                "not_to_remind",
                $"There is nothing to remind {buyer.Name} of today: nothing is late long enough, or a letter went within the week."
            );
        var to = await AccountSteps.SendAsync(work, seller, buyer, late, step, cancel);
        foreach (var item in late)
            (item.ReminderStep, item.RemindedOn) = (
                Math.Max(item.ReminderStep, steps.NextOf(OwedBook.LateOf(item), work.Today)),
                work.Today
            );
        work.Leave(
            new BuyerReminded(step, [.. late.Select(i => i.Number).Distinct()], to),
            Work.SubjectOf("buyers", buyer.Id)
        );
        return step;
    }
}

/// <summary>Sends a buyer what is open.</summary>
public sealed record SendStatement(long Buyer) : IAct<int>;

[Leaves(typeof(StatementSent))]
public sealed class SendStatementAct(Seller seller) : Act<SendStatement, int>
{
    public override Right Needs => Rights.Money;

    /// <returns>How much is on it.</returns>
    public override async Task<int> RunAsync(Work work, SendStatement input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var buyer = await AccountSteps.BuyerAsync(work, input.Buyer, cancel);
        var open = await AccountSteps.OpenAsync(work.Db, buyer.Id, cancel);
        if (open.Count == 0)
            throw RefusedException.Clash("nothing_owed", $"Nothing is open of {buyer.Name}.");
        var to = await AccountSteps.SendAsync(work, seller, buyer, open, 0, cancel);
        work.Leave(new StatementSent(open.Count, to), Work.SubjectOf("buyers", buyer.Id));
        return open.Count;
    }
}

/// <summary>What statements and reminders have in common.</summary>
public static class AccountSteps
{
    internal static async Task<BuyerRow> BuyerAsync(Work work, long id, CancellationToken cancel) =>
        await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
        ?? throw RefusedException.NotFound("such buyer");

    /// <summary>All that is open of a buyer, the first due first.</summary>
    public static Task<List<OpenItemRow>> OpenAsync(SolvendaDb db, long buyer, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db
            .OpenItems.Where(o => o.BuyerId == buyer && o.OpenMinor != 0)
            .OrderBy(o => o.Due)
            .ThenBy(o => o.Id)
            .ToListAsync(cancel);
    }

    /// <summary>What is open, currency by currency, as papers say it.</summary>
    public static async Task<ImmutableArray<OpenAccount>> AccountsAsync(
        SolvendaDb db,
        BuyerRow buyer,
        IReadOnlyList<OpenItemRow> items,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(buyer);
        var ids = items.Select(i => i.InvoiceId).OfType<long>().ToList();
        var pos = await db
            .Invoices.Where(i =>
                EF.Parameter(ids).Contains(i.Id) && i.Parts.Count == 1 && i.Order.Sheet.PoNumber != null
            )
            .Select(i => new { i.Number, Po = i.Order.Sheet.PoNumber! })
            .ToDictionaryAsync(i => i.Number, i => i.Po, cancel);
        var texts = await HouseBook.TextsAsync(db, cancel);
        return
        [
            .. items
                .GroupBy(i => i.Currency.Length > 0 ? i.Currency : buyer.Currency)
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .Select(g => new OpenAccount(buyer, g.Key, [.. g], pos, texts)),
        ];
    }

    // A day's letter of a step goes once; it is kept as it went. Refused where there is no address.
    internal static async Task<string> SendAsync(
        Work work,
        Seller seller,
        BuyerRow buyer,
        IReadOnlyList<OpenItemRow> items,
        int step,
        CancellationToken cancel
    )
    {
        var to = buyer.ContactMail ?? "";
        if (!MailWriter.IsAddress(to))
            throw RefusedException.Clash("address", $"There is no mail address of {buyer.Name}; nothing was sent.");
        var name = $"{(step == 0 ? "statement" : "reminder")}-{buyer.Code}-{work.Today:yyyy-MM-dd}".ToLowerInvariant();
        var accounts = await AccountsAsync(work.Db, buyer, items, cancel);
        var sent = await work.Db.Outbox.CountAsync(o => o.Key.StartsWith(name), cancel);
        Outgoing.Mail(
            work,
            seller,
            $"{name}-{sent + 1}",
            to,
            AccountPapers.Letter(buyer, seller, work.Today, step, work.Actor.Name),
            [
                .. accounts.Select(a =>
                    ($"{name}-{a.Currency}.pdf", PdfWriter.Write(AccountPapers.Print(a, seller, work.Today, step)))
                ),
            ]
        );
        return to;
    }
}
