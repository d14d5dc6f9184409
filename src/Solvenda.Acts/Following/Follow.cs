using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Following;

/// <summary>Puts the tracks of an order where its shipments, its invoices and their payments are.</summary>
internal static class Follow
{
    /// <summary>Its goods, as they are stored.</summary>
    /// <returns>As they were, and as they are.</returns>
    public static async Task<(GoodsTrack Before, GoodsTrack After)> GoodsAsync(
        Work work,
        OrderRow order,
        CancellationToken cancel
    )
    {
        await work.Db.SaveChangesAsync(cancel);
        var before = order.Goods;
        var goods = (await GoodsBook.OfAsync(work.Db, [order.Id], work.Today, cancel))[order.Id];
        order.Goods = GoodsSoFar.TrackOf([.. goods.Lines.Select(l => l.SoFar)]);
        return (before, order.Goods);
    }

    /// <summary>Its money, as it is stored; its goods come first.</summary>
    /// <returns>As it was, and as it is.</returns>
    public static async Task<(MoneyTrack Before, MoneyTrack After)> MoneyAsync(
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
