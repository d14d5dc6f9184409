using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Begins an order of its own with the lines of an earlier one, at the prices of today and as typed by whoever copies.
/// What was of that order alone (its PO, release, days) does not come along; what it is a copy of stays as it is.
/// </summary>
public sealed record CopyOrder(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class CopyOrderAct(SheetLoader loader, Settling settling) : Act<CopyOrder, DocumentRef>
{
    private static readonly string[] OfItsOwn =
    [
        HeadTerms.PoNumber.Name,
        HeadTerms.Release.Name,
        HeadTerms.Wanted.Name,
    ];

    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, CopyOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var sheet = Drafting.AnewOf(work, open.Sheet);
        var draft = sheet.ToDraft();
        sheet.Take(draft with { Head = OfItsOwn.Aggregate(draft.Head, (head, term) => head.With(term, null, null)) });
        var dossier = await Drafting.DossierAsync(work, open.Buyer, open.Dossier.Matter, cancel);
        var order = await Drafting.OrderAsync(
            work,
            dossier,
            sheet,
            "phone",
            null,
            null,
            cancel,
            new OrderBegun("phone", null, null) { CopyOf = open.Subject }
        );
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }
}
