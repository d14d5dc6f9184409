using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The head of an order is complete: what is missing here would stop it days later in another department.
/// </summary>
public sealed class TermsComplete : ICheck
{
    /// <inheritdoc />
    public string Code => "terms";

    /// <inheritdoc />
    public string Does => "the head of an order is complete";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        var head = facts.Head;
        var outcome = facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice;
        var kind = facts.Sheet.Sheet.Kind;
        if (!kind.IsFree && HeadTerms.PaymentDays.In(head) is null)
            yield return Missing("Payment terms are missing.", HeadTerms.PaymentDays, outcome);
        if (kind.IsCarried)
            foreach (var finding in Carried(facts, outcome))
                yield return finding;
        if (!kind.IsWork && HeadTerms.ShipFrom.In(head) is null)
            yield return Missing("Ship from where? The warehouse is missing.", HeadTerms.ShipFrom, outcome);
        if (HeadTerms.By.In(head) is not { } by)
            yield return Missing(
                "How do documents go out to them? Mail, EDI or paper is not said.",
                HeadTerms.By,
                outcome
            );
        else if (facts is { Document: DocumentKind.Order, AnswersByEdi: false } && by == DocumentsBy.Edi)
            yield return new Finding(
                Code,
                Outcome.Notice,
                "It did not come as an X12 order, so its acknowledgement goes by mail.",
                null,
                HeadTerms.By.Name
            );
        if (facts.Document == DocumentKind.Order && !facts.Sheet.Sold.Any())
            yield return new Finding(Code, Outcome.Stop, "The order has no lines.");
    }

    private IEnumerable<Finding> Carried(CheckFacts facts, Outcome outcome)
    {
        var head = facts.Head;
        if (HeadTerms.DeliverTo.In(head) is null || string.IsNullOrWhiteSpace(facts.Sheet.Sheet.DeliverToCountry))
            yield return Missing("Where does it go? The deliver-to is missing.", HeadTerms.DeliverTo, outcome);
        if (HeadTerms.Incoterm.In(head) is not { } incoterm)
            yield return Missing("The Incoterm is missing.", HeadTerms.Incoterm, outcome);
        else if (HeadTerms.IncotermPlace.In(head) is null)
            yield return Missing(
                $"{incoterm} needs its named place (Incoterms 2020).",
                HeadTerms.IncotermPlace,
                outcome
            );
    }

    private Finding Missing(string words, HeadTerm term, Outcome outcome) =>
        new(Code, outcome, words, null, term.Name) { Cures = [new Cure("G", "fill it in", "focus", term.Name, "")] };
}
