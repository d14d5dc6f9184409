using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>What ALC segments behind a line take off it or put onto it.</summary>
internal static class EdifactAllowances
{
    private static readonly string[] Behind = ["MOA", "PCD", "RTE", "RNG"];

    /// <summary>
    /// In money; an allowance is negative. Its MOA says how much, else its PCD of what the line comes to. A net price
    /// (5125, AAA) has them in it already, and the gross price beside it is only said.
    /// </summary>
    /// <param name="used">Segments that were read, to which these are added.</param>
    public static decimal Of(List<Segment> detail, Segment? qty, Segment? pri, EdiValues values, HashSet<Segment> used)
    {
        var isNet = pri is not null && pri[1, 1] == "AAA";
        foreach (var other in detail)
        {
            if (isNet && !ReferenceEquals(other, pri) && other.Is("PRI"))
                used.Add(other);
        }
        var sum = 0m;
        for (var i = 0; i < detail.Count; i++)
        {
            if (!detail[i].Is("ALC"))
                continue;
            var of = detail.Skip(i + 1).TakeWhile(s => s.OneOf(Behind).Length > 0).ToList();
            var amount =
                of.Find(s => s.Is("MOA")) is { } moa ? values.Number(moa, 1, 2)?.Value
                : of.Find(s => s.Is("PCD")) is { } pcd && values.Number(pcd, 1, 2) is { } percent
                    ? Gross(qty, pri, values) * percent.Value / 100m
                : null;
            if (amount is not { } a)
                continue;
            used.Add(detail[i]);
            used.UnionWith(of);
            sum +=
                isNet ? 0m
                : detail[i][1, 1] == "A" ? -a
                : a;
        }
        return sum;
    }

    private static decimal? Gross(Segment? qty, Segment? pri, EdiValues values) =>
        qty is not null && pri is not null && values.Number(qty, 1, 2) is { } q && values.Number(pri, 1, 2) is { } p
            ? q.Value * p.Value / (values.Number(pri, 1, 5) is { Value: > 0 } each ? each.Value : 1m)
            : null;
}
