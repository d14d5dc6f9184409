using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Receiving;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Owing;

/// <summary>What buyers owe, as the acts of this room find it.</summary>
public static class OwedBook
{
    /// <summary>
    /// What is open under a number, the first due first: of one that is paid in parts all of them, or the part that is
    /// named. Refused where nothing is.
    /// </summary>
    internal static async Task<List<OpenItemRow>> ItemsAsync(Work work, string number, CancellationToken cancel)
    {
        var parts = number + "/";
        var items = await work
            .Db.OpenItems.Where(o => (o.Number == number || o.Number.StartsWith(parts)) && o.OpenMinor != 0)
            .OrderBy(o => o.Due)
            .ThenBy(o => o.Id)
            .ToListAsync(cancel);
        return items.Count > 0
            ? items
            : throw RefusedException.Clash("not_open", $"Nothing is open of {number}; nothing was changed.");
    }

    /// <summary>In the ledger, also where it was owed before there was one.</summary>
    internal static async Task<Books> BooksAsync(
        Work work,
        Seller seller,
        IEnumerable<OpenItemRow> items,
        CancellationToken cancel
    )
    {
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        foreach (var item in items)
            await OpenBooksAct.OpenAsync(work, books, seller, item, cancel);
        return books;
    }

    /// <summary>Leaves an event where the invoice belongs; with the buyer for what was taken over from
    /// before.</summary>
    internal static async Task LeaveAsync(Work work, OpenItemRow item, IEvent facts, CancellationToken cancel)
    {
        var order = await work
            .Db.Invoices.Where(i => i.Id == item.InvoiceId)
            .Select(i => new { i.Order.Number, i.Order.DossierId })
            .FirstOrDefaultAsync(cancel);
        work.Leave(facts, order?.Number ?? Work.SubjectOf("buyers", item.BuyerId), order?.DossierId);
        work.Touch("bank");
    }

    /// <summary>Puts the money of the orders where their invoices are.</summary>
    internal static Task FollowAsync(Work work, IEnumerable<OpenItemRow> items, CancellationToken cancel) =>
        Applying.FollowAsync(work, [.. items.Select(i => i.InvoiceId).OfType<long>()], cancel);

    /// <summary>When buyers are reminded, as the settings say.</summary>
    public static async Task<ReminderSteps> StepsAsync(SolvendaDb db, CancellationToken cancel)
    {
        var said = await db.Settings.Where(s => s.Active).ToDictionaryAsync(s => s.Code, s => s.Value, cancel);
        int Of(string code, int usual) => said.TryGetValue(code, out var days) ? (int)days : usual;
        var usual = ReminderSteps.Usual;
        return new ReminderSteps(
            Of(SettingRow.FirstReminder, usual.First),
            Of(SettingRow.SecondReminder, usual.Second),
            Of(SettingRow.ThirdReminder, usual.Third)
        );
    }

    /// <summary>What of something owed may be written off by whoever books money, in home currency.</summary>
    public static async Task<Amount> MostWrittenOffAsync(SolvendaDb db, Currency home, CancellationToken cancel)
    {
        var said = await db
            .Settings.Where(s => s.Active && s.Code == SettingRow.WriteOff)
            .Select(s => (decimal?)s.Value)
            .FirstOrDefaultAsync(cancel);
        return Amount.Round(said ?? UsuallyWrittenOff, home);
    }

    private const decimal UsuallyWrittenOff = 5m;

    /// <summary>As the reminders look at it.</summary>
    public static OwedLate LateOf(OpenItemRow item) =>
        new(item.Due, item.Disputed.Length > 0, item.ReminderStep, item.RemindedOn);
}
