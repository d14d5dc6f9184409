using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Bank;

namespace Solvenda.Acts.Receiving;

/// <summary>What was taken of an invoice.</summary>
/// <param name="Entry">The bank's reference.</param>
public sealed record AppliedPart(string Entry, string Invoice, decimal Amount);

/// <summary>Money that somebody has to look at, or what of it is left.</summary>
public sealed record OpenPart(string Entry, decimal Amount, string Why);

/// <summary>What came of a statement.</summary>
/// <param name="Known">How many of its movements were there already.</param>
/// <param name="Out">How many of them are money that we paid.</param>
public sealed record BankAnswer(ImmutableArray<AppliedPart> Applied, ImmutableArray<OpenPart> Open, int Known, int Out);

/// <summary>Takes a bank's statement in: finds what money that came is for, and books it.</summary>
public sealed record TakeBankFile(string Filename, byte[] Bytes) : IAct<BankAnswer>;

[Leaves(typeof(BankTaken), typeof(MoneyReturned))]
public sealed class TakeBankFileAct(Seller seller) : Act<TakeBankFile, BankAnswer>
{
    private const int AtOnce = 2_000;

    public override Right Needs => Rights.Money;

    public override async Task<BankAnswer> RunAsync(Work work, TakeBankFile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var movements = Read(input);
        var known = await KnownAsync(work.Db, movements, cancel);
        var fresh = movements
            .DistinctBy(m => (m.Account, m.Reference))
            .Where(m => !known.Contains((m.Account, m.Reference)))
            .ToList();
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var matching = await MatchingBook.LoadAsync(work.Db, cancel);
        var done = new Done { LastKey = await work.Db.Receipts.MaxAsync(r => (long?)r.Id, cancel) ?? 0 };
        foreach (var some in fresh.Where(m => m is { Amount: > 0m, IsReversal: false }).Chunk(AtOnce))
            await TakeAsync(work, books, matching, some, done, cancel);
        foreach (var back in fresh.Where(m => m is { Amount: < 0m, IsReversal: true }))
            await Returning.TakeBackAsync(work, books, seller, back, done.Open, cancel);
        var came = fresh.Count(m => m is { Amount: > 0m, IsReversal: false });
        work.Leave(new BankTaken(input.Filename, came, done.Whole, movements.Length - fresh.Count), "bank");
        return new BankAnswer(
            [.. done.Applied],
            [.. done.Open],
            movements.Length - fresh.Count,
            fresh.Count(m => m is { Amount: < 0m, IsReversal: false })
        );
    }

    private static ImmutableArray<BankMovement> Read(TakeBankFile input)
    {
        try
        {
            return Camt053.Read(input.Bytes);
        }
        catch (FormatException wrong)
        {
            throw RefusedException.Bad(
                "not_read",
                $"{input.Filename} is not read: {wrong.Message} Nothing was booked."
            );
        }
    }

    private static async Task<HashSet<(string, string)>> KnownAsync(
        SolvendaDb db,
        ImmutableArray<BankMovement> movements,
        CancellationToken cancel
    )
    {
        var accounts = movements.Select(m => m.Account).Distinct().ToList();
        var there = await db
            .Receipts.Where(r => EF.Parameter(accounts).Contains(r.Account))
            .Select(r => new { r.Account, r.Reference })
            .ToListAsync(cancel);
        return [.. there.Select(r => (r.Account, r.Reference))];
    }

    private sealed class Done
    {
        public List<AppliedPart> Applied { get; } = [];
        public List<OpenPart> Open { get; } = [];
        public int Whole { get; set; }

        /// <summary>Of what came so far; nobody else writes meanwhile.</summary>
        public long LastKey { get; set; }
    }

    // So many at once: the rows of all of them would not be held.
    private async Task TakeAsync(
        Work work,
        Books books,
        Matching matching,
        BankMovement[] some,
        Done done,
        CancellationToken cancel
    )
    {
        var rows = some.Select(m => Matched(work, matching, m, done)).ToList();
        var ids = rows.SelectMany(r => r.Match.Takes).Select(t => t.Owed.Id).ToList();
        var items = await work
            .Db.OpenItems.Where(o => EF.Parameter(ids).Contains(o.Id))
            .ToDictionaryAsync(o => o.Id, cancel);
        foreach (var (row, match) in rows)
        {
            await Applying.ApplyAsync(
                work,
                books,
                seller,
                row,
                [.. match.Takes.Select(t => (items[t.Owed.Id], t.Minor))],
                cancel
            );
            var currency = Currency.Of(row.Currency);
            done.Applied.AddRange(
                match.Takes.Select(t => new AppliedPart(
                    row.Reference,
                    t.Owed.Number,
                    Amount.FromMinor(t.Minor, currency).Value
                ))
            );
            if (row.LeftMinor > 0)
                done.Open.Add(new OpenPart(row.Reference, Amount.FromMinor(row.LeftMinor, currency).Value, match.Why));
            else
                done.Whole++;
        }
        await BulkWriter.WriteAddedAsync<ReceiptRow>(work.Db, withKeys: true, cancel);
        await BulkWriter.WriteAddedAsync<EntryRow>(work.Db, withKeys: false, cancel);
        await BulkWriter.WriteAddedAsync<PaidRow>(work.Db, withKeys: false, cancel);
        await work.Db.SaveChangesAsync(cancel);
        await Applying.FollowAsync(work, [.. items.Values.Select(i => i.InvoiceId).OfType<long>()], cancel);
        work.Db.ChangeTracker.Clear();
    }

    // What a movement is for, and its row, which waits to be added.
    private static (ReceiptRow Row, Match Match) Matched(Work work, Matching matching, BankMovement movement, Done done)
    {
        var amount = Amount.Round(movement.Amount, CurrencyOf(movement));
        var match = matching.Of(
            new Core.Receiving.Money(
                amount.Minor,
                movement.Currency,
                movement.Payer,
                movement.PayerAccount,
                movement.Words,
                movement.Day
            )
        );
        var row = Row(work, movement, amount, match);
        row.Id = ++done.LastKey;
        work.Db.Receipts.Add(row);
        return (row, match);
    }

    private static Currency CurrencyOf(BankMovement movement)
    {
        try
        {
            return Currency.Of(movement.Currency);
        }
        catch (ArgumentException)
        {
            throw RefusedException.Bad(
                "not_read",
                $"{movement.Reference} is in “{movement.Currency}”, which is no currency that is known. Nothing was booked."
            );
        }
    }

    private static ReceiptRow Row(Work work, BankMovement movement, Amount amount, Match match) =>
        new()
        {
            Account = movement.Account,
            Reference = movement.Reference,
            Statement = movement.Statement,
            Day = movement.Day,
            Minor = amount.Minor,
            Currency = movement.Currency,
            Payer = movement.Payer,
            PayerAccount = movement.PayerAccount,
            Words = movement.Words,
            BuyerId = match.Buyer,
            Why = match.Why,
            State = match.Taken == amount.Minor ? ReceiptState.Done : ReceiptState.Open,
            LeftMinor = amount.Minor,
            At = work.Now,
            ByName = work.Actor.Name,
        };
}
