using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class LotsWavesCommissions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Lot",
                table: "stock",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Lots",
                table: "shipment_pick",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Wave",
                table: "shipment",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "HasLots",
                table: "item",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "TaxesAdvances",
                table: "house",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "InvoiceId",
                table: "deposit",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "TaxedMinor",
                table: "deposit",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<long>(
                name: "TaxedTakenMinor",
                table: "deposit",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<bool>(
                name: "ByFile",
                table: "carrier",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "commission",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    InvoiceId = table.Column<long>(type: "INTEGER", nullable: false),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Plan = table.Column<string>(type: "TEXT", nullable: false),
                    On = table.Column<string>(type: "TEXT", nullable: false),
                    Percent = table.Column<long>(type: "INTEGER", nullable: false),
                    Share = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    BasisMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Minor = table.Column<long>(type: "INTEGER", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_commission", x => x.Id);
                    table.ForeignKey(
                        name: "FK_commission_invoice_InvoiceId",
                        column: x => x.InvoiceId,
                        principalTable: "invoice",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_commission_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "commission_plan",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    SellerId = table.Column<long>(type: "INTEGER", nullable: true),
                    LeadId = table.Column<long>(type: "INTEGER", nullable: true),
                    On = table.Column<string>(type: "TEXT", nullable: false),
                    Percent = table.Column<long>(type: "INTEGER", nullable: false),
                    Shares = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Until = table.Column<DateOnly>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_commission_plan", x => x.Id);
                    table.ForeignKey(
                        name: "FK_commission_plan_person_LeadId",
                        column: x => x.LeadId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_commission_plan_person_SellerId",
                        column: x => x.SellerId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "paper_text",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Paper = table.Column<string>(type: "TEXT", nullable: false),
                    Language = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Group = table.Column<string>(type: "TEXT", nullable: false),
                    Above = table.Column<string>(type: "TEXT", nullable: false),
                    Below = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_paper_text", x => x.Id);
                    table.ForeignKey(
                        name: "FK_paper_text_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_commission_Day",
                table: "commission",
                column: "Day");

            migrationBuilder.CreateIndex(
                name: "IX_commission_InvoiceId",
                table: "commission",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_commission_OrderId",
                table: "commission",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_commission_plan_Code",
                table: "commission_plan",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_commission_plan_LeadId",
                table: "commission_plan",
                column: "LeadId");

            migrationBuilder.CreateIndex(
                name: "IX_commission_plan_SellerId",
                table: "commission_plan",
                column: "SellerId");

            migrationBuilder.CreateIndex(
                name: "IX_paper_text_BuyerId",
                table: "paper_text",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_paper_text_Code",
                table: "paper_text",
                column: "Code",
                unique: true);

            // A house that is there goes on as it did, until somebody sets it.
            migrationBuilder.Sql("UPDATE house SET TaxesAdvances = 0;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "commission");

            migrationBuilder.DropTable(
                name: "commission_plan");

            migrationBuilder.DropTable(
                name: "paper_text");

            migrationBuilder.DropColumn(
                name: "Lot",
                table: "stock");

            migrationBuilder.DropColumn(
                name: "Lots",
                table: "shipment_pick");

            migrationBuilder.DropColumn(
                name: "Wave",
                table: "shipment");

            migrationBuilder.DropColumn(
                name: "HasLots",
                table: "item");

            migrationBuilder.DropColumn(
                name: "TaxesAdvances",
                table: "house");

            migrationBuilder.DropColumn(
                name: "InvoiceId",
                table: "deposit");

            migrationBuilder.DropColumn(
                name: "TaxedMinor",
                table: "deposit");

            migrationBuilder.DropColumn(
                name: "TaxedTakenMinor",
                table: "deposit");

            migrationBuilder.DropColumn(
                name: "ByFile",
                table: "carrier");
        }
    }
}
