using Solvenda.Core.Documents.Events;

namespace Solvenda.Web.Dossiers;

/// <summary>Events of invoices and of money that came, in words.</summary>
internal static class MoneyWords
{
    public static EventWord? Of(IEvent facts) =>
        facts switch
        {
            InvoiceIssued e => new(
                FormattableString.Invariant(
                    $"invoice {e.Invoice} over {e.Total:#,0.00} {e.Currency}, due {e.Due:d MMM}{Went(e.ToldTo)}"
                ),
                Milestone: true
            ),
            DepositInvoiced e => new(
                FormattableString.Invariant(
                    $"deposit invoice {e.Invoice} over {e.Total:#,0.00} {e.Currency}{Went(e.ToldTo)}"
                )
            ),
            EntriesMoved e => new($"{e.Invoice} is posted on {e.To} instead of {e.From}"),
            InvoiceCredited e => new(
                FormattableString.Invariant(
                    $"credit note {e.Note} over {e.Total:#,0.00} {e.Currency} for {e.Invoice}{Went(e.ToldTo)}"
                ),
                Milestone: true
            ),
            ProFormaSent e => new(
                FormattableString.Invariant($"a pro-forma invoice over {e.Total:#,0.00} {e.Currency}{Went(e.To)}")
            ),
            BooksOpened e => new($"the books were opened with {e.Owed} open invoices and {e.Held} deposits"),
            BooksClosed e => new(FormattableString.Invariant($"the books are closed up to {e.Until:d MMM yyyy}")),
            BankTaken e => new(
                $"{e.File}: {e.Applied} of {e.Came} went by themselves{(e.Known > 0 ? $", {e.Known} were there already" : "")}"
            ),
            MoneyApplied e => new(
                FormattableString.Invariant(
                    $"{e.Amount:#,0.00} {e.Currency} ({e.Receipt}): {(e.Takes.IsEmpty ? "stays on account" : string.Join("; ", e.Takes))}{(e.Left > 0m && !e.Takes.IsEmpty ? $"; {e.Left:#,0.00} on account" : "")}"
                )
            ),
            MoneyReturned e => new(
                FormattableString.Invariant(
                    $"{e.Amount:#,0.00} {e.Currency} ({e.Receipt}) went back; open again: {string.Join(", ", e.Opened)}"
                )
            ),
            MoneyNoted e => new(
                FormattableString.Invariant(
                    $"{e.Amount:#,0.00} {e.Currency} by {e.How} ({e.Receipt}): {(e.Takes.IsEmpty ? "on account" : string.Join("; ", e.Takes))}"
                )
            ),
            PayoutTaken e => new(
                FormattableString.Invariant(
                    $"{e.Channel} paid out ({e.Receipt}): {e.Gross:#,0.00} {e.Currency}, {e.Fees:#,0.00} of it fees"
                )
            ),
            _ => OfOwed(facts),
        };

    private static EventWord? OfOwed(IEvent facts) =>
        facts switch
        {
            MoneyPaidBack e => new(
                FormattableString.Invariant($"{e.Amount:#,0.00} {e.Currency} of {e.Document} paid back: {e.Reason}"),
                Milestone: true
            ),
            RestWrittenOff e => new(
                FormattableString.Invariant($"{e.Amount:#,0.00} {e.Currency} of {e.Number} written off: {e.Reason}")
            ),
            InvoiceDisputed e => new($"{e.Number} is disputed: {e.Reason}", Milestone: true),
            DisputeSettled e => new($"what was said against {e.Number} is settled: {e.Words}"),
            NoteSetOff e => new(
                FormattableString.Invariant($"{e.Amount:#,0.00} {e.Currency} of {e.Note} taken for {e.Invoice}")
            ),
            BuyerReminded e => new(
                $"{(e.Step == 1 ? "reminded" : e.Step == 2 ? "reminded again" : "reminded for the last time")} of {string.Join(", ", e.Numbers)}{Went(e.ToldTo)}"
            ),
            StatementSent e => new($"a statement with {e.Items} open went{Went(e.ToldTo)}"),
            _ => null,
        };

    private static string Went(string to) => to.Length > 0 ? $", to {to}" : ", to nobody: there is no address";
}
