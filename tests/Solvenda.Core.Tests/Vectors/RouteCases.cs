using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;
using Xunit;

namespace Solvenda.Core.Tests.Vectors;

/// <summary>Worked cases of routes: which policies fire, and who is asked in which order.</summary>
public sealed class RouteCases
{
    public static TheoryData<string, string> Routes => WorkedCases.Cases("routes");

    private static readonly Dictionary<string, string> Figures = new()
    {
        ["lineDiscountPercent"] = "discount",
        ["sheetDiscountPercent"] = "sheet-discount",
        ["leastLineMarginPercent"] = "margin",
        ["sheetMarginPercent"] = "sheet-margin",
        ["value"] = "value",
        ["paymentDaysBeyond"] = "terms",
        ["freightUnderCost"] = "freight",
        ["creditOver"] = "credit",
    };

    [Theory, MemberData(nameof(Routes))]
    public void Policies_fire_and_find_who_decides(string name, string json)
    {
        var c = JsonDocument.Parse(json).RootElement;
        // Their ids are words; ours are numbers, in the order in which they stand.
        var ids = c.GetProperty("people").EnumerateArray().Select(p => p.GetProperty("id").GetString()!).ToList();
        PersonId? IdOf(JsonElement of, string field) =>
            of.TryGetProperty(field, out var id) && id.GetString() is { } word ? new PersonId(ids.IndexOf(word)) : null;
        var people = c.GetProperty("people")
            .EnumerateArray()
            .Select(p => new Decider(
                IdOf(p, "id")!.Value,
                p.GetProperty("id").GetString()!,
                IdOf(p, "reportsTo"),
                AuthorityOf(p.GetProperty("authority")),
                Active: p.GetProperty("active").GetBoolean()
            )
            {
                Away = p.TryGetProperty("away", out var away)
                    ?
                    [
                        .. away.EnumerateArray()
                            .Select(a => new Absence(Day(a, "from"), Day(a, "to"), IdOf(a, "standIn"))),
                    ]
                    : [],
            })
            .ToDictionary(p => p.Id);
        var hand = people[IdOf(c, "hand")!.Value];
        var figures = c.GetProperty("figures")
            .EnumerateObject()
            .ToDictionary(f => Figures[f.Name], f => Number(f.Value)!.Value);
        var fired = c.GetProperty("policies")
            .EnumerateArray()
            .Select(p => PolicyOf(p, IdOf(p, "named")))
            .Where(p => p.Fires(figures, hand.Authority))
            .Select(p =>
                PolicyRoute
                    .Of(
                        p,
                        figures[p.Figure],
                        hand,
                        new HashSet<PersonId> { hand.Id, IdOf(c, "owner")!.Value },
                        people,
                        Day(c, "day")
                    )
                    .Select(s => s.Names ?? "nobody")
                    .Prepend(p.Code)
            );
        var expected = c.GetProperty("expected")
            .EnumerateArray()
            .Select(e =>
                e.GetProperty("route")
                    .EnumerateArray()
                    .Select(s => s.GetString() ?? "nobody")
                    .Prepend(e.GetProperty("policy").GetString()!)
            );
        Assert.Equal((name, Lines(expected)), (name, Lines(fired)));
    }

    private static string Lines(IEnumerable<IEnumerable<string>> routes) =>
        string.Join('\n', routes.Select(r => string.Join(" > ", r)));

    private static Policy PolicyOf(JsonElement p, PersonId? named) =>
        new(
            p.GetProperty("id").GetString()!,
            Figures[p.GetProperty("figure").GetString()!],
            Enum.Parse<RouteKind>(p.GetProperty("route").GetString()!, ignoreCase: true)
        )
        {
            Named = named is { } id ? [id] : [],
            When = p.TryGetProperty("when", out var when)
                ?
                [
                    .. when.EnumerateArray()
                        .Select(w => new PolicyCondition(
                            Figures[w.GetProperty("figure").GetString()!],
                            w.GetProperty("op").GetString() == ">",
                            Number(w.GetProperty("value"))!.Value
                        )),
                ]
                : [],
        };

    private static Authority AuthorityOf(JsonElement a) =>
        new(
            Number(a.GetProperty("discountPercent")),
            Number(a.GetProperty("leastMarginPercent")),
            Number(a.GetProperty("value")),
            Number(a.GetProperty("creditOver"))
        )
        {
            TermsDays = (int?)Number(a.GetProperty("paymentDaysBeyond")),
            FreightUnder = Number(a.GetProperty("freightUnderCost")),
        };

    private static decimal? Number(JsonElement e) =>
        e.GetString() is { } text ? decimal.Parse(text, CultureInfo.InvariantCulture) : null;

    private static DateOnly Day(JsonElement e, string field) =>
        DateOnly.Parse(e.GetProperty(field).GetString()!, CultureInfo.InvariantCulture);
}
