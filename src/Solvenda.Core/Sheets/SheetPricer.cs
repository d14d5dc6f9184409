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

    public bool BelowFloor => IsSold && HasPrice && Floor is { } floor && NetForFloor < floor;

    /// <summary>Percent by which the net price is under the base price, whichever way it was typed; negative for a surcharge.</summary>
    public decimal DiscountPercent =>
        Terms.ByHand.Kind == ByHandKind.DiscountPercent ? Terms.ByHand.Value
        : Terms.Base is { } b && b != 0 ? decimal.Round((b - Figures.NetPrice) * 100m / b, 4, MidpointRounding.AwayFromZero)
        : 0m;

    // The sheet discount counts too: a line does not escape its floor by a discount given elsewhere.
    private decimal NetForFloor => Figures.SheetDiscountShare.IsZero || Terms.Quantity == 0
        ? Figures.NetPrice
        : UnitPrice.Round4(Figures.Earned.Value * Terms.PriceBase / Terms.Quantity);
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
        var lines = sheet.Lines.Select(line => Start(book, rates, buyer, sheet, line)).ToList();
        var charges = sheet.Charges.Select(c => c.Tax is null ? c with { Tax = ChargeTax(book, buyer, sheet) } : c).ToList();
        var (figures, tally) = SheetArithmetic.Calculate(sheet.Currency, [.. lines.Select(l => l.Terms)], sheet.Discount, charges, sheet.Deposit);
        return new PricedSheet(sheet, buyer, [.. lines.Select((l, i) => l with { Figures = figures[i] })], tally, rates, book);
    }

    // Freight and other charges follow the standard class: they are taxed as the goods they go with, at home.
    private static Tax? ChargeTax(PriceBook book, Buyer buyer, Sheet sheet) =>
        TaxRules.Find(book.SellerCountry, sheet.DeliverToCountry, buyer, TaxClass.Standard, sheet.PricingDate, book.TaxRates);

    private static PricedLine Start(PriceBook book, Rates rates, Buyer buyer, Sheet sheet, SheetLine line)
    {
        var item = line.Item is { } id ? book.Find(id) : null;
        if (line.Kind == LineKind.Heading || item is null)
            return new PricedLine(line, item, PriceBuild.Missing(PriceGap.NoListPrice), Empty(line), Nothing(sheet.Currency), null);

        var question = new PriceQuestion(item, line.Quantity, line.Unit, buyer, sheet.Currency, sheet.PricingDate);
        var build = BasePrice.Find(book, rates, question);
        var cost = BasePrice.Cost(book, rates, question, build.PriceBase);
        var floor = BasePrice.Floor(book, rates, question, build.PriceBase, cost);
        var tax = TaxRules.Find(book.SellerCountry, sheet.DeliverToCountry, buyer, item.TaxClass, sheet.PricingDate, book.TaxRates);
        var terms = new LineTerms(line.Quantity, build.Base?.Value, build.PriceBase, cost, line.ByHand, line.Charges, !line.Optional, true, tax);
        return new PricedLine(line, item, WithHand(build, terms, sheet.Currency), terms, Nothing(sheet.Currency), floor);
    }

    private static LineTerms Empty(SheetLine line) => new(0m, null, 1m, null, ByHand.None, [], false, false, null);

    private static LineFigures Nothing(Currency currency)
    {
        var zero = Amount.Zero(currency);
        return new LineFigures(0m, zero, zero, zero, zero, null, zero, null, null);
    }

    private static PriceBuild WithHand(PriceBuild build, LineTerms terms, Currency currency)
    {
        if (build.Base is null || terms.ByHand.Kind == ByHandKind.None)
            return build;
        var net = SheetArithmetic.Line(terms, currency).NetPrice;
        var (kind, words) = terms.ByHand.Kind switch
        {
            ByHandKind.NetPrice => (StepKind.NetPrice, "typed"),
            ByHandKind.Margin => (StepKind.Margin, FormattableString.Invariant($"for {terms.ByHand.Value:0.####} % margin")),
            ByHandKind.DiscountAmount => (StepKind.Discount, FormattableString.Invariant($"\u2212{terms.ByHand.Value:0.00##} on the line")),
            _ => (StepKind.Discount, FormattableString.Invariant($"{(terms.ByHand.Value < 0 ? "+" : "\u2212")}{Math.Abs(terms.ByHand.Value):0.####} %")),
        };
        var who = terms.ByHand.Who is { } name ? $"{words} by {name}" : words;
        return build with { Steps = build.Steps.Add(new PriceStep(kind, null, who, null, null, net)) };
    }
}
