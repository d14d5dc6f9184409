using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>Lets a stop pass, with the reason.</summary>
/// <param name="Line">Key of the line; null for the head.</param>
/// <param name="Field">Where a check found more than one thing: which field.</param>
/// <param name="Until">The last day on which it lets anything pass; null: without end, and of credit a
/// fortnight.</param>
public sealed record WaiveStop(
    string Order,
    string Check,
    long? Line,
    string? Field,
    string Reason,
    DateOnly? Until = null
) : IAct<DocumentRef>;

[Leaves(typeof(StopWaived))]
public sealed class WaiveStopAct(SheetLoader loader, Judge judge) : Act<WaiveStop, DocumentRef>
{
    public override Right Needs => Rights.Waive;

    public override async Task<DocumentRef> RunAsync(Work work, WaiveStop input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = input.Reason.Trim();
        if (reason.Length == 0)
            throw RefusedException.Bad("reason_missing", "Say why it may pass; the reason is kept.", "reason");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        if (!open.IsEditable)
            throw RefusedException.Clash("sheet_closed", "The order is confirmed; there is nothing to let pass.");
        var judged = await judge.JudgeAsync(work.Db, open, work.Actor.Hand, cancel);
        var finding =
            judged.Stops.FirstOrDefault(f =>
                f.Check == input.Check && f.Line == input.Line && (input.Field is null || f.Field == input.Field)
            ) ?? throw RefusedException.Clash("no_such_stop", "That no longer stops the order.");
        var me = open.People[new PersonId(work.Actor.PersonId!.Value)];
        if (Waiving.WhyNot(finding, me, open.Owner.Id) is { } refused)
            throw RefusedException.Of(refused);
        var waiver = new WaiverRow
        {
            OrderId = open.Order!.Id,
            Check = finding.Check,
            LineKey = finding.Line,
            Fingerprint = finding.Fingerprint,
            Excess = finding.Excess,
            ById = me.Id.Value,
            ByName = me.Name,
            Reason = reason,
            At = work.Now,
            Until = LetPassUntil.Of(input.Until, finding.Waive == WaiveBy.Credit, work.Today),
        };
        work.Db.Waivers.Add(waiver);
        open.Waivers.Add(waiver);
        Settling.KeepStops(await judge.JudgeAsync(work.Db, open, judged.Priced, work.Actor.Hand, cancel));
        work.Leave(
            new StopWaived(finding.Check, finding.Line, finding.Words, finding.Excess) { Until = waiver.Until },
            open.Subject,
            open.Dossier.Id,
            reason
        );
        return open.Ref;
    }
}
