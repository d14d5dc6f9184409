using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;

namespace Solvenda.Acts.Quotes;

/// <summary>The buyer says no, with a reason.</summary>
/// <param name="Name">As they give it; null where they give none.</param>
public sealed record DeclineOffer(string Token, string Reason, string? Name, string? Of = null) : IAct<DocumentRef>;

[Leaves(typeof(QuoteDeclined))]
public sealed class DeclineOfferAct(Offers offers) : Act<DeclineOffer, DocumentRef>
{
    public override Right Needs => Rights.Link;

    public override async Task<DocumentRef> RunAsync(Work work, DeclineOffer input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = input.Reason.Trim();
        if (reason.Length == 0)
            throw RefusedException.Bad("reason_missing", "Please say in a word why; it helps us do better.", "reason");
        reason = reason[..Math.Min(reason.Length, SheetDoor.MostLetters)];
        var open = await offers.ByTokenAsync(work.Db, input.Token, work.Today, cancel, input.Of);
        Offers.MustBeOpen(open, work.Today);
        var before = await offers.AnswerAsync(work, open, QuoteDoing.Decline, input.Name, reason, cancel);
        work.Leave(
            new QuoteDeclined(Revision.Letter(open.Quote!.Revision), before, open.Quote.State),
            open.Subject,
            open.Dossier.Id,
            reason
        );
        return open.Ref;
    }
}
