using Solvenda.Acts.Lists;
using Solvenda.Core.Pricing;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

internal static class Campaigns
{
    public static readonly RecordKind<CampaignRow> Kind = new()
    {
        Name = "campaigns",
        Title = "Campaigns",
        One = "campaign",
        Money = true,
        Figures = KeptFigures.OfCampaign,
        Key = ["code"],
        Make = () => new CampaignRow { Code = "", Words = "" },
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
        Seldom = ["currency", "channel", "group"],
        Fields =
        [
            Fields.Text<CampaignRow>(c => c.Code, "code", required: true, inList: true, type: FieldType.Code),
            Fields.Text<CampaignRow>(c => c.Words, "words", required: true, inList: true),
            Fields.Choice<CampaignRow, RuleScope>(c => c.Scope, "covers"),
            Fields.Reference<CampaignRow>(c => c.ItemId, "item", "items", inList: true),
            Fields.CodeOf<CampaignRow>(c => c.Family, "family", "families", inList: true),
            Fields.Choice<CampaignRow, RuleKind>(c => c.Kind, "kind", inList: true),
            Fields.Number<CampaignRow>(c => c.Value, "value", inList: true),
            Fields.Text<CampaignRow>(c => c.Currency, "currency", check: Checks.Currency),
            Fields.Text<CampaignRow>(c => c.Channel, "channel", inList: true, hint: "empty: any"),
            Fields.Reference<CampaignRow>(c => c.BuyerId, "buyer", "buyers"),
            Fields.CodeOf<CampaignRow>(c => c.Group, "group", "groups"),
            Fields.Date<CampaignRow>(c => c.From, "from", inList: true),
            Fields.Date<CampaignRow>(c => c.To, "to", inList: true),
        ],
    };
}
