using Solvenda.Core.Catalogue;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class TaxRates
{
    public static readonly RecordKind<TaxRateRow> Kind = new()
    {
        Name = "tax-rates",
        Title = "Tax rates",
        One = "tax rate",
        Key = ["country", "class", "from"],
        Calls = "class",
        Make = () => new TaxRateRow(),
        Check = (t, _) => Checks.Order(t.From, t.To),
        // One rate a class, country and day: of two, nobody could say which is taken.
        Overlapping = t =>
            other =>
                other.Class == t.Class
                && other.Country == t.Country
                && (t.To == null || other.From <= t.To)
                && (other.To == null || other.To >= t.From),
        Fields =
        [
            Fields.Text<TaxRateRow>(
                t => t.Country,
                "country",
                inList: true,
                hint: "where the house is registered; empty: at home",
                check: Checks.Country
            ),
            Fields.Choice<TaxRateRow, TaxClass>(t => t.Class, "class", inList: true),
            Fields.Number<TaxRateRow>(t => t.Percent, "percent", inList: true, most: 100m),
            Fields.Date<TaxRateRow>(t => t.From, "from", inList: true),
            Fields.Date<TaxRateRow>(t => t.To, "to", inList: true),
        ],
    };
}
