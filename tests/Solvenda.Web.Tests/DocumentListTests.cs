using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Requests, quotes and orders by the doors that every list has.</summary>
public sealed class DocumentListTests(House house) : MoneyCalls(house)
{
    private static async Task<JsonElement> ListAsync(HttpClient client, string list, string question = "") =>
        await (await client.GetAsync($"/api/lists/{list}?{question}", Cancel)).JsonAsync();

    private static List<string> Numbers(JsonElement page) =>
        [.. page.GetProperty("rows").EnumerateArray().Select(r => r.GetProperty("calls").GetString()!)];

    private static List<string[]> Cells(JsonElement page) =>
        [
            .. page.GetProperty("rows")
                .EnumerateArray()
                .Select(r => r.GetProperty("cells").EnumerateArray().Select(c => c.GetString()!).ToArray()),
        ];

    [Theory]
    [InlineData("requests")]
    [InlineData("quotes")]
    [InlineData("orders")]
    public async Task Every_column_sorts_both_ways_and_stands_at_the_foot(string list)
    {
        var paz = await House.AsAsync(Paz);
        var kind = (await ListsAsync(paz)).First(k => k.GetProperty("name").GetString() == list);
        foreach (var field in kind.GetProperty("fields").EnumerateArray())
        {
            var name = field.GetProperty("name").GetString()!;
            var up = Numbers(await ListAsync(paz, list, $"sort={name}&take=500"));
            var down = Numbers(await ListAsync(paz, list, $"sort={name}&down=true&take=500"));
            Assert.NotEmpty(up);
            Assert.Equal(up.Order(), down.Order());
            var foot = await paz.GetAsync($"/api/lists/{list}/foot?filter=open:any&columns={name}", Cancel);
            Assert.Equal(HttpStatusCode.OK, foot.StatusCode);
        }
    }

    private static async Task<List<JsonElement>> ListsAsync(HttpClient client) =>
        [.. (await (await client.GetAsync("/api/lists", Cancel)).JsonAsync()).EnumerateArray()];

    [Fact]
    public async Task A_list_shows_what_is_open_and_the_rest_when_asked_newest_first()
    {
        var paz = await House.AsAsync(Paz);
        var (open, all) = await House.DbAsync(async db =>
            (
                await db
                    .Orders.Where(o => o.Goods != GoodsTrack.Shipped && o.Terms != TermsTrack.Cancelled)
                    .OrderByDescending(o => o.Id)
                    .Select(o => o.Number)
                    .ToListAsync(Cancel),
                await db.Orders.CountAsync(Cancel)
            )
        );
        var page = await ListAsync(paz, "orders", "take=500");
        Assert.Equal(open, Numbers(page));
        Assert.Equal(all, (await ListAsync(paz, "orders", "filter=open:any&take=1")).GetProperty("total").GetInt32());
        Assert.Equal(
            all - open.Count,
            (await ListAsync(paz, "orders", "filter=open:no&take=1")).GetProperty("total").GetInt32()
        );
    }

    [Fact]
    public async Task Words_conditions_and_states_narrow_a_list_and_pages_of_it_meet()
    {
        var paz = await House.AsAsync(Paz);
        var confirmed = await ListAsync(paz, "orders", "filter=open:any+terms:confirmed&columns=terms,goods&take=500");
        Assert.All(Cells(confirmed), c => Assert.Equal("confirmed", c[0]));
        var count = await House.DbAsync(db =>
            db.Orders.CountAsync(o => o.Terms == TermsTrack.Confirmed && o.HeldWhy == "", Cancel)
        );
        Assert.Equal(count, confirmed.GetProperty("total").GetInt32());

        var dear = Cells(await ListAsync(paz, "orders", "filter=open:any+total>1000&columns=total,currency&take=500"));
        Assert.NotEmpty(dear);
        Assert.All(
            dear,
            c => Assert.True(decimal.Parse(c[0], System.Globalization.CultureInfo.InvariantCulture) > 1000m)
        );

        var withBuyer = Cells(await ListAsync(paz, "quotes", "filter=open:any+state:\"with the buyer\"&columns=state"));
        Assert.All(withBuyer, c => Assert.Equal("with the buyer", c[0]));

        var whole = Numbers(await ListAsync(paz, "quotes", "filter=open:any&sort=buyer&take=500"));
        var pages = new List<string>();
        for (var skip = 0; skip < whole.Count; skip += 7)
            pages.AddRange(Numbers(await ListAsync(paz, "quotes", $"filter=open:any&sort=buyer&skip={skip}&take=7")));
        Assert.Equal(whole, pages);
    }

