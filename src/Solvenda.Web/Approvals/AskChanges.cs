using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Credit;

namespace Solvenda.Web.Approvals;

/// <summary>What somebody decides on that is to be kept on file: a limit, an agreement under the floor.</summary>
internal static class AskChanges
{
    public static async Task<AskView> OfAsync(
        SolvendaDb db,
        OpenAsk ask,
        Actor who,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (row, me, change) = (ask.Row, who.Hand.Person, ask.Change!);
        var mine = row.Outcome == AskOutcome.Waiting && ask.WhyNot(me, Judgement.Nothing) is null;
        var waiting = await AskRounds.WaitingAsync(db, who.PersonId, cancel);
        return new AskView(
            row.Id,
            row.Subject,
            change.Calls,
            ask.Path,
            $"{row.AskedByName} asks about {row.About}: {string.Join(", and ", ask.Fired.Select(f => f.Words))}.",
            mine ? "Yours to decide."
                : row.Outcome == AskOutcome.Waiting ? $"{ask.Holders} has it."
                : $"It was with {ask.Holders}.",
            row.HandName,
            row.HandName.Split(' ')[0],
            row.AskedByName,
            row.AskedByName,
            ask.Holders,
            row.Outcome,
            "",
            row.Why,
            row.Note,
            row.AskedAt,
            row.DueAt,
            row.Urgent,
            row.Question,
            AskViews.May(ask, me, mine),
            "",
            [.. ask.Fired.Select(f => f.Words)],
            [],
            [],
            new AskMore(0, 0m),
            [],
            0m,
            0m,
            0m,
            row.About,
            0,
            await CreditAsync(db, change, books, clock.Today, cancel),
            [.. change.Changes.Select(c => new AskChange(c.Label, c.Before ?? "", c.After ?? "", c.Money))],
            [],
            await AskStandings.OfHandAsync(db, row.HandId, clock.Today, cancel),
            [],
            [],
            AskRounds.Steps(ask),
            await AskRounds.SaidAsync(db, row, cancel),
            [],
            mine ? [.. PassOnAskAct.To(ask, Judgement.Nothing, me, clock.Today).Select(AskViews.ToOf)] : [],
            waiting,
            AskViews.PlaceOf(waiting, row.Id)
        );
    }

    // Where it is about a buyer, what they owe is what decides.
    private static async Task<CreditView?> CreditAsync(
        SolvendaDb db,
        AskedChange change,
        PriceBooks books,
        DateOnly today,
        CancellationToken cancel
    )
    {
        if (
            change is not { Kind: "buyers", Id: { } id }
            || await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel) is not { } buyer
        )
            return null;
        var book = await books.BookAsync(db, cancel);
        var rates = Rates.On(today, book.Home, book.DatedRates);
        return await CreditViews.OfAsync(
            db,
            buyer,
            await CreditFacts.StandingAsync(db, buyer, rates, today, cancel),
            today,
            cancel
        );
    }
}
