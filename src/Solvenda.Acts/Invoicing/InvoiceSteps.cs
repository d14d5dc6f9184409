using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>What acts on invoices have in common.</summary>
internal static class InvoiceSteps
{
    /// <summary>Puts the money of an order where its invoices and their payments are, as they are stored.</summary>
    /// <returns>As it was, and as it is.</returns>
    public static async Task<(MoneyTrack Before, MoneyTrack After)> FollowAsync(
        Work work,
        OrderRow order,
        CancellationToken cancel
    )
    {
        await work.Db.SaveChangesAsync(cancel);
        var before = order.Money;
        var total = await work
            .Db.Invoices.Where(i => i.Kind == BillKind.Invoice && i.Parts.Any(p => p.OrderId == order.Id))
            .SumAsync(i => i.TotalWithTaxMinor, cancel);
        var open = await (
            from i in work.Db.Invoices
            join o in work.Db.OpenItems on i.Id equals o.InvoiceId
            where i.Parts.Any(p => p.OrderId == order.Id)
            select o.OpenMinor
        ).SumAsync(cancel);
        order.Money = new MoneySoFar(
            order.Goods,
            await work.Db.Shipments.AnyAsync(
                s => s.OrderId == order.Id && s.State == ShipmentState.Gone && s.Invoice == "",
                cancel
            ),
            await work.Db.InvoiceParts.AnyAsync(p => p.OrderId == order.Id, cancel),
            open,
            total
        ).Track;
        return (before, order.Money);
    }
}
