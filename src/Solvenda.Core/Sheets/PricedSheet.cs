using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>A line with its price build, figures and limits. A heading, or a line without item, has no build.</summary>
/// <param name="Floor">Floor per price base in the sheet's currency; null where unknown.</param>
public sealed record PricedLine(
    SheetLine Line,
    Item? Item,
    PriceBuild Build,
    LineTerms Terms,
    LineFigures Figures,
    decimal? Floor
)
{
    /// <summary>Charges that rules put on the line; part of its charges.</summary>
    public ImmutableArray<LineCharge> RuleCharges { get; init; } = [];

    /// <summary>For a bundle: its parts.</summary>
    public ImmutableArray<PricedPart> Parts { get; init; } = [];

    /// <summary>Whether it sells or charges something, and is no heading or comment.</summary>
    public bool IsSold => Line.HasFigures;

    /// <summary>Whether it counts: not an option that nobody took, nor an alternative to what was.</summary>
    public bool Counts { get; init; }

    /// <summary>Line cost as typed over the catalogue's; null where nobody did.</summary>
    public Amount? TypedCost { get; init; }

    /// <summary>How far that is under the catalogue's, in home currency; 0 where it is not.</summary>
    public decimal CostUnder { get; init; }

    /// <summary>
    /// What it earns by the cost that was typed, else by the catalogue's; null where neither is known.
    /// </summary>
    public Amount? Margin =>
        (TypedCost ?? Figures.Cost) is { } cost
            ? Figures.Earned - cost - (Figures.Fee ?? Amount.Zero(cost.Currency))
            : null;

    /// <summary>What we would sell it at ourselves, per price base; null where it has no price of ours.</summary>
    public decimal? OwnPrice =>
        Build.Steps.LastOrDefault(s => s.Kind is StepKind.List or StepKind.Agreement or StepKind.Campaign)?.Price;

    /// <summary>Whether its price was paid on a channel.</summary>
    public bool IsPaid => Terms.PaidNet is not null && Line.ByHand.Kind == ByHandKind.None;

    /// <summary>
    /// The same in percent of what is earned, by a cost that was typed; null where none was, or nothing is earned.
    /// </summary>
    public decimal? TypedMarginPercent =>
        TypedCost is not null && Figures.Earned.Minor > 0
            ? decimal.Round(Margin!.Value.Minor * 100m / Figures.Earned.Minor, 2, MidpointRounding.AwayFromZero)
            : null;

    /// <summary>Whether a price was found.</summary>
    public bool HasPrice => Build.Base is not null;

    /// <summary>Whether it earns less than its family's least margin.</summary>
    public bool BelowFloor =>
        IsSold && HasPrice && IsBelowFloor(Figures.NetPrice, Figures.Earned, Figures.SheetDiscountShare);

    /// <summary>What is agreed with the buyer, where a price was typed over it; null where none was.</summary>
    public decimal? OverAgreed =>
        Line.ByHand.Kind != ByHandKind.None
        && Build.Base is { } agreed
        && Figures.NetPrice > agreed.Value
        && Build.Steps.Any(s => s.Kind == StepKind.Agreement)
            ? agreed.Value
            : null;

    /// <summary>
    /// Whether such a net price, or with a share of the sheet discount such earnings, would be below the floor.
    /// </summary>
    public bool IsBelowFloor(decimal netPrice, Amount earned, Amount share)
    {
        if (Floor is not { } floor)
            return false;
        // The sheet discount counts too: a line does not escape its floor by a discount given elsewhere. Rounded to
        // four decimals,
        // earned x base / quantity is below the floor exactly where it is more than half a step below it; so nothing is
        // divided.
        return share.IsZero || Terms.Quantity <= 0
            ? netPrice < floor
            : earned.Value * Terms.PriceBase < (floor - HalfStep) * Terms.Quantity;
    }

    private const decimal HalfStep = 0.00005m;

    /// <summary>
    /// Percent by which the net price is under the base price, whichever way it was typed; negative for a surcharge.
    /// </summary>
    public decimal DiscountPercent =>
        Terms.ByHand.Kind == ByHandKind.DiscountPercent ? Terms.ByHand.Value
        : Terms.Base is { } b && b != 0
            ? decimal.Round((b - Figures.NetPrice) * 100m / b, 4, MidpointRounding.AwayFromZero)
        : 0m;
}

/// <summary>A charge that a rule put on a line.</summary>
public sealed record LineCharge(string Rule, string Words, decimal Amount);

/// <summary>A part of a bundle on a line: how much of it, its share of the line's net, and its own tax.</summary>
public sealed record PricedPart(Item Item, decimal Quantity, Amount Net, Tax? Tax);

/// <summary>A sheet with all its figures.</summary>
/// <param name="Charges">Typed ones, and those that came by rule.</param>
public sealed record PricedSheet(
    Sheet Sheet,
    Buyer Buyer,
    ImmutableArray<PricedLine> Lines,
    Tally Tally,
    ImmutableArray<SheetCharge> Charges,
    FreightAnswer Freight,
    Rates Rates,
    PriceBook Book
)
{
    /// <summary>The lines that sell something: the one definition that figures, checks and tallies share.</summary>
    public IEnumerable<PricedLine> Sold => Lines.Where(l => l.IsSold);

    /// <summary>Whether all of it was paid on a channel: nobody is asked for credit.</summary>
    public bool IsPaid => Sheet.Paid is not null && Tally.Due.Minor <= 0;

    /// <summary>The same sheet under another discount on the whole.</summary>
    public PricedSheet Under(SheetDiscount discount) =>
        SheetPricer.Price(Book, Rates, Buyer, Sheet with { Discount = discount });

    /// <summary>The nets under each heading up to the next, of what counts, by the heading's key.</summary>
    public IReadOnlyDictionary<long, Amount> Subtotals()
    {
        var sums = new Dictionary<long, Amount>();
        long? under = null;
        foreach (var line in Lines)
        {
            if (line.Line.Kind == LineKind.Heading)
                sums[(under = line.Line.Key).Value] = Amount.Zero(Sheet.Currency);
            else if (under is { } heading && line.Counts)
                sums[heading] += line.Figures.Net;
        }
        return sums;
    }

    /// <summary>The margin by costs as they were typed, where they were; in percent of what those lines earn.</summary>
    public (Amount Margin, decimal? Percent) MarginAsTyped()
    {
        var (margin, earned) = (Amount.Zero(Sheet.Currency), Amount.Zero(Sheet.Currency));
        foreach (var line in Sold.Where(l => l.Counts && l.HasPrice))
        {
            if (line.Margin is { } of)
                (margin, earned) = (margin + of, earned + line.Figures.Earned);
        }
        return (
            margin,
            earned.IsZero ? null : decimal.Round(margin.Minor * 100m / earned.Minor, 2, MidpointRounding.AwayFromZero)
        );
    }
}
