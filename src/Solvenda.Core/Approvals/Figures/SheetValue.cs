using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// What the sheet is worth without tax, in home currency, with everything on it that the buyer may choose.
/// </summary>
public sealed class SheetValue : WholeFigure
{
    /// <inheritdoc />
    public override string Code => "value";

    /// <inheritdoc />
    public override string Label => "value";

    /// <inheritdoc />
    public override string Beyond => "the whole is worth more than its sender may send";

    /// <inheritdoc />
    public override string Called => "the worth of the whole";

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var open = sheet.Sold.Where(l => l.HasPrice && Choices.IsOpen(l.Line)).ToList();
        var options = open.Where(l => l.Line.OneOf.Length == 0 && !l.Counts).Sum(l => l.Figures.Net.Value);
        // Of alternatives the dearest.
        var dearer = open.Where(l => l.Line.OneOf.Length > 0)
            .GroupBy(l => l.Line.OneOf)
            .Sum(g => g.Max(l => l.Figures.Net.Value) - g.Where(l => l.Counts).Sum(l => l.Figures.Net.Value));
        return Home(sheet.Tally.TotalWithoutTax.Value + Math.Max(0m, options) + Math.Max(0m, dearer), sheet);
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.Value;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        value == Unknown
            ? "its value in home currency is unknown, for want of an exchange rate"
            : FormattableString.Invariant(
                $"worth {value:#,0} in home currency, {authority.Value ?? 0m:#,0} may be sold alone"
            );
}
