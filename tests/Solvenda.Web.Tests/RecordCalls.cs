using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of records call.</summary>
public abstract class RecordCalls(House house) : IClassFixture<House>
{
    protected House House { get; } = house;

    protected const long Paz = 2;
    protected const long Quill = 4;
    protected const long Stroud = 6;
    protected const long Castellane = 8;

    protected static CancellationToken Cancel => TestContext.Current.CancellationToken;

    internal static async Task<JsonElement> SettledAsync(HttpClient client, long id)
    {
        for (var tries = 0; tries < 200; tries++)
        {
            var view = await (await client.GetAsync($"/api/imports/{id}", Cancel)).JsonAsync();
            if (view.GetProperty("state").GetString() is not ("looking" or "taking"))
                return view;
            await Task.Delay(50, Cancel);
        }
        throw new InvalidOperationException("The import does not end.");
    }

    protected static Task<HttpResponseMessage> PutAsync(HttpClient client, long id, long version, object values) =>
        SendAsync(client, HttpMethod.Put, $"/api/records/items/{id}", version, new { values });

    protected static async Task<HttpResponseMessage> SendAsync(
        HttpClient client,
        HttpMethod method,
        string path,
        long version,
        object body
    )
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        return await client.SendAsync(request, Cancel);
    }

    protected static async Task<(HttpStatusCode, string)> CodeOf(HttpResponseMessage answer) =>
        (answer.StatusCode, await answer.CodeAsync());

    protected static async Task<JsonElement> LookAsync(HttpClient client, string kind, string name, byte[] bytes)
    {
        var begun = await client.PostAsync(
            $"/api/records/{kind}/imports?filename={name}",
            new ByteArrayContent(bytes),
            Cancel
        );
        Assert.Equal(HttpStatusCode.OK, begun.StatusCode);
        return await SettledAsync(client, (await begun.JsonAsync()).GetProperty("id").GetInt64());
    }
}
