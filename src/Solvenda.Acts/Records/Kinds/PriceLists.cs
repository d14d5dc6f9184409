using Solvenda.Acts.Lists;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class PriceLists
{
    public static readonly RecordKind<PriceListRow> Kind = new()
    {
        Name = "price-lists",
        Title = "Price lists",
        One = "price list",
        Key = ["code"],
        Make = () => new PriceListRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<PriceListRow>(l => l.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<PriceListRow>(l => l.Words, "words", required: true, inList: true),
        ],
    };
}
