using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Passing;
using Solvenda.Core.Reading;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Keeps what a request would be worth as it stands, and what would be in its way.</summary>
/// <param name="Version">The one that is to be weighed.</param>
public sealed record WeighRequest(long Request, long Version) : IAct<MessageKind?>;

/// <summary>Weighed ahead; null where there is nothing to weigh.</summary>
public sealed record WeighedAhead(Weight? Weight);

public sealed class WeighRequestAct(Weighing weighing) : PreparedAct<WeighRequest, WeighedAhead, MessageKind?>
{
    public override Right Needs => Rights.House;

    protected override async Task<WeighedAhead> PrepareAsync(Ahead ahead, WeighRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ahead);
        ArgumentNullException.ThrowIfNull(input);
        var request = await ahead.Db.Requests.AsNoTracking().FirstAsync(r => r.Id == input.Request, cancel);
        if (request.Version != input.Version || request.Reading.Length == 0)
            return new WeighedAhead(null);
        return new WeighedAhead(
            await weighing.OfAsync(ahead.Db, request, ReadingView.FromJson(request.Reading), cancel)
        );
    }

    /// <returns>What it is, where it may go on by itself; null: it waits.</returns>
    protected override async Task<MessageKind?> RunAsync(
        Work work,
        WeighRequest input,
        WeighedAhead prepared,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        ArgumentNullException.ThrowIfNull(prepared);
        var request = await work.Db.Requests.FirstAsync(r => r.Id == input.Request, cancel);
        // Somebody was faster; it is weighed anew.
        if (request.Version != input.Version || !RequestMoves.IsOpen(request.State))
            return null;
        request.Weighed = request.Version;
        if (prepared.Weight is { } weight)
            Keep(request, weight);
        work.Touch(request.Number);
        return prepared.Weight is { Goes: true } && Enum.TryParse<MessageKind>(request.Kind, out var kind)
            ? kind
            : null;
    }

    private static void Keep(RequestRow request, Weight weight)
    {
        // What stops nothing, once somebody looks at it.
        var notices = weight
            .Weighed.InTheWay.Where(o =>
                o.Code == Obstacles.Address || o.Code.StartsWith(Obstacles.Notice(""), StringComparison.Ordinal)
            )
            .ToList();
        var open = weight.Weighed.InTheWay.Except(notices).ToList();
        (request.Currency, request.WorthMinor) = (weight.Worth?.Currency.Code ?? "", weight.Worth?.Minor);
        request.SurePercent = weight.SurePercent;
        if (request.First.Length == 0)
            request.First = JsonSerializer.Serialize(weight.Weighed);
        // What reading itself doubts is said as reading says it.
        if (open.Count > 0)
            Doubt(request, open[0].Words);
        request.Ready = request.State == RequestState.New;
        // Why it does not go through by itself; else what stops nothing and is worth a look all the same.
        if (request.Ready)
            request.Reason = RequestSteps.Short(
                weight.Held.Length > 0 ? weight.Held
                : notices.Count > 0 ? notices[0].Words
                : ""
            );
    }

    // What somebody has to look at anyway keeps its reason.
    private static void Doubt(RequestRow request, string why)
    {
        if (request.State != RequestState.New)
            return;
        RequestSteps.Move(request, RequestDoing.Doubt);
        request.Reason = RequestSteps.Short(why);
    }
}
