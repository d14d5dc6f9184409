namespace Solvenda.Core.Approvals;

/// <summary>What is earned by something, and what it costs, in one currency.</summary>
public readonly record struct EarnedFor(decimal Earned, decimal Cost)
{
    /// <summary>Both added up.</summary>
    public static EarnedFor operator +(EarnedFor a, EarnedFor b) => new(a.Earned + b.Earned, a.Cost + b.Cost);
}

/// <summary>The choice of the buyer that leaves the least margin.</summary>
public static class WorstChoice
{
    /// <summary>
    /// What is earned and what it costs where the buyer takes, of each group, the one that is worst for the margin of
    /// the whole, and those options that lower it.
    /// </summary>
    /// <remarks>
    /// The greatest ratio of two sums, by Dinkelbach's method: from a ratio, what is above it is taken, which gives the
    /// next ratio, until none is greater. Each step is exact in decimals, and the ratio only rises.
    /// </remarks>
    public static EarnedFor Of(
        IEnumerable<EarnedFor> always,
        IEnumerable<IEnumerable<EarnedFor>> oneOfEach,
        IEnumerable<EarnedFor> options
    )
    {
        ArgumentNullException.ThrowIfNull(always);
        ArgumentNullException.ThrowIfNull(oneOfEach);
        var sure = always.Aggregate(default(EarnedFor), (a, b) => a + b);
        List<List<EarnedFor>> groups = [.. oneOfEach.Select(g => g.ToList())];
        List<EarnedFor> may = [.. options];
        var least = sure + Sum(groups.Select(g => g.MinBy(m => m.Earned)));
        if (least is { Earned: <= 0, Cost: > 0 })
            return least;
        // Where nothing is taken for sure, the poorest option alone.
        var worst = least.Earned > 0 ? least : may.Where(m => m.Earned > 0).OrderByDescending(Ratio).FirstOrDefault();
        if (worst.Earned <= 0)
            return may.Find(m => m.Cost > 0);
        while (true)
        {
            var ratio = Ratio(worst);
            decimal Over(EarnedFor m) => m.Cost - (ratio * m.Earned);
            var next = sure + Sum(groups.Select(g => g.MaxBy(Over))) + Sum(may.Where(m => Over(m) > 0));
            if (next.Earned <= 0)
                return next.Cost > 0 ? next : worst;
            if (Ratio(next) <= ratio)
                return worst;
            worst = next;
        }
    }

    private static decimal Ratio(EarnedFor m) => m.Earned > 0 ? m.Cost / m.Earned : decimal.MaxValue;

    private static EarnedFor Sum(IEnumerable<EarnedFor> of) => of.Aggregate(default(EarnedFor), (a, b) => a + b);
}
