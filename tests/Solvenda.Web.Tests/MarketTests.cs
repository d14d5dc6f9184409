using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// The marketplace, spoken to by HTTP: what it holds is taken once, keeps the prices that were paid, and it is told.
/// </summary>
public sealed class MarketTests(House house) : QueueCalls(house), IAsyncLifetime
{
    private readonly string _shop = Directory.CreateTempSubdirectory("solvenda-shop").FullName;
    private Process? _process;
    private HttpClient _at = null!;

    public async ValueTask InitializeAsync()
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardInput = true, RedirectStandardOutput = true };
        foreach (
            var arg in new[]
            {
                Path.Combine(AppContext.BaseDirectory, "Solvenda.Web.dll"),
                "stand-in",
                "--name",
                "harbourmart",
                "--folder",
                _shop,
                "--key",
                "shop-key",
            }
        )
            start.ArgumentList.Add(arg);
        _process = Process.Start(start)!;
        var ready = await _process.StandardOutput.ReadLineAsync(Cancel);
        _at = new HttpClient { BaseAddress = new Uri(ready!["ready ".Length..]) };
        _at.DefaultRequestHeaders.Authorization = new("Bearer", "shop-key");
        await TellWayAsync("harbourmart", new { address = _at.BaseAddress!.ToString(), key = "shop-key" });
    }

    public ValueTask DisposeAsync()
    {
        _at.Dispose();
        _process?.Kill();
        _process?.Dispose();
        Directory.Delete(_shop, recursive: true);
        return ValueTask.CompletedTask;
    }

    private static string Sold(string id, string price, string total) =>
        $$$"""
            {"id":"{{{id}}}","placedAt":"2026-03-10T19:22:41Z","currency":"EUR",
            "buyer":{"name":"Ida Kestle","email":"ida@mail.example"},
            "deliverTo":{"name":"Ida Kestle","street":"3 Slip Lane","postcode":"A65 F4E2","city":"Skerrow","country":"IE"},
            "lines":[{"line":1,"sku":"FND-A3-BL","quantity":2,"unitPrice":"{{{price}}}","taxIncluded":true}],
            "shipping":"9.90","total":"{{{total}}}","payment":{"state":"paid","reference":"P-{{{id}}}"},"fee":"13.91"}
            """;

    private async Task FeedAsync(string list, string id, string entry)
    {
        var feed = Directory.CreateDirectory(Path.Combine(_shop, "feed")).FullName;
        var part = Path.Combine(feed, $".{id}");
        await File.WriteAllTextAsync(part, $"{{\"{list}\":[{entry}]}}", Cancel);
        File.Move(part, Path.Combine(feed, $"{id}.json"));
        await (await House.AsAsync(Whitlock)).PostAsync("/api/setup/ways/harbourmart/run", null, Cancel);
    }

    private async Task<RequestRow> CameAsync(string words)
    {
        var number = await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Requests.Where(r => r.Channel == "harbourmart" && r.Subject.Contains(words) && r.Syntax != "")
                    .Select(r => r.Number)
                    .FirstOrDefaultAsync(Cancel)
            )
        );
        return await WeighedAsync(number);
    }

    private static async Task TakeAsync(HttpClient who, RequestRow request)
    {
        var take = new
        {
            deed = "take",
            given = "",
            ids = new[] { request.Id },
            count = 1,
        };
        Assert.Equal(1, (await RoundAsync(who, "requests", take)).GetProperty("done").GetInt32());
    }

    private async Task<JsonElement> ToldAsync(string words)
    {
        var told = await Answers.EventuallyAsync(async () =>
            (await _at.GetFromJsonAsync<List<JsonElement>>("told", Cancel))!
                .Select(t => t.GetRawText())
                .FirstOrDefault(t => t.Contains(words, StringComparison.Ordinal))
        );
        return JsonDocument.Parse(told).RootElement;
    }

    [Fact]
    public async Task A_paid_order_is_taken_keeps_its_prices_and_the_channel_is_told()
    {
        await FeedAsync("orders", "HM-1-001", Sold("HM-1-001", "82.00", "173.90"));
        var request = await CameAsync("HM-1-001");
        Assert.Equal((RequestState.New, 17390L, true), (request.State, request.WorthMinor, request.Ready));
        var nell = await House.AsAsync(Havergal);
        var taken = await nell.PostAsJsonAsync(
            "/api/lists/requests/deeds",
            new { deed = "take", ids = new[] { request.Id } },
            Cancel
        );
        Assert.True(taken.IsSuccessStatusCode, await taken.Content.ReadAsStringAsync(Cancel));
        var order = await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Orders.AsNoTracking()
                    .Include(o => o.Sheet)
                    .FirstOrDefaultAsync(o => o.RequestId == request.Id && o.Terms == TermsTrack.Confirmed, Cancel)
            )
        );
        Assert.Equal(("harbourmart", 17390L), (order.Channel, order.Sheet.TotalWithTaxMinor));
        Assert.Equal(
            17390L,
            await House.DbAsync(db => db.Deposits.Where(d => d.OrderId == order.Id).SumAsync(d => d.Minor, Cancel))
        );
        var told = await ToldAsync("HM-1-001");
        Assert.Equal("accepted", told.GetProperty("status").GetString());
        // It hands over what is not taken, and no more.
        var waiting = await _at.GetFromJsonAsync<JsonElement>("waiting", Cancel);
        Assert.Equal(0, waiting.GetProperty("entries").GetArrayLength());
    }

    [Fact]
    public async Task What_is_handed_over_again_or_pushed_too_is_one_request()
    {
        var sold = Sold("HM-2-001", "82.00", "173.90");
        await FeedAsync("orders", "HM-2-001", sold);
        await CameAsync("HM-2-001");
        File.Delete(Path.Combine(_shop, "taken", "order-HM-2-001"));
        await (await House.AsAsync(Whitlock)).PostAsync("/api/setup/ways/harbourmart/run", null, Cancel);
        await Answers.EventuallyAsync(() =>
            Task.FromResult(File.Exists(Path.Combine(_shop, "taken", "order-HM-2-001")) ? "taken" : null)
        );
        var bytes = JsonSerializer.SerializeToUtf8Bytes(
            new { channel = "harbourmart", orders = new[] { JsonDocument.Parse(sold).RootElement } }
        );
        var pushed = await House
            .Machine()
            .PostAsync("/api/v1/inbound?channel=harbourmart&filename=p.json", new ByteArrayContent(bytes), Cancel);
        Assert.Equal(HttpStatusCode.OK, pushed.StatusCode);
        Assert.Equal(1, await House.DbAsync(db => db.Requests.CountAsync(r => r.Subject.Contains("HM-2-001"), Cancel)));
        var nowhere = await House
            .Machine()
            .PostAsync("/api/v1/inbound?channel=no-such", new ByteArrayContent(bytes), Cancel);
        Assert.Equal("channel_unknown", await nowhere.CodeAsync());
    }

    [Fact]
    public async Task A_question_is_answered_where_it_was_asked_and_the_next_one_goes_on_from_it()
    {
        await FeedAsync(
            "questions",
            "HMQ-1",
            """{"id":"HMQ-1","from":"pia@mail.example","text":"Does the blue fade?","listing":"FND-A3-BL"}"""
        );
        var first = await CameAsync("HMQ-1 ");
        var nell = await House.AsAsync(Havergal);
        var answer = await nell.PostAsJsonAsync(
            $"/api/requests/{first.Number}/answers",
            new
            {
                version = first.Version,
                to = "",
                subject = "",
                text = "Not in our sun.",
                done = true,
            },
            Cancel
        );
        Assert.True(answer.IsSuccessStatusCode);
        Assert.Equal("Not in our sun.", (await ToldAsync("Not in our sun")).GetProperty("text").GetString());
        await FeedAsync(
            "questions",
            "HMQ-2",
            """{"id":"HMQ-2","from":"pia@mail.example","text":"And in Spain?","inReplyTo":"HMQ-1"}"""
        );
        var second = await CameAsync("HMQ-2");
        var view = await (await nell.GetAsync($"/api/requests/{second.Number}", Cancel)).JsonAsync();
        Assert.Equal(first.Number, view.GetProperty("follows").GetString());
        Assert.Equal("Not in our sun.", view.GetProperty("answers")[0].GetProperty("text").GetString());
    }

    [Fact]
    public async Task What_is_taken_back_is_laid_beside_its_order()
    {
        await FeedAsync("orders", "HM-4-001", Sold("HM-4-001", "82.00", "173.90"));
        var request = await CameAsync("HM-4-001");
        var nell = await House.AsAsync(Havergal);
        await nell.PostAsJsonAsync(
            "/api/lists/requests/deeds",
            new { deed = "take", ids = new[] { request.Id } },
            Cancel
        );
        await ToldAsync("HM-4-001");
        await FeedAsync(
            "cancellations",
            "HMC-4",
            """{"id":"HMC-4","order":"HM-4-001","reason":"ordered twice","lines":[{"line":1,"sku":"FND-A3-BL","quantity":1}]}"""
        );
        var taken = await CameAsync("takes HM-4-001 back");
        Assert.Equal(("Cancellation", RequestState.NeedsYou), (taken.Kind, taken.State));
        Assert.Equal(
            await House.DbAsync(db =>
                db.Requests.Where(r => r.Id == request.Id).Select(r => r.DossierId).SingleAsync(Cancel)
            ),
            taken.DossierId
        );
        var change = await (await nell.GetAsync($"/api/requests/{taken.Number}/change", Cancel)).JsonAsync();
        Assert.Contains("HM-4-001", change.GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_shop_that_fails_is_asked_again_and_loses_nothing()
    {
        await _at.PostAsync("fail?on=true", null, Cancel);
        await FeedAsync("orders", "HM-5-001", Sold("HM-5-001", "82.00", "173.90"));
        await _at.PostAsync("fail?on=false", null, Cancel);
        await (await House.AsAsync(Whitlock)).PostAsync("/api/setup/ways/harbourmart/run", null, Cancel);
        Assert.NotNull(await CameAsync("HM-5-001"));
    }

    [Fact]
    public async Task Nobody_without_its_key_is_told_what_a_shop_holds()
    {
        using var stranger = new HttpClient { BaseAddress = _at.BaseAddress };
        Assert.Equal(HttpStatusCode.Unauthorized, (await stranger.GetAsync("waiting", Cancel)).StatusCode);
        // The key is kept sealed, and is never shown again.
        var cass = await House.AsAsync(Whitlock);
        Assert.DoesNotContain(
            "shop-key",
            await cass.GetStringAsync("/api/setup/ways/harbourmart", Cancel),
            StringComparison.Ordinal
        );
        Assert.DoesNotContain(
            "shop-key",
            await House.DbAsync(db =>
                db.Ways.Where(w => w.Channel == "harbourmart").Select(w => w.Settings).SingleAsync(Cancel)
            ),
            StringComparison.Ordinal
        );
    }

    // What calls itself as the door is called that it came by is no sales channel for that.
    [Theory]
    [InlineData("harbourmart", "HM-6-001")]
    [InlineData("machine", "HM-7-001")]
    public async Task A_file_that_only_says_that_it_is_paid_is_not_believed_and_our_prices_stand(
        string calls,
        string id
    )
    {
        var sold = $"{{\"channel\":\"{calls}\",\"orders\":[{Sold(id, "1.00", "11.90")}]}}";
        var number = (await ReceiveAsync(sold, $"{id}.json")).GetProperty("number").GetString()!;
        var nell = await House.AsAsync(Havergal);
        if (calls == "machine")
        {
            var version = (await WeighedAsync(number)).Version;
            var buyer = await House.DbAsync(db =>
                db.Buyers.Where(b => b.Name.StartsWith("harbourmart")).Select(b => b.Id).FirstAsync(Cancel)
            );
            await PostAsync(
                nell,
                $"/api/requests/{number}/correct",
                new
                {
                    version,
                    field = "buyer",
                    value = $"{buyer}",
                }
            );
        }
        var request = await WeighedAsync(number);
        Assert.Equal((RequestState.NeedsYou, false), (request.State, request.Ready));
        Assert.NotEqual(1190L, request.WorthMinor);
        var turned = await PostAsync(
            nell,
            $"/api/requests/{number}/turn",
            new { version = request.Version, intoOrder = true }
        );
        var order = await (
            await nell.GetAsync($"/api/orders/{turned.GetProperty("number").GetString()}", Cancel)
        ).JsonAsync();
        var sheet = order.GetProperty("sheet");
        Assert.Equal(JsonValueKind.Null, sheet.GetProperty("tally").GetProperty("paid").ValueKind);
        Assert.Contains(
            sheet.GetProperty("findings").EnumerateArray(),
            f =>
                f.GetProperty("check").GetString() == "paid"
                && f.GetProperty("outcome").GetString() == "stop"
                && f.GetProperty("words").GetString()!.Contains("channel itself", StringComparison.Ordinal)
        );
    }
}
