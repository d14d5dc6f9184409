using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>
/// Prices a whole sheet: the one way from what was typed to what it costs, for quotes, orders and the price API alike.
/// </summary>
public static class SheetPricer
{
    /// <summary>Prices every line and adds up the sheet.</summary>
    public static PricedSheet Price(PriceBook book, Rates rates, Buyer buyer, Sheet sheet)
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(sheet);
        sheet = ByKind(book, sheet);
        var asked = new Asked(book, rates, buyer, sheet, Choices.Counted(sheet.Lines));
        var together = BreakGroups.Of(book, buyer, sheet);
        var started = new Started[sheet.Lines.Length];
        var terms = new LineTerms[started.Length];
        for (var i = 0; i < started.Length; i++)
            started[i] = Start(asked, sheet.Lines[i], together);
        var paid = sheet.Paid is { } paying ? Pay(sheet, paying, started) : null;
        for (var i = 0; i < started.Length; i++)
            terms[i] = started[i].Terms;
        var done = SheetArithmetic.Lines(sheet.Currency, terms, sheet.Discount);
        var (charges, freight) = SheetCharges.Of(
            book,
            rates,
            sheet,
            started.Select((s, i) => (sheet.Lines[i], s.Item)),
            done.Goods - done.Taken,
            ChargeTax(asked),
            asked.Counted,
            paid?.Charges
        );
        var tally = SheetArithmetic.Totals(sheet.Currency, terms, done, charges, sheet.Deposit, paid?.Rounding);
        var lines = ImmutableArray.CreateBuilder<PricedLine>(started.Length);
        for (var i = 0; i < started.Length; i++)
        {
            var (item, build, _, floor, byRule) = started[i];
            var figures = done.Figures[i];
            lines.Add(
                new PricedLine(
                    sheet.Lines[i],
                    item,
                    WithHand(build, terms[i], figures, sheet.Kind),
                    terms[i],
                    figures,
                    floor
                )
                {
                    RuleCharges = byRule,
                    Parts = item is null ? [] : Parts(asked, sheet.Lines[i], item, terms[i], figures.Net),
                    Counts = asked.Counted.Contains(sheet.Lines[i].Key),
                    TypedCost = TypedCost(terms[i], sheet.Currency),
                    CostUnder = CostUnder(asked, terms[i], figures),
                }
            );
        }
        return new PricedSheet(sheet, buyer, lines.MoveToImmutable(), tally, charges, freight, rates, book);
    }

    // What was paid on a channel makes the prices.
    private static PaidSheet Pay(Sheet sheet, PaidOnChannel paying, Started[] started)
    {
        var paid = PaidSheet.Of(
            sheet,
            paying,
            [.. started.Select((s, i) => new PayableLine(sheet.Lines[i], s.Item, s.Build, s.Terms))]
        );
        for (var i = 0; i < started.Length; i++)
            started[i] = started[i] with { Build = paid.Lines[i].Build, Terms = paid.Lines[i].Terms };
        return paid;
    }

    // What is handed over at home is taxed at home, whoever takes it; what is given away is at nothing, by whoever gave
    // it.
    private static Sheet ByKind(PriceBook book, Sheet sheet)
    {
        if (sheet.Kind.IsAtCounter)
            sheet = sheet with
            {
                DeliverToCountry = book.SellerCountry,
                Lines = [.. sheet.Lines.Select(l => l.DeliverTo is null ? l : l with { DeliverTo = null })],
            };
        if (!sheet.Kind.IsFree)
            return sheet;
        var free = new ByHand(ByHandKind.NetPrice, 0m, sheet.FreeBy);
        return sheet with { Lines = [.. sheet.Lines.Select(l => l.HasFigures ? l with { ByHand = free } : l)] };
    }

    private sealed record Asked(PriceBook Book, Rates Rates, Buyer Buyer, Sheet Sheet, IReadOnlySet<long> Counted);

    private static Amount? TypedCost(LineTerms terms, Currency currency) =>
        terms.TypedCost is { } cost ? Amount.Round(terms.Quantity * cost / terms.PriceBase, currency) : null;

    // Without a rate nobody can say that it is not much.
    private static decimal CostUnder(Asked a, LineTerms terms, LineFigures figures) =>
        TypedCost(terms, a.Sheet.Currency) is { } typed && figures.Cost is { } cost && typed < cost
            ? a.Rates.Convert((cost - typed).Value, a.Sheet.Currency, a.Rates.Home) ?? decimal.MaxValue
            : 0m;

    // A line before its arithmetic.
    private readonly record struct Started(
        Item? Item,
        PriceBuild Build,
        LineTerms Terms,
        decimal? Floor,
        ImmutableArray<LineCharge> ByRule
    );

    private static readonly LineTerms Empty = new(0m, null, 1m, null, ByHand.None, [], false, false, null);

    // Freight and other charges follow the standard class: they are taxed as the goods they go with, at home.
    private static Tax? ChargeTax(Asked a) => TaxOf(a, TaxClass.Standard, a.Sheet.DeliverToCountry);

    private static Tax? TaxOf(Asked a, TaxClass of, SheetLine line) => TaxOf(a, of, a.Sheet.CountryOf(line));

    private static Tax? TaxOf(Asked a, TaxClass of, string? country) =>
        TaxRules.Find(a.Book.SellerCountry, country, a.Buyer, of, a.Sheet.PricingDate, a.Book.TaxRates);

    // What left the house keeps its build, until item, unit or quantity of the line change.
    private static KeptLine? Kept(Asked a, SheetLine line, Item item) =>
        a.Sheet.Kept.TryGetValue(line.Key, out var kept)
        && kept.Item == item.Id
        && kept.Unit == line.Unit
        && (kept.Quantity is null || kept.Quantity == line.Quantity)
            ? kept
            : null;

    private static Started Start(Asked a, SheetLine line, Func<string, decimal>? together)
    {
        var item = line.Item is { } id ? a.Book.Find(id) : null;
        if (line.IsFree || (line.Kind == LineKind.Charge && line.ByHand.Kind == ByHandKind.NetPrice))
            return Free(a, line);
        if (line.Kind != LineKind.Item || item is null)
            return new Started(item, PriceBuild.Missing(PriceGap.NoListPrice), Empty, null, []);

        // What the buyer never saw when they paid is not added.
        var byRule = a.Sheet.Kind.IsFree || a.Sheet.Paid is not null ? [] : LineCharges(a, line, item);
        ImmutableArray<decimal> charges = byRule.IsEmpty
            ? line.Charges
            : [.. line.Charges, .. byRule.Select(c => c.Amount)];
        var (build, cost, floor) = Found(a, line, item, together);
        var terms = new LineTerms(
            line.Quantity,
            build.Base?.Value,
            build.PriceBase,
            cost,
            line.ByHand,
            charges,
            a.Counted.Contains(line.Key),
            true,
            TaxOf(a, item.TaxClass, line)
        )
        {
            TaxShares = TaxShares(a, item, line),
            TypedCost = line.Cost,
        };
        return new Started(item, build, terms, floor, byRule);
    }

    // As it was kept when it left the house, else as it is priced today.
    private static (PriceBuild Build, decimal? Cost, decimal? Floor) Found(
        Asked a,
        SheetLine line,
        Item item,
        Func<string, decimal>? together
    )
    {
        if (Kept(a, line, item) is { } kept)
            return (kept.Build, kept.Cost, kept.Floor);
        var question = new PriceQuestion(
            item,
            line.Quantity,
            line.Unit,
            a.Buyer,
            a.Sheet.Currency,
            a.Sheet.PricingDate,
            a.Sheet.Channel
        );
        var build = BasePrice.Find(a.Book, a.Rates, question, together);
        var cost = BasePrice.Cost(a.Book, a.Rates, question, build.PriceBase);
        return (build, cost, BasePrice.Floor(a.Book, a.Rates, question, build.PriceBase, cost));
    }

    // What is not in the catalogue costs what was typed; its tax is that of most goods.
    private static Started Free(Asked a, SheetLine line)
    {
        var price = line.ByHand.Value;
        var build = PriceBuild.Missing(PriceGap.None) with { Base = UnitPrice.Round(price, a.Sheet.Currency) };
        var isCharge = line.Kind == LineKind.Charge;
        var terms = new LineTerms(
            line.Quantity,
            price,
            1m,
            isCharge ? null : line.Cost,
            line.ByHand,
            line.Charges,
            a.Counted.Contains(line.Key),
            !isCharge,
            TaxOf(a, TaxClass.Standard, line)
        )
        {
            IsCharge = isCharge,
        };
        return new Started(null, build, terms, null, []);
    }

    private static ImmutableArray<LineCharge> LineCharges(Asked a, SheetLine line, Item item)
    {
        if (a.Book.Charges.IsEmpty)
            return [];
        return
        [
            .. a
                .Book.Charges.Where(c =>
                    c.Basis != ChargeBasis.Sheet && c.HoldsOn(a.Sheet.PricingDate) && c.Covers(item, line.Unit)
                )
                .Select(c =>
                    (
                        Rule: c,
                        Amount: a.Rates.Convert(
                            c.Basis == ChargeBasis.Piece ? c.Amount * line.Quantity : c.Amount,
                            c.Currency,
                            a.Sheet.Currency
                        )
                    )
                )
                .Where(c => c.Amount is not null)
                .Select(c => new LineCharge(
                    c.Rule.Id,
                    c.Rule.Words,
                    Amount.Round(c.Amount!.Value, a.Sheet.Currency).Value
                )),
        ];
    }

    // A bundle's price is spread over its parts by their list value.
    private static ImmutableArray<(Tax? Tax, long Weight)> TaxShares(Asked a, Item item, SheetLine line) =>
        item.Parts.IsEmpty
            ? []
            :
            [
                .. item.Parts.Select(p =>
                    a.Book.Find(p.Item) is { } part
                        ? (TaxOf(a, part.TaxClass, line), Weight(a, part, p.Quantity))
                        : (null, 0L)
                ),
            ];

    private static long Weight(Asked a, Item part, decimal quantity) =>
        decimal.ToInt64(
            decimal.Round(
                (a.Book.ListPriceOn(part, a.Sheet.PricingDate) ?? 0m) * quantity * UnitPrice.StepsPerUnit,
                0,
                MidpointRounding.AwayFromZero
            )
        );

    private static ImmutableArray<PricedPart> Parts(Asked a, SheetLine line, Item item, LineTerms terms, Amount net)
    {
        if (item.Parts.IsEmpty)
            return [];
        var shares = net.SplitOver([.. terms.TaxShares.Select(s => s.Weight)]);
        var sets = line.Quantity * (item.Factor(line.Unit) ?? 1m);
        return
        [
            .. item
                .Parts.Select((p, i) => (Part: a.Book.Find(p.Item), p.Quantity, i))
                .Where(p => p.Part is not null)
                .Select(p => new PricedPart(p.Part!, p.Quantity * sets, shares[p.i], terms.TaxShares[p.i].Tax)),
        ];
    }

    private static PriceBuild WithHand(PriceBuild build, LineTerms terms, LineFigures figures, OrderKind of)
    {
        if (build.Base is null || terms.ByHand.Kind == ByHandKind.None)
            return build;
        var (kind, words) = terms.ByHand.Kind switch
        {
            ByHandKind.NetPrice when of.IsFree => (StepKind.NetPrice, $"without charge, {of.Words}"),
            ByHandKind.NetPrice when build.Steps.IsEmpty => (
                StepKind.NetPrice,
                terms.IsCharge ? "charged, typed" : "not in the catalogue, typed"
            ),
            ByHandKind.NetPrice => (StepKind.NetPrice, "typed"),
            ByHandKind.Margin => (
                StepKind.Margin,
                FormattableString.Invariant($"for {terms.ByHand.Value:0.####} % margin")
            ),
            ByHandKind.DiscountAmount => (
                StepKind.Discount,
                FormattableString.Invariant($"\u2212{terms.ByHand.Value:0.00##} on the line")
            ),
            _ => (
                StepKind.Discount,
                FormattableString.Invariant(
                    $"{(terms.ByHand.Value < 0 ? "+" : "\u2212")}{Math.Abs(terms.ByHand.Value):0.####} %"
                )
            ),
        };
        var who = terms.ByHand.By?.Name is { } name ? $"{words} by {name}" : words;
        return build with { Steps = build.Steps.Add(new PriceStep(kind, null, who, null, null, figures.NetPrice)) };
    }
}
