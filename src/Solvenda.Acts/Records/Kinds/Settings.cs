using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Settings
{
    public static readonly RecordKind<SettingRow> Kind = new()
    {
        Name = "settings",
        Title = "Settings",
        One = "setting",
        Key = ["code"],
        ChangedBy = Roles.Admin,
        Make = () => new SettingRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<SettingRow>(
                s => s.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                check: t => t == SettingRow.InsurancePercent ? null : $"there is no setting “{t}”"
            ),
            Fields.Text<SettingRow>(s => s.Words, "words", required: true, inList: true),
            Fields.Number<SettingRow>(s => s.Value, "value", inList: true, least: 0m, most: 100m),
        ],
    };
}
