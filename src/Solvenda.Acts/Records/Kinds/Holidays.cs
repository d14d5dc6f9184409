using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Holidays
{
    public static readonly RecordKind<HolidayRow> Kind = new()
    {
        Name = "holidays",
        Title = "Holidays",
        One = "holiday",
        Key = ["day"],
        Calls = "words",
        ChangedBy = Roles.Admin,
        Make = () => new HolidayRow { Words = "" },
        Fields =
        [
            Fields.Date<HolidayRow>(h => h.Day, "day", inList: true),
            Fields.Text<HolidayRow>(h => h.Words, "words", required: true, inList: true),
        ],
    };
}
