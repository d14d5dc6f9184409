using Microsoft.Data.Sqlite;
using Solvenda.Data;

namespace Solvenda.Web;

/// <summary>
/// <c>./solvenda backup FILE [--data DIR]</c>, also while the house works: the whole database with every original and
/// file in it, as of one moment (SQLite's online backup). <c>./solvenda restore FILE [--data DIR] [--over]</c>: puts it
/// in place.
/// </summary>
public static class BackupCommands
{
    /// <returns>0 where it was written; 2 where the command is wrong.</returns>
    public static async Task<int> BackupAsync(IReadOnlyList<string> args, TextWriter answer, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(answer);
        ArgumentNullException.ThrowIfNull(errors);
        if (args is not ([_] or [_, "--data", _]) || args[0].StartsWith('-'))
            return await SaidAsync(errors, "Usage: backup FILE [--data DIR]");
        var from = Database.FileIn(Path.GetFullPath(args is [_, _, var named] ? named : "data"));
        if (!File.Exists(from))
            return await SaidAsync(errors, $"There is no data at {from}; name its folder with --data.");
        var to = Path.GetFullPath(args[0]);
        if (File.Exists(to))
            return await SaidAsync(errors, $"{to} is there already; a backup goes over nothing.");
        var part = to + ".part";
        File.Delete(part);
        Database.Private(part);
        await using (var source = new SqliteConnection($"Data Source={from};Mode=ReadOnly;Pooling=False"))
        await using (var copy = new SqliteConnection($"Data Source={part};Pooling=False"))
        {
            await source.OpenAsync();
            await copy.OpenAsync();
            source.BackupDatabase(copy);
            // One file, whole by itself.
            await Database.RunAsync(copy, "PRAGMA journal_mode = DELETE;");
        }
        if (await Database.ProblemOfAsync(part) is { } problem)
            return await SaidAsync(errors, $"The copy is not whole ({problem}); it lies at {part}.");
        File.Move(part, to);
        await answer.WriteLineAsync($"{to}: {new FileInfo(to).Length / 1024:#,0} KB, whole.");
        return 0;
    }

    /// <returns>0 where it is in place; 2 where the command is wrong, or the house is at work.</returns>
    public static async Task<int> RestoreAsync(IReadOnlyList<string> args, TextWriter answer, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(answer);
        ArgumentNullException.ThrowIfNull(errors);
        var over = args.Contains("--over");
        string[] rest = [.. args.Where(a => a != "--over")];
        if (rest is not ([_] or [_, "--data", _]) || rest[0].StartsWith('-'))
            return await SaidAsync(errors, "Usage: restore FILE [--data DIR] [--over]");
        var from = Path.GetFullPath(rest[0]);
        if (!File.Exists(from))
            return await SaidAsync(errors, $"There is no {from}.");
        if (await Database.ProblemOfAsync(from) is { } problem)
            return await SaidAsync(errors, $"{from} is no whole backup ({problem}); nothing was changed.");
        var folder = Path.GetFullPath(rest is [_, _, var named] ? named : "data");
        var to = Database.FileIn(folder);
        if (File.Exists(to) && !over)
            return await SaidAsync(errors, $"{to} is there; --over puts the backup in its place, and keeps it aside.");
        if (!Database.IsAtRest(folder))
            return await SaidAsync(errors, $"A server works with {to}; stop it first. Nothing was changed.");
        Directory.CreateDirectory(folder);
        if (File.Exists(to))
        {
            var aside = $"{to}.before-{DateTime.UtcNow:yyyyMMdd-HHmmss}";
            // What a killed server committed last stands in its log; it goes along.
            foreach (var beside in new[] { "", "-wal", "-shm" })
            {
                if (File.Exists(to + beside))
                    File.Move(to + beside, aside + beside);
            }
            await answer.WriteLineAsync($"What was there is kept as {aside}.");
        }
        File.Copy(from, to);
        Database.PrepareFolder(folder);
        await answer.WriteLineAsync($"{to} is in place. ./solvenda check goes through it.");
        return 0;
    }

    private static async Task<int> SaidAsync(TextWriter errors, string words)
    {
        await errors.WriteLineAsync(words);
        return 2;
    }
}
