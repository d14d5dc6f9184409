using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Settings
{
    // What each may be at most.
    private static readonly Dictionary<string, decimal> Most = new()
    {
        [SettingRow.InsurancePercent] = 100m,
        [SettingRow.UsualDays] = HeadTerms.MostPaymentDays,
        [SettingRow.FirstReminder] = HeadTerms.MostPaymentDays,
        [SettingRow.SecondReminder] = HeadTerms.MostPaymentDays,
        [SettingRow.ThirdReminder] = HeadTerms.MostPaymentDays,
        [SettingRow.WriteOff] = 100m,
        [SettingRow.OverDelivery] = OverDelivery.Most,
    };

    private static bool IsDays(string code) =>
        code
            is SettingRow.UsualDays
                or SettingRow.FirstReminder
                or SettingRow.SecondReminder
                or SettingRow.ThirdReminder;

    public static readonly RecordKind<SettingRow> Kind = new()
    {
        Name = "settings",
        Title = "Settings",
        One = "setting",
        Key = ["code"],
        ChangedBy = Roles.Admin,
        Check = (s, _) =>
            Checks.When(
                s.Value > Most.GetValueOrDefault(s.Code) || (IsDays(s.Code) && s.Value % 1 != 0),
                "value",
                IsDays(s.Code)
                    ? "days are whole, and at most 365"
                    : FormattableString.Invariant($"it is at most {Most.GetValueOrDefault(s.Code):0}")
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
