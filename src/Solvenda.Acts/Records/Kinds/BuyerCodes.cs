using System.Globalization;
using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class BuyerCodes
{
    public static readonly RecordKind<AliasRow> Kind = new()
    {
        Name = "buyer-codes",
        Title = "Buyers' codes",
        One = "buyer's code",
        Key = ["buyer", "words"],
        Calls = "words",
        ChangedBy = Roles.Admin | Roles.Lead | Roles.Desk | Roles.Seller,
        Make = () => new AliasRow { Words = "" },
        Fields =
        [
            new Field<AliasRow>(
                "buyer",
                "buyer",
                FieldType.Reference,
                (a, references) => a.BuyerId is { } id ? references.CodeOf("buyers", id) : "",
                (a, text, references) =>
                {
                    if (text.Length > 0 && references.IdOf("buyers", text) is null)
                        return $"there is no buyer “{text}”";
                    a.BuyerId = text.Length == 0 ? null : references.IdOf("buyers", text);
                    return null;
                }
            )
            {
                InList = true,
                Of = "buyers",
                Property = nameof(AliasRow.BuyerId),
                Show = (a, references) => a.BuyerId is { } id ? references.ShownOf("buyers", id) : "everybody",
                Hint = "empty: whoever writes it",
            },
            // Kept in the form in which messages are compared with it.
            new Field<AliasRow>(
                "words",
                "their code or words",
                FieldType.Text,
                (a, _) => a.Words,
                (a, text, _) =>
                {
                    a.Words = Core.Reading.ItemFinder.Normal(text);
                    return null;
                }
            )
            {
                Required = true,
                InList = true,
                AlsoCalled = ["their code", "buyer code", "customer code"],
                Property = nameof(AliasRow.Words),
            },
            Fields.Reference<AliasRow>(a => a.ItemId, "item", "items", inList: true),
            Fields.Number<AliasRow>(a => a.Quantity, "quantity", hint: "where the words mean one, as “the usual”"),
            Fields.Text<AliasRow>(a => a.Unit, "unit", check: Checks.UnitCode, read: Checks.UnitOf),
            new Field<AliasRow>(
                "learnedFrom",
                "learned from",
                FieldType.Text,
                (a, _) => a.LearnedFrom,
                (_, _, _) => null
            )
            {
                InList = true,
                ByHouse = true,
                Property = nameof(AliasRow.LearnedFrom),
            },
            new Field<AliasRow>(
                "helped",
                "helped",
                FieldType.Whole,
                (a, _) => a.Helped.ToString(CultureInfo.InvariantCulture),
                (_, _, _) => null
            )
            {
                InList = true,
                ByHouse = true,
                Hint = "so many requests were read by it",
                Property = nameof(AliasRow.Helped),
            },
        ],
    };
}
