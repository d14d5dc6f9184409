using System.Collections.Immutable;
using Solvenda.Core.Money;

namespace Solvenda.Core.Pricing;

/// <summary>The kinds of step from list to net.</summary>
public enum StepKind
{
    /// <summary>The list price.</summary>
    List,

    /// <summary>What was agreed with the buyer or their group.</summary>
    Agreement,

    /// <summary>A campaign.</summary>
    Campaign,

    /// <summary>A discount by hand.</summary>
    Discount,

    /// <summary>A net price by hand.</summary>
    NetPrice,

    /// <summary>A margin by hand.</summary>
    Margin,

    /// <summary>What was paid on a channel already.</summary>
    Paid,
}

/// <summary>One step of a price build: the rule, its validity, and the unit price after it.</summary>
public sealed record PriceStep(StepKind Kind, string? Rule, string Words, DateOnly? From, DateOnly? To, decimal Price);

/// <summary>Why there is no price.</summary>
public enum PriceGap
{
    /// <summary>Nothing is missing.</summary>
    None,

    /// <summary>The item is on no list that holds.</summary>
    NoListPrice,

    /// <summary>No exchange rate leads to the sheet's currency.</summary>
    NoRate,

    /// <summary>The item is not sold by that unit.</summary>
    NoUnit,
}

/// <summary>
/// The ordered steps from list price to base price, in the sheet's currency, per price base quantity.
/// </summary>
public sealed record PriceBuild(
    ImmutableArray<PriceStep> Steps,
    UnitPrice? List,
    UnitPrice? Base,
    decimal PriceBase,
    PriceGap Gap
)
{
    /// <summary>No price, and why.</summary>
    public static PriceBuild Missing(PriceGap gap) => new([], null, null, 1m, gap);
}

/// <summary>A rule that was looked at and did not make the price.</summary>
/// <param name="Price">What it would have come to; null where it says none here.</param>
/// <param name="Why">Why it did not.</param>
public sealed record LostRule(StepKind Kind, string Rule, string Words, decimal? Price, string Why);

/// <summary>
/// Works out the base price of one line from its list price, agreements and campaigns (docs/calculations.md, "Price
/// build").
/// </summary>
public static class PriceRules
{
    /// <summary>
    /// All rules given already match buyer, item and channel; here dates, ranks, quantities and combining are judged.
    /// </summary>
    /// <param name="list">List price in the sheet's currency, per price base of the line's unit.</param>
    /// <param name="quantity">In the rules' unit (the stock unit), for the quantity breaks.</param>
    /// <param name="toLine">Carries a rule's money value (fixed price, amount off) to the sheet's currency and the
    /// line's unit and price base; null where a rate is missing.</param>
    /// <param name="together">The quantity that all lines of a break group have together on the sheet; null: each line
    /// counts alone.</param>
    public static PriceBuild Build(
        PriceStep list,
        Currency currency,
        decimal priceBase,
        IEnumerable<Agreement> agreements,
        IEnumerable<Campaign> campaigns,
        decimal quantity,
        DateOnly date,
        Func<decimal, Currency?, decimal?> toLine,
        Func<string, decimal>? together = null
    )
    {
        var (agreement, agreed) = Choose(list.Price, agreements, quantity, date, toLine, together);
        var combines = agreement is { Combines: true };
        var (campaign, reduced) = Cheapest(campaigns, combines ? agreed : list.Price, date, toLine);
        var campaignWins = campaign is not null && reduced < (agreement is null ? list.Price : agreed);

        // An agreement that does not combine is a step only where no campaign beats it.
        var agreedStep = agreement is not null && (combines || !campaignWins) ? Step(agreement, agreed) : null;
        var campaignStep = campaignWins
            ? new PriceStep(StepKind.Campaign, campaign!.Id, campaign.Words, campaign.From, campaign.To, reduced)
            : null;
        ImmutableArray<PriceStep> steps = (agreedStep, campaignStep) switch
        {
            (null, null) => [list],
            ({ } one, null) => [list, one],
            (null, { } one) => [list, one],
            ({ } first, { } second) => [list, first, second],
        };
        return new PriceBuild(
            steps,
            UnitPrice.Round(list.Price, currency),
            UnitPrice.Round(steps[^1].Price, currency),
            priceBase,
            PriceGap.None
        );
    }

