using System.Text.Json;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Asks for approval of a quote or an order: of each hand whose figures need it, whoever may decide on that hand's.
/// </summary>
/// <param name="Seen">Version of the sheet.</param>
public sealed record AskApproval(DocumentRef Document, string Why, long? Seen) : IAct<DocumentRef>;

[Leaves(typeof(AskMade))]
public sealed class AskApprovalAct(SheetLoader loader, Judge judge) : Act<AskApproval, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, AskApproval input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var why = input.Why.Trim();
        if (why.Length == 0)
            throw RefusedException.Bad("reason_missing", "Say why; whoever decides reads it first.", "why");
        var open = await loader.DocumentAsync(work.Db, input.Document, cancel);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel);
        var judged = await judge.JudgeAsync(work.Db, open, work.Actor.Hand, cancel, work.Actor.Hand);
        if (!open.IsEditable || judged.Approval.State != ApprovalState.Needed)
            throw RefusedException.Clash(
                "ask_not_needed",
                judged.Approval.State == ApprovalState.Waiting
                    ? "It was asked already."
                    : "Nothing here needs approval."
            );
        foreach (var need in judged.Approval.Needs.Where(n => n.State == ApprovalState.Needed))
            await AskAsync(work, open, need, why, cancel);
        if (open.Quote is { State: not QuoteState.InApproval } quote)
            quote.State = QuoteMoves.Table.After(quote.State, QuoteDoing.Ask)!.Value;
        Settling.KeepStops(await judge.JudgeAsync(work.Db, open, judged.Priced, work.Actor.Hand, cancel));
        return open.Ref;
    }

    private static async Task AskAsync(Work work, OpenSheet open, HandNeed need, string why, CancellationToken cancel)
    {
        var approver =
            need.Approver
            ?? throw RefusedException.Clash("nobody_able", "Nobody on the reporting line may decide this.");
        var ask = new AskRow
        {
            SheetId = open.Sheet.Id,
            Subject = open.Subject,
            HandId = need.Hand.Person?.Value,
            HandName = need.Hand.Name,
            AskedById = work.Actor.PersonId!.Value,
            AskedByName = work.Actor.Name,
            OwnerId = open.Owner.Id.Value,
            ApproverId = approver.Id.Value,
            Outcome = AskOutcome.Waiting,
            Why = why[..Math.Min(why.Length, SheetDoor.MostLetters)],
            Shown = JsonSerializer.Serialize(need.Shown),
            Fired = JsonSerializer.Serialize(need.Fired),
            AskedAt = work.Now,
        };
        work.Db.Asks.Add(ask);
        await work.Db.SaveChangesAsync(cancel);
        open.Asks.Add(ask);
        work.Leave(
            new AskMade(ask.Id, need.Hand.Name, approver.Name, [.. need.Fired.Select(f => f.Words)]),
            open.Subject,
            open.Dossier.Id,
            ask.Why
        );
    }
}
