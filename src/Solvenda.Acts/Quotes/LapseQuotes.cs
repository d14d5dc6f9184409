using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;

namespace Solvenda.Acts.Quotes;

/// <summary>Lapses every quote that is with a buyer and whose validity is over.</summary>
public sealed record LapseQuotes : IAct<int>;

[Leaves(typeof(QuoteLapsed))]
public sealed class LapseQuotesAct : Act<LapseQuotes, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many.</returns>
    public override async Task<int> RunAsync(Work work, LapseQuotes input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var over = await work
            .Db.Quotes.Where(q => q.State == QuoteState.WithCustomer && q.ValidUntil < work.Today)
            .ToListAsync(cancel);
        foreach (var quote in over)
        {
            var before = quote.State;
            QuoteSteps.Move(quote, QuoteDoing.Lapse);
            work.Leave(
                new QuoteLapsed(Revision.Letter(quote.Revision), before, quote.State),
                quote.Number,
                quote.DossierId
            );
        }
        return over.Count;
    }
}
