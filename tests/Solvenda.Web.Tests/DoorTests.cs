using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Who may, and what comes in at the machine's door.</summary>
public sealed class DoorTests(House house) : IClassFixture<House>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    [Fact]
    public void Every_endpoint_says_who_may()
    {
        _ = house.Server;
        var endpoints = house
            .Services.GetServices<EndpointDataSource>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .ToList();
        Assert.True(endpoints.Count > 40, $"only {endpoints.Count} endpoints were found");
        var silent = endpoints.Where(e =>
            e.Metadata.GetMetadata<IAuthorizeData>() is null && e.Metadata.GetMetadata<IAllowAnonymous>() is null
        );
        Assert.Empty(silent.Select(e => e.RoutePattern.RawText));
    }

    [Theory]
    [
        InlineData("/api/desk"),
        InlineData("/api/lists/requests"),
        InlineData("/api/lists/quotes/export"),
        InlineData("/api/lists/orders/foot"),
        InlineData("/api/find?q=tressel"),
        InlineData("/api/demo/post")
    ]
    public async Task Nobody_looks_without_signing_in(string path)
    {
        var answer = await house.CreateClient().GetAsync(path, Cancel);
        Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
    }

    [Fact]
    public async Task A_machine_needs_its_key_and_a_person_is_no_machine()
    {
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await house.CreateClient().PostAsync("/api/v1/inbound", new StringContent("x"), Cancel)).StatusCode
        );
        var person = await house.AsAsync(3);
        Assert.Equal(HttpStatusCode.Unauthorized, (await person.GetAsync("/api/v1/requests/1", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await house.Machine().GetAsync("/api/desk", Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_planner_may_look_but_not_write()
    {
        var planner = await house.AsAsync(8);
        Assert.Equal(HttpStatusCode.OK, (await planner.GetAsync("/api/lists/orders", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.PostAsJsonAsync("/api/quotes", new { buyerId = 1, matter = "x" }, Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await planner.PostAsJsonAsync("/api/asks/1/grant", new { note = "" }, Cancel)).StatusCode
        );
    }

    [Theory]
    [
        InlineData("Sec-Fetch-Site", "cross-site"),
        InlineData("Sec-Fetch-Site", "same-site"),
        InlineData("Origin", "http://elsewhere.example")
    ]
    public async Task A_change_from_another_site_is_refused(string header, string value)
    {
        var client = await house.AsAsync(3);
        client.DefaultRequestHeaders.Add(header, value);
        var answer = await client.PostAsJsonAsync("/api/quotes", new { buyerId = 1, matter = "x" }, Cancel);
        Assert.Equal("other_origin", await answer.CodeAsync());
    }

    [Fact]
    public async Task Headers_forbid_foreign_and_inline_scripts()
    {
        var answer = await house.CreateClient().GetAsync("/healthz", Cancel);
        var policy = string.Join(' ', answer.Headers.GetValues("Content-Security-Policy"));
        var scripts = policy.Split(';').Single(p => p.Trim().StartsWith("script-src", StringComparison.Ordinal));
        Assert.DoesNotContain("unsafe", scripts, StringComparison.Ordinal);
        Assert.Contains("nosniff", answer.Headers.GetValues("X-Content-Type-Options"));
    }

    public static TheoryData<string, byte[]> Broken()
    {
        var noise = new byte[20_000];
        new Random(7).NextBytes(noise);
        var data = new TheoryData<string, byte[]>
        {
            { "empty", [] },
            { "noise", noise },
            { "cut X12", Encoding.ASCII.GetBytes("ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRI") },
            {
                "headers only",
                Encoding.ASCII.GetBytes("From: a@b.example\r\nSubject: nothing\r\nMessage-ID: <only@b.example>\r\n\r\n")
            },
        };
        return data;
    }

    [Theory, MemberData(nameof(Broken))]
    public async Task A_broken_file_is_kept_and_says_why_it_could_not_be_read(string name, byte[] bytes)
    {
        var answer = await house
            .Machine()
            .PostAsync($"/api/v1/inbound?filename={Uri.EscapeDataString(name)}", new ByteArrayContent(bytes), Cancel);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        var view = await answer.JsonAsync();
        Assert.Equal("needsYou", view.GetProperty("state").GetString());
        Assert.StartsWith("Could not be read", view.GetProperty("reason").GetString(), StringComparison.Ordinal);
        var original = await (await house.AsAsync(3)).GetByteArrayAsync(
            $"/api/requests/{view.GetProperty("number").GetString()}/original",
            Cancel
        );
        Assert.Equal(bytes, original);
    }

    [Fact]
    public async Task Thirty_megabytes_are_kept_and_not_read()
    {
        var big = new byte[30 * 1024 * 1024];
        Encoding.ASCII.GetBytes("From: a@b.example\r\n\r\n").CopyTo(big, 0);
        var answer = await house
            .Machine()
            .PostAsync("/api/v1/inbound?filename=big.eml", new ByteArrayContent(big), Cancel);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        Assert.Contains(
            "30 MB",
            (await answer.JsonAsync()).GetProperty("reason").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_same_message_again_is_one_request_and_another_under_its_id_is_one_of_its_own()
    {
        static ByteArrayContent Mail(string body) =>
            new(
                Encoding.UTF8.GetBytes(
                    $"From: office@gullrockboatyard.example\r\nSubject: rope\r\nDate: Tue, 24 Nov 2026 09:00:00 +0000\r\nMessage-ID: <twice@gullrockboatyard.example>\r\n\r\n{body}\r\n"
                )
            );
        var machine = house.Machine();
        var first = await machine.PostAsync(
            "/api/v1/inbound?filename=a.eml",
            Mail("200 m PS3-12-WH please, what is your price?"),
            Cancel
        );
        var again = await machine.PostAsync(
            "/api/v1/inbound?filename=b.eml",
            Mail("200 m PS3-12-WH please, what is your price?"),
            Cancel
        );
        var resent = await machine.PostAsync(
            "/api/v1/inbound?filename=c.eml",
            Mail("200 m PS3-12-WH please, what is your price?\r\n\r\nvirus-free"),
            Cancel
        );
        Assert.Equal(
            (HttpStatusCode.Created, HttpStatusCode.OK, HttpStatusCode.Created),
            (first.StatusCode, again.StatusCode, resent.StatusCode)
        );
        var id = (await first.JsonAsync()).GetProperty("id").GetInt64();
        Assert.Equal(id, (await again.JsonAsync()).GetProperty("id").GetInt64());
        Assert.NotEqual(id, (await resent.JsonAsync()).GetProperty("id").GetInt64());
        var byId = await (await machine.GetAsync($"/api/v1/requests/{id}", Cancel)).JsonAsync();
        Assert.Equal("requestForQuotation", byId.GetProperty("reading").GetProperty("kind").GetString());
    }
}
