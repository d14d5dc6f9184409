using System.Net.Http.Json;
using Microsoft.Data.Sqlite;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>A house that works is copied as of one moment, and the copy opens and holds.</summary>
public sealed class BackupTests(House house) : IClassFixture<House>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    private static async Task<(int Code, string Said)> RunAsync(
        Func<IReadOnlyList<string>, TextWriter, TextWriter, Task<int>> command,
        params string[] args
    )
    {
        await using var said = new StringWriter();
        return (await command(args, said, said), said.ToString());
    }

    [Fact]
    public async Task A_backup_taken_under_load_is_restored_and_all_that_must_hold_does()
    {
        var folder = Directory.CreateTempSubdirectory("solvenda-backup").FullName;
        try
        {
            var quill = await house.AsAsync(4);
            using var stop = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
            var made = 0;
            var load = Task.Run(
                async () =>
                {
                    while (!stop.IsCancellationRequested)
                    {
                        var answer = await quill.PostAsJsonAsync(
                            "/api/quotes",
                            new { buyerId = 1, matter = $"under load {made}" },
                            Cancel
                        );
                        answer.EnsureSuccessStatusCode();
                        made++;
                    }
                },
                Cancel
            );
            await Answers.EventuallyAsync(() => made > 3 ? "" : null);
            var file = Path.Combine(folder, "house.backup");
            var (code, said) = await RunAsync(BackupCommands.BackupAsync, file, "--data", house.DataFolder);
            await Answers.EventuallyAsync(() => made > 6 ? "" : null);
            await stop.CancelAsync();
            await load;
            Assert.True(code == 0, said);

            var anew = Path.Combine(folder, "anew");
            Assert.Equal(0, (await RunAsync(BackupCommands.RestoreAsync, file, "--data", anew)).Code);
            var (wrong, told) = await RunAsync(CheckCommand.RunAsync, "--data", anew);
            Assert.True(wrong == 0, told);

            // Over nothing by itself, and never under a server that works.
            Assert.Equal(2, (await RunAsync(BackupCommands.BackupAsync, file, "--data", anew)).Code);
            Assert.Equal(2, (await RunAsync(BackupCommands.RestoreAsync, file, "--data", anew)).Code);
            Assert.Equal(0, (await RunAsync(BackupCommands.RestoreAsync, file, "--data", anew, "--over")).Code);
            Assert.Single(
                Directory.GetFiles(anew, "*.before-*"),
                f => !f.EndsWith("-wal", StringComparison.Ordinal) && !f.EndsWith("-shm", StringComparison.Ordinal)
            );
            var working = await RunAsync(BackupCommands.RestoreAsync, file, "--data", house.DataFolder, "--over");
            Assert.Equal(2, working.Code);
            Assert.Contains("stop it first", working.Said, StringComparison.Ordinal);

            await File.WriteAllTextAsync(Path.Combine(folder, "no.backup"), "not a database", Cancel);
            Assert.Equal(
                2,
                (
                    await RunAsync(
                        BackupCommands.RestoreAsync,
                        Path.Combine(folder, "no.backup"),
                        "--data",
                        anew,
                        "--over"
                    )
                ).Code
            );
            Assert.True(File.Exists(Database.FileIn(anew)));
        }
        finally
        {
            SqliteConnection.ClearPool(
                new SqliteConnection($"Data Source={Database.FileIn(Path.Combine(folder, "anew"))}")
            );
            Directory.Delete(folder, recursive: true);
        }
    }
}
