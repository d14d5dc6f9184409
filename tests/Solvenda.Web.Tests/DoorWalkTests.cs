using System.Net;
using System.Text;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// Every door, as every role, as a machine with each scope, and as nobody, against the one table of rights.
/// </summary>
public sealed class DoorWalkTests(House house) : IClassFixture<House>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    // Doors for whoever comes: signing in, one-time links, the buyer's own page, and what the demo shows.
    private static readonly string[] Open =
    [
        "DELETE /api/session",
        "GET /api/demo/people",
        "GET /api/logo",
        "GET /api/offers/{token}",
        "GET /api/offers/{token}/files/{file:long}",
        "GET /api/offers/{token}/print",
        "GET /api/portal/{secret}",
        "GET /api/session",
        "GET /api/session/welcome/{token}",
        "GET /openapi/{documentName}.json",
        "POST /api/demo/step-in",
        "POST /api/offers/{token}/accept",
        "POST /api/offers/{token}/choice",
        "POST /api/offers/{token}/decline",
        "POST /api/portal/{secret}",
        "POST /api/session",
        "POST /api/session/first",
        "POST /api/session/welcome",
    ];

    private sealed record Door(string Method, string Path, string? Right)
    {
        public string Name => $"{Method} {Path}";
    }

    private List<Door> Doors()
    {
        _ = house.Services;
        return
        [
            .. house
                .Services.GetRequiredService<IEnumerable<EndpointDataSource>>()
                .SelectMany(s => s.Endpoints)
                .OfType<RouteEndpoint>()
                .SelectMany(e =>
                    (e.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? []).Select(m => new Door(
                        m,
                        "/" + e.RoutePattern.RawText!.Trim('/'),
                        e.Metadata.GetMetadata<IAllowAnonymous>() is null
                            ? e.Metadata.GetOrderedMetadata<IAuthorizeData>().Select(a => a.Policy).FirstOrDefault()
                            : null
                    ))
                )
                .Where(d =>
                    d.Path.StartsWith("/api", StringComparison.Ordinal)
                    || d.Path.StartsWith("/openapi", StringComparison.Ordinal)
                )
                .Where(d => !d.Path.Contains("{**", StringComparison.Ordinal))
                .DistinctBy(d => d.Name)
                .OrderBy(d => d.Name, StringComparer.Ordinal),
        ];
    }

    [Fact]
    public void Every_door_says_who_may_or_is_one_of_those_that_stand_open() =>
        Assert.Equal(
            string.Join("\n", Open),
            string.Join("\n", Doors().Where(d => d.Right is null).Select(d => d.Name))
        );

    // What is kept at one address or another never matters: whoever may not is stopped before it is looked for.
    private static async Task<HttpStatusCode> KnockAsync(HttpClient who, Door door)
    {
        var path = System.Text.RegularExpressions.Regex.Replace(
            door.Path,
            "{[^}]+}",
            "999999",
            System.Text.RegularExpressions.RegexOptions.None,
            TimeSpan.FromSeconds(1)
        );
        using var request = new HttpRequestMessage(new HttpMethod(door.Method), path);
        if (door.Method is "POST" or "PUT")
            request.Content = new StringContent("{}", Encoding.UTF8, "application/json");
        using var answer = await who.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, Cancel);
        return answer.StatusCode;
    }

    private async Task<List<(string Name, Actor Actor, HttpClient Client)>> CallersAsync()
    {
        var callers = new List<(string, Actor, HttpClient)>();
        var roles = Enum.GetValues<Roles>();
        await house.DbAsync(async db =>
        {
            db.People.AddRange(
                roles.Select(
                    (r, i) =>
                        new Person
                        {
                            Id = 900 + i,
                            Login = $"walk{i}",
                            Name = $"walker {r}",
                            Does = "",
                            Roles = r,
                            Stamp = "s",
                        }
                )
            );
            db.ApiKeys.AddRange(
                Rights.Scopes.Select(s => new ApiKey
                {
                    Name = $"walker {s}",
                    Hash = Tokens.Sha256($"walk-{s}"),
                    Scopes = s,
                })
            );
            return await db.SaveChangesAsync(Cancel);
        });
        for (var i = 0; i < roles.Length; i++)
            callers.Add((roles[i].ToString(), Actor.Person(900 + i, "", roles[i]), await house.AsAsync(900 + i)));
        foreach (var scope in Rights.Scopes)
        {
            var client = house.CreateClient();
            client.DefaultRequestHeaders.Authorization = new("Bearer", $"walk-{scope}");
            callers.Add(($"a key of {scope}", Actor.Machine("walker", [scope]), client));
        }
        callers.Add(
            (
                "nobody",
                Actor.Stranger,
                house.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false })
            )
        );
        return callers;
    }

    [Fact]
    public async Task Whoever_may_not_is_stopped_at_every_door_and_whoever_may_look_is_let_in()
    {
        var table = Access.All.ToDictionary(r => r.Code);
        var wrong = new List<string>();
        var knocks = 0;
        foreach (var (name, actor, client) in await CallersAsync())
        {
            foreach (var door in Doors().Where(d => d.Right is not null))
            {
                var may = table[door.Right!].Allows(actor);
                // What changes something is not tried by those who may.
                if (may && door.Method != "GET")
                    continue;
                var status = await KnockAsync(client, door);
                knocks++;
                var stopped = status is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden;
                // Who may look at a kind of thing may still not see this one.
                if (may ? status == HttpStatusCode.Unauthorized : !stopped)
                    wrong.Add($"{name} {(may ? "may" : "may not")} {door.Name}: {(int)status}");
            }
        }
        Assert.Empty(wrong);
        Assert.True(knocks > 800, $"only {knocks} doors were tried");
    }
}
