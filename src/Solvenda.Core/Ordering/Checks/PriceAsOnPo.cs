using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The prices on the PO against ours, per the same unit and price base (docs/calculations.md, "Price on the PO").
/// </summary>
public sealed class PriceAsOnPo : ICheck
{
    /// <summary>
    /// Within this percentage the two are the same price; or where the line differs by no more than
    /// <see cref="WithinLine"/>.
    /// </summary>
    public const decimal WithinPercent = 0.5m;

    /// <summary>Currency units of the whole line.</summary>
    public const decimal WithinLine = 0.05m;

    /// <summary>All such small differences of an order together, in currency units.</summary>
    public const decimal WithinOrder = 5.00m;

    private const decimal Most = 1_000m;

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers =>
        [
            new("percent", "percent of a price that is no difference", WithinPercent, 0m, 20m),
            new("line", "of a line that is no difference, in its currency", WithinLine, 0m, Most),
            new("order", "of all small differences together", WithinOrder, 0m, Most),
        ];

    /// <inheritdoc />
    public string Code => "po-price";

    /// <inheritdoc />
    public string Does => "prices are those on the buyer’s PO";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            return [];
        var priced = facts.Sheet.Sold.Where(l => l.HasPrice).ToList();
        var compared = priced
            .Select(l => (Line: l, Theirs: Theirs(l)))
            .Where(p => p.Theirs is not null)
            .Select(p => (p.Line, Theirs: p.Theirs!.Value, Apart: Apart(p.Line, p.Theirs.Value)))
            .ToList();
        var (percent, ofLine) = (facts.Number(this, "percent"), facts.Number(this, "line"));
        bool IsSmall(PricedLine line, decimal theirs, decimal apart) =>
            Math.Abs(theirs - line.Figures.NetPrice) <= line.Figures.NetPrice * percent / 100m
            || Math.Abs(apart) <= ofLine;
        var small = compared.Where(p => IsSmall(p.Line, p.Theirs, p.Apart)).ToList();
        var tooMany = small.Sum(p => Math.Abs(p.Apart)) > facts.Number(this, "order");
        var large = compared.Where(p => p.Apart != 0 && (tooMany || !IsSmall(p.Line, p.Theirs, p.Apart)));
        return large
            .Select(p => Differs(p.Line, p.Theirs))
            .Concat(tooMany ? [] : Confirmed(small.Where(p => p.Apart != 0).Sum(p => p.Apart)))
            .Concat(Missing(priced, compared.Count));
    }

    // Currency units of the line by which ours is over theirs.
    private static decimal Apart(PricedLine line, decimal theirs) =>
        line.Terms.PriceBase == 0
            ? 0m
            : UnitPrice.Round4(line.Line.Quantity * (line.Figures.NetPrice - theirs) / line.Terms.PriceBase);

    private IEnumerable<Finding> Confirmed(decimal apart)
    {
        if (apart != 0)
            yield return new Finding(
                Code,
                Outcome.Notice,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Small differences to the prices on their PO, {Math.Abs(apart):0.00##} in all: ours are confirmed, and they are told."
                )
            );
    }

    // Only where they name some prices is one that is missing worth a word.
    private IEnumerable<Finding> Missing(List<PricedLine> priced, int compared) =>
        compared == 0
            ? []
            : priced
                .Where(l => l.Line.Asked is { Quantity: not null, Price: null })
                .Select(l => new Finding(Code, Outcome.Notice, "Their PO names no price here.", l.Line.Key, "net"));

    private Finding Differs(PricedLine line, decimal theirs)
    {
        var ours = line.Figures.NetPrice;
        var words = string.Create(
            CultureInfo.InvariantCulture,
            $"Their PO says {theirs:0.0000}, ours is {ours:0.0000}{LikelyCause(line, theirs, ours)}."
        );
        if (theirs > ours)
            return new Finding(Code, Outcome.Notice, words, line.Line.Key, "net");
        var typed = theirs.ToString("0.####", CultureInfo.InvariantCulture);
        return new Finding(
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

    /// <summary>
    /// Their price carried to our unit and price base; null where they named none, or in a unit that does not compare.
    /// </summary>
    public static decimal? Theirs(PricedLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        if (
            line.Line.Asked is not { Price: { } price, PriceBase: > 0, WithTax: false } asked
            || line.Item is not { } item
        )
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
