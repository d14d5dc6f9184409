using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>
/// What was asked for in two years, and what was answered; a rule that is tried on the past finds it.
/// </summary>
internal sealed class DemoAsks(
    SolvendaDb db,
    DemoPapers papers,
    DemoOrders orders,
    IReadOnlyList<BuyerRow> buyers,
    IReadOnlyList<DemoCatalogue.Entry> catalogue
)
{
    private const int Asks = 54;
    private const int Lately = 26;

    /// <summary>Keys from here on: the first is the one that waits.</summary>
    private const long FirstKey = 2;

    private static readonly string[] Codes =
    [
        "BB2-10-NV",
        "PS3-12-WH",
        "HM12-08-GY",
        "SHK-BOW-10",
        "CHN-SL-10",
        "SHK-DEE-12",
        "BB2-10-BK",
    ];

    private static readonly string[] Reasons =
    [
        "They have an offer from elsewhere.",
        "The rest goes at list.",
        "A new boat; more follows in spring.",
        "We lost the last one by two per cent.",
        "They take all of it in one delivery.",
        "Their first order since summer.",
    ];

    // What the story leans on is written elsewhere.
    private static readonly string[] Storied = ["Tressel & Vane Rigging", "Nordvass Båtvarv"];

    private readonly Random _random = new(20_260_312);

    /// <summary>Adds the quotes with their asks, the oldest first.</summary>
    /// <param name="quote">Makes a quote of a sheet, and says its key.</param>
    public void Add(Func<BuyerRow, DateOnly, SheetRow, QuoteState, QuoteRow> quote)
    {
        var managed = buyers
            .Where(b => b.AccountManagerId is 4 or 5 && !b.IsProspect && !Storied.Contains(b.Name))
            .ToList();
        for (var i = 0; i < Asks; i++)
        {
            var age = i < Asks - Lately ? 720 - (i * 22) : 88 - ((i - Asks + Lately) * 2);
            var day = papers.Today.AddDays(-Math.Max(15, age));
            while (day.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
                day = day.AddDays(1);
            One(i, day, managed[_random.Next(managed.Count)], quote);
        }
    }

    private void One(
        int i,
        DateOnly day,
        BuyerRow buyer,
        Func<BuyerRow, DateOnly, SheetRow, QuoteState, QuoteRow> quote
    )
    {
        var lines = Lines(i % 11 == 10 ? 17m : 8.5m + (_random.Next(0, 11) / 2m));
        var sheet = papers.Sheet(buyer, day, lines, _random);
        var outcome = i % 7 == 6 ? AskOutcome.SentBack : AskOutcome.Granted;
        var state =
            outcome == AskOutcome.SentBack ? QuoteState.Withdrawn
            : i % 3 == 2 ? QuoteState.Declined
            : QuoteState.Accepted;
        var made = quote(buyer, day, sheet, state);
        Ask(i, made, sheet, buyer, day, outcome);
        if (state == QuoteState.Accepted)
            orders.FromQuote(buyer, day.AddDays(1), papers.Sheet(buyer, day, lines, _random), made);
    }

    private List<(DemoCatalogue.Entry Item, decimal Quantity, string Unit, decimal Discount)> Lines(decimal discount)
    {
        var first = _random.Next(Codes.Length);
        return
        [
            .. Enumerable
                .Range(0, 2 + _random.Next(3))
                .Select(n => catalogue.First(e => e.Row.Code == Codes[(first + n) % Codes.Length]))
                .Select(
                    (item, n) =>
                        (
                            item,
                            item.Row.StockUnit == "MTR" ? 40m + (_random.Next(1, 16) * 10m) : 5m * _random.Next(1, 12),
                            item.Row.StockUnit,
                            n == 0 ? discount : 0m
                        )
                ),
        ];
    }

    private void Ask(int i, QuoteRow quote, SheetRow sheet, BuyerRow buyer, DateOnly day, AskOutcome outcome)
    {
        var seller = papers.People[new PersonId(quote.SellerId)];
        var judged = Judgement.Of(
            papers.Priced(sheet, buyer),
            new JudgedBy(sheet.Head, seller.Hand, seller, papers.People, [])
        );
        foreach (var (need, way) in judged.Needs.SelectMany(n => n.ToAsk.Select(w => (n, w))))
        {
            ImmutableArray<Fired> fired = [.. way.Select(w => w.Fired)];
            var approver = way[0].Route[0].AnyOf[0];
            var asked = DemoPapers.At(day).AddMinutes(20);
            var decided = asked.AddMinutes(25 + _random.Next(0, 600));
            var ask = new AskRow
            {
                Id = FirstKey + _made++,
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
                Outcome = outcome,
                Why = Reasons[i % Reasons.Length],
                Note = outcome == AskOutcome.SentBack ? "not at that price; try the break" : "",
                Shown = JsonSerializer.Serialize(need.Shown),
                Fired = JsonSerializer.Serialize(fired),
                AskedAt = asked,
                DecidedAt = decided,
                DecidedById = approver.Id.Value,
            };
            db.Asks.Add(ask);
            Leave(quote, ask, new AskMade(ask.Id, seller.Name, approver.Name, [.. fired.Select(f => f.Words)]), asked);
            Leave(
                quote,
                ask,
                outcome == AskOutcome.SentBack
                    ? new AskSentBack(ask.Id, approver.Name, QuoteState.InApproval, QuoteState.Drafting, [])
                    : new AskGranted(ask.Id, approver.Name, QuoteState.InApproval, QuoteState.Cleared),
                decided
            );
        }
    }

    private long _made;

    private void Leave(QuoteRow quote, AskRow ask, IEvent facts, DateTime at) =>
        papers.Leave(facts, ask.Subject, quote.DossierId, at);
}
