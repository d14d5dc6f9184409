using Solvenda.Core.Buyers;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>
/// Quantities that reach a break together: of all lines of a sheet that agreements of one break group cover.
/// </summary>
public static class BreakGroups
{
    /// <summary>The quantity in stock units by the break group; null where no agreement of the buyer has one.</summary>
    public static Func<string, decimal>? Of(PriceBook book, Buyer buyer, Sheet sheet)
    {
        if (!book.HasBreakGroups)
            return null;
        var sums = new Dictionary<string, decimal>();
        var counted = Choices.Counted(sheet.Lines);
        foreach (var line in sheet.Lines)
        {
            // What is offered as an option does not help the others to a better price.
            if (
                !counted.Contains(line.Key)
                || line.Item is not { } id
                || book.Find(id) is not { } item
                || item.Factor(line.Unit) is not { } factor
            )
                continue;
            foreach (
                var group in book.AgreementsFor(buyer, item)
                    .Where(a => a.BreakGroup is not null && a.HoldsOn(sheet.PricingDate))
                    .Select(a => a.BreakGroup!)
                    .Distinct()
            )
                sums[group] = sums.GetValueOrDefault(group) + (line.Quantity * factor);
        }
        return group => sums.GetValueOrDefault(group);
    }
}
