using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The buyer's tax number can be one of its country: goods go untaxed by it, and a wrong one is billed later.
/// </summary>
public sealed class TaxNumberSound : ICheck
{
    /// <inheritdoc />
    public string Code => "tax-number";

    /// <inheritdoc />
    public string Does => "the buyer’s tax number can be one of its country";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (
            facts.Document != DocumentKind.Order
            || facts.Buyer.TaxNumber is not { Length: > 0 } number
            || TaxNumbers.Fault(number) is not { } fault
        )
            yield break;
        yield return new Finding(
            Code,
            Outcome.Notice,
            $"{facts.Buyer.Name}’s tax number “{number}” {fault}.",
            null,
            "taxNumber"
        );
    }
}
