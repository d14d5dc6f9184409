using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// What is sold without the catalogue knowing its cost: the nets of such lines, in home currency. A cost that somebody
/// typed for what is not in the catalogue shows a margin, and is nobody's word but theirs.
/// </summary>
public sealed class WithoutCost : WholeFigure
{
    /// <inheritdoc />
    public override string Code => "without-cost";

    /// <inheritdoc />
    public override string Label => "sold without a cost";

    /// <inheritdoc />
    public override string Beyond => "more is sold without a known cost than its sender may";

    /// <inheritdoc />
    public override string Called => "what is sold without a known cost";

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var without = sheet
            .Sold.Where(l => l.HasPrice && l.Line.Kind == LineKind.Item && (l.Figures.Cost is null || l.Line.IsFree))
            .ToLookup(l => l.Line.OneOf);
        // Of alternatives the buyer takes one: the dearest counts.
        var nets =
            without[""].Sum(l => l.Figures.Net.Value)
            + without.Where(g => g.Key.Length > 0).Sum(g => g.Max(l => l.Figures.Net.Value));
        return nets > 0 ? Home(nets, sheet) : null;
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.WithoutCost;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        value == Unknown
            ? "lines without a cost, and no exchange rate to say what they are worth"
            : FormattableString.Invariant(
                $"{value:#,0.00} of it without a known cost, {authority.WithoutCost ?? 0m:#,0} may be sold alone"
            );
}
