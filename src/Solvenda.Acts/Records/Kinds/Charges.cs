using Solvenda.Acts.Lists;
using Solvenda.Core.Pricing;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Charges
{
    public static readonly RecordKind<ChargeRuleRow> Kind = new()
    {
        Name = "charges",
        Title = "Charges",
        One = "charge",
        Money = true,
        Key = ["code"],
        Make = () =>
            new ChargeRuleRow
            {
                Code = "",
                Words = "",
                Currency = "",
            },
        Check = (c, _) =>
            [
                .. Checks.When(
                    c.Scope == RuleScope.Item != c.ItemId is not null,
                    "item",
                    "an item goes with covering an item"
                ),
                .. Checks.When(
                    c.Scope == RuleScope.Family != c.Family is not null,
                    "family",
                    "a family goes with covering a family"
                ),
                .. Checks.Order(c.From, c.To),
            ],
        Seldom = ["dangerousOnly", "unit"],
        Fields =
        [
            Fields.Text<ChargeRuleRow>(c => c.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<ChargeRuleRow>(c => c.Words, "words", required: true, inList: true),
            Fields.Choice<ChargeRuleRow, ChargeBasis>(c => c.Basis, "by", inList: true),
            Fields.Choice<ChargeRuleRow, RuleScope>(c => c.Scope, "covers"),
            Fields.Reference<ChargeRuleRow>(c => c.ItemId, "item", "items", inList: true),
            Fields.CodeOf<ChargeRuleRow>(c => c.Family, "family", "families", inList: true),
            Fields.Flag<ChargeRuleRow>(c => c.DangerousOnly, "dangerous goods only"),
            Fields.Text<ChargeRuleRow>(
                c => c.Unit,
                "unit",
                hint: "only for lines in this unit",
                check: Checks.UnitCode,
                read: Checks.UnitOf
            ),
            Fields.Number<ChargeRuleRow>(
                c => c.BelowGoods,
                "goods below",
                inList: true,
                hint: "only on sheets worth less"
            ),
            Fields.Number<ChargeRuleRow>(c => c.Amount, "amount", inList: true),
            Fields.Text<ChargeRuleRow>(
                c => c.Currency,
                "currency",
                required: true,
                inList: true,
                check: Checks.Currency
            ),
            Fields.Date<ChargeRuleRow>(c => c.From, "from", inList: true),
            Fields.Date<ChargeRuleRow>(c => c.To, "to", inList: true),
        ],
    };
}
