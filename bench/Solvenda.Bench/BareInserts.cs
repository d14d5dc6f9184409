using System.Diagnostics;
using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Solvenda.Bench;

/// <summary>
/// As many rows as an order of 20 lines leaves in the house, each order in a transaction of its own with
/// synchronous=FULL, and nothing read, priced or looked up: what taking orders in is measured against.
/// </summary>
internal static class BareInserts
{
    private const string Tables =
        "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;"
        + "CREATE TABLE raw(id INTEGER PRIMARY KEY, bytes BLOB, hash TEXT);"
        + "CREATE TABLE request(id INTEGER PRIMARY KEY, number TEXT UNIQUE, reading TEXT, parts TEXT);"
        + "CREATE TABLE sheet(id INTEGER PRIMARY KEY, head TEXT);"
        + "CREATE TABLE line(id INTEGER PRIMARY KEY, sheet INTEGER, words TEXT, quantity REAL, net INTEGER);"
        + "CREATE INDEX line_sheet ON line(sheet);"
        + "CREATE TABLE ordered(id INTEGER PRIMARY KEY, number TEXT UNIQUE, sheet INTEGER);"
        + "CREATE TABLE event(id INTEGER PRIMARY KEY, code TEXT, facts TEXT, hash TEXT);"
        + "CREATE TABLE outbox(id INTEGER PRIMARY KEY, key TEXT UNIQUE, payload BLOB);";

    /// <returns>Milliseconds that so many orders took.</returns>
    public static double Measure(string file, int orders)
    {
        using var db = new SqliteConnection($"Data Source={file};Pooling=False");
        db.Open();
        Run(db, Tables);
        var watch = Stopwatch.StartNew();
        for (var n = 0; n < orders; n++)
        {
            Run(db, "BEGIN IMMEDIATE");
            Run(db, "INSERT INTO raw(bytes, hash) VALUES ($a, $b)", new byte[900], new string('x', 64));
            Run(
                db,
                "INSERT INTO request(number, reading, parts) VALUES ($a, $b, $c)",
                $"R-{n}",
                new string('x', 9_000),
                new string('x', 3_000)
            );
            Run(db, "INSERT INTO sheet(id, head) VALUES ($a, $b)", n, new string('x', 600));
            for (var line = 0; line < 20; line++)
                Run(
                    db,
                    "INSERT INTO line(sheet, words, quantity, net) VALUES ($a, $b, $c, $d)",
                    n,
                    "Bow shackle, galvanised",
                    line,
                    line * 415
                );
            Run(db, "INSERT INTO ordered(number, sheet) VALUES ($a, $b)", $"S-{n}", n);
            for (var one = 0; one < 5; one++)
                Run(
                    db,
                    "INSERT INTO event(code, facts, hash) VALUES ($a, $b, $c)",
                    "request.read",
                    new string('x', 200),
                    new string('x', 64)
                );
            Run(db, "INSERT INTO outbox(key, payload) VALUES ($a, $b)", $"k-{n}", new byte[600]);
            Run(db, "COMMIT");
        }
        return watch.Elapsed.TotalMilliseconds;
    }

    /// <summary>What a house's file answers, as JSON: a list of objects.</summary>
    public static string Ask(string file, string sql)
    {
        using var db = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
        db.Open();
        using var command = db.CreateCommand();
#pragma warning disable CA2100 // What the bench's own script asks.
        command.CommandText = sql;
#pragma warning restore CA2100
        using var reader = command.ExecuteReader();
        var rows = new List<Dictionary<string, object?>>();
        while (reader.Read())
            rows.Add(
                Enumerable
                    .Range(0, reader.FieldCount)
                    .ToDictionary(reader.GetName, c => reader.IsDBNull(c) ? null : reader.GetValue(c))
            );
        return JsonSerializer.Serialize(rows);
    }

    private static void Run(SqliteConnection db, string sql, params object[] values)
    {
        using var command = db.CreateCommand();
#pragma warning disable CA2100 // One of the statements above.
        command.CommandText = sql;
#pragma warning restore CA2100
        for (var i = 0; i < values.Length; i++)
            command.Parameters.AddWithValue($"${(char)('a' + i)}", values[i]);
        command.ExecuteNonQuery();
    }
}
