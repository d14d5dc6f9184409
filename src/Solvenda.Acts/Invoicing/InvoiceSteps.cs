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
        var parts = work.Db.InvoiceParts.Where(p => p.OrderId == order.Id);
        var total = await parts
            .Where(p => p.Invoice.Kind == BillKind.Invoice)
            .SumAsync(p => p.Invoice.TotalWithTaxMinor, cancel);
        var open = await (
            from p in parts
            join o in work.Db.OpenItems on p.InvoiceId equals o.InvoiceId
            select o.OpenMinor
        ).SumAsync(cancel);
        order.Money = new MoneySoFar(
            order.Goods,
            await work.Db.Shipments.AnyAsync(
                s => s.OrderId == order.Id && s.State == ShipmentState.Gone && s.Invoice == "",
                cancel
            ),
            await parts.AnyAsync(cancel),
            open,
            total
        ).Track;
        return (before, order.Money);
    }
}
