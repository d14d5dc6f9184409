using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Contacts
{
    public static readonly RecordKind<ContactRow> Kind = new()
    {
        Name = "contacts",
        Title = "Contacts",
        One = "contact",
        Key = ["buyer", "name"],
        Calls = "name",
        ChangedBy = Roles.Admin | Roles.Lead | Roles.Desk | Roles.Seller,
        Make = () => new ContactRow { Name = "" },
        Fields =
        [
            Fields.Reference<ContactRow>(c => c.BuyerId, "buyer", "buyers", inList: true),
            Fields.Text<ContactRow>(c => c.Name, "name", required: true, inList: true),
            Fields.Text<ContactRow>(c => c.Does, "does", inList: true),
            Fields.Text<ContactRow>(c => c.Mail, "mail", inList: true, check: Checks.Mail),
            Fields.Text<ContactRow>(c => c.Phone, "phone", inList: true),
        ],
    };
}
