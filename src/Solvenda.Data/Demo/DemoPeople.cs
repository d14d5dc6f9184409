using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The people of the demo world.</summary>
internal static class DemoPeople
{
    /// <summary>In the order of their keys: whoever others report to comes first.</summary>
    public static IReadOnlyList<Person> Make()
    {
        var oduya = P(
            1,
            "oduya",
            "Wilhelmina Oduya",
            "sales director",
            Roles.Seller | Roles.Lead,
            null,
            100,
            Authority.AnyMargin,
            Authority.AnyValue
        );
        oduya.CreditOver = Authority.AnyValue;
        var stroud = P(6, "stroud", "Ephraim Stroud", "credit controller", Roles.Credit, 1);
        stroud.CreditOver = 25_000;
        return
        [
            oduya,
            P(2, "paz", "Leandro Paz", "sales lead", Roles.Seller | Roles.Lead, 1, 15, 15, 60_000),
            P(
                3,
                "havergal",
                "Nell Havergal",
                "order desk lead",
                Roles.Desk | Roles.Seller | Roles.Lead,
                1,
                5,
                25,
                15_000
            ),
            P(4, "quill", "Sorcha Quill", "account manager, yards and schools", Roles.Seller, 2, 8, 22, 20_000),
            P(5, "mohr", "Bastian Mohr", "account manager, aquaculture and offshore", Roles.Seller, 2, 8, 22, 20_000),
            stroud,
            P(7, "brandt", "Iko Brandt", "order desk", Roles.Desk | Roles.Seller, 3, 3, 28, 5_000),
            P(8, "castellane", "Juno Castellane", "planner and warehouse", Roles.Planner, 1),
            P(9, "vantongeren", "Petra Vantongeren", "billing", Roles.Billing, 1),
            P(10, "whitlock", "Cass Whitlock", "administrator", Roles.Admin, 1),
        ];
    }

    private static Person P(
        long id,
        string login,
        string name,
        string does,
        Roles roles,
        long? reportsTo,
        decimal? discount = null,
        decimal? margin = null,
        decimal? value = null
    ) =>
        new()
        {
            Id = id,
            Login = login,
            Name = name,
            Does = does,
            Roles = roles,
            ReportsToId = reportsTo,
            DiscountPercent = discount,
            LeastMarginPercent = margin,
            Value = value,
            // Terms, freight and what has no cost follow from how far somebody may go anyhow.
            TermsDays = value switch
            {
                null => null,
                >= Authority.AnyValue => 365,
                >= 50_000 => 30,
                _ => 7,
            },
            FreightUnder = value is >= Authority.AnyValue ? Authority.AnyValue : value / 200,
            WithoutCost = value is >= Authority.AnyValue ? Authority.AnyValue : value / 10,
            Stamp = Guid.NewGuid().ToString("N"),
        };
}
