using System.Net;
using System.Net.Http.Headers;
using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.Json.Nodes;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Ways;
using Solvenda.Web.StandIns;

namespace Solvenda.Web.Channels.Market;

/// <summary>
/// A sales channel that is asked by HTTP what came (orders, questions, cancellations) and told what became of it. What
/// it hands over it hands over until it is told that it was taken; what it is told carries the same key at every try.
/// </summary>
/// <param name="name">As requests say that they came by it.</param>
public sealed class MarketChannel(
    string name,
    string words,
    IHttpClientFactory http,
    WaySaidBook said,
    StandInPlaces places
) : IChannel
{
    private const int LargestAnswer = 8 * 1024 * 1024;

    private static readonly WaySetting Address = new("address", "its address, https://…");
    private static readonly WaySetting Key = new("key", "our key to it", SettingKind.Secret);

    public string Name => name;

    public string Words => words;

    public IReadOnlyList<WaySetting> Settings { get; } = [Address, Key];

    public bool Sells => true;

    public TimeSpan Pause => TimeSpan.FromSeconds(5);

    public bool Sends(string kind, string to) => kind == Confirming.ByChannel && to == name;

    public async IAsyncEnumerable<Arrived> TakeAsync([EnumeratorCancellation] CancellationToken cancel)
    {
        if (await ClientAsync(cancel) is not { } client)
            yield break;
        using (client)
        {
            var waiting = await client.GetFromJsonAsync<JsonObject>("waiting", cancel);
            foreach (var entry in waiting?["entries"]?.AsArray() ?? [])
            {
                var id = entry!["id"]!.GetValue<string>();
                var bytes = JsonSerializer.SerializeToUtf8Bytes(entry["message"]);
                yield return new Arrived(
                    $"{name}-{id}.json",
                    bytes,
                    id,
                    async () =>
                    {
                        using var taken = await client.PostAsync(
                            $"waiting/{Uri.EscapeDataString(id)}/taken",
                            null,
                            CancellationToken.None
                        );
                        taken.EnsureSuccessStatusCode();
                    }
                )
                {
                    Age = entry["age"]?.GetValue<double>() is { } seconds and > 0
                        ? TimeSpan.FromSeconds(seconds)
                        : TimeSpan.Zero,
                };
            }
        }
    }

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        using var client = await ClientAsync(cancel);
        if (client is null)
            return Departed.Later($"where {name} is was not set");
        using var body = new ByteArrayContent(message.Bytes);
        body.Headers.ContentType = new MediaTypeHeaderValue("application/json");
        using var request = new HttpRequestMessage(HttpMethod.Post, "told") { Content = body };
        request.Headers.Add("Idempotency-Key", message.Key);
        using var answer = await client.SendAsync(request, cancel);
        if (answer.IsSuccessStatusCode)
            return Departed.Well;
        // What it finds wrong it finds wrong again; what it cannot do now it may later.
        var problem = $"{name} says {(int)answer.StatusCode} {answer.ReasonPhrase}";
        return new Departed(
            problem,
            Never: answer.StatusCode
                is HttpStatusCode.BadRequest
                    or HttpStatusCode.NotFound
                    or HttpStatusCode.UnprocessableEntity
        );
    }

    // Null where nobody said where it is.
    private async Task<HttpClient?> ClientAsync(CancellationToken cancel)
    {
        var settings = await said.OfAsync(this, cancel);
        var address = settings[Address.Name].Length > 0 ? settings[Address.Name] : places.Of(name);
        if (
            !Uri.TryCreate(address is null ? "" : address.TrimEnd('/') + "/", UriKind.Absolute, out var root)
            || root.Scheme is not ("http" or "https")
        )
            return null;
        var client = http.CreateClient("channels");
        (client.BaseAddress, client.MaxResponseContentBufferSize) = (root, LargestAnswer);
        client.Timeout = TimeSpan.FromSeconds(20);
        if (settings[Key.Name] is { Length: > 0 } key)
            client.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", key);
        return client;
    }
}
