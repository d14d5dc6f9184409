using Solvenda.Acts.Lists;
using Solvenda.Core.Billing;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>By which plans sellers and teams earn on what is invoiced.</summary>
internal static class CommissionPlans
{
    private const int Most = 100;

    public static readonly RecordKind<CommissionPlanRow> Kind = new()
    {
        Name = "commission-plans",
        Title = "Commission plans",
        One = "plan",
        Key = ["code"],
        ChangedBy = Roles.Admin | Roles.Lead,
        SeenBy = Roles.Admin | Roles.Lead,
        Make = () => new CommissionPlanRow { Code = "" },
        Check = Whole,
        Fields =
        [
            Fields.Text<CommissionPlanRow>(p => p.Code, "name", required: true, inList: true, also: ["code"]),
            Fields.Reference<CommissionPlanRow>(p => p.SellerId, "seller", "people", inList: true),
            Fields.Reference<CommissionPlanRow>(p => p.LeadId, "team of", "people", inList: true),
            Fields.Choice<CommissionPlanRow, CommissionOn>(
                p => p.On,
                "on",
                inList: true,
                hint: "what was sold as far as it is paid, its margin, or its net"
            ),
            Fields.Number<CommissionPlanRow>(p => p.Percent, "percent", most: Most, inList: true),
            Fields.Text<CommissionPlanRow>(
                p => p.Shares,
                "shared",
                inList: true,
                hint: "seller 70; Leandro Paz 30; empty: all is the seller’s",
                check: Shares
            ),
            Fields.Date<CommissionPlanRow>(p => p.From, "from"),
            Fields.Date<CommissionPlanRow>(p => p.Until, "until"),
        ],
    };

    private static string? Shares(string text)
    {
        try
        {
            CommissionShares.Read(text);
            return null;
        }
        catch (FormatException wrong)
        {
            return wrong.Message;
        }
    }

    private static IEnumerable<(string Field, string Words)> Whole(CommissionPlanRow row, References references)
    {
        if (row is { SellerId: not null, LeadId: not null })
            yield return ("team of", "a plan is for one seller or for a team, not for both");
        if (row.Percent <= 0m)
            yield return ("percent", "it is more than nothing");
        if (row.From > row.Until)
            yield return ("until", "it ends before it begins");
    }
}
