using System.Collections.Immutable;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>What of a line is billed under one tax: a bundle of mixed tax is one line of a bill per tax.</summary>
public sealed record BillablePart(PricedLine Line, Tax Tax, Amount Net);

/// <summary>What a priced sheet may be billed for (docs/calculations.md, Billing).</summary>
/// <param name="Parts">One for each line of what is billed, in its order.</param>
/// <param name="Charges">One for each of its charges, in their order.</param>
public sealed record BillableSheet(
    ImmutableArray<BillablePart> Parts,
    ImmutableArray<SheetCharge> Charges,
    Billable Billable
)
{
    /// <summary>Of a sheet whose prices hold; null where the tax of something on it is not known.</summary>
    public static BillableSheet? Of(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var parts = sheet.Sold.Where(l => l.Counts && l.Terms.Quantity > 0m).SelectMany(PartsOf).ToList();
        if (parts.Exists(p => p.Tax is null) || sheet.Charges.Any(c => c.Tax is null))
            return null;
        var currency = sheet.Sheet.Currency;
        ImmutableArray<BillablePart> known = [.. parts.Select(p => new BillablePart(p.Line, p.Tax!.Value, p.Net))];
        return new BillableSheet(
            known,
            sheet.Charges,
            Billable.Of(
                currency,
                [
                    .. known.Select(p => new BillLine(p.Line.Terms.Quantity, p.Net, p.Tax, p.Line.Terms.Discountable)
                    {
                        Key = p.Line.Line.Key,
                    }),
                ],
                sheet.Tally.SheetDiscount,
                [
                    .. sheet.Charges.Select(c => new BillableCharge(
                        c.Words,
                        Amount.Round(c.Amount, currency),
                        c.Tax!.Value
                    )),
                ]
            )
        );
    }

    /// <summary>
    /// A bill of it with a line for each of its parts now: lines may have been closed short since it was made. Where
    /// the bill does not name its lines, they stand as they did.
    /// </summary>
    public Bill Aligned(Bill bill)
    {
        ArgumentNullException.ThrowIfNull(bill);
        if (bill.Lines.All(l => l.Key == 0))
            return bill;
        var had = bill.Lines.ToLookup(l => l.Key);
        var seen = new Dictionary<long, int>();
        var lines = ImmutableArray.CreateBuilder<BillLine>(Billable.Lines.Length);
        foreach (var line in Billable.Lines)
        {
            var nth = seen[line.Key] = seen.GetValueOrDefault(line.Key) + 1;
            lines.Add(
                had[line.Key].ElementAtOrDefault(nth - 1)
                    ?? line with
                    {
                        Quantity = 0m,
                        Net = Amount.Zero(bill.Currency),
                    }
            );
        }
        return bill with { Lines = lines.MoveToImmutable() };
    }

    // As the tally spreads them: the price of a bundle over its parts, those of one tax together.
    private static IEnumerable<(PricedLine Line, Tax? Tax, Amount Net)> PartsOf(PricedLine line)
    {
        var net = line.Figures.Net;
        if (line.Terms.TaxShares.IsEmpty)
            return [(line, line.Terms.Tax, net)];
        var nets = net.SplitOver([.. line.Terms.TaxShares.Select(s => s.Weight)]);
        return line
            .Terms.TaxShares.Zip(nets, (share, part) => (share.Tax, Net: part))
            .GroupBy(p => p.Tax)
            .Select(g => (line, g.Key, Amount.Sum(g.Select(p => p.Net), net.Currency)));
    }
}
