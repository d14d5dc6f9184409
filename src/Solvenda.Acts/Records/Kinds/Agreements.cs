using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Lists;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Agreements
{
    public static readonly RecordKind<AgreementRow> Kind = new()
    {
        Name = "agreements",
        Title = "Agreements",
        One = "agreement",
        Key = ["code"],
        Money = true,
        Figures = KeptFigures.OfAgreement,
        Owner = async (db, row, cancel) =>
            await db.Buyers.Where(b => b.Id == row.BuyerId).Select(b => b.AccountManagerId).FirstOrDefaultAsync(cancel),
        Make = () => new AgreementRow { Code = "", Words = "" },
        Rows = db => db.Agreements.Include(a => a.Breaks),
        Check = Whole,
        Seldom = ["group", "currency", "combines", "breakGroup"],
        Fields =
        [
            Fields.Reference<AgreementRow>(a => a.BuyerId, "buyer", "buyers", inList: true),
            Fields.CodeOf<AgreementRow>(a => a.Group, "group", "groups", inList: true),
            Fields.Choice<AgreementRow, RuleScope>(a => a.Scope, "covers"),
            Fields.Reference<AgreementRow>(a => a.ItemId, "item", "items", inList: true),
            Fields.CodeOf<AgreementRow>(a => a.Family, "family", "families", inList: true),
            Fields.Choice<AgreementRow, RuleKind>(a => a.Kind, "kind", inList: true),
            new Field<AgreementRow>(
                "breaks",
                "breaks",
                FieldType.Text,
                (a, _) =>
                    string.Join(
                        "; ",
                        a.Breaks.OrderBy(b => b.From)
                            .Select(b =>
                                string.Create(CultureInfo.InvariantCulture, $"{b.From:0.######}: {b.Value:0.######}")
                            )
                    ),
                SetBreaks
            )
            {
                Required = true,
                InList = true,
                Hint = "from which quantity which price, percentage or amount: 0: 8; 200: 10",
                AlsoCalled = ["value"],
            },
            Fields.Date<AgreementRow>(a => a.From, "from", inList: true),
            Fields.Date<AgreementRow>(a => a.To, "to", inList: true, hint: "the last day"),
            Fields.Text<AgreementRow>(
                a => a.Code,
                "code",
                required: true,
                inList: true,
                type: FieldType.Code,
                also: ["agreement"]
            ),
            Fields.Text<AgreementRow>(a => a.Words, "words", required: true, inList: true),
            Fields.Text<AgreementRow>(
                a => a.Currency,
                "currency",
                hint: "of a price or an amount; empty: home",
                check: Checks.Currency
            ),
            Fields.Flag<AgreementRow>(a => a.Combines, "combines with campaigns"),
            Fields.Text<AgreementRow>(
                a => a.BreakGroup,
                "break group",
                hint: "agreements of one group reach their breaks together"
            ),
        ],
    };

    private static string? SetBreaks(AgreementRow agreement, string text, References references)
    {
        var breaks = new List<AgreementBreakRow>();
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var pair = part.Split(':', StringSplitOptions.TrimEntries);
            var from = pair.Length == 1 ? 0m : Numbers.Read(pair[0]);
            if (pair.Length > 2 || from is not >= 0 || Numbers.Read(pair[^1].TrimEnd('%', ' ')) is not { } value)
                return $"“{part}” is not a quantity and a value, as 200: 10";
            if (breaks.Any(b => b.From == from))
                return string.Create(CultureInfo.InvariantCulture, $"{from:0.######} stands twice");
            breaks.Add(
                new AgreementBreakRow
                {
                    AgreementId = agreement.Id,
                    From = from.Value,
                    Value = decimal.Round(value, 6),
                }
            );
        }
        agreement.Breaks.RemoveAll(b => breaks.All(n => n.From != b.From));
        foreach (var one in breaks)
        {
            if (agreement.Breaks.FirstOrDefault(b => b.From == one.From) is { } old)
                old.Value = one.Value;
            else
                agreement.Breaks.Add(one);
        }
        return null;
    }

    private static IEnumerable<(string Field, string Words)> Whole(AgreementRow a, References references) =>
        [
            .. Checks.When(
                a.BuyerId is null == a.Group is null,
                "buyer",
                "an agreement is with a buyer or with a group, one of the two"
            ),
            .. Checks.When(
                a.Scope == RuleScope.Item != a.ItemId is not null,
                "item",
                a.ItemId is null ? "which item?" : "it covers no single item; empty the item, or cover an item"
            ),
            .. Checks.When(
                a.Scope == RuleScope.Family != a.Family is not null,
                "family",
                a.Family is null ? "which family?" : "it covers no single family; empty the family, or cover a family"
            ),
            .. Checks.When(
                a.Kind == RuleKind.PercentOff && a.Breaks.Any(b => b.Value is > 100 or < -100),
                "breaks",
                "a percentage off is at most 100"
            ),
            .. Checks.When(
                a.Kind == RuleKind.Fixed && a.Breaks.Any(b => b.Value < 0),
                "breaks",
                "a price is not negative"
            ),
            .. Checks.Order(a.From, a.To),
        ];
}
