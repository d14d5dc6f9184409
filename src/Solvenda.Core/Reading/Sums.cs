using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;

namespace Solvenda.Core.Reading;

/// <summary>
/// Uses what a document adds up to as evidence: price times quantity is the amount of the line, the amounts are the
/// total. A contradiction lowers how sure the numbers are, and says which.
/// </summary>
public static class Sums
{
    // Rounding of a price per unit shows in the amount of a long line: half a cent on each of many, and a cent for the
    // rest.
    internal static bool Fits(decimal stated, decimal worked, decimal quantity, decimal priceBase) =>
        Math.Abs(stated - worked) <= 0.011m + (Math.Abs(quantity) / Math.Max(1m, priceBase) * 0.00005m);

    /// <summary>
    /// Compares lines with their own sums and with the total that is stated. A total that the lines do not make is left
    /// over until a person has seen it.
    /// </summary>
    public static ImmutableArray<ReadLine> Check(
        ImmutableArray<ReadLine> lines,
        OrderDocument document,
        Currency? currency,
        ImmutableArray<string>.Builder warnings,
        ImmutableArray<LeftOver>.Builder overs
    )
    {
        ArgumentNullException.ThrowIfNull(document);
        ArgumentNullException.ThrowIfNull(warnings);
        ArgumentNullException.ThrowIfNull(overs);
        var checkedLines = lines.ToBuilder();
        for (var i = 0; i < lines.Length; i++)
        {
            var (line, stated) = (lines[i], document.Lines[i]);
            if (stated is not { Amount: { } amount, Price: { } price, Quantity: { } quantity })
                continue;
            var worked = (quantity.Value * price.Value / stated.PriceBase) + stated.Allowances;
            if (
                Fits(amount.Value, worked, quantity.Value, stated.PriceBase)
                || Fits(amount.Value, worked - stated.Allowances, quantity.Value, stated.PriceBase)
            )
                continue;
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Line {(stated.Number.Length > 0 ? stated.Number : (i + 1).ToString(CultureInfo.InvariantCulture))}: {quantity.Value:0.######} at {price.Value:0.00##}{(stated.PriceBase == 1m ? "" : $" per {stated.PriceBase:0.##}")} makes {worked:0.00}; {amount.Value:0.00} is stated."
                )
            );
            checkedLines[i] = line with
            {
                Quantity = line.Quantity with { Sure = 0.4m, How = "quantity, price and amount contradict each other" },
            };
        }
        if (
            document.Goods is { } total
            && document.Lines.All(l => l.Amount is not null || (l.Price is not null && l.Quantity is not null))
            && document.Lines.Length <= lines.Length
        )
        {
            var sum = document.Lines.Sum(l =>
                l.Amount?.Value
                ?? Math.Round(
                    (l.Quantity!.Value * l.Price!.Value / l.PriceBase) + l.Allowances,
                    currency?.Decimals ?? 2,
                    MidpointRounding.AwayFromZero
                )
            );
            var withCharges = sum + document.Charges.Sum(c => c.Amount);
            if (
                Math.Abs(total.Value - sum) > 0.011m * document.Lines.Length
                && Math.Abs(total.Value - withCharges) > 0.011m * document.Lines.Length
            )
                overs.Add(Disagreeing(total, sum));
        }
        return checkedLines.ToImmutable();
    }

    /// <summary>A total of money that the lines do not make.</summary>
    public static LeftOver Disagreeing(Stated<decimal> total, decimal sum, string what = "these lines")
    {
        ArgumentNullException.ThrowIfNull(total);
        return new LeftOver(
            string.Create(CultureInfo.InvariantCulture, $"{total.Value:#,0.00}"),
            total.Where,
            string.Create(CultureInfo.InvariantCulture, $"They count {total.Value:#,0.00}; {what} make {sum:#,0.00}.")
        );
    }
}
