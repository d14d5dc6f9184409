using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Invoicing;

/// <summary>Invoices all of an order that went and is on no invoice yet.</summary>
/// <param name="WithGoods">Ships first what may go.</param>
/// <param name="Moves">What of it is posted on other accounts than the rules say.</param>
public sealed record IssueInvoice(string Order, bool WithGoods, ImmutableArray<MovedEntry> Moves) : IAct<string>;

[Leaves(typeof(InvoiceIssued), typeof(EntriesMoved), typeof(GoodsReleased), typeof(ShipmentSent))]
public sealed class IssueInvoiceAct(
    SheetLoader loader,
    Releasing releasing,
    Sending sending,
    Rendered rendered,
    Invoicing invoicing
) : Act<IssueInvoice, string>
{
    public override Right Needs => Rights.Bill;

    /// <returns>Number of the invoice.</returns>
    public override async Task<string> RunAsync(Work work, IssueInvoice input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        if (await Unbilled.Services(work.Db).AnyAsync(o => o.Number == input.Order, cancel))
            await rendered.NoteAsync(work, open, cancel);
        else if (input.WithGoods)
        {
            if (!Rights.Ship.Allows(work.Actor))
                throw RefusedException.Forbidden("Shipping is not yours to do; nothing was invoiced.");
            foreach (var shipment in await releasing.ReleaseAsync(work, open, [], cancel))
                await sending.SendAsync(work, open, shipment, asAsked: true, cancel);
        }
        await MovedEntries.MustBeRightAsync(work, input.Moves, cancel);
        var number = (await invoicing.IssueAsync(work, [open], work.Today, input.Moves, cancel)).Number;
        foreach (var move in input.Moves)
            work.Leave(
                new EntriesMoved(number, move.From, move.To, move.Reason.Trim()),
                open.Subject,
                open.Dossier.Id,
                move.Reason.Trim()
            );
        return number;
    }
}
