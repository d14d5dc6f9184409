using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Owing;
using Solvenda.Core.Money;
using Solvenda.Core.Receiving;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Owing;

/// <summary>What a buyer owes, by age.</summary>
/// <param name="Open">In home currency, as the ledger has it; below nothing where we owe them.</param>
/// <param name="Bands">The same by how late it is, in the order of the bands.</param>
/// <param name="Disputed">What of it is under discussion, in home currency.</param>
/// <param name="Step">The reminder that is due; 0 for none.</param>
/// <param name="HasAddress">Whether a letter can go.</param>
public sealed record OwedBuyer(
    long Id,
    string Code,
    string Name,
    decimal Open,
    IReadOnlyList<decimal> Bands,
    decimal Disputed,
    decimal OnAccount,
    int Step,
    DateOnly? RemindedOn,
    bool HasAddress
);

/// <summary>What buyers owe, by age, who is latest first.</summary>
/// <param name="Currency">The house's.</param>
/// <param name="Sums">By band, over all.</param>
public sealed record OwedView(
    string Currency,
    IReadOnlyList<string> Bands,
    IReadOnlyList<decimal> Sums,
    IReadOnlyList<OwedBuyer> Buyers,
    bool MayBook
);

/// <summary>Something that is open.</summary>
/// <param name="Invoice">Number of its document; empty where it was taken over from before.</param>
/// <param name="Open">In its currency; below nothing where we owe it.</param>
/// <param name="IsSmall">Whether it may be written off.</param>
/// <param name="Early">What falls away where it is paid early; 0 for nothing.</param>
public sealed record OwedItem(
    string Number,
    string Invoice,
    string Order,
    DateOnly Due,
    int Late,
    string Currency,
    decimal Open,
    decimal Early,
    DateOnly? EarlyUntil,
    string Disputed,
    string DisputedBy,
    int Step,
    DateOnly? RemindedOn,
    bool IsSmall
);

/// <summary>Money of a buyer that nothing was taken of.</summary>
public sealed record OnAccount(string Document, DateOnly Day, string Currency, decimal Left);

/// <summary>The account of a buyer.</summary>
/// <param name="Next">The reminder that is due; 0 for none.</param>
/// <param name="Hows">How money comes that no statement shows.</param>
public sealed record AccountView(
    long Id,
    string Code,
    string Name,
    string Mail,
    string Currency,
    string Home,
    IReadOnlyList<OwedItem> Items,
    IReadOnlyList<OnAccount> Money,
    int Next,
    IReadOnlyList<string> Hows,
    DateOnly Today,
    bool MayBook,
    bool MayBill
);

/// <summary>Reads what is owed into the shapes that its pages need.</summary>
public static class OwedViews
{
    public static async Task<OwedView> OfAsync(
        SolvendaDb db,
        Seller seller,
        DateOnly today,
        bool mayBook,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(seller);
        var items = await db.OpenItems.AsNoTracking().Where(o => o.OpenMinor != 0).ToListAsync(cancel);
        var held = await db
            .Receipts.Where(r => r.LeftMinor > 0 && r.BuyerId != null)
            .GroupBy(r => r.BuyerId!.Value)
            .Select(g => new { g.Key, Minor = g.Sum(r => r.LeftHomeMinor) })
            .ToDictionaryAsync(g => g.Key, g => g.Minor, cancel);
        var ids = items.Select(i => i.BuyerId).Concat(held.Keys).Distinct().ToList();
        var buyers = await db
            .Buyers.AsNoTracking()
            .Where(b => EF.Parameter(ids).Contains(b.Id))
            .ToDictionaryAsync(b => b.Id, cancel);
        var steps = await OwedBook.StepsAsync(db, cancel);
        decimal Home(long minor) => Amount.FromMinor(minor, seller.Home).Value;
        var by = items.ToLookup(i => i.BuyerId);
        var rows = ids.Select(id =>
        {
            var theirs = by[id].ToList();
            var bands = new long[Ageing.Bands.Length];
            foreach (var item in theirs)
                bands[Ageing.BandOf(item.Due, today)] += item.HomeMinor ?? 0;
            return new OwedBuyer(
                id,
                buyers[id].Code,
                buyers[id].Name,
                Home(bands.Sum()),
                [.. bands.Select(Home)],
                Home(theirs.Where(i => i.Disputed.Length > 0).Sum(i => i.HomeMinor ?? 0)),
                Home(held.GetValueOrDefault(id)),
                StepOf(theirs, steps, today),
                theirs.Max(i => i.RemindedOn),
                !string.IsNullOrEmpty(buyers[id].ContactMail)
            );
        });
        var sorted = rows.OrderByDescending(r => r.Step)
            .ThenByDescending(r => r.Bands.Skip(1).Sum())
            .ThenByDescending(r => r.Open)
            .ThenBy(r => r.Name, StringComparer.Ordinal)
            .ToList();
        return new OwedView(
            seller.Home.Code,
            Ageing.Bands,
            [.. Enumerable.Range(0, Ageing.Bands.Length).Select(b => sorted.Sum(r => r.Bands[b]))],
            sorted,
            mayBook
        );
    }

