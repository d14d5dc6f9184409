using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;

namespace Solvenda.Acts.Quotes;

/// <summary>Takes a quote back, with the reason; what was asked for it is withdrawn too.</summary>
public sealed record WithdrawQuote(string Quote, string Reason) : IAct<DocumentRef>;

[Leaves(typeof(QuoteWithdrawn))]
public sealed class WithdrawQuoteAct(SheetLoader loader) : Act<WithdrawQuote, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, WithdrawQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        if (string.IsNullOrWhiteSpace(input.Reason))
            throw RefusedException.Bad("reason_missing", "Say why it is withdrawn; the reason is kept.", "reason");
        var before = open.Quote!.State;
        QuoteSteps.Move(open.Quote, QuoteDoing.Withdraw);
        foreach (var ask in open.Asks.Where(a => a.Outcome == AskOutcome.Waiting))
            (ask.Outcome, ask.DecidedAt) = (AskMoves.Table.After(ask.Outcome, AskDoing.Withdraw)!.Value, work.Now);
        work.Leave(
            new QuoteWithdrawn(Revision.Letter(open.Quote.Revision), before, open.Quote.State),
            open.Subject,
            open.Dossier.Id,
            input.Reason.Trim()
        );
        return open.Ref;
    }
}
