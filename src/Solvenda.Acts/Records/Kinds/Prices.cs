using Solvenda.Acts.Lists;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Prices
{
    public static readonly RecordKind<ListPriceRow> Kind = new()
    {
        Name = "prices",
        Title = "Prices",
        One = "price",
        Money = true,
        Figures = KeptFigures.OfPrice,
        Key = ["list", "item", "unit", "currency", "from"],
        Calls = "item",
        Make = () =>
            new ListPriceRow
            {
                List = "",
                Unit = "",
                Currency = "",
            },
        Check = (p, _) =>
            [
                .. Checks.Order(p.From, p.To),
                .. Checks.When(p.PriceBase <= 0, "priceBase", "a price is for more than nothing"),
            ],
        Fields =
        [
            Fields.CodeOf<ListPriceRow>(
                p => p.List,
                "list",
                "price-lists",
                required: true,
                inList: true,
                also: ["price list"]
            ),
            Fields.Reference<ListPriceRow>(p => p.ItemId, "item", "items", inList: true, also: ["item code", "sku"]),
            Fields.Text<ListPriceRow>(
                p => p.Unit,
                "unit",
                required: true,
                inList: true,
                type: FieldType.Code,
                check: Checks.UnitCode,
                read: Checks.UnitOf
            ),
            Fields.Number<ListPriceRow>(p => p.Price, "price", inList: true),
            Fields.Text<ListPriceRow>(
                p => p.Currency,
                "currency",
                required: true,
                inList: true,
                check: Checks.Currency
            ),
            Fields.Number<ListPriceRow>(
                p => p.PriceBase,
                "per",
                inList: true,
                hint: "units that the price is for: 1, 100",
                also: ["price base"]
            ),
            Fields.Date<ListPriceRow>(p => p.From, "from", inList: true),
            Fields.Date<ListPriceRow>(p => p.To, "to", inList: true, hint: "the last day; empty: until further notice"),
        ],
    };
}
