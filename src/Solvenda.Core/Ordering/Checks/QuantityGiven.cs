namespace Solvenda.Core.Ordering.Checks;

/// <summary>Every line sold has a quantity above zero.</summary>
public sealed class QuantityGiven : ICheck
{
    /// <inheritdoc />
    public string Code => "quantity";

    /// <inheritdoc />
    public string Does => "every line has a quantity";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts) =>
        facts
            .Sheet.Sold.Where(l => l.Line.Quantity <= 0)
            .Select(l => new Finding(Code, Outcome.Stop, "How much? The quantity is missing.", l.Line.Key, "quantity")
            {
                Cures = [new Cure("N", "type the quantity", "focus", "quantity", "")],
            });
}
