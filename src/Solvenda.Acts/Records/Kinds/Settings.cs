using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Settings
{
    // What each may be at most.
    private static readonly Dictionary<string, decimal> Most = new()
    {
        [SettingRow.InsurancePercent] = 100m,
        [SettingRow.UsualDays] = HeadTerms.MostPaymentDays,
    };

    public static readonly RecordKind<SettingRow> Kind = new()
    {
        Name = "settings",
        Title = "Settings",
        One = "setting",
        Key = ["code"],
        ChangedBy = Roles.Admin,
        Check = (s, _) =>
            Checks.When(
                s.Value > Most.GetValueOrDefault(s.Code) || (s.Code == SettingRow.UsualDays && s.Value % 1 != 0),
                "value",
                s.Code == SettingRow.UsualDays ? "days are whole, and at most 365" : "a percentage is at most 100"
            ),
        Make = () => new SettingRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<SettingRow>(
                s => s.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                check: t =>
                    Most.ContainsKey(t) ? null : $"there is no setting “{t}”; there are {string.Join(", ", Most.Keys)}"
            ),
            Fields.Text<SettingRow>(s => s.Words, "words", required: true, inList: true),
            Fields.Number<SettingRow>(s => s.Value, "value", inList: true, least: 0m, most: 365m),
        ],
    };
}
