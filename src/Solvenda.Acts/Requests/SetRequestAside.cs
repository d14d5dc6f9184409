using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Requests;

/// <summary>Puts a request aside, with the reason. Nothing is deleted.</summary>
/// <param name="Version">As it was seen; null where many are put aside at once.</param>
public sealed record SetRequestAside(string Request, long? Version, string Reason) : IAct<string>;

[Leaves(typeof(RequestSetAside))]
public sealed class SetRequestAsideAct : Act<SetRequestAside, string>
{
    public override Right Needs => Rights.Write;

    public override async Task<string> RunAsync(Work work, SetRequestAside input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = input.Reason.Trim();
        if (reason.Length == 0)
            throw RefusedException.Bad("reason_missing", "Say why it is put aside; the reason is kept.", "reason");
        var request = await RequestSteps.FindAsync(work.Db, input.Request, input.Version, cancel);
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.SetAside);
        request.Reason = reason;
        request.Version++;
        work.Leave(new RequestSetAside(before, request.State), request.Number, request.DossierId, reason);
        return request.Number;
    }
}
