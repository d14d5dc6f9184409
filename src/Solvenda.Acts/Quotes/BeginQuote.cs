using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Quotes;

/// <summary>Begins a quote for a buyer, with what they have by default.</summary>
public sealed record BeginQuote(long Buyer, string Matter) : IAct<DocumentRef>;

[Leaves(typeof(QuoteBegun))]
public sealed class BeginQuoteAct : Act<BeginQuote, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, BeginQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var buyer =
            await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == input.Buyer, cancel)
            ?? throw RefusedException.Bad("buyer_unknown", "We have no such buyer.", "buyer");
        var dossier = await Drafting.DossierAsync(work, buyer, input.Matter, cancel);
        var sheet = Drafting.SheetFor(buyer, work.Today, null);
        var quote = await Drafting.QuoteAsync(work, dossier, sheet, null, cancel);
        return new DocumentRef("quote", quote.Number);
    }
}
