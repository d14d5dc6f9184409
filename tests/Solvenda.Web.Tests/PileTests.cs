using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Rounds;
using Solvenda.Data.Rows;
using Solvenda.Web.Workers;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Documents on piles, and what is done to many of them by itself.</summary>
public sealed class PileTests(House house) : MoneyCalls(house)
{
    private async Task<(List<string> Numbers, List<long> Ids)> OrdersAsync(HttpClient who, int count, string po)
    {
        var (numbers, ids) = (new List<string>(), new List<long>());
        for (var i = 0; i < count; i++)
        {
            var (number, sheet) = await OrderAsync(who, $"SHK-BOW-10 x {i + 1}");
            await SetAsync(who, sheet, "poNumber", $"{po}-{i}");
            numbers.Add(number);
            ids.Add(
                await House.DbAsync(db => db.Orders.Where(o => o.Number == number).Select(o => o.Id).FirstAsync(Cancel))
            );
        }
        return (numbers, ids);
    }

    private static JsonElement Named(JsonElement piles, string name) =>
        piles.EnumerateArray().Single(p => p.GetProperty("name").GetString() == name);

    private static async Task<List<string>> ListAsync(HttpClient who, string filter) =>
        [
            .. (
                await (
                    await who.GetAsync($"/api/lists/orders?filter={Uri.EscapeDataString(filter)}", Cancel)
                ).JsonAsync()
            )
                .GetProperty("rows")
                .EnumerateArray()
                .Select(r => r.GetProperty("calls").GetString()!),
        ];

