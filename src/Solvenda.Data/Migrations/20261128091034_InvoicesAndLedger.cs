using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class InvoicesAndLedger : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Invoice",
                table: "shipment",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "InvoicedMinor",
                table: "order",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "Currency",
                table: "open_item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "HomeMinor",
                table: "open_item",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "InvoiceId",
                table: "open_item",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "ClosedUntil",
                table: "house",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "HomeMinor",
                table: "deposit",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "TakenMinor",
                table: "deposit",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.CreateTable(
                name: "account",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Use = table.Column<string>(type: "TEXT", nullable: false),
                    TaxCategory = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_account", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "entry",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    Account = table.Column<string>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    DebitMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    CreditMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_entry", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "invoice",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    CreditsId = table.Column<long>(type: "INTEGER", nullable: true),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Due = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    TotalWithoutTaxMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    TotalWithTaxMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    PrepaidMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Rate = table.Column<long>(type: "INTEGER", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    ToldTo = table.Column<string>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    PrintId = table.Column<long>(type: "INTEGER", nullable: true),
                    Bill = table.Column<string>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_invoice", x => x.Id);
                    table.ForeignKey(
                        name: "FK_invoice_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_invoice_invoice_CreditsId",
                        column: x => x.CreditsId,
                        principalTable: "invoice",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_invoice_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_invoice_print_PrintId",
                        column: x => x.PrintId,
                        principalTable: "print",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "receipt",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Account = table.Column<string>(type: "TEXT", nullable: false),
                    Reference = table.Column<string>(type: "TEXT", nullable: false),
                    Statement = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Minor = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Payer = table.Column<string>(type: "TEXT", nullable: false),
                    PayerAccount = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false),
                    LeftMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    LeftHomeMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_receipt", x => x.Id);
                    table.ForeignKey(
                        name: "FK_receipt_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "paid",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    OpenItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    ReceiptId = table.Column<long>(type: "INTEGER", nullable: true),
                    CreditId = table.Column<long>(type: "INTEGER", nullable: true),
                    Minor = table.Column<long>(type: "INTEGER", nullable: false),
                    HomeMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_paid", x => x.Id);
                    table.ForeignKey(
                        name: "FK_paid_invoice_CreditId",
                        column: x => x.CreditId,
                        principalTable: "invoice",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_paid_open_item_OpenItemId",
                        column: x => x.OpenItemId,
                        principalTable: "open_item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_paid_receipt_ReceiptId",
                        column: x => x.ReceiptId,
                        principalTable: "receipt",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_shipment_State_Invoice",
                table: "shipment",
                columns: new[] { "State", "Invoice" });

            migrationBuilder.CreateIndex(
                name: "IX_open_item_InvoiceId",
                table: "open_item",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_open_item_Number",
                table: "open_item",
                column: "Number");

            migrationBuilder.CreateIndex(
                name: "IX_account_Code",
                table: "account",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_entry_Account",
                table: "entry",
                column: "Account");

            migrationBuilder.CreateIndex(
                name: "IX_entry_Day",
                table: "entry",
                column: "Day");

            migrationBuilder.CreateIndex(
                name: "IX_entry_Document",
                table: "entry",
                column: "Document");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_BuyerId",
                table: "invoice",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_CreditsId",
                table: "invoice",
                column: "CreditsId");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_Day",
                table: "invoice",
                column: "Day");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_Number",
                table: "invoice",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_invoice_OrderId",
                table: "invoice",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_PrintId",
                table: "invoice",
                column: "PrintId");

            migrationBuilder.CreateIndex(
                name: "IX_paid_CreditId",
                table: "paid",
                column: "CreditId");

            migrationBuilder.CreateIndex(
                name: "IX_paid_OpenItemId",
                table: "paid",
                column: "OpenItemId");

            migrationBuilder.CreateIndex(
                name: "IX_paid_ReceiptId",
                table: "paid",
                column: "ReceiptId");

            migrationBuilder.CreateIndex(
                name: "IX_receipt_Account_Reference",
                table: "receipt",
                columns: new[] { "Account", "Reference" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_receipt_BuyerId",
                table: "receipt",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_receipt_State_Day",
                table: "receipt",
                columns: new[] { "State", "Day" });

            // What was invoiced before the house invoiced here itself is not invoiced again.
            migrationBuilder.Sql(
                """
                UPDATE shipment SET Invoice = 'before' WHERE State = 'Gone' AND OrderId IN
                    (SELECT Id FROM "order" WHERE Money IN ('Invoiced', 'PartPaid', 'Paid'));
                """);
            migrationBuilder.Sql(
                """
                UPDATE deposit SET TakenMinor = Minor WHERE OrderId IN
                    (SELECT Id FROM "order" WHERE Money IN ('Invoiced', 'PartPaid', 'Paid'));
                """);
            // The usual accounts; the house renames them and adds its own.
            migrationBuilder.Sql(
                """
                INSERT INTO account (Active, Version, Code, Words, "Use", TaxCategory) VALUES
                    (1, 1, '1400', 'receivable', 'Receivable', ''),
                    (1, 1, '1810', 'bank, current account', 'Bank', ''),
                    (1, 1, '1820', 'held by sales channels', 'AtChannels', ''),
                    (1, 1, '2300', 'money of buyers on account', 'OnAccount', ''),
                    (1, 1, '2410', 'tax owed', 'TaxOwed', ''),
                    (1, 1, '2900', 'what was there before', 'Opening', ''),
                    (1, 1, '4000', 'sales', 'Revenue', ''),
                    (1, 1, '4100', 'sales within the Union', 'Revenue', 'K'),
                    (1, 1, '4200', 'exports', 'Revenue', 'G'),
                    (1, 1, '6850', 'differences of exchange', 'Exchange', ''),
                    (1, 1, '6860', 'small differences', 'Differences', '');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "account");

            migrationBuilder.DropTable(
                name: "entry");

            migrationBuilder.DropTable(
                name: "paid");

            migrationBuilder.DropTable(
                name: "invoice");

            migrationBuilder.DropTable(
                name: "receipt");

            migrationBuilder.DropIndex(
                name: "IX_shipment_State_Invoice",
                table: "shipment");

            migrationBuilder.DropIndex(
                name: "IX_open_item_InvoiceId",
                table: "open_item");

            migrationBuilder.DropIndex(
                name: "IX_open_item_Number",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "Invoice",
                table: "shipment");

            migrationBuilder.DropColumn(
                name: "InvoicedMinor",
                table: "order");

            migrationBuilder.DropColumn(
                name: "Currency",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "HomeMinor",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "InvoiceId",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "ClosedUntil",
                table: "house");

            migrationBuilder.DropColumn(
                name: "HomeMinor",
                table: "deposit");

            migrationBuilder.DropColumn(
                name: "TakenMinor",
                table: "deposit");
        }
    }
}
