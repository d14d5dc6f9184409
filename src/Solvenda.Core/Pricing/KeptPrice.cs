using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Pricing;

/// <summary>What a price, an agreement or a campaign sells at, before any sheet uses it, against the floor.</summary>
public static class KeptPrice
{
    /// <summary>
    /// How far under its floor a rule sells the worst of the items, in percent of the floor; 0 where it sells none
    /// under it. Items without a list price, a cost and a floor price say nothing.
    /// </summary>
    /// <param name="items">That the rule is for.</param>
    /// <param name="value">A price per stock unit, a percentage off list or an amount off list.</param>
    /// <param name="currency">Of the value, where it is money.</param>
    public static decimal UnderFloor(
        PriceBook book,
        IEnumerable<Item> items,
        RuleKind kind,
        decimal value,
        Currency currency,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(items);
        var rates = Rates.On(day, book.Home, book.DatedRates);
        var worst = 0m;
        foreach (var item in items)
        {
            if (
                Net(book, rates, item, kind, value, currency, day) is { } net
                && BasePrice.Floor(item.FloorPrice, book.CostOf(item.Id, day), book.FamilyOf(item)) is > 0 and { } floor
            )
                worst = Math.Max(worst, (floor - net) * 100m / floor);
        }
        return decimal.Round(worst, 2, MidpointRounding.AwayFromZero);
    }

    // In home currency per stock unit.
    private static decimal? Net(
        PriceBook book,
        Rates rates,
        Item item,
        RuleKind kind,
        decimal value,
        Currency currency,
        DateOnly day
    )
    {
        if (kind == RuleKind.Fixed)
            return rates.Convert(value, currency, book.Home);
        if (book.ListPriceOn(item, day) is not { } list)
            return null;
        return kind == RuleKind.PercentOff ? list * (1 - (value / 100m))
            : rates.Convert(value, currency, book.Home) is { } off ? list - off
            : null;
    }
}
