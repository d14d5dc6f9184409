using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>
/// Switches somebody off, and hands over what they leave behind: buyers, open quotes and orders, follow-ups, who
/// reported to them. Asks that wait for them move on by themselves. Or on again.
/// </summary>
/// <param name="To">Who takes over; null where there is nothing to take.</param>
public sealed record SwitchPerson(long Person, bool On, long? To) : IAct<int>;

[Leaves(typeof(PersonSwitched))]
public sealed class SwitchPersonAct : Act<SwitchPerson, int>
{
    public override Right Needs => Rights.Administer;

    /// <returns>How much was handed over.</returns>
    public override async Task<int> RunAsync(Work work, SwitchPerson input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person =
            await work.Db.People.FirstOrDefaultAsync(p => p.Id == input.Person, cancel)
            ?? throw RefusedException.NotFound("such person");
        if (person.Active == input.On)
            return 0;
        if (person.Id == work.Actor.PersonId)
            throw RefusedException.Clash("own_switch", "Nobody switches themselves off.");
        var handed = 0;
        Person? to = null;
        if (!input.On)
        {
            await PersonFields.MustLeaveAnAdministratorAsync(work.Db, person.Id, cancel);
            to = input.To is { } id
                ? await work.Db.People.FirstOrDefaultAsync(p => p.Id == id && p.Active && p.Id != person.Id, cancel)
                    ?? throw RefusedException.NotFound("such person")
                : null;
            handed = await HandOverAsync(work, person, to, cancel);
            await work.Db.Sessions.Where(s => s.PersonId == person.Id).ExecuteDeleteAsync(cancel);
        }
        person.Active = input.On;
        person.Stamp = Tokens.New();
        work.Leave(new PersonSwitched(person.Name, input.On, to?.Name, handed), Work.SubjectOf("people", person.Id));
        return handed;
    }

    private static async Task<int> HandOverAsync(Work work, Person from, Person? to, CancellationToken cancel)
    {
        var buyers = await work.Db.Buyers.Where(b => b.AccountManagerId == from.Id).ToListAsync(cancel);
        var quotes = await LeftBehind.Quotes(work.Db).Where(q => q.SellerId == from.Id).ToListAsync(cancel);
        var orders = await LeftBehind.Orders(work.Db).Where(o => o.SellerId == from.Id).ToListAsync(cancel);
        var followUps = await LeftBehind.FollowUps(work.Db).Where(f => f.PersonId == from.Id).ToListAsync(cancel);
        var reports = await work.Db.People.Where(p => p.ReportsToId == from.Id && p.Active).ToListAsync(cancel);
        var asked = await work.Db.AskHolders.CountAsync(
            h => h.PersonId == from.Id && work.Db.Asks.Any(a => a.Id == h.AskId && a.Outcome == AskOutcome.Waiting),
            cancel
        );
        var count = buyers.Count + quotes.Count + orders.Count + followUps.Count + reports.Count;
        if (count > 0 && to is null)
            throw RefusedException.Bad(
                "hand_over",
                $"{from.Name} leaves {buyers.Count} buyers, {quotes.Count} quotes, {orders.Count} orders, {followUps.Count} follow-ups and {reports.Count} people behind; say who takes them.",
                "to"
            );
        foreach (var buyer in buyers)
            buyer.AccountManagerId = to!.Id;
        foreach (var quote in quotes)
            quote.SellerId = to!.Id;
        foreach (var order in orders)
            order.SellerId = to!.Id;
        foreach (var followUp in followUps)
            followUp.PersonId = to!.Id;
        // Nobody reports to themselves: whoever takes over goes where the other one stood.
        foreach (var report in reports)
            report.ReportsToId = report.Id == to!.Id ? from.ReportsToId : to.Id;
        return count + asked;
    }
}
