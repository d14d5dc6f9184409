using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Turns an accepted quote into its order: the accepted revision and no other, with everything carried over, hands and
/// grants too.
/// </summary>
public sealed record TurnQuote(string Quote) : IAct<DocumentRef>;

[Leaves(typeof(OrderBegun))]
public sealed class TurnQuoteAct(SheetLoader loader, Settling settling) : Act<TurnQuote, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, TurnQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        var quote = open.Quote!;
        if (quote.State != QuoteState.Accepted)
            throw RefusedException.Clash("quote_state", "Only an accepted quote becomes an order.");
        var made = await work
            .Db.Orders.Where(o => o.QuoteId == quote.Id)
            .Select(o => o.Number)
            .FirstOrDefaultAsync(cancel);
        if (made is not null)
            throw RefusedException.Clash("order_made", $"It became {made} already.");
        var sheet = Drafting.CopyOf(open.Sheet, null);
        var draft = sheet.ToDraft();
        sheet.Take(draft with { Lines = Choices.Settled(draft.Lines) });
        var order = await Drafting.OrderAsync(work, open.Dossier, sheet, "mail", quote, null, cancel);
        await work.Db.SaveChangesAsync(cancel);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, order.Number, cancel), cancel);
        return new DocumentRef("order", order.Number);
    }
}
