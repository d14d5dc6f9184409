namespace Solvenda.Core.Ordering.Checks;

/// <summary>Every line's tax follows from a rule; an unknown one is a stop, never a guess.</summary>
public sealed class TaxKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "tax";

    /// <inheritdoc />
    public string Does => "the tax of every line follows from a rule";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        if (string.IsNullOrEmpty(facts.Sheet.Sheet.DeliverToCountry))
            yield break; // TermsComplete asks for the deliver-to; saying it twice helps nobody.
        if (facts.Sheet.Sold.Any(l => (l.Item is not null || l.HasPrice) && l.Terms.Tax is null))
        {
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"No tax rule fits {facts.Buyer.Name} in {facts.Sheet.Sheet.DeliverToCountry}: at home it takes a rate for the day, inside the Union their tax number.",
                null,
                "taxNumber"
            );
        }
    }
}
