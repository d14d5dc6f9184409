using Solvenda.Acts.Ledger;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Billing;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>What of an order is on an invoice or a credit note.</summary>
/// <param name="Whole">Null where a deposit is billed, and no line of it.</param>
/// <param name="Went">The shipments that it is billed for; none on a credit note.</param>
/// <param name="Held">Money that came for it before; null on a credit note.</param>
internal sealed record BilledOrder(
    OpenSheet Open,
    BillableSheet? Whole,
    IReadOnlyList<ShipmentRow> Went,
    Bill Bill,
    HeldMoney? Held
)
{
    /// <summary>As it is kept.</summary>
    public InvoicePartRow ToPart() =>
        new()
        {
            OrderId = Open.Order!.Id,
            Order = Open.Order,
            TotalWithTaxMinor = Bill.TotalWithTax.Minor,
            DeductedMinor = Bill.Deducted.Minor,
            Bill = KeptBill.Write(Bill),
        };
}
