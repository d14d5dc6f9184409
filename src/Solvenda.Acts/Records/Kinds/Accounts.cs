using Solvenda.Acts.Lists;
using Solvenda.Core.Ledger;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Accounts
{
    public static readonly RecordKind<AccountRow> Kind = new()
    {
        Name = "accounts",
        Title = "Accounts",
        One = "account",
        Key = ["code"],
        ChangedBy = Roles.Admin,
        Make = () => new AccountRow { Code = "", Words = "" },
        Fields =
        [
            Fields.Text<AccountRow>(a => a.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<AccountRow>(a => a.Words, "words", required: true, inList: true),
            Fields.Choice<AccountRow, AccountUse>(
                a => a.Use,
                "used for",
                inList: true,
                hint: "what is booked there by itself"
            ),
            Fields.Text<AccountRow>(
                a => a.TaxCategory,
                "tax category",
                inList: true,
                hint: "S Z E K G: for this one alone; empty for all"
            ),
        ],
    };
}
