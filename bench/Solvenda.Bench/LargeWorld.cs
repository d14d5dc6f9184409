using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Bench;

/// <summary>
/// A house after many years: 20,000 buyers, 50,000 items, 200,000 orders with 1,000,000 lines. The same at every run.
/// </summary>
internal static class LargeWorld
{
    private const int Buyers = 20_000;
    private const int Items = 50_000;
    private const int Orders = 200_000;
    private const int LinesPerOrder = 5;

    private static readonly string[] Things =
    [
        "rope",
        "line",
        "chain",
        "shackle",
        "thimble",
        "swivel",
        "cleat",
        "block",
        "fender",
        "buoy",
        "netting",
        "varnish",
        "jacket",
        "anchor",
        "pulley",
        "hook",
    ];
    private static readonly string[] Kinds =
    [
        "braided",
        "twisted",
        "galvanised",
        "stainless",
        "floating",
        "heavy",
        "light",
        "woven",
        "cast",
        "forged",
        "coated",
        "tarred",
    ];
    private static readonly string[] Places =
    [
        "Skerrow",
        "Ardmoyle",
        "Carrick",
        "Kestrelmouth",
        "Lomond",
        "Zilverhaven",
        "Wattkoog",
        "Nordvass",
        "Gannet",
        "Dunmarrow",
        "Saltmarsh",
        "Foyle",
        "Petrel",
        "Tangvik",
        "Corrie",
    ];
    private static readonly string[] Houses =
    [
        "Boatyard",
        "Chandlery",
        "Marina",
        "Rigging",
        "Harbour Trust",
        "Fish Farm",
        "Sailing School",
        "Ferries",
        "Salvage",
        "Rowing Club",
    ];

