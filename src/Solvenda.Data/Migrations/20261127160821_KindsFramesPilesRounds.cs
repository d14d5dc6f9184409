using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class KindsFramesPilesRounds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Orders and quotes are made anew; the migration after this one keeps their index again.
            foreach (var statement in FindIndex.LetGoStatements("order", "quote"))
                migrationBuilder.Sql(statement);

            migrationBuilder.AddColumn<long>(
                name: "OrderId",
                table: "quote",
                type: "INTEGER",
                nullable: true);

            // What an order was made from is said by the quote: several may go into one order.
            migrationBuilder.Sql(
                """UPDATE "quote" SET "OrderId" = (SELECT "Id" FROM "order" WHERE "order"."QuoteId" = "quote"."Id");"""
            );
            migrationBuilder.Sql("""UPDATE "order" SET "QuoteId" = NULL;""");

            migrationBuilder.DropForeignKey(
                name: "FK_order_quote_QuoteId",
                table: "order");

            migrationBuilder.RenameColumn(
                name: "QuoteId",
                table: "order",
                newName: "FrameId");

            migrationBuilder.RenameIndex(
                name: "IX_order_QuoteId",
                table: "order",
                newName: "IX_order_FrameId");

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "order",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "StopChecks",
                table: "order",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Certificate",
                table: "item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "ExportNote",
                table: "item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "HasSerials",
                table: "item",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "WantsCertificates",
                table: "buyer",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "WarehouseNote",
                table: "buyer",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "pile",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<long>(type: "INTEGER", nullable: false),
                    Shared = table.Column<bool>(type: "INTEGER", nullable: false),
                    CreatedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_pile", x => x.Id);
                    table.ForeignKey(
                        name: "FK_pile_person_OwnerId",
                        column: x => x.OwnerId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "reservation",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    QuoteId = table.Column<long>(type: "INTEGER", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    Until = table.Column<DateOnly>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_reservation", x => x.Id);
                    table.ForeignKey(
                        name: "FK_reservation_quote_QuoteId",
                        column: x => x.QuoteId,
                        principalTable: "quote",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "restriction",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Country = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_restriction", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "round",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Deed = table.Column<string>(type: "TEXT", nullable: false),
                    Given = table.Column<string>(type: "TEXT", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    BegunAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    StoppedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    EndedAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_round", x => x.Id);
                    table.ForeignKey(
                        name: "FK_round_person_PersonId",
                        column: x => x.PersonId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "pile_item",
                columns: table => new
                {
                    PileId = table.Column<long>(type: "INTEGER", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    PutAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    PutBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_pile_item", x => new { x.PileId, x.Kind, x.Number });
                    table.ForeignKey(
                        name: "FK_pile_item_pile_PileId",
                        column: x => x.PileId,
                        principalTable: "pile",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "round_item",
                columns: table => new
                {
                    RoundId = table.Column<long>(type: "INTEGER", nullable: false),
                    No = table.Column<int>(type: "INTEGER", nullable: false),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    Outcome = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_round_item", x => new { x.RoundId, x.No });
                    table.ForeignKey(
                        name: "FK_round_item_round_RoundId",
                        column: x => x.RoundId,
                        principalTable: "round",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_quote_OrderId",
                table: "quote",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_pile_Key",
                table: "pile",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_pile_OwnerId",
                table: "pile",
                column: "OwnerId");

            migrationBuilder.CreateIndex(
                name: "IX_reservation_ItemId_Warehouse",
                table: "reservation",
                columns: new[] { "ItemId", "Warehouse" });

            migrationBuilder.CreateIndex(
                name: "IX_reservation_QuoteId",
                table: "reservation",
                column: "QuoteId");

            migrationBuilder.CreateIndex(
                name: "IX_restriction_Name_Country",
                table: "restriction",
                columns: new[] { "Name", "Country" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_round_EndedAt",
                table: "round",
                column: "EndedAt");

            migrationBuilder.CreateIndex(
                name: "IX_round_PersonId",
                table: "round",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_round_item_RoundId_Outcome",
                table: "round_item",
                columns: new[] { "RoundId", "Outcome" });

            migrationBuilder.AddForeignKey(
                name: "FK_order_order_FrameId",
                table: "order",
                column: "FrameId",
                principalTable: "order",
                principalColumn: "Id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "FK_quote_order_OrderId",
                table: "quote",
                column: "OrderId",
                principalTable: "order",
                principalColumn: "Id",
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_order_order_FrameId",
                table: "order");

            migrationBuilder.DropForeignKey(
                name: "FK_quote_order_OrderId",
                table: "quote");

            migrationBuilder.DropTable(
                name: "pile_item");

            migrationBuilder.DropTable(
                name: "reservation");

            migrationBuilder.DropTable(
                name: "restriction");

            migrationBuilder.DropTable(
                name: "round_item");

            migrationBuilder.DropTable(
                name: "pile");

            migrationBuilder.DropTable(
                name: "round");

            migrationBuilder.DropIndex(
                name: "IX_quote_OrderId",
                table: "quote");

            migrationBuilder.DropColumn(
                name: "OrderId",
                table: "quote");

            migrationBuilder.DropColumn(
                name: "Kind",
                table: "order");

            migrationBuilder.DropColumn(
                name: "StopChecks",
                table: "order");

            migrationBuilder.DropColumn(
                name: "Certificate",
                table: "item");

            migrationBuilder.DropColumn(
                name: "ExportNote",
                table: "item");

            migrationBuilder.DropColumn(
                name: "HasSerials",
                table: "item");

            migrationBuilder.DropColumn(
                name: "WantsCertificates",
                table: "buyer");

            migrationBuilder.DropColumn(
                name: "WarehouseNote",
                table: "buyer");

            migrationBuilder.RenameColumn(
                name: "FrameId",
                table: "order",
                newName: "QuoteId");

            migrationBuilder.RenameIndex(
                name: "IX_order_FrameId",
                table: "order",
                newName: "IX_order_QuoteId");

            migrationBuilder.AddForeignKey(
                name: "FK_order_quote_QuoteId",
                table: "order",
                column: "QuoteId",
                principalTable: "quote",
                principalColumn: "Id",
                onDelete: ReferentialAction.Restrict);
        }
    }
}
