using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ways;

/// <summary>Keeps what a way in brought at one time.</summary>
/// <param name="Log">A line each, in the order in which it happened.</param>
public sealed record KeepRun(string Channel, int Taken, int Failed, ImmutableArray<string> Log) : IAct<long>;

public sealed class KeepRunAct : Act<KeepRun, long>
{
    // More than so many letters nobody reads; the messages themselves are all there.
    private const int MostLetters = 20_000;

    public override Right Needs => Rights.House;

    public override async Task<long> RunAsync(Work work, KeepRun input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var log = string.Join('\n', input.Log);
        var run = new RunRow
        {
            Channel = input.Channel,
            At = work.Now,
            Taken = input.Taken,
            Failed = input.Failed,
            Log = log.Length > MostLetters ? log[..MostLetters] + "\n…" : log,
        };
        work.Db.Runs.Add(run);
        await work.Db.SaveChangesAsync(cancel);
        work.Touch($"ways:{input.Channel}");
        return run.Id;
    }
}
