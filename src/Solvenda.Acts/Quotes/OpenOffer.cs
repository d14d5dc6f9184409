using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;

namespace Solvenda.Acts.Quotes;

/// <summary>The buyer opens their link.</summary>
/// <param name="Token">As it stands in the letter.</param>
public sealed record OpenOffer(string Token, string? Of = null) : IAct<int>;

[Leaves(typeof(QuoteOpened))]
public sealed class OpenOfferAct(Offers offers) : Act<OpenOffer, int>
{
    public override Right Needs => Rights.Link;

    /// <returns>How many times it was opened by now.</returns>
    public override async Task<int> RunAsync(Work work, OpenOffer input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await offers.ByTokenAsync(work.Db, input.Token, work.Today, cancel, input.Of);
        var quote = open.Quote!;
        if (quote.State == QuoteState.WithCustomer)
        {
            quote.Opened++;
            work.Leave(new QuoteOpened(Revision.Letter(quote.Revision), quote.Opened), open.Subject, open.Dossier.Id);
        }
        return quote.Opened;
    }
}
