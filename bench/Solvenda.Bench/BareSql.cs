using System.Diagnostics;
using System.Globalization;
using Microsoft.Data.Sqlite;
using Solvenda.Data;

namespace Solvenda.Bench;

/// <summary>
/// The queries behind the lists, the finder and a buyer's page, as bare SQL over the same file: what the server's
/// answer is measured against.
/// </summary>
internal static class BareSql
{
    private static readonly (string Name, string Sql)[] Queries =
    [
        (
            "orders",
            "SELECT o.Number, b.Name, s.PoNumber, s.Wanted, o.Terms, o.Goods, o.Money, s.Currency, s.TotalWithTaxMinor FROM \"order\" o JOIN dossier d ON d.Id = o.DossierId JOIN buyer b ON b.Id = d.BuyerId JOIN sheet s ON s.Id = o.SheetId WHERE o.Goods <> 'Shipped' AND o.Terms <> 'Cancelled' ORDER BY o.CreatedAt DESC, o.Id DESC LIMIT 2000"
        ),
        (
            "items",
            "SELECT (SELECT count(*) FROM item WHERE Active AND Family = 'rope'), Id, Code, Words, Family FROM item WHERE Active AND Family = 'rope' ORDER BY Words, Id LIMIT 100"
        ),
        (
            "prices",
            "SELECT (SELECT count(*) FROM list_price WHERE Active AND Price > 5000000), * FROM list_price WHERE Active AND Price > 5000000 ORDER BY Price, Id LIMIT 100"
        ),
        (
            "find",
            "SELECT rowid, number, words, rest FROM find WHERE find MATCH '\"lomond\"* \"ferries\"*' ORDER BY bm25(find, 10.0, 5.0, 1.0) LIMIT 40"
        ),
        (
            "buyer",
            "SELECT i.Code, sum(l.Quantity), sum(l.NetMinor), max(o.CreatedAt) FROM dossier d JOIN \"order\" o ON o.DossierId = d.Id JOIN sheet_line l ON l.SheetId = o.SheetId JOIN item i ON i.Id = l.ItemId WHERE d.BuyerId = 4711 GROUP BY i.Code ORDER BY 3 DESC LIMIT 25"
        ),
    ];

    public static async Task MeasureAsync(string folder)
    {
        await using var connection = new SqliteConnection($"Data Source={Database.FileIn(folder)};Mode=ReadOnly");
        await connection.OpenAsync();
        foreach (var (name, sql) in Queries)
        {
            var times = new List<double>();
            for (var i = 0; i < 60; i++)
            {
                var watch = Stopwatch.StartNew();
                await using var command = connection.CreateCommand();
                command.CommandText = sql;
                await using var reader = await command.ExecuteReaderAsync();
                while (await reader.ReadAsync())
                {
                    for (var c = 0; c < reader.FieldCount; c++)
                        _ = reader.GetValue(c);
                }
                times.Add(watch.Elapsed.TotalMilliseconds);
            }
            times.Sort();
            Console.WriteLine(
                string.Create(CultureInfo.InvariantCulture, $"{name} {times[(int)(times.Count * 0.95)]:0.00}")
            );
        }
    }
}
