using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Ordering;

/// <summary>
/// What differs between the revision that a buyer accepted and the order that it became: what they accepted binds.
/// </summary>
public static class Differences
{
    private static readonly ImmutableArray<HeadTerm> Terms =
    [
        HeadTerms.PaymentDays,
        HeadTerms.Incoterm,
        HeadTerms.IncotermPlace,
        HeadTerms.DeliverTo,
    ];

    /// <summary>
    /// In words, line by line and term by term, upward in price as well; empty where nothing differs. An option that
    /// was taken differs as little as one that was left.
    /// </summary>
    public static ImmutableArray<string> Between(PricedSheet accepted, Head then, PricedSheet order, Head now)
    {
        ArgumentNullException.ThrowIfNull(accepted);
        ArgumentNullException.ThrowIfNull(order);
        var words = ImmutableArray.CreateBuilder<string>();
        var before = accepted.Sold.ToDictionary(l => l.Line.Key);
        foreach (var line in order.Sold)
        {
            if (!before.Remove(line.Line.Key, out var was))
                words.Add($"{Name(line)} was not on the quote");
            else if (Of(was, line) is { } difference)
                words.Add(difference);
        }
        words.AddRange(before.Values.Where(l => l.Counts).Select(l => $"{Name(l)} is gone"));
        foreach (var term in Terms)
        {
            var (a, b) = (term.In(then), term.In(now));
            if (a != b)
                words.Add($"{term.Label} {Said(term, b)}, accepted was {Said(term, a)}");
        }
        if (accepted.Tally.TotalWithoutTax.Currency == order.Tally.TotalWithoutTax.Currency)
        {
            var (charged, offered) = (order.Tally.Charges, accepted.Tally.Charges);
            if (charged != offered)
                words.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"charges {charged.Value:#,0.00##}, accepted were {offered.Value:#,0.00##}"
                    )
                );
        }
        return words.ToImmutable();
    }

    private static string? Of(PricedLine was, PricedLine now)
    {
        if (was.Item?.Id != now.Item?.Id)
            return $"{Name(now)} in place of {Name(was)}";
        if (was.Line.Unit != now.Line.Unit || was.Line.Quantity != now.Line.Quantity)
            return string.Create(
                CultureInfo.InvariantCulture,
                $"{Name(now)}: {Quantity(now)}, accepted were {Quantity(was)}"
            );
        return was.Figures.NetPrice != now.Figures.NetPrice || was.Terms.PriceBase != now.Terms.PriceBase
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{Name(now)}: {now.Figures.NetPrice:0.0000}, accepted was {was.Figures.NetPrice:0.0000}"
            )
            : null;
    }

    private static string Name(PricedLine line) => line.Item?.Code ?? line.Line.Words;

    private static string Quantity(PricedLine line) =>
        string.Create(
                CultureInfo.InvariantCulture,
                $"{line.Line.Quantity:#,0.######} {UnitTable.OnSheet(line.Line.Unit)}"
            )
            .Trim();

    private static string Said(HeadTerm term, string? text) => text is null ? "not said" : term.Say(text);
}
