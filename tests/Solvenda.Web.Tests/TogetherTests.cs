using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// Two at once: of what can be done only once, one is done and the other is told; of what both may do, nothing is lost.
/// </summary>
public sealed class TogetherTests(House house) : MoneyCalls(house)
{
    /// <summary>Does the same many times at once; answers with how often it was done, and the codes of the
    /// others.</summary>
    private static async Task<(int Done, List<string> Codes)> AllAtOnceAsync(
        int times,
        Func<int, Task<HttpResponseMessage>> call
    )
    {
        var answers = await Task.WhenAll(Enumerable.Range(0, times).Select(call));
        var codes = new List<string>();
        foreach (var no in answers.Where(a => !a.IsSuccessStatusCode))
        {
            Assert.True((int)no.StatusCode < 500, $"{no.StatusCode}");
            codes.Add(await no.CodeAsync());
        }
        return (answers.Count(a => a.IsSuccessStatusCode), codes);
    }

    [Fact]
    public async Task Of_edits_on_one_version_one_is_taken_and_the_others_hear_what_it_was()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2");
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        var path = $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits";
        var (done, codes) = await AllAtOnceAsync(
            6,
            i =>
                (i % 2 == 0 ? quill : paz).ActAsync(
                    path,
                    sheet,
                    new[]
                    {
                        new
                        {
                            kind = "set",
                            line = key,
                            field = "quantity",
                            value = $"{10 + i}",
                        },
                    }
                )
        );
        Assert.Equal(1, done);
        Assert.All(codes, c => Assert.Equal("stale", c));
        var now = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal(sheet.GetProperty("version").GetInt64() + 1, now.GetProperty("version").GetInt64());
        Assert.InRange(now.GetProperty("lines")[0].GetProperty("quantity").GetDecimal(), 10m, 15m);
        Assert.Equal(
            1,
            await House.DbAsync(db =>
                db.Events.CountAsync(e => e.Subject == number && e.Facts.Contains("\"quantity\""), Cancel)
            )
        );
    }

    [Fact]
    public async Task An_order_is_confirmed_once_and_its_stock_is_committed_once()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 2");
        sheet = await SetAsync(quill, sheet, "poNumber", "ONCE-" + number);
        var (done, codes) = await AllAtOnceAsync(5, _ => quill.ActAsync($"/api/orders/{number}/confirm", sheet));
        Assert.Equal(1, done);
        Assert.All(codes, c => Assert.True(c is "sheet_closed" or "stale", c));
        var committed = await House.DbAsync(db =>
            (
                from c in db.Commitments
                join o in db.Orders on c.OrderId equals o.Id
                where o.Number == number
                select c.Quantity
            ).ToListAsync(Cancel)
        );
        Assert.Equal([2m], committed);
        Assert.Equal(
            1,
            await House.DbAsync(db => db.Outbox.CountAsync(o => EF.Functions.Like(o.Key, $"%{number}%"), Cancel))
        );
    }

    [Fact]
    public async Task A_request_becomes_one_quote_however_often_the_key_is_pressed()
    {
        var nell = await House.AsAsync(Havergal);
        var number = (
            await ReceiveAsync(
                "From: office@tresselvane.example\nSubject: please quote\n\nPlease quote 4 pcs SHK-BOW-10\n",
                "twice.eml"
            )
        )
            .GetProperty("number")
            .GetString()!;
        var seen = await (await nell.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync();
        var body = new { version = seen.GetProperty("version").GetInt64(), intoOrder = false };
        var (done, codes) = await AllAtOnceAsync(
            4,
            _ => nell.PostAsJsonAsync($"/api/requests/{number}/turn", body, Cancel)
        );
        Assert.Equal(1, done);
        Assert.All(codes, c => Assert.True(c is "request_done" or "stale", c));
        Assert.Equal(
            1,
            await House.DbAsync(db =>
                (
                    from q in db.Quotes
                    join r in db.Requests on q.RequestId equals r.Id
                    where r.Number == number
                    select q
                ).CountAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task An_ask_is_decided_once_whoever_presses_first()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 20 m -12%");
        var asked = await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "they wait" });
        var id = (await asked.JsonAsync()).GetProperty("asks")[0].GetProperty("id").GetInt64();
        var (done, codes) = await AllAtOnceAsync(
            4,
            i =>
                i % 2 == 0
                    ? paz.PostAsJsonAsync($"/api/asks/{id}/grant", new { note = "" }, Cancel)
                    : paz.PostAsJsonAsync($"/api/asks/{id}/send-back", new { note = "too much" }, Cancel)
        );
        Assert.Equal(1, done);
        Assert.Equal(3, codes.Count);
        var outcome = await House.DbAsync(db =>
            db.Asks.Where(a => a.Id == id).Select(a => a.Outcome).FirstAsync(Cancel)
        );
        Assert.True(outcome is AskOutcome.Granted or AskOutcome.SentBack);
        var decided = await House.DbAsync(db =>
            db.Events.CountAsync(
                e => e.Subject == number && (e.Code == "ask.granted" || e.Code == "ask.sent_back"),
                Cancel
            )
        );
        Assert.Equal(1, decided);
    }

    [Fact]
    public async Task A_record_keeps_the_first_of_two_changes_and_says_what_it_was()
    {
        var paz = await House.AsAsync(Paz);
        const string Path = "/api/records/items/3";
        var version = (await (await paz.GetAsync(Path, Cancel)).JsonAsync()).GetProperty("version").GetInt64();
        var (done, codes) = await AllAtOnceAsync(
            4,
            async i =>
            {
                using var request = new HttpRequestMessage(HttpMethod.Put, Path)
                {
                    Content = JsonContent.Create(new { values = new { leadDays = $"{20 + i}" } }),
                };
                request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
                return await paz.SendAsync(request, Cancel);
            }
        );
        Assert.Equal(1, done);
        Assert.All(codes, c => Assert.Equal("stale", c));
        var now = await (await paz.GetAsync(Path, Cancel)).JsonAsync();
        Assert.Equal(version + 1, now.GetProperty("version").GetInt64());
    }

    [Fact]
    public async Task Numbers_are_given_once_and_without_a_gap_however_many_begin_at_once()
    {
        var quill = await House.AsAsync(Quill);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(_ =>
                    quill.PostAsJsonAsync("/api/quotes", new { buyerId = Tressel, matter = "one of many" }, Cancel)
                )
        );
        var numbers = new List<string>();
        foreach (var answer in answers)
            numbers.Add((await answer.JsonAsync()).GetProperty("number").GetString()!);
        var counts = numbers.Select(n => int.Parse(n[4..], System.Globalization.CultureInfo.InvariantCulture)).Order();
        Assert.Equal(Enumerable.Range(counts.First(), 12), counts);
    }

    [Fact]
    public async Task The_same_key_gets_the_same_answer_and_another_input_under_it_is_refused()
    {
        var quill = await House.AsAsync(Quill);
        Task<HttpResponseMessage> BeginAsync(string matter)
        {
            var request = new HttpRequestMessage(HttpMethod.Post, "/api/quotes")
            {
                Content = JsonContent.Create(new { buyerId = Tressel, matter }),
            };
            request.Headers.Add("Idempotency-Key", "pressed-once");
            return quill.SendAsync(request, Cancel);
        }
        var answers = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => BeginAsync("the same")));
        var numbers = new HashSet<string>();
        foreach (var answer in answers)
            numbers.Add((await answer.JsonAsync()).GetProperty("number").GetString()!);
        Assert.Single(numbers);
        Assert.Equal("key_used", await (await BeginAsync("another")).CodeAsync());
    }
}
