using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Following;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Owing;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Desk;

/// <summary>What is to be invoiced, and what came in and somebody has to look at.</summary>
internal static class DeskMoney
{
    public static async Task<List<DeskItem>> OfAsync(
        SolvendaDb db,
        OutsideFolders folders,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var items = new List<DeskItem>();
        var orders = await Unbilled.Shipments(db).Select(s => s.OrderId).Distinct().CountAsync(cancel);
        if (orders > 0)
            items.Add(
                One("/ledger", "invoices", Many(orders, "order went", "orders went"), "to be invoiced", "invoice")
            );
        var services = await Unbilled.Services(db).CountAsync(cancel);
        if (services > 0)
            items.Add(
                One(
                    "/ledger",
                    "services",
                    Many(services, "order of services", "orders of services"),
                    "to be invoiced when they are done",
                    "invoice"
                )
            );
        if (await LateAsync(db, today, cancel) is var late and > 0)
            items.Add(
                One(
                    "/ledger/owed",
                    "owed",
                    Many(late, "buyer is late", "buyers are late"),
                    "a reminder is due",
                    "remind"
                )
            );
        var open = await db.Receipts.CountAsync(r => r.State == ReceiptState.Open, cancel);
        if (open > 0)
            items.Add(
                One(
                    "/ledger/bank",
                    "money that came",
                    Many(open, "movement needs you", "movements need you"),
                    "nobody could say what it is for",
                    "look"
                )
            );
        var waiting = Directory
            .EnumerateFiles(folders.BankIn)
            .Select(f => Path.GetFileName(f))
            .Count(f => !f.StartsWith('.'));
        if (waiting > 0)
            items.Add(
                One("/ledger/bank", "the bank", Many(waiting, "statement lies", "statements lie"), "there", "take in")
            );
        return items;
    }

    // How many buyers a reminder is due to.
    private static async Task<int> LateAsync(SolvendaDb db, DateOnly today, CancellationToken cancel)
    {
        var steps = await OwedBook.StepsAsync(db, cancel);
        var before = today.AddDays(-steps.First);
        var late = await db
            .OpenItems.AsNoTracking()
            .Where(o => o.OpenMinor > 0 && o.Due <= before && o.Disputed == "" && o.ReminderStep < ReminderSteps.Last)
            .ToListAsync(cancel);
        return late.Where(i => steps.NextOf(OwedBook.LateOf(i), today) > 0).Select(i => i.BuyerId).Distinct().Count();
    }

    private static string Many(int count, string one, string more) =>
        string.Create(CultureInfo.InvariantCulture, $"{count:#,0} {(count == 1 ? one : more)}");

    private static DeskItem One(string path, string what, string reason, string rest, string act) =>
        new(Urgency.Today, "money", "", path, what, reason, rest, "money", null, "", null, act, 3);
}
