using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The real host with the demo world on a real SQLite file, made once for all tests.</summary>
public sealed class House : WebApplicationFactory<Program>
{
    private readonly string _data = Directory.CreateTempSubdirectory("solvenda-tests").FullName;

    public string DataFolder => _data;

    /// <summary>A client with the demo's machine key.</summary>
    public HttpClient Machine()
    {
        var client = CreateClient();
        client.DefaultRequestHeaders.Authorization = new("Bearer", "demo-integration-key");
        return client;
    }

    /// <summary>A client signed in as one of the demo's people, by key: 1 Oduya, 2 Paz, 3 Havergal, 4 Quill, 5 Mohr, 6 Stroud, 8 Castellane.</summary>
    public async Task<HttpClient> AsAsync(long person)
    {
        var client = CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        var answer = await client.PostAsJsonAsync("/api/demo/step-in", new { id = person }, TestContext.Current.CancellationToken);
        answer.EnsureSuccessStatusCode();
        return client;
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("demo", "true");
        builder.UseSetting("data", _data);
        builder.UseSetting("doorLimit", "100000");
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_data, recursive: true);
    }
}

internal static class Answers
{
    public static async Task<JsonElement> JsonAsync(this HttpResponseMessage answer) =>
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).RootElement;

    /// <summary>The stable code of a refusal.</summary>
    public static async Task<string> CodeAsync(this HttpResponseMessage answer) => (await answer.JsonAsync()).GetProperty("code").GetString()!;
}
