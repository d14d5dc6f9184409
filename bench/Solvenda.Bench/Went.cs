using System.Globalization;
using Microsoft.Data.Sqlite;
using Solvenda.Data;

namespace Solvenda.Bench;

/// <summary>Makes many orders that went and are on no invoice: copies of those that the demo has, with numbers of
/// their own.</summary>
internal static class Went
{
    private const long Apart = 1_000_000;

    // Which tables are copied, and by which of their columns a copy is one of its own.
    private static readonly (string Table, string[] Moved, string[] Named)[] _tables =
    [
        ("dossier", ["Id"], ["Number"]),
        ("sheet", ["Id"], []),
        ("sheet_line", ["SheetId"], []),
        ("order", ["Id", "DossierId", "SheetId"], ["Number", "PoKey"]),
        ("shipment", ["Id", "OrderId"], ["Number"]),
        ("shipment_line", ["ShipmentId"], []),
    ];

    private static readonly Dictionary<string, string> _of = new()
    {
        ["dossier"] = "Id IN (SELECT DossierId FROM went)",
        ["sheet"] = "Id IN (SELECT SheetId FROM went)",
        ["sheet_line"] = "SheetId IN (SELECT SheetId FROM went)",
        ["order"] = "Id IN (SELECT Id FROM went)",
        ["shipment"] = "OrderId IN (SELECT Id FROM went) AND Invoice = ''",
        ["shipment_line"] =
            "ShipmentId IN (SELECT Id FROM shipment WHERE OrderId IN (SELECT Id FROM went) AND Invoice = '')",
    };

    /// <param name="folder">Of a demo house that is not running.</param>
    /// <returns>How many orders are to be invoiced.</returns>
    public static long Write(string folder, int orders)
    {
        using var connection = new SqliteConnection($"Data Source={Database.FileIn(folder)}");
        connection.Open();
        Run(
            connection,
            """
            CREATE TEMP TABLE went AS SELECT * FROM "order" o WHERE o.Terms = 'Confirmed'
                AND EXISTS (SELECT 1 FROM shipment s WHERE s.OrderId = o.Id AND s.State = 'Gone' AND s.Invoice = '')
            """
        );
        using var transaction = connection.BeginTransaction();
        var first = Ask(connection, "SELECT COUNT(*) FROM went");
        for (var copy = 1; copy * first < orders; copy++)
            foreach (var (table, moved, named) in _tables)
                Copy(connection, table, moved, named, copy);
        Run(connection, "UPDATE buyer SET CreditLimitMinor = 900000000000");
        transaction.Commit();
        return Ask(
            connection,
            "SELECT COUNT(DISTINCT OrderId) FROM shipment WHERE State = 'Gone' AND Invoice = '' AND OrderId IN (SELECT Id FROM \"order\" WHERE Terms = 'Confirmed')"
        );
    }

    private static void Copy(SqliteConnection connection, string table, string[] moved, string[] named, int copy)
    {
        using var columns = connection.CreateCommand();
        columns.CommandText = $"SELECT name FROM pragma_table_info('{table}')";
        var names = new List<string>();
        using (var reader = columns.ExecuteReader())
            while (reader.Read())
                names.Add(reader.GetString(0));
        var by = (copy * Apart).ToString(CultureInfo.InvariantCulture);
        var values = names.Select(n =>
            moved.Contains(n) ? $"\"{n}\" + {by}"
            : named.Contains(n) ? $"\"{n}\" || '-{copy}'"
            : $"\"{n}\""
        );
        Run(
            connection,
            $"INSERT INTO \"{table}\" ({string.Join(", ", names.Select(n => $"\"{n}\""))}) SELECT {string.Join(", ", values)} FROM \"{table}\" WHERE {_of[table]}"
        );
    }

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static long Ask(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return (long)command.ExecuteScalar()!;
    }
}
