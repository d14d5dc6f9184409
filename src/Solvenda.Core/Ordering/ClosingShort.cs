using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Ordering;

/// <summary>
/// Closes lines of a confirmed order short (docs/calculations.md, Billing): what went, or is in somebody's hands, stays
/// as a line of its own at its price; the rest of it is another, and is closed.
/// </summary>
public static class ClosingShort
{
    /// <param name="keys">The lines that are closed.</param>
    /// <param name="begun">Of each line what went or is being picked, in its unit; a line that is missing waits as a
    /// whole.</param>
    /// <param name="reason">Why; not empty.</param>
    /// <returns>The order after it, and of each line that was divided the key of its rest.</returns>
    public static (Draft Draft, ImmutableDictionary<long, long> Rests) Of(
        Draft draft,
        IReadOnlySet<long> keys,
        IReadOnlyDictionary<long, decimal> begun,
        string reason
    )
    {
        ArgumentNullException.ThrowIfNull(draft);
        ArgumentNullException.ThrowIfNull(keys);
        ArgumentNullException.ThrowIfNull(begun);
        var (next, rests) = (draft.NextKey, ImmutableDictionary.CreateBuilder<long, long>());
        var lines = ImmutableArray.CreateBuilder<SheetLine>();
        foreach (var line in draft.Lines)
        {
            var stays = keys.Contains(line.Key) ? begun.GetValueOrDefault(line.Key) : line.Quantity;
            if (stays == 0m)
                lines.Add(line with { ClosedWhy = reason });
            else if (stays >= line.Quantity)
                lines.Add(line);
            else
            {
                rests[line.Key] = next;
                lines.Add(line with { Quantity = stays });
                // What is charged on the line goes with what went.
                lines.Add(
                    line with
                    {
                        Key = next++,
                        Quantity = line.Quantity - stays,
                        ClosedWhy = reason,
                        Charges = [],
                        OneOf = "",
                        Asked = AskedFor.Nothing,
                    }
                );
            }
        }
        return (draft with { Lines = lines.ToImmutable(), NextKey = next }, rests.ToImmutable());
    }

    /// <summary>
    /// The discount on the whole where it is an amount: what is closed, or taken out, takes its share of it along; what
    /// comes to it brings none. One in percent follows by itself.
    /// </summary>
    /// <param name="before">As it was priced before the closing.</param>
    /// <param name="after">As it is priced now, still with the whole discount.</param>
    public static Head Discount(Head head, PricedSheet before, PricedSheet after)
    {
        ArgumentNullException.ThrowIfNull(head);
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        var (was, now) = (Discountable(before), Discountable(after));
        if (HeadTerms.DiscountIn(head).Amount is not { } amount || was.IsZero || now >= was)
            return head;
        var currency = after.Sheet.Currency;
        var left = Amount.Round(amount * now.Minor / was.Minor, currency);
        var name = HeadTerms.SheetDiscount.Name;
        return head.With(
            name,
            left.IsZero ? null : string.Create(CultureInfo.InvariantCulture, $"{left.Value:0.######} {currency.Code}"),
            head[name]?.By
        );
    }

    private static Amount Discountable(PricedSheet sheet) =>
        Amount.Sum(
            sheet.Sold.Where(l => l.Counts && l.Terms.Discountable).Select(l => l.Figures.Net),
            sheet.Sheet.Currency
        );
}
