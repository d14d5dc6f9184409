using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Solvenda.Web.Requests;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of the reading desk call.</summary>
public abstract class ReadingCalls(House house) : IClassFixture<House>
{
    protected House House { get; } = house;

    protected const long Havergal = 3;
    protected const long Castellane = 8;

    protected static CancellationToken Cancel => TestContext.Current.CancellationToken;

    protected async Task<JsonElement> ReceiveAsync(byte[] raw, string name) =>
        await (
            await House.Machine().PostAsync($"/api/v1/inbound?filename={name}", new ByteArrayContent(raw), Cancel)
        ).JsonAsync();

    protected Task<JsonElement> ReceiveAsync(string text, string name) =>
        ReceiveAsync(Encoding.UTF8.GetBytes(text), name);

    protected static string Mail(string body, string id, string from = "bosun@oystercatcher.example") =>
        $"From: Bosun <{from}>\nSubject: an order\nMessage-ID: <{id}@test.example>\nDate: Mon, 02 Mar 2026 08:41:07 +0000\n\n{body}\n";

    protected static async Task<JsonElement> OpenAsync(HttpClient client, JsonElement request) =>
        await (await client.GetAsync($"/api/requests/{request.GetProperty("number").GetString()}", Cancel)).JsonAsync();

    protected static async Task<JsonElement> DoAsync(
        HttpClient client,
        JsonElement request,
        string what,
        object body
    ) =>
        await (
            await client.PostAsJsonAsync(
                $"/api/requests/{request.GetProperty("number").GetString()}/{what}",
                body,
                Cancel
            )
        ).JsonAsync();

    /// <summary>Corrects a field of the head, on the version that was seen.</summary>
    protected static Task<JsonElement> CorrectAsync(
        HttpClient client,
        JsonElement request,
        string field,
        string value
    ) =>
        DoAsync(
            client,
            request,
            "correct",
            new
            {
                version = Version(request),
                field,
                value,
            }
        );

    /// <summary>Says what the columns of the first attached table mean, whose head is its first row.</summary>
    protected static Task<JsonElement> ColumnsAsync(
        HttpClient client,
        JsonElement request,
        Dictionary<int, string> columns
    ) =>
        DoAsync(
            client,
            request,
            "columns",
            new
            {
                version = Version(request),
                part = 1,
                row = 0,
                columns,
            }
        );

    protected static long Version(JsonElement request) => request.GetProperty("version").GetInt64();

    protected static IEnumerable<(string? Item, decimal? Quantity, string Words)> Lines(JsonElement request) =>
        request
            .GetProperty("reading")
            .GetProperty("lines")
            .EnumerateArray()
            .Select(l =>
                (
                    l.GetProperty("itemCode").GetString(),
                    l.GetProperty("quantity").ValueKind == JsonValueKind.Null
                        ? (decimal?)null
                        : l.GetProperty("quantity").GetDecimal(),
                    l.GetProperty("words").GetString()!
                )
            );
}
