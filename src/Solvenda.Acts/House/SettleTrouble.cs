using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.House;

/// <summary>An administrator looked at what a worker could not do.</summary>
/// <param name="Again">It is to be tried once more; else it stays undone, and is not shown any more.</param>
public sealed record SettleTrouble(long Id, bool Again) : IAct<SettledTrouble>;

/// <summary>What was settled.</summary>
public sealed record SettledTrouble(string Worker, string Subject, bool Again);

[Leaves(typeof(TroubleSettled))]
public sealed class SettleTroubleAct : Act<SettleTrouble, SettledTrouble>
{
    public override Right Needs => Rights.Administer;

    public override async Task<SettledTrouble> RunAsync(Work work, SettleTrouble input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Troubles.FirstOrDefaultAsync(t => t.Id == input.Id, cancel)
            ?? throw RefusedException.NotFound("such trouble; it may be over");
        row.Left = true;
        if (input.Again)
        {
            work.Db.Troubles.Remove(row);
            await TryAgainAsync(work, row, cancel);
        }
        work.Leave(new TroubleSettled(row.Worker, row.Subject, input.Again), "house");
        return new SettledTrouble(row.Worker, row.Subject, input.Again);
    }

    // What keeps its own tries begins them anew.
    private static async Task TryAgainAsync(Work work, TroubleRow row, CancellationToken cancel)
    {
        if (row.Worker == Workers.Post)
            await work
                .Db.Outbox.Where(o => o.Key == row.Subject && o.SentAt == null)
                .ExecuteUpdateAsync(
                    o =>
                        o.SetProperty(x => x.Tries, 0)
                            .SetProperty(x => x.Apart, false)
                            .SetProperty(x => x.NextTryAt, work.Now),
                    cancel
                );
        if (
            row.Worker == Workers.Reading
            && await work.Db.Requests.FirstOrDefaultAsync(r => r.Number == row.Subject && r.Reading == "", cancel)
                is { } request
        )
        {
            RequestSteps.Move(request, RequestDoing.ReadAgain);
            (request.ReadTries, request.Reason) = (0, "");
            request.Version++;
        }
    }
}
