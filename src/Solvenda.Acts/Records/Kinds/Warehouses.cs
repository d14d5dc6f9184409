using System.Globalization;
using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Warehouses
{
    private const int MostPickingDays = 60;

    /// <summary>What is wrong with a time of day; null where nothing is.</summary>
    internal static string? Time(string text) =>
        TimeOnly.TryParseExact(text, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out _)
            ? null
            : $"“{text}” is no time; 15:00";

    public static readonly RecordKind<WarehouseRow> Kind = new()
    {
        Name = "warehouses",
        Title = "Warehouses",
        One = "warehouse",
        Key = ["code"],
        ChangedBy = Roles.Admin | Roles.Planner,
        Make = () => new WarehouseRow { Code = "" },
        Fields =
        [
            Fields.Text<WarehouseRow>(w => w.Code, "code", required: true, inList: true, hint: "its name"),
            Fields.Text<WarehouseRow>(w => w.Address, "address", inList: true),
            Fields.Text<WarehouseRow>(
                w => w.CutOff,
                "cut-off",
                required: true,
                inList: true,
                hint: "15:00; what is confirmed later leaves a day later",
                check: Time
            ),
            Fields.Whole<WarehouseRow>(w => w.PickingDays, "picking days", most: MostPickingDays, inList: true),
            Fields.Text<WarehouseRow>(
                w => w.WorkingDays,
                "working days",
                inList: true,
                hint: "Mon Tue Wed; empty: Monday to Friday",
                check: Checks.Days
            ),
        ],
    };
}
