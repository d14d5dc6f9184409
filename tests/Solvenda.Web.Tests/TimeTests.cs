using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Quotes;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What time alone does: each test turns the clock of a house of its own.</summary>
public sealed class TimeTests : IDisposable
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private readonly House _house = new();

    public void Dispose() => _house.Dispose();

    private Task<int> LapseAsync() =>
        _house.Services.GetRequiredService<ActRunner>().RunAsync(Actor.House, new LapseQuotes(), Cancel);

    [Fact]
    public async Task A_quote_lapses_the_day_after_its_last_and_not_on_it()
    {
        await LapseAsync();
        var (number, last) = await _house.DbAsync(async db =>
        {
            var first = await db
                .Quotes.Where(q => q.State == QuoteState.WithCustomer)
                .OrderBy(q => q.ValidUntil)
                .FirstAsync(Cancel);
            return (first.Number, first.ValidUntil);
        });
        var today = _house.Services.GetRequiredService<HouseClock>().Today;
        _house.Time.TurnOn(TimeSpan.FromDays(last.DayNumber - today.DayNumber));
        await LapseAsync();
        Assert.Equal(QuoteState.WithCustomer, await StateAsync(number));
        _house.Time.TurnOn(TimeSpan.FromDays(1));
        Assert.True(await LapseAsync() > 0);
        Assert.Equal(QuoteState.Lapsed, await StateAsync(number));
        // Once: what lapsed is over.
        Assert.Equal(0, await LapseAsync());
        Assert.Equal(
            1,
            await _house.DbAsync(db =>
                db.Events.CountAsync(e => e.Subject == number && e.Code.Contains("lapse"), Cancel)
            )
        );
    }

    private Task<QuoteState> StateAsync(string number) =>
        _house.DbAsync(db =>
            db.Quotes.Where(q => q.Number == number)
                .OrderByDescending(q => q.Revision)
                .Select(q => q.State)
                .FirstAsync(Cancel)
        );

    [Fact]
    public async Task Nobody_accepts_a_quote_whose_days_are_over_even_before_it_is_marked_so()
    {
        var quill = await _house.AsAsync(4);
        var made = await quill.PostAsJsonAsync("/api/quotes", new { buyerId = 1, matter = "in time" }, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = (await (await quill.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync()).Sheet();
        sheet = await quill.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 4" });
        var letter = new
        {
            to = "office@tresselvane.example",
            subject = "late " + number,
            text = "{link}",
        };
        Assert.Equal(HttpStatusCode.OK, (await quill.ActAsync($"/api/quotes/{number}/send", sheet, letter)).StatusCode);
        var link = await _house.LinkAsync("late " + number);
        _house.Time.TurnOn(TimeSpan.FromDays(400));
        var late = await _house
            .CreateClient()
            .PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = "L-1" }, Cancel);
        Assert.InRange((int)late.StatusCode, 400, 499);
        Assert.Equal(
            0,
            await _house.DbAsync(db =>
                (
                    from o in db.Orders
                    join q in db.Quotes on o.Id equals q.OrderId
                    where q.Number == number
                    select o
                ).CountAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task A_date_that_was_possible_in_the_morning_is_looked_at_again_when_days_go_by()
    {
        var quill = await _house.AsAsync(4);
        var begun = await (await quill.PostAsync("/api/buyers/1/orders", null, Cancel)).JsonAsync();
        var number = begun.GetProperty("number").GetString()!;
        var sheet = (await (await quill.GetAsync($"/api/orders/{number}", Cancel)).JsonAsync()).Sheet();
        foreach (
            var edit in new object[]
            {
                new { kind = "add", value = "SHK-BOW-10 x 2" },
                new
                {
                    kind = "set",
                    field = "poNumber",
                    value = "T-" + number,
                },
                new
                {
                    kind = "set",
                    field = "wanted",
                    value = "2026-12-09",
                },
            }
        )
            sheet = await quill.EditAsync(sheet, edit);
        var id = sheet.GetProperty("id").GetInt64();
        async Task<int> StopsAsync() =>
            await _house.DbAsync(db => db.Orders.Where(o => o.SheetId == id).Select(o => o.Stops).FirstAsync(Cancel));
        Assert.Equal(0, await StopsAsync());
        _house.Time.TurnOn(TimeSpan.FromDays(21));
        await _house.Services.GetRequiredService<ActRunner>().RunAsync(Actor.House, new RecheckOrder(id), Cancel);
        Assert.True(await StopsAsync() > 0);
        var first = await _house.DbAsync(db =>
            db.Orders.Where(o => o.SheetId == id).Select(o => o.FirstStop).FirstAsync(Cancel)
        );
        Assert.NotEmpty(first);
    }

    [Fact]
    public async Task A_session_ends_by_itself_and_a_fresh_one_goes_on()
    {
        var quill = await _house.AsAsync(4);
        Assert.Equal(HttpStatusCode.OK, (await quill.GetAsync("/api/desk", Cancel)).StatusCode);
        _house.Time.TurnOn(TimeSpan.FromDays(15));
        Assert.Equal(HttpStatusCode.Unauthorized, (await quill.GetAsync("/api/desk", Cancel)).StatusCode);
        var anew = await _house.AsAsync(4);
        Assert.Equal(HttpStatusCode.OK, (await anew.GetAsync("/api/desk", Cancel)).StatusCode);
    }
}
