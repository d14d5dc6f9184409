using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Records;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests.Fuzz;

/// <summary>
/// Whatever is sent to an address of the API, by whomever, the answer is an answer and not a failure. From a seed that
/// is printed; <c>./solvenda bench fuzz</c> sends a hundred times as much.
/// </summary>
public sealed class FuzzTests(House house) : IClassFixture<House>
{
    private const int PerAddress = 200;
    private const int Seed = 20_261_126;

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private static readonly long[] People = [2, 3, 4, 6, 8, 9, 10];

    private static int Times =>
        int.TryParse(Environment.GetEnvironmentVariable("SOLVENDA_FUZZ"), out var times) ? times : 1;

    [Fact]
    public async Task Nothing_that_is_sent_makes_the_house_fail()
    {
        await house.TakenInAsync();
        var document = JsonNode.Parse(
            await File.ReadAllTextAsync(
                Path.Combine(Folders.Root(), "src", "Solvenda.Web", "openapi", "v1.json"),
                Cancel
            )
        )!;
        var callers = new List<HttpClient> { house.CreateClient(), house.Machine() };
        foreach (var person in People)
            callers.Add(await house.AsAsync(person));
        var random = new Random(Seed);
        Console.WriteLine($"seed {Seed}, {PerAddress * Times} cases an address");
        var known = await KnownAsync();
        var values = new OddValues(random, document["components"]!["schemas"]!, known);
        var (failed, answered, sent) = (new List<string>(), new SortedDictionary<int, int>(), 0);
        foreach (var (path, methods) in document["paths"]!.AsObject())
        {
            foreach (var (method, operation) in methods!.AsObject())
            {
                // A number is of what the address is about.
                values.Prefer("number", About(path, known));
                for (var i = 0; i < PerAddress * Times; i++, sent++)
                {
                    using var request = Make(method, path, operation!, values, random);
                    // People mostly: strangers and machines are turned away at most doors.
                    var caller = random.Next(8) == 0 ? random.Next(2) : random.Next(2, callers.Count);
                    using var answer = await SendAsync(callers[caller], request);
                    var status = (int)answer.StatusCode;
                    answered[status] = answered.GetValueOrDefault(status) + 1;
                    if (status >= 500 && failed.Count < 40)
                        failed.Add(await SaidAsync(request, answer));
                    // Whoever signed out comes in again.
                    if (method == "delete" && path == "/api/session" && caller > 1)
                        callers[caller] = await house.AsAsync(People[caller - 2]);
                }
            }
        }
        Console.WriteLine(string.Join(", ", answered.Select(a => $"{a.Key}: {a.Value}")));
        Assert.True(sent >= 80 * PerAddress, $"only {sent} were sent");
        // It is no fuzz if everything is turned away at the door.
        Assert.True(answered.GetValueOrDefault(200) > sent / 20, "hardly anything was let in");
        Assert.True(failed.Count == 0, string.Join("\n\n", failed));
    }

    // An answer that breaks off is a failure too.
    private static async Task<HttpResponseMessage> SendAsync(HttpClient client, HttpRequestMessage request)
    {
        try
        {
            return await client.SendAsync(request, Cancel);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            return new HttpResponseMessage((HttpStatusCode)599) { Content = new StringContent(e.ToString()) };
        }
    }

