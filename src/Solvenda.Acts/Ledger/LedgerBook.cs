using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ledger;

/// <summary>The ledger as it stands open: its accounts, and the last day that is closed.</summary>
/// <param name="Rates">Those of today.</param>
public sealed record Books(Chart Chart, DateOnly? ClosedUntil, Rates Rates)
{
    /// <summary>Home currency for one unit, today.</summary>
    public decimal RateOf(Currency currency) =>
        Rates.Of(currency)
        ?? throw RefusedException.Clash(
            "no_rate",
            $"There is no rate of exchange for {currency.Code}; nothing was booked."
        );

    /// <summary>The day on which something is booked: the first open one, where its own is closed.</summary>
    public DateOnly DayOf(DateOnly day) => ClosedUntil is { } closed && day <= closed ? closed.AddDays(1) : day;
}

/// <summary>Writes what documents yield into the ledger; Core says what that is.</summary>
public static class LedgerBook
{
    public static async Task<Books> OpenAsync(Work work, Seller seller, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(seller);
        var db = work.Db;
        var rates = await db.ExchangeRates.AsNoTracking().Where(r => r.Day <= work.Today).ToListAsync(cancel);
        var rows = await db.Accounts.AsNoTracking().Where(a => a.Active).OrderBy(a => a.Code).ToListAsync(cancel);
        return new Books(
            new Chart(rows.Select(a => new Account(a.Code, a.Words, a.Use, a.TaxCategory))),
            await db.House.Select(h => h.ClosedUntil).SingleOrDefaultAsync(cancel),
            Rates.On(work.Today, seller.Home, rates.Select(r => new DatedRate(Currency.Of(r.Currency), r.Day, r.Rate)))
        );
    }

    /// <summary>Works postings out, or says in words which account is missing.</summary>
    public static ImmutableArray<Posting> Of(Func<ImmutableArray<Posting>> rule)
    {
        ArgumentNullException.ThrowIfNull(rule);
        try
        {
            return rule();
        }
        catch (NoAccountException missing)
        {
            throw RefusedException.Clash(
                "no_account",
                $"{missing.Message} Nothing was booked: an administrator says which account it is."
            );
        }
    }

    /// <summary>Writes them, of a document on its day.</summary>
    /// <param name="moves">What goes to another account than the rules say.</param>
    public static void Post(
        Work work,
        Books books,
        string document,
        DateOnly day,
        string words,
        ImmutableArray<Posting> postings,
        IReadOnlyList<MovedEntry>? moves = null
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(books);
        foreach (var posting in postings)
        {
            var move = moves?.FirstOrDefault(m => m.From == posting.Account);
            work.Db.Entries.Add(
                new EntryRow
                {
                    Day = books.DayOf(day),
                    Document = document,
                    Account = move?.To ?? posting.Account,
                    MovedFrom = move?.From ?? "",
                    Currency = posting.Debit.Currency.Code,
                    DebitMinor = posting.Debit.Minor,
                    CreditMinor = posting.Credit.Minor,
                    Words = move is null ? words : $"{words}; {move.Reason.Trim()}",
                    At = work.Now,
                    ByName = work.Actor.Name,
                }
            );
        }
    }
}
