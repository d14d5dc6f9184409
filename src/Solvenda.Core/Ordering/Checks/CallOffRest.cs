using System.Globalization;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// No more is called off of a frame than it has; and a frame that is changed keeps what was called off of it.
/// </summary>
public sealed class CallOffRest : ICheck
{
    /// <inheritdoc />
    public string Code => "call-off";

    /// <inheritdoc />
    public string Does => "no more is called off than was agreed";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order || facts.CallOff is not { } of)
            yield break;
        var isFrame = facts.Sheet.Sheet.Kind.IsFrame;
        foreach (var line in facts.Sheet.Sold)
        {
            var quantity = line.Line.Quantity;
            if (isFrame && of.Called.GetValueOrDefault(line.Line.Key) is var called && called > quantity)
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    string.Create(CultureInfo.InvariantCulture, $"{called:#,0.######} were called off of it already."),
                    line.Line.Key,
                    "quantity"
                );
            else if (!isFrame && of.RestOf(line.Line) is { } rest && quantity > rest)
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    string.Create(CultureInfo.InvariantCulture, $"Of {of.Frame} {rest:#,0.######} are left."),
                    line.Line.Key,
                    "quantity",
                    WaiveBy.Lead,
                    string.Create(CultureInfo.InvariantCulture, $"over/{quantity}/{rest}")
                )
                {
                    Cures =
                        rest > 0
                            ?
                            [
                                new Cure(
                                    "R",
                                    "take the rest",
                                    "set",
                                    "quantity",
                                    rest.ToString(CultureInfo.InvariantCulture)
                                ),
                            ]
                            : [],
                };
        }
    }
}
