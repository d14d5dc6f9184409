using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What needs somebody stands on their desk, and leaves it when they have done it.</summary>
public sealed class DeskTests(House house) : MoneyCalls(house)
{
    private async Task<List<JsonElement>> DeskAsync(long person) =>
        [
            .. (await (await (await House.AsAsync(person)).GetAsync("/api/desk", Cancel)).JsonAsync())
                .GetProperty("items")
                .EnumerateArray(),
        ];

    private async Task<string?> OnDeskAsync(long person, string number) =>
        (await DeskAsync(person))
            .Where(i => i.GetProperty("number").GetString() == number)
            .Select(i => i.GetProperty("act").GetString())
            .FirstOrDefault();

    [Fact]
    public async Task A_quote_wanders_over_the_desks_of_those_it_waits_for()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -12%");
        Assert.NotNull(await OnDeskAsync(Quill, number));
        Assert.Null(await OnDeskAsync(Paz, number));
        // Somebody else's quote is nobody else's work.
        Assert.Null(await OnDeskAsync(Mohr, number));

        var asked = await (
            await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "a good customer" })
        ).JsonAsync();
        Assert.Equal("decide", await OnDeskAsync(Paz, number));
        // Where it is, and since when, is hers to see.
        Assert.Equal("look", await OnDeskAsync(Quill, number));

        var ask = asked.GetProperty("asks")[0].GetProperty("id").GetInt64();
        (
            await (await House.AsAsync(Paz)).PostAsJsonAsync($"/api/asks/{ask}/grant", new { note = "" }, Cancel)
        ).EnsureSuccessStatusCode();
        Assert.Null(await OnDeskAsync(Paz, number));
        Assert.Equal("send", await OnDeskAsync(Quill, number));

        var seen = await SeenAsync(quill, $"/api/quotes/{number}");
        (
            await quill.ActAsync(
                $"/api/quotes/{number}/send",
                seen,
                new
                {
                    to = "fionn@tresselvane.example",
                    subject = $"desk {number}",
                    text = "{link}",
                }
            )
        ).EnsureSuccessStatusCode();
        Assert.Null(await OnDeskAsync(Quill, number));

        var link = await House.LinkAsync($"desk {number}");
        (
            await House
                .CreateClient()
                .PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = $"D-{number}" }, Cancel)
        ).EnsureSuccessStatusCode();
        Assert.NotNull(await OnDeskAsync(Quill, number));
        (await quill.PostAsync($"/api/quotes/{number}/order", null, Cancel)).EnsureSuccessStatusCode();
        Assert.Null(await OnDeskAsync(Quill, number));
    }

    [Fact]
    public async Task A_granted_or_returned_ask_says_so_with_its_note()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 90 m -12%");
        var asked = await (
            await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "please" })
        ).JsonAsync();
        var ask = asked.GetProperty("asks")[0].GetProperty("id").GetInt64();
        (
            await (await House.AsAsync(Paz)).PostAsJsonAsync(
                $"/api/asks/{ask}/send-back",
                new { note = "9 % would do" },
                Cancel
            )
        ).EnsureSuccessStatusCode();
        var item = (await DeskAsync(Quill)).Single(i => i.GetProperty("number").GetString() == number);
        Assert.Contains(
            "9 % would do",
            item.GetProperty("reason").GetString() + item.GetProperty("rest").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Nobody_finds_on_their_desk_what_is_not_theirs_to_do()
    {
        // The planner reads no requests, decides no asks and sells nothing; a promise that cannot be kept is theirs
        // too.
        Assert.DoesNotContain(
            await DeskAsync(Castellane),
            i =>
                i.GetProperty("kind").GetString() is "request" or "quote" or "ask" or "order"
                && i.GetProperty("what").GetString() != "order late"
        );
        // Sellers read what their own buyers write; the order desk all of it.
        var requests = (await DeskAsync(Havergal)).Count(i => i.GetProperty("kind").GetString() == "request");
        Assert.True(requests > 0);
        Assert.True((await DeskAsync(Mohr)).Count(i => i.GetProperty("kind").GetString() == "request") < requests);
    }

    [Fact]
    public async Task A_request_leaves_the_desk_when_it_is_dealt_with()
    {
        var havergal = await House.AsAsync(Havergal);
        var taken = await ReceiveAsync(
            "From: Bosun <bosun@oystercatcher.example>\nSubject: rope\nMessage-ID: <desk-1@test.example>\nDate: Thu, 26 Nov 2026 08:41:07 +0000\n\nplease send 20 pcs SHK-BOW-10\n",
            "desk-1.eml"
        );
        var number = taken.GetProperty("number").GetString()!;
        Assert.Equal("read", await OnDeskAsync(Havergal, number));
        var version = (await (await havergal.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync()).GetProperty(
            "version"
        );
        (
            await havergal.PostAsJsonAsync(
                $"/api/requests/{number}/set-aside",
                new { version = version.GetInt64(), reason = "a test" },
                Cancel
            )
        ).EnsureSuccessStatusCode();
        Assert.Null(await OnDeskAsync(Havergal, number));
    }

    [Fact]
    public async Task What_is_due_stands_on_its_hour_of_the_day_it_is_due()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 12");
        (
            await quill.ActAsync(
                $"/api/quotes/{number}/send",
                sheet,
                new
                {
                    to = "fionn@tresselvane.example",
                    subject = $"due {number}",
                    text = "{link}",
                }
            )
        ).EnsureSuccessStatusCode();
        async Task<int> DueAsync() =>
            (await (await quill.GetAsync("/api/desk", Cancel)).JsonAsync())
                .GetProperty("day")
                .EnumerateArray()
                .Count(d => d.GetProperty("path").GetString() == $"/quotes/{number}");
        Assert.Equal(0, await DueAsync());
        House.Time.TurnOn(TimeSpan.FromDays(3));
        quill = await House.AsAsync(Quill);
        Assert.Equal(1, await DueAsync());
    }

    [Fact]
    public async Task Most_urgent_first_and_of_the_same_urgency_the_oldest()
    {
        string[] order = ["atOnce", "today", "whenThereIsTime"];
        var ranks = (await DeskAsync(Havergal)).ConvertAll(i =>
            (
                Array.IndexOf(order, i.GetProperty("urgency").GetString()),
                i.GetProperty("rank").GetInt32(),
                i.GetProperty("since").GetDateTime()
            )
        );
        Assert.NotEmpty(ranks);
        Assert.Equal(ranks.Order(), ranks);
    }
}
