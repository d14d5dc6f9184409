using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Pricing;

/// <summary>One line's question to the price book.</summary>
/// <param name="Channel">The channel that it is sold by, for campaigns; null where there is none.</param>
public sealed record PriceQuestion(
    Item Item,
    decimal Quantity,
    Unit Unit,
    Buyer Buyer,
    Currency Currency,
    DateOnly Date,
    string? Channel = null
);

/// <summary>Answers what a buyer pays before anything is typed by hand, with every step.</summary>
public static class BasePrice
{
    /// <param name="together">The quantity in stock units that the lines of a break group have together on the sheet;
    /// null: the line stands alone.</param>
    public static PriceBuild Find(
        PriceBook book,
        Rates rates,
        PriceQuestion question,
        Func<string, decimal>? together = null
    )
    {
        var (item, quantity, unit, buyer, currency, date, channel) = question;
        if (item.Factor(unit) is not { } factor)
            return PriceBuild.Missing(PriceGap.NoUnit);
        var (start, priceBase, gap) = List(book, rates, question, factor);
        if (start is null)
            return PriceBuild.Missing(gap);

        // Money in a rule is per stock unit, in the rule's currency (home where it names none).
        decimal? ToLine(decimal value, Currency? of) =>
            rates.Convert(value * factor * priceBase, of ?? book.Home, currency);
        return PriceRules.Build(
            start,
            currency,
            priceBase,
            book.AgreementsFor(buyer, item),
            book.CampaignsFor(buyer, item, channel),
            quantity * factor,
            date,
            ToLine,
            together
        );
    }

    /// <summary>The rules that were looked at and did not make the price, each with the reason.</summary>
    public static IReadOnlyList<LostRule> Lost(
        PriceBook book,
        Rates rates,
        PriceQuestion question,
        Func<string, decimal>? together = null
    )
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(question);
        var build = Find(book, rates, question, together);
        if (build.Base is null || question.Item.Factor(question.Unit) is not { } factor)
            return [];
        return
        [
            .. PriceRules.Lost(
                build.Steps[0],
                build,
                book.AgreementsFor(question.Buyer, question.Item),
                book.CampaignsFor(question.Buyer, question.Item, question.Channel),
                question.Quantity * factor,
                question.Date,
                (value, of) => rates.Convert(value * factor * build.PriceBase, of ?? book.Home, question.Currency),
                together
            ),
        ];
    }

    /// <summary>
    /// Cost per price base of the line's unit in the sheet's currency, four decimals; null where cost or rate is
    /// unknown.
    /// </summary>
    public static decimal? Cost(PriceBook book, Rates rates, PriceQuestion question, decimal priceBase) =>
        book.CostOf(question.Item.Id, question.Date) is { } cost
        && question.Item.Factor(question.Unit) is { } factor
        && rates.Convert(cost * factor * priceBase, book.Home, question.Currency) is { } value
            ? UnitPrice.Round4(value)
            : null;

    /// <summary>
    /// The greatest of the item's floor price and C / (1 - least margin of the family), per price base of the line's
    /// unit; null where neither is known.
    /// </summary>
    public static decimal? Floor(PriceBook book, Rates rates, PriceQuestion question, decimal priceBase, decimal? cost)
    {
        var fixedFloor =
            question.Item.FloorPrice is { } floor && question.Item.Factor(question.Unit) is { } factor
                ? rates.Convert(floor * factor * priceBase, book.Home, question.Currency)
                : null;
        return Floor(fixedFloor, cost, book.FamilyOf(question.Item)) is { } g ? UnitPrice.Round4(g) : null;
    }

    /// <summary>The greatest of a floor price and C / (1 - least margin), of one currency and unit, not
    /// rounded.</summary>
    internal static decimal? Floor(decimal? fixedFloor, decimal? cost, Family? family)
    {
        var fromMargin =
            cost is { } c && family is not null ? c / (1 - (family.LeastMarginPercent / 100m)) : (decimal?)null;
        return (fixedFloor, fromMargin) switch
        {
            (null, var m) => m,
            (var f, null) => f,
            var (f, m) => Math.Max(f.Value, m.Value),
        };
    }

    private static (PriceStep? Step, decimal PriceBase, PriceGap Gap) List(
        PriceBook book,
        Rates rates,
        PriceQuestion q,
        decimal factor
    )
    {
        var gap = PriceGap.NoListPrice;
        // The buyer's own list, else its group's, else the house list: the first that has a price.
        for (var rung = 0; rung < 3; rung++)
        {
            var list = rung switch
            {
                0 => q.Buyer.PriceList,
                1 => book.GroupList(q.Buyer.Group),
                _ => book.HouseList,
            };
            if (list is null || Best(book.PricesOf(list, q.Item.Id), q) is not { } best)
                continue;
            var times = best.Unit == q.Unit ? 1m : factor;
            if (rates.Convert(best.Price.Value * times, best.Price.Currency, q.Currency) is { } price)
                return (
                    new PriceStep(
                        StepKind.List,
                        list,
                        Words(list, best, q, rates),
                        best.From,
                        best.To,
                        UnitPrice.Round4(price)
                    ),
                    best.PriceBase,
                    PriceGap.None
                );
            gap = PriceGap.NoRate;
        }
        return (null, 1m, gap);
    }

    // Of the prices that hold on the day: one in the sheet's currency before others, one in the line's unit before the
    // stock unit's, a later one before an earlier.
    private static ListPrice? Best(ReadOnlySpan<ListPrice> prices, PriceQuestion q)
    {
        ListPrice? best = null;
        var bestRank = -1;
        foreach (var p in prices)
        {
            if (p.From > q.Date || (p.To is { } to && q.Date > to) || (p.Unit != q.Unit && p.Unit != q.Item.StockUnit))
                continue;
            var rank = (p.Price.Currency == q.Currency ? 2 : 0) + (p.Unit == q.Unit ? 1 : 0);
            if (rank > bestRank || (rank == bestRank && p.From > best!.From))
                (best, bestRank) = (p, rank);
        }
        return best;
    }

    private static string Words(string list, ListPrice price, PriceQuestion q, Rates rates) =>
        price.Price.Currency == q.Currency
            ? $"list, {list} {q.Currency.Code}"
            : FormattableString.Invariant(
                $"list, {list} {price.Price.Currency.Code} at {rates.Convert(1m, price.Price.Currency, q.Currency):0.######}"
            );
}
