using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of sheets call.</summary>
public abstract class SheetCalls(House house) : IClassFixture<House>
{
    protected House House { get; } = house;

    protected static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    protected static async Task<(string Number, JsonElement Sheet)> NewQuoteAsync(HttpClient client, long buyer = 1)
    {
        var made = await (
            await client.PostAsJsonAsync("/api/quotes", new { buyerId = buyer, matter = "a test" }, Cancel)
        ).JsonAsync();
        var number = made.GetProperty("number").GetString()!;
        return (
            number,
            (await (await client.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync()).GetProperty("sheet")
        );
    }

    protected static async Task<HttpResponseMessage> EditAsync(
        HttpClient client,
        JsonElement sheet,
        params object[] edits
    )
    {
        using var request = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits"
        )
        {
            Content = JsonContent.Create(edits),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{sheet.GetProperty("version").GetInt64()}\"");
        return await client.SendAsync(request, Cancel);
    }
}
