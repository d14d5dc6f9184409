using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The people of the demo world.</summary>
internal static class DemoPeople
{
    /// <summary>In the order of their keys: whoever others report to comes first.</summary>
    public static IReadOnlyList<Person> Make() =>
        [
            P(1, "oduya", "Wilhelmina Oduya", "sales director", Roles.Seller | Roles.Lead, null),
            P(2, "paz", "Leandro Paz", "sales lead", Roles.Seller | Roles.Lead, 1),
            P(3, "havergal", "Nell Havergal", "order desk lead", Roles.Desk | Roles.Seller | Roles.Lead, 1),
            P(4, "quill", "Sorcha Quill", "account manager, yards and schools", Roles.Seller, 2),
            P(5, "mohr", "Bastian Mohr", "account manager, aquaculture and offshore", Roles.Seller, 2),
            P(6, "stroud", "Ephraim Stroud", "credit controller", Roles.Credit, 1),
            P(7, "brandt", "Iko Brandt", "order desk", Roles.Desk | Roles.Seller, 3),
            P(8, "castellane", "Juno Castellane", "planner and warehouse", Roles.Planner, 1),
            P(9, "vantongeren", "Petra Vantongeren", "billing", Roles.Billing, 1),
            P(10, "whitlock", "Cass Whitlock", "administrator", Roles.Admin, 1),
        ];

    /// <summary>
    /// What each may decide alone, by the codes of the kinds; from the day on which they were given it.
    /// </summary>
    public static IEnumerable<AuthorityRow> Authorities(DateOnly today)
    {
        (long Person, string Kind, decimal Limit)[] limits =
        [
            .. AuthorityKinds.All.Select(k => (1L, k.Code, k.Any)),
            .. Sells(2, 15, 15, 60_000, 30),
            .. Sells(3, 5, 25, 15_000, 7),
            .. Sells(4, 8, 22, 20_000, 7),
            .. Sells(5, 8, 22, 20_000, 7),
            .. Sells(7, 3, 28, 5_000, 7),
            (6, "credit", 25_000),
        ];
        foreach (var (person, kind, limit) in limits)
            yield return new AuthorityRow
            {
                PersonId = person,
                Kind = kind,
                Limit = limit,
                From = new DateOnly(today.Year - 2, 1, 1),
                GivenById = person == 1 ? null : 1,
                GivenByName = person == 1 ? "the house" : "Wilhelmina Oduya",
                GivenAt = DateTime.SpecifyKind(new DateTime(today.Year - 2, 1, 1, 9, 0, 0), DateTimeKind.Utc),
            };
    }

    // Freight and what has no cost follow from how far somebody may go anyhow.
    private static (long, string, decimal)[] Sells(
        long person,
        decimal discount,
        decimal margin,
        decimal value,
        int days
    ) =>
        [
            (person, "discount", discount),
            (person, "margin", margin),
            (person, "value", value),
            (person, "terms", days),
            (person, "freight", value / 200),
            (person, "without-cost", value / 10),
            (person, "cost-under", value / 10),
        ];

    /// <summary>
    /// Paz is away for a week that begins in five days; Havergal decides meanwhile, as far as she may.
    /// </summary>
    public static AbsenceRow PazAway(DateOnly today) =>
        new()
        {
            PersonId = 2,
            From = today.AddDays(5),
            To = today.AddDays(11),
            StandInId = 3,
        };

    /// <summary>As they may decide on a day.</summary>
    public static IReadOnlyDictionary<PersonId, Decider> Deciders(DateOnly day) =>
        Data.Deciders.Of(Make(), [.. Authorities(day)], [], [], day).People;

    private static Person P(long id, string login, string name, string does, Roles roles, long? reportsTo) =>
        new()
        {
            Id = id,
            Login = login,
            Name = name,
            Does = does,
            Roles = roles,
            ReportsToId = reportsTo,
            Mail = $"{login}@brinemoor.example",
            Stamp = Guid.NewGuid().ToString("N"),
        };
}
