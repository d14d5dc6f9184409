using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>A line with its price build, figures and limits. A heading, or a line without item, has no build.</summary>
/// <param name="Floor">Floor per price base in the sheet's currency; null where unknown.</param>
public sealed record PricedLine(SheetLine Line, Item? Item, PriceBuild Build, LineTerms Terms, LineFigures Figures, decimal? Floor)
{
    public bool IsSold => Line.Kind == LineKind.Item;

    public bool HasPrice => Build.Base is not null;

    public bool BelowFloor => IsSold && HasPrice && IsBelowFloor(Figures.NetPrice, Figures.Earned, Figures.SheetDiscountShare);

    /// <summary>Whether such a net price, or with a share of the sheet discount such earnings, would be below the floor.</summary>
    public bool IsBelowFloor(decimal netPrice, Amount earned, Amount share)
    {
        if (Floor is not { } floor)
            return false;
        // The sheet discount counts too: a line does not escape its floor by a discount given elsewhere. Rounded to four decimals,
        // earned x base / quantity is below the floor exactly where it is more than half a step below it; so nothing is divided.
        return share.IsZero || Terms.Quantity <= 0 ? netPrice < floor : earned.Value * Terms.PriceBase < (floor - HalfStep) * Terms.Quantity;
    }

    private const decimal HalfStep = 0.00005m;

    /// <summary>Percent by which the net price is under the base price, whichever way it was typed; negative for a surcharge.</summary>
    public decimal DiscountPercent =>
        Terms.ByHand.Kind == ByHandKind.DiscountPercent ? Terms.ByHand.Value
        : Terms.Base is { } b && b != 0 ? decimal.Round((b - Figures.NetPrice) * 100m / b, 4, MidpointRounding.AwayFromZero)
        : 0m;
}

/// <summary>A sheet with all its figures.</summary>
public sealed record PricedSheet(Sheet Sheet, Buyer Buyer, ImmutableArray<PricedLine> Lines, Tally Tally, Rates Rates, PriceBook Book)
{
    public IEnumerable<PricedLine> Sold => Lines.Where(l => l.IsSold);
}

/// <summary>Prices a whole sheet: the one way from what was typed to what it costs, for quotes, orders and the price API alike.</summary>
public static class SheetPricer
{
    public static PricedSheet Price(PriceBook book, Rates rates, Buyer buyer, Sheet sheet)
    {
        var started = new Started[sheet.Lines.Length];
        var terms = new LineTerms[started.Length];
        for (var i = 0; i < started.Length; i++)
        {
            started[i] = Start(book, rates, buyer, sheet, sheet.Lines[i]);
            terms[i] = started[i].Terms;
        }
        List<SheetCharge> charges = [.. sheet.Charges.Select(c => c.Tax is null ? c with { Tax = ChargeTax(book, buyer, sheet) } : c)];
        var (figures, tally) = SheetArithmetic.Calculate(sheet.Currency, terms, sheet.Discount, charges, sheet.Deposit);
        var lines = ImmutableArray.CreateBuilder<PricedLine>(started.Length);
        for (var i = 0; i < started.Length; i++)
        {
            var (item, build, _, floor) = started[i];
            lines.Add(new PricedLine(sheet.Lines[i], item, WithHand(build, terms[i], figures[i]), terms[i], figures[i], floor));
        }
        return new PricedSheet(sheet, buyer, lines.MoveToImmutable(), tally, rates, book);
    }

    // Freight and other charges follow the standard class: they are taxed as the goods they go with, at home.
    private static Tax? ChargeTax(PriceBook book, Buyer buyer, Sheet sheet) =>
        TaxRules.Find(book.SellerCountry, sheet.DeliverToCountry, buyer, TaxClass.Standard, sheet.PricingDate, book.TaxRates);

    // A line before its arithmetic.
    private readonly record struct Started(Item? Item, PriceBuild Build, LineTerms Terms, decimal? Floor);

    private static Started Start(PriceBook book, Rates rates, Buyer buyer, Sheet sheet, SheetLine line)
    {
        var item = line.Item is { } id ? book.Find(id) : null;
        if (line.Kind == LineKind.Heading || item is null)
            return new Started(item, PriceBuild.Missing(PriceGap.NoListPrice), Empty, null);

        var question = new PriceQuestion(item, line.Quantity, line.Unit, buyer, sheet.Currency, sheet.PricingDate);
        var build = BasePrice.Find(book, rates, question);
        var cost = BasePrice.Cost(book, rates, question, build.PriceBase);
        var floor = BasePrice.Floor(book, rates, question, build.PriceBase, cost);
        var tax = TaxRules.Find(book.SellerCountry, sheet.DeliverToCountry, buyer, item.TaxClass, sheet.PricingDate, book.TaxRates);
        var terms = new LineTerms(line.Quantity, build.Base?.Value, build.PriceBase, cost, line.ByHand, line.Charges, !line.Optional, true, tax);
        return new Started(item, build, terms, floor);
    }

    private static readonly LineTerms Empty = new(0m, null, 1m, null, ByHand.None, [], false, false, null);

    private static PriceBuild WithHand(PriceBuild build, LineTerms terms, LineFigures figures)
    {
        if (build.Base is null || terms.ByHand.Kind == ByHandKind.None)
            return build;
        var (kind, words) = terms.ByHand.Kind switch
        {
            ByHandKind.NetPrice => (StepKind.NetPrice, "typed"),
            ByHandKind.Margin => (StepKind.Margin, FormattableString.Invariant($"for {terms.ByHand.Value:0.####} % margin")),
            ByHandKind.DiscountAmount => (StepKind.Discount, FormattableString.Invariant($"\u2212{terms.ByHand.Value:0.00##} on the line")),
            _ => (StepKind.Discount, FormattableString.Invariant($"{(terms.ByHand.Value < 0 ? "+" : "\u2212")}{Math.Abs(terms.ByHand.Value):0.####} %")),
        };
        var who = terms.ByHand.Who is { } name ? $"{words} by {name}" : words;
        return build with { Steps = build.Steps.Add(new PriceStep(kind, null, who, null, null, figures.NetPrice)) };
    }
}
