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
            InvoiceCredited e => new(
                FormattableString.Invariant(
                    $"credit note {e.Note} over {e.Total:#,0.00} {e.Currency} for {e.Invoice}{Went(e.ToldTo)}"
                ),
                Milestone: true
            ),
            BooksOpened e => new($"the books were opened with {e.Owed} open invoices and {e.Held} deposits"),
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
            _ => null,
        };

    private static string Went(string to) => to.Length > 0 ? $", to {to}" : ", to nobody: there is no address";
}
