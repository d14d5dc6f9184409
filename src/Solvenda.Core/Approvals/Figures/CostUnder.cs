namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far costs that were typed are under the catalogue's, in home currency, over all lines together: a margin that
/// rests on them rests on somebody's word.
/// </summary>
public sealed class CostUnder : LineFigure
{
    /// <inheritdoc />
    public override string Code => "cost-under";

    /// <inheritdoc />
    public override string Label => "cost typed under ours";

    /// <inheritdoc />
    public override string Beyond => "costs are typed further under the catalogue’s than the hand may";

    /// <inheritdoc />
    public override string Called => "what costs are typed under the catalogue’s";

    /// <inheritdoc />
    public override decimal? Of(in LineMoney line) => line.CostUnder > 0 ? line.CostUnder : null;

    /// <inheritdoc />
    public override decimal? Worst(IEnumerable<LineMoney> lines)
    {
        var sum = 0m;
        foreach (var line in lines)
        {
            if (line.CostUnder == WholeFigure.Unknown)
                return WholeFigure.Unknown;
            sum += line.CostUnder;
        }
        return sum > 0 ? sum : null;
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority)
    {
        ArgumentNullException.ThrowIfNull(authority);
        return authority.CostUnder;
    }

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority)
    {
        ArgumentNullException.ThrowIfNull(authority);
        return value == WholeFigure.Unknown
            ? "costs typed under the catalogue’s, and no exchange rate to say by how much"
            : FormattableString.Invariant(
                $"costs typed {value:#,0.00} under the catalogue’s, {authority.CostUnder ?? 0m:#,0} may be taken alone"
            );
    }
}
