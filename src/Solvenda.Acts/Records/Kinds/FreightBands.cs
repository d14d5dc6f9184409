using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class FreightBands
{
    public static readonly RecordKind<FreightBandRow> Kind = new()
    {
        Name = "freight",
        Title = "Freight",
        One = "freight price",
        Key = ["zone", "service", "upToKg", "from"],
        Calls = "zone",
        Make = () =>
            new FreightBandRow
            {
                Zone = "",
                Service = "",
                Currency = "",
            },
        Check = (b, _) => Checks.Order(b.From, b.To),
        Fields =
        [
            Fields.Text<FreightBandRow>(b => b.Zone, "zone", required: true, inList: true),
            Fields.Text<FreightBandRow>(b => b.Service, "service", required: true, inList: true),
            Fields.Number<FreightBandRow>(b => b.UpToKg, "up to", inList: true, hint: "kg, weight or volume weight"),
            Fields.Number<FreightBandRow>(b => b.Price, "price", inList: true),
            Fields.Text<FreightBandRow>(
                b => b.Currency,
                "currency",
                required: true,
                inList: true,
                check: Checks.Currency
            ),
            Fields.Date<FreightBandRow>(b => b.From, "from", inList: true),
            Fields.Date<FreightBandRow>(b => b.To, "to", inList: true),
        ],
    };
}
