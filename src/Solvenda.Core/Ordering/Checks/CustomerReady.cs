using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>A prospect must become a customer before an order of theirs is confirmed.</summary>
public sealed class CustomerReady : ICheck
{
    /// <inheritdoc />
    public string Code => "customer";

    /// <inheritdoc />
    public string Does => "a prospect becomes a customer first";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        if (facts.Document == DocumentKind.Order && facts.Buyer.IsProspect)
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"{facts.Buyer.Name} is still a prospect: tax number, terms and a credit limit come first.",
                null,
                "",
                WaiveBy.Lead,
                "prospect"
            );
    }
}
