using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Costs
{
    public static readonly RecordKind<CostRow> Kind = new()
    {
        Name = "costs",
        Title = "Costs",
        One = "cost",
        Money = true,
        SeenBy = Sight.Cost,
        Key = ["item", "from"],
        Calls = "item",
        Make = () => new CostRow(),
        Fields =
        [
            Fields.Reference<CostRow>(c => c.ItemId, "item", "items", inList: true),
            Fields.Date<CostRow>(c => c.From, "from", inList: true),
            Fields.Number<CostRow>(c => c.Cost, "cost", inList: true, hint: "home currency a stock unit"),
        ],
    };
}
