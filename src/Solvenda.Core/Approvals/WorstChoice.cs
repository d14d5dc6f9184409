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
        List<EarnedFor> poorest =
        [
            .. groups.Select(g => g.OrderBy(m => m.Earned).ThenByDescending(m => m.Cost).First()),
        ];
        var least = sure + Sum(poorest);
        if (least is { Earned: <= 0, Cost: > 0 })
            return least;
        // Where nothing is earned for sure, it begins with one thing more, or one other, that the buyer may take.
        var worst =
            least.Earned > 0 ? least : Steps(least, groups, poorest, may).OrderByDescending(Ratio).FirstOrDefault();
        if (worst.Earned <= 0)
            return worst;
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

    // What it comes to with one of a group in place of its poorest, or with one option; those without any money aside.
    private static IEnumerable<EarnedFor> Steps(
        EarnedFor least,
        List<List<EarnedFor>> groups,
        List<EarnedFor> poorest,
        List<EarnedFor> may
    ) =>
        groups
            .SelectMany((g, i) => g.Select(m => least + m + new EarnedFor(-poorest[i].Earned, -poorest[i].Cost)))
            .Concat(may.Select(m => least + m))
            .Where(m => m.Earned > 0 || m.Cost > 0);

    private static decimal Ratio(EarnedFor m) => m.Earned > 0 ? m.Cost / m.Earned : decimal.MaxValue;

    private static EarnedFor Sum(IEnumerable<EarnedFor> of) => of.Aggregate(default(EarnedFor), (a, b) => a + b);
}
