using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Requests;

/// <summary>Does not take a buyer's change: the order stays as it is confirmed, and they are told why.</summary>
/// <param name="Reason">As they read it.</param>
public sealed record RefuseChange(string Request, long Version, string Order, string Reason) : IAct<string>;

[Leaves(typeof(ChangeRefused), typeof(RequestReplied))]
public sealed class RefuseChangeAct(SheetLoader loader, Seller seller) : Act<RefuseChange, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Where they were told; empty where there is no mail address.</returns>
    public override async Task<string> RunAsync(Work work, RefuseChange input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why, as they read it");
        var (request, reading) = await ChangedOrder.OpenAsync(work, input.Request, input.Version, cancel);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        ChangedOrder.MustBeTheirs(open, reading);
        var told = Outgoing.Tell(
            work,
            seller,
            $"{request.Number}.not-changed",
            open.Buyer,
            BuyerLetters.NotChanged(open, seller, reason)
        );
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.Answer);
        (request.DossierId, request.Changes) = (open.Dossier.Id, open.Number);
        request.Version++;
        work.Leave(new ChangeRefused(request.Number, told), open.Subject, open.Dossier.Id, reason);
        work.Leave(new RequestReplied(before, request.State), request.Number, open.Dossier.Id, reason);
        return told;
    }
}
