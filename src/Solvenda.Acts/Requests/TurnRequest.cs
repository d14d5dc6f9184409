using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Turns a request into a quote or an order in a dossier: nothing is typed again, and what the buyer wrote stays with
/// each line. What they state beside
/// lines is kept beside ours and compared, never taken by itself.
/// </summary>
public sealed record TurnRequest(string Request, long Version, bool IntoOrder) : IAct<DocumentRef>;

[Leaves(typeof(RequestTurned), typeof(QuoteBegun), typeof(OrderBegun))]
public sealed class TurnRequestAct(Turning turning) : Act<TurnRequest, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, TurnRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, input.Request, input.Version, cancel);
        return (await turning.TurnAsync(work, request, reading, input.IntoOrder, cancel)).Into;
    }
}
