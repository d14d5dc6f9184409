namespace Solvenda.Core.Ordering.Checks;

/// <summary>Every line sold names an item of ours, which is still sold.</summary>
public sealed class ItemKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "item";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold)
        {
            if (line.Item is null)
            {
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    $"We do not know which item “{line.Line.Words}” is.",
                    line.Line.Key,
                    "item"
                )
                {
                    Cures = [new Cure("P", "pick the item", "focus", "item", "")],
                };
            }
            else if (line.Item.Successor is { } successor)
            {
                yield return new Finding(
                    Code,
                    Outcome.Notice,
                    $"{line.Item.Code} is running out; {successor} follows it.",
                    line.Line.Key,
                    "item"
                )
                {
                    Cures = [new Cure("S", $"take {successor}", "set", "item", successor)],
                };
            }
        }
    }
}
