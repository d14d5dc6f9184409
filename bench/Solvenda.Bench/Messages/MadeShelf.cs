using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Demo;

namespace Solvenda.Bench.Messages;

/// <summary>The demo world's catalogue and buyers, to write about and to read against.</summary>
internal sealed record MadeShelf(
    ImmutableArray<Item> Items,
    ImmutableArray<(BuyerId Id, string Name, string Contact, string Mail)> Buyers,
    ReadingContext Context
)
{
    public static async Task<MadeShelf> LoadAsync()
    {
        var folder = Directory.CreateTempSubdirectory("solvenda-shelf").FullName;
        try
        {
            Database.PrepareFolder(folder);
            var options = new DbContextOptionsBuilder<SolvendaDb>();
            options.UseSolvenda(Database.FileIn(folder));
            await using var db = new SolvendaDb(options.Options);
            await db.Database.MigrateAsync();
            var books = new PriceBooks(DemoWorld.Seller);
            await new DemoWorld(db, books, new DateTime(2026, 3, 2, 8, 0, 0, DateTimeKind.Utc)).WriteAsync(
                "",
                CancellationToken.None
            );
            var items = (await books.BookAsync(db, CancellationToken.None)).Items;
            var rows = await db.Buyers.AsNoTracking().OrderBy(b => b.Id).ToListAsync();
            var buyers = rows.Where(b => b.ContactMail is not null)
                .Select(b => (new BuyerId(b.Id), b.Name, b.ContactName ?? "", b.ContactMail!))
                .ToImmutableArray();
            return new MadeShelf(
                [.. items],
                buyers,
                new ReadingContext(
                    await books.ItemsAsync(db, CancellationToken.None),
                    rows.ToDictionary(b => new BuyerId(b.Id), b => b.Name),
                    [
                        .. buyers.SelectMany(b =>
                            new[]
                            {
                                new BuyerSign(b.Item1, "mail", b.Item4),
                                new BuyerSign(b.Item1, "domain", b.Item4.Split('@')[1]),
                                new BuyerSign(b.Item1, "partner", Partner(b.Item1)),
                            }
                        ),
                        // The sales channel's own account.
                        new BuyerSign(buyers[0].Item1, "channel", "harbourmart"),
                    ],
                    [],
                    _ => []
                )
                {
                    OurDomains = ["brinemoor.example"],
                }
            );
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>The id by which a made buyer calls itself in interchanges.</summary>
    public static string Partner(BuyerId buyer) => FormattableString.Invariant($"MADE{buyer.Value:0000}");
}
