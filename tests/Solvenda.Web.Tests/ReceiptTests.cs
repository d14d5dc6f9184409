using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Receipts;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What we send by EDI is acknowledged by its receiver, or somebody is told that it was not.</summary>
public sealed class ReceiptTests(House house) : QueueCalls(house)
{
    // An order of theirs, confirmed: our 855 is on its way.
    private async Task<OutboxRow> AnsweredAsync(string po)
    {
        var number = (await ReceiveAsync(Order(po), $"{po}.x12")).GetProperty("number").GetString()!;
        var request = await WeighedAsync(number);
        var nell = await House.AsAsync(Havergal);
        var take = new
        {
            deed = "take",
            given = "",
            ids = new[] { request.Id },
            count = 1,
        };
        Assert.Equal(1, (await RoundAsync(nell, "requests", take)).GetProperty("done").GetInt32());
        return await Answers.EventuallyAsync(() =>
            House.DbAsync(db =>
                db.Outbox.AsNoTracking()
                    .Where(o =>
                        o.Name.StartsWith("855")
                        && o.SentAt != null
                        && db.Orders.Any(r => r.RequestId == request.Id && o.Name.Contains(r.Number))
                    )
                    .FirstOrDefaultAsync(Cancel)
            )
        );
    }

    private static string Functional(string control, string status) =>
        "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*"
        + control.PadLeft(9, '7')
        + "*0*P*>~GS*FA*NORTHGANNET*BRINEMOOR*20260305*0914*1*X*004010~ST*997*0001~AK1*PR*"
        + control
        + "~AK9*"
        + status
        + "*1*1*1~SE*4*0001~GE*1*1~IEA*1*"
        + control.PadLeft(9, '7')
        + "~";

    private Task<OutboxRow> RowAsync(OutboxRow row) =>
        House.DbAsync(db => db.Outbox.AsNoTracking().SingleAsync(o => o.Id == row.Id, Cancel));

    [Fact]
    public async Task A_997_says_that_they_have_it_and_waits_for_nobody_itself()
    {
        var sent = await AnsweredAsync("RCP-1");
        Assert.Equal(Receipt.Awaited, sent.Receipt);
        var came = await ReceiveAsync(Functional(sent.Control!, "A"), "rcp1.x12");
        Assert.Equal("setAside", came.GetProperty("state").GetString());
        Assert.Equal(Receipt.Received, (await RowAsync(sent)).Receipt);
        // One that refuses it is somebody's to look at; one about nothing of ours is too.
        var other = await AnsweredAsync("RCP-2");
        await ReceiveAsync(Functional(other.Control!, "R"), "rcp2.x12");
        Assert.Equal(Receipt.NotReceived, (await RowAsync(other)).Receipt);
        var nowhere = await ReceiveAsync(Functional("99999", "A"), "rcp3.x12");
        Assert.Equal("needsYou", nowhere.GetProperty("state").GetString());
    }

    [Fact]
    public async Task What_nobody_acknowledges_within_their_hours_is_on_the_desk()
    {
        var sent = await AnsweredAsync("RCP-4");
        var acts = House.Services.GetRequiredService<ActRunner>();
        Assert.Equal(0, await acts.RunAsync(Actor.House, new NoteNotReceived(), Cancel));
        House.Time.TurnOn(TimeSpan.FromHours(25));
        Assert.True(await acts.RunAsync(Actor.House, new NoteNotReceived(), Cancel) >= 1);
        Assert.Equal(Receipt.NotReceived, (await RowAsync(sent)).Receipt);
        var nell = await House.AsAsync(Havergal);
        Assert.Contains(sent.Name, await nell.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        await nell.PostAsJsonAsync($"/api/missing/{sent.Key}", new { again = false }, Cancel);
        Assert.Equal(Receipt.Settled, (await RowAsync(sent)).Receipt);
        Assert.DoesNotContain(sent.Name, await nell.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
        // A planner reads it, and settles nothing.
        var planner = await House.AsAsync(Castellane);
        Assert.Equal(
            "not_allowed",
            await (await planner.PostAsJsonAsync($"/api/missing/{sent.Key}", new { again = true }, Cancel)).CodeAsync()
        );
    }
}
