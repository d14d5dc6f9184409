using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
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
        var so = await OrderMoney.Of(work.Db, work.Db.Orders.Where(o => o.Id == order.Id)).FirstAsync(cancel);
        order.Money = new MoneySoFar(
            order.Goods,
            await Unbilled.Shipments(work.Db).AnyAsync(s => s.OrderId == order.Id, cancel),
            await work.Db.InvoiceParts.AnyAsync(
                p => p.OrderId == order.Id && p.Invoice.Kind == BillKind.Invoice,
                cancel
            ),
            so.Open,
            so.Total
        ).Track;
        return (before, order.Money);
    }
}
