using Solvenda.Acts.Lists;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Families
{
    public static readonly RecordKind<FamilyRow> Kind = new()
    {
        Name = "families",
        Title = "Families",
        One = "family",
        Key = ["code"],
        Make = () => new FamilyRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<FamilyRow>(f => f.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<FamilyRow>(f => f.Words, "words", required: true, inList: true),
            Fields.Number<FamilyRow>(
                f => f.LeastMarginPercent,
                "least margin",
                inList: true,
                most: 99m,
                hint: "percent; the floor follows from it"
            ),
        ],
    };
}
