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
    /// <summary>A bill with its number, as it is issued today; due today until somebody says otherwise.</summary>
    /// <param name="orders">That it is for; one at least.</param>
    /// <param name="rate">Home currency for one unit of the bill's.</param>
    public static async Task<InvoiceRow> RowAsync(
        Work work,
        IReadOnlyList<BilledOrder> orders,
        Bill bill,
        decimal rate,
        CancellationToken cancel
    )
    {
        var first = orders[0].Open;
        return new InvoiceRow
        {
            Number = await work.NumberAsync(NumberSeries.Invoice, cancel),
            Kind = bill.Kind,
            OrderId = first.Order!.Id,
            Order = first.Order,
            BuyerId = first.Buyer.Id,
            Day = work.Today,
            Due = work.Today,
            Currency = bill.Currency.Code,
            TotalWithoutTaxMinor = bill.TotalWithoutTax.Minor,
            TotalWithTaxMinor = bill.TotalWithTax.Minor,
            PrepaidMinor = bill.Prepaid.Minor,
            Rate = rate,
            ByName = work.Actor.Name,
            At = work.Now,
            Parts = [.. orders.Select(o => o.ToPart())],
        };
    }

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
