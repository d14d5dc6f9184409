using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>Carries a sheet between its rows and the values that Core edits and prices.</summary>
public static class SheetMapping
{
    /// <summary>As it was typed, to be edited.</summary>
    public static Draft ToDraft(this SheetRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new Draft(row.Head, [.. row.Lines.OrderBy(l => l.Position).Select(ToLine)], row.NextKey);
    }

    /// <summary>
    /// The place of its own of a line, by what is kept of it; null where it goes where the rest goes.
    /// </summary>
    public static BuyerPlace? PlaceOf(string says) => LineSays.PlaceIn(says);

    /// <summary>Writes a draft back onto its rows; lines that are gone are taken out.</summary>
    public static void Take(this SheetRow row, Draft draft)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(draft);
        row.Take(draft.Head);
        row.NextKey = draft.NextKey;
        var before = row.Lines.ToDictionary(l => l.Key);
        var position = 0;
        foreach (var line in draft.Lines)
        {
            if (!before.Remove(line.Key, out var kept))
                row.Add(kept = new SheetLineRow { SheetId = row.Id, Key = line.Key });
            kept.Position = ++position;
            Take(kept, line);
        }
        foreach (var gone in before.Values)
            row.Remove(gone);
    }

    /// <summary>Writes a head onto its row, with the copies that lists keep.</summary>
    public static void Take(this SheetRow row, Head head)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(head);
        row.Head = head;
        (row.PoNumber, row.Wanted) = (HeadTerms.PoNumber.In(head), HeadTerms.Wanted.Day(head));
        row.Own = OwnValues.Of(head.All.Where(t => OwnField.Is(t.Key)).Select(t => (t.Key, t.Value.Text)));
    }

    public static Stated ToStated(this SheetRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return row.Stated.Length == 0 ? Stated.Nothing : JsonSerializer.Deserialize<Stated>(row.Stated)!;
    }

    public static Sheet ToSheet(this SheetRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        var currency = Currency.Of(row.Currency);
        var paid = row.ToStated().OnChannel;
        var (kept, charges) = KeptLines.Read(row.Kept, currency);
        return new Sheet(
            currency,
            row.PricingDate,
            HeadTerms.DeliverToCountry.In(row.Head),
            [.. row.Lines.OrderBy(l => l.Position).Select(ToLine)],
            HeadTerms.DiscountIn(row.Head),
            [.. Typed(row.Head)],
            paid?.Total ?? 0m
        )
        {
            Channel = row.Channel,
            Paid = paid,
            Kind = OrderKind.In(row.Head),
            FreeBy = row.Head[HeadTerms.Kind.Name]?.By,
            Incoterm = HeadTerms.Incoterm.In(row.Head),
            FreightService = HeadTerms.FreightService.In(row.Head),
            Kept = kept,
            KeptCharges = charges,
        };
    }

    // The charges that a head can say by hand; the others come by rule.
    private static IEnumerable<SheetCharge> Typed(Head head) =>
        from term in new[] { HeadTerms.Freight, HeadTerms.Insurance }
        let amount = term.Number(head)
        where amount is not null
        select new SheetCharge(term.Name, amount.Value, null, true);

    /// <summary>The rates of a sheet: its own frozen one where it has one, else those of its day.</summary>
    public static Rates RatesOf(this SheetRow row, PriceBook book)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(book);
        return row.FrozenRate is { } frozen
            ? Rates.Fixed(
                book.Home,
                book.DatedRates.Where(r => r.Day <= row.PricingDate)
                    .GroupBy(r => r.Currency)
                    .ToDictionary(g => g.Key, g => g.Key.Code == row.Currency ? frozen : g.MaxBy(r => r.Day)!.Rate)
            )
            : Rates.On(row.PricingDate, book.Home, book.DatedRates);
    }

    /// <summary>Prices the sheet; changes nothing.</summary>
    public static PricedSheet Priced(this SheetRow row, BuyerRow buyer, PriceBook book) =>
        SheetPricer.Price(book, row.RatesOf(book), buyer.ToBuyer(), row.ToSheet());

    /// <summary>Keeps on the rows what lists and statistics need of a sheet that was priced.</summary>
    public static void Keep(this SheetRow row, PricedSheet priced)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(priced);
        row.TotalWithoutTaxMinor = priced.Tally.TotalWithoutTax.Minor;
        row.TotalWithTaxMinor = priced.Tally.TotalWithTax.Minor;
        row.MarginMinor = priced.Tally.Margin.Minor;
        var lines = row.Lines.ToDictionary(l => l.Key);
        foreach (var line in priced.Lines)
        {
            var kept = lines[line.Line.Key];
            kept.NetPrice = line.HasPrice ? line.Figures.NetPrice : null;
            kept.BasePrice = line.Build.Base?.Value;
            kept.PriceBase = line.Build.PriceBase;
            kept.NetMinor = line.Figures.Net.Minor;
        }
    }

    private static void Take(SheetLineRow row, SheetLine line)
    {
        (row.Kind, row.ItemId, row.Words) = (line.Kind, line.Item?.Value, line.Words);
        (row.Quantity, row.Unit, row.Optional, row.Note) = (line.Quantity, line.Unit.Code, line.Optional, line.Note);
        (row.Wanted, row.Cost) = (line.Wanted, line.Cost);
        (row.OneOf, row.Taken, row.Says) = (line.OneOf, line.Taken, LineSays.Write(line));
        (row.HandKind, row.HandValue) = (line.ByHand.Kind, line.ByHand.Value);
        (row.HandId, row.HandName) = (line.ByHand.By?.Person?.Value, line.ByHand.By?.Name);
        row.AlsoBy = line.AlsoBy.IsEmpty
            ? ""
            : JsonSerializer.Serialize(line.AlsoBy.Select(h => new KeptHand(h.Person?.Value, h.Name)));
        var asked = line.Asked;
        (row.AskedWords, row.AskedCode, row.AskedQuantity) = (asked.Words, asked.Code, asked.Quantity);
        (row.AskedUnit, row.AskedPrice, row.AskedPriceBase) = (asked.Unit?.Code, asked.Price, asked.PriceBase);
    }

    /// <summary>One line as it was typed.</summary>
    public static SheetLine AsTyped(this SheetLineRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return ToLine(row);
    }

    private static SheetLine ToLine(SheetLineRow l) => LineSays.Read(Typed(l), l.Says);

    private static SheetLine Typed(SheetLineRow l) =>
        new(
            l.Key,
            l.Kind,
            l.ItemId is { } id ? new ItemId(id) : null,
            l.Words,
            l.Quantity,
            Unit.Of(l.Unit),
            l.HandKind == ByHandKind.None ? ByHand.None : new ByHand(l.HandKind, l.HandValue, HandOf(l)),
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
        )
        {
            Wanted = l.Wanted,
            Cost = l.Cost,
            OneOf = l.OneOf,
            Taken = l.Taken,
            AlsoBy =
                l.AlsoBy.Length == 0
                    ? []
                    :
                    [
                        .. JsonSerializer
                            .Deserialize<List<KeptHand>>(l.AlsoBy)!
                            .Select(h => new Hand(h.P is { } p ? new PersonId(p) : null, h.N)),
                    ],
        };

    private static Hand? HandOf(SheetLineRow l) =>
        l.HandName is { } name ? new Hand(l.HandId is { } id ? new PersonId(id) : null, name) : null;

    private sealed record KeptHand(long? P, string N);
}
