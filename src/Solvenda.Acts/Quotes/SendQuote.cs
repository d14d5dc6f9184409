using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Sends a quote: by mail or on paper, with a link to its page. A copy of exactly what was sent is kept.
/// </summary>
/// <param name="By">mail, or paper.</param>
/// <param name="To">A mail address; the address on the envelope where it goes on paper.</param>
/// <param name="Text">The letter; the link stands in it as {link}.</param>
/// <param name="LinkBase">How buyers reach this house: https://….</param>
/// <param name="Seen">Version of the sheet.</param>
public sealed record SendQuote(
    string Quote,
    string By,
    string To,
    string Subject,
    string Text,
    string LinkBase,
    long? Seen
) : IAct<DocumentRef>;

[Leaves(typeof(QuoteSent))]
public sealed class SendQuoteAct(SheetLoader loader, Judge judge, Seller seller) : Act<SendQuote, DocumentRef>
{
    // After so many days somebody asks the buyer what they think of it.
    private const int FollowUpDays = 3;

    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, SendQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        Outgoing.Addressed(input.By, input.To);
        if (!input.Text.Contains(BuyerLetters.LinkMark, StringComparison.Ordinal))
            throw RefusedException.Bad(
                "link_missing",
                $"The letter has lost its {BuyerLetters.LinkMark}; without it the buyer cannot answer. Nothing was sent.",
                "text"
            );
        var open = await loader.QuoteAsync(work.Db, input.Quote, null, cancel);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel);
        var judged = await MaySendAsync(work, open, cancel);
        var quote = open.Quote!;
        var before = quote.State;
        QuoteSteps.Move(quote, QuoteDoing.Send);
        // The rate of the day is frozen until the validity ends.
        if (open.Sheet.Currency != open.Book.Home.Code)
            open.Sheet.FrozenRate = judged.Priced.Rates.Of(judged.Priced.Sheet.Currency);
        // What is offered stays what it is, whatever price lists do until it is answered.
        open.Sheet.Keep(judged.Priced);
        open.Sheet.Kept = KeptLines.Write(judged.Priced);
        await DispatchAsync(work, open, judged, input, cancel);
        FollowUp(work, open, quote);
        var total = judged.Priced.Tally.TotalWithTax;
        work.Leave(
            new QuoteSent(
                Revision.Letter(quote.Revision),
                input.By,
                input.To,
                total.Value,
                total.Currency.Code,
                before,
                quote.State
            ),
            open.Subject,
            open.Dossier.Id
        );
        return open.Ref;
    }

    private async Task<Judged> MaySendAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        var judged = await judge.JudgeAsync(work.Db, open, work.Actor.Hand, cancel);
        if (!open.IsEditable)
            throw RefusedException.Clash("quote_state", "This revision left the house already.");
        if (!judged.Priced.Sold.Any())
            throw RefusedException.Clash("stopped", "There is nothing on it yet.");
        if (judged.Stops.FirstOrDefault() is { } stop)
            throw RefusedException.Clash("stopped", stop.Words);
        return open.Quote!.ValidUntil < work.Today
            ? throw RefusedException.Bad(
                "validity_past",
                "Its validity is over; set a later date first.",
                HeadTerms.ValidUntil.Name
            )
            : judged;
    }

    private async Task DispatchAsync(
        Work work,
        OpenSheet open,
        Judged judged,
        SendQuote input,
        CancellationToken cancel
    )
    {
        var quote = open.Quote!;
        var token = Tokens.New();
        (quote.TokenHash, quote.SentAt, quote.SentTo) = (Tokens.Sha256(token), work.Now, input.To);
        var name = $"{open.Wording["quote"]} {open.Number}.pdf";
        var pdf = SheetPrint.Quote(judged, seller, work.Today);
        var print = new PrintRow
        {
            Name = name,
            ContentType = "application/pdf",
            Bytes = pdf,
            CreatedAt = work.Now,
        };
        work.Db.Prints.Add(print);
        await work.Db.SaveChangesAsync(cancel);
        quote.PrintId = print.Id;
        var text = input.Text.Replace(
            BuyerLetters.LinkMark,
            $"{input.LinkBase}/offer/{token}",
            StringComparison.Ordinal
        );
        var key = $"{quote.Number}.{Revision.Letter(quote.Revision)}.{work.Now:yyyyMMddHHmmss}".ToLowerInvariant();
        if (input.By == DocumentsBy.Paper)
            Outgoing.Post(
                work,
                key,
                input.To,
                SheetPrint.Quote(judged, seller, work.Today, SheetPrint.Letter(open, input.To, text))
            );
        else
            Outgoing.Mail(work, seller, key, input.To, new BuyerLetter(input.Subject, text), (name, pdf));
    }

    private static void FollowUp(Work work, OpenSheet open, QuoteRow quote) =>
        work.Db.FollowUps.Add(
            new FollowUpRow
            {
                DossierId = open.Dossier.Id,
                PersonId = quote.SellerId,
                Due = DateTime.SpecifyKind(
                    work.Today.AddDays(FollowUpDays).ToDateTime(new TimeOnly(9, 30)),
                    DateTimeKind.Utc
                ),
                Words = $"call {open.Buyer.ContactName ?? open.Buyer.Name}",
            }
        );
}
