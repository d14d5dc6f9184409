using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Quotes;

/// <summary>Turns a judged sheet into the printed document: every figure as Core rounded it, so that what is printed adds up.</summary>
public static class QuotePrint
{
    private static readonly CultureInfo Numbers = CultureInfo.InvariantCulture;

    /// <param name="withDates">Whether lines name their promised date (acknowledgements do, quotes say it once).</param>
    public static PrintedDocument Of(Judged judged, Seller seller, DateOnly today, string title, bool withDates)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var open = judged.Open;
        var sheet = open.Sheet;
        var decimals = judged.Priced.Sheet.Currency.Decimals;
        string Money(decimal value) => Minus(value.ToString("#,0" + (decimals > 0 ? "." + new string('0', decimals) : ""), Numbers));
        var tally = judged.Priced.Tally;

        var facts = ImmutableArray.CreateBuilder<(string, string)>();
        facts.Add(("date", Day(today)));
        if (open.Quote is { } quote)
            facts.Add(("holds until", Day(quote.ValidUntil)));
        if (sheet.PoNumber is { } po)
            facts.Add(("your PO", po));
        if (sheet.PaymentDays is { } days)
            facts.Add(("payment", $"{days} days net"));
        if (sheet.Incoterm is { } term)
            facts.Add(("delivery", $"{term} {sheet.IncotermPlace} (Incoterms 2020)".Replace("  ", " ", StringComparison.Ordinal)));
        if (sheet.DeliverTo is { } to)
            facts.Add(("deliver to", to));
        if (sheet.BillTo is { } payer)
            facts.Add(("invoice to", payer));
        if (sheet.ShippingRule is { } rule)
            facts.Add(("shipped", rule));
        facts.Add(("your contact", open.Seller.Name));

        var totals = ImmutableArray.CreateBuilder<(string, string, bool)>();
        totals.Add(("goods", Money(tally.Goods.Value), false));
        if (!tally.SheetDiscount.IsZero)
            totals.Add((sheet.DiscountPercent is { } p ? string.Create(Numbers, $"less {p:0.##} %") : "less", Money(-tally.SheetDiscount.Value), false));
        foreach (var charge in judged.Priced.Charges)
            totals.Add((charge.Words, Money(Core.Money.Amount.Round(charge.Amount, judged.Priced.Sheet.Currency).Value), false));
        totals.Add(("without tax", Money(tally.TotalWithoutTax.Value), false));
        totals.Add(("tax", Money(tally.TotalTax.Value), false));
        totals.Add(($"in all, {judged.Priced.Sheet.Currency.Code}", Money(tally.TotalWithTax.Value), true));

        return new PrintedDocument(
            seller.Name, seller.Address, title, open.Number,
            [open.Buyer.Name, .. open.Buyer.Address.Split(", "), .. open.Buyer.ContactName is { } name ? new[] { $"for {name}" } : []],
            facts.ToImmutable(), open.Dossier.Matter, judged.Priced.Sheet.Currency.Code,
            Lines(judged, Money, withDates), totals.ToImmutable(),
            [.. tally.Taxes.Select(t => new PrintedTax(TaxWords(t.Tax), Money(t.Basis.Value), Money(t.TaxAmount.Value)))],
            Closing(judged, sheet.Note),
            $"{seller.Name} · {seller.Address[0]}");
    }

    /// <summary>The words of a tax category; categories without tax name why (EN 16931, BT-120).</summary>
    public static string TaxWords(Tax tax) => tax.Category switch
    {
        "S" => string.Create(Numbers, $"{tax.Percent:0.##} %"),
        "Z" => "0 %, zero rated",
        "E" => "exempt",
        "K" => "intra-Community supply, reverse charge",
        "G" => "export, no tax",
        _ => string.Create(Numbers, $"{tax.Category} {tax.Percent:0.##} %"),
    };

    private static ImmutableArray<PrintedLine> Lines(Judged judged, Func<decimal, string> money, bool withDates)
    {
        var lines = ImmutableArray.CreateBuilder<PrintedLine>();
        var number = 0;
        foreach (var l in judged.Priced.Lines)
        {
            if (l.Line.Kind == LineKind.Heading)
            {
                lines.Add(new PrintedLine(true, "", "", l.Line.Words, "", "", "", "", "", false, ""));
                continue;
            }
            number++;
            var unit = UnitTable.OnSheet(l.Line.Unit);
            var baseWords = l.Terms.PriceBase == 1m ? "" : string.Create(Numbers, $" per {l.Terms.PriceBase:0.##}");
            var shownDiscount = l.Terms.ByHand.Kind == ByHandKind.DiscountPercent;
            var price = shownDiscount ? l.Terms.Base ?? 0m : l.Figures.NetPrice;
            var promise = judged.Facts.Stock.GetValueOrDefault(l.Line.Key)?.Promise;
            lines.Add(new PrintedLine(
                false, number.ToString(Numbers), l.Item?.Code ?? "", l.Line.Words, l.Line.Note,
                string.Create(Numbers, $"{l.Line.Quantity:#,0.######} {unit}").Trim(), price.ToString("#,0.0000", Numbers) + baseWords,
                shownDiscount ? Minus(string.Create(Numbers, $"{l.Terms.ByHand.Value:0.##} %")) : "", money(l.Figures.Net.Value), l.Line.Optional,
                withDates && promise is not null ? $"with you by {Day(promise.Arrives)}" : ""));
        }
        return lines.ToImmutable();
    }

    private static ImmutableArray<string> Closing(Judged judged, string note)
    {
        var closing = ImmutableArray.CreateBuilder<string>();
        if (note.Length > 0)
            closing.Add(note);
        var arrivals = judged.Facts.Stock.Values.Where(s => s.Promise is not null).Select(s => s.Promise!.Arrives).ToList();
        if (judged.Open.Quote is { } quote)
        {
            if (arrivals.Count > 0)
                closing.Add($"Ordered today, all of it would be with you by {Day(arrivals.Max())}. Stock is promised by the order, not by this quote.");
            closing.Add($"The prices hold until {Day(quote.ValidUntil)}.");
        }
        return closing.ToImmutable();
    }

    private static string Minus(string number) => number.Replace('-', '\u2212');

    private static string Day(DateOnly day) => day.ToString("d MMMM yyyy", Numbers);
}
