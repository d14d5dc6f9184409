using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The doors: who is let in, how often one may try, and by which name the house is called.</summary>
public sealed class SecurityTests(House house) : IClassFixture<House>
{
    private const long Quill = 4;

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_copied_cookie_is_worth_nothing_after_signing_out()
    {
        using var client = house.CreateClient(
            new WebApplicationFactoryClientOptions { HandleCookies = false, AllowAutoRedirect = false }
        );
        var entered = await client.PostAsJsonAsync("/api/demo/step-in", new { id = Quill }, Cancel);
        var cookie = entered.Headers.GetValues("Set-Cookie").Single().Split(';')[0];
        async Task<HttpStatusCode> SendAsync(HttpMethod method, string path)
        {
            using var request = new HttpRequestMessage(method, path);
            request.Headers.Add("Cookie", cookie);
            return (await client.SendAsync(request, Cancel)).StatusCode;
        }
        Assert.Equal(HttpStatusCode.OK, await SendAsync(HttpMethod.Get, "/api/desk"));
        Assert.Equal(HttpStatusCode.NoContent, await SendAsync(HttpMethod.Delete, "/api/session"));
        Assert.Equal(HttpStatusCode.Unauthorized, await SendAsync(HttpMethod.Get, "/api/desk"));
    }

    [Fact]
    public async Task Whoever_tries_too_often_locks_out_only_that_account_and_only_for_a_while()
    {
        await using var careful = house.WithWebHostBuilder(b => b.UseSetting("doorLimit", "90"));
        using var client = careful.CreateClient();
        Task<HttpResponseMessage> TryAsync(string login) =>
            client.PostAsJsonAsync("/api/session", new { login, password = "not theirs" }, Cancel);
        for (var i = 0; i < 15; i++)
            Assert.Equal(HttpStatusCode.Unauthorized, (await TryAsync("quill")).StatusCode);
        var refused = await TryAsync("Quill ");
        Assert.Equal((HttpStatusCode.TooManyRequests, "too_many"), (refused.StatusCode, await refused.CodeAsync()));
        Assert.InRange(refused.Headers.RetryAfter!.Delta!.Value.TotalSeconds, 1, 300);
        Assert.Equal(HttpStatusCode.Unauthorized, (await TryAsync("mohr")).StatusCode);
    }

    [Fact]
    public async Task Links_that_lead_nowhere_slow_down_nobody_with_a_good_one()
    {
        await using var careful = house.WithWebHostBuilder(b => b.UseSetting("doorLimit", "20"));
        await using var db = await careful
            .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
            .CreateDbContextAsync(Cancel);
        var quote = await db.Quotes.FirstAsync(q => q.State == Core.Documents.QuoteState.WithCustomer, Cancel);
        quote.TokenHash = Tokens.Sha256("a-good-token");
        await db.SaveChangesAsync(Cancel);
        using var client = careful.CreateClient();
        for (var i = 0; i < 20; i++)
            Assert.Equal(HttpStatusCode.NotFound, (await client.GetAsync($"/api/offers/guess{i}", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.TooManyRequests, (await client.GetAsync("/api/offers/guess", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await client.GetAsync("/api/offers/a-good-token", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await client.PostAsJsonAsync("/api/session", new { login = "x", password = "y" }, Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task What_the_api_answers_is_kept_by_nobody_and_says_nothing_of_the_server()
    {
        using var client = house.CreateClient();
        var answer = await client.GetAsync("/api/session", Cancel);
        Assert.True(answer.Headers.CacheControl!.NoStore);
        Assert.False(answer.Headers.Contains("Server"));
        using var foreign = new HttpRequestMessage(HttpMethod.Get, "/api/session")
        {
            Headers = { Host = "evil.example" },
        };
        Assert.Equal(HttpStatusCode.BadRequest, (await client.SendAsync(foreign, Cancel)).StatusCode);
        foreach (var file in Directory.GetFiles(house.DataFolder, "solvenda.db*"))
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, new FileInfo(file).UnixFileMode);
    }

    [Fact]
    public async Task An_address_a_method_or_a_form_that_is_not_there_is_told_by_its_code()
    {
        var quill = await house.AsAsync(Quill);
        async Task<(int, string)> AnswerAsync(HttpMethod method, string path, HttpContent? content = null)
        {
            using var request = new HttpRequestMessage(method, path) { Content = content };
            var answer = await quill.SendAsync(request, Cancel);
            return ((int)answer.StatusCode, await answer.CodeAsync());
        }
        Assert.Equal((404, "not_found"), await AnswerAsync(HttpMethod.Get, "/api/nothing/here"));
        Assert.Equal((405, "method_unknown"), await AnswerAsync(HttpMethod.Delete, "/api/desk"));
        Assert.Equal(
            (415, "content_type"),
            await AnswerAsync(HttpMethod.Post, "/api/quotes", new StringContent("a=b", Encoding.UTF8, "text/plain"))
        );
    }

    [Fact]
    public async Task A_house_without_demo_begins_with_a_link_and_sends_none_before_it_has_a_public_address()
    {
        await using var plain = new PlainHouse();
        using var client = plain.CreateClient();
        await using (
            var db = await plain
                .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
                .CreateDbContextAsync(Cancel)
        )
        {
            db.OneTimeLinks.Add(
                new OneTimeLink
                {
                    Hash = Tokens.Sha256("first"),
                    ExpiresAt = plain.Time.GetUtcNow().UtcDateTime.AddHours(1),
                }
            );
            await db.SaveChangesAsync(Cancel);
        }
        object First(string password) =>
            new
            {
                token = "first",
                name = "Una",
                login = "una",
                password,
            };
        var tooShort = await client.PostAsJsonAsync("/api/session/first", First("short"), Cancel);
        Assert.Equal("password_short", await tooShort.CodeAsync());
        var made = await client.PostAsJsonAsync("/api/session/first", First("long enough a word"), Cancel);
        Assert.Equal("Una", (await made.JsonAsync()).GetProperty("person").GetProperty("name").GetString());
        var again = await client.PostAsJsonAsync("/api/session/first", First("long enough a word"), Cancel);
        Assert.Equal((HttpStatusCode.Gone, "link_used"), (again.StatusCode, await again.CodeAsync()));
        var signIn = await client.PostAsJsonAsync(
            "/api/session",
            new { login = "UNA", password = "long enough a word" },
            Cancel
        );
        Assert.Equal(HttpStatusCode.OK, signIn.StatusCode);
        // The doors of the demo are not there at all.
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await client.PostAsJsonAsync("/api/demo/step-in", new { id = 1 }, Cancel)).StatusCode
        );
        using var send = new HttpRequestMessage(HttpMethod.Post, "/api/quotes/Q26-00001/send")
        {
            Content = JsonContent.Create(
                new
                {
                    by = "mail",
                    to = "a@b.example",
                    subject = "s",
                    text = "{link}",
                }
            ),
        };
        send.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
        send.Headers.Host = "localhost";
        Assert.Equal("public_address", await (await client.SendAsync(send, Cancel)).CodeAsync());
    }

    private sealed class PlainHouse : WebApplicationFactory<Program>
    {
        private readonly string _data = Directory.CreateTempSubdirectory("solvenda-plain").FullName;

        public HouseTime Time { get; } = new();

        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            builder.ConfigureTestServices(services => services.AddSingleton<TimeProvider>(Time));
            builder.UseSetting("data", _data);
            builder.ConfigureLogging(log => log.ClearProviders());
        }

        protected override void Dispose(bool disposing)
        {
            base.Dispose(disposing);
            if (!Directory.Exists(_data))
                return;
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(_data, recursive: true);
        }
    }
}
