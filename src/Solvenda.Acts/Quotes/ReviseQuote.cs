using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Begins a new revision from the one that left the house; the old one stays as it was offered. What is copied counts
/// as typed by whoever does.
/// </summary>
public sealed record ReviseQuote(string Quote) : IAct<DocumentRef>;

[Leaves(typeof(QuoteRevised), typeof(RateMoved))]
public sealed class ReviseQuoteAct(SheetLoader loader, Settling settling) : Act<ReviseQuote, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, ReviseQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        var old = open.Quote!;
        var before = old.State;
        QuoteSteps.Move(old, QuoteDoing.Revise);
        var sheet = Drafting.CopyOf(open.Sheet, work.Actor.Hand);
        (sheet.PricingDate, sheet.FrozenRate, sheet.Kept) = (work.Today, null, "");
        work.Db.Quotes.Add(
            new QuoteRow
            {
                Number = old.Number,
                Revision = old.Revision + 1,
                DossierId = old.DossierId,
                Dossier = old.Dossier,
                Sheet = sheet,
                SellerId = old.SellerId,
                RequestId = old.RequestId,
                State = QuoteState.Drafting,
                ValidUntil = work.Today.AddDays(Drafting.ValidDays),
                CreatedAt = work.Now,
            }
        );
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(
            new QuoteRevised(Revision.Letter(old.Revision), Revision.Letter(old.Revision + 1), before, old.State),
            open.Subject,
            open.Dossier.Id
        );
        var fresh = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        SayWhereTheRateMoved(work, open, (await settling.SettleAsync(work, fresh, cancel)).Judged);
        return open.Ref;
    }

    // A new revision takes the rate of its day; where that moves the total by more than a hundredth, the strip says so.
    private static void SayWhereTheRateMoved(Work work, OpenSheet old, Judged judged)
    {
        if (
            old.Sheet.FrozenRate is not { } before
            || judged.Priced.Rates.Of(judged.Priced.Sheet.Currency) is not { } now
            || before == now
            || old.Sheet.TotalWithTaxMinor == 0
        )
            return;
        var moved = ((decimal)judged.Priced.Tally.TotalWithTax.Minor / old.Sheet.TotalWithTaxMinor - 1m) * 100m;
        if (Math.Abs(moved) > 1m)
            work.Leave(new RateMoved(before, now, decimal.Round(moved, 4)), old.Subject, old.Dossier.Id);
    }
}
