using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Solvenda.Data;

/// <summary>How SQLite is opened, everywhere the same.</summary>
public static class Database
{
    /// <summary>Brings a database up to this program, where it is older.</summary>
    public static async Task BringUpAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        // Asking the migrator itself makes the whole model anew, on every start.
        if (await LastMigrationAsync(db, cancel) != db.Database.GetMigrations().Last())
            await db.Database.MigrateAsync(cancel);
    }

    /// <summary>
    /// Lets SQLite count how its tables are filled. Without that it reads all orders of the house to find those of one
    /// buyer.
    /// </summary>
    public static async Task CountAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        // 0x10002: all tables, not only those that this connection asked; a little of each is looked at.
        await db.Database.ExecuteSqlRawAsync("PRAGMA analysis_limit = 1000; PRAGMA optimize = 0x10002;", cancel);
    }

    private static async Task<string?> LastMigrationAsync(SolvendaDb db, CancellationToken cancel)
    {
        await db.Database.OpenConnectionAsync(cancel);
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = "SELECT count(*) FROM sqlite_master WHERE name = '__EFMigrationsHistory'";
        if (await command.ExecuteScalarAsync(cancel) is not 1L)
            return null;
        command.CommandText = "SELECT max(MigrationId) FROM __EFMigrationsHistory";
        return await command.ExecuteScalarAsync(cancel) as string;
    }

    private const string LockFile = "solvenda.lock";

    /// <summary>The file of a data folder.</summary>
    public static string FileIn(string folder) => Path.Combine(folder, "solvenda.db");

    /// <summary>
    /// Makes the folder and its database file, for this user's eyes only. A folder that was there keeps its rights.
    /// </summary>
    public static void PrepareFolder(string folder)
    {
        if (OperatingSystem.IsWindows() || Directory.Exists(folder))
            Directory.CreateDirectory(folder);
        else
            Directory.CreateDirectory(
                folder,
                UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute
            );
        var file = FileIn(folder);
        if (!File.Exists(file))
        {
            Private(file);
            // A file that is there is looked at read-only first, and has to be a database by then.
            using var db = new SqliteConnection($"Data Source={file};Pooling=False");
            db.Open();
            using var command = db.CreateCommand();
            command.CommandText = "PRAGMA journal_mode = WAL;";
            command.ExecuteNonQuery();
        }
        if (OperatingSystem.IsWindows())
            return;
        // SQLite gives the files beside it the same rights.
        foreach (var data in Directory.GetFiles(folder, Path.GetFileName(file) + "*"))
            File.SetUnixFileMode(data, UnixFileMode.UserRead | UnixFileMode.UserWrite);
    }

    /// <summary>Makes an empty file for this user's eyes only.</summary>
    public static void Private(string file)
    {
        var options = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        new FileStream(file, options).Dispose();
    }

    /// <summary>What is wrong with a database file; null where it is whole.</summary>
    public static async Task<string?> ProblemOfAsync(string file)
    {
        try
        {
            await using var db = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
            await db.OpenAsync();
            await using var command = db.CreateCommand();
            command.CommandText = "PRAGMA quick_check; SELECT count(*) FROM event;";
            var said = (string?)await command.ExecuteScalarAsync();
            return said == "ok" ? null : said;
        }
        catch (SqliteException e)
        {
            return e.Message;
        }
    }

    /// <summary>Says, as long as it is held, that somebody works with the data of a folder; several may.</summary>
    public static IDisposable Hold(string folder)
    {
        var file = Path.Combine(folder, LockFile);
        if (!File.Exists(file))
            Private(file);
        return new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.Read);
    }

    /// <summary>Whether nobody works with the data of a folder.</summary>
    public static bool IsAtRest(string folder)
    {
        var file = Path.Combine(folder, LockFile);
        try
        {
            if (File.Exists(file))
                new FileStream(file, FileMode.Open, FileAccess.ReadWrite, FileShare.None).Dispose();
            return true;
        }
        catch (IOException)
        {
            return false;
        }
    }

    public static async Task RunAsync(SqliteConnection db, string sql)
    {
        ArgumentNullException.ThrowIfNull(db);
        await using var command = db.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync();
    }

    public static DbContextOptionsBuilder UseSolvenda(this DbContextOptionsBuilder builder, string file) =>
        builder
            .UseSqlite(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    ForeignKeys = true,
                    Pooling = true,
                    DefaultTimeout = 10,
                }.ToString()
            )
            // A table that is made anew (a column that may be empty now) is a migration of its own, so nothing else can
            // be left half done by it.
            .ConfigureWarnings(w => w.Ignore(RelationalEventId.NonTransactionalMigrationOperationWarning))
            .AddInterceptors(Pragmas.Instance);

    // WAL: readers do not wait for the writer. FULL: what a screen confirmed survives a power cut, not only a killed
    // process;
    // one fsync for each change is what that costs (bench/RESULTS.md).
    private sealed class Pragmas : DbConnectionInterceptor
    {
        public static readonly Pragmas Instance = new();

        private const string Text =
            "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA busy_timeout = 10000; PRAGMA cache_size = -16000;";

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            using var command = connection.CreateCommand();
            command.CommandText = Text;
            command.ExecuteNonQuery();
        }

        public override async Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            await using var command = connection.CreateCommand();
            command.CommandText = Text;
            await command.ExecuteNonQueryAsync(cancellationToken);
        }
    }
}

/// <summary>For <c>dotnet ef migrations add</c> only.</summary>
public sealed class DesignTimeDb : IDesignTimeDbContextFactory<SolvendaDb>
{
    public SolvendaDb CreateDbContext(string[] args) =>
        new((DbContextOptions<SolvendaDb>)new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda("design.db").Options);
}
