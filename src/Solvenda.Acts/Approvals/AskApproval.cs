using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Asks for approval of a quote or an order: of each hand whose figures need it, once for each way that its policies
/// lead.
/// </summary>
/// <param name="Seen">Version of the sheet.</param>
/// <param name="Urgent">Whether the answer is wanted today.</param>
public sealed record AskApproval(DocumentRef Document, string Why, long? Seen, bool Urgent = false) : IAct<DocumentRef>;

[Leaves(typeof(AskMade))]
public sealed class AskApprovalAct(SheetLoader loader, Judge judge, AskClock clock, Telling telling)
    : Act<AskApproval, DocumentRef>
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
        foreach (var (need, way) in judged.Approval.Needs.SelectMany(n => n.ToAsk.Select(w => (n, w))))
            await AskAsync(work, open, need, way, input with { Why = why }, cancel);
        if (open.Quote is { State: not QuoteState.InApproval } quote)
            quote.State = QuoteMoves.Table.After(quote.State, QuoteDoing.Ask)!.Value;
        Settling.KeepStops(await judge.JudgeAsync(work.Db, open, judged.Priced, work.Actor.Hand, cancel));
        return open.Ref;
    }

    private async Task AskAsync(
        Work work,
        OpenSheet open,
        HandNeed need,
        ImmutableArray<PolicyNeed> way,
        AskApproval input,
        CancellationToken cancel
    )
    {
        var route = way[0].Route;
        if (route[^1] == RouteStep.Nobody)
            throw RefusedException.Clash("nobody_able", "Nobody on the way that the policy names may decide this.");
        ImmutableArray<Fired> fired = [.. way.Select(w => w.Fired)];
        // The most impatient of the policies counts.
        var patience = way.Select(w => w.Policy.PatienceHours).Where(h => h > 0).DefaultIfEmpty(0).Min();
        var ask = new AskRow
        {
            SheetId = open.Sheet.Id,
            Subject = open.Subject,
            HandId = need.Hand.Person?.Value,
            HandName = need.Hand.Name,
            AskedById = work.Actor.PersonId!.Value,
            AskedByName = work.Actor.Name,
            OwnerId = open.Owner.Id.Value,
            Steps = AskFacts.StepsText(route.Select(s => s.AnyOf.Select(d => d.Id))),
            Outcome = AskOutcome.Waiting,
            Why = input.Why[..Math.Min(input.Why.Length, SheetDoor.MostLetters)],
            Urgent = input.Urgent,
            Shown = JsonSerializer.Serialize(need.Shown),
            Fired = JsonSerializer.Serialize(fired),
            AskedAt = work.Now,
            PatienceHours = patience,
            DueAt = await clock.DueAsync(work.Db, work.Now, patience, route[0].AnyOf.Select(d => d.Id), cancel),
        };
        work.Db.Asks.Add(ask);
        await work.Db.SaveChangesAsync(cancel);
        AskFacts.HandTo(ask, route[0].AnyOf.Select(d => d.Id));
        open.Asks.Add(ask);
        work.Leave(
            new AskMade(ask.Id, need.Hand.Name, route[0].Names!, [.. fired.Select(f => f.Words)]),
            open.Subject,
            open.Dossier.Id,
            ask.Why
        );
        await telling.TellAsync(
            work,
            route[0].AnyOf.Select(d => d.Id),
            $"ask-{ask.Id}",
            $"{(input.Urgent ? "Today, please: " : "")}{work.Actor.Name} asks about {open.Number} for {open.Buyer.Name}: {fired[0].Words}",
            $"/asks/{ask.Id}",
            cancel
        );
    }
}
