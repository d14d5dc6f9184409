using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Counts that somebody begins to read a request, before they do: what ends the process each time is told by it.
/// </summary>
public sealed record BeginReading(long Request) : IAct<int>;

public sealed class BeginReadingAct : Act<BeginReading, int>
{
    public override Right Needs => Rights.House;

    /// <returns>Which try it is, from 1.</returns>
    public override async Task<int> RunAsync(Work work, BeginReading input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        await work
            .Db.Requests.Where(r => r.Id == input.Request)
            .ExecuteUpdateAsync(r => r.SetProperty(x => x.ReadTries, x => x.ReadTries + 1), cancel);
        return await work.Db.Requests.Where(r => r.Id == input.Request).Select(r => r.ReadTries).FirstAsync(cancel);
    }
}
