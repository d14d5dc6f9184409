using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Desk;

/// <summary>What is to be invoiced, and what came in and somebody has to look at.</summary>
internal static class DeskMoney
{
    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, OutsideFolders folders, CancellationToken cancel)
    {
        var items = new List<DeskItem>();
        var orders = await db
            .Shipments.Where(s => s.State == ShipmentState.Gone && s.Invoice == "")
            .Select(s => s.OrderId)
            .Distinct()
            .CountAsync(cancel);
        if (orders > 0)
            items.Add(
                One("/ledger", "invoices", Many(orders, "order went", "orders went"), "to be invoiced", "invoice")
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

    private static string Many(int count, string one, string more) =>
        string.Create(CultureInfo.InvariantCulture, $"{count:#,0} {(count == 1 ? one : more)}");

    private static DeskItem One(string path, string what, string reason, string rest, string act) =>
        new(Urgency.Today, "money", "", path, what, reason, rest, "money", null, "", null, act, 3);
}
