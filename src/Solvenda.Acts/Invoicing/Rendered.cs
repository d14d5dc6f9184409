using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>Services: whoever invoices says that they are done; there is nothing to pick, and nobody gets a
/// note.</summary>
public sealed class Rendered(Releasing releasing, Sending sending)
{
    /// <summary>Confirmed orders of services alone, none of which was said to be done.</summary>
    public static IQueryable<OrderRow> Waiting(SolvendaDb db)
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

    /// <summary>Notes that the services of an order are done.</summary>
    public async Task NoteAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        foreach (var done in await releasing.ReleaseAsync(work, open, [], cancel))
            await sending.SendAsync(work, open, done, asAsked: true, cancel, tells: false);
    }
}