    [Fact]
    public async Task A_moment_is_asked_for_by_its_day()
    {
        var paz = await House.AsAsync(Paz);
        var all = Cells(await ListAsync(paz, "requests", "filter=open:any&columns=received&take=500"));
        var day = all[0][0][..10];
        foreach (
            var (sign, fits) in new (string, Func<int, bool>)[]
            {
                (":", c => c == 0),
                (">", c => c > 0),
                (">=", c => c >= 0),
                ("<", c => c < 0),
                ("<=", c => c <= 0),
            }
        )
            Assert.Equal(
                all.Count(c => fits(string.CompareOrdinal(c[0][..10], day))),
                (
                    await ListAsync(
                        paz,
                        "requests",
                        $"filter={Uri.EscapeDataString($"open:any received{sign}{day}")}&take=1"
                    )
                )
                    .GetProperty("total")
                    .GetInt32()
            );
    }

    [Fact]
    public async Task The_foot_adds_up_by_currency_over_all_that_fits()
    {
        var paz = await House.AsAsync(Paz);
        var sums = await House.DbAsync(async db =>
            await db
                .Orders.Where(o => o.Goods != GoodsTrack.Shipped && o.Terms != TermsTrack.Cancelled)
                .GroupBy(o => o.Sheet.Currency)
                .Select(g => new { g.Key, Minor = g.Sum(o => o.Sheet.TotalWithTaxMinor) })
                .ToListAsync(Cancel)
        );
        var foot = (await (await paz.GetAsync("/api/lists/orders/foot?columns=total", Cancel)).JsonAsync())
            .GetProperty("cells")[0]
            .GetString()!;
        var said = foot.Split("; ").Select(s => s.Split(' ')).ToDictionary(s => s[0], s => s[1]);
        Assert.Equal(sums.Select(s => s.Key).Order(), said.Keys.Order());
        foreach (var sum in sums.Where(s => s.Key == "EUR"))
            Assert.Equal(
                sum.Minor / 100m,
                decimal.Parse(said["EUR"], System.Globalization.CultureInfo.InvariantCulture)
            );
    }

