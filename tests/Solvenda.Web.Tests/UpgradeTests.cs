using System.IO.Compression;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;
using Solvenda.Acts.Proofs;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// A house that was begun with an older Solvenda goes on with this one: its file is brought up, and all that must hold
/// does.
/// </summary>
public sealed class UpgradeTests
{
    // dotnet ef dbcontext optimize --project src/Solvenda.Data -o Compiled -n Solvenda.Data.Compiled
    [Fact]
    public void The_model_that_was_compiled_and_the_migrations_are_those_of_the_rows()
    {
        var builder = new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda("nowhere.db");
        using var compiled = new SolvendaDb((DbContextOptions<SolvendaDb>)builder.Options);
        Assert.False(compiled.Database.HasPendingModelChanges());
        var rows = compiled.GetService<IDesignTimeModel>().Model;
        static string Told(IReadOnlyModel model) =>
            string.Join(
                '\n',
                model
                    .GetEntityTypes()
                    .OrderBy(t => t.Name, StringComparer.Ordinal)
                    .SelectMany(t =>
                        t.GetProperties()
                            .Select(p => $"{t.Name}.{p.Name} {p.ClrType} {p.IsNullable} {p.IsConcurrencyToken}")
                            .Order(StringComparer.Ordinal)
                    )
            );
        Assert.True(
            compiled.Model is not null && compiled.Model.GetType().Name.Contains("Solvenda", StringComparison.Ordinal)
        );
        Assert.Equal(Told(rows), Told(compiled.Model));
    }

    public static TheoryData<string> Kept =>
        [
            .. Directory
                .GetFiles(Path.Combine(AppContext.BaseDirectory, "Upgrades"), "*.db.gz")
                .Select(f => Path.GetFileName(f))
                .Order(),
        ];

    [Theory, MemberData(nameof(Kept))]
    public async Task A_kept_database_is_brought_up_and_holds(string name)
    {
        var cancel = TestContext.Current.CancellationToken;
        var folder = Directory.CreateTempSubdirectory("solvenda-upgrade").FullName;
        try
        {
            var file = Database.FileIn(folder);
            await using (var packed = File.OpenRead(Path.Combine(AppContext.BaseDirectory, "Upgrades", name)))
            await using (var open = new GZipStream(packed, CompressionMode.Decompress))
            await using (var to = File.Create(file))
                await open.CopyToAsync(to, cancel);
            await using var db = new SolvendaDb(
                (DbContextOptions<SolvendaDb>)new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(file).Options
            );
            var before = await db.Events.CountAsync(cancel);
            await db.Database.MigrateAsync(cancel);
            Assert.True(before > 1_000, $"only {before} events");
            Assert.Equal(before, await db.Events.CountAsync(cancel));
            var settings = Startup.Settings();
            using var books = new PriceBooks(Startup.SellerOf(SolvendaOptions.From(settings), settings));
            using var told = new StringWriter();
            var wrong = await ProofList.RunAsync(
                ProofList.All(books, new SealedHeads(Path.Combine(folder, "proof"))),
                db,
                told,
                cancel
            );
            Assert.True(wrong == 0, told.ToString());
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }
}
