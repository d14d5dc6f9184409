using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;

namespace Solvenda.Acts.Quotes;

/// <summary>The buyer says yes, with their PO number where their house wants one on everything.</summary>
/// <param name="Chosen">Keys of the options and alternatives that they take; null: what counted when it was
/// sent.</param>
/// <param name="Of">Number of the quote, where the link is of another that it stands beside.</param>
public sealed record AcceptOffer(string Token, string? PoNumber, IReadOnlyList<long>? Chosen = null, string? Of = null)
    : IAct<DocumentRef>;

[Leaves(typeof(QuoteAccepted), typeof(QuoteDeclined))]
public sealed class AcceptOfferAct(Offers offers) : Act<AcceptOffer, DocumentRef>
{
    private const int MostPoLetters = 60;

    public override Right Needs => Rights.Link;

    public override async Task<DocumentRef> RunAsync(Work work, AcceptOffer input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (work.Actor.Name.Length == 0)
            throw RefusedException.Bad("name_missing", "Please give your name.", "name");
        var open = await offers.ByTokenAsync(work.Db, input.Token, work.Today, cancel, input.Of);
        Offers.MustBeOpen(open, work.Today);
        var po = input.PoNumber?.Trim() ?? "";
        if (open.Buyer.PoNumberRequired && po.Length == 0)
            throw RefusedException.Bad(
                "po_missing",
                "Please give your PO number; your house wants it on everything.",
                "poNumber"
            );
        if (po.Length > MostPoLetters)
            throw RefusedException.Bad(
                "too_long",
                $"A PO number is at most {MostPoLetters} letters; nothing was accepted yet.",
                "poNumber"
            );
        if (po.Length > 0)
            open.Sheet.Take(open.Sheet.Head.With(HeadTerms.PoNumber.Name, po, work.Actor.Hand));
        Choosing.Take(open, input.Chosen ?? []);
        var priced = open.Sheet.Priced(open.Buyer, open.Book);
        open.Sheet.Keep(priced);
        open.Sheet.Kept = KeptLines.Write(priced);
        var before = await offers.AnswerAsync(work, open, QuoteDoing.Accept, work.Actor.Name, null, cancel);
        await LeaveOthersAsync(work, open, cancel);
        work.Leave(
            new QuoteAccepted(
                Revision.Letter(open.Quote!.Revision),
                open.Sheet.PoNumber,
                before,
                open.Quote.State,
                Choosing.Words(open)
            ),
            open.Subject,
            open.Dossier.Id
        );
        return open.Ref;
    }

    // Of quotes to choose from, those that they did not take are answered too.
    private static async Task LeaveOthersAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        if (open.Quote!.OneOf is not { } set)
            return;
        var others = await work
            .Db.Quotes.Where(q => q.OneOf == set && q.Number != open.Subject && q.State == QuoteState.WithCustomer)
            .ToListAsync(cancel);
        foreach (var other in others)
        {
            var before = other.State;
            QuoteSteps.Move(other, QuoteDoing.Decline);
            var why = $"{open.Subject} was taken instead";
            (other.AnsweredAt, other.AnsweredBy, other.DeclineReason) = (work.Now, work.Actor.Name, why);
            work.Leave(
                new QuoteDeclined(Revision.Letter(other.Revision), before, other.State),
                other.Number,
                open.Dossier.Id,
                why
            );
        }
    }
}
