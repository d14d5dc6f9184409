using System.Collections.Immutable;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>How far one person's authority reaches: the largest discount in percent with which nothing fires; null where even none is too much.</summary>
public sealed record Reach(PersonId Person, string Name, decimal? UpToPercent);

/// <summary>"What would it take?": the largest discount with no ask, and who decides beyond it.</summary>
public static class Headroom
{
    /// <summary>Discounts are looked at in tenths of a percent; one step more than the headroom fires a policy.</summary>
    public const decimal Step = 0.1m;

    /// <summary>The largest discount on one line, in place of what is typed there, that the authority covers; null where even 0 % is too much.</summary>
    public static decimal? Line(PricedLine line, PricedSheet sheet, Authority authority)
    {
        if (!line.HasPrice)
            return null;
        return Largest(d =>
        {
            var terms = line.Terms with { ByHand = new ByHand(ByHandKind.DiscountPercent, d, null) };
            var figures = SheetArithmetic.Line(terms, sheet.Sheet.Currency);
            var trial = line with { Terms = terms, Figures = figures with { SheetDiscountShare = line.Figures.SheetDiscountShare } };
            var of = new SheetFigures(Math.Max(0m, d), 0m, SheetFigures.MarginOf(trial), null, trial.BelowFloor ? 1 : 0, 0m);
            return !Policies.All.Any(p => p.Fires(of, authority));
        });
    }

    /// <summary>
    /// The largest discount on the whole sheet that each person may give alone, the seller first, then up the line.
    /// Lines that need approval as they stand are left out for the seller: the figure says what else could be given.
    /// </summary>
    public static ImmutableArray<Reach> Sheet(PricedSheet sheet, Decider seller, IReadOnlyDictionary<PersonId, Decider> people) =>
        [.. Route.Climb(seller, people).Prepend(seller).Select(p => new Reach(p.Id, p.Name, SheetDiscount(sheet, p.Authority)))];

    private static decimal? SheetDiscount(PricedSheet sheet, Authority authority)
    {
        var lines = sheet.Lines.Select(l => l.Terms with { Counts = l.Terms.Counts && !FiresAlone(l, authority) }).ToList();
        return Largest(d =>
        {
            var (figures, tally) = SheetArithmetic.Calculate(sheet.Sheet.Currency, lines, new Pricing.SheetDiscount(d, null), [], 0m);
            var trial = sheet with
            {
                Sheet = sheet.Sheet with { Discount = new Pricing.SheetDiscount(d, null) },
                Lines = [.. sheet.Lines.Select((l, i) => l with { Figures = figures[i], Terms = lines[i] }).Where((_, i) => lines[i].Counts)],
                Tally = tally,
            };
            var of = SheetFigures.Of(trial) with { ValueHome = 0m, HighestLineDiscount = 0m };
            return !Policies.All.Any(p => p.Fires(of, authority));
        });
    }

    private static bool FiresAlone(PricedLine line, Authority authority)
    {
        var of = new SheetFigures(line.DiscountPercent, 0m, SheetFigures.MarginOf(line), null, line.BelowFloor ? 1 : 0, 0m);
        return Policies.All.Any(p => p.Fires(of, authority));
    }

    // Worse discounts never become allowed again, so the edge can be halved towards.
    private static decimal? Largest(Func<decimal, bool> allowed)
    {
        if (!allowed(0m))
            return null;
        var (low, high) = (0, (int)(100m / Step));
        if (allowed(100m))
            return 100m;
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
