using System.Globalization;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Wordings;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Buyers
{
    private const Roles Writers = Roles.Admin | Roles.Lead | Roles.Desk | Roles.Seller;

    public static readonly RecordKind<BuyerRow> Kind = new()
    {
        Name = "buyers",
        OwnOn = OwnOn.Buyers,
        Title = "Buyers",
        One = "buyer",
        Key = ["code"],
        Calls = "name",
        ChangedBy = Writers | Roles.Credit,
        Make = () =>
            new BuyerRow
            {
                Code = "",
                Name = "",
                Country = "",
                Currency = "",
            },
        Owner = (_, row, _) => Task.FromResult(row.AccountManagerId),
        Check = Whole,
        Figures = KeptFigures.OfBuyer,
        Askable = ["creditLimit"],
        Settle = Territories.SettleAsync,
        Seldom =
        [
            "parent",
            "billTo",
            "shippingRule",
            "overDelivery",
            "taxExempt",
            "printedNote",
            "creditUntil",
            "creditInsured",
            "creditBlocked",
        ],
        Fields =
        [
            Fields.Text<BuyerRow>(
                b => b.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                also: ["customer number", "buyer"]
            ),
            Fields.Text<BuyerRow>(b => b.Name, "name", required: true, inList: true),
            Fields.Text<BuyerRow>(
                b => b.Country,
                "country",
                required: true,
                inList: true,
                hint: "two letters",
                check: Checks.Country
            ),
            Fields.Text<BuyerRow>(b => b.Currency, "currency", required: true, inList: true, check: Checks.Currency),
            Fields.Flag<BuyerRow>(
                b => b.IsProspect,
                "prospect",
                inList: true,
                hint: "a customer has terms, a tax number where it needs one, and a credit limit"
            ),
            Fields
                .Reference<BuyerRow>(b => b.AccountManagerId, "account manager", "people", inList: true)
                .OfMoney(RecordKind.MoneyBy),
            Fields
                .CodeOf<BuyerRow>(b => b.Territory, "territory", "territories", inList: true)
                .OfMoney(RecordKind.MoneyBy),
            Fields.CodeOf<BuyerRow>(b => b.Group, "group", "groups", inList: true).OfMoney(RecordKind.MoneyBy),
            Fields.Reference<BuyerRow>(b => b.ParentId, "parent", "buyers").OfMoney(RecordKind.MoneyBy),
            Fields.CodeOf<BuyerRow>(b => b.PriceList, "price list", "price-lists").OfMoney(RecordKind.MoneyBy),
            Fields.Text<BuyerRow>(b => b.ContactName, "contact", also: ["contact name"]),
            Fields.Text<BuyerRow>(b => b.ContactMail, "mail", also: ["e-mail", "email"], check: Checks.Mail),
            Fields.Text<BuyerRow>(b => b.Phone, "phone"),
            Fields.Text<BuyerRow>(b => b.Address, "address"),
            Fields.Text<BuyerRow>(b => b.DeliverTo, "deliver to"),
            Fields.Text<BuyerRow>(b => b.DeliverToCountry, "deliver-to country", check: Checks.Country),
            Fields.Text<BuyerRow>(b => b.BillTo, "bill to"),
            Fields
                .Whole<BuyerRow>(
                    b => b.PaymentDays,
                    "days to pay",
                    most: 365,
                    inList: true,
                    also: ["payment days", "payment terms"]
                )
                .OfMoney(RecordKind.MoneyBy | Roles.Credit),
            Fields
                .Text<BuyerRow>(
                    b => b.PaymentPlan,
                    "pays otherwise",
                    check: t => PaymentPlan.Read(t, out var fault) is null ? fault : null,
                    hint: "30 end of month; 30, less 2 % in 10; 30 % in 0, 70 % in 60",
                    also: ["payment plan"]
                )
                .OfMoney(RecordKind.MoneyBy | Roles.Credit),
            Fields.Text<BuyerRow>(b => b.Incoterm, "Incoterm", check: Checks.Incoterm).OfMoney(RecordKind.MoneyBy),
            Fields.Text<BuyerRow>(b => b.IncotermPlace, "named place", also: ["incoterm place"]),
            Fields.CodeOf<BuyerRow>(b => b.ShipFrom, "ship from", "warehouses"),
            Fields.Whole<BuyerRow>(b => b.TransitDays, "days on the road", most: 120, also: ["transit days"]),
            Fields.Text<BuyerRow>(
                b => b.ShippingRule,
                "shipping rule",
                hint: "all together, whole lines, as it comes, on call",
                check: t => ShippingRules.Words.Contains(t) ? null : $"“{t}” is not a shipping rule"
            ),
            Fields.Number<BuyerRow>(
                b => b.OverDelivery,
                "takes more by",
                most: Core.Shipping.OverDelivery.Most,
                hint: "percent beyond what was ordered; nothing: as the house says",
                also: ["over-delivery"]
            ),
            Fields.Text<BuyerRow>(b => b.TaxNumber, "tax number").OfMoney(RecordKind.MoneyBy),
            Fields.Flag<BuyerRow>(b => b.TaxExempt, "tax exempt").OfMoney(RecordKind.MoneyBy),
            .. BuyerCredit.Fields,
            Fields.Flag<BuyerRow>(b => b.PoNumberRequired, "PO number required"),
            Fields.Text<BuyerRow>(
                b => b.DocumentsBy,
                "documents go by",
                hint: "mail, edi, paper",
                check: DocumentsBy.Fault
            ),
            Fields.Flag<BuyerRow>(
                b => b.CollectsInvoices,
                "one invoice a month",
                hint: "for all that went, instead of one for each order"
            ),
            Fields.Text<BuyerRow>(
                b => b.Language,
                "language",
                required: true,
                hint: "of documents and letters: " + string.Join(", ", Wording.All.Keys),
                check: Wording.Fault
            ),
            Fields.Text<BuyerRow>(b => b.Note, "note", hint: "for the house; never printed"),
            Fields.Text<BuyerRow>(b => b.PrintedNote, "printed note"),
            Fields.Text<BuyerRow>(b => b.WarehouseNote, "for the warehouse", hint: "on lists for picking and packing"),
            Fields.Flag<BuyerRow>(
                b => b.WantsCertificates,
                "only with certificate",
                hint: "they take goods only with the certificate that belongs to them"
            ),
        ],
    };

    // What a customer needs and a prospect does not: turning one into the other asks for all of it.
    private static IEnumerable<(string Field, string Words)> Whole(BuyerRow b, References references) =>
        [
            .. Checks.When(b.ParentId == b.Id && b.Id != 0, "parent", "a buyer is not its own parent"),
            .. b.IsProspect ? [] : Customer(b),
        ];

    private static IEnumerable<(string Field, string Words)> Customer(BuyerRow b) =>
        [
            .. Checks.When(b.PaymentDays is null, "paymentDays", "a customer has payment terms"),
            .. Checks.When(string.IsNullOrEmpty(b.Incoterm), "incoterm", "a customer has an Incoterm"),
            .. Checks.When(
                string.IsNullOrEmpty(b.ContactMail),
                "contactMail",
                "a customer has a mail address for confirmations"
            ),
            .. Checks.When(
                string.IsNullOrEmpty(b.DocumentsBy),
                "documentsBy",
                "a customer has a way for documents: mail, edi or paper"
            ),
            .. Checks.When(string.IsNullOrEmpty(b.Address), "address", "a customer has an address for invoices"),
        ];
}
