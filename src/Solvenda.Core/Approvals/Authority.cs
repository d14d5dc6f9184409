using System.Collections.Immutable;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>The key of a person.</summary>
public readonly record struct PersonId(long Value);

/// <summary>What a person may decide alone. Null: may not decide that kind at all.</summary>
/// <param name="DiscountPercent">Highest discount, line or sheet.</param>
/// <param name="LeastMarginPercent">Least margin of a line.</param>
/// <param name="Value">Highest sheet total without tax, home currency.</param>
/// <param name="CreditOver">How far over a credit limit, home currency.</param>
public sealed record Authority(
    decimal? DiscountPercent,
    decimal? LeastMarginPercent,
    decimal? Value,
    decimal? CreditOver
)
{
    public static readonly Authority None = new(null, null, null, null);

    /// <summary>A margin that everything is above: "any margin".</summary>
    public const decimal AnyMargin = -1_000_000m;

    /// <summary>A value that everything is under: "any value".</summary>
    public const decimal AnyValue = 1_000_000_000m;
}

/// <summary>A person as far as deciding goes: authority, and whom they report to.</summary>
public sealed record Decider(PersonId Id, string Name, PersonId? ReportsTo, Authority Authority);

/// <summary>The figures of a sheet that policies look at; percentages, and value in home currency.</summary>
/// <param name="LeastLineMargin">Null where no line has a cost.</param>
public sealed record SheetFigures(
    decimal HighestLineDiscount,
    decimal SheetDiscount,
    decimal? LeastLineMargin,
    decimal? SheetMargin,
    int LinesBelowFloor,
    decimal ValueHome
)
{
    /// <summary>Optional lines count as well: they are offered at that price.</summary>
    public static SheetFigures Of(PricedSheet sheet)
    {
        var priced = sheet.Sold.Where(l => l.HasPrice).ToList();
        var discount =
            sheet.Sheet.Discount.Percent
            ?? (
                sheet.Tally.Goods.IsZero
                    ? 0m
                    : decimal.Round(
                        sheet.Tally.SheetDiscount.Value * 100m / sheet.Tally.Goods.Value,
                        4,
                        MidpointRounding.AwayFromZero
                    )
            );
        var home = sheet.Rates.Convert(sheet.Tally.TotalWithoutTax.Value, sheet.Sheet.Currency, sheet.Rates.Home);
        return new SheetFigures(
            priced.Select(l => l.DiscountPercent).DefaultIfEmpty(0m).Max(),
            discount,
            priced.Select(MarginOf).Min(),
            sheet.Tally.MarginPercent,
            priced.Count(l => l.BelowFloor),
            home is { } h ? Amount.Round(h, sheet.Rates.Home).Value : UnknownValue
        );
    }

    /// <summary>True where no price figure is worse than in the other. Value is apart: a better price makes it more.</summary>
    public bool PricesNoWorseThan(SheetFigures other) =>
        HighestLineDiscount <= other.HighestLineDiscount
        && SheetDiscount <= other.SheetDiscount
        && (LeastLineMargin ?? decimal.MaxValue) >= (other.LeastLineMargin ?? decimal.MaxValue)
        && (SheetMargin ?? decimal.MaxValue) >= (other.SheetMargin ?? decimal.MaxValue)
        && LinesBelowFloor <= other.LinesBelowFloor;

    /// <summary>The value where no rate leads to the home currency: beyond every authority, for nobody can say that it is not.</summary>
    public const decimal UnknownValue = decimal.MaxValue;

    /// <summary>What a line given away counts as: a percentage of nothing does not exist, but it is the worst there is.</summary>
    public const decimal GivenAway = -10_000m;

    /// <summary>A line's margin percent, also where it is optional; null without cost.</summary>
    public static decimal? MarginOf(PricedLine line) =>
        line.Figures.Cost is { } cost ? MarginOf(line.Figures.Earned, cost) : null;

    /// <summary>The margin percent of such earnings at such a cost; null where neither is anything.</summary>
    public static decimal? MarginOf(Amount earned, Amount cost)
    {
        if (earned.Minor <= 0)
            return cost.Minor > 0 ? GivenAway : null;
        return decimal.Round((earned - cost).Minor * 100m / earned.Minor, 2, MidpointRounding.AwayFromZero);
    }
}

