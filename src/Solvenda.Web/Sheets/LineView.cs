using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Web.Sheets;

/// <summary>A part of a line's quantity, in its unit, and when it can be there.</summary>
public sealed record ArrivalView(decimal Quantity, DateOnly Arrives);

/// <summary>One step of a price build.</summary>
public sealed record StepView(StepKind Kind, string Words, string? Rule, DateOnly? From, DateOnly? To, decimal Price);

/// <summary>What the buyer wrote for the line, and their price carried to our unit.</summary>
public sealed record AskedView(
    string Words,
    string? Code,
    decimal? Quantity,
    string? Unit,
    decimal? Price,
    decimal PriceBase,
    decimal? PriceInOurs
);

/// <summary>One line. Prices are per <paramref name="PriceBase"/> of the unit; null where there is none.</summary>
public sealed record LineView(
    long Key,
    string Number,
    LineKind Kind,
    string? Code,
    string Words,
    decimal Quantity,
    string Unit,
    string UnitWord,
    IReadOnlyList<string> Units,
    decimal? BasePrice,
    decimal? ListPrice,
    decimal? NetPrice,
    decimal PriceBase,
    ByHandKind HandKind,
    decimal HandValue,
    decimal DiscountPercent,
    decimal Gross,
    decimal Allowance,
    decimal Charges,
    decimal Net,
    decimal SheetDiscountShare,
    decimal? Cost,
    decimal? Floor,
    decimal? Margin,
    decimal? MarginPercent,
    string? TaxCategory,
    decimal? TaxPercent,
    bool Optional,
    string Note,
    DateOnly? Wanted,
    bool IsFree,
    bool Counts,
    bool IsService,
    LineSaysView Says,
    IReadOnlyList<StepView> Build,
    PriceGap Gap,
    AskedView? Asked,
    DateOnly? Promise,
    decimal? FreeNow,
    decimal? Headroom,
    string? Gtin,
    IReadOnlyList<LineChargeView> RuleCharges,
    IReadOnlyList<PartView> Parts,
    IReadOnlyList<ArrivalView> Arrivals
)
{
    /// <param name="net">What stands in its last column: its net, or what is under a heading.</param>
    public static LineView Of(
        PricedLine l,
        string number,
        decimal net,
        LineStock? stock,
        decimal? headroom,
        bool seesCost
    )
    {
        var line = l.Line;
        return new LineView(
            line.Key,
            number,
            line.Kind,
            l.Item?.Code,
            line.Words,
            line.Quantity,
            line.Unit.Code,
            UnitTable.OnSheet(line.Unit),
            l.Item is null ? [] : [l.Item.StockUnit.Code, .. l.Item.SalesUnits.Select(u => u.Unit.Code)],
            l.Terms.Base,
            l.Build.List?.Value,
            l.HasPrice ? l.Figures.NetPrice : null,
            l.Build.PriceBase,
            line.ByHand.Kind,
            line.ByHand.Value,
            l.HasPrice ? l.DiscountPercent : 0m,
            l.Figures.Gross.Value,
            l.Figures.Allowance.Value,
            l.Figures.Charges.Value,
            net,
            l.Figures.SheetDiscountShare.Value,
            seesCost ? l.Terms.Cost : null,
            seesCost ? l.Floor : null,
            seesCost && l.Counts ? l.Margin?.Value : null,
            !seesCost || !l.IsSold ? null
                : l.TypedCost is null ? LineMoney.Of(l).MarginPercent
                : l.TypedMarginPercent,
            l.Terms.Tax?.Category,
            l.Terms.Tax?.Percent,
            line.Optional,
            line.Note,
            line.Wanted,
            line.IsFree,
            l.Counts,
            l.Item is { Stocked: false, Parts.IsEmpty: true },
            LineSaysView.Of(line, seesCost),
            [.. l.Build.Steps.Select(s => new StepView(s.Kind, s.Words, s.Rule, s.From, s.To, s.Price))],
            l.Build.Gap,
            AskedOf(l),
            stock?.Promise?.Arrives,
            stock?.FreeNow,
            headroom,
            l.Item?.Gtin,
            [.. l.RuleCharges.Select(c => new LineChargeView(c.Rule, c.Words, c.Amount))],
            [.. l.Parts.Select(PartView.Of)],
            ArrivalsOf(l, stock)
        );
    }

    /// <summary>What of it went or is being picked, in its unit; 0 for none.</summary>
    public decimal Begun { get; init; }

    /// <summary>Whether it looks the same in everything.</summary>
    public bool IsAs(LineView? other) =>
        other is not null
        && this with
        {
            Units = other.Units,
            Build = other.Build,
            RuleCharges = other.RuleCharges,
            Parts = other.Parts,
            Arrivals = other.Arrivals,
        } == other
        && Units.SequenceEqual(other.Units)
        && Build.SequenceEqual(other.Build)
        && RuleCharges.SequenceEqual(other.RuleCharges)
        && Parts.SequenceEqual(other.Parts)
        && Arrivals.SequenceEqual(other.Arrivals);

    private static List<ArrivalView> ArrivalsOf(PricedLine l, LineStock? stock) =>
        [
            .. (stock?.Parts ?? []).Select(p => new ArrivalView(
                p.Quantity / (l.Item?.Factor(l.Line.Unit) ?? 1m),
                p.Promise.Arrives
            )),
        ];

    private static AskedView? AskedOf(PricedLine l) =>
        l.Line.Asked is var asked && asked == AskedFor.Nothing
            ? null
            : new AskedView(
                asked.Words,
                asked.Code,
                asked.Quantity,
                asked.Unit?.Code,
                asked.Price,
                asked.PriceBase,
                l.HasPrice ? PriceAsOnPo.Theirs(l) : null
            );
}

/// <summary>What a line says of itself, where it is otherwise than the whole.</summary>
/// <param name="OneOf">The letter of the choice that it is one of; empty for none.</param>
/// <param name="Inner">For the house alone.</param>
/// <param name="ClosedWhy">Why it was closed short; empty where it is open.</param>
/// <param name="Cost">As typed, per price base; null where nobody typed one, or who looks may not see it.</param>
public sealed record LineSaysView(
    string OneOf,
    string Inner,
    string Job,
    string OrderedBy,
    string? DeliverTo,
    string? ShipFrom,
    decimal? Cost,
    string CostWhy,
    string ForWarehouse,
    string ClosedWhy
)
{
    public static LineSaysView Of(SheetLine line, bool seesCost)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new LineSaysView(
            line.OneOf,
            line.Inner,
            line.Job,
            line.OrderedBy,
            line.DeliverTo?.Words,
            line.ShipFrom,
            seesCost ? line.Cost : null,
            seesCost ? line.CostWhy : "",
            line.ForWarehouse,
            line.ClosedWhy
        );
    }
}

/// <summary>A charge that a rule put on a line.</summary>
public sealed record LineChargeView(string Rule, string Words, decimal Amount);

/// <summary>A part of a bundle: its quantity on the line, and its share of the line's net.</summary>
public sealed record PartView(
    string Code,
    string Words,
    decimal Quantity,
    string Unit,
    string UnitWord,
    decimal Net,
    string? TaxCategory,
    decimal? TaxPercent
)
{
    public static PartView Of(PricedPart p)
    {
        ArgumentNullException.ThrowIfNull(p);
        return new PartView(
            p.Item.Code,
            p.Item.Words,
            p.Quantity,
            p.Item.StockUnit.Code,
            UnitTable.OnSheet(p.Item.StockUnit),
            p.Net.Value,
            p.Tax?.Category,
            p.Tax?.Percent
        );
    }
}
