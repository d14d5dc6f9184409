using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Restrictions
{
    public static readonly RecordKind<RestrictionRow> Kind = new()
    {
        Name = "restrictions",
        Title = "Restricted",
        One = "restriction",
        Key = ["name", "country"],
        Calls = "name",
        ChangedBy = Roles.Admin,
        Make = () => new RestrictionRow { Why = "" },
        Check = (r, _) => Checks.When(r.Name.Length + r.Country.Length == 0, "name", "a party, a country, or both"),
        Fields =
        [
            Fields.Text<RestrictionRow>(r => r.Name, "party", inList: true, hint: "empty for a whole country"),
            Fields.Text<RestrictionRow>(
                r => r.Country,
                "country",
                inList: true,
                hint: "two letters (ISO 3166-1); empty for a party wherever it is",
                check: Checks.CountryOrNothing
            ),
            Fields.Text<RestrictionRow>(r => r.Why, "by which list", required: true, inList: true),
        ],
    };
}