    [Fact]
    public async Task What_lies_on_a_pile_is_opened_together_and_only_its_owner_names_it()
    {
        var (quill, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Mohr));
        var (numbers, ids) = await OrdersAsync(quill, 3, "PILE");
        var piles = await PostAsync(
            quill,
            "/api/piles/put",
            new
            {
                kind = "orders",
                name = "month end",
                shared = false,
                ids,
            }
        );
        var pile = Named(piles, "month end");
        var key = pile.GetProperty("key").GetString()!;
        Assert.Equal(3, pile.GetProperty("parts")[0].GetProperty("count").GetInt32());
        Assert.Equal(numbers.Order(), (await ListAsync(quill, $"pile:{key}")).Order());
        // Nobody else has it until it is shared.
        var others = await (await mohr.GetAsync("/api/piles", Cancel)).JsonAsync();
        Assert.DoesNotContain(others.EnumerateArray(), p => p.GetProperty("key").GetString() == key);
        var put = new
        {
            kind = "orders",
            pile = key,
            shared = false,
            ids,
        };
        Assert.Equal(HttpStatusCode.NotFound, (await mohr.PostAsJsonAsync("/api/piles/put", put, Cancel)).StatusCode);
        var named = new { name = "quarter end", shared = true };
        await quill.PutAsJsonAsync($"/api/piles/{key}", named, Cancel);
        await PostAsync(mohr, "/api/piles/take", put with { ids = [ids[0]] });
        Assert.Equal(2, (await ListAsync(quill, $"pile:{key}")).Count);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await mohr.PutAsJsonAsync($"/api/piles/{key}", named, Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await mohr.DeleteAsync($"/api/piles/{key}", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await quill.DeleteAsync($"/api/piles/{key}", Cancel)).StatusCode);
        Assert.Empty(await ListAsync(quill, $"pile:{key}"));
        // What lay on it is what it was.
        Assert.Contains(numbers[1], await ListAsync(quill, "item:SHK-BOW-10 po:PILE"));
    }

    [Fact]
    public async Task A_pile_takes_a_name_of_its_own_and_documents_that_lie_on_piles()
    {
        var quill = await House.AsAsync(Quill);
        Task<HttpResponseMessage> PutAsync(string kind, string name) =>
            quill.PostAsJsonAsync(
                "/api/piles/put",
                new
                {
                    kind,
                    name,
                    shared = false,
                    ids = Array.Empty<long>(),
                },
                Cancel
            );
        Assert.Equal("name_missing", await (await PutAsync("orders", " ")).CodeAsync());
        Assert.Equal("field_unknown", await (await PutAsync("buyers", "x")).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await PutAsync("orders", "twice")).StatusCode);
        Assert.Equal("name_taken", await (await PutAsync("orders", "twice")).CodeAsync());
        var castellane = await House.AsAsync(Castellane);
        var refused = await castellane.PostAsJsonAsync("/api/piles/put", new { kind = "orders", name = "p" }, Cancel);
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
    }

    [Fact]
    public async Task Many_are_printed_in_one_file_each_on_pages_of_its_own()
    {
        var quill = await House.AsAsync(Quill);
        var (numbers, ids) = await OrdersAsync(quill, 3, "PRINT");
        var one = await quill.GetAsync($"/api/orders/{numbers[0]}/print", Cancel);
        Assert.Equal("application/pdf", one.Content.Headers.ContentType!.MediaType);
        var file = await quill.GetAsync($"/api/lists/orders/print?ids={string.Join(',', ids)}", Cancel);
        using var pdf = UglyToad.PdfPig.PdfDocument.Open(await file.Content.ReadAsByteArrayAsync(Cancel));
        Assert.Equal(3, pdf.NumberOfPages);
        for (var i = 0; i < 3; i++)
            Assert.Contains(numbers[i], pdf.GetPage(i + 1).Text, StringComparison.Ordinal);
        foreach (var none in new[] { "ids=", "ids=x", "filter=po:nothing-like-it" })
            Assert.Equal(
                "too_many_lines",
                await (await quill.GetAsync($"/api/lists/orders/print?{none}", Cancel)).CodeAsync()
            );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await quill.GetAsync("/api/lists/requests/print?ids=1", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task A_round_that_was_cut_off_is_gone_on_with_and_nothing_is_done_twice()
    {
        var quill = await House.AsAsync(Quill);
        var (numbers, _) = await OrdersAsync(quill, 4, "ROUND");
        var acts = House.Services.GetRequiredService<ActRunner>();
        var person = await House.DbAsync(db => db.People.AsNoTracking().FirstAsync(p => p.Id == Quill, Cancel));
        var me = Actor.Person(person.Id, person.Name, person.Roles);
        // As it stands after the process ended in the middle: the first two were done, and only one of them was noted.
        var id = await acts.RunAsync(me, new BeginRound("orders", "hold", "stock-taking", [.. numbers]), Cancel);
        foreach (var no in new[] { 1, 2 })
            await acts.RunAsync(
                me,
                new Acts.Orders.HoldOrder(numbers[no - 1], "stock-taking"),
                Cancel,
                $"round-{id}-{no}"
            );
        await acts.RunAsync(Actor.House, new KeepRound(id, [new RoundStep(1, RoundOutcome.Done, "")], false), Cancel);
        House.Services.GetRequiredService<RoundWorker>().Wake();
        var over = await Answers.EventuallyAsync(async () =>
        {
            var now = await (await quill.GetAsync($"/api/rounds/{id}", Cancel)).JsonAsync();
            return now.GetProperty("over").GetBoolean() ? now.GetRawText() : null;
        });
        var round = JsonDocument.Parse(over).RootElement;
        Assert.Equal((4, 0), (round.GetProperty("done").GetInt32(), round.GetProperty("notDone").GetInt32()));
        var held = await House.DbAsync(db =>
            db.Events.CountAsync(e => e.Code == "order.held" && numbers.Contains(e.Subject), Cancel)
        );
        Assert.Equal(4, held);
    }

    [Fact]
    public async Task A_round_that_is_stopped_leaves_the_rest_and_is_nobody_elses()
    {
        var (quill, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Mohr));
        var (numbers, _) = await OrdersAsync(quill, 2, "STOP");
        var acts = House.Services.GetRequiredService<ActRunner>();
        var person = await House.DbAsync(db => db.People.AsNoTracking().FirstAsync(p => p.Id == Quill, Cancel));
        var me = Actor.Person(person.Id, person.Name, person.Roles);
        var id = await acts.RunAsync(me, new BeginRound("orders", "hold", "x", []), Cancel);
        Assert.Equal(HttpStatusCode.NotFound, (await mohr.GetAsync($"/api/rounds/{id}", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await mohr.PostAsync($"/api/rounds/{id}/stop", null, Cancel)).StatusCode
        );
        await acts.RunAsync(me, new StopRound(id), Cancel);
        // Stopped before its first turn: everything is left.
        var stopped = await House.DbAsync(async db =>
        {
            var row = new RoundRow
            {
                Kind = "orders",
                Deed = "hold",
                Given = "x",
                PersonId = Quill,
                StoppedAt = House.Time.GetUtcNow().UtcDateTime,
            };
            db.Rounds.Add(row);
            await db.SaveChangesAsync(Cancel);
            db.RoundItems.AddRange(
                numbers.Select(
                    (n, i) =>
                        new RoundItemRow
                        {
                            RoundId = row.Id,
                            No = i + 1,
                            Number = n,
                        }
                )
            );
            await db.SaveChangesAsync(Cancel);
            return row.Id;
        });
        House.Services.GetRequiredService<RoundWorker>().Wake();
        var over = await Answers.EventuallyAsync(async () =>
        {
            var now = await (await quill.GetAsync($"/api/rounds/{stopped}", Cancel)).JsonAsync();
            return now.GetProperty("over").GetBoolean() ? now.GetRawText() : null;
        });
        var round = JsonDocument.Parse(over).RootElement;
        Assert.True(round.GetProperty("stopped").GetBoolean());
        Assert.Equal((2, 0), (round.GetProperty("left").GetInt32(), round.GetProperty("done").GetInt32()));
    }

    [Fact]
    public async Task The_day_of_many_is_changed_at_once_and_what_cannot_be_kept_stays_as_it_was_confirmed()
    {
        var quill = await House.AsAsync(Quill);
        var (numbers, ids) = await OrdersAsync(quill, 2, "DAYS");
        var first = await SeenAsync(quill, $"/api/orders/{numbers[0]}");
        await quill.ActAsync($"/api/orders/{numbers[0]}/confirm", first);
        var far = DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime).AddDays(60);
        while (far.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
            far = far.AddDays(1);
        var day = far.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        var done = await RoundAsync(
            quill,
            "orders",
            new
            {
                deed = "wanted",
                given = day,
                ids,
            }
        );
        Assert.True(done.GetProperty("done").GetInt32() == 2, done.GetRawText());
        foreach (var number in numbers)
            Assert.Equal(day, (await SeenAsync(quill, $"/api/orders/{number}")).Term("wanted"));
        // A day that is over is a stop: what was confirmed stands as it was.
        var over = await RoundAsync(
            quill,
            "orders",
            new
            {
                deed = "wanted",
                given = "2026-01-05",
                ids = new[] { ids[0] },
            }
        );
        Assert.Equal(1, over.GetProperty("notDone").GetInt32());
        var kept = await (await quill.GetAsync($"/api/orders/{numbers[0]}", Cancel)).JsonAsync();
        Assert.Equal("confirmed", kept.GetProperty("tracks").GetProperty("terms").GetString());
        Assert.Equal(day, kept.Sheet().Term("wanted"));
        var bad = await quill.PostAsJsonAsync(
            "/api/lists/orders/deeds",
            new
            {
                deed = "wanted",
                given = "soon",
                ids,
            },
            Cancel
        );
        Assert.Equal("date", await bad.CodeAsync());
    }
}