    [Fact]
    public async Task An_export_holds_all_that_fits_in_words()
    {
        var paz = await House.AsAsync(Paz);
        var total = (await ListAsync(paz, "orders", "filter=open:any&take=1")).GetProperty("total").GetInt32();
        var text = await (
            await paz.GetAsync("/api/lists/orders/export?filter=open:any", Cancel)
        ).Content.ReadAsStringAsync(Cancel);
        var rows = text.Split("\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(total, rows.Length - 1);
        Assert.Contains("to invoice", text, StringComparison.Ordinal);
        Assert.DoesNotContain("toInvoice", text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("orders", "csv")]
    [InlineData("buyer-codes", "csv")]
    [InlineData("items", "xlsx")]
    public async Task A_filter_that_cannot_be_is_refused_before_an_export_begins(string list, string format)
    {
        var paz = await House.AsAsync(Paz);
        var answer = await paz.GetAsync($"/api/lists/{list}/export?format={format}&filter=a%3Db", Cancel);
        Assert.Equal("field_unknown", await answer.CodeAsync());
    }

    [Fact]
    public async Task Many_are_set_aside_at_once_and_what_cannot_be_says_why()
    {
        var nell = await House.AsAsync(Havergal);
        foreach (var i in Enumerable.Range(1, 3))
            await ReceiveAsync($"Subject: sheep {i}\nFrom: a@wool.example\n\nBaa number {i}?", $"sheep{i}.eml");
        await House.TakenInAsync();
        var fitting = await ListAsync(nell, "requests", "filter=sheep");
        Assert.Equal(3, fitting.GetProperty("total").GetInt32());

        Task<HttpResponseMessage> DoAsync(object body) =>
            nell.PostAsJsonAsync("/api/lists/requests/deeds", body, Cancel);
        Assert.Equal(
            "reason_missing",
            await (
                await DoAsync(
                    new
                    {
                        deed = "set-aside",
                        filter = "sheep",
                        count = 3,
                    }
                )
            ).CodeAsync()
        );
        Assert.Equal(
            "stale",
            await (
                await DoAsync(
                    new
                    {
                        deed = "set-aside",
                        given = "wool",
                        filter = "sheep",
                        count = 2,
                    }
                )
            ).CodeAsync()
        );
        var done = await RoundAsync(
            nell,
            "requests",
            new
            {
                deed = "set-aside",
                given = "wool",
                filter = "sheep",
                count = 3,
            }
        );
        Assert.Equal((3, 0), (done.GetProperty("done").GetInt32(), done.GetProperty("notDone").GetInt32()));
        Assert.Empty(Numbers(await ListAsync(nell, "requests", "filter=sheep")));

        // Again by their keys: each says why it is not done, and nothing else happens.
        var ids = (await ListAsync(nell, "requests", "filter=sheep+open:no"))
            .GetProperty("rows")
            .EnumerateArray()
            .Select(r => r.GetProperty("id").GetInt64())
            .ToArray();
        var again = await RoundAsync(
            nell,
            "requests",
            new
            {
                deed = "set-aside",
                given = "wool",
                ids,
            }
        );
        Assert.Equal((0, 3), (again.GetProperty("done").GetInt32(), again.GetProperty("notDone").GetInt32()));
        Assert.Contains(
            "dealt with already",
            again.GetProperty("refused")[0].GetProperty("words").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Confirming_many_leaves_those_that_are_stopped()
    {
        var quill = await House.AsAsync(Quill);
        var ids = new List<long>();
        foreach (var line in new[] { "SHK-BOW-10 x 2", "SHK-BOW-10 x 2 -45%" })
        {
            var (number, sheet) = await OrderAsync(quill, line);
            await SetAsync(quill, sheet, "poNumber", $"MANY-{ids.Count}");
            ids.Add(
                await House.DbAsync(db => db.Orders.Where(o => o.Number == number).Select(o => o.Id).FirstAsync(Cancel))
            );
        }
        var done = await RoundAsync(quill, "orders", new { deed = "confirm", ids });
        Assert.Equal((1, 1), (done.GetProperty("done").GetInt32(), done.GetProperty("notDone").GetInt32()));
        var stopped = await House.DbAsync(db =>
            db.Orders.Where(o => o.Id == ids[1]).Select(o => o.Terms).FirstAsync(Cancel)
        );
        Assert.Equal(TermsTrack.Open, stopped);
    }

    [Fact]
    public async Task Who_only_looks_is_offered_no_deeds_and_can_do_none()
    {
        var petra = await House.AsAsync(9);
        // Billing invoices, and does nothing else to documents.
        Assert.Equal(
            ["invoice"],
            (await ListsAsync(petra))
                .SelectMany(k => k.GetProperty("deeds").EnumerateArray())
                .Select(d => d.GetProperty("name").GetString())
        );
        var refused = await petra.PostAsJsonAsync(
            "/api/lists/quotes/deeds",
            new
            {
                deed = "withdraw",
                given = "x",
                filter = "",
                count = 1,
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
    }

    [Fact]
    public async Task Views_of_documents_are_kept_and_one_for_all_takes_a_lead()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var view = new
        {
            name = "mine",
            forAll = false,
            filter = "terms:held",
            columns = new[] { "number", "buyer" },
        };
        var kept = await (await quill.PostAsJsonAsync("/api/views/orders", view, Cancel)).JsonAsync();
        Assert.Equal("terms:held", kept.EnumerateArray().Single().GetProperty("filter").GetString());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await quill.PostAsJsonAsync("/api/views/orders", view with { forAll = true }, Cancel)).StatusCode
        );
        var shared = await paz.PostAsJsonAsync("/api/views/orders", view with { forAll = true, name = "all" }, Cancel);
        Assert.Equal(HttpStatusCode.OK, shared.StatusCode);
        Assert.Equal(
            ["all", "mine"],
            (await (await quill.GetAsync("/api/views/orders", Cancel)).JsonAsync())
                .EnumerateArray()
                .Select(v => v.GetProperty("name").GetString()!)
                .Order()
        );
    }
}
