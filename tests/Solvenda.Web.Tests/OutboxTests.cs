using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Post;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What leaves the house: at least once, later and later while it fails, and set apart in the end.</summary>
public sealed class OutboxTests(House house) : IClassFixture<House>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private async Task<T> DbAsync<T>(Func<SolvendaDb, Task<T>> ask)
    {
        await using var db = await house
            .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
            .CreateDbContextAsync(Cancel);
        return await ask(db);
    }

    // Of a kind that no channel sends and not due for years, so that the worker leaves it alone.
    private Task<long> WaitingAsync(string key) =>
        DbAsync(async db =>
        {
            var row = new OutboxRow
            {
                Kind = "pigeon",
                Key = key,
                To = "x@x.example",
                Name = key,
                Payload = [1],
                CreatedAt = house.Time.GetUtcNow().UtcDateTime,
                NextTryAt = house.Time.GetUtcNow().UtcDateTime.AddYears(5),
            };
            db.Outbox.Add(row);
            await db.SaveChangesAsync(Cancel);
            return row.Id;
        });

    private Task<int> KeepAsync(long id, string? problem, bool never = false) =>
        house.Services.GetRequiredService<ActRunner>().RunAsync(Actor.House, new KeepSent(id, problem, never), Cancel);

    private Task<OutboxRow> RowAsync(long id) =>
        DbAsync(db => db.Outbox.AsNoTracking().SingleAsync(o => o.Id == id, Cancel));

    [Fact]
    public async Task Each_failure_waits_longer_than_the_one_before_and_never_longer_than_half_an_hour()
    {
        var id = await WaitingAsync("outbox.longer");
        var waits = new List<TimeSpan>();
        for (var tries = 1; tries <= 14; tries++)
        {
            Assert.Equal(tries, await KeepAsync(id, "the line is busy"));
            waits.Add((await RowAsync(id)).NextTryAt - house.Time.GetUtcNow().UtcDateTime);
        }
        Assert.Equal("the line is busy", (await RowAsync(id)).LastError);
        foreach (var (before, after) in waits.Zip(waits.Skip(1)))
            Assert.True(after > before - TimeSpan.FromSeconds(5), $"{after} after {before}");
        Assert.InRange(waits[0], TimeSpan.Zero, TimeSpan.FromSeconds(5));
        Assert.InRange(waits[^1], TimeSpan.FromMinutes(29), TimeSpan.FromMinutes(31));
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
        var trouble = await DbAsync(db => db.Troubles.SingleAsync(t => t.Subject == "outbox.apart", Cancel));
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
        Assert.True(await DbAsync(db => db.Troubles.AnyAsync(t => t.Subject == "outbox.well", Cancel)));
        await KeepAsync(id, null);
        var row = await RowAsync(id);
        Assert.NotNull(row.SentAt);
        Assert.Equal(("", 3), (row.LastError, row.Tries));
        Assert.False(await DbAsync(db => db.Troubles.AnyAsync(t => t.Subject == "outbox.well", Cancel)));
        Assert.Equal(3, await DbAsync(db => db.Events.CountAsync(e => e.Subject == "outbox:outbox.well", Cancel)));
    }

    [Fact]
    public async Task The_same_thing_is_put_out_once_whoever_tries_twice()
    {
        await WaitingAsync("outbox.once");
        await Assert.ThrowsAsync<DbUpdateException>(() => WaitingAsync("outbox.once"));
        Assert.Equal(1, await DbAsync(db => db.Outbox.CountAsync(o => o.Key == "outbox.once", Cancel)));
    }
}
