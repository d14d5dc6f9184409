using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What goes with the goods: the certificate that a buyer wants, and serial numbers that are written down.
/// </summary>
public sealed class PapersThere : ICheck
{
    /// <inheritdoc />
    public string Code => "papers";

    /// <inheritdoc />
    public string Does => "certificates that they want come with the goods";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            yield break;
        foreach (var line in facts.Sheet.Sold)
        {
            if (line is not { Counts: true, Item: { Stocked: true } item })
                continue;
            if (facts.Buyer.WantsCertificates && item.Certificate.Length == 0)
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    $"{facts.Buyer.Name} takes goods only with a certificate, and none comes with {item.Code}.",
                    line.Line.Key,
                    "item",
                    WaiveBy.Lead,
                    item.Code
                );
            else if (facts.Buyer.WantsCertificates)
                yield return new Finding(
                    Code,
                    Outcome.Notice,
                    $"{item.Code} goes with its certificate {item.Certificate}.",
                    line.Line.Key,
                    "item"
                );
            if (item.HasSerials)
                yield return new Finding(
                    Code,
                    Outcome.Notice,
                    $"Each {item.Code} is known by its serial number; they are written down when it is packed.",
                    line.Line.Key,
                    "item"
                );
        }
    }
}
