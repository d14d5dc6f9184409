using System.Globalization;
using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data;

/// <summary>What a record is found as.</summary>
public enum FoundKind
{
    Item,
    Buyer,
    Request,
    Quote,
    Order,
    Person,
    Contact,
}

/// <summary>A record found: its number or code, its words, and what else it was found by.</summary>
/// <param name="Near">Whether its own number or words begin so; else only something about it does.</param>
public sealed record FoundRow(FoundKind Kind, long Id, string Number, string Words, string Rest, bool Near);

/// <summary>
/// The one index that the finder asks (SQLite FTS5). Triggers keep it on every way in, so an import is found as soon as
/// it is taken.
/// A row's key is the record's own times eight, and its kind.
/// </summary>
public static class FindIndex
{
    private const int Kinds = 8;

    // The longest words that one or two slips are forgiven in.
    private const int LeastForOne = 4;
    private const int LeastForTwo = 8;

    // What is found: its table, what its number, words and the rest are made of, and which columns those hang on.
    private static readonly (
        FoundKind Kind,
        string Table,
        string Number,
        string Words,
        string Others,
        string Columns
    )[] Found =
    [
        (
            FoundKind.Item,
            "item",
            "{0}.Code",
            "{0}.Words",
            "coalesce({0}.Gtin, '') || ' ' || {0}.Family || ' ' || {0}.WordsElsewhere",
            "Code, Words, Gtin, Family, WordsElsewhere"
        ),
        (
            FoundKind.Buyer,
            "buyer",
            "{0}.Code",
            "{0}.Name",
            "coalesce({0}.ContactName, '') || ' ' || {0}.Address || ' ' || coalesce({0}.ContactMail, '')",
            "Code, Name, ContactName, Address, ContactMail"
        ),
        (FoundKind.Request, "request", "{0}.Number", "{0}.Subject", "{0}.FromWords", "Subject, FromWords"),
        (FoundKind.Person, "person", "{0}.Login", "{0}.Name", "{0}.Does", "Name, Does"),
        (
            FoundKind.Contact,
            "contact",
            "''",
            "{0}.Name",
            "coalesce({0}.Mail, '') || ' ' || (SELECT b.Name FROM buyer b WHERE b.Id = {0}.BuyerId)",
            "Name, Mail"
        ),
        (
            FoundKind.Quote,
            "quote",
            "{0}.Number",
            "(SELECT b.Name FROM dossier d JOIN buyer b ON b.Id = d.BuyerId WHERE d.Id = {0}.DossierId)",
            "(SELECT d.Matter FROM dossier d WHERE d.Id = {0}.DossierId)",
            "Number"
        ),
        (
            FoundKind.Order,
            "order",
            "{0}.Number",
            "(SELECT b.Name FROM dossier d JOIN buyer b ON b.Id = d.BuyerId WHERE d.Id = {0}.DossierId)",
            "coalesce((SELECT s.PoNumber FROM sheet s WHERE s.Id = {0}.SheetId), '') || ' ' || (SELECT d.Matter FROM dossier d WHERE d.Id = {0}.DossierId)",
            "Number"
        ),
    ];

    /// <summary>Statements that make the index and fill it, for the migration.</summary>
    public static IEnumerable<string> CreateStatements()
    {
        yield return "CREATE VIRTUAL TABLE find USING fts5(number, words, rest, tokenize = \"unicode61 remove_diacritics 2\", prefix = '2 3 4')";
        yield return "CREATE VIRTUAL TABLE find_word USING fts5vocab(find, 'row')";
        foreach (var (kind, table, number, words, rest, _) in Found)
        {
            yield return $"INSERT INTO find(rowid, number, words, rest) SELECT t.Id * {Kinds} + {(int)kind}, {F(number, "t")}, {F(words, "t")}, {F(rest, "t")} FROM \"{table}\" t";
        }
        foreach (var (_, table, _, _, _, _) in Found)
        foreach (var statement in TriggersOf(table))
            yield return statement;
        yield return PoTrigger;
    }

    /// <summary>Statements that take away what keeps the index, for a migration that makes those tables anew.</summary>
    public static IEnumerable<string> LetGoStatements(params string[] tables) =>
        [
            .. tables.SelectMany(t => Moments.Select(w => $"DROP TRIGGER IF EXISTS find_{t}_{w}")),
            "DROP TRIGGER IF EXISTS find_po_changed",
        ];

