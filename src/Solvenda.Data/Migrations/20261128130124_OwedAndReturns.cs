using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class OwedAndReturns : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Reason",
                table: "paid",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Disputed",
                table: "open_item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "DisputedBy",
                table: "open_item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateOnly>(
                name: "DisputedOn",
                table: "open_item",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "EarlyMinor",
                table: "open_item",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<DateOnly>(
                name: "EarlyUntil",
                table: "open_item",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "RemindedOn",
                table: "open_item",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ReminderStep",
                table: "open_item",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "PaymentPlan",
                table: "buyer",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "return",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    No = table.Column<int>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    For = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    ToldTo = table.Column<string>(type: "TEXT", nullable: false),
                    BackOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    SettledBy = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_return", x => x.Id);
                    table.ForeignKey(
                        name: "FK_return_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "return_line",
                columns: table => new
                {
                    ReturnId = table.Column<long>(type: "INTEGER", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    ToStock = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_return_line", x => new { x.ReturnId, x.LineKey });
                    table.ForeignKey(
                        name: "FK_return_line_return_ReturnId",
                        column: x => x.ReturnId,
                        principalTable: "return",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_return_Number",
                table: "return",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_return_OrderId",
                table: "return",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_return_State",
                table: "return",
                column: "State");

            migrationBuilder.Sql(
                """
                INSERT INTO account (Active, Version, Code, Words, "Use", TaxCategory)
                SELECT 1, 1, n.Code, n.Words, n.Purpose, '' FROM (
                    SELECT '1600' AS Code, 'till' AS Words, 'Till' AS Purpose UNION ALL
                    SELECT '4900', 'taken off for paying early', 'EarlyPayment' UNION ALL
                    SELECT '6840', 'fees of sales channels', 'Fees'
                ) n WHERE NOT EXISTS (SELECT 1 FROM account a WHERE a.Code = n.Code);
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "return_line");

            migrationBuilder.DropTable(
                name: "return");

            migrationBuilder.DropColumn(
                name: "Reason",
                table: "paid");

            migrationBuilder.DropColumn(
                name: "Disputed",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "DisputedBy",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "DisputedOn",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "EarlyMinor",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "EarlyUntil",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "RemindedOn",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "ReminderStep",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "PaymentPlan",
                table: "buyer");
        }
    }
}
