using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Demo;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The demo's world has something to do for everybody, on whatever day it begins.</summary>
public sealed class DemoWorldTests
{
    [Theory]
    // A Sunday on which nothing fell short, and a Monday.
    [InlineData("2026-11-29")]
    [InlineData("2026-11-30")]
    public async Task It_has_work_whatever_day_it_is(string day)
    {
        var cancel = TestContext.Current.CancellationToken;
        var folder = Directory.CreateTempSubdirectory("solvenda-demo").FullName;
        try
        {
            var options = new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(Database.FileIn(folder)).Options;
            await using var db = new SolvendaDb((DbContextOptions<SolvendaDb>)options);
            await Database.BringUpAsync(db, cancel);
            var now = DateTime.Parse(day + "T09:30:00Z", CultureInfo.InvariantCulture).ToUniversalTime();
            using var books = new PriceBooks(DemoWorld.Seller);
            await new DemoWorld(db, books, now).WriteAsync("hash", cancel);
            var promised = await db
                .Commitments.GroupBy(c => new { c.ItemId, c.Warehouse })
                .Select(g => new { g.Key, Quantity = g.Sum(c => c.Quantity) })
                .ToListAsync(cancel);
            var lies = await db.Stock.ToDictionaryAsync(s => (s.ItemId, s.Warehouse), s => s.OnHand, cancel);
            // A planner has a few items that fall short, and the warehouse a morning's work.
            Assert.InRange(promised.Count(p => lies[(p.Key.ItemId, p.Key.Warehouse)] < p.Quantity), 2, 4);
            Assert.True(
                await db.Commitments.AnyAsync(
                    c => db.Items.Any(i => i.Id == c.ItemId && i.HasSerials) && c.Warehouse == "Skerrow quay",
                    cancel
                )
            );
            Assert.True(await db.Orders.CountAsync(o => db.Commitments.Any(c => c.OrderId == o.Id), cancel) > 35);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
