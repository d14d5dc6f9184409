using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>The prices on the PO against ours, per the same unit and price base (docs/calculations.md, "Price on the PO").</summary>
public sealed class PriceAsOnPo : ICheck
{
    /// <summary>Within the larger of this percentage and <see cref="WithinAmount"/> the two are the same price.</summary>
    public const decimal WithinPercent = 0.5m;

    /// <summary>Currency units per price base.</summary>
    public const decimal WithinAmount = 0.01m;

    public string Code => "po-price";

    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        if (facts.Document != DocumentKind.Order)
            yield break;
        foreach (var line in facts.Sheet.Sold.Where(l => l.HasPrice))
        {
            if (Theirs(line) is not { } theirs)
                continue;
            var ours = line.Figures.NetPrice;
            if (Math.Abs(theirs - ours) <= Math.Max(ours * WithinPercent / 100m, WithinAmount))
                continue;
            var cause = LikelyCause(line, theirs, ours);
            var words = string.Create(
                CultureInfo.InvariantCulture,
                $"Their PO says {theirs:0.0000}, ours is {ours:0.0000}{cause}."
            );
            if (theirs > ours)
            {
                yield return new Finding(Code, Outcome.Notice, words, line.Line.Key, "net");
                continue;
            }
            var typed = theirs.ToString("0.####", CultureInfo.InvariantCulture);
            yield return new Finding(
                Code,
                Outcome.Stop,
                words,
                line.Line.Key,
                "net",
                WaiveBy.Lead,
                typed + "/" + ours.ToString("0.####", CultureInfo.InvariantCulture)
            )
            {
                Cures =
                [
                    new Cure("T", $"take theirs, {typed}", "set", "net", typed),
                    new Cure("O", "keep ours", "waive", "net", "We keep our price; the acknowledgement tells them."),
                ],
            };
        }
    }

    /// <summary>Their price carried to our unit and price base; null where they named none, or in a unit that does not compare.</summary>
    public static decimal? Theirs(PricedLine line)
    {
        if (line.Line.Asked is not { Price: { } price, PriceBase: > 0 } asked || line.Item is not { } item)
            return null;
        var theirUnit = asked.Unit ?? line.Line.Unit;
        return item.Factor(theirUnit) is { } from && item.Factor(line.Line.Unit) is { } to && from > 0
            ? UnitPrice.Round4(price / asked.PriceBase / from * to * line.Terms.PriceBase)
            : null;
    }

    private static string LikelyCause(PricedLine line, decimal theirs, decimal ours)
    {
        if (theirs <= 0 || ours <= 0)
            return "";
        var ratio = theirs > ours ? theirs / ours : ours / theirs;
        var factors = line.Item!.SalesUnits.Select(u => u.Factor).Concat([10m, 12m, 100m, 1000m]).Where(f => f > 1);
        var hit = factors.FirstOrDefault(f => Math.Abs(ratio - f) <= f * 0.02m);
        return hit > 0
            ? string.Create(
                CultureInfo.InvariantCulture,
                $": a factor of {hit:0.####}, so probably another unit or price base"
            )
            : "";
    }
}
