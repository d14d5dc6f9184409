using Solvenda.Acts.Lists;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Groups
{
    public static readonly RecordKind<GroupRow> Kind = new()
    {
        Name = "groups",
        Title = "Buyer groups",
        One = "group",
        Key = ["code"],
        Make = () => new GroupRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<GroupRow>(g => g.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<GroupRow>(g => g.Words, "words", required: true, inList: true),
            Fields.CodeOf<GroupRow>(g => g.PriceList, "price list", "price-lists", inList: true),
        ],
    };
}
