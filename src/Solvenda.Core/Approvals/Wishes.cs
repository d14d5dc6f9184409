using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>What a discount on the whole has to be for a sheet to come to a wished total.</summary>
public static class Wishes
{
    /// <summary>
    /// The least amount off, in the sheet's currency, with which the total with tax is at most what is wished; null
    /// where no discount on the whole leads there: it is less already, or charges alone are more.
    /// </summary>
    /// <remarks>
    /// Taxes and charges follow the goods, so the total falls as the discount rises: the amount is found by halving, in
    /// minor units, and the sheet is priced as a whole at each step.
    /// </remarks>
    public static Amount? DiscountFor(PricedSheet sheet, decimal total)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var currency = sheet.Sheet.Currency;
        long Total(long off) =>
            sheet.Under(new SheetDiscount(null, Amount.FromMinor(off, currency).Value)).Tally.TotalWithTax.Minor;
        var wished = Amount.Round(total, currency).Minor;
        var most = sheet.Sold.Where(l => l is { Counts: true, Terms.Discountable: true }).Sum(l => l.Figures.Net.Minor);
        if (most <= 0 || Total(0) <= wished || Total(most) > wished)
            return null;
        var (low, high) = (0L, most);
        while (high - low > 1)
        {
            var middle = low + ((high - low) / 2);
            if (Total(middle) > wished)
                low = middle;
            else
                high = middle;
        }
        return Amount.FromMinor(high, currency);
    }
}
