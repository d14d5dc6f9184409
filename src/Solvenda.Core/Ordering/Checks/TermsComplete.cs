namespace Solvenda.Core.Ordering.Checks;

/// <summary>The head of an order is complete: what is missing here would stop it days later in another department.</summary>
public sealed class TermsComplete : ICheck
{
    public string Code => "terms";

    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        var terms = facts.Terms;
        var outcome = facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice;
        if (terms.PaymentDays is null)
            yield return Missing("Payment terms are missing.", "paymentDays", outcome);
        if (string.IsNullOrWhiteSpace(terms.DeliverTo) || string.IsNullOrWhiteSpace(facts.Sheet.Sheet.DeliverToCountry))
            yield return Missing("Where does it go? The deliver-to is missing.", "deliverTo", outcome);
        if (string.IsNullOrWhiteSpace(terms.Incoterm))
            yield return Missing("The Incoterm is missing.", "incoterm", outcome);
        else if (string.IsNullOrWhiteSpace(terms.IncotermPlace))
            yield return Missing($"{terms.Incoterm} needs its named place (Incoterms 2020).", "incotermPlace", outcome);
        if (string.IsNullOrWhiteSpace(terms.ShipFrom))
            yield return Missing("Ship from where? The warehouse is missing.", "shipFrom", outcome);
        if (terms.DocumentsBy is null)
            yield return Missing(
                "How do documents go out to them? Mail, EDI or paper is not said.",
                "documentsBy",
                outcome
            );
        else if (facts.Document == DocumentKind.Order && terms is { DocumentsBy: DocumentsBy.Edi, AnswersByEdi: false })
            yield return new Finding(
                Code,
                Outcome.Notice,
                "It did not come as an X12 order, so its acknowledgement goes by mail.",
                null,
                "documentsBy"
            );
        if (facts.Document == DocumentKind.Order && !facts.Sheet.Sold.Any())
            yield return new Finding(Code, Outcome.Stop, "The order has no lines.");
    }

    private Finding Missing(string words, string field, Outcome outcome) =>
        new(Code, outcome, words, null, field) { Cures = [new Cure("G", "fill it in", "focus", field, "")] };
}
