using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// Every line sold names an item of ours, which is still sold; or it has a price of its own, and says so.
/// </summary>
public sealed class ItemKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "item";

    /// <inheritdoc />
    public string Does => "every line names an item that is still sold";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold.Where(l => l.Line.Kind == LineKind.Item))
        {
            if (line.Line.IsFree)
            {
                yield return new Finding(
                    Code,
                    Outcome.Notice,
                    $"“{line.Line.Words}” is not in the catalogue{(line.Line.Cost is null ? ", and nobody says what it costs us" : "")}.",
                    line.Line.Key,
                    "item"
                )
                {
                    Cures = [new Cure("P", "it is an item of ours", "focus", "item", "")],
                };
            }
            else if (line.Item is null)
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
