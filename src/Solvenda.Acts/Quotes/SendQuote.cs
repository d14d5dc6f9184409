using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;

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

/// <summary>What leaves, printed ahead.</summary>
/// <param name="Token">Of the buyer's link, which stands in the letter.</param>
/// <param name="Copy">The quote, as it is kept.</param>
/// <param name="Posted">It with its letter in front; null where it goes by mail.</param>
public sealed record PrintedQuote(string Token, Printed Copy, Printed? Posted);

[Leaves(typeof(QuoteSent))]
public sealed class SendQuoteAct(SheetLoader loader, Judge judge, Seller seller)
    : PreparedAct<SendQuote, PrintedQuote, DocumentRef>
{
    // After so many days somebody asks the buyer what they think of it.
    private const int FollowUpDays = 3;

    public override Right Needs => Rights.Write;

    protected override async Task<PrintedQuote> PrepareAsync(Ahead ahead, SendQuote input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ahead);
        ArgumentNullException.ThrowIfNull(input);
        var judged = await MaySendAsync(ahead.Db, ahead.Actor, ahead.Today, input, cancel);
        var token = Tokens.New();
        return new PrintedQuote(
            token,
            Printed.Of(SheetPrint.Quote(judged, seller, ahead.Today)),
            input.By == DocumentsBy.Paper ? Printed.Of(Posted(judged, input, token, ahead.Today)) : null
        );
    }

    protected override async Task<DocumentRef> RunAsync(
        Work work,
        SendQuote input,
        PrintedQuote prepared,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        var judged = await MaySendAsync(work.Db, work.Actor, work.Today, input, cancel);
        var open = judged.Open;
        var quote = open.Quote!;
        var before = quote.State;
        QuoteSteps.Move(quote, QuoteDoing.Send);
        // The rate of the day is frozen until the validity ends.
        if (open.Sheet.Currency != open.Book.Home.Code)
            open.Sheet.FrozenRate = judged.Priced.Rates.Of(judged.Priced.Sheet.Currency);
        // What is offered stays what it is, whatever price lists do until it is answered.
        open.Sheet.Keep(judged.Priced);
        open.Sheet.Kept = KeptLines.Write(judged.Priced);
        await DispatchAsync(work, judged, input, prepared, cancel);
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

    // Asked when it is printed, and again when it is sent.
    private async Task<Judged> MaySendAsync(
        SolvendaDb db,
        Actor actor,
        DateOnly today,
        SendQuote input,
        CancellationToken cancel
    )
    {
        Outgoing.Addressed(input.By, input.To);
        if (!input.Text.Contains(BuyerLetters.LinkMark, StringComparison.Ordinal))
            throw RefusedException.Bad(
                "link_missing",
                $"The letter has lost its {BuyerLetters.LinkMark}; without it the buyer cannot answer. Nothing was sent.",
                "text"
            );
        var open = await loader.QuoteAsync(db, input.Quote, null, cancel);
        await Versions.MatchAsync(db, open, input.Seen, cancel);
        var judged = await judge.JudgeAsync(db, open, actor.Hand, cancel);
        if (!open.IsEditable)
            throw RefusedException.Clash("quote_state", "This revision left the house already.");
        if (!judged.Priced.Sold.Any())
            throw RefusedException.Clash("stopped", "There is nothing on it yet.");
        if (judged.Stops.FirstOrDefault() is { } stop)
            throw RefusedException.Clash("stopped", stop.Words);
        return open.Quote!.ValidUntil < today
            ? throw RefusedException.Bad(
                "validity_past",
                "Its validity is over; set a later date first.",
                HeadTerms.ValidUntil.Name
            )
            : judged;
    }

    private async Task DispatchAsync(
        Work work,
        Judged judged,
        SendQuote input,
        PrintedQuote prepared,
        CancellationToken cancel
    )
    {
        var open = judged.Open;
        var quote = open.Quote!;
        (quote.TokenHash, quote.SentAt, quote.SentTo) = (Tokens.Sha256(prepared.Token), work.Now, input.To);
        var name = $"{open.Wording["quote"]} {open.Number}.pdf";
        var pdf = prepared.Copy.For(SheetPrint.Quote(judged, seller, work.Today));
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
        var key = $"{quote.Number}.{Revision.Letter(quote.Revision)}.{work.Now:yyyyMMddHHmmss}".ToLowerInvariant();
        if (prepared.Posted is { } posted)
            Outgoing.Post(work, key, input.To, posted.For(Posted(judged, input, prepared.Token, work.Today)));
        else
            Outgoing.Mail(
                work,
                seller,
                key,
                input.To,
                new BuyerLetter(input.Subject, TextOf(input, prepared.Token)),
                (name, pdf)
            );
    }

    private PrintedDocument Posted(Judged judged, SendQuote input, string token, DateOnly today) =>
        SheetPrint.Quote(judged, seller, today, SheetPrint.Letter(judged.Open, input.To, TextOf(input, token)));

    private static string TextOf(SendQuote input, string token) =>
        input.Text.Replace(BuyerLetters.LinkMark, $"{input.LinkBase}/offer/{token}", StringComparison.Ordinal);

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
