using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Proofs;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Events;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Each proof finds what it is there for, in a house of its own that is spoilt on purpose.</summary>
public sealed class ProofTests(House house) : IClassFixture<House>
{
    private static SolvendaDb Open(string file) =>
        new((DbContextOptions<SolvendaDb>)new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(file).Options);

    private async Task<SolvendaDb> CopyAsync(string name, CancellationToken cancel)
    {
        using (house.CreateClient())
            await house.TakenInAsync();
        var file = Path.Combine(house.DataFolder, $"{name}.db");
        await using var whole = Open(Database.FileIn(house.DataFolder));
        await whole.Database.ExecuteSqlAsync($"VACUUM INTO {file}", cancel);
        return Open(file);
    }

    [Fact]
    public async Task A_whole_house_holds_and_each_fault_is_found_by_its_own_proof()
    {
        var cancel = TestContext.Current.CancellationToken;
        await using var db = await CopyAsync("spoilt", cancel);
        var settings = Startup.Settings();
        using var books = new PriceBooks(Startup.SellerOf(SolvendaOptions.From(settings), settings));
        var proofs = ProofList.All(books, new SealedHeads(Path.Combine(house.DataFolder, "none")));
        async Task<(int Wrong, string Told)> CheckAsync()
        {
            using var told = new StringWriter();
            return (await ProofList.RunAsync(proofs, db, told, cancel), told.ToString());
        }
        var (wrong, told) = await CheckAsync();
        Assert.True(wrong == 0, told);
        Assert.EndsWith("9 checks, 0 wrong\n", told, StringComparison.Ordinal);

        var events = db.Events.OrderBy(e => e.Id);
        var changed = await events.Skip(10).FirstAsync(cancel);
        changed.Facts = "{}";
        var taken = await events.Skip(20).FirstAsync(cancel);
        db.Events.Remove(taken);
        var commitment = await db.Commitments.FirstAsync(
            c => db.Orders.Any(o => o.Id == c.OrderId && o.Goods == GoodsTrack.Waiting),
            cancel
        );
        commitment.Quantity += 1m;
        (await db.Stock.FirstAsync(cancel)).OnHand += 1m;
        (await db.Orders.FirstAsync(cancel)).InvoicedMinor += 1;
        db.Entries.Add(
            new Data.Rows.EntryRow
            {
                Document = "F-1",
                Account = "1400",
                Currency = "EUR",
                DebitMinor = 5,
            }
        );
        await db.SaveChangesAsync(cancel);
        // Only an open connection remembers it.
        await db.Database.OpenConnectionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"PRAGMA foreign_keys = OFF", cancel);
        await db.Database.ExecuteSqlAsync(
            $"UPDATE sheet_line SET ItemId = 999999 WHERE rowid = (SELECT rowid FROM sheet_line WHERE ItemId IS NOT NULL ORDER BY SheetId LIMIT 1)",
            cancel
        );
        (wrong, told) = await CheckAsync();
        Assert.Contains($"event {changed.Id}, {changed.Code}", told, StringComparison.Ordinal);
        Assert.Contains($"event {taken.Id} is missing", told, StringComparison.Ordinal);
        Assert.Contains("no item for line of sheet", told, StringComparison.Ordinal);
        Assert.Contains("committed where", told, StringComparison.Ordinal);
        Assert.Contains("moved", told, StringComparison.Ordinal);
        Assert.Contains("F-1 of", told, StringComparison.Ordinal);
        Assert.Contains("receivable is", told, StringComparison.Ordinal);
        Assert.Contains("as invoiced", told, StringComparison.Ordinal);
        Assert.Equal(7, wrong);
    }

    [Fact]
    public async Task What_a_person_was_known_by_can_be_blanked_and_the_chain_holds()
    {
        var cancel = TestContext.Current.CancellationToken;
        await using var db = await CopyAsync("blanked", cancel);
        await db
            .Events.Where(e => e.Id % 7 == 0)
            .ExecuteUpdateAsync(
                e => e.SetProperty(x => x.Facts, "").SetProperty(x => x.Who, "").SetProperty(x => x.Salt, ""),
                cancel
            );
        var faults = new List<string>();
        await foreach (var fault in new EventsAreChained().FaultsAsync(db, cancel))
            faults.Add(fault);
        Assert.Empty(faults);
    }

    [Fact]
    public async Task A_database_that_was_rewritten_chain_and_all_is_told_by_the_sealed_heads()
    {
        var cancel = TestContext.Current.CancellationToken;
        await using var db = await CopyAsync("rewritten", cancel);
        var folder = Directory.CreateTempSubdirectory("solvenda-proof").FullName;
        try
        {
            var heads = new SealedHeads(folder);
            async Task<List<string>> FaultsAsync(IProof proof)
            {
                var faults = new List<string>();
                await foreach (var fault in proof.FaultsAsync(db, cancel))
                    faults.Add(fault);
                return faults;
            }
            var proof = new HeadsAreInTheChain(heads);
            await heads.SealAsync(db, new DateOnly(2026, 11, 26), cancel);
            Assert.True(heads.Has(new DateOnly(2026, 11, 26)));
            Assert.Empty(await FaultsAsync(proof));
            if (!OperatingSystem.IsWindows())
                Assert.Equal(
                    UnixFileMode.UserRead | UnixFileMode.UserWrite,
                    File.GetUnixFileMode(Path.Combine(folder, "house-key.pem"))
                );
            // Somebody changes what an approver said, and makes the chain fit.
            var events = await db.Events.OrderBy(e => e.Id).ToListAsync(cancel);
            events[10].Facts = "{}";
            events[10].FactsHash = EventChain.FactsHash(events[10])!;
            var before = EventChain.Before;
            foreach (var e in events)
                before = e.Hash = EventChain.HashAfter(before, e);
            await db.SaveChangesAsync(cancel);
            Assert.Empty(await FaultsAsync(new EventsAreChained()));
            Assert.Contains("rewritten", Assert.Single(await FaultsAsync(proof)), StringComparison.Ordinal);
            // The head that would fit is not the house's.
            var file = Path.Combine(folder, "head-2026-11-26.json");
            var text = await File.ReadAllTextAsync(file, cancel);
            var hash = System.Text.Json.JsonDocument.Parse(text).RootElement.GetProperty("Hash").GetString()!;
            await File.WriteAllTextAsync(file, text.Replace(hash, before, StringComparison.Ordinal), cancel);
            Assert.Contains(
                "not sealed by this house",
                Assert.Single(await FaultsAsync(proof)),
                StringComparison.Ordinal
            );
            await File.WriteAllTextAsync(file, "{", cancel);
            Assert.Single(await FaultsAsync(proof));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
