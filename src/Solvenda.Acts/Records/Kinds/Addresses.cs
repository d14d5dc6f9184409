using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Addresses
{
    public static readonly RecordKind<AddressRow> Kind = new()
    {
        Name = "addresses",
        Title = "Addresses",
        One = "address",
        Key = ["buyer", "code"],
        ChangedBy = Roles.Admin | Roles.Lead | Roles.Desk | Roles.Seller,
        Make = () =>
            new AddressRow
            {
                Code = "",
                Use = "deliver-to",
                Words = "",
                Country = "",
            },
        Fields =
        [
            Fields.Reference<AddressRow>(a => a.BuyerId, "buyer", "buyers", inList: true),
            Fields.Text<AddressRow>(a => a.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<AddressRow>(
                a => a.Use,
                "for",
                required: true,
                inList: true,
                hint: "deliver-to or bill-to",
                check: t => t is "deliver-to" or "bill-to" ? null : $"“{t}” is neither deliver-to nor bill-to"
            ),
            Fields.Text<AddressRow>(a => a.Words, "address", required: true, inList: true),
            Fields.Text<AddressRow>(a => a.Country, "country", required: true, inList: true, check: Checks.Country),
            Fields.Text<AddressRow>(
                a => a.ReceivingDays,
                "receives on",
                hint: "Mon Tue Wed; empty: every working day",
                check: Checks.Days
            ),
        ],
    };
}