    /// <summary>Statements that keep the index again, once they were made anew.</summary>
    public static IEnumerable<string> KeepStatements(params string[] tables) =>
        [.. tables.SelectMany(TriggersOf), PoTrigger];

    private static readonly string[] Moments = ["new", "gone", "changed"];

    private static IEnumerable<string> TriggersOf(string name)
    {
        var (kind, table, number, words, rest, columns) = Found.First(f => f.Table == name);
        string Insert(string row) =>
            $"INSERT INTO find(rowid, number, words, rest) VALUES ({row}.Id * {Kinds} + {(int)kind}, {F(number, row)}, {F(words, row)}, {F(rest, row)});";
        yield return $"CREATE TRIGGER find_{table}_new AFTER INSERT ON \"{table}\" BEGIN {Insert("new")} END";
        yield return $"CREATE TRIGGER find_{table}_gone AFTER DELETE ON \"{table}\" BEGIN DELETE FROM find WHERE rowid = old.Id * {Kinds} + {(int)kind}; END";
        yield return $"CREATE TRIGGER find_{table}_changed AFTER UPDATE OF {columns} ON \"{table}\" BEGIN DELETE FROM find WHERE rowid = old.Id * {Kinds} + {(int)kind}; {Insert("new")} END";
    }

    // The PO number of an order stands on its sheet.
    private static readonly string PoTrigger =
        $"CREATE TRIGGER find_po_changed AFTER UPDATE OF PoNumber ON sheet WHEN coalesce(old.PoNumber, '') <> coalesce(new.PoNumber, '') BEGIN UPDATE find SET rest = new.PoNumber || ' ' || rest WHERE rowid = (SELECT o.Id * {Kinds} + {(int)FoundKind.Order} FROM \"order\" o WHERE o.SheetId = new.Id) AND new.PoNumber IS NOT NULL; END";

    /// <summary>
    /// Words in any order, each whole or begun; where that finds nothing, the nearest words there are.
    /// </summary>
    public static async Task<List<FoundRow>> SearchAsync(SolvendaDb db, string text, int most, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var tokens = Tokens(text);
        if (tokens.Count == 0)
            return [];
        var found = await MatchAsync(db, tokens, most, cancel);
        return found.Count > 0 || await MendAsync(db, tokens, cancel) is not { } mended
            ? found
            : await MatchAsync(db, mended, most, cancel);
    }