    private static int StepOf(IEnumerable<OpenItemRow> items, ReminderSteps steps, DateOnly today) =>
        items.Where(i => i.OpenMinor > 0).Select(i => steps.NextOf(OwedBook.LateOf(i), today)).DefaultIfEmpty().Max();

    public static async Task<AccountView> OfBuyerAsync(
        SolvendaDb db,
        Seller seller,
        long id,
        Actor who,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(seller);
        ArgumentNullException.ThrowIfNull(who);
        var buyer =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var items = await AccountSteps.OpenAsync(db, id, cancel);
        var documents = await DocumentsAsync(db, items, cancel);
        var money = await db
            .Receipts.AsNoTracking()
            .Where(r => r.BuyerId == id && r.LeftMinor > 0)
            .OrderBy(r => r.Day)
            .ToListAsync(cancel);
        var small = (await OwedBook.MostWrittenOffAsync(db, seller.Home, cancel)).Minor;
        return new AccountView(
            id,
            buyer.Code,
            buyer.Name,
            buyer.ContactMail ?? "",
            buyer.Currency,
            seller.Home.Code,
            [.. items.Select(i => ItemOf(i, buyer, i.InvoiceId is { } of ? documents[of] : null, today, small))],
            [
                .. money.Select(r => new OnAccount(
                    r.Reference,
                    r.Day,
                    r.Currency,
                    Amount.Major(r.LeftMinor, r.Currency)
                )),
            ],
            StepOf(items, await OwedBook.StepsAsync(db, cancel), today),
            Solvenda.Acts.Receiving.EnterReceiptAct.Hows,
            today,
            Rights.Money.Allows(who),
            Rights.Bill.Allows(who)
        );
    }

    private static async Task<Dictionary<long, (string Number, string Order)>> DocumentsAsync(
        SolvendaDb db,
        List<OpenItemRow> items,
        CancellationToken cancel
    )
    {
        var invoices = items.Select(i => i.InvoiceId).OfType<long>().ToList();
        var found = await db
            .Invoices.Where(i => EF.Parameter(invoices).Contains(i.Id))
            .Select(i => new
            {
                i.Id,
                i.Number,
                Order = i.Order.Number,
            })
            .ToListAsync(cancel);
        return found.ToDictionary(i => i.Id, i => (i.Number, i.Order));
    }

    private static OwedItem ItemOf(
        OpenItemRow i,
        BuyerRow buyer,
        (string Number, string Order)? of,
        DateOnly today,
        long small
    )
    {
        var currency = i.Currency.Length > 0 ? i.Currency : buyer.Currency;
        return new OwedItem(
            i.Number,
            of?.Number ?? "",
            of?.Order ?? "",
            i.Due,
            i.OpenMinor > 0 ? Ageing.Late(i.Due, today) : 0,
            currency,
            Amount.Major(i.OpenMinor, currency),
            i.EarlyUntil >= today ? Amount.Major(i.EarlyMinor, currency) : 0m,
            i.EarlyUntil,
            i.Disputed,
            i.DisputedBy,
            i.ReminderStep,
            i.RemindedOn,
            i.HomeMinor is { } home && Math.Abs(home) <= small
        );
    }
}
