using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Rates
{
    public static readonly RecordKind<ExchangeRateRow> Kind = new()
    {
        Name = "rates",
        Title = "Exchange rates",
        One = "rate",
        Key = ["currency", "day"],
        Calls = "currency",
        Make = () => new ExchangeRateRow { Currency = "" },
        Fields =
        [
            Fields.Text<ExchangeRateRow>(
                r => r.Currency,
                "currency",
                required: true,
                inList: true,
                check: Checks.Currency
            ),
            Fields.Date<ExchangeRateRow>(r => r.Day, "day", inList: true),
            Fields.Number<ExchangeRateRow>(
                r => r.Rate,
                "rate",
                inList: true,
                least: 0.000001m,
                most: 1_000_000m,
                hint: "home currency for one of it"
            ),
        ],
    };
}
