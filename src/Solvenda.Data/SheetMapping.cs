using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>Carries a sheet between its rows and the value that Core prices.</summary>
public static class SheetMapping
{
    public static Sheet ToSheet(this SheetRow row)
    {
        var currency = Currency.Of(row.Currency);
        var (kept, charges) = KeptLines.Read(row.Kept, currency);
        return new Sheet(
            currency,
            row.PricingDate,
            row.DeliverToCountry,
            [.. row.Lines.OrderBy(l => l.Position).Select(ToLine)],
            new SheetDiscount(row.DiscountPercent, row.DiscountAmount),
            [
                .. row
                    .Charges.OrderBy(c => c.Kind, StringComparer.Ordinal)
                    .Select(c => new SheetCharge(c.Kind, c.Amount, null, c.ByHand)),
            ],
            0m
        )
        {
            Channel = row.Channel,
            Incoterm = row.Incoterm,
            FreightService = row.FreightService,
            Kept = kept,
            KeptCharges = charges,
        };
    }

    /// <summary>The rates of a sheet: its own frozen one where it has one, else those of its day.</summary>
    public static Rates RatesOf(this SheetRow row, PriceBook book) =>
        row.FrozenRate is { } frozen
            ? Rates.Fixed(
                book.Home,
                book.DatedRates.Where(r => r.Day <= row.PricingDate)
                    .GroupBy(r => r.Currency)
                    .ToDictionary(g => g.Key, g => g.Key.Code == row.Currency ? frozen : g.MaxBy(r => r.Day)!.Rate)
            )
            : Rates.On(row.PricingDate, book.Home, book.DatedRates);

    /// <summary>Prices the sheet and keeps on its rows what lists and statistics need.</summary>
    public static PricedSheet Reprice(this SheetRow row, BuyerRow buyer, PriceBook book)
    {
        var priced = SheetPricer.Price(book, row.RatesOf(book), buyer.ToBuyer(), row.ToSheet());
        row.TotalWithoutTaxMinor = priced.Tally.TotalWithoutTax.Minor;
        row.TotalWithTaxMinor = priced.Tally.TotalWithTax.Minor;
        row.MarginMinor = priced.Tally.Margin.Minor;
        var lines = row.Lines.ToDictionary(l => l.Key);
        foreach (var line in priced.Lines)
        {
            var kept = lines[line.Line.Key];
            kept.NetPrice = line.HasPrice ? line.Figures.NetPrice : null;
            kept.PriceBase = line.Build.PriceBase;
            kept.NetMinor = line.Figures.Net.Minor;
        }
        return priced;
    }

    private static SheetLine ToLine(SheetLineRow l) =>
        new(
            l.Key,
            l.Kind,
            l.ItemId is { } id ? new ItemId(id) : null,
            l.Words,
            l.Quantity,
            Unit.Of(l.Unit),
            l.HandKind == ByHandKind.None ? ByHand.None : new ByHand(l.HandKind, l.HandValue, l.HandWho),
            ImmutableArray<decimal>.Empty,
            l.Optional,
            l.Note,
            new AskedFor(
                l.AskedWords,
                l.AskedCode,
                l.AskedQuantity,
                l.AskedUnit is { } u ? Unit.Of(u) : null,
                l.AskedPrice,
                l.AskedPriceBase
            )
        );
}
