using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Outside;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// Requests that nobody has to touch: weighed, taken together, let through by the rules of their way.
/// </summary>
public sealed class WayTests(House house) : QueueCalls(house)
{
    // All notices that this buyer's orders have in the demo.
    private static readonly string[] _notices = [.. Core.Ordering.CheckList.All.Select(c => c.Code)];

    [Fact]
    public async Task What_was_read_says_what_it_is_worth_and_how_much_of_it_is_sure()
    {
        var number = (await ReceiveAsync(Order("WAY-1"), "way1.x12")).GetProperty("number").GetString()!;
        var row = await WeighedAsync(number);
        Assert.True(row.Ready, row.Reason);
        Assert.Equal(("USD", 100), (row.Currency, row.SurePercent));
        // As the order costs that is made of it.
        var nell = await House.AsAsync(Havergal);
        var turned = await nell.PostAsJsonAsync(
            $"/api/requests/{number}/turn",
            new { version = row.Version, intoOrder = true },
            Cancel
        );
        var order = (await turned.JsonAsync()).GetProperty("number").GetString()!;
        Assert.Equal(
            row.WorthMinor,
            await House.DbAsync(db =>
                db.Orders.Where(o => o.Number == order).Select(o => o.Sheet.TotalWithTaxMinor).SingleAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task Weighing_stores_nothing_of_the_document_that_it_thought_of()
    {
        var before = await House.DbAsync(db => db.Sheets.CountAsync(Cancel));
        var number = (await ReceiveAsync(Order("WAY-2"), "way2.x12")).GetProperty("number").GetString()!;
        await WeighedAsync(number);
        Assert.Equal(before, await House.DbAsync(db => db.Sheets.CountAsync(Cancel)));
        Assert.False(await House.DbAsync(db => db.Orders.AnyAsync(o => o.Sheet.PoNumber == "WAY-2", Cancel)));
    }

    [Fact]
    public async Task What_a_check_stops_needs_somebody_and_says_why()
    {
        var text = Order("WAY-3").Replace("PO1*1*40*EA***VP", "PO1*1*40*EA*0.04*PE*VP", StringComparison.Ordinal);
        var number = (await ReceiveAsync(text, "way3.x12")).GetProperty("number").GetString()!;
        var row = await WeighedAsync(number);
        Assert.Equal((RequestState.NeedsYou, false), (row.State, row.Ready));
        Assert.Contains("0.04", row.Reason, StringComparison.Ordinal);
        Assert.NotNull(row.WorthMinor);
    }

    [Fact]
    public async Task Ready_ones_are_taken_together_and_what_came_between_is_left_with_its_reason()
    {
        var first = (await ReceiveAsync(Order("WAY-4"), "way4.x12")).GetProperty("number").GetString()!;
        var second = (await ReceiveAsync(Order("WAY-5", "36"), "way5.x12")).GetProperty("number").GetString()!;
        await WeighedAsync(first);
        var row = await WeighedAsync(second);
        // Somebody used the second's number for another order meanwhile.
        var nell = await House.AsAsync(Havergal);
        var made = await (await nell.PostAsync($"/api/buyers/{row.BuyerId}/orders", null, Cancel)).JsonAsync();
        await House.DbAsync(async db =>
        {
            var order = await db
                .Orders.Include(o => o.Sheet)
                .SingleAsync(o => o.Number == made.GetProperty("number").GetString(), Cancel);
            (order.PoKey, order.CreatedAt) = (row.PoKey, row.ReceivedAt.AddHours(-1));
            await db.SaveChangesAsync(Cancel);
            return 0;
        });
        var desk = await (await nell.GetAsync("/api/desk", Cancel)).JsonAsync();
        var ready = desk.GetProperty("ready")
            .EnumerateArray()
            .Where(r => r.GetProperty("number").GetString() == first || r.GetProperty("number").GetString() == second)
            .ToList();
        Assert.Equal(2, ready.Count);
        var round = await RoundAsync(
            nell,
            "requests",
            new
            {
                deed = "take",
                given = "",
                ids = ready.Select(r => r.GetProperty("id").GetInt64()).ToArray(),
                count = 2,
            }
        );
        Assert.Equal((1, 1), (round.GetProperty("done").GetInt32(), round.GetProperty("notDone").GetInt32()));
        var refused = round.GetProperty("refused")[0];
        Assert.Equal(second, refused.GetProperty("number").GetString());
        Assert.Contains("WAY-5", refused.GetProperty("words").GetString()!, StringComparison.Ordinal);
        var order = await House.DbAsync(db =>
            db.Orders.Where(o => o.Sheet.PoNumber == "WAY-4").Select(o => o.Terms).SingleAsync(Cancel)
        );
        Assert.Equal(TermsTrack.Confirmed, order);
        // Nothing of the refused one is left behind.
        Assert.False(await House.DbAsync(db => db.Orders.AnyAsync(o => o.Sheet.PoNumber == "WAY-5", Cancel)));
        Assert.Equal(RequestState.New, (await WeighedAsync(second)).State);
    }

    [Fact]
    public async Task By_the_rules_of_its_way_an_order_goes_through_untouched_and_is_acknowledged()
    {
        await SetAsync(Said("machine", true, _notices));
        try
        {
            var number = (await ReceiveAsync(Order("WAY-6"), "way6.x12")).GetProperty("number").GetString()!;
            var row = await Answers.EventuallyAsync(async () =>
            {
                var now = await House.DbAsync(db =>
                    db.Requests.AsNoTracking().SingleAsync(r => r.Number == number, Cancel)
                );
                return now.State == RequestState.Turned ? now : null;
            });
            Assert.True(row.Through);
            var order = await House.DbAsync(db =>
                db.Orders.AsNoTracking().SingleAsync(o => o.RequestId == row.Id, Cancel)
            );
            Assert.Equal(TermsTrack.Confirmed, order.Terms);
            var file = Path.Combine(House.DataFolder, "outside", "edi", "out", $"855-{order.Number}.x12");
            await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null);
        }
        finally
        {
            await SetAsync(Said("machine", false));
        }
    }

    [Fact]
    public async Task A_buyer_with_rules_of_their_own_is_not_let_through_by_those_of_the_way()
    {
        await SetAsync(Said("machine", true, _notices));
        var buyer = await House.DbAsync(db =>
            db.Buyers.Where(b => b.Name == "Northgannet Marine Depot").Select(b => b.Id).SingleAsync(Cancel)
        );
        await SetAsync(Said("machine", false) with { Buyer = buyer });
        try
        {
            var number = (await ReceiveAsync(Order("WAY-7"), "way7.x12")).GetProperty("number").GetString()!;
            var row = await WeighedAsync(number);
            Assert.Equal((RequestState.New, true), (row.State, row.Ready));
            // Asked for by name it is refused too: the rules are asked, not the door.
            var refused = await Assert.ThrowsAsync<RefusedException>(() =>
                House
                    .Services.GetRequiredService<ActRunner>()
                    .RunAsync(Actor.House, new PassRequest(number, row.Version), Cancel)
            );
            Assert.Equal("not_ready", refused.Code);
        }
        finally
        {
            var whitlock = await House.AsAsync(Whitlock);
            await whitlock.DeleteAsync($"/api/setup/ways/machine/{buyer}", Cancel);
            await SetAsync(Said("machine", false));
        }
    }

    [Fact]
    public async Task The_same_PO_by_mail_EDI_and_door_at_once_goes_through_once_and_the_others_name_it_fifty_times()
    {
        string[] ways = ["machine", "edi", "mail"];
        foreach (var way in ways)
            await SetAsync(Said(way, true, _notices));
        try
        {
            await Parallel.ForEachAsync(
                Enumerable.Range(0, Times),
                new ParallelOptions { MaxDegreeOfParallelism = 4, CancellationToken = Cancel },
                async (i, _) => await ThreeWaysAsync($"SAME{i}X")
            );
            for (var tries = 0; await SettledAsync() < 3 * Times; tries++)
            {
                Assert.True(tries < 1_800, "Not all of them are settled.");
                await Task.Delay(100, Cancel);
            }
            var rows = await House.DbAsync(db =>
                db.Requests.AsNoTracking().Where(r => r.PoKey.StartsWith("SAME")).ToListAsync(Cancel)
            );
            var orders = await House.DbAsync(db =>
                db.Orders.AsNoTracking()
                    .Where(o => o.Sheet.PoNumber!.StartsWith("SAME"))
                    .Select(o => new { o.Sheet.PoNumber, o.Terms })
                    .ToListAsync(Cancel)
            );
            Assert.Equal(Times, orders.Count);
            Assert.Equal(Times, orders.Select(o => o.PoNumber).Distinct().Count());
            Assert.All(orders, o => Assert.Equal(TermsTrack.Confirmed, o.Terms));
            var open = rows.Where(r => r.State != RequestState.Turned).ToList();
            Assert.Equal(2 * Times, open.Count);
            // Each says which it is the same as.
            Assert.All(open, r => Assert.Matches(@"[RS]\d\d-\d+|SAME\d+X", r.Reason));
        }
        finally
        {
            foreach (var way in ways)
                await SetAsync(Said(way, false));
        }
    }

    private const int Times = 50;

    private Task<int> SettledAsync() =>
        House.DbAsync(db =>
            db.Requests.CountAsync(
                r =>
                    r.PoKey.StartsWith("SAME")
                    && (r.State == RequestState.Turned || (r.State == RequestState.NeedsYou && r.Weighed == r.Version)),
                Cancel
            )
        );

    private async Task ThreeWaysAsync(string po)
    {
        var order = Order(po, "1");
        using var mail = new MimeKit.MimeMessage { Subject = $"Order {po}" };
        mail.From.Add(new MimeKit.MailboxAddress("Depot", "dferris@northgannet.example"));
        mail.To.Add(new MimeKit.MailboxAddress("", "orders@brinemoor.example"));
        var body = new MimeKit.BodyBuilder { TextBody = "Our order is attached." };
        body.Attachments.Add($"{po}.x12", System.Text.Encoding.ASCII.GetBytes(order + "\n"));
        mail.Body = body.ToMessageBody();
        using var bytes = new MemoryStream();
        await mail.WriteToAsync(bytes, Cancel);
        var folders = House.Services.GetRequiredService<Outside.OutsideFolders>();
        await Task.WhenAll(
            Outside.OutsideFolders.WriteWholeAsync(folders.MailIn, $"{po}.eml", bytes.ToArray(), Cancel),
            Outside.OutsideFolders.WriteWholeAsync(
                folders.EdiIn,
                $"{po}.x12",
                System.Text.Encoding.ASCII.GetBytes(order),
                Cancel
            ),
            ReceiveAsync(order + "\n\n", $"{po}-door.x12")
        );
    }

    [Fact]
    public async Task Rules_are_said_by_administrators_alone_within_bounds_and_by_nobody_unseen()
    {
        var nell = await House.AsAsync(Havergal);
        var said = Said("mail", false);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await nell.PostAsJsonAsync("/api/setup/ways", new { said, seen = 0 }, Cancel)).StatusCode
        );
        var whitlock = await House.AsAsync(Whitlock);
        var before = await (await whitlock.GetAsync("/api/setup/ways/mail", Cancel)).JsonAsync();
        var seen = before.GetProperty("rule").GetProperty("version").GetInt64();
        Task<HttpResponseMessage> SayAsync(WaySaid what, long more = 0) =>
            whitlock.PostAsJsonAsync("/api/setup/ways", new { said = what, seen = seen + more }, Cancel);
        Assert.Equal("way_sure", await (await SayAsync(said with { LeastSurePercent = 20 })).CodeAsync());
        Assert.Equal("check_unknown", await (await SayAsync(said with { Passes = ["nothing"] })).CodeAsync());
        Assert.Equal("keeper_missing", await (await SayAsync(said with { Through = true, Keeper = null })).CodeAsync());
        Assert.Equal("stale", await (await SayAsync(said, 7)).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(said)).StatusCode);
        Assert.Equal("stale", await (await SayAsync(said)).CodeAsync());
        var view = await (await whitlock.GetAsync("/api/setup/ways/mail", Cancel)).JsonAsync();
        Assert.NotEmpty(view.GetProperty("lately").EnumerateArray());
    }

    [Fact]
    public async Task Rules_are_tried_on_what_came_as_it_was_before_anybody_touched_it()
    {
        var number = (await ReceiveAsync(Order("WAY-9", "37"), "way9.x12")).GetProperty("number").GetString()!;
        var row = await WeighedAsync(number);
        var nell = await House.AsAsync(Havergal);
        await nell.PostAsJsonAsync(
            $"/api/requests/{number}/settle",
            new
            {
                version = row.Version,
                line = 1,
                itemCode = "SHK-BOW-12",
                quantity = 37,
                unit = "EA",
                remember = false,
            },
            Cancel
        );
        await WeighedAsync(number);
        JsonElement Orders(JsonElement trial) =>
            trial.GetProperty("kinds").EnumerateArray().Single(k => k.GetProperty("kind").GetString() == "order");
        async Task<JsonElement> TryAsync(WaySaid said) =>
            await (await nell.PostAsJsonAsync("/api/setup/ways/machine/try", said, Cancel)).JsonAsync();
        var loose = await TryAsync(Said("machine", true, _notices) with { LeastSurePercent = 80 });
        Assert.Contains(
            loose.GetProperty("corrected").EnumerateArray(),
            c => c.GetProperty("number").GetString() == number
        );
        var strict = await TryAsync(Said("machine", true) with { LeastSurePercent = 100 });
        var (easily, hardly) = (Orders(loose), Orders(strict));
        Assert.Equal(easily.GetProperty("came").GetInt32(), hardly.GetProperty("came").GetInt32());
        Assert.True(hardly.GetProperty("through").GetInt32() < easily.GetProperty("through").GetInt32());
        Assert.NotEmpty(strict.GetProperty("held").EnumerateArray());
    }

    [Fact]
    public async Task What_lies_in_the_folder_is_one_run_with_its_log_and_a_closed_way_takes_nothing()
    {
        var folders = House.Services.GetRequiredService<OutsideFolders>();
        await SetAsync(Said("edi", false) with { Open = false });
        await OutsideFolders.WriteWholeAsync(
            folders.EdiIn,
            "run-1.x12",
            Encoding.ASCII.GetBytes(Order("WAY-10")),
            Cancel
        );
        var whitlock = await House.AsAsync(Whitlock);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await whitlock.PostAsync("/api/setup/ways/edi/run", null, Cancel)).StatusCode
        );
        Assert.True(File.Exists(Path.Combine(folders.EdiIn, "run-1.x12")));
        await SetAsync(Said("edi", false));
        var run = await Answers.EventuallyAsync(async () =>
            await House.DbAsync(db =>
                db.Runs.AsNoTracking()
                    .Where(r => r.Channel == "edi" && r.Log.Contains("run-1.x12"))
                    .FirstOrDefaultAsync(Cancel)
            )
        );
        Assert.Equal((1, 0), (run.Taken, run.Failed));
        Assert.Matches(@"^\d\d:\d\d:\d\d taken run-1\.x12: R\d\d-\d{5}$", run.Log);
        Assert.True(File.Exists(Path.Combine(folders.EdiIn, "..", "done", "run-1.x12")));
    }
}
