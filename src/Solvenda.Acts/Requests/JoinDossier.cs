using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Puts a request into the dossier of a matter that is there: what is made of it is made there.</summary>
/// <param name="Into">Number of the dossier, or of a quote or an order in it.</param>
/// <param name="Done">Whether nothing more is to be made of it.</param>
public sealed record JoinDossier(string Request, long Version, string Into, bool Done) : IAct<string>;

[Leaves(typeof(RequestJoined), typeof(RequestReplied))]
public sealed class JoinDossierAct : Act<JoinDossier, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Number of the dossier.</returns>
    public override async Task<string> RunAsync(Work work, JoinDossier input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var request = await RequestSteps.FindAsync(work.Db, input.Request, input.Version, cancel);
        var number = input.Into.Trim().ToUpperInvariant();
        var dossier =
            await DossierAsync(work, number, cancel)
            ?? throw RefusedException.NotFound($"dossier, quote or order “{number}”");
        if (request.BuyerId is { } buyer && buyer != dossier.BuyerId)
            throw RefusedException.Bad(
                "other_buyer",
                $"{number} is another buyer’s matter; nothing was changed.",
                "into"
            );
        request.DossierId = dossier.Id;
        request.Version++;
        work.Leave(new RequestJoined(dossier.Number), request.Number, dossier.Id);
        if (!input.Done)
            return dossier.Number;
        var before = request.State;
        RequestSteps.Move(request, RequestDoing.Answer);
        (request.Reason, request.Ready) = ($"belongs to {number}", false);
        work.Leave(new RequestReplied(before, request.State), request.Number, dossier.Id);
        return dossier.Number;
    }

    private static async Task<DossierRow?> DossierAsync(Work work, string number, CancellationToken cancel)
    {
        var ids = work
            .Db.Quotes.Where(q => q.Number == number)
            .Select(q => q.DossierId)
            .Concat(work.Db.Orders.Where(o => o.Number == number).Select(o => o.DossierId))
            .Concat(work.Db.Dossiers.Where(d => d.Number == number).Select(d => d.Id));
        return await work.Db.Dossiers.FirstOrDefaultAsync(d => ids.Contains(d.Id), cancel);
    }
}
