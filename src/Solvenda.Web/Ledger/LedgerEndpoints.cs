using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Papers;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Security;

namespace Solvenda.Web.Ledger;

public sealed record CloseBooksBody(DateOnly Until);

/// <summary>An account with what was booked on it.</summary>
/// <param name="Before">What stood there before; debit is more than nothing, as in <paramref name="Balance"/>.</param>
/// <param name="Debit">Within the time.</param>
/// <param name="Balance">At its end.</param>
public sealed record AccountBalance(
    string Code,
    string Words,
    AccountUse Use,
    decimal Before,
    decimal Debit,
    decimal Credit,
    decimal Balance
);

/// <summary>All accounts; debit and credit are the same in all.</summary>
/// <param name="Owed">What buyers owe now by their documents, in home currency; the receivable of today is the
/// same.</param>
/// <param name="ClosedUntil">The last day that nothing is booked on any more; null: none yet.</param>
public sealed record BalanceView(
    DateOnly From,
    DateOnly To,
    string Currency,
    IReadOnlyList<AccountBalance> Accounts,
    decimal Debit,
    decimal Credit,
    decimal Owed,
    decimal Receivable,
    DateOnly? ClosedUntil,
    bool MayClose
);

/// <summary>The ledger as a whole: what stands on its accounts, its journal, and closing it.</summary>
public static class LedgerEndpoints
{
    private const int MostPrinted = 20_000;

    public static void MapLedger(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var ledger = app.MapGroup("/api/ledger").WithTags("Ledger");
        ledger.MapGet("/balance", Balance).Needs(Rights.SeeLedger);
        ledger.MapGet("/journal", Journal).Needs(Rights.SeeLedger).Produces(200, contentType: "application/pdf");
        ledger.MapPost("/close", Close).Needs<CloseBooks>();
        ledger.MapUnionSales();
    }

    /// <param name="from">Its first day; that of this year without it.</param>
    /// <param name="to">Its last; today without it.</param>
    private static async Task<BalanceView> Balance(
        DateOnly? from,
        DateOnly? to,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (first, last) = Within(from, to, clock.Today);
        var sums = await db
            .Entries.Where(e => e.Day <= last)
            .GroupBy(e => e.Account)
            .Select(g => new
            {
                g.Key,
                Before = g.Where(e => e.Day < first).Sum(e => e.DebitMinor - e.CreditMinor),
                Debit = g.Where(e => e.Day >= first).Sum(e => e.DebitMinor),
                Credit = g.Where(e => e.Day >= first).Sum(e => e.CreditMinor),
            })
            .ToDictionaryAsync(g => g.Key, cancel);
        var accounts = await db.Accounts.AsNoTracking().OrderBy(a => a.Code).ToListAsync(cancel);
        decimal Of(long minor) => Amount.FromMinor(minor, seller.Home).Value;
        var rows = accounts
            .Select(a => (Account: a, Sum: sums.GetValueOrDefault(a.Code)))
            .Where(r => r.Account.Active || r.Sum is not null)
            .Select(r => new AccountBalance(
                r.Account.Code,
                r.Account.Words,
                r.Account.Use,
                Of(r.Sum?.Before ?? 0),
                Of(r.Sum?.Debit ?? 0),
                Of(r.Sum?.Credit ?? 0),
                Of(r.Sum is { } s ? s.Before + s.Debit - s.Credit : 0)
            ))
            .ToList();
        var receivable = await db
            .Entries.Where(e => db.Accounts.Any(a => a.Code == e.Account && a.Use == AccountUse.Receivable))
            .SumAsync(e => e.DebitMinor - e.CreditMinor, cancel);
        return new BalanceView(
            first,
            last,
            seller.Home.Code,
            rows,
            rows.Sum(r => r.Debit),
            rows.Sum(r => r.Credit),
            Of(await db.OpenItems.SumAsync(o => o.HomeMinor ?? 0, cancel)),
            Of(receivable),
            await db.House.Select(h => h.ClosedUntil).SingleOrDefaultAsync(cancel),
            Rights.CloseBooks.Allows(user.ActorOf())
        );
    }

    internal static (DateOnly First, DateOnly Last) Within(DateOnly? from, DateOnly? to, DateOnly today)
    {
        var last = to ?? today;
        var first = from ?? new DateOnly(last.Year, 1, 1);
        return first <= last ? (first, last) : throw RefusedException.Bad("date", "It begins before it ends.", "from");
    }

    /// <summary>The journal of a time, as it is printed and filed.</summary>
    private static async Task<IResult> Journal(
        DateOnly? from,
        DateOnly? to,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (first, last) = Within(from, to, clock.Today);
        var of = db.Entries.AsNoTracking().Where(e => e.Day >= first && e.Day <= last);
        if (await of.CountAsync(cancel) is var count && count > MostPrinted)
            throw RefusedException.Clash(
                "too_much",
                FormattableString.Invariant(
                    $"{count:#,0} entries are more than a journal on paper takes; print a shorter time, or take them as a file."
                )
            );
        var entries = await of.OrderBy(e => e.Day).ThenBy(e => e.Id).ToListAsync(cancel);
        var names = await db.Accounts.ToDictionaryAsync(a => a.Code, a => a.Words, cancel);
        string Money(long minor) =>
            minor == 0 ? "" : Amount.FromMinor(minor, seller.Home).Value.ToString("N2", CultureInfo.InvariantCulture);
        static string Said(DateOnly day) => day.ToString("d MMM yyyy", CultureInfo.InvariantCulture);
        var lines = entries.Select(e => new PrintedLine(
            false,
            "",
            $"{e.Document} {Said(e.Day)}",
            $"{e.Account} {names.GetValueOrDefault(e.Account, "")}",
            e.Words,
            "",
            "",
            Money(e.DebitMinor),
            Money(e.CreditMinor),
            false,
            ""
        ));
        var print = new PrintedDocument(
            seller.Name,
            seller.Address,
            "Journal",
            $"{Said(first)} to {Said(last)}",
            [],
            [],
            "",
            $"credit {seller.Home.Code}",
            [.. lines],
            [
                ("debit", Money(entries.Sum(e => e.DebitMinor)), false),
                ("credit", Money(entries.Sum(e => e.CreditMinor)), false),
            ],
            [],
            [],
            seller.Name,
            new PrintedLabels("account", "", "", "debit", "", "", "page {0}"),
            null
        );
        return Results.File(PdfWriter.Write(print.On(seller)), "application/pdf");
    }

    private static async Task<CloseBooksBody> Close(
        CloseBooksBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), new CloseBooks(body.Until), cancel));
}
