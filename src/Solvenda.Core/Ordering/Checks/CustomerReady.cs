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
        ArgumentNullException.ThrowIfNull(facts);
        var buyer = facts.Buyer;
        if (facts.Document != DocumentKind.Order || !buyer.IsProspect)
            yield break;
        yield return Gap($"{buyer.Name} is still a prospect.", "") with
        {
            Waive = WaiveBy.Lead,
        };
        if (string.IsNullOrWhiteSpace(buyer.TaxNumber))
            yield return Gap($"{buyer.Name} has no tax number on file.", "taxNumber") with
            {
                Waive = WaiveBy.Lead,
            };
        if (buyer.PaymentDays is null)
            yield return Gap($"No terms are agreed with {buyer.Name}.", "paymentDays") with
            {
                Waive = WaiveBy.Lead,
            };
    }

    private Finding Gap(string words, string field) =>
        new(Code, Outcome.Stop, words, null, field, WaiveBy.Nobody, field.Length > 0 ? field : "prospect")
        {
            Cures = [new Cure("F", "make them a customer", "customer", "", "")],
        };
}
