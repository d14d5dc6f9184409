using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>A price book as it was read, and the count of changes that it was read at.</summary>
public sealed record LoadedBook(long Count, PriceBook Book, ItemFinder Items, ImmutableArray<string> LeftOut);

/// <summary>
/// The price book and the item finder, read once and kept until something that prices are made from changes.
/// </summary>
/// <remarks>
/// Only a copy: the counter in the database tells when it is old, so several processes can each have theirs.
/// </remarks>
public sealed class PriceBooks(Seller seller) : IDisposable
{
    private readonly SemaphoreSlim _loading = new(1, 1);
    private volatile LoadedBook? _loaded;
    private const long FreshMilliseconds = 100;
    private long _freshenedAt;

    /// <summary>
    /// Records that no price can be made from, with the reason: they are left out of the book, so that one of them does
    /// not stop all prices.
    /// </summary>
    public ImmutableArray<string> LeftOut => _loaded?.LeftOut ?? [];

    public async Task<PriceBook> BookAsync(SolvendaDb db, CancellationToken cancel) =>
        (await LoadedAsync(db, cancel)).Book;

    /// <summary>
    /// Reads the book anew where it is in use and old, before somebody holds what others wait for; one that nobody
    /// needed yet is not read.
    /// </summary>
    public async Task FreshenAsync(SolvendaDb db, CancellationToken cancel)
    {
        // Looked at for each act anew it would cost more than it spares; whoever needs the book looks itself.
        var now = Environment.TickCount64;
        if (_loaded is null || now - Volatile.Read(ref _freshenedAt) < FreshMilliseconds)
            return;
        Volatile.Write(ref _freshenedAt, now);
        await LoadedAsync(db, cancel);
    }

    public async Task<ItemFinder> ItemsAsync(SolvendaDb db, CancellationToken cancel) =>
        (await LoadedAsync(db, cancel)).Items;

    public void Dispose() => _loading.Dispose();

    /// <summary>
    /// Reads the book anew beside the one in use, for work that is about to count one change of everything it wrote.
    /// </summary>
    public async Task<LoadedBook> ReadAsync(SolvendaDb db, CancellationToken cancel) =>
        await ReadAsync(db, await CountAsync(db, cancel), cancel);

