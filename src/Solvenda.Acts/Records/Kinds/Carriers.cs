using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Carriers
{
    private const int Heaviest = 100_000;

    public static readonly RecordKind<CarrierRow> Kind = new()
    {
        Name = "carriers",
        Title = "Carriers",
        One = "carrier",
        Key = ["code"],
        ChangedBy = Roles.Admin | Roles.Planner,
        Make = () => new CarrierRow { Code = "" },
        Fields =
        [
            Fields.Text<CarrierRow>(c => c.Code, "code", required: true, inList: true, hint: "their name"),
            Fields.Text<CarrierRow>(c => c.Carries, "carries", inList: true, hint: "parcels, pallets"),
            Fields.Text<CarrierRow>(
                c => c.Services,
                "services",
                inList: true,
                hint: "freight services that they do, apart by commas; empty: all"
            ),
            Fields.Number<CarrierRow>(c => c.MostKg, "most kg", most: Heaviest, inList: true),
            Fields.Text<CarrierRow>(
                c => c.CutOff,
                "comes at",
                required: true,
                inList: true,
                hint: "15:00, by the warehouse’s clock",
                check: Warehouses.Time
            ),
            Fields.Text<CarrierRow>(
                c => c.Form,
                "their file",
                hint: "columns, as “Reference = shipment; Name = to; Weight = kg”; empty: all there is",
                check: CarrierForm.Fault
            ),
            Fields.Flag<CarrierRow>(
                c => c.ByFile,
                "told by file",
                hint: "of each shipment as it goes, in their folder; what they lay there is taken in"
            ),
            Fields.Text<CarrierRow>(
                c => c.FollowAt,
                "followed at",
                hint: "address of a page, with {0} for the number",
                check: t =>
                    Uri.TryCreate(t.Replace("{0}", "1", StringComparison.Ordinal), UriKind.Absolute, out var uri)
                    && uri.Scheme is ("https" or "http")
                        ? null
                        : $"“{t}” is no address of a page"
            ),
        ],
    };
}