    private static async Task<List<FoundRow>> MatchAsync(
        SolvendaDb db,
        List<string> tokens,
        int most,
        CancellationToken cancel
    )
    {
        var match = string.Join(' ', tokens.Select(t => $"\"{t}\"*"));
        // Ranking reads every hit: of short beginnings there are too many, and there the newest are as good.
        // Documents are many and repeat their buyer's name: they must not crowd the buyer itself out.
        const string best =
            "SELECT rowid AS Id, number AS Number, words AS Words, rest AS Rest FROM find WHERE find MATCH {0} AND (rowid % 8 IN (2, 3, 4)) = {2} ORDER BY bm25(find, 10.0, 5.0, 1.0), rowid DESC LIMIT {1}";
        const string newest =
            "SELECT rowid AS Id, number AS Number, words AS Words, rest AS Rest FROM find WHERE find MATCH {0} AND (rowid % 8 IN (2, 3, 4)) = {2} ORDER BY rowid DESC LIMIT {1}";
        var sql = tokens.Any(t => t.Length >= LeastForOne) ? best : newest;
        // What was typed is the beginning of a code: those come before what has such words anywhere.
        const string begun =
            "SELECT rowid AS Id, number AS Number, words AS Words, rest AS Rest FROM find WHERE find MATCH {0} AND rowid % 8 NOT IN (2, 3, 4) ORDER BY number LIMIT {1}";
        List<Hit> codes =
            tokens.Count > 1
                ? await db
                    .Database.SqlQueryRaw<Hit>(begun, $"number : ^\"{string.Join(' ', tokens)}\" *", most)
                    .ToListAsync(cancel)
                : [];
        // A word as it was typed comes before words that begin so: 12 before 1263.
        var whole = $"{{number words}} : ({string.Join(" AND ", tokens.Select(t => $"\"{t}\""))})";
        List<Hit> rows =
        [
            .. codes,
            .. await db.Database.SqlQueryRaw<Hit>(sql, whole, most, false).ToListAsync(cancel),
            .. await db.Database.SqlQueryRaw<Hit>(sql, whole, most, true).ToListAsync(cancel),
            .. await db.Database.SqlQueryRaw<Hit>(sql, match, most, false).ToListAsync(cancel),
            .. await db.Database.SqlQueryRaw<Hit>(sql, match, most, true).ToListAsync(cancel),
        ];
        return
        [
            .. rows.DistinctBy(r => r.Id)
                .Select(r => new FoundRow(
                    (FoundKind)(r.Id % Kinds),
                    r.Id / Kinds,
                    r.Number,
                    r.Words,
                    r.Rest,
                    IsNear(r, tokens)
                )),
        ];
    }

    private static bool IsNear(Hit hit, List<string> tokens)
    {
        var own = Split($"{hit.Number} {hit.Words}");
        return tokens.TrueForAll(t => Array.Exists(own, w => w.StartsWith(t, StringComparison.Ordinal)));
    }

    // Each word that nothing begins with is replaced by the nearest one, if there is one near enough.
    private static async Task<List<string>?> MendAsync(SolvendaDb db, List<string> tokens, CancellationToken cancel)
    {
        var mended = new List<string>();
        foreach (var token in tokens)
        {
            var slips =
                token.Length >= LeastForTwo ? 2
                : token.Length >= LeastForOne ? 1
                : 0;
            if (slips == 0 || token.Any(char.IsDigit))
            {
                mended.Add(token);
                continue;
            }
            // Words of about its length; a slip in the first letter is seldom, and forgiven only for the second round.
            var first = token[..1];
            var near =
                await NearAsync(
                    db,
                    token,
                    slips,
                    "SELECT term AS Value FROM find_word WHERE term >= {0} AND term < {0} || 'zzzz' AND length(term) BETWEEN {1} AND {2}",
                    first,
                    cancel
                )
                ?? await NearAsync(
                    db,
                    token,
                    1,
                    "SELECT term AS Value FROM find_word WHERE term > {0} AND length(term) BETWEEN {1} AND {2}",
                    "a",
                    cancel
                );
            if (near is null)
                return null;
            mended.Add(near);
        }
        return mended.SequenceEqual(tokens) ? null : mended;
    }

    private static async Task<string?> NearAsync(
        SolvendaDb db,
        string token,
        int slips,
        string sql,
        string from,
        CancellationToken cancel
    )
    {
        var words = await db
            .Database.SqlQueryRaw<string>(sql, from, token.Length - slips, token.Length + slips)
            .ToListAsync(cancel);
        return words
            .Select(w => (Word: w, Slips: Slips(token, w, slips)))
            .Where(w => w.Slips <= slips)
            .OrderBy(w => w.Slips)
            .ThenBy(w => w.Word, StringComparer.Ordinal)
            .Select(w => w.Word)
            .FirstOrDefault();
    }

    /// <summary>
    /// Letters left out, put in, wrong, or turned round, between two words; one more than <paramref name="most"/> where
    /// there are more.
    /// </summary>
    public static int Slips(string a, string b, int most)
    {
        ArgumentNullException.ThrowIfNull(a);
        ArgumentNullException.ThrowIfNull(b);
        if (Math.Abs(a.Length - b.Length) > most)
            return most + 1;
        var table = new int[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++)
            table[i, 0] = i;
        for (var j = 0; j <= b.Length; j++)
            table[0, j] = j;
        for (var i = 1; i <= a.Length; i++)
        {
            for (var j = 1; j <= b.Length; j++)
            {
                var least = Math.Min(
                    Math.Min(table[i - 1, j], table[i, j - 1]) + 1,
                    table[i - 1, j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1)
                );
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                    least = Math.Min(least, table[i - 2, j - 2] + 1);
                table[i, j] = least;
            }
        }
        return Math.Min(table[a.Length, b.Length], most + 1);
    }

    // As the index parts words: letters and digits, small, without their marks.
    private static List<string> Tokens(string text) =>
        [.. Split(text).Take(8).Select(t => t.Length > 40 ? t[..40] : t)];

    private static string[] Split(string text) =>
        new string([
            .. text.Normalize(System.Text.NormalizationForm.FormD)
                .Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                .Select(c => char.IsLetterOrDigit(c) ? char.ToLowerInvariant(c) : ' '),
        ]).Split(' ', StringSplitOptions.RemoveEmptyEntries);

    private static string F(string expression, string row) =>
        string.Format(CultureInfo.InvariantCulture, expression, row);

    private sealed record Hit(long Id, string Number, string Words, string Rest);
}
