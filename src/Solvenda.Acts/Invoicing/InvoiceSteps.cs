using Solvenda.Acts.Acting;
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
}