/// <summary>How a policy finds its approvers.</summary>
public enum RouteStyle
{
    /// <summary>Climbs the reporting line to the first whose authority covers the figure.</summary>
    FirstAble,
}

/// <summary>A rule that says when approval is needed.</summary>
/// <param name="Fires">Whether the figures are beyond the authority.</param>
/// <param name="Say">The figure against the limit, in words.</param>
public sealed record Policy(
    string Code,
    string Words,
    RouteStyle Route,
    Func<SheetFigures, Authority, bool> Fires,
    Func<SheetFigures, Authority, string> Say
);

/// <summary>The policies that hold. Each is one entry here; nothing else needs to change for a new one.</summary>
public static class Policies
{
    /// <summary>Code of the policy on the sheet's value.</summary>
    public const string Value = "value";

    public static readonly ImmutableArray<Policy> All =
    [
        new(
            "discount",
            "line discount",
            RouteStyle.FirstAble,
            (f, a) => f.HighestLineDiscount > 0 && f.HighestLineDiscount > (a.DiscountPercent ?? 0m),
            (f, a) =>
                FormattableString.Invariant(
                    $"{f.HighestLineDiscount:0.##} % discount on a line, {a.DiscountPercent ?? 0m:0.##} % may be given alone"
                )
        ),
        new(
            "sheet-discount",
            "sheet discount",
            RouteStyle.FirstAble,
            (f, a) => f.SheetDiscount > 0 && f.SheetDiscount > (a.DiscountPercent ?? 0m),
            (f, a) =>
                FormattableString.Invariant(
                    $"{f.SheetDiscount:0.##} % discount on all, {a.DiscountPercent ?? 0m:0.##} % may be given alone"
                )
        ),
        new(
            "margin",
            "line margin",
            RouteStyle.FirstAble,
            (f, a) => f.LeastLineMargin is { } m && m < (a.LeastMarginPercent ?? decimal.MaxValue),
            (f, a) =>
                FormattableString.Invariant(
                    $"{f.LeastLineMargin:0.0} % margin on a line, {a.LeastMarginPercent:0.##} % is the least alone"
                )
        ),
        // The floor binds the seller's own level; whoever may sell at the margin that results may also pass the floor.
        new(
            "floor",
            "below the floor",
            RouteStyle.FirstAble,
            (f, a) => f.LinesBelowFloor > 0 && (!MayPassFloors(a) || f.LeastLineMargin < a.LeastMarginPercent),
            (f, _) =>
                f.LinesBelowFloor == 1
                    ? "a line is below its floor"
                    : FormattableString.Invariant($"{f.LinesBelowFloor} lines are below their floor")
        ),
        new(
            Value,
            "value",
            RouteStyle.FirstAble,
            (f, a) => f.ValueHome > (a.Value ?? 0m),
            (f, a) =>
                f.ValueHome == SheetFigures.UnknownValue
                    ? "its value in home currency is unknown, for want of an exchange rate"
                    : FormattableString.Invariant(
                        $"worth {f.ValueHome:#,0} in home currency, {a.Value ?? 0m:#,0} may be sold alone"
                    )
        ),
    ];

    /// <summary>Who may pass a floor at all: an authority that reaches down to this margin or further, which sellers' do not.</summary>
    public const decimal FloorPassMargin = 20m;

    /// <summary>Whether somebody with this authority may sell below a floor.</summary>
    public static bool MayPassFloors(Authority authority) => authority.LeastMarginPercent <= FloorPassMargin;
}
