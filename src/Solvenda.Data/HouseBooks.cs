using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Billing;
using Solvenda.Core.Buyers;
using Solvenda.Core.Calendars;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>What the house set, as it is on a day: what every sheet is judged against.</summary>
public sealed record HouseBook(
    Deciders Deciders,
    ImmutableArray<Policy> Policies,
    ImmutableArray<CheckSetting> Checks,
    ImmutableArray<Restriction> Restrictions,
    ImmutableArray<string> Warehouses,
    IReadOnlyDictionary<string, WarehouseDays> Days,
    WorkCalendar Calendar,
    ILookup<OwnOn, OwnField> Own,
    ImmutableArray<PaperText> Texts,
    ImmutableArray<CommissionPlan> Plans
)
{
    internal static async Task<HouseBook> ReadAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        var own = await db.OwnFields.AsNoTracking().Where(f => f.Active).OrderBy(f => f.Id).ToListAsync(cancel);
        return new HouseBook(
            await Deciders.OnAsync(db, day, cancel),
            await PolicyBook.HoldingAsync(db, cancel),
            await CheckBook.HoldingAsync(db, cancel),
            await RestrictedAsync(db, cancel),
            [.. await HouseDays.WarehouseNamesAsync(db, cancel)],
            await HouseDays.WarehousesAsync(db, day, cancel),
            await HouseDays.CalendarAsync(db, day, cancel),
            own.ToLookup(f => f.On, OwnValues.Of),
            await TextsAsync(db, cancel),
            await PlansAsync(db, cancel)
        );
    }

    /// <summary>What it says on papers.</summary>
    public static async Task<ImmutableArray<PaperText>> TextsAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db.PaperTexts.AsNoTracking().Where(t => t.Active).ToListAsync(cancel);
        return [.. rows.Select(t => new PaperText(t.Code, t.Paper, t.Language, t.BuyerId, t.Group, t.Above, t.Below))];
    }

    private static async Task<ImmutableArray<CommissionPlan>> PlansAsync(SolvendaDb db, CancellationToken cancel)
    {
        var rows = await db.CommissionPlans.AsNoTracking().Where(p => p.Active).ToListAsync(cancel);
        return
        [
            .. rows.Select(p => new CommissionPlan(
                p.Code,
                p.SellerId is { } seller ? new PersonId(seller) : null,
                p.LeadId is { } lead ? new PersonId(lead) : null,
                p.On,
                p.Percent,
                CommissionShares.Read(p.Shares),
                p.From,
                p.Until
            )),
        ];
    }

    /// <summary>What the house may not deliver to.</summary>
    public static async Task<ImmutableArray<Restriction>> RestrictedAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return
        [
            .. await db
                .Restrictions.AsNoTracking()
                .Where(r => r.Active)
                .Select(r => new Restriction(r.Name, r.Country, r.Why))
                .ToListAsync(cancel),
        ];
    }
}

/// <summary>What the house set, read once a day and again when something of it changes.</summary>
/// <remarks>
/// Only a copy: the counter in the database tells when it is old, so several processes can each have theirs.
/// </remarks>
public sealed class HouseBooks
{
    private volatile Loaded? _loaded;

    public async Task<HouseBook> OnAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var count = await db
            .Counters.Where(c => c.Name == Counter.House)
            .Select(c => c.Value)
            .FirstOrDefaultAsync(cancel);
        if (_loaded is { } now && now.Count == count && now.Day == day)
            return now.Book;
        var book = await HouseBook.ReadAsync(db, day, cancel);
        // What a transaction sees of its own may yet be undone.
        if (db.Database.CurrentTransaction is null)
            _loaded = new Loaded(count, day, book);
        return book;
    }

    private sealed record Loaded(long Count, DateOnly Day, HouseBook Book);
}
