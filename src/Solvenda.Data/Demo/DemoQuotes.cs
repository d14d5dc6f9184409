using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The quotes that are out, and an ask that waits.</summary>
internal sealed class DemoQuotes(
    SolvendaDb db,
    DemoPapers papers,
    DemoOrders orders,
    DemoHabits habits,
    IReadOnlyList<BuyerRow> buyers,
    IReadOnlyList<DemoCatalogue.Entry> catalogue
)
{
    private long _quote;

    public void Add()
    {
        new DemoAsks(db, papers, orders, buyers, catalogue).Add(
            (buyer, day, sheet, state) => Quote(buyer, day, sheet, state, day.AddDays(14), (int)_quote)
        );
        for (var i = 0; i < 26; i++)
        {
            var buyer = i == 3 ? buyers.First(b => b.IsProspect) : habits.Somebody();
            var age = 1 + (i % 13);
            var day = papers.Today.AddDays(-age);
            var state =
                i % 6 == 5 ? QuoteState.Drafting
                : i % 9 == 7 ? QuoteState.Declined
                : QuoteState.WithCustomer;
            var sheet = papers.Sheet(buyer, day, habits.Lines(buyer, 6));
            // One lapses today, some this week, the rest later.
            var until =
                state == QuoteState.WithCustomer
                    ? papers.Today.AddDays(i == 0 ? 0 : 1 + (i * 2 % 27))
                    : papers.Today.AddDays(14);
            Quote(buyer, day, sheet, state, until, i);
        }
        WaitingAsk();
    }

    private QuoteRow Quote(BuyerRow buyer, DateOnly day, SheetRow sheet, QuoteState state, DateOnly until, int i)
    {
        var dossier = papers.Dossier(buyer, day, DemoHabits.Matters[i % DemoHabits.Matters.Length]);
        var quote = new QuoteRow
        {
            Id = ++_quote,
            Number = papers.Number(NumberSeries.Quote, day),
            DossierId = dossier.Id,
            Dossier = dossier,
            SheetId = sheet.Id,
            SellerId = buyer.AccountManagerId ?? 3,
            State = state,
            ValidUntil = until,
            CreatedAt = DemoPapers.At(day),
            SentAt = state is QuoteState.Drafting or QuoteState.InApproval or QuoteState.Withdrawn
                ? null
                : DemoPapers.At(day).AddHours(3),
            SentTo = buyer.ContactMail,
            AnsweredAt = state is QuoteState.Declined or QuoteState.Accepted ? DemoPapers.At(day).AddDays(1) : null,
            DeclineReason = state == QuoteState.Declined ? "bought elsewhere" : null,
        };
        db.Quotes.Add(quote);
        papers.Leave(new QuoteBegun("A", null), quote.Number, dossier.Id, DemoPapers.At(day));
        if (quote.SentAt is { } sent)
        {
            papers.Leave(
                new QuoteSent(
                    "A",
                    DocumentsBy.Mail,
                    buyer.ContactMail ?? buyer.Name,
                    Core.Money.Amount.FromMinor(sheet.TotalWithTaxMinor, Core.Money.Currency.Of(sheet.Currency)).Value,
                    sheet.Currency,
                    QuoteState.Drafting,
                    QuoteState.WithCustomer
                ),
                quote.Number,
                dossier.Id,
                sent
            );
            if (state == QuoteState.WithCustomer)
                db.FollowUps.Add(
                    new FollowUpRow
                    {
                        DossierId = dossier.Id,
                        PersonId = quote.SellerId,
                        Due = papers
                            .Today.AddDays(i % 5)
                            .ToDateTime(new TimeOnly(9 + (i % 7), 15 * (i % 4)), DateTimeKind.Utc),
                        Words = $"call {buyer.ContactName}",
                    }
                );
        }
        return quote;
    }

    // Mohr asked Paz yesterday: there is something on Paz's desk from the start.
    private void WaitingAsk()
    {
        var buyer = buyers.First(b => b.Name == "Aeolis Offshore Service");
        var day = papers.Today.AddDays(-1);
        DemoCatalogue.Entry Item(string code) => catalogue.First(e => e.Row.Code == code);
        var sheet = papers.Sheet(
            buyer,
            day,
            [
                (Item("HM12-08-GY"), 800m, "MTR", 10m),
                (Item("SHK-DEE-12"), 60m, "C62", 0m),
                (Item("SVC-SEW"), 40m, "C62", 0m),
            ]
        );
        var quote = Quote(buyer, day, sheet, QuoteState.InApproval, papers.Today.AddDays(21), 4);
        var seller = papers.People[new PersonId(quote.SellerId)];
        var judged = Judgement.Of(
            papers.Priced(sheet, buyer),
            new JudgedBy(sheet.Head, seller.Hand, seller, papers.People, [])
        );
        if (judged.Needs is not [{ ToAsk: [var way] } need])
            throw new InvalidOperationException("The demo's waiting ask is not one for one: its figures changed.");
        ImmutableArray<Fired> fired = [.. way.Select(w => w.Fired)];
        var approver = way[0].Route[0].AnyOf[0];
        db.Asks.Add(
            new AskRow
            {
                Id = 1,
                SheetId = sheet.Id,
                Subject = quote.Number,
                HandId = seller.Id.Value,
                HandName = seller.Name,
                AskedById = seller.Id.Value,
                AskedByName = seller.Name,
                OwnerId = seller.Id.Value,
                Steps = approver.Id.Value.ToString(CultureInfo.InvariantCulture),
                Holders = [new AskHolderRow { PersonId = approver.Id.Value }],
                PatienceHours = HousePolicies.Patience,
                DueAt = DemoPapers.At(papers.Today).AddDays(1).AddHours(6),
                Outcome = AskOutcome.Waiting,
                Why = "They run three vessels and want one supplier; the next order is in March.",
                Shown = JsonSerializer.Serialize(need.Shown),
                Fired = JsonSerializer.Serialize(fired),
                AskedAt = DemoPapers.At(day).AddHours(6),
            }
        );
        papers.Leave(
            new AskMade(1, seller.Name, approver.Name, [.. fired.Select(f => f.Words)]),
            quote.Number,
            quote.DossierId,
            DemoPapers.At(day).AddHours(6)
        );
    }
}
