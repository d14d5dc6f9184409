using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Formats.Mail;

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
        var reason = (input.Reason ?? "").Trim();
        if (reason.Length is 0 or > Core.Sheets.SheetDoor.MostLetters)
            throw RefusedException.Bad("reason_missing", "Say why; they read it.", "reason");
        var (request, reading) = await ChangedOrder.OpenAsync(work, input.Request, input.Version, cancel);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        ChangedOrder.MustBeTheirs(open, reading);
        var to = open.Buyer.ContactMail ?? "";
        var told = MailWriter.IsAddress(to) ? to : "";
        if (told.Length > 0)
            Outgoing.Mail(
                work,
                seller,
                $"{request.Number}.not-changed".ToLowerInvariant(),
                to,
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
