using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Orders after they were made: confirmed, held, changed, cancelled, taken up again.</summary>
public sealed class OrderMovesTests(House house) : MoneyCalls(house)
{
    private static string Terms(JsonElement document) =>
        document.GetProperty("tracks").GetProperty("terms").GetString()!;

    private static string[] Moves(JsonElement document) =>
        [.. document.GetProperty("moves").EnumerateArray().Select(m => m.GetProperty("code").GetString()!)];

    [Fact]
    public async Task What_confirming_will_do_is_said_before_and_then_it_is_done()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4", "SVC-EYE x 2");
        await SetAsync(quill, sheet, "poNumber", "SAY-1");
        var said = await (await quill.GetAsync($"/api/orders/{number}/confirming", Cancel)).JsonAsync();
        Assert.Contains(
            "by mail, to fionn@tresselvane.example",
            said.GetProperty("sends").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal("1 line is taken from the stock of Skerrow quay.", said.GetProperty("stock")[0].GetString());
        Assert.Equal("1", said.GetProperty("promised")[0].GetProperty("lines")[0].GetString());
        Assert.Equal("2", said.GetProperty("noDay")[0].GetString());
        Assert.Equal(0m, await CommittedAsync(number));
        var now = await SeenAsync(quill, $"/api/orders/{number}");
        var done = await (await quill.ActAsync($"/api/orders/{number}/confirm", now)).JsonAsync();
        Assert.Equal("confirmed", Terms(done));
        Assert.Equal(4m, await CommittedAsync(number));
        Assert.Equal(
            said.GetProperty("promised")[0].GetProperty("day").GetString(),
            done.Sheet().GetProperty("lines")[0].GetProperty("promise").GetString()
        );
        // Nothing of its making is said of it any more.
        Assert.Empty(Stops(done.Sheet()));
        var late = await quill.GetAsync($"/api/orders/{number}/confirming", Cancel);
        Assert.Equal("sheet_closed", await late.CodeAsync());
    }

