using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Lists;
using Solvenda.Core.Catalogue;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Items
{
    public static readonly RecordKind<ItemRow> Kind = new()
    {
        Name = "items",
        OwnOn = OwnOn.Items,
        Title = "Items",
        One = "item",
        Key = ["code"],
        Make = () =>
            new ItemRow
            {
                Code = "",
                Words = "",
                Family = "",
                StockUnit = "C62",
            },
        Rows = db => db.Items.Include(i => i.SalesUnits),
        Check = Whole,
        Seldom =
        [
            "volumeDm3",
            "dimensions",
            "packMultiple",
            "leastQuantity",
            "dangerousGoods",
            "forbiddenModes",
            "notSoldIn",
            "notByChannel",
            "alternatives",
        ],
        Fields =
        [
            Fields.Text<ItemRow>(
                i => i.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                also: ["item", "item code", "sku", "article"]
            ),
            Fields.Text<ItemRow>(i => i.Words, "words", required: true, inList: true, also: ["name", "description"]),
            Fields.CodeOf<ItemRow>(i => i.Family, "family", "families", required: true, inList: true),
            Fields.Text<ItemRow>(
                i => i.StockUnit,
                "stock unit",
                required: true,
                inList: true,
                hint: "UN/ECE Rec 20, such as MTR or C62",
                type: FieldType.Code,
                also: ["unit"],
                check: Checks.UnitCode,
                read: Checks.UnitOf
            ),
            new Field<ItemRow>(
                "salesUnits",
                "sales units",
                FieldType.Text,
                (i, _) =>
                    string.Join(
                        "; ",
                        i.SalesUnits.OrderBy(u => u.Unit, StringComparer.Ordinal)
                            .Select(u => string.Create(CultureInfo.InvariantCulture, $"{u.Unit} = {u.Factor:0.######}"))
                    ),
                SetUnits
            )
            {
                Hint = "stock units in each: CL = 200; PF = 2400",
                InList = true,
            },
            Fields.Text<ItemRow>(
                i => i.Gtin,
                "GTIN",
                inList: true,
                type: FieldType.Code,
                also: ["ean", "barcode"],
                check: Checks.Gtin
            ),
            Fields.Choice<ItemRow, TaxClass>(i => i.TaxClass, "tax class"),
            Fields.Flag<ItemRow>(i => i.Stocked, "kept in stock", hint: "no for a service", also: ["stocked"]),
            Fields
                .Number<ItemRow>(i => i.FloorPrice, "floor price", hint: "home currency a stock unit")
                .OfMoney(RecordKind.MoneyBy, Sight.Cost),
            Fields.Whole<ItemRow>(
                i => i.LeadDays,
                "lead time",
                most: 365,
                hint: "working days until it is bought or made; empty where it cannot be",
                also: ["lead days"]
            ),
            Fields.Number<ItemRow>(i => i.WeightKg, "weight", hint: "kg a stock unit", also: ["weight kg", "kg"]),
            Fields.Number<ItemRow>(
                i => i.NetKg,
                "net mass",
                hint: "kg a stock unit, without packing",
                also: ["net kg"]
            ),
            Fields.Text<ItemRow>(
                i => i.HsCode,
                "HS code",
                check: t =>
                    t.Length is 0 or (>= 6 and <= 10) && t.All(char.IsAsciiDigit)
                        ? null
                        : "an HS code has six to ten digits",
                hint: "Harmonized System; for goods that leave the Union",
                also: ["tariff number"]
            ),
            Fields.Text<ItemRow>(
                i => i.Origin,
                "origin",
                check: Checks.CountryOrNothing,
                hint: "country in which it was made, two capital letters",
                also: ["country of origin"]
            ),
            Fields.Number<ItemRow>(i => i.VolumeDm3, "volume", hint: "dm³ a stock unit"),
            Fields.Text<ItemRow>(i => i.Dimensions, "dimensions"),
            Fields.Number<ItemRow>(i => i.PackMultiple, "packed by", hint: "stock units; only whole packs are sold"),
            Fields.Number<ItemRow>(i => i.LeastQuantity, "least quantity", hint: "stock units"),
            Fields.Text<ItemRow>(
                i => i.DangerousGoods,
                "dangerous goods",
                hint: "UN number and class: UN 1263, class 3"
            ),
            Fields.Text<ItemRow>(i => i.ForbiddenModes, "not by", hint: "ways of transport: post air"),
            Fields.Text<ItemRow>(i => i.NotSoldIn, "not sold in", hint: "countries, apart by blanks"),
            Fields.Text<ItemRow>(i => i.NotByChannel, "not sold by", hint: "channels, apart by blanks"),
            Fields.CodeOf<ItemRow>(i => i.Successor, "successor", "items", inList: true),
            Fields.Text<ItemRow>(i => i.Alternatives, "alternatives", hint: "codes, apart by blanks"),
            Fields.Text<ItemRow>(
                i => i.ExportNote,
                "export licence",
                hint: "why it leaves the Union only under a licence; empty where it needs none"
            ),
            Fields.Text<ItemRow>(i => i.Certificate, "certificate", hint: "that comes with it: EN 10204 3.1"),
            Fields.Flag<ItemRow>(i => i.HasSerials, "serial numbers", hint: "each piece is known by its own"),
            Fields.Flag<ItemRow>(i => i.HasLots, "lots", hint: "whoever picks it says which it is of"),
            new Field<ItemRow>("parts", "parts", FieldType.Text, (i, _) => i.Parts, SetParts)
            {
                Hint = "of a bundle: CHN-SL-10 x 5; SWV-GV-10 x 1",
                Property = nameof(ItemRow.Parts),
            },
            Fields.Text<ItemRow>(
                i => i.WordsElsewhere,
                "in other languages",
                hint: "sv: …; de: …",
                type: FieldType.ByLanguage,
                check: Checks.ByLanguage
            ),
        ],
    };

    private static string? SetUnits(ItemRow item, string text, References references)
    {
        var units = new List<SalesUnitRow>();
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var pair = part.Split('=', StringSplitOptions.TrimEntries);
            pair[0] = Checks.UnitOf(pair[0]);
            if (
                pair.Length != 2
                || Checks.UnitCode(pair[0]) is not null
                || Numbers.Read(pair[1]) is not { } factor
                || factor <= 0
            )
                return $"“{part}” is not a unit and how many stock units it holds, as CL = 200";
            if (units.Any(u => u.Unit == pair[0]))
                return $"{pair[0]} stands twice";
            units.Add(
                new SalesUnitRow
                {
                    ItemId = item.Id,
                    Unit = pair[0],
                    Factor = decimal.Round(factor, 6),
                }
            );
        }
        // Rows that stay are kept, so that only what changed is written.
        item.SalesUnits.RemoveAll(u => units.All(n => n.Unit != u.Unit));
        foreach (var unit in units)
        {
            if (item.SalesUnits.FirstOrDefault(u => u.Unit == unit.Unit) is { } old)
                old.Factor = unit.Factor;
            else
                item.SalesUnits.Add(unit);
        }
        return null;
    }

    private static string? SetParts(ItemRow item, string text, References references)
    {
        foreach (var (code, quantity) in PartsText.Parse(text))
        {
            if (quantity <= 0)
                return $"“{code}” has no quantity, as {code} x 2";
            if (references.IdOf("items", code) is not { } id)
                return $"there is no item “{code}”";
            if (id == item.Id && item.Id != 0)
                return "a bundle is no part of itself";
        }
        item.Parts = text;
        return null;
    }

    private static IEnumerable<(string Field, string Words)> Whole(ItemRow item, References references) =>
        [
            .. Checks.When(
                item.SalesUnits.Any(u => u.Unit == item.StockUnit),
                "salesUnits",
                $"{item.StockUnit} is the stock unit itself"
            ),
            .. Checks.When(
                item.Successor is { } successor
                    && string.Equals(successor, item.Code, StringComparison.OrdinalIgnoreCase),
                "successor",
                "an item does not follow itself"
            ),
        ];
}
