using System.Collections.Immutable;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>
/// What goes with goods that leave the Union, for customs: a commercial invoice with the code, the origin and the worth
/// of each, and a packing list with what they weigh. Its own words are English, which customs read everywhere.
/// </summary>
public static class ExportPapers
{
    /// <summary>Whether goods of an order leave the Union.</summary>
    public static bool Needed(Head head, BuyerRow buyer)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        return !TaxRules.IsInUnion(HeadTerms.DeliverToCountry.In(head) ?? buyer.Country);
    }

    /// <param name="lines">Those that are delivered, in the order of the sheet.</param>
    /// <param name="items">Of them, by their keys.</param>
    public static PrintedDocument CommercialInvoice(
        OpenSheet open,
        ShipmentRow shipment,
        IReadOnlyList<DeliveredLine> lines,
        IReadOnlyDictionary<long, ItemRow> items,
        Seller seller
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(lines);
        var currency = Currency.Of(open.Sheet.Currency);
        var priced = open.Sheet.Priced(open.Buyer, open.Book).Lines.ToDictionary(l => l.Line.Key);
        var numbers = LineNumbers.Of(open.ToDraft().Lines);
        var worth = lines.ToDictionary(
            l => l.Line.Key,
            l =>
            {
                var of = priced[l.Line.Key];
                return Amount.Round(l.Delivered * of.Figures.NetPrice / of.Terms.PriceBase, currency);
            }
        );
        return Of(
            open,
            shipment,
            seller,
            "Commercial invoice",
            currency.Code,
            new PrintedLabels("goods", "quantity", "price", "", "", "", "page {0}"),
            [
                .. lines.Select(l =>
                    Line(
                        numbers[l.Line.Key],
                        l,
                        items,
                        Number(priced[l.Line.Key].Figures.NetPrice / priced[l.Line.Key].Terms.PriceBase, "0.00##"),
                        Number(worth[l.Line.Key].Value, "#,0.00##")
                    )
                ),
            ],
            [($"worth in all, {currency.Code}", Number(Amount.Sum(worth.Values, currency).Value, "#,0.00##"), true)],
            ["The worth is for customs alone; what is to be paid stands on the invoice."]
        );
    }

    /// <inheritdoc cref="CommercialInvoice" />
    public static PrintedDocument PackingList(
        OpenSheet open,
        ShipmentRow shipment,
        IReadOnlyList<DeliveredLine> lines,
        IReadOnlyDictionary<long, ItemRow> items,
        Seller seller
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(shipment);
        ArgumentNullException.ThrowIfNull(lines);
        var numbers = LineNumbers.Of(open.ToDraft().Lines);
        var masses = lines.ToDictionary(l => l.Line.Key, l => MassOf(shipment, l, items));
        return Of(
            open,
            shipment,
            seller,
            "Packing list",
            "net kg",
            new PrintedLabels("goods", "quantity", "", "", "", "", "page {0}"),
            [
                .. lines.Select(l =>
                    Line(numbers[l.Line.Key], l, items, "", masses[l.Line.Key] is { } kg ? Number(kg, "#,0.0##") : "")
                ),
            ],
            [
                ("net, kg", Number(masses.Values.Sum(m => m ?? 0m), "#,0.0##"), false),
                ("gross, kg", shipment.WeightKg is { } gross ? Number(gross, "#,0.0##") : "not weighed", false),
                ("parcels", shipment.Parcels > 0 ? Number(shipment.Parcels, "0") : "not counted", true),
            ],
            []
        );
    }

    private static PrintedDocument Of(
        OpenSheet open,
        ShipmentRow shipment,
        Seller seller,
        string title,
        string last,
        PrintedLabels labels,
        ImmutableArray<PrintedLine> lines,
        ImmutableArray<(string, string, bool)> totals,
        ImmutableArray<string> closing
    )
    {
        var head = open.Sheet.Head;
        (string Label, string Value)[] facts =
        [
            ("our order", open.Order!.Number),
            ("your PO", open.Sheet.PoNumber ?? ""),
            ("delivery", $"{HeadTerms.Incoterm.In(head)} {HeadTerms.IncotermPlace.In(head)}".Trim()),
            ("carried by", shipment.Carrier),
            ("our tax number", seller.TaxNumber),
            ("your tax number", open.Buyer.TaxNumber ?? ""),
        ];
        return new PrintedDocument(
            seller.Name,
            seller.Address,
            title,
            shipment.Number,
            SheetPrint.AddressLines(open, shipment.DeliverTo),
            [.. facts.Where(f => f.Value.Length > 0)],
            "",
            last,
            lines,
            totals,
            [],
            closing,
            string.Join(" · ", new[] { seller.Name, seller.Address[0] }),
            labels,
            null
        ).On(seller);
    }

    private static PrintedLine Line(
        string number,
        DeliveredLine line,
        IReadOnlyDictionary<long, ItemRow> items,
        string price,
        string amount
    )
    {
        var sold = line.Line;
        var item = sold.Item is { } id ? items.GetValueOrDefault(id.Value) : null;
        string[] says =
        [
            item is null ? "" : $"HS {(item.HsCode.Length > 0 ? item.HsCode : "not said")}",
            item is null ? "" : $"origin {(item.Origin.Length > 0 ? item.Origin : "not said")}",
        ];
        return new PrintedLine(
            false,
            number,
            item?.Code ?? "",
            sold.Words,
            string.Join(" · ", says.Where(s => s.Length > 0)),
            $"{Number(line.Delivered, "#,0.###")} {Core.Units.UnitTable.OnSheet(sold.Unit)}".Trim(),
            price,
            "",
            amount,
            false,
            ""
        );
    }

    // Of what was taken from the shelves for it; null where an item has no mass.
    private static decimal? MassOf(ShipmentRow shipment, DeliveredLine line, IReadOnlyDictionary<long, ItemRow> items)
    {
        var sum = 0m;
        foreach (var pick in shipment.Picks.Where(p => p.LineKey == line.Line.Key))
        {
            var item = items.GetValueOrDefault(pick.ItemId);
            if ((item?.NetKg ?? item?.WeightKg) is not { } kg)
                return null;
            sum += kg * pick.Quantity;
        }
        return sum;
    }

    private static string Number(decimal value, string form) =>
        value.ToString(form, System.Globalization.CultureInfo.InvariantCulture);
}
