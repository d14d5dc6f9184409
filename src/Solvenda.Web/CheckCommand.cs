using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Proofs;
using Solvenda.Data;

namespace Solvenda.Web;

/// <summary>
/// <c>./solvenda check [--data DIR]</c>: goes through everything that must hold over the whole database, and prints
/// each. Changes nothing.
/// </summary>
public static class CheckCommand
{
    /// <returns>0 where all holds; 1 where something does not; 2 where the command itself is wrong.</returns>
    public static async Task<int> RunAsync(IReadOnlyList<string> args, TextWriter answer, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(answer);
        ArgumentNullException.ThrowIfNull(errors);
        if (args is not ([] or ["--data", _]))
        {
            await errors.WriteLineAsync("Usage: check [--data DIR]");
            return 2;
        }
        var folder = Path.GetFullPath(args is [_, var named] ? named : "data");
        var file = Database.FileIn(folder);
        if (!File.Exists(file))
        {
            await errors.WriteLineAsync(
                $"There is no data in {folder}; start the server once, or name its folder with --data."
            );
            return 2;
        }
        await using var db = new SolvendaDb(
            (DbContextOptions<SolvendaDb>)new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(file).Options
        );
        var settings = Startup.Settings();
        using var books = new PriceBooks(Startup.SellerOf(SolvendaOptions.From(settings), settings));
        return
            await ProofList.RunAsync(
                ProofList.All(books, new SealedHeads(SolvendaOptions.ProofIn(folder))),
                db,
                answer,
                CancellationToken.None
            ) == 0
            ? 0
            : 1;
    }
}
