using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;

namespace Solvenda.Core.Sheets;

/// <summary>
/// The charges on a sheet: those that were typed stay; freight, insurance and the charges of rules are worked out where
/// nothing was typed.
/// </summary>
internal static class SheetCharges
{
    public const string FreightKind = "freight";
    public const string InsuranceKind = "insurance";

    /// <param name="goods">Goods after the sheet discount.</param>
    /// <param name="paid">What was paid on a channel beside the goods: nothing is added to it.</param>
    public static (ImmutableArray<SheetCharge> Charges, FreightAnswer Freight) Of(
        PriceBook book,
        Rates rates,
        Sheet sheet,
        IEnumerable<(SheetLine Line, Item? Item)> lines,
        Amount goods,
        Tax? tax,
        IReadOnlySet<long> counts,
        ImmutableArray<SheetCharge>? paid = null
    )
    {
        var counted = lines
            .Where(l => l.Item is not null && counts.Contains(l.Line.Key))
            .Select(l => (l.Line, Item: l.Item!))
            .ToList();
        if (paid is { } asPaid)
            return (
                [
                    .. sheet.Charges.Select(c => c.Tax is null ? c with { Tax = tax } : c),
                    .. asPaid.Where(p => sheet.Charges.All(c => c.Kind != p.Kind)),
                ],
                FreightOf(book, rates, sheet, counted)
            );
        if (sheet.KeptCharges is { } kept)
            return ([.. kept.Select(c => c with { Tax = tax })], FreightOf(book, rates, sheet, counted));
        if (sheet.Kind.IsFree || !sheet.Kind.IsCarried)
            return ([.. sheet.Charges.Select(c => c.Tax is null ? c with { Tax = tax } : c)], FreightAnswer.Nothing);
        var charges = ImmutableArray.CreateBuilder<SheetCharge>();
        foreach (var typed in sheet.Charges)
            charges.Add(typed.Tax is null ? typed with { Tax = tax } : typed);
        bool IsTyped(string kind) => sheet.Charges.Any(c => c.Kind == kind);

        var freight = FreightOf(book, rates, sheet, counted);
        if (freight.Amount is { } amount && !IsTyped(FreightKind) && counted.Count > 0)
            charges.Add(new SheetCharge(FreightKind, amount, tax));
        if (Freight.IsInsured(sheet.Incoterm) && !IsTyped(InsuranceKind))
        {
            var carried = charges.Where(c => c.Kind == FreightKind).Sum(c => c.Amount);
            if (Freight.Insurance(book.InsurancePercent, goods.Value, carried, sheet.Currency) is { } premium)
                charges.Add(new SheetCharge(InsuranceKind, premium, tax));
        }
        foreach (
            var rule in book.Charges.Where(c =>
                c.Basis == ChargeBasis.Sheet && c.HoldsOn(sheet.PricingDate) && !IsTyped(c.Id)
            )
        )
        {
            if (
                counted.Count > 0
                && counted.Any(l => rule.Covers(l.Item, l.Line.Unit))
                && IsSmall(rule, rates, sheet, goods)
                && rates.Convert(rule.Amount, rule.Currency, sheet.Currency) is { } value
            )
                charges.Add(
                    new SheetCharge(rule.Id, Amount.Round(value, sheet.Currency).Value, tax) { Words = rule.Words }
                );
        }
        return (charges.ToImmutable(), freight);
    }

    private static bool IsSmall(ChargeRule rule, Rates rates, Sheet sheet, Amount goods) =>
        rule.BelowGoods is not { } below
        || (rates.Convert(below, rule.Currency, sheet.Currency) is { } limit && goods.Value < limit);

    // Lines that go to a place of their own are a consignment of their own.
    private static FreightAnswer FreightOf(
        PriceBook book,
        Rates rates,
        Sheet sheet,
        List<(SheetLine Line, Item Item)> lines
    )
    {
        if (lines.TrueForAll(l => l.Line.DeliverTo is null))
            return FreightOf(book, rates, sheet, sheet.DeliverToCountry, lines);
        var parts = lines
            .GroupBy(l => l.Line.DeliverTo?.Words ?? "")
            .Select(g => FreightOf(book, rates, sheet, sheet.CountryOf(g.First().Line), g))
            .ToList();
        return parts.Find(p => p.Amount is null)
            ?? parts[0] with
            {
                Amount = parts.Sum(p => p.Amount),
                Kilograms = parts.Sum(p => p.Kilograms),
                Zone = string.Join(", ", parts.Select(p => p.Zone).Distinct()),
                Service = string.Join(", ", parts.Select(p => p.Service).Distinct()),
            };
    }

    // Services weigh nothing; goods that nobody weighed are named.
    private static FreightAnswer FreightOf(
        PriceBook book,
        Rates rates,
        Sheet sheet,
        string? country,
        IEnumerable<(SheetLine Line, Item Item)> lines
    )
    {
        var (kilograms, dm3) = (0m, 0m);
        var unweighed = ImmutableArray.CreateBuilder<string>();
        foreach (var (line, item) in lines)
        {
            if (!item.Stocked)
                continue;
            var units = line.Quantity * (item.Factor(line.Unit) ?? 0m);
            if (item.WeightKg is not { } kg)
                unweighed.Add(item.Code);
            else
                kilograms += units * kg;
            dm3 += units * (item.VolumeDm3 ?? 0m);
        }
        return Freight.Find(
            book,
            rates,
            sheet.Currency,
            sheet.Incoterm,
            country,
            sheet.FreightService,
            sheet.PricingDate,
            kilograms,
            dm3,
            unweighed.ToImmutable()
        );
    }
}
