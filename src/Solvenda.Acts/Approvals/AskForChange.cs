using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Acts.Records;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Asks for something to be kept on file that one may not keep alone: a credit limit, an agreement under the floor. It
/// is kept as it was asked once everybody who is asked says yes.
/// </summary>
/// <param name="Id">Null for a record that is to be made.</param>
public sealed record AskForChange(
    string Kind,
    long? Id,
    IReadOnlyDictionary<string, string> Values,
    string Why,
    bool Urgent = false
) : IAct<long>;

[Leaves(typeof(AskMade))]
public sealed class AskForChangeAct(PriceBooks books, AskClock clock, Telling telling) : Act<AskForChange, long>
{
    private const int MostFields = 40;

    public override Right Needs => Rights.Records;

    /// <returns>Key of the ask.</returns>
    public override async Task<long> RunAsync(Work work, AskForChange input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var why = input.Why.Trim();
        if (why.Length is 0 or > SheetDoor.MostLetters)
            throw RefusedException.Bad("reason_missing", "Say why; whoever decides reads it first.", "why");
        if (
            input.Values.Count is 0 or > MostFields
            || input.Values.Values.Any(v => v is null || v.Length > SheetDoor.MostLetters)
        )
            throw RefusedException.Bad("record_field", "Say what is to be kept; nothing was asked.", "values");
        var kind = RecordKinds.Seen(input.Kind, work.Actor.Roles);
        if (input.Id is null || !input.Values.Keys.All(kind.Askable.Contains))
            kind = RecordKinds.Changeable(input.Kind, work.Actor);
        kind = (RecordKind)await kind.WithOwnAsync(work.Db, cancel);
        var keeping = await Keeping.ForAsync(work.Db, books, work.Actor.Hand.Person, work.Today, cancel);
        var proposed = await kind.Writer.ProposeAsync(work, input.Id, input.Values, keeping, cancel);
        if (proposed.Changes.IsEmpty)
            throw RefusedException.Clash("ask_not_needed", "That is what stands there already.");
        if (proposed.Needs.IsEmpty)
            throw RefusedException.Clash("ask_not_needed", "No policy asks anybody about it; whoever may, keeps it.");
        if (proposed.Needs.Any(n => n.Route[^1] == RouteStep.Nobody))
            throw RefusedException.Clash("nobody_able", "Nobody on the way that the policy names may decide this.");
        // One ask has one way: its last has to cover all that fired.
        var fired = FiredOf(proposed);
        var need =
            proposed.Needs.FirstOrDefault(n => n.Route[^1].AnyOf.Any(d => Route.Covers(d.Authority, fired)))
            ?? throw RefusedException.Clash(
                "nobody_able",
                "That is for different people to decide; ask for one thing at a time."
            );
        return await MakeAsync(work, input with { Why = why }, kind, proposed, need, cancel);
    }

    private async Task<long> MakeAsync(
        Work work,
        AskForChange input,
        RecordKind kind,
        Proposed proposed,
        KeptNeed need,
        CancellationToken cancel
    )
    {
        var holders = need.Route[0].AnyOf.Select(d => d.Id).ToList();
        var ask = Row(work, input, kind, proposed, need);
        ask.DueAt = await clock.DueAsync(work.Db, work.Now, ask.PatienceHours, holders, cancel);
        work.Db.Asks.Add(ask);
        await work.Db.SaveChangesAsync(cancel);
        AskFacts.HandTo(ask, holders);
        work.Leave(
            new AskMade(ask.Id, work.Actor.Name, need.Route[0].Names!, [.. proposed.Needs.Select(n => n.Words)]),
            ask.Subject,
            null,
            ask.Why
        );
        await telling.TellAsync(
            work,
            holders,
            $"ask-{ask.Id}",
            $"{(input.Urgent ? "Today, please: " : "")}{work.Actor.Name} asks about {ask.About}: {need.Words}",
            $"/asks/{ask.Id}",
            cancel
        );
        return ask.Id;
    }

    private static ImmutableArray<Fired> FiredOf(Proposed proposed) =>
        [.. proposed.Needs.Select(n => new Fired(n.Policy.Figure, n.Value, n.Words) { Policy = n.Policy.Code })];

    private static AskRow Row(Work work, AskForChange input, RecordKind kind, Proposed proposed, KeptNeed need)
    {
        var me = work.Actor.PersonId!.Value;
        var change = new AskedChange(
            kind.Name,
            input.Id,
            proposed.Calls,
            input.Values.ToImmutableSortedDictionary(StringComparer.Ordinal),
            proposed.Changes
        );
        var fired = FiredOf(proposed);
        var figures = fired
            .GroupBy(f => f.Figure)
            .ToImmutableSortedDictionary(f => f.Key, f => f.Max(x => x.Value), StringComparer.Ordinal);
        return new AskRow
        {
            Subject = input.Id is { } id ? Work.SubjectOf(kind.Name, id) : $"{kind.Name}:new",
            Change = JsonSerializer.Serialize(change),
            About = About(kind, proposed),
            HandId = me,
            HandName = work.Actor.Name,
            AskedById = me,
            AskedByName = work.Actor.Name,
            OwnerId = me,
            Steps = AskFacts.StepsText(need.Route.Select(s => s.AnyOf.Select(d => d.Id))),
            Outcome = AskOutcome.Waiting,
            Why = input.Why,
            Urgent = input.Urgent,
            Shown = JsonSerializer.Serialize(new Shown(figures, [], 0m)),
            Fired = JsonSerializer.Serialize(fired),
            AskedAt = work.Now,
            // The most impatient of the policies counts.
            PatienceHours = proposed
                .Needs.Select(n => n.Policy.PatienceHours)
                .Where(h => h > 0)
                .DefaultIfEmpty(0)
                .Min(),
        };
    }

    // "the credit limit of Tressel & Vane", "a new agreement A-17".
    private static string About(RecordKind kind, Proposed proposed)
    {
        var what = string.Join(" and ", proposed.Changes.Take(2).Select(c => $"the {c.Label}"));
        return proposed.Changes.All(c => string.IsNullOrEmpty(c.Before) && c.Field == "code") || kind.Money
            ? $"the {kind.One} {proposed.Calls}"
            : $"{what} of {proposed.Calls}";
    }
}
