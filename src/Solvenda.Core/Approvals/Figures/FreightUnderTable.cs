using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// Freight by the table less what was typed, at least nothing, in home currency. Where there is no table it is unknown,
/// and beyond every authority.
/// </summary>
public sealed class FreightUnderTable : TermFigure
{
    /// <inheritdoc />
    public override string Code => "freight";

    /// <inheritdoc />
    public override string Label => "freight under the table";

    /// <inheritdoc />
    public override string Beyond => "freight is typed further under the table than the hand may";

    /// <inheritdoc />
    public override string Called => "what freight is typed under the table";

    /// <inheritdoc />
    public override string Term => HeadTerms.Freight.Name;

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet, Head head)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        if (HeadTerms.Freight.Number(head) is not { } typed)
            return null;
        switch (sheet.Freight.Gap)
        {
            // Where the buyer carries it, nothing is given away.
            case FreightGap.NotOurs or FreightGap.NoIncoterm:
                return null;
            case FreightGap.None:
                var under = sheet.Freight.Amount!.Value - typed;
                return sheet.Rates.Convert(Math.Max(0m, under), sheet.Sheet.Currency, sheet.Rates.Home) is { } home
                    ? Amount.Round(home, sheet.Rates.Home).Value
                    : WholeFigure.Unknown;
            default:
                return WholeFigure.Unknown;
        }
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.FreightUnder;

    /// <inheritdoc />
    public override bool IsBeyond(decimal value, Authority authority)
    {
        ArgumentNullException.ThrowIfNull(authority);
        // Somebody whose authority has no end decides also where no table says what it costs.
        return value == WholeFigure.Unknown
            ? (authority.FreightUnder ?? 0m) < Authority.AnyValue
            : base.IsBeyond(value, authority);
    }

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        value == WholeFigure.Unknown
            ? "freight was typed where no table says what it costs"
            : FormattableString.Invariant(
                $"freight {value:#,0.00} under the table, {authority.FreightUnder ?? 0m:#,0.##} may be given alone"
            );
}
