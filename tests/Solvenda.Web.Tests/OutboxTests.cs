using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Post;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What leaves the _house: at least once, later and later while it fails, and set apart in the end.</summary>
public sealed class OutboxTests : IDisposable
{
    private readonly House _house = new();

    // What is due later never is, so that the worker leaves these alone however slow the machine.
    public OutboxTests() => _house.Time.StandStill();

    public void Dispose() => _house.Dispose();

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    // Of a kind that no channel sends, and not due for years.
    private Task<long> WaitingAsync(string key) =>
        _house.DbAsync(async db =>
        {
            var row = new OutboxRow
            {
                Kind = "pigeon",
                Key = key,
                To = "x@x.example",
                Name = key,
                Payload = [1],
                CreatedAt = _house.Time.GetUtcNow().UtcDateTime,
                NextTryAt = _house.Time.GetUtcNow().UtcDateTime.AddYears(5),
            };
            db.Outbox.Add(row);
            await db.SaveChangesAsync(Cancel);
            return row.Id;
        });

    private Task<int> KeepAsync(long id, string? problem, bool never = false) =>
        _house
            .Services.GetRequiredService<ActRunner>()
            .RunAsync(Actor.House, new KeepSent([new SentLetter(id, problem, never)]), Cancel);

    private Task<OutboxRow> RowAsync(long id) =>
        _house.DbAsync(db => db.Outbox.AsNoTracking().SingleAsync(o => o.Id == id, Cancel));

    [Fact]
    public async Task Each_failure_waits_longer_than_the_one_before_and_never_longer_than_half_an_hour()
    {
        var id = await WaitingAsync("outbox.longer");
        var waits = new List<TimeSpan>();
        for (var tries = 1; tries <= 14; tries++)
        {
            await KeepAsync(id, "the line is busy");
            var row = await RowAsync(id);
            Assert.Equal(tries, row.Tries);
            waits.Add(row.NextTryAt - _house.Time.GetUtcNow().UtcDateTime);
        }
        Assert.Equal("the line is busy", (await RowAsync(id)).LastError);
        Assert.Equal(waits.Order(), waits);
        Assert.Equal(TimeSpan.FromSeconds(4), waits[0]);
        Assert.Equal(TimeSpan.FromMinutes(30), waits[^1]);
    }

    [Fact]
    public async Task After_twenty_tries_it_is_set_apart_and_the_administrator_told()
    {
        var id = await WaitingAsync("outbox.apart");
        for (var tries = 1; tries < 20; tries++)
            await KeepAsync(id, "no answer");
        Assert.False((await RowAsync(id)).Apart);
        await KeepAsync(id, "no answer");
        Assert.True((await RowAsync(id)).Apart);
        var trouble = await _house.DbAsync(db => db.Troubles.SingleAsync(t => t.Subject == "outbox.apart", Cancel));
        Assert.Contains("no answer", trouble.Words, StringComparison.Ordinal);
        Assert.True(trouble.Apart);
    }

    [Fact]
    public async Task What_the_other_side_refuses_for_good_is_not_tried_again()
    {
        var id = await WaitingAsync("outbox.never");
        await KeepAsync(id, "550 there is nobody of that name", never: true);
        Assert.True((await RowAsync(id)).Apart);
    }

    [Fact]
    public async Task What_left_at_last_is_no_trouble_any_more_and_every_try_stands_in_the_history()
    {
        var id = await WaitingAsync("outbox.well");
        await KeepAsync(id, "busy");
        await KeepAsync(id, "busy");
        Assert.True(await _house.DbAsync(db => db.Troubles.AnyAsync(t => t.Subject == "outbox.well", Cancel)));
        await KeepAsync(id, null);
        var row = await RowAsync(id);
        Assert.NotNull(row.SentAt);
        Assert.Equal(("", 3), (row.LastError, row.Tries));
        Assert.False(await _house.DbAsync(db => db.Troubles.AnyAsync(t => t.Subject == "outbox.well", Cancel)));
        Assert.Equal(
            3,
            await _house.DbAsync(db => db.Events.CountAsync(e => e.Subject == "outbox:outbox.well", Cancel))
        );
    }

    [Fact]
    public async Task The_same_thing_is_put_out_once_whoever_tries_twice()
    {
        await WaitingAsync("outbox.once");
        await Assert.ThrowsAsync<DbUpdateException>(() => WaitingAsync("outbox.once"));
        Assert.Equal(1, await _house.DbAsync(db => db.Outbox.CountAsync(o => o.Key == "outbox.once", Cancel)));
    }
}
