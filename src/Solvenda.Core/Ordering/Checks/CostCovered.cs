using System.Globalization;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>What is sold costs something that is known, and brings in at least that.</summary>
public sealed class CostCovered : ICheck
{
    /// <inheritdoc />
    public string Code => "cost";

    /// <inheritdoc />
    public string Does => "what is sold brings in at least what it costs";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        foreach (var line in facts.Sheet.Sold.Where(l => l is { HasPrice: true, Item: not null }))
        {
            if (line.Figures.Cost is not { } cost)
                yield return Say(line, $"Nobody knows what {line.Item!.Code} costs us.");
            else if (line.Figures.Earned < cost)
                yield return Say(
                    line,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"It costs us {cost.Value:#,0.00##} and brings in {line.Figures.Earned.Value:#,0.00##}."
                    )
                );
        }
    }

    private Finding Say(PricedLine line, string words) => new(Code, Outcome.Notice, words, line.Line.Key, "net");
}