    /// <summary>
    /// The rules that were looked at and did not make the price, each with the reason; also those whose quantity is not
    /// reached yet, and those that begin or ended within <see cref="Near"/> days.
    /// </summary>
    public static IEnumerable<LostRule> Lost(
        PriceStep list,
        PriceBuild build,
        IEnumerable<Agreement> agreements,
        IEnumerable<Campaign> campaigns,
        decimal quantity,
        DateOnly date,
        Func<decimal, Currency?, decimal?> toLine,
        Func<string, decimal>? together = null
    )
    {
        ArgumentNullException.ThrowIfNull(list);
        ArgumentNullException.ThrowIfNull(build);
        var won = build.Steps.Where(s => s.Rule is not null).Select(s => (s.Kind, s.Rule)).ToHashSet();
        var (best, agreed) = Choose(list.Price, agreements, quantity, date, toLine, together);
        foreach (
            var a in agreements.Where(a => !won.Contains((StepKind.Agreement, a.Id)) && IsNear(a.From, a.To, date))
        )
        {
            var counted = a.BreakGroup is { } group && together is not null ? together(group) : quantity;
            var reached = a.BreakAt(counted);
            var price = reached is null ? null : Apply(a.Kind, reached.Value, a.Currency, list.Price, toLine);
            var why =
                WhyNotNow(a.From, a.To, date)
                ?? (
                    reached is null ? FormattableString.Invariant($"from {a.Breaks.Min(b => b.From):0.######}")
                    : price is null ? "no exchange rate for it"
                    : a == best ? "the campaign is lower"
                    : a.Rank != best!.Rank ? $"“{best.Words}” is narrower"
                    : a.From != best.From ? $"“{best.Words}” is later"
                    : $"“{best.Words}” is lower"
                );
            yield return new LostRule(StepKind.Agreement, a.Id, a.Words, price, why);
        }
        var start = best is { Combines: true } ? agreed : list.Price;
        foreach (var c in campaigns.Where(c => !won.Contains((StepKind.Campaign, c.Id)) && IsNear(c.From, c.To, date)))
        {
            var price = Apply(c.Kind, c.Value, c.Currency, start, toLine);
            var why =
                WhyNotNow(c.From, c.To, date)
                ?? (
                    price is null ? "no exchange rate for it"
                    : build.Steps[^1].Kind == StepKind.Campaign ? $"“{build.Steps[^1].Words}” is lower"
                    : build.Steps[^1].Kind == StepKind.Agreement ? "what is agreed is lower"
                    : "the list is lower"
                );
            yield return new LostRule(StepKind.Campaign, c.Id, c.Words, price, why);
        }
    }

    /// <summary>Days before and after a rule in which it is worth knowing of.</summary>
    public const int Near = 60;

    private static bool IsNear(DateOnly from, DateOnly? to, DateOnly date) =>
        from <= date.AddDays(Near) && (to is null || to >= date.AddDays(-Near));

    private static string? WhyNotNow(DateOnly from, DateOnly? to, DateOnly date) =>
        from > date ? FormattableString.Invariant($"from {from:d MMM yyyy}")
        : to < date ? FormattableString.Invariant($"ended {to:d MMM yyyy}")
        : null;

    // Of several campaigns the lowest price wins; they do not stack.
    private static (Campaign? Campaign, decimal Price) Cheapest(
        IEnumerable<Campaign> campaigns,
        decimal start,
        DateOnly date,
        Func<decimal, Currency?, decimal?> toLine
    )
    {
        Campaign? best = null;
        var bestPrice = 0m;
        foreach (var c in campaigns)
        {
            if (!c.HoldsOn(date) || Apply(c.Kind, c.Value, c.Currency, start, toLine) is not { } price)
                continue;
            if (best is null || price < bestPrice || (price == bestPrice && string.CompareOrdinal(c.Id, best.Id) < 0))
                (best, bestPrice) = (c, price);
        }
        return (best, bestPrice);
    }

    private static PriceStep Step(Agreement a, decimal price) =>
        new(StepKind.Agreement, a.Id, a.Words, a.From, a.To, price);

    // The narrowest rank; within it the latest start, then the lowest price, then the smallest id.
    private static (Agreement? Rule, decimal Price) Choose(
        decimal list,
        IEnumerable<Agreement> agreements,
        decimal quantity,
        DateOnly date,
        Func<decimal, Currency?, decimal?> toLine,
        Func<string, decimal>? together
    )
    {
        Agreement? best = null;
        var bestPrice = 0m;
        foreach (var a in agreements)
        {
            var counted = a.BreakGroup is { } group && together is not null ? together(group) : quantity;
            if (
                !a.HoldsOn(date)
                || a.BreakAt(counted) is not { } reached
                || Apply(a.Kind, reached.Value, a.Currency, list, toLine) is not { } price
            )
                continue;
            if (best is null || Before(a, price, best, bestPrice))
                (best, bestPrice) = (a, price);
        }
        return (best, bestPrice);
    }

    private static bool Before(Agreement a, decimal price, Agreement than, decimal thanPrice)
    {
        if (a.Rank != than.Rank)
            return a.Rank < than.Rank;
        if (a.From != than.From)
            return a.From > than.From;
        return price != thanPrice ? price < thanPrice : string.CompareOrdinal(a.Id, than.Id) < 0;
    }

    private static decimal? Apply(
        RuleKind kind,
        decimal value,
        Currency? currency,
        decimal start,
        Func<decimal, Currency?, decimal?> toLine
    ) =>
        kind switch
        {
            RuleKind.PercentOff => UnitPrice.Round4(start * (1 - (value / 100m))),
            RuleKind.Fixed => toLine(value, currency) is { } v ? UnitPrice.Round4(v) : null,
            RuleKind.AmountOff => toLine(value, currency) is { } v ? UnitPrice.Round4(start - v) : null,
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };
}
