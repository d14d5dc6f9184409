using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>What SAC segments behind a line take off it or put onto it.</summary>
internal static class X12Allowances
{
    /// <summary>
    /// In money; an allowance is negative. SAC05 is an amount with two implied decimals (type N2), SAC07 a percentage
    /// of what the line comes to.
    /// </summary>
    /// <param name="gross">What the line comes to before; null where it does not say.</param>
    /// <param name="used">Segments that were read, to which these are added.</param>
    public static decimal Of(List<Segment> detail, EdiValues values, decimal? gross, HashSet<Segment> used)
    {
        var sum = 0m;
        foreach (var sac in detail)
        {
            if (!sac.Is("SAC"))
                continue;
            var amount =
                values.Number(sac, 5)?.Value / 100m
                ?? (values.Number(sac, 7) is { } percent ? gross * percent.Value / 100m : null);
            if (amount is not { } a)
                continue;
            used.Add(sac);
            sum += sac[1].Trim() == "A" ? -a : a;
        }
        return sum;
    }
}