    private static HttpRequestMessage Make(
        string method,
        string path,
        JsonNode operation,
        OddValues values,
        Random random
    )
    {
        var (address, query) = (path, new List<string>());
        var request = new HttpRequestMessage { Method = new HttpMethod(method.ToUpperInvariant()) };
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.GetValue<string>();
            var value = values.Plain(name);
            switch (parameter["in"]!.GetValue<string>())
            {
                case "path":
                    address = address.Replace(
                        $"{{{name}}}",
                        Uri.EscapeDataString(value is "" or "." or ".." ? "1" : Whole(value)),
                        StringComparison.Ordinal
                    );
                    break;
                case "query" when random.Next(4) != 0:
                    query.Add($"{name}={Uri.EscapeDataString(Whole(value))}");
                    break;
                case "header" when value.Length > 0 && value.All(c => c is > ' ' and < '\u007f'):
                    request.Headers.TryAddWithoutValidation(name, name == "If-Match" ? $"\"{value}\"" : value);
                    break;
            }
        }
        request.RequestUri = new Uri(
            address + (query.Count > 0 ? "?" + string.Join('&', query) : ""),
            UriKind.Relative
        );
        if (operation["requestBody"]?["content"]?["application/json"]?["schema"] is { } schema)
            request.Content = new StringContent(
                values.Of(schema, "")?.ToJsonString() ?? "null",
                Encoding.UTF8,
                random.Next(30) == 0 ? "text/plain" : "application/json"
            );
        else if (method == "post")
            request.Content = new ByteArrayContent(Encoding.UTF8.GetBytes($"code,words\n{values.Plain("code")},x\n"));
        return request;
    }

    private static string[] About(string path, Dictionary<string, string[]> known) =>
        known[
            path.Contains("/quotes/", StringComparison.Ordinal) ? "quote"
            : path.Contains("/orders/", StringComparison.Ordinal) ? "order"
            : path.Contains("/requests/", StringComparison.Ordinal) ? "request"
            : "number"
        ];

    // Half a character, and none at all, is nothing that an address can carry.
    private static string Whole(string value) => value.Replace('\uD800', 'x').Replace('\0', 'x');

    private static async Task<string> SaidAsync(HttpRequestMessage request, HttpResponseMessage answer)
    {
        var body = request.Content is null ? "" : await request.Content.ReadAsStringAsync(Cancel);
        var said = (int)answer.StatusCode == 599 ? await answer.Content.ReadAsStringAsync(Cancel) : "";
        return $"{(int)answer.StatusCode} {request.Method} {request.RequestUri} {request.Headers} {body[..Math.Min(600, body.Length)]} {said}";
    }

    // What is there, so that a good part of what is sent gets past the door.
    private async Task<Dictionary<string, string[]>> KnownAsync()
    {
        await using var db = await house
            .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
            .CreateDbContextAsync(Cancel);
        var quotes = await db.Quotes.OrderByDescending(q => q.Id).Select(q => q.Number).Take(8).ToArrayAsync(Cancel);
        var orders = await db.Orders.OrderByDescending(o => o.Id).Select(o => o.Number).Take(8).ToArrayAsync(Cancel);
        var requests = await db.Requests.Select(r => r.Number).Take(20).ToArrayAsync(Cancel);
        var dossiers = await db
            .Dossiers.OrderByDescending(d => d.Id)
            .Select(d => d.Number)
            .Take(4)
            .ToArrayAsync(Cancel);
        string[] small = ["1", "2", "3", "4", "5"];
        string[] sheets =
        [
            .. (await db.Quotes.OrderByDescending(q => q.Id).Select(q => q.SheetId).Take(8).ToListAsync(Cancel)).Select(
                i => i.ToString(CultureInfo.InvariantCulture)
            ),
        ];
        return new()
        {
            ["number"] = [.. quotes, .. orders, .. requests, .. dossiers],
            ["quote"] = quotes,
            ["order"] = orders,
            ["request"] = requests,
            ["id"] = [.. small, .. sheets],
            ["kind"] = [.. RecordKinds.All.Select(k => k.Name), "setLine", "addLine", "setHead", "removeLine"],
            ["version"] = small,
            ["If-Match"] = small,
            ["line"] = small,
            ["lines"] = small,
            ["item"] = ["BB2-10-NV", "SHK-BOW-10"],
            ["itemCode"] = ["BB2-10-NV", "SHK-BOW-10"],
            ["buyer"] = ["B-0001", "B-0014", "1"],
            ["buyerId"] = small,
            ["unit"] = ["MTR", "C62", "CL"],
            ["quantity"] = ["1", "40", "1000000000"],
            ["family"] = ["rope", "chain"],
            ["list"] = ["house"],
            ["percent"] = ["4", "-3"],
            ["decimals"] = ["2"],
            ["format"] = ["csv", "xlsx"],
            ["take"] = ["50", "500"],
            ["skip"] = ["0", "10"],
            ["sort"] = ["code", "name", "words"],
            ["filter"] = ["code = B-0001", "words has rope", "price > 3", "from > 2026-01-01"],
            ["columns"] = ["code", "code name", "price"],
            ["field"] =
            [
                .. HeadTerms.All.Select(t => t.Name),
                "quantity",
                "price",
                "discountPercent",
                "words",
                "code",
                "name",
            ],
            ["value"] = ["3", "2026-12-01", "DAP", "-7", "1.95", "BB2-10-NV"],
            ["day"] = ["2026-12-01", "0001-01-01", "9999-12-31"],
            ["filename"] = ["a.csv", "b.eml", "c.x12", "d.png"],
            ["login"] = ["quill"],
            ["by"] = ["mail", "paper"],
            ["to"] = ["a@b.example"],
            ["text"] = ["{link}"],
            ["q"] = ["rope 12", "S26", "tressel"],
        };
    }
}
