using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Units;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>Quantities that can be packed: whole packs, and no less than the least that is sold.</summary>
public sealed class Packing : ICheck
{
    /// <inheritdoc />
    public string Code => "packing";

    /// <inheritdoc />
    public string Does => "quantities are whole packs, and not too little";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold)
        {
            if (line.Item is not { } item || line.Line.Quantity <= 0 || item.Factor(line.Line.Unit) is not { } factor)
                continue;
            var units = line.Line.Quantity * factor;
            var right = Right(units, item.LeastQuantity, item.PackMultiple);
            if (right == units)
                continue;
            var unit = UnitTable.OnSheet(item.StockUnit);
            var words =
                item.LeastQuantity is { } least && units < least
                    ? string.Create(CultureInfo.InvariantCulture, $"The least that is sold is {least:0.######} {unit}.")
                    : string.Create(
                        CultureInfo.InvariantCulture,
                        $"It is packed by {item.PackMultiple:0.######} {unit}."
                    );
            var typed = (right / factor).ToString("0.######", CultureInfo.InvariantCulture);
            yield return new Finding(
                Code,
                facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice,
                words.Replace(" .", ".", StringComparison.Ordinal),
                line.Line.Key,
                "quantity",
                WaiveBy.Lead,
                typed
            )
            {
                Cures =
                [
                    new Cure(
                        "K",
                        string.Create(CultureInfo.InvariantCulture, $"make it {right:0.######} {unit}").TrimEnd(),
                        "set",
                        "quantity",
                        typed
                    ),
                ],
            };
        }
    }

    /// <summary>The next quantity that can be packed and sold.</summary>
    public static decimal Right(decimal units, decimal? least, decimal? multiple)
    {
        var enough = Math.Max(units, least ?? 0m);
        return multiple is { } m and > 0 ? Math.Ceiling(enough / m) * m : enough;
    }
}
