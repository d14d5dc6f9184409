using System.Linq.Expressions;
using System.Reflection;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Solvenda.Core.Sheets;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>The database. Indexes and keys stand at the rows; conversions that hold for all are here.</summary>
public sealed class SolvendaDb(DbContextOptions<SolvendaDb> options) : DbContext(options)
{
    public DbSet<Person> People => Set<Person>();
    public DbSet<ApiKey> ApiKeys => Set<ApiKey>();
    public DbSet<AuthorityRow> Authorities => Set<AuthorityRow>();
    public DbSet<AbsenceRow> Absences => Set<AbsenceRow>();
    public DbSet<TeamRow> Teams => Set<TeamRow>();
    public DbSet<PolicyRow> Policies => Set<PolicyRow>();
    public DbSet<HolidayRow> Holidays => Set<HolidayRow>();
    public DbSet<NoticeRow> Notices => Set<NoticeRow>();
    public DbSet<AskHolderRow> AskHolders => Set<AskHolderRow>();
    public DbSet<OneTimeLink> OneTimeLinks => Set<OneTimeLink>();
    public DbSet<ItemRow> Items => Set<ItemRow>();
    public DbSet<FamilyRow> Families => Set<FamilyRow>();
    public DbSet<ListPriceRow> ListPrices => Set<ListPriceRow>();
    public DbSet<AgreementRow> Agreements => Set<AgreementRow>();
    public DbSet<PriceListRow> PriceLists => Set<PriceListRow>();
    public DbSet<GroupRow> Groups => Set<GroupRow>();
    public DbSet<CampaignRow> Campaigns => Set<CampaignRow>();
    public DbSet<ChargeRuleRow> ChargeRules => Set<ChargeRuleRow>();
    public DbSet<FreightZoneRow> FreightZones => Set<FreightZoneRow>();
    public DbSet<FreightBandRow> FreightBands => Set<FreightBandRow>();
    public DbSet<SettingRow> Settings => Set<SettingRow>();
    public DbSet<AddressRow> Addresses => Set<AddressRow>();
    public DbSet<ContactRow> Contacts => Set<ContactRow>();
    public DbSet<ImportRow> Imports => Set<ImportRow>();
    public DbSet<ImportColumnRow> ImportColumns => Set<ImportColumnRow>();
    public DbSet<ItemFileRow> ItemFiles => Set<ItemFileRow>();
    public DbSet<TalkRow> Talks => Set<TalkRow>();
    public DbSet<ViewRow> Views => Set<ViewRow>();
    public DbSet<CostRow> Costs => Set<CostRow>();
    public DbSet<TaxRateRow> TaxRates => Set<TaxRateRow>();
    public DbSet<ExchangeRateRow> ExchangeRates => Set<ExchangeRateRow>();
    public DbSet<Counter> Counters => Set<Counter>();
    public DbSet<BuyerRow> Buyers => Set<BuyerRow>();
    public DbSet<BuyerSignRow> BuyerSigns => Set<BuyerSignRow>();
    public DbSet<AliasRow> Aliases => Set<AliasRow>();
    public DbSet<ColumnsRow> Columns => Set<ColumnsRow>();
    public DbSet<OpenItemRow> OpenItems => Set<OpenItemRow>();
    public DbSet<HouseRow> House => Set<HouseRow>();
    public DbSet<OrderVersionRow> OrderVersions => Set<OrderVersionRow>();
    public DbSet<PatternRow> Patterns => Set<PatternRow>();
    public DbSet<OwnFieldRow> OwnFields => Set<OwnFieldRow>();
    public DbSet<WarehouseRow> Warehouses => Set<WarehouseRow>();
    public DbSet<TerritoryRow> Territories => Set<TerritoryRow>();
    public DbSet<RestrictionRow> Restrictions => Set<RestrictionRow>();
    public DbSet<WayRow> Ways => Set<WayRow>();
    public DbSet<AnswerRow> Answers => Set<AnswerRow>();
    public DbSet<TemplateRow> Templates => Set<TemplateRow>();
    public DbSet<RunRow> Runs => Set<RunRow>();
    public DbSet<PileRow> Piles => Set<PileRow>();
    public DbSet<PileItemRow> PileItems => Set<PileItemRow>();
    public DbSet<RoundRow> Rounds => Set<RoundRow>();
    public DbSet<RoundItemRow> RoundItems => Set<RoundItemRow>();
    public DbSet<ReservationRow> Reservations => Set<ReservationRow>();
    public DbSet<ReasonRow> Reasons => Set<ReasonRow>();
    public DbSet<CheckRow> Checks => Set<CheckRow>();
    public DbSet<PortalKeyRow> PortalKeys => Set<PortalKeyRow>();
    public DbSet<DepositRow> Deposits => Set<DepositRow>();
    public DbSet<StockRow> Stock => Set<StockRow>();
    public DbSet<IncomingRow> Incoming => Set<IncomingRow>();
    public DbSet<StockMovementRow> StockMovements => Set<StockMovementRow>();
    public DbSet<SupplyRequestRow> SupplyRequests => Set<SupplyRequestRow>();
    public DbSet<ShipmentRow> Shipments => Set<ShipmentRow>();
    public DbSet<InvoiceRow> Invoices => Set<InvoiceRow>();
    public DbSet<InvoicePartRow> InvoiceParts => Set<InvoicePartRow>();
    public DbSet<CommissionPlanRow> CommissionPlans => Set<CommissionPlanRow>();
    public DbSet<CommissionRow> Commissions => Set<CommissionRow>();
    public DbSet<PaperTextRow> PaperTexts => Set<PaperTextRow>();
    public DbSet<AccountRow> Accounts => Set<AccountRow>();
    public DbSet<EntryRow> Entries => Set<EntryRow>();
    public DbSet<ReceiptRow> Receipts => Set<ReceiptRow>();
    public DbSet<PaidRow> Paid => Set<PaidRow>();
    public DbSet<CarrierRow> Carriers => Set<CarrierRow>();
    public DbSet<CommitmentRow> Commitments => Set<CommitmentRow>();
    public DbSet<RawMessage> RawMessages => Set<RawMessage>();
    public DbSet<RequestRow> Requests => Set<RequestRow>();
    public DbSet<DossierRow> Dossiers => Set<DossierRow>();
    public DbSet<SheetRow> Sheets => Set<SheetRow>();
    public DbSet<SheetLineRow> SheetLines => Set<SheetLineRow>();
    public DbSet<QuoteRow> Quotes => Set<QuoteRow>();
    public DbSet<OrderRow> Orders => Set<OrderRow>();
    public DbSet<AskRow> Asks => Set<AskRow>();
    public DbSet<WaiverRow> Waivers => Set<WaiverRow>();
    public DbSet<AttachmentRow> Attachments => Set<AttachmentRow>();
    public DbSet<AssortmentRow> Assortments => Set<AssortmentRow>();
    public DbSet<PrintRow> Prints => Set<PrintRow>();
    public DbSet<EventRow> Events => Set<EventRow>();
    public DbSet<RepeatRow> Repeats => Set<RepeatRow>();
    public DbSet<ReturnRow> Returns => Set<ReturnRow>();
    public DbSet<OutboxRow> Outbox => Set<OutboxRow>();
    public DbSet<SeriesRow> Series => Set<SeriesRow>();
    public DbSet<FollowUpRow> FollowUps => Set<FollowUpRow>();
    public DbSet<TroubleRow> Troubles => Set<TroubleRow>();
    public DbSet<SessionRow> Sessions => Set<SessionRow>();

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        // Prices, quantities, rates and percentages are whole millionths, so that the database sorts and sums them
        // exactly.
        configurationBuilder.Properties<decimal>().HaveConversion<Millionths>();
        configurationBuilder.Properties<DateTime>().HaveConversion<Utc>();
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        foreach (var entity in modelBuilder.Model.GetEntityTypes())
        {
            entity.SetTableName(Snake(entity.ClrType.Name.Replace("Row", "", StringComparison.Ordinal)));
            foreach (
                var property in entity
                    .GetProperties()
                    .Where(p => p.PropertyInfo?.GetCustomAttribute<ConcurrencyCheckVersionAttribute>() is not null)
            )
                property.IsConcurrencyToken = true;
            if (entity.ClrType.IsAssignableTo(typeof(ToldRow)))
                entity.SetChangeTrackingStrategy(ChangeTrackingStrategy.ChangedNotifications);
        }
        modelBuilder
            .Entity<SheetRow>()
            .Property(s => s.Head)
            .HasConversion(
                head => head.ToJson(),
                json => Head.FromJson(json),
                new ValueComparer<Head>((a, b) => a!.ToJson() == b!.ToJson(), h => h.ToJson().GetHashCode(), h => h)
            );
        // Events have their number from the chain, not from the database.
        modelBuilder.Entity<EventRow>().Property(e => e.Id).ValueGeneratedNever();
        // What is not done is a few hundred of many: its list reads them alone, newest first.
        modelBuilder.Entity<OrderRow>().HasIndex(o => o.CreatedAt).HasFilter("\"Goods\" <> 'Shipped'");
        OwnValues.Map(modelBuilder);
        Parts(modelBuilder);
        Named(modelBuilder);
    }

    // What is a part of something, and goes with it.
    private static void Parts(ModelBuilder model)
    {
        model.Entity<SheetRow>().HasMany(s => s.StoredLines).WithOne().HasForeignKey(l => l.SheetId);
        model.Entity<ItemRow>().HasMany(i => i.SalesUnits).WithOne().HasForeignKey(u => u.ItemId);
        model.Entity<AgreementRow>().HasMany(a => a.Breaks).WithOne().HasForeignKey(b => b.AgreementId);
        model.Entity<ReservationRow>().HasOne<QuoteRow>().WithMany().HasForeignKey(r => r.QuoteId);
        model.Entity<PileRow>().HasOne<Person>().WithMany().HasForeignKey(p => p.OwnerId);
        model.Entity<PileItemRow>().HasOne<PileRow>().WithMany().HasForeignKey(i => i.PileId);
        model.Entity<RoundRow>().HasOne<Person>().WithMany().HasForeignKey(r => r.PersonId);
        model.Entity<RoundItemRow>().HasOne<RoundRow>().WithMany().HasForeignKey(i => i.RoundId);
        model.Entity<ShipmentRow>().HasMany(s => s.Lines).WithOne().HasForeignKey(l => l.ShipmentId);
        model.Entity<ShipmentRow>().HasMany(s => s.Picks).WithOne().HasForeignKey(p => p.ShipmentId);
        model.Entity<InvoiceRow>().HasMany(i => i.Parts).WithOne(p => p.Invoice).HasForeignKey(p => p.InvoiceId);
        model.Entity<ReturnRow>().HasMany(r => r.Lines).WithOne().HasForeignKey(l => l.ReturnId);
        model.Entity<CommitmentRow>().HasOne<OrderRow>().WithMany().HasForeignKey(c => c.OrderId);
        model.Entity<AskHolderRow>().HasOne<AskRow>().WithMany(a => a.Holders).HasForeignKey(h => h.AskId);
        model.Entity<AskHolderRow>().HasOne<Person>().WithMany().HasForeignKey(h => h.PersonId);
        model.Entity<AuthorityRow>().HasOne<Person>().WithMany().HasForeignKey(a => a.PersonId);
        model.Entity<AuthorityRow>().HasOne<ApiKey>().WithMany().HasForeignKey(a => a.KeyId);
        model.Entity<NoticeRow>().HasOne<Person>().WithMany().HasForeignKey(n => n.PersonId);
        model.Entity<AbsenceRow>().HasOne<Person>().WithMany().HasForeignKey(a => a.PersonId);
        model.Entity<DepositRow>().HasOne<OrderRow>().WithMany().HasForeignKey(d => d.OrderId);
        model.Entity<OrderVersionRow>().HasOne<OrderRow>().WithMany().HasForeignKey(v => v.OrderId);
        model.Entity<WaiverRow>().HasOne<OrderRow>().WithMany().HasForeignKey(w => w.OrderId);
        model.Entity<AliasRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(a => a.BuyerId);
        model.Entity<AliasRow>().HasOne<ItemRow>().WithMany().HasForeignKey(a => a.ItemId);
        model.Entity<AddressRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(a => a.BuyerId);
        model.Entity<WayRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(w => w.BuyerId);
        model.Entity<ItemFileRow>().HasOne<ItemRow>().WithMany().HasForeignKey(f => f.ItemId);
        model.Entity<TalkRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(t => t.BuyerId);
        model.Entity<ContactRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(a => a.BuyerId);
        model.Entity<ListPriceRow>().HasOne<ItemRow>().WithMany().HasForeignKey(p => p.ItemId);
        model.Entity<CostRow>().HasOne<ItemRow>().WithMany().HasForeignKey(c => c.ItemId);
        model.Entity<OpenItemRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(o => o.BuyerId);
        model.Entity<BuyerSignRow>().HasOne<BuyerRow>().WithMany().HasForeignKey(o => o.BuyerId);
    }

    // What only names something else, which cannot go while it is named.
    private static void Named(ModelBuilder model)
    {
        void Names<TRow, TNamed>(Expression<Func<TRow, object?>> key)
            where TRow : class
            where TNamed : class =>
            model.Entity<TRow>().HasOne<TNamed>().WithMany().HasForeignKey(key).OnDelete(DeleteBehavior.Restrict);
        Names<SheetLineRow, ItemRow>(l => l.ItemId);
        Names<Person, Person>(p => p.ReportsToId);
        Names<QuoteRow, PrintRow>(q => q.PrintId);
        Names<QuoteRow, Person>(q => q.SellerId);
        Names<OrderRow, Person>(o => o.SellerId);
        Names<ShipmentRow, PrintRow>(s => s.PrintId);
        Names<ShipmentPickRow, ItemRow>(p => p.ItemId);
        Names<InvoiceRow, BuyerRow>(i => i.BuyerId);
        Names<InvoiceRow, InvoiceRow>(i => i.CreditsId);
        Names<InvoiceRow, PrintRow>(i => i.PrintId);
        model.Entity<InvoiceRow>().HasOne(i => i.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        model.Entity<InvoicePartRow>().HasOne(p => p.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        Names<CommissionPlanRow, Person>(p => p.SellerId);
        Names<CommissionPlanRow, Person>(p => p.LeadId);
        model.Entity<CommissionRow>().HasOne(c => c.Invoice).WithMany().OnDelete(DeleteBehavior.Restrict);
        model.Entity<CommissionRow>().HasOne(c => c.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        Names<PaperTextRow, BuyerRow>(t => t.BuyerId);
        Names<ReceiptRow, BuyerRow>(r => r.BuyerId);
        Names<PaidRow, OpenItemRow>(p => p.OpenItemId);
        Names<PaidRow, ReceiptRow>(p => p.ReceiptId);
        Names<PaidRow, InvoiceRow>(p => p.CreditId);
        model.Entity<ReturnRow>().HasOne(r => r.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        model.Entity<ShipmentRow>().HasOne(s => s.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        model.Entity<QuoteRow>().HasOne(q => q.Order).WithMany().OnDelete(DeleteBehavior.Restrict);
        Names<OrderRow, OrderRow>(o => o.FrameId);
        Names<BuyerRow, BuyerRow>(b => b.ParentId);
        Names<EventRow, DossierRow>(h => h.DossierId);
        Names<AnswerRow, RequestRow>(a => a.RequestId);
        Names<WayRow, Person>(w => w.KeeperId);
    }

    // What a price is made from. Whoever changes it, on whatever way, makes every price book in memory old.
    private static readonly HashSet<Type> OfPrices =
    [
        typeof(ItemRow),
        typeof(SalesUnitRow),
        typeof(FamilyRow),
        typeof(PriceListRow),
        typeof(GroupRow),
        typeof(ListPriceRow),
        typeof(AgreementRow),
        typeof(AgreementBreakRow),
        typeof(CampaignRow),
        typeof(ChargeRuleRow),
        typeof(FreightZoneRow),
        typeof(FreightBandRow),
        typeof(SettingRow),
        typeof(CostRow),
        typeof(TaxRateRow),
        typeof(ExchangeRateRow),
    ];

    // What the house set, which every sheet is judged against.
    private static readonly HashSet<Type> OfTheHouse =
    [
        typeof(Person),
        typeof(AuthorityRow),
        typeof(AbsenceRow),
        typeof(ApiKey),
        typeof(TeamRow),
        typeof(PolicyRow),
        typeof(CheckRow),
        typeof(RestrictionRow),
        typeof(WarehouseRow),
        typeof(HolidayRow),
        typeof(OwnFieldRow),
        typeof(PaperTextRow),
        typeof(CommissionPlanRow),
    ];

    // Where stock lies for the first time there may be a warehouse that nobody set up.
    private static bool IsOfTheHouse(EntityEntry entry) =>
        entry.State switch
        {
            EntityState.Added => entry.Entity is StockRow || OfTheHouse.Contains(entry.Metadata.ClrType),
            EntityState.Modified or EntityState.Deleted => OfTheHouse.Contains(entry.Metadata.ClrType),
            _ => false,
        };

    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess,
        CancellationToken cancellationToken = default
    )
    {
        // What changed is looked for once, and not for each question about it: a sheet may have hundreds of lines.
        var (tracker, asks) = (ChangeTracker, ChangeTracker.AutoDetectChangesEnabled);
        tracker.AutoDetectChangesEnabled = false;
        try
        {
            LearnOfLinesAtHand(tracker);
            if (asks)
                tracker.DetectChanges();
            var ofPrices = tracker
                .Entries()
                .Any(e =>
                    e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted
                    && OfPrices.Contains(e.Metadata.ClrType)
                );
            if (ofPrices && !CountsPricesLater)
                await PricesChangedAsync(cancellationToken);
            if (tracker.Entries().Any(IsOfTheHouse))
                await HouseChangedAsync(cancellationToken);
            LinesMoveWithTheirSheet(tracker);
            return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        }
        finally
        {
            tracker.AutoDetectChangesEnabled = asks;
        }
    }

    // Lines that were at hand are not known to the context until they are changed: to know hundreds takes it longer
    // than all the rest of an edit.
    private void LearnOfLinesAtHand(ChangeTracker tracker)
    {
        foreach (var sheet in tracker.Entries<SheetRow>().Select(e => e.Entity).ToList())
        {
            foreach (var line in sheet.AtHand.Where(l => l.Untold.Count > 0))
            {
                var entry = Entry(line);
                entry.State = EntityState.Unchanged;
                foreach (var name in line.Untold)
                    entry.Property(name).IsModified = true;
                line.Heard();
            }
            foreach (var line in sheet.ForgetGone())
                Entry(line).State = EntityState.Deleted;
        }
    }

    // A version of a sheet stands for its lines: who has them by that version need not read them again.
    private static void LinesMoveWithTheirSheet(ChangeTracker tracker)
    {
        var changed = tracker
            .Entries<SheetLineRow>()
            .Where(l => l.State is EntityState.Added or EntityState.Modified or EntityState.Deleted)
            .Select(l => l.Property(r => r.SheetId).CurrentValue)
            .ToHashSet();
        foreach (var sheet in tracker.Entries<SheetRow>().Where(_ => changed.Count > 0))
        {
            if (!changed.Remove(sheet.Property(r => r.Id).CurrentValue))
                continue;
            var version = sheet.Property(r => r.Version);
            if (sheet.State is EntityState.Unchanged or EntityState.Modified && !version.IsModified)
                version.CurrentValue++;
        }
        if (changed.Count > 0)
            throw new InvalidOperationException($"Lines of sheet {changed.First()} were changed without it.");
    }

    /// <summary>
    /// Set by work that goes in portions and counts once, when all of it is there: else the whole price book would be
    /// read anew after each portion, by whoever comes next.
    /// </summary>
    public bool CountsPricesLater { get; set; }

    /// <summary>Counts a change of what prices are made from; saved with the rest.</summary>
    public Task PricesChangedAsync(CancellationToken cancel) => CountAsync(Counter.PriceBook, cancel);

    /// <summary>Counts a change of what the house set; saved with the rest.</summary>
    public Task HouseChangedAsync(CancellationToken cancel) => CountAsync(Counter.House, cancel);

    private async Task CountAsync(string name, CancellationToken cancel)
    {
        var counter =
            Counters.Local.FirstOrDefault(c => c.Name == name)
            ?? await Counters.FirstOrDefaultAsync(c => c.Name == name, cancel);
        if (counter is null)
            Counters.Add(new Counter { Name = name, Value = 1 });
        else
            Entry(counter).Property(c => c.Value).CurrentValue++;
    }

    private static string Snake(string name) =>
        string.Concat(
            name.Select(
                (c, i) =>
                    char.IsUpper(c) && i > 0 ? "_" + char.ToLowerInvariant(c) : char.ToLowerInvariant(c).ToString()
            )
        );

    internal sealed class Millionths()
        : ValueConverter<decimal, long>(
            v => decimal.ToInt64(decimal.Round(v * 1_000_000m, 0, MidpointRounding.AwayFromZero)),
            v => v / 1_000_000m
        )
    {
        private static readonly Millionths One = new();

        /// <summary>A number as it comes back when it was stored.</summary>
        internal static decimal Stored(decimal v) => One.ConvertFromProviderTyped(One.ConvertToProviderTyped(v));

        internal static decimal? Stored(decimal? v) => v is { } value ? Stored(value) : null;
    }

    internal sealed class Utc()
        : ValueConverter<DateTime, DateTime>(v => v, v => DateTime.SpecifyKind(v, DateTimeKind.Utc));
}
