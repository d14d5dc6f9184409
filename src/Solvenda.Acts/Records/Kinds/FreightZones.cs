using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class FreightZones
{
    public static readonly RecordKind<FreightZoneRow> Kind = new()
    {
        Name = "freight-zones",
        Title = "Freight zones",
        One = "zone",
        Key = ["country"],
        Calls = "country",
        Make = () => new FreightZoneRow { Country = "", Zone = "" },
        Fields =
        [
            Fields.Text<FreightZoneRow>(z => z.Country, "country", required: true, inList: true, check: Checks.Country),
            Fields.Text<FreightZoneRow>(z => z.Zone, "zone", required: true, inList: true),
        ],
    };
}
