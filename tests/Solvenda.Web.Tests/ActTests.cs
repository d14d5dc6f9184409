using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data.Events;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Every act says who may and what it leaves; the tables in docs/acts.md are printed from them.</summary>
public sealed class ActTests(House house) : IClassFixture<House>
{
    private static readonly Actor[] Everybody =
    [
        Actor.Stranger,
        Actor.House,
        Actor.Buyer("somebody"),
        Actor.Machine("nothing", []),
        Actor.Machine("price", [Rights.PriceScope]),
        .. Enum.GetValues<Roles>().Select(r => Actor.Person(1, r.ToString(), r)),
    ];

    private List<Act> All => [.. house.Services.GetServices<Act>()];

    [Fact]
    public async Task An_act_is_refused_to_everybody_who_may_not_before_it_looks_at_anything()
    {
        var runner = house.Services.GetRequiredService<ActRunner>();
        var tried = 0;
        foreach (var act in All)
        {
            var answer = act
                .Input.GetInterfaces()
                .Single(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IAct<>))
                .GetGenericArguments()[0];
            var run = typeof(ActRunner).GetMethod(nameof(ActRunner.RunAsync))!.MakeGenericMethod(answer);
            foreach (var stranger in Everybody.Where(a => !act.Needs.Allows(a)))
            {
                var input = RuntimeHelpers.GetUninitializedObject(act.Input);
                var refused = await Assert.ThrowsAsync<RefusedException>(() =>
                    (Task)run.Invoke(runner, [stranger, input, CancellationToken.None, null])!
                );
                Assert.Equal(Refused.Forbidden, refused.Kind);
                tried++;
            }
        }
        Assert.True(tried > 200, $"only {tried} were tried");
    }

    [Fact]
    public async Task Every_address_says_who_may_and_refuses_a_stranger()
    {
        var routes = house
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText?.StartsWith("/api", StringComparison.Ordinal) == true)
            .ToList();
        Assert.True(routes.Count > 60, $"only {routes.Count} addresses were found");
        using var client = house.CreateClient();
        foreach (var route in routes.Where(r => r.Metadata.GetMetadata<IAllowAnonymous>() is null))
        {
            var method = route.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods[0];
            var path = System.Text.RegularExpressions.Regex.Replace(route.RoutePattern.RawText!, "{[^}]*}", "1");
            using var request = new HttpRequestMessage(new HttpMethod(method), path)
            {
                Content = method == "GET" ? null : System.Net.Http.Json.JsonContent.Create(new { }),
            };
            using var answer = await client.SendAsync(request, TestContext.Current.CancellationToken);
            Assert.Equal((path, 401), (path, (int)answer.StatusCode));
        }
    }

    [Fact]
    public void What_changes_something_leaves_an_event() =>
        // That a worker begins, or that its trouble is over, is the house's own bookkeeping.
        Assert.Equal(Silent, All.Where(a => a.Leaves.IsEmpty).Select(a => a.Input.Name).Order(StringComparer.Ordinal));

    private static readonly string[] Silent = ["BeginReading", "EndTrouble", "KeepRound", "KeepRun", "WeighRequest"];

    [Fact]
    public void The_tables_in_the_docs_are_those_of_the_program()
    {
        var file = Path.Combine(Folders.Root(), "docs", "acts.md");
        var text = Printed();
        if (Environment.GetEnvironmentVariable("SOLVENDA_PRINT") is { Length: > 0 })
            File.WriteAllText(file, text);
        Assert.Equal(text, File.ReadAllText(file));
    }

    private string Printed()
    {
        var text = new StringBuilder(
            """
            # Acts, events and moves

            Printed from the program, and held by a test; `SOLVENDA_PRINT=1` before the test prints it anew.

            ## Acts

            Every change is one of these, whoever asks for it and by whichever door.

            | act | who may | leaves |
            |---|---|---|

            """
        );
        foreach (var act in All.OrderBy(a => a.GetType().Namespace + a.Input.Name, StringComparer.Ordinal))
            text.AppendLine(
                System.Globalization.CultureInfo.InvariantCulture,
                $"| `{Room(act)}.{act.Input.Name}` | {act.Needs.Words} | {string.Join(", ", act.Leaves.Select(Code).Order(StringComparer.Ordinal))} |"
            );
        Moves(text, "a quote", QuoteMoves.Table);
        Moves(text, "the terms of an order", Tracks.TermsTable);
        Moves(text, "a request", RequestMoves.Table);
        Moves(text, "an ask", AskMoves.Table);
        text.AppendLine(
            "\n## What comes next\n\nThe first that applies, by its code; where none does, nothing is to be done.\n"
        );
        foreach (var row in NextMoves.Table)
            text.AppendLine(
                System.Globalization.CultureInfo.InvariantCulture,
                $"- {(row.Code.Length > 0 ? $"`{row.Code}`" : "wait for who has the ask")}"
            );
        return text.ToString();
    }

    private static string Room(Act act) => act.GetType().Namespace!.Split('.')[2];

    private static string Code(Type facts) => $"`{EventCodes.All[facts].Code}`";

    private static void Moves<TState, TDoing>(StringBuilder text, string of, MoveTable<TState, TDoing> table)
        where TState : struct, Enum
        where TDoing : struct, Enum
    {
        text.AppendLine(
            System.Globalization.CultureInfo.InvariantCulture,
            $"\n## Moves of {of}\n\n| from | by | to |\n|---|---|---|"
        );
        foreach (var move in table.All)
            text.AppendLine(
                System.Globalization.CultureInfo.InvariantCulture,
                $"| {move.From} | {move.Doing} | {move.To} |"
            );
    }
}
