using System.Collections.Immutable;
using Solvenda.Core.Money;

namespace Solvenda.Core.Pricing;

/// <summary>A line as it was paid on a channel.</summary>
/// <param name="Gross">With tax, for all of it.</param>
/// <param name="Taxes">What it is taxed at; for a bundle each of its parts, with its weight.</param>
public sealed record PaidLine(Amount Gross, ImmutableArray<(Tax? Tax, long Weight)> Taxes);

/// <summary>What was paid, without its tax.</summary>
/// <param name="Lines">The nets of each line, by tax, in the order of its taxes.</param>
/// <param name="Shipping">What was paid for shipping, by the taxes of the goods; empty for nothing.</param>
/// <param name="Rounding">What the categories' bases and taxes miss of what was paid (BT-114 of EN 16931): at most one
/// minor unit for each category.</param>
public sealed record PaidNets(
    ImmutableArray<ImmutableArray<Amount>> Lines,
    ImmutableArray<(Tax? Tax, Amount Net)> Shipping,
    Amount Rounding
);

/// <summary>
/// Prices with tax, as they were paid on a channel: the total that was paid holds, and is taken apart by tax category
/// (docs/calculations.md, "Prices with tax").
/// </summary>
public static class PaidPrices
{
    /// <summary>
    /// By category: basis = round(gross / (1 + r)), tax = round(basis x r). The basis is spread over the category's
    /// lines and its share of the shipping by what each was paid at (largest remainder); shipping follows the goods. A
    /// tax that is not known counts as none: a check stops the sheet.
    /// </summary>
    /// <param name="shipping">With tax.</param>
    public static PaidNets Of(Currency currency, IReadOnlyList<PaidLine> lines, Amount shipping)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var entries = new List<(int Line, Tax? Tax, Amount Gross)>();
        for (var i = 0; i < lines.Count; i++)
            entries.AddRange(ByTax(lines[i]).Select(part => (i, part.Tax, part.Gross)));
        var taxes = entries.Select(e => e.Tax).Distinct().ToList();
        if (!shipping.IsZero)
        {
            if (taxes.Count == 0)
                taxes.Add(null);
            var shares = shipping.SplitOver([
                .. taxes.Select(t => entries.Where(e => e.Tax == t).Sum(e => e.Gross.Minor)),
            ]);
            entries.AddRange(taxes.Select((t, i) => (-1, t, shares[i])).Where(e => !e.Item3.IsZero));
        }
        var nets = new Amount[entries.Count];
        var rounding = Amount.Zero(currency);
        foreach (var tax in taxes)
            rounding += Category(currency, tax, entries, nets);
        var done = entries.Zip(nets, (e, net) => (e.Line, e.Tax, Net: net)).ToLookup(e => e.Line);
        return new PaidNets(
            [.. lines.Select((_, i) => done[i].Select(e => e.Net).ToImmutableArray())],
            [.. done[-1].Select(e => (e.Tax, e.Net))],
            rounding
        );
    }

    // The parts of a bundle were paid by their list value, each with its own tax on it.
    private static IEnumerable<(Tax? Tax, Amount Gross)> ByTax(PaidLine line)
    {
        if (line.Taxes.Length == 1)
            return [(line.Taxes[0].Tax, line.Gross)];
        const int Whole = 10_000;
        var shares = line.Gross.SplitOver([
            .. line.Taxes.Select(t => decimal.ToInt64(t.Weight * (100m + (t.Tax?.Percent ?? 0m)) / 100m * Whole)),
        ]);
        return line.Taxes.Select((t, i) => (t.Tax, shares[i]));
    }

    // Fills in the nets of one category; what its basis and tax miss of what was paid.
    private static Amount Category(
        Currency currency,
        Tax? tax,
        List<(int Line, Tax? Tax, Amount Gross)> entries,
        Amount[] nets
    )
    {
        var of = Enumerable.Range(0, entries.Count).Where(i => entries[i].Tax == tax).ToList();
        var gross = Amount.Zero(currency);
        foreach (var i in of)
            gross += entries[i].Gross;
        var rate = tax?.Percent ?? 0m;
        var basis = Amount.Round(gross.Value * 100m / (100m + rate), currency);
        var shares = basis.SplitOver([.. of.Select(i => entries[i].Gross.Minor)]);
        for (var at = 0; at < of.Count; at++)
            nets[of[at]] = shares[at];
        return gross - basis - Amount.Round(basis.Value * rate / 100m, currency);
    }
}
