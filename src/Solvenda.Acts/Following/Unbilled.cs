using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Following;

/// <summary>What is on no invoice yet and may be.</summary>
public static class Unbilled
{
    /// <summary>What went.</summary>
    public static IQueryable<ShipmentRow> Shipments(SolvendaDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Shipments.Where(s => s.State == ShipmentState.Gone && s.Invoice == "");
    }

    /// <summary>Confirmed orders of services alone, none of which was said to be done.</summary>
    public static IQueryable<OrderRow> Services(SolvendaDb db)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db.Orders.Where(o =>
            o.Terms == TermsTrack.Confirmed
            && o.Goods == GoodsTrack.Waiting
            && o.Money == MoneyTrack.NotDue
            && o.Kind != OrderKind.CallOff.Words
            && !db.Shipments.Any(s => s.OrderId == o.Id)
            && db.SheetLines.Any(l => l.SheetId == o.SheetId && l.Kind == LineKind.Item)
            && !db.SheetLines.Any(l =>
                l.SheetId == o.SheetId
                && l.Kind == LineKind.Item
                && !db.Items.Any(i => i.Id == l.ItemId && !i.Stocked && i.Parts == "")
            )
        );
    }
}