    [Fact]
    public async Task A_confirmed_order_says_what_is_newly_wrong_and_nothing_stops_it()
    {
        var quill = await House.AsAsync(Quill);
        var (number, document) = await ConfirmedAsync(quill, "THM-SS-12 x 2");
        Assert.DoesNotContain("stock", document.Sheet().GetProperty("findings").GetRawText(), StringComparison.Ordinal);
        await CountedAsync("THM-SS-12", 0m, 0m);
        var finding = (await SeenAsync(quill, $"/api/orders/{number}"))
            .GetProperty("findings")
            .EnumerateArray()
            .Single(f => f.GetProperty("check").GetString() == "stock");
        Assert.Equal("notice", finding.GetProperty("outcome").GetString());
        Assert.StartsWith("Promised for ", finding.GetProperty("words").GetString(), StringComparison.Ordinal);
        // It reaches those who can do something by itself, and goes when it is mended.
        var runner = House.Services.GetRequiredService<Acts.Acting.ActRunner>();
        var id = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == number).Select(o => o.SheetId).FirstAsync(Cancel)
        );
        Task<int> LookAsync() => runner.RunAsync(Acts.Acting.Actor.House, new Acts.Orders.RecheckOrder(id), Cancel);
        await LookAsync();
        var planner = await House.AsAsync(Castellane);
        Assert.Contains(number, await planner.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        Assert.Contains(
            number,
            await quill.GetStringAsync("/api/lists/orders?filter=late:promised", Cancel),
            StringComparison.Ordinal
        );
        await CountedAsync("THM-SS-12", 5_000m, 5_000m);
        await LookAsync();
        Assert.DoesNotContain(number, await planner.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Held_by_hand_it_is_not_confirmed_until_somebody_goes_on()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4");
        await SetAsync(quill, sheet, "poNumber", "HOLD-1");
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await stroud.PostAsJsonAsync($"/api/orders/{number}/hold", new { reason = "x" }, Cancel)).StatusCode
        );
        var empty = await quill.PostAsJsonAsync($"/api/orders/{number}/hold", new { reason = " " }, Cancel);
        Assert.Equal("reason_missing", await empty.CodeAsync());
        var held = await PostAsync(quill, $"/api/orders/{number}/hold", new { reason = "They think again" });
        Assert.Equal(("held", "goOn"), (Terms(held), held.GetProperty("next").GetProperty("code").GetString()));
        Assert.Equal("held: They think again", held.GetProperty("stateWords").GetString());
        var stopped = await quill.ActAsync($"/api/orders/{number}/confirm", held.Sheet());
        Assert.Equal("order_held", await stopped.CodeAsync());
        var on = await PostAsync(quill, $"/api/orders/{number}/go-on");
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/orders/{number}/confirm", on.Sheet())).StatusCode);
        // A confirmed one is held too, and is confirmed still when it goes on.
        Assert.Equal(
            "held",
            Terms(await PostAsync(quill, $"/api/orders/{number}/hold", new { reason = "wait a bit" }))
        );
        Assert.Contains("held: wait a bit", await quill.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        Assert.Equal("confirmed", Terms(await PostAsync(quill, $"/api/orders/{number}/go-on")));
    }

    [Fact]
    public async Task A_change_keeps_what_was_confirmed_until_it_is_confirmed_and_tells_the_buyer_what_is_new()
    {
        var quill = await House.AsAsync(Quill);
        var (number, document) = await ConfirmedAsync(quill, "SHK-BOW-10 x 4", "THM-SS-16 x 3");
        Assert.Equal(
            "sheet_closed",
            (await SetAsync(quill, document.Sheet(), "quantity", "9", 1)).GetProperty("code").GetString()
        );
        var open = await PostAsync(quill, $"/api/orders/{number}/change");
        Assert.Contains("being changed", open.GetProperty("stateWords").GetString(), StringComparison.Ordinal);
        Assert.Contains("leaveAsConfirmed", Moves(open));
        // What was confirmed holds its stock meanwhile, and its own stock does not stand in its way.
        Assert.Equal(7m, await CommittedAsync(number));
        var sheet = await SetAsync(quill, open.Sheet(), "quantity", "6", 1);
        var said = await (await quill.GetAsync($"/api/orders/{number}/confirming", Cancel)).JsonAsync();
        Assert.Contains("6, confirmed were 4", said.GetProperty("changed")[0].GetString(), StringComparison.Ordinal);
        Assert.StartsWith("What changed", said.GetProperty("sends").GetString(), StringComparison.Ordinal);
        var done = await quill.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.Equal(HttpStatusCode.OK, done.StatusCode);
        Assert.Equal(9m, await CommittedAsync(number));
        // The version before stands beside it, line by line.
        var compared = await (
            await quill.GetAsync($"/api/beside?then={Uri.EscapeDataString(number + "·1")}&now={number}", Cancel)
        ).JsonAsync();
        Assert.Equal(
            ["changed", "same"],
            compared.GetProperty("pairs").EnumerateArray().Select(p => p.GetProperty("change").GetString())
        );
        var letters = await LettersAsync(number);
        Assert.Equal(2, letters.Count);
        var letter = await House.DbAsync(db =>
            db.Outbox.Where(o => o.Key == letters[1]).Select(o => o.Payload).FirstAsync(Cancel)
        );
        // In signs, whatever the language: MimeKit reads what left.
        using var raw = new MemoryStream(letter);
        var text = (await MimeKit.MimeMessage.LoadAsync(raw, Cancel)).TextBody;
        Assert.Contains("SHK-BOW-10: 4 \u2192 6", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_change_that_is_left_leaves_everything_as_it_was_confirmed()
    {
        var quill = await House.AsAsync(Quill);
        var (number, before) = await ConfirmedAsync(quill, "SHK-BOW-10 x 4", "SVC-EYE x 1");
        for (var round = 0; round < 2; round++)
        {
            var open = await PostAsync(quill, $"/api/orders/{number}/change");
            var sheet = await SetAsync(quill, open.Sheet(), "quantity", "40", 1);
            sheet = await quill.EditAsync(sheet, new { kind = "remove", line = 2 });
            await quill.EditAsync(sheet, new { kind = "add", value = "THM-SS-12 x 9" });
            var left = await PostAsync(quill, $"/api/orders/{number}/leave-as-confirmed");
            Assert.Equal("confirmed", Terms(left));
            string[] Lines(JsonElement of) =>
                [
                    .. of.Sheet()
                        .GetProperty("lines")
                        .EnumerateArray()
                        .Select(l =>
                            $"{l.GetProperty("key")} {l.GetProperty("code")} {l.GetProperty("quantity")} {l.GetProperty("net")} {l.GetProperty("promise")}"
                        ),
                ];
            Assert.Equal(Lines(before), Lines(left));
            Assert.Equal(Total(before.Sheet()), Total(left.Sheet()));
        }
        Assert.Equal(4m, await CommittedAsync(number));
        Assert.Single(await LettersAsync(number));
        var twice = await quill.PostAsync($"/api/orders/{number}/leave-as-confirmed", null, Cancel);
        Assert.Equal("order_state", await twice.CodeAsync());
    }

    [Fact]
    public async Task Cancelled_its_stock_is_free_the_buyer_is_told_and_it_can_be_taken_up_again()
    {
        var quill = await House.AsAsync(Quill);
        var (number, document) = await ConfirmedAsync(quill, "SHK-BOW-10 x 4");
        var path = $"/api/orders/{number}/cancel";
        var stale = await quill.PostAsJsonAsync(path, new { reason = "x" }, Cancel);
        Assert.Equal("version_missing", await stale.CodeAsync());
        var gone = await quill.ActAsync(path, document.Sheet(), new { reason = "They closed the yard" });
        Assert.Equal(HttpStatusCode.OK, gone.StatusCode);
        var cancelled = await gone.JsonAsync();
        Assert.Equal("cancelled", Terms(cancelled));
        Assert.Equal(["copy", "openAgain"], Moves(cancelled));
        Assert.Equal(0m, await CommittedAsync(number));
        Assert.Contains(await LettersAsync(number), k => k.Contains(".cancelled.", StringComparison.Ordinal));
        var (again, _) = await OrderAsync(quill, "SHK-BOW-10 x 1");
        // Its PO number is free again.
        var reused = await SetAsync(quill, await SeenAsync(quill, $"/api/orders/{again}"), "poNumber", "PO-" + number);
        Assert.DoesNotContain("po-number/poNumber", Stops(reused));
        var open = await PostAsync(quill, $"/api/orders/{number}/open-again");
        Assert.Equal("open", Terms(open));
        Assert.DoesNotContain("leaveAsConfirmed", Moves(open));
        var sheet = await SetAsync(quill, open.Sheet(), "poNumber", "PO-again-" + number);
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).StatusCode);
        Assert.Equal(4m, await CommittedAsync(number));
    }

    [Theory]
    [InlineData(1), InlineData(2), InlineData(3)]
    public async Task Whatever_happens_to_orders_stock_and_versions_add_up(int seed)
    {
        var quill = await House.AsAsync(Quill);
        var random = new Random(seed);
        string[] items = ["SHK-BOW-10", "THM-SS-12", "BB2-10-NV", "SVC-EYE"];
        var numbers = new List<string>();
        for (var i = 0; i < 3; i++)
            numbers.Add((await OrderAsync(quill, $"{items[random.Next(items.Length)]} x {random.Next(1, 9)}")).Number);
        for (var step = 0; step < 40; step++)
        {
            var number = numbers[random.Next(numbers.Count)];
            var document = await (await quill.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync();
            var (path, sheet) = ($"/api/orders/{number}", document.Sheet());
            var lines = sheet
                .GetProperty("lines")
                .EnumerateArray()
                .Select(l => l.GetProperty("key").GetInt64())
                .ToList();
            // Whether the house takes it or not, what it keeps must hold.
            object?[] edits =
            [
                new { kind = "add", value = $"{items[random.Next(items.Length)]} x {random.Next(1, 9)}" },
                lines.Count > 0
                    ? new
                    {
                        kind = "set",
                        line = lines[^1],
                        field = "quantity",
                        value = $"{random.Next(1, 30)}",
                    }
                    : null,
                lines.Count > 1 ? new { kind = "remove", line = lines[0] } : null,
                new
                {
                    kind = "set",
                    field = "poNumber",
                    value = $"H{seed}-{number}-{step}",
                },
            ];
            _ = random.Next(9) switch
            {
                0 => await quill.PostAsync($"{path}/change", null, Cancel),
                1 => await quill.PostAsync($"{path}/leave-as-confirmed", null, Cancel),
                2 => await quill.ActAsync($"{path}/cancel", sheet, new { reason = "by chance" }),
                3 => await quill.PostAsync($"{path}/open-again", null, Cancel),
                4 => await quill.PostAsJsonAsync($"{path}/hold", new { reason = "by chance" }, Cancel),
                5 => await quill.PostAsync($"{path}/go-on", null, Cancel),
                6 or 7 => await quill.ActAsync($"{path}/confirm", sheet),
                _ => await quill.ActAsync(
                    $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
                    sheet,
                    edits.Where(e => e is not null).Skip(random.Next(3)).Take(1).ToArray()
                ),
            };
        }
        Assert.Equal("", await FaultsAsync());
    }

    [Fact]
    public async Task A_copy_is_an_order_of_its_own_and_leaves_the_other_as_it_is()
    {
        var quill = await House.AsAsync(Quill);
        var (number, before) = await ConfirmedAsync(quill, "SHK-BOW-10 x 4 -5%", "SVC-EYE x 1");
        var made = await PostAsync(quill, $"/api/orders/{number}/copy");
        var copy = await SeenAsync(quill, $"/api/orders/{made.GetProperty("number").GetString()}");
        Assert.Equal("", copy.Term("poNumber"));
        Assert.Equal(Total(before.Sheet()), Total(copy));
        var untouched = await (await quill.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync();
        Assert.Equal("confirmed", Terms(untouched));
        Assert.Equal(
            before.Sheet().GetProperty("version").GetInt64(),
            untouched.Sheet().GetProperty("version").GetInt64()
        );
    }

    [Fact]
    public async Task Many_are_held_gone_on_with_and_cancelled_at_once_each_on_its_own()
    {
        var quill = await House.AsAsync(Quill);
        var numbers = new List<string>();
        for (var i = 0; i < 3; i++)
            numbers.Add((await OrderAsync(quill, $"SHK-BOW-10 x {i + 2}")).Number);
        var ids = await House.DbAsync(db =>
            db.Orders.Where(o => numbers.Contains(o.Number)).Select(o => o.Id).ToListAsync(Cancel)
        );
        async Task<(int, int)> DoAsync(string deed, string reason)
        {
            var done = await RoundAsync(
                quill,
                "orders",
                new
                {
                    deed,
                    given = reason,
                    ids,
                }
            );
            return (done.GetProperty("done").GetInt32(), done.GetProperty("notDone").GetInt32());
        }
        await PostAsync(quill, $"/api/orders/{numbers[0]}/hold", new { reason = "first" });
        Assert.Equal((2, 1), await DoAsync("hold", "all of them"));
        Assert.Equal((3, 0), await DoAsync("go-on", ""));
        Assert.Equal((3, 0), await DoAsync("cancel", "the season is over"));
        Assert.Equal((0, 3), await DoAsync("cancel", "again"));
    }

    [Fact]
    public async Task What_was_not_confirmed_is_cancelled_without_a_word_and_what_is_being_picked_is_not_cancelled()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4");
        await quill.ActAsync($"/api/orders/{number}/cancel", sheet, new { reason = "a slip" });
        Assert.Empty(await LettersAsync(number));
        var picked = await House.DbAsync(db =>
            db.Orders.Where(o => o.Goods == Core.Documents.GoodsTrack.Picking).Select(o => o.Number).FirstAsync(Cancel)
        );
        var document = await (await quill.GetAsync($"/api/orders/{picked}", Cancel)).JsonAsync();
        Assert.Equal(["change", "hold", "copy"], Moves(document));
        Assert.Equal(
            "order_begun",
            await (
                await quill.ActAsync($"/api/orders/{picked}/cancel", document.Sheet(), new { reason = "late" })
            ).CodeAsync()
        );
    }
}
