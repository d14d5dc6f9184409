using System.Globalization;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>A price typed over what is agreed with the buyer: they will notice.</summary>
public sealed class OverAgreement : ICheck
{
    /// <inheritdoc />
    public string Code => "over-agreement";

    /// <inheritdoc />
    public string Does => "no price is typed over what is agreed";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return facts.Sheet.Sold.Where(l => l.OverAgreed is not null).Select(Over);
    }

    private Finding Over(PricedLine line)
    {
        var agreed = line.OverAgreed!.Value.ToString("0.0000", CultureInfo.InvariantCulture);
        return new Finding(
            Code,
            Outcome.Notice,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{line.Figures.NetPrice:0.0000} is over the {agreed} that is agreed."
            ),
            line.Line.Key,
            "net"
        )
        {
            Cures = [new Cure("R", $"as agreed, {agreed}", "set", "net", "")],
        };
    }
}