    /// <summary>
    /// Takes a book that was read ahead into use, so that nobody waits for it: only where exactly one change was
    /// counted since, the one that it was read for.
    /// </summary>
    public async Task OfferAsync(SolvendaDb db, LoadedBook ahead, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ahead);
        var count = await CountAsync(db, cancel);
        if (count == ahead.Count + 1)
            _loaded = ahead with { Count = count };
    }

    private static Task<long> CountAsync(SolvendaDb db, CancellationToken cancel) =>
        db.Counters.Where(c => c.Name == Counter.PriceBook).Select(c => c.Value).FirstOrDefaultAsync(cancel);

    private async Task<LoadedBook> ReadAsync(SolvendaDb db, long count, CancellationToken cancel)
    {
        var sound = new SoundRows();
        var book = await LoadAsync(db, seller, sound, cancel);
        return new LoadedBook(count, book, new ItemFinder(book.Items), sound.LeftOut);
    }

    private async Task<LoadedBook> LoadedAsync(SolvendaDb db, CancellationToken cancel)
    {
        var count = await CountAsync(db, cancel);
        if (_loaded is { } current && current.Count == count)
            return current;
        await _loading.WaitAsync(cancel);
        try
        {
            if (_loaded is { } other && other.Count == count)
                return other;
            var read = await ReadAsync(db, count, cancel);
            // What a transaction sees of its own may yet be undone.
            if (db.Database.CurrentTransaction is null)
                _loaded = read;
            return read;
        }
        finally
        {
            _loading.Release();
        }
    }

    private static async Task<PriceBook> LoadAsync(
        SolvendaDb db,
        Seller seller,
        SoundRows sound,
        CancellationToken cancel
    )
    {
        var items = await db.Items.AsNoTracking().Include(i => i.SalesUnits).ToListAsync(cancel);
        var ids = items.ToDictionary(i => i.Code, i => new ItemId(i.Id), StringComparer.OrdinalIgnoreCase);
        var families = await db.Families.AsNoTracking().ToListAsync(cancel);
        var prices = await db.ListPrices.AsNoTracking().Where(p => p.Active).ToListAsync(cancel);
        var agreements = await db
            .Agreements.AsNoTracking()
            .Where(a => a.Active)
            .Include(a => a.Breaks)
            .ToListAsync(cancel);
        var campaigns = await db.Campaigns.AsNoTracking().Where(c => c.Active).ToListAsync(cancel);
        var costs = await db.Costs.AsNoTracking().ToListAsync(cancel);
        var taxes = await db.TaxRates.AsNoTracking().ToListAsync(cancel);
        var rates = await db.ExchangeRates.AsNoTracking().ToListAsync(cancel);
        var groups = await db.Groups.AsNoTracking().Where(g => g.PriceList != null).ToListAsync(cancel);
        var contents = new PriceBookContents(
            seller.Home,
            seller.Country,
            seller.HouseList,
            sound.Of(items, i => $"item {i.Code}", i => ToItem(i, ids)),
            [.. families.Select(f => new Family(f.Code, f.Words, f.LeastMarginPercent))],
            sound.Of(prices, p => $"list price {p.Id}", ToPrice),
            sound.Of(agreements, a => $"agreement {a.Code}", ToAgreement),
            sound.Of(campaigns, c => $"campaign {c.Code}", ToCampaign),
            sound.Of(
                costs,
                c => $"cost {c.Id}",
                c => new DatedCost(new ItemId(c.ItemId), c.From, SoundRows.Number(c.Cost))
            ),
            [.. taxes.Select(t => new TaxRate(t.Class, t.Percent, t.From, t.To, t.Country))],
            sound.Of(
                rates,
                r => $"rate of {r.Currency} on {r.Day:yyyy-MM-dd}",
                r => new DatedRate(Currency.Of(r.Currency), r.Day, SoundRows.Number(r.Rate))
            ),
            groups.ToImmutableDictionary(g => g.Code, g => g.PriceList!)
        );
        return new PriceBook(await WithChargesAsync(contents, db, sound, cancel));
    }

    // Freight, insurance and what else is added to a sheet by rule.
    private static async Task<PriceBookContents> WithChargesAsync(
        PriceBookContents contents,
        SolvendaDb db,
        SoundRows sound,
        CancellationToken cancel
    )
    {
        var charges = await db.ChargeRules.AsNoTracking().Where(c => c.Active).ToListAsync(cancel);
        var zones = await db.FreightZones.AsNoTracking().Where(z => z.Active).ToListAsync(cancel);
        var bands = await db.FreightBands.AsNoTracking().Where(b => b.Active).ToListAsync(cancel);
        var settings = await db
            .Settings.AsNoTracking()
            .Where(s => s.Active)
            .ToDictionaryAsync(s => s.Code, s => s.Value, cancel);
        return contents with
        {
            Charges = sound.Of(charges, c => $"charge {c.Code}", ToCharge),
            FreightZones = zones.ToImmutableDictionary(z => z.Country, z => z.Zone),
            FreightBands = sound.Of(bands, b => $"freight band {b.Id}", ToBand),
            InsurancePercent = settings.TryGetValue(SettingRow.InsurancePercent, out var percent) ? percent : null,
            UsualDays = settings.TryGetValue(SettingRow.UsualDays, out var days) ? (int)days : contents.UsualDays,
        };
    }

    private static ListPrice ToPrice(ListPriceRow p) =>
        new(
            p.List,
            new ItemId(p.ItemId),
            Unit.Of(p.Unit),
            UnitPrice.Round(SoundRows.Number(p.Price), Currency.Of(p.Currency)),
            p.PriceBase,
            p.From,
            p.To
        );

    private static FreightBand ToBand(FreightBandRow b) =>
        new(b.Zone, b.Service, b.UpToKg, SoundRows.Number(b.Price), Currency.Of(b.Currency), b.From, b.To);

    private static Item ToItem(ItemRow i, Dictionary<string, ItemId> ids) =>
        new(
            new ItemId(i.Id),
            i.Code,
            i.Words,
            i.Family,
            Unit.Of(i.StockUnit),
            [.. i.SalesUnits.Select(u => new SalesUnit(Unit.Of(u.Unit), u.Factor))],
            i.TaxClass,
            i.FloorPrice,
            i.LeadDays,
            i.Stocked,
            i.Gtin,
            i.DangerousGoods,
            i.Successor
        )
        {
            Active = i.Active,
            WordsElsewhere = i.WordsElsewhere,
            WeightKg = i.WeightKg,
            VolumeDm3 = i.VolumeDm3,
            PackMultiple = i.PackMultiple,
            LeastQuantity = i.LeastQuantity,
            Alternatives = [.. i.Alternatives.Split(' ', StringSplitOptions.RemoveEmptyEntries)],
            ExportNote = i.ExportNote,
            Certificate = i.Certificate,
            HasSerials = i.HasSerials,
            NotSoldIn = [.. i.NotSoldIn.Split(' ', StringSplitOptions.RemoveEmptyEntries)],
            NotByChannel = [.. i.NotByChannel.Split(' ', StringSplitOptions.RemoveEmptyEntries)],
            // A part that names no item is refused when it is typed, so it cannot be here.
            Parts =
            [
                .. PartsText
                    .Parse(i.Parts)
                    .Where(p => ids.ContainsKey(p.Code))
                    .Select(p => new BundlePart(ids[p.Code], p.Quantity)),
            ],
        };

    private static Campaign ToCampaign(CampaignRow c) =>
        new(c.Code, c.Words, c.Kind, SoundRows.Number(c.Value), c.From, c.To)
        {
            Currency = c.Currency is { } m ? Currency.Of(m) : null,
            Scope = c.Scope,
            Item = c.ItemId is { } i ? new ItemId(i) : null,
            Family = c.Family,
            Channel = c.Channel,
            Buyer = c.BuyerId is { } b ? new BuyerId(b) : null,
            Group = c.Group,
        };

    private static ChargeRule ToCharge(ChargeRuleRow c) =>
        new(
            c.Code,
            c.Words,
            c.Basis,
            c.Scope,
            c.ItemId is { } i ? new ItemId(i) : null,
            c.Family,
            c.DangerousOnly,
            c.Unit is { } u ? Unit.Of(u) : null,
            c.BelowGoods,
            SoundRows.Number(c.Amount),
            Currency.Of(c.Currency),
            c.From,
            c.To
        );

    private static Agreement ToAgreement(AgreementRow a) =>
        new(
            a.Code,
            a.Words,
            a.BuyerId is null ? RuleParty.Group : RuleParty.Buyer,
            a.BuyerId is { } b ? new BuyerId(b) : null,
            a.Group,
            a.Scope,
            a.ItemId is { } i ? new ItemId(i) : null,
            a.Family,
            a.Kind,
            a.Currency is { } c ? Currency.Of(c) : null,
            [.. a.Breaks.OrderBy(x => x.From).Select(x => new QuantityBreak(x.From, SoundRows.Number(x.Value)))],
            a.From,
            a.To,
            a.Combines
        )
        {
            BreakGroup = a.BreakGroup,
        };
}
