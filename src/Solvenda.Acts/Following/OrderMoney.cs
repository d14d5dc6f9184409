using Solvenda.Core.Billing;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Following;

/// <summary>What the invoices that an order is on come to, and what of them is open, in minor units.</summary>
internal sealed record OrderMoney(OrderRow Order, long Open, long Total)
{
    public static IQueryable<OrderMoney> Of(SolvendaDb db, IQueryable<OrderRow> orders) =>
        orders.Select(o => new OrderMoney(
            o,
            db.InvoiceParts.Where(p => p.OrderId == o.Id)
                .Join(db.OpenItems, p => p.InvoiceId, i => i.InvoiceId, (p, i) => i.OpenMinor)
                .Sum(),
            db.InvoiceParts.Where(p => p.OrderId == o.Id && p.Invoice.Kind == BillKind.Invoice)
                .Sum(p => p.Invoice.TotalWithTaxMinor)
        ));
}