    public static async Task WriteAsync(string folder)
    {
        Directory.CreateDirectory(folder);
        var options =
            (DbContextOptions<SolvendaDb>)
                new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(Database.FileIn(folder)).Options;
        await using var db = new SolvendaDb(options);
        await db.Database.MigrateAsync();
        await using var transaction = await db.Database.BeginTransactionAsync();
        var random = new Random(20_261_125);
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        var since = today.AddYears(-5);
        DateTime At(DateOnly day) => day.ToDateTime(new TimeOnly(10, 0), DateTimeKind.Utc);

        db.People.Add(
            new Person
            {
                Id = 1,
                Login = "sorcha",
                Name = "Sorcha Quill",
                Does = "account manager",
                Roles = Roles.Desk | Roles.Seller | Roles.Lead,
                Stamp = "bench",
            }
        );
        db.Authorities.AddRange(
            new[] { ("discount", 8m), ("margin", 22m), ("value", 20_000m) }.Select(l => new AuthorityRow
            {
                PersonId = 1,
                Kind = l.Item1,
                Limit = l.Item2,
                GivenByName = "bench",
            })
        );
        db.Families.AddRange(
            Things.Select(t => new FamilyRow
            {
                Code = t,
                Words = t,
                LeastMarginPercent = 20,
            })
        );
        db.PriceLists.Add(new PriceListRow { Code = "house", Words = "House list" });
        db.TaxRates.Add(
            new TaxRateRow
            {
                Class = Core.Catalogue.TaxClass.Standard,
                From = since,
                Percent = 23m,
            }
        );
        await db.SaveChangesAsync();

        string Of(string[] words) => words[random.Next(words.Length)];
        await BulkWriter.InsertAsync(
            db,
            [
                .. Enumerable
                    .Range(1, Buyers)
                    .Select(i => new BuyerRow
                    {
                        Code = $"C-{i:00000}",
                        Name = $"{Of(Places)} {Of(Houses)} {i}",
                        Country = "IE",
                        Currency = "EUR",
                        AccountManagerId = 1,
                        PaymentDays = 30,
                        Incoterm = "DAP",
                        IncotermPlace = "quay",
                        ContactMail = $"office{i}@buyer.example",
                        DeliverTo = $"{i} Harbour Street",
                        DeliverToCountry = "IE",
                        ShipFrom = "Skerrow quay",
                        CreditLimitMinor = 10_000_00,
                        Address = $"{i} Harbour Street",
                    }),
            ],
            CancellationToken.None
        );
        await BulkWriter.InsertAsync(
            db,
            [
                .. Enumerable
                    .Range(1, Items)
                    .Select(i => new ItemRow
                    {
                        Code = $"IT-{i:000000}",
                        Words = $"{Of(Kinds)} {Of(Things)} {i % 60} mm, {Of(Kinds)}",
                        Family = Things[i % Things.Length],
                        StockUnit = "MTR",
                        LeadDays = 10,
                        WeightKg = 0.5m,
                    }),
            ],
            CancellationToken.None
        );
        await BulkWriter.InsertAsync(
            db,
            [
                .. Enumerable
                    .Range(1, Items)
                    .Select(i => new ListPriceRow
                    {
                        List = "house",
                        ItemId = i,
                        Unit = "MTR",
                        Price = 1m + (i % 900 / 10m),
                        Currency = "EUR",
                        From = since,
                    }),
            ],
            CancellationToken.None
        );
        await BulkWriter.InsertAsync(
            db,
            [
                .. Enumerable
                    .Range(1, Items)
                    .Select(i => new CostRow
                    {
                        ItemId = i,
                        From = since,
                        Cost = 0.6m,
                    }),
            ],
            CancellationToken.None
        );

        await BulkWriter.WriteAsync(
            db,
            Enumerable
                .Range(1, Orders)
                .Select(i => new DossierRow
                {
                    Id = i,
                    Number = $"D{i:0000000}",
                    BuyerId = 1 + (i * 7919L % Buyers),
                    Matter = Of(Houses),
                    CreatedAt = At(since.AddDays(i % 1_800)),
                }),
            CancellationToken.None
        );
        await BulkWriter.WriteAsync(
            db,
            Enumerable
                .Range(1, Orders)
                .Select(i => new SheetRow
                {
                    Id = i,
                    Currency = "EUR",
                    PricingDate = since.AddDays(i % 1_800),
                    Head = Head.Empty.With("shipFrom", "Skerrow quay", null),
                    PoNumber = $"PO-{i}",
                    Wanted = since.AddDays((i % 1_800) + 10),
                    TotalWithoutTaxMinor = 1_000_00 + i,
                    TotalWithTaxMinor = 1_230_00 + i,
                    NextKey = LinesPerOrder + 1,
                }),
            CancellationToken.None
        );
        await BulkWriter.WriteAsync(
            db,
            Enumerable
                .Range(0, Orders * LinesPerOrder)
                .Select(n => new SheetLineRow
                {
                    SheetId = 1 + (n / LinesPerOrder),
                    Key = 1 + (n % LinesPerOrder),
                    Position = 1 + (n % LinesPerOrder),
                    Kind = LineKind.Item,
                    ItemId = 1 + (n * 104_729L % Items),
                    Words = "as ordered",
                    Quantity = 1 + (n % 90),
                    Unit = "MTR",
                    NetPrice = 2m,
                    NetMinor = 200_00,
                }),
            CancellationToken.None
        );
        // The last few hundred are open; the rest is gone and paid.
        await BulkWriter.WriteAsync(
            db,
            Enumerable
                .Range(1, Orders)
                .Select(i => new OrderRow
                {
                    Id = i,
                    Number = $"S{i % 100:00}-{i:000000}",
                    DossierId = i,
                    SheetId = i,
                    SellerId = 1,
                    Channel = i % 3 == 0 ? "edi" : "mail",
                    PoKey = $"{i}",
                    Terms = TermsTrack.Confirmed,
                    Goods = i > Orders - 400 ? GoodsTrack.Waiting : GoodsTrack.Shipped,
                    Money = MoneyTrack.Paid,
                    CreatedAt = At(since.AddDays(i % 1_800)),
                    ConfirmedAt = At(since.AddDays(i % 1_800)),
                }),
            CancellationToken.None
        );
        await transaction.CommitAsync();
        await db.Database.ExecuteSqlRawAsync("ANALYZE");
    }
}
