using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class Receipts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // By a statement of its own: else the whole table would be written anew, without its triggers.
            migrationBuilder.Sql("ALTER TABLE request DROP COLUMN \"Notices\"");
            migrationBuilder.Sql("ALTER TABLE way DROP COLUMN \"FreeLines\"");

            migrationBuilder.AddColumn<int>(
                name: "EveryMinutes",
                table: "way",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Settings",
                table: "way",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Follows",
                table: "request",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "BuyerId",
                table: "raw_message",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Control",
                table: "outbox",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Receipt",
                table: "outbox",
                type: "TEXT",
                nullable: false,
                defaultValue: "None");

            migrationBuilder.AddColumn<DateTime>(
                name: "ReceiptBy",
                table: "outbox",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ReceiptWords",
                table: "outbox",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "portal_key",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Label = table.Column<string>(type: "TEXT", nullable: false),
                    TokenHash = table.Column<string>(type: "TEXT", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ExpiresAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_portal_key", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_outbox_Control",
                table: "outbox",
                column: "Control");

            migrationBuilder.CreateIndex(
                name: "IX_outbox_Receipt_ReceiptBy",
                table: "outbox",
                columns: new[] { "Receipt", "ReceiptBy" });

            migrationBuilder.CreateIndex(
                name: "IX_portal_key_TokenHash",
                table: "portal_key",
                column: "TokenHash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "portal_key");

            migrationBuilder.DropIndex(
                name: "IX_outbox_Control",
                table: "outbox");

            migrationBuilder.DropIndex(
                name: "IX_outbox_Receipt_ReceiptBy",
                table: "outbox");

            migrationBuilder.DropColumn(
                name: "Settings",
                table: "way");

            migrationBuilder.DropColumn(
                name: "Follows",
                table: "request");

            migrationBuilder.DropColumn(
                name: "BuyerId",
                table: "raw_message");

            migrationBuilder.DropColumn(
                name: "Control",
                table: "outbox");

            migrationBuilder.DropColumn(
                name: "Receipt",
                table: "outbox");

            migrationBuilder.DropColumn(
                name: "ReceiptBy",
                table: "outbox");

            migrationBuilder.DropColumn(
                name: "ReceiptWords",
                table: "outbox");

            migrationBuilder.DropColumn(
                name: "EveryMinutes",
                table: "way");

            migrationBuilder.AddColumn<bool>(
                name: "FreeLines",
                table: "way",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Notices",
                table: "request",
                type: "TEXT",
                nullable: false,
                defaultValue: "");
        }
    }
}
