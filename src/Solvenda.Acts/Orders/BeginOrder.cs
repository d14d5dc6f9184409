using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>Begins an order without a quote: from the buyer's page, over the telephone.</summary>
public sealed record BeginOrder(long Buyer) : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class BeginOrderAct(SheetLoader loader, Settling settling) : Act<BeginOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, BeginOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var buyer =
            await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == input.Buyer, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var dossier = await Drafting.DossierAsync(work, buyer, "", cancel);
        var sheet = Drafting.SheetFor(buyer, work.Today, null);
        var order = await Drafting.OrderAsync(work, dossier, sheet, "phone", null, null, cancel);
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }
}
