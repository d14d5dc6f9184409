using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Policies;

/// <summary>A quote or order of the past that a policy would have asked about.</summary>
/// <param name="GivenAway">Home currency.</param>
public sealed record TriedDocument(
    string Kind,
    string Number,
    string Buyer,
    DateOnly Day,
    string Figure,
    decimal Value,
    string Currency,
    decimal GivenAway
);

/// <summary>What would have been asked, of whom, and how much money it was about.</summary>
/// <param name="Looked">How many documents were looked at, by week, the oldest first.</param>
/// <param name="Asked">How many of each week would have been asked about.</param>
/// <param name="By">Who would have been asked, and how often; "nobody" where nobody may.</param>
public sealed record PolicyTrial(
    DateOnly From,
    DateOnly To,
    ImmutableArray<int> Looked,
    ImmutableArray<int> Asked,
    decimal GivenAway,
    ImmutableArray<(string Name, int Times)> By,
    ImmutableArray<TriedDocument> Documents
);

/// <summary>Tries a policy on what the house sold in the last ninety days; changes nothing.</summary>
public sealed class PastSheets(PriceBooks books)
{
    private const int Days = 90;
    private const int Week = 7;
    private const int MostDocuments = 2_000;

    public async Task<PolicyTrial> TryAsync(SolvendaDb db, Policy policy, DateOnly today, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(policy);
        var from = today.AddDays(-Days);
        var book = await books.BookAsync(db, cancel);
        var people = (await Deciders.OnAsync(db, today, cancel)).People;
        var (looked, asked) = (new int[(Days / Week) + 1], new int[(Days / Week) + 1]);
        var names = new Dictionary<string, int>();
        var found = ImmutableArray.CreateBuilder<TriedDocument>();
        foreach (var past in await PastAsync(db, from, cancel))
        {
            var week = Math.Clamp((DateOnly.FromDateTime(past.At).DayNumber - from.DayNumber) / Week, 0, Days / Week);
            looked[week]++;
            if (!people.TryGetValue(new PersonId(past.SellerId), out var seller))
                continue;
            var priced = past.Sheet.Priced(past.Buyer, book);
            if (!policy.Asks)
            {
                var broken = Rule(policy, past, priced);
                asked[week] += broken.Length;
                found.AddRange(broken);
                continue;
            }
            var by = new JudgedBy(past.Sheet.Head, seller.Hand, seller, people, [])
            {
                Day = today,
                Policies = [policy with { From = DateOnly.MinValue, To = null }],
            };
            if (Judgement.Of(priced, by).Needs is not [{ Policies: [var first, ..] } need, ..])
                continue;
            asked[week]++;
            foreach (var name in first.Route.Select(s => s.Names ?? "nobody"))
                names[name] = names.GetValueOrDefault(name) + 1;
            found.Add(
                new TriedDocument(
                    past.Kind,
                    past.Number,
                    past.Buyer.Name,
                    DateOnly.FromDateTime(past.At),
                    FigureList.Of(policy.Figure).Show(first.Value),
                    priced.Tally.TotalWithoutTax.Value,
                    past.Sheet.Currency,
                    need.Shown.GivenAway
                )
            );
        }
        return new PolicyTrial(
            from,
            today,
            [.. looked],
            [.. asked],
            found.Sum(f => f.GivenAway),
            [.. names.OrderByDescending(n => n.Value).Select(n => (n.Key, n.Value))],
            [.. found.OrderByDescending(f => f.GivenAway)]
        );
    }

    // What a rule that asks nobody would have said something to; what buyers owed then is not kept.
    private static TriedDocument[] Rule(Policy policy, Past past, PricedSheet priced)
    {
        var seller = new PersonId(past.SellerId);
        if (OwnRules.Broken(policy, priced, past.Sheet.Head, null, seller) is not { } figures)
            return [];
        var first = policy.When[0].Figure;
        return
        [
            new TriedDocument(
                past.Kind,
                past.Number,
                past.Buyer.Name,
                DateOnly.FromDateTime(past.At),
                FigureList.Of(first).Show(figures[first]),
                priced.Tally.TotalWithoutTax.Value,
                past.Sheet.Currency,
                0m
            ),
        ];
    }

    private sealed record Past(string Kind, string Number, DateTime At, long SellerId, BuyerRow Buyer, SheetRow Sheet);

    // The newest revision of each quote that was asked about or left the house, and orders that came without one.
    private static async Task<List<Past>> PastAsync(SolvendaDb db, DateOnly from, CancellationToken cancel)
    {
        var since = from.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var quotes = await db
            .Quotes.AsNoTracking()
            .Include(q => q.Sheet.StoredLines)
            .Include(q => q.Dossier.Buyer)
            .Where(q => q.CreatedAt >= since && q.State != QuoteState.Replaced)
            .OrderByDescending(q => q.CreatedAt)
            .Take(MostDocuments)
            .ToListAsync(cancel);
        var orders = await db
            .Orders.AsNoTracking()
            .Include(o => o.Sheet.StoredLines)
            .Include(o => o.Dossier.Buyer)
            .Where(o => o.CreatedAt >= since && !db.Quotes.Any(q => q.OrderId == o.Id))
            .OrderByDescending(o => o.CreatedAt)
            .Take(MostDocuments)
            .ToListAsync(cancel);
        return
        [
            .. quotes.Select(q => new Past("quote", q.Number, q.CreatedAt, q.SellerId, q.Dossier.Buyer, q.Sheet)),
            .. orders.Select(o => new Past("order", o.Number, o.CreatedAt, o.SellerId, o.Dossier.Buyer, o.Sheet)),
        ];
    }
}
