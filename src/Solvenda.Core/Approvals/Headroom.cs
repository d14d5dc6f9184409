using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>
/// How far one person's authority reaches: the largest discount in percent with which nothing fires; null where even
/// none is too much.
/// </summary>
public sealed record Reach(PersonId Person, string Name, decimal? UpToPercent);

/// <summary>"What would it take?": the largest discount with no ask, and who decides beyond it.</summary>
public static class Headroom
{
    /// <summary>
    /// Discounts are looked at in tenths of a percent; one step more than the headroom fires a policy.
    /// </summary>
    public const decimal Step = 0.1m;

    private const int Most = (int)(100m / Step);

    /// <summary>
    /// The largest discount on one line, in place of what is typed there, that the authority covers; null where even 0
    /// % is too much.
    /// </summary>
    public static decimal? Line(PricedLine line, PricedSheet sheet, Authority authority)
    {
        if (!line.HasPrice)
            return null;
        var share = line.Figures.SheetDiscountShare;
        return Largest(
            LineGuess(line, authority),
            d =>
            {
                var trial = SheetArithmetic.Line(
                    line.Terms with
                    {
                        ByHand = new ByHand(ByHandKind.DiscountPercent, d, null),
                    },
                    sheet.Sheet.Currency
                );
                var earned = trial.Net - trial.Charges - share;
                return Allows(
                    authority,
                    new LineMoney(d, earned, trial.Cost, line.IsBelowFloor(trial.NetPrice, earned, share))
                );
            }
        );
    }

    /// <summary>
    /// The largest discount on the whole sheet that each person may give alone, whoever looks first, then up the line.
    /// Lines that need approval as they stand are left out: the figure says what else could be given.
    /// </summary>
    public static ImmutableArray<Reach> Sheet(
        PricedSheet sheet,
        Decider from,
        IReadOnlyDictionary<PersonId, Decider> people
    ) =>
        [
            .. Route
                .Climb(from, people)
                .Prepend(from)
                .Select(p => new Reach(p.Id, p.Name, SheetDiscount(sheet, p.Authority))),
        ];

    private static decimal? SheetDiscount(PricedSheet sheet, Authority authority)
    {
        var currency = sheet.Sheet.Currency;
        List<PricedLine> lines = [.. sheet.Lines.Where(l => l.Terms.Counts && l.HasPrice && !FiresAlone(l, authority))];
        var nets = new Amount[lines.Count];
        var weights = new long[lines.Count];
        var guess = authority.DiscountPercent ?? 0m;
        var discountable = 0L;
        for (var i = 0; i < nets.Length; i++)
        {
            nets[i] = lines[i].Figures.Net - lines[i].Figures.Charges;
            if (!lines[i].Terms.Discountable)
                continue;
            weights[i] = lines[i].Figures.Net.Minor;
            discountable += weights[i];
            guess = Math.Min(guess, SheetGuess(lines[i], authority));
        }
        return Largest(
            guess,
            d =>
            {
                if (OnAll.IsBeyond(d, authority))
                    return false;
                var shares = Amount
                    .Round(Amount.FromMinor(discountable, currency).Value * d / 100m, currency)
                    .SplitOver(weights);
                (Amount Earned, Amount Cost)? worst = null;
                var below = 0;
                for (var i = 0; i < nets.Length; i++)
                {
                    var earned = nets[i] - shares[i];
                    if (
                        lines[i].Figures.Cost is { } cost
                        && (worst is not { } w || IsWorse(earned, cost, w.Earned, w.Cost))
                    )
                        worst = (earned, cost);
                    if (lines[i].IsBelowFloor(lines[i].Figures.NetPrice, earned, shares[i]))
                        below++;
                }
                var zero = Amount.Zero(currency);
                return Allows(authority, new LineMoney(0m, worst?.Earned ?? zero, worst?.Cost, below > 0));
            }
        );
    }

    // Whether the first margin is the lower one: cost over earnings compared crosswise, so that nothing is divided.
    // Earnings of nothing are the worst.
    private static bool IsWorse(Amount earned, Amount cost, Amount thanEarned, Amount thanCost)
    {
        if (earned.Minor <= 0 || thanEarned.Minor <= 0)
            return earned.Minor <= 0 && cost.Minor > 0;
        return (Int128)cost.Minor * thanEarned.Minor > (Int128)thanCost.Minor * earned.Minor;
    }

    private static readonly Figures.SheetDiscountGiven OnAll = new();

    private static bool FiresAlone(PricedLine line, Authority authority) => !Allows(authority, LineMoney.Of(line));

    /// <summary>Whether no figure of a line is beyond the authority.</summary>
    public static bool Allows(Authority authority, in LineMoney line)
    {
        foreach (var figure in FigureList.OfLines)
        {
            if (figure.Of(line) is { } value && figure.IsBeyond(value, authority))
                return false;
        }
        return true;
    }

    // Where the edge should lie by plain arithmetic, before any rounding. Only the search's start: the policies
    // themselves decide.
    private static decimal LineGuess(PricedLine line, Authority authority)
    {
        var guess = authority.DiscountPercent ?? 0m;
        var gross = line.Figures.Gross.Value;
        if (gross <= 0)
            return guess;
        if (line.Figures.Cost is { } cost && authority.LeastMarginPercent is { } least and < 100m and > -1000m)
            guess = Math.Min(
                guess,
                100m * (1 - (((cost.Value * 100m / (100m - least)) + line.Figures.SheetDiscountShare.Value) / gross))
            );
        if (line.Floor is { } floor && line.Terms.Base is { } price and > 0 && !authority.PassesFloors)
            guess = Math.Min(guess, 100m * (1 - (floor / price)));
        return guess;
    }

    private static decimal SheetGuess(PricedLine line, Authority authority)
    {
        var net = (line.Figures.Net - line.Figures.Charges).Value;
        if (net <= 0)
            return 100m;
        var guess = 100m;
        if (line.Figures.Cost is { } cost && authority.LeastMarginPercent is { } least and < 100m and > -1000m)
            guess = 100m * (1 - (cost.Value * 100m / (100m - least) / net));
        if (line.Floor is { } floor && line.Figures.NetPrice > 0 && !authority.PassesFloors)
            guess = Math.Min(guess, 100m * (1 - (floor / line.Figures.NetPrice)));
        return guess;
    }

    // Worse discounts never become allowed again. From the guess the search goes in doubling strides to bracket the
    // edge, then halves.
    private static decimal? Largest(decimal guess, Func<decimal, bool> allowed)
    {
        var at = (int)Math.Clamp(Math.Floor(guess / Step), 0m, Most);
        int low,
            high;
        if (allowed(at * Step))
        {
            low = at;
            for (var stride = 1; ; stride *= 2)
            {
                if (low == Most)
                    return 100m;
                high = Math.Min(Most, low + stride);
                if (!allowed(high * Step))
                    break;
                low = high;
            }
        }
        else
        {
            high = at;
            for (var stride = 1; ; stride *= 2)
            {
                if (high == 0)
                    return null;
                low = Math.Max(0, high - stride);
                if (allowed(low * Step))
                    break;
                high = low;
            }
        }
        while (high - low > 1)
        {
            var middle = (low + high) / 2;
            if (allowed(middle * Step))
                low = middle;
            else
                high = middle;
        }
        return low * Step;
    }
}
