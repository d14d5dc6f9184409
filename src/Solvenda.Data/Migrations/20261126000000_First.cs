using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class First : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "agreement",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Group = table.Column<string>(type: "TEXT", nullable: true),
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: true),
                    Family = table.Column<string>(type: "TEXT", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: true),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Combines = table.Column<bool>(type: "INTEGER", nullable: false),
                    BreakGroup = table.Column<string>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_agreement", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "api_key",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Scopes = table.Column<string>(type: "TEXT", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    RevokedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_api_key", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "buyer",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Country = table.Column<string>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Group = table.Column<string>(type: "TEXT", nullable: true),
                    PriceList = table.Column<string>(type: "TEXT", nullable: true),
                    TaxNumber = table.Column<string>(type: "TEXT", nullable: true),
                    TaxExempt = table.Column<bool>(type: "INTEGER", nullable: false),
                    IsProspect = table.Column<bool>(type: "INTEGER", nullable: false),
                    PoNumberRequired = table.Column<bool>(type: "INTEGER", nullable: false),
                    PaymentDays = table.Column<int>(type: "INTEGER", nullable: true),
                    Incoterm = table.Column<string>(type: "TEXT", nullable: true),
                    IncotermPlace = table.Column<string>(type: "TEXT", nullable: true),
                    ShipFrom = table.Column<string>(type: "TEXT", nullable: true),
                    TransitDays = table.Column<int>(type: "INTEGER", nullable: false),
                    AccountManagerId = table.Column<long>(type: "INTEGER", nullable: true),
                    ContactName = table.Column<string>(type: "TEXT", nullable: true),
                    ContactMail = table.Column<string>(type: "TEXT", nullable: true),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    DeliverTo = table.Column<string>(type: "TEXT", nullable: true),
                    DeliverToCountry = table.Column<string>(type: "TEXT", nullable: true),
                    CreditLimitMinor = table.Column<long>(type: "INTEGER", nullable: true),
                    GraceDays = table.Column<int>(type: "INTEGER", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    PrintedNote = table.Column<string>(type: "TEXT", nullable: false),
                    Language = table.Column<string>(type: "TEXT", nullable: false),
                    ParentId = table.Column<long>(type: "INTEGER", nullable: true),
                    BillTo = table.Column<string>(type: "TEXT", nullable: true),
                    ShippingRule = table.Column<string>(type: "TEXT", nullable: true),
                    DocumentsBy = table.Column<string>(type: "TEXT", nullable: true),
                    Phone = table.Column<string>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_buyer", x => x.Id);
                    table.ForeignKey(
                        name: "FK_buyer_buyer_ParentId",
                        column: x => x.ParentId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "campaign",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: true),
                    Family = table.Column<string>(type: "TEXT", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: true),
                    Channel = table.Column<string>(type: "TEXT", nullable: true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Group = table.Column<string>(type: "TEXT", nullable: true),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_campaign", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "charge_rule",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Basis = table.Column<string>(type: "TEXT", nullable: false),
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: true),
                    Family = table.Column<string>(type: "TEXT", nullable: true),
                    DangerousOnly = table.Column<bool>(type: "INTEGER", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: true),
                    BelowGoods = table.Column<long>(type: "INTEGER", nullable: true),
                    Amount = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_charge_rule", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "columns",
                columns: table => new
                {
                    Sender = table.Column<string>(type: "TEXT", nullable: false),
                    Heads = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_columns", x => new { x.Sender, x.Heads });
                });

            migrationBuilder.CreateTable(
                name: "counter",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_counter", x => x.Name);
                });

            migrationBuilder.CreateTable(
                name: "exchange_rate",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Rate = table.Column<long>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_exchange_rate", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "family",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    LeastMarginPercent = table.Column<long>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_family", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "follow_up",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DossierId = table.Column<long>(type: "INTEGER", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    Due = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    DoneAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_follow_up", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "freight_band",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Zone = table.Column<string>(type: "TEXT", nullable: false),
                    Service = table.Column<string>(type: "TEXT", nullable: false),
                    UpToKg = table.Column<long>(type: "INTEGER", nullable: false),
                    Price = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_freight_band", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "freight_zone",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Country = table.Column<string>(type: "TEXT", nullable: false),
                    Zone = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_freight_zone", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "group",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    PriceList = table.Column<string>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_group", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "import",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    FileName = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    Total = table.Column<int>(type: "INTEGER", nullable: false),
                    New = table.Column<int>(type: "INTEGER", nullable: false),
                    Changed = table.Column<int>(type: "INTEGER", nullable: false),
                    Same = table.Column<int>(type: "INTEGER", nullable: false),
                    Refused = table.Column<string>(type: "TEXT", nullable: false),
                    Problem = table.Column<string>(type: "TEXT", nullable: false),
                    ById = table.Column<long>(type: "INTEGER", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_import", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "import_column",
                columns: table => new
                {
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Head = table.Column<string>(type: "TEXT", nullable: false),
                    Field = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_import_column", x => new { x.Kind, x.Head });
                });

            migrationBuilder.CreateTable(
                name: "incoming",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Due = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_incoming", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "item",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Family = table.Column<string>(type: "TEXT", nullable: false),
                    StockUnit = table.Column<string>(type: "TEXT", nullable: false),
                    TaxClass = table.Column<string>(type: "TEXT", nullable: false),
                    FloorPrice = table.Column<long>(type: "INTEGER", nullable: true),
                    LeadDays = table.Column<int>(type: "INTEGER", nullable: true),
                    Stocked = table.Column<bool>(type: "INTEGER", nullable: false),
                    Gtin = table.Column<string>(type: "TEXT", nullable: true),
                    DangerousGoods = table.Column<string>(type: "TEXT", nullable: true),
                    ForbiddenModes = table.Column<string>(type: "TEXT", nullable: false),
                    Successor = table.Column<string>(type: "TEXT", nullable: true),
                    Alternatives = table.Column<string>(type: "TEXT", nullable: false),
                    WordsElsewhere = table.Column<string>(type: "TEXT", nullable: false),
                    WeightKg = table.Column<long>(type: "INTEGER", nullable: true),
                    VolumeDm3 = table.Column<long>(type: "INTEGER", nullable: true),
                    Dimensions = table.Column<string>(type: "TEXT", nullable: false),
                    PackMultiple = table.Column<long>(type: "INTEGER", nullable: true),
                    LeastQuantity = table.Column<long>(type: "INTEGER", nullable: true),
                    NotSoldIn = table.Column<string>(type: "TEXT", nullable: false),
                    NotByChannel = table.Column<string>(type: "TEXT", nullable: false),
                    Parts = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_item", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "one_time_link",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    ExpiresAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    UsedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_one_time_link", x => x.Hash);
                });

            migrationBuilder.CreateTable(
                name: "outbox",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    To = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Payload = table.Column<byte[]>(type: "BLOB", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SentAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    Tries = table.Column<int>(type: "INTEGER", nullable: false),
                    NextTryAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    LastError = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_outbox", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "person",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Login = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Does = table.Column<string>(type: "TEXT", nullable: false),
                    PasswordHash = table.Column<string>(type: "TEXT", nullable: false),
                    Roles = table.Column<string>(type: "TEXT", nullable: false),
                    ReportsToId = table.Column<long>(type: "INTEGER", nullable: true),
                    DiscountPercent = table.Column<long>(type: "INTEGER", nullable: true),
                    LeastMarginPercent = table.Column<long>(type: "INTEGER", nullable: true),
                    Value = table.Column<long>(type: "INTEGER", nullable: true),
                    CreditOver = table.Column<long>(type: "INTEGER", nullable: true),
                    TermsDays = table.Column<int>(type: "INTEGER", nullable: true),
                    FreightUnder = table.Column<long>(type: "INTEGER", nullable: true),
                    WithoutCost = table.Column<long>(type: "INTEGER", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Stamp = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_person", x => x.Id);
                    table.ForeignKey(
                        name: "FK_person_person_ReportsToId",
                        column: x => x.ReportsToId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "price_list",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_price_list", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "print",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_print", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "raw_message",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    Filename = table.Column<string>(type: "TEXT", nullable: true),
                    ContentType = table.Column<string>(type: "TEXT", nullable: true),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    OwnId = table.Column<string>(type: "TEXT", nullable: true),
                    Delivery = table.Column<string>(type: "TEXT", nullable: true),
                    ReceivedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_raw_message", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "repeat",
                columns: table => new
                {
                    Actor = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Act = table.Column<string>(type: "TEXT", nullable: false),
                    Input = table.Column<string>(type: "TEXT", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_repeat", x => new { x.Actor, x.Key });
                });

            migrationBuilder.CreateTable(
                name: "series",
                columns: table => new
                {
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Year = table.Column<int>(type: "INTEGER", nullable: false),
                    Next = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_series", x => new { x.Code, x.Year });
                });

            migrationBuilder.CreateTable(
                name: "setting",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<long>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_setting", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "sheet",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    PricingDate = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Head = table.Column<string>(type: "TEXT", nullable: false),
                    Stated = table.Column<string>(type: "TEXT", nullable: false),
                    Wanted = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    PoNumber = table.Column<string>(type: "TEXT", nullable: true),
                    FrozenRate = table.Column<long>(type: "INTEGER", nullable: true),
                    Channel = table.Column<string>(type: "TEXT", nullable: true),
                    Kept = table.Column<string>(type: "TEXT", nullable: false),
                    TotalWithoutTaxMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    TotalWithTaxMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    MarginMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    NextKey = table.Column<long>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_sheet", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "stock",
                columns: table => new
                {
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    OnHand = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_stock", x => new { x.ItemId, x.Warehouse });
                });

            migrationBuilder.CreateTable(
                name: "tax_rate",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Country = table.Column<string>(type: "TEXT", nullable: true),
                    Class = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Percent = table.Column<long>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_tax_rate", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "view",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Filter = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    Sort = table.Column<string>(type: "TEXT", nullable: true),
                    Down = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_view", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "agreement_break",
                columns: table => new
                {
                    AgreementId = table.Column<long>(type: "INTEGER", nullable: false),
                    From = table.Column<long>(type: "INTEGER", nullable: false),
                    Value = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_agreement_break", x => new { x.AgreementId, x.From });
                    table.ForeignKey(
                        name: "FK_agreement_break_agreement_AgreementId",
                        column: x => x.AgreementId,
                        principalTable: "agreement",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "address",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Use = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Country = table.Column<string>(type: "TEXT", nullable: false),
                    ReceivingDays = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_address", x => x.Id);
                    table.ForeignKey(
                        name: "FK_address_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "buyer_sign",
                columns: table => new
                {
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_buyer_sign", x => new { x.Kind, x.Value, x.BuyerId });
                    table.ForeignKey(
                        name: "FK_buyer_sign_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "contact",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Mail = table.Column<string>(type: "TEXT", nullable: true),
                    Phone = table.Column<string>(type: "TEXT", nullable: true),
                    Does = table.Column<string>(type: "TEXT", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_contact", x => x.Id);
                    table.ForeignKey(
                        name: "FK_contact_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "dossier",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Matter = table.Column<string>(type: "TEXT", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_dossier", x => x.Id);
                    table.ForeignKey(
                        name: "FK_dossier_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "open_item",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Due = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    OpenMinor = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_open_item", x => x.Id);
                    table.ForeignKey(
                        name: "FK_open_item_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "talk",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_talk", x => x.Id);
                    table.ForeignKey(
                        name: "FK_talk_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "alias",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: true),
                    Unit = table.Column<string>(type: "TEXT", nullable: true),
                    LearnedFrom = table.Column<string>(type: "TEXT", nullable: false),
                    LearnedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Helped = table.Column<int>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_alias", x => x.Id);
                    table.ForeignKey(
                        name: "FK_alias_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_alias_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "cost",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Cost = table.Column<long>(type: "INTEGER", nullable: false),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_cost", x => x.Id);
                    table.ForeignKey(
                        name: "FK_cost_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "item_file",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_item_file", x => x.Id);
                    table.ForeignKey(
                        name: "FK_item_file_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "list_price",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    List = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: false),
                    Price = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    PriceBase = table.Column<long>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_list_price", x => x.Id);
                    table.ForeignKey(
                        name: "FK_list_price_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "sales_unit",
                columns: table => new
                {
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: false),
                    Factor = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_sales_unit", x => new { x.ItemId, x.Unit });
                    table.ForeignKey(
                        name: "FK_sales_unit_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "request",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    RawId = table.Column<long>(type: "INTEGER", nullable: false),
                    Message = table.Column<int>(type: "INTEGER", nullable: false),
                    DossierId = table.Column<long>(type: "INTEGER", nullable: true),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    FromWords = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    PoKey = table.Column<string>(type: "TEXT", nullable: false),
                    Syntax = table.Column<string>(type: "TEXT", nullable: false),
                    Names = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Parts = table.Column<string>(type: "TEXT", nullable: false),
                    Reading = table.Column<string>(type: "TEXT", nullable: false),
                    ReceivedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_request", x => x.Id);
                    table.ForeignKey(
                        name: "FK_request_raw_message_RawId",
                        column: x => x.RawId,
                        principalTable: "raw_message",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ask",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    SheetId = table.Column<long>(type: "INTEGER", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    HandId = table.Column<long>(type: "INTEGER", nullable: true),
                    HandName = table.Column<string>(type: "TEXT", nullable: false),
                    AskedById = table.Column<long>(type: "INTEGER", nullable: false),
                    AskedByName = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<long>(type: "INTEGER", nullable: false),
                    ApproverId = table.Column<long>(type: "INTEGER", nullable: false),
                    Outcome = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false),
                    Shown = table.Column<string>(type: "TEXT", nullable: false),
                    Fired = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DecidedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    DecidedById = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ask", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ask_sheet_SheetId",
                        column: x => x.SheetId,
                        principalTable: "sheet",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "sheet_line",
                columns: table => new
                {
                    SheetId = table.Column<long>(type: "INTEGER", nullable: false),
                    Key = table.Column<long>(type: "INTEGER", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: true),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    Unit = table.Column<string>(type: "TEXT", nullable: false),
                    HandKind = table.Column<string>(type: "TEXT", nullable: false),
                    HandValue = table.Column<long>(type: "INTEGER", nullable: false),
                    HandId = table.Column<long>(type: "INTEGER", nullable: true),
                    HandName = table.Column<string>(type: "TEXT", nullable: true),
                    AlsoBy = table.Column<string>(type: "TEXT", nullable: false),
                    Optional = table.Column<bool>(type: "INTEGER", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    AskedWords = table.Column<string>(type: "TEXT", nullable: false),
                    AskedCode = table.Column<string>(type: "TEXT", nullable: true),
                    AskedQuantity = table.Column<long>(type: "INTEGER", nullable: true),
                    AskedUnit = table.Column<string>(type: "TEXT", nullable: true),
                    AskedPrice = table.Column<long>(type: "INTEGER", nullable: true),
                    AskedPriceBase = table.Column<long>(type: "INTEGER", nullable: false),
                    NetPrice = table.Column<long>(type: "INTEGER", nullable: true),
                    BasePrice = table.Column<long>(type: "INTEGER", nullable: true),
                    PriceBase = table.Column<long>(type: "INTEGER", nullable: false),
                    NetMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Promised = table.Column<DateOnly>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_sheet_line", x => new { x.SheetId, x.Key });
                    table.ForeignKey(
                        name: "FK_sheet_line_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_sheet_line_sheet_SheetId",
                        column: x => x.SheetId,
                        principalTable: "sheet",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "event",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WhoId = table.Column<long>(type: "INTEGER", nullable: true),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    DossierId = table.Column<long>(type: "INTEGER", nullable: true),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Facts = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: true),
                    Salt = table.Column<string>(type: "TEXT", nullable: false),
                    FactsHash = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_event", x => x.Id);
                    table.ForeignKey(
                        name: "FK_event_dossier_DossierId",
                        column: x => x.DossierId,
                        principalTable: "dossier",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "quote",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false),
                    DossierId = table.Column<long>(type: "INTEGER", nullable: false),
                    SheetId = table.Column<long>(type: "INTEGER", nullable: false),
                    SellerId = table.Column<long>(type: "INTEGER", nullable: false),
                    RequestId = table.Column<long>(type: "INTEGER", nullable: true),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    ValidUntil = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SentAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    SentTo = table.Column<string>(type: "TEXT", nullable: true),
                    AnsweredAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    AnsweredBy = table.Column<string>(type: "TEXT", nullable: true),
                    DeclineReason = table.Column<string>(type: "TEXT", nullable: true),
                    TokenHash = table.Column<string>(type: "TEXT", nullable: true),
                    PrintId = table.Column<long>(type: "INTEGER", nullable: true),
                    Opened = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_quote", x => x.Id);
                    table.ForeignKey(
                        name: "FK_quote_dossier_DossierId",
                        column: x => x.DossierId,
                        principalTable: "dossier",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_quote_person_SellerId",
                        column: x => x.SellerId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_quote_print_PrintId",
                        column: x => x.PrintId,
                        principalTable: "print",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_quote_sheet_SheetId",
                        column: x => x.SheetId,
                        principalTable: "sheet",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "order",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    DossierId = table.Column<long>(type: "INTEGER", nullable: false),
                    SheetId = table.Column<long>(type: "INTEGER", nullable: false),
                    SellerId = table.Column<long>(type: "INTEGER", nullable: false),
                    QuoteId = table.Column<long>(type: "INTEGER", nullable: true),
                    RequestId = table.Column<long>(type: "INTEGER", nullable: true),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    PoKey = table.Column<string>(type: "TEXT", nullable: false),
                    Terms = table.Column<string>(type: "TEXT", nullable: false),
                    Goods = table.Column<string>(type: "TEXT", nullable: false),
                    Money = table.Column<string>(type: "TEXT", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ConfirmedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    HeldWhy = table.Column<string>(type: "TEXT", nullable: false),
                    Stops = table.Column<int>(type: "INTEGER", nullable: false),
                    FirstStop = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_order", x => x.Id);
                    table.ForeignKey(
                        name: "FK_order_dossier_DossierId",
                        column: x => x.DossierId,
                        principalTable: "dossier",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_order_person_SellerId",
                        column: x => x.SellerId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_order_quote_QuoteId",
                        column: x => x.QuoteId,
                        principalTable: "quote",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_order_sheet_SheetId",
                        column: x => x.SheetId,
                        principalTable: "sheet",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "commitment",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_commitment", x => x.Id);
                    table.ForeignKey(
                        name: "FK_commitment_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "waiver",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    Check = table.Column<string>(type: "TEXT", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: true),
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    Excess = table.Column<long>(type: "INTEGER", nullable: false),
                    ById = table.Column<long>(type: "INTEGER", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_waiver", x => x.Id);
                    table.ForeignKey(
                        name: "FK_waiver_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_address_BuyerId_Code",
                table: "address",
                columns: new[] { "BuyerId", "Code" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_agreement_BuyerId",
                table: "agreement",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_agreement_Code",
                table: "agreement",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_agreement_Group",
                table: "agreement",
                column: "Group");

            migrationBuilder.CreateIndex(
                name: "IX_alias_BuyerId_Words",
                table: "alias",
                columns: new[] { "BuyerId", "Words" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_alias_ItemId",
                table: "alias",
                column: "ItemId");

            migrationBuilder.CreateIndex(
                name: "IX_api_key_Hash",
                table: "api_key",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ask_ApproverId_Outcome",
                table: "ask",
                columns: new[] { "ApproverId", "Outcome" });

            migrationBuilder.CreateIndex(
                name: "IX_ask_SheetId",
                table: "ask",
                column: "SheetId");

            migrationBuilder.CreateIndex(
                name: "IX_buyer_Code",
                table: "buyer",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_buyer_Name",
                table: "buyer",
                column: "Name");

            migrationBuilder.CreateIndex(
                name: "IX_buyer_ParentId",
                table: "buyer",
                column: "ParentId");

            migrationBuilder.CreateIndex(
                name: "IX_buyer_sign_BuyerId",
                table: "buyer_sign",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_campaign_Code",
                table: "campaign",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_charge_rule_Code",
                table: "charge_rule",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_commitment_ItemId_Warehouse",
                table: "commitment",
                columns: new[] { "ItemId", "Warehouse" });

            migrationBuilder.CreateIndex(
                name: "IX_commitment_OrderId",
                table: "commitment",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_contact_BuyerId_Name",
                table: "contact",
                columns: new[] { "BuyerId", "Name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_cost_ItemId_From",
                table: "cost",
                columns: new[] { "ItemId", "From" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_dossier_BuyerId",
                table: "dossier",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_dossier_Number",
                table: "dossier",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_event_Code_Id",
                table: "event",
                columns: new[] { "Code", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_event_DossierId",
                table: "event",
                column: "DossierId");

            migrationBuilder.CreateIndex(
                name: "IX_event_Subject",
                table: "event",
                column: "Subject");

            migrationBuilder.CreateIndex(
                name: "IX_exchange_rate_Currency_Day",
                table: "exchange_rate",
                columns: new[] { "Currency", "Day" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_family_Code",
                table: "family",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_follow_up_DossierId",
                table: "follow_up",
                column: "DossierId");

            migrationBuilder.CreateIndex(
                name: "IX_follow_up_Due",
                table: "follow_up",
                column: "Due");

            migrationBuilder.CreateIndex(
                name: "IX_freight_band_Zone_Service_UpToKg_From",
                table: "freight_band",
                columns: new[] { "Zone", "Service", "UpToKg", "From" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_freight_zone_Country",
                table: "freight_zone",
                column: "Country",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_group_Code",
                table: "group",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_incoming_ItemId_Warehouse",
                table: "incoming",
                columns: new[] { "ItemId", "Warehouse" });

            migrationBuilder.CreateIndex(
                name: "IX_item_Code",
                table: "item",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_item_Family_Words",
                table: "item",
                columns: new[] { "Family", "Words" });

            migrationBuilder.CreateIndex(
                name: "IX_item_Words",
                table: "item",
                column: "Words");

            migrationBuilder.CreateIndex(
                name: "IX_item_file_ItemId",
                table: "item_file",
                column: "ItemId");

            migrationBuilder.CreateIndex(
                name: "IX_list_price_ItemId",
                table: "list_price",
                column: "ItemId");

            migrationBuilder.CreateIndex(
                name: "IX_list_price_List_ItemId_Unit_Currency_From",
                table: "list_price",
                columns: new[] { "List", "ItemId", "Unit", "Currency", "From" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_list_price_Price",
                table: "list_price",
                column: "Price");

            migrationBuilder.CreateIndex(
                name: "IX_open_item_BuyerId",
                table: "open_item",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_order_CreatedAt",
                table: "order",
                column: "CreatedAt",
                filter: "\"Goods\" <> 'Shipped'");

            migrationBuilder.CreateIndex(
                name: "IX_order_DossierId",
                table: "order",
                column: "DossierId");

            migrationBuilder.CreateIndex(
                name: "IX_order_Number",
                table: "order",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_order_PoKey",
                table: "order",
                column: "PoKey");

            migrationBuilder.CreateIndex(
                name: "IX_order_QuoteId",
                table: "order",
                column: "QuoteId");

            migrationBuilder.CreateIndex(
                name: "IX_order_SellerId",
                table: "order",
                column: "SellerId");

            migrationBuilder.CreateIndex(
                name: "IX_order_SheetId",
                table: "order",
                column: "SheetId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_order_Terms",
                table: "order",
                column: "Terms");

            migrationBuilder.CreateIndex(
                name: "IX_outbox_Key",
                table: "outbox",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_outbox_SentAt_NextTryAt",
                table: "outbox",
                columns: new[] { "SentAt", "NextTryAt" });

            migrationBuilder.CreateIndex(
                name: "IX_person_Login",
                table: "person",
                column: "Login",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_person_ReportsToId",
                table: "person",
                column: "ReportsToId");

            migrationBuilder.CreateIndex(
                name: "IX_price_list_Code",
                table: "price_list",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_quote_DossierId",
                table: "quote",
                column: "DossierId");

            migrationBuilder.CreateIndex(
                name: "IX_quote_Number_Revision",
                table: "quote",
                columns: new[] { "Number", "Revision" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_quote_PrintId",
                table: "quote",
                column: "PrintId");

            migrationBuilder.CreateIndex(
                name: "IX_quote_SellerId",
                table: "quote",
                column: "SellerId");

            migrationBuilder.CreateIndex(
                name: "IX_quote_SheetId",
                table: "quote",
                column: "SheetId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_quote_State",
                table: "quote",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_quote_TokenHash",
                table: "quote",
                column: "TokenHash");

            migrationBuilder.CreateIndex(
                name: "IX_raw_message_Delivery",
                table: "raw_message",
                column: "Delivery",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_raw_message_Hash",
                table: "raw_message",
                column: "Hash");

            migrationBuilder.CreateIndex(
                name: "IX_raw_message_OwnId",
                table: "raw_message",
                column: "OwnId");

            migrationBuilder.CreateIndex(
                name: "IX_request_Number",
                table: "request",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_request_RawId",
                table: "request",
                column: "RawId");

            migrationBuilder.CreateIndex(
                name: "IX_request_State",
                table: "request",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_setting_Code",
                table: "setting",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_sheet_line_ItemId",
                table: "sheet_line",
                column: "ItemId");

            migrationBuilder.CreateIndex(
                name: "IX_talk_BuyerId",
                table: "talk",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_tax_rate_Country_Class_From",
                table: "tax_rate",
                columns: new[] { "Country", "Class", "From" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_view_Kind_OwnerId_Name",
                table: "view",
                columns: new[] { "Kind", "OwnerId", "Name" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_waiver_OrderId",
                table: "waiver",
                column: "OrderId");

            // The finder's index, kept by triggers on every way in.
            foreach (var statement in FindIndex.CreateStatements())
                migrationBuilder.Sql(statement);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new NotSupportedException("The house only goes forward.");
    }
}
