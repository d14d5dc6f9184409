using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>A line before its arithmetic, as far as what was paid for it matters.</summary>
internal readonly record struct PayableLine(SheetLine Line, Item? Item, PriceBuild Build, LineTerms Terms);

/// <summary>
/// A sheet whose prices were paid on a channel: what was paid makes the prices, line by line and charge by charge, and
/// what the channel keeps is a cost of its lines.
/// </summary>
/// <param name="Charges">What was paid beside the goods, by the taxes of the goods.</param>
internal sealed record PaidSheet(
    ImmutableArray<(PriceBuild Build, LineTerms Terms)> Lines,
    ImmutableArray<SheetCharge> Charges,
    Amount Rounding
)
{
    public static PaidSheet Of(Sheet sheet, PaidOnChannel paid, IReadOnlyList<PayableLine> lines)
    {
        var payable = lines
            .Select((l, at) => (Line: l, At: at, Price: PriceOf(l.Line, l.Item)))
            .Where(l => l.Price is not null && l.Line.Terms.Counts)
            .ToList();
        var gross = payable.ConvertAll(l => Amount.Round(l.Line.Terms.Quantity * l.Price!.Value, sheet.Currency));
        var nets = PaidPrices.Of(
            sheet.Currency,
            [.. payable.Zip(gross, (l, g) => new PaidLine(g, TaxesOf(l.Line.Terms)))],
            Amount.Round(paid.Shipping, sheet.Currency)
        );
        var fees = Amount.Round(paid.Fee, sheet.Currency).SplitOver([.. gross.Select(g => g.Minor)]);
        var done = lines.Select(l => (l.Build, l.Terms)).ToArray();
        for (var i = 0; i < payable.Count; i++)
            done[payable[i].At] = Paid(payable[i].Line, payable[i].Price!.Value, nets.Lines[i], fees[i], sheet);
        return new PaidSheet(
            [.. done],
            [
                .. nets.Shipping.Select(s => new SheetCharge(SheetCharges.FreightKind, s.Net.Value, s.Tax)
                {
                    Words = "shipping, as paid",
                }),
            ],
            nets.Rounding
        );
    }

    /// <summary>
    /// What was paid for one of the line's unit, with tax; null where nothing was, or by a unit that does not compare.
    /// </summary>
    public static decimal? PriceOf(SheetLine line, Item? item)
    {
        if (item is null || line.Asked is not { WithTax: true, Price: { } price, PriceBase: > 0 } asked)
            return null;
        return item.Factor(asked.Unit ?? line.Unit) is > 0 and { } from && item.Factor(line.Unit) is { } to
            ? price / asked.PriceBase / from * to
            : null;
    }

    private static ImmutableArray<(Tax? Tax, long Weight)> TaxesOf(LineTerms terms) =>
        terms.TaxShares.IsEmpty ? [(terms.Tax, 1L)] : terms.TaxShares;

    private static (PriceBuild, LineTerms) Paid(
        PayableLine line,
        decimal price,
        ImmutableArray<Amount> nets,
        Amount fee,
        Sheet sheet
    )
    {
        var net = nets.Aggregate(Amount.Zero(sheet.Currency), (sum, n) => sum + n);
        var terms = line.Terms;
        var unit = terms.Quantity == 0 ? 0m : UnitPrice.Round4(net.Value * terms.PriceBase / terms.Quantity);
        var words = FormattableString.Invariant(
            $"paid on {sheet.Channel ?? "the channel"}, {Amount.Round(price * terms.PriceBase, sheet.Currency).Value:0.00##} with tax"
        );
        return (
            line.Build with
            {
                Steps = line.Build.Steps.Add(new PriceStep(StepKind.Paid, null, words, null, null, unit)),
                Base = UnitPrice.Round(unit, sheet.Currency),
                Gap = PriceGap.None,
            },
            terms with
            {
                Base = unit,
                PaidNet = net,
                Fee = fee.Value,
                TaxShares = terms.TaxShares.IsEmpty
                    ? []
                    : [.. terms.TaxShares.Select((s, i) => (s.Tax, nets[i].Minor))],
            }
        );
    }
}
