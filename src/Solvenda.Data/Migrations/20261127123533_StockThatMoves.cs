using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class StockThatMoves : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateOnly>(
                name: "FirstDue",
                table: "incoming",
                type: "TEXT",
                nullable: false,
                defaultValue: new DateOnly(1, 1, 1));

            migrationBuilder.AddColumn<string>(
                name: "Reference",
                table: "incoming",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "stock_movement",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_stock_movement", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "supply_request",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    Wanted = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Answered = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_supply_request", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_incoming_Reference",
                table: "incoming",
                column: "Reference");

            migrationBuilder.CreateIndex(
                name: "IX_stock_movement_Document",
                table: "stock_movement",
                column: "Document");

            migrationBuilder.CreateIndex(
                name: "IX_stock_movement_ItemId_Warehouse_Day",
                table: "stock_movement",
                columns: new[] { "ItemId", "Warehouse", "Day" });

            migrationBuilder.CreateIndex(
                name: "IX_supply_request_ItemId_Warehouse",
                table: "supply_request",
                columns: new[] { "ItemId", "Warehouse" });

            migrationBuilder.CreateIndex(
                name: "IX_supply_request_Number",
                table: "supply_request",
                column: "Number",
                unique: true);

            // What lies there was counted today; what comes is due when it was said at first.
            migrationBuilder.Sql(
                "INSERT INTO stock_movement (ItemId, Warehouse, Day, Quantity, Kind, Document) SELECT ItemId, Warehouse, date('now'), OnHand, 'Counted', '' FROM stock"
            );
            migrationBuilder.Sql("UPDATE incoming SET FirstDue = Due");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "stock_movement");

            migrationBuilder.DropTable(
                name: "supply_request");

            migrationBuilder.DropIndex(
                name: "IX_incoming_Reference",
                table: "incoming");

            migrationBuilder.DropColumn(
                name: "FirstDue",
                table: "incoming");

            migrationBuilder.DropColumn(
                name: "Reference",
                table: "incoming");
        }
    }
}
