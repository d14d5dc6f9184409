using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class HouseAndCredit : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_ask_sheet_SheetId",
                table: "ask");

            migrationBuilder.AddColumn<DateOnly>(
                name: "Until",
                table: "waiver",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "CreditStop",
                table: "order",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateOnly>(
                name: "PaidOn",
                table: "open_item",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CreditBlocked",
                table: "buyer",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "CreditInsuredMinor",
                table: "buyer",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "CreditUntil",
                table: "buyer",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Territory",
                table: "buyer",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AlterColumn<long>(
                name: "SheetId",
                table: "ask",
                type: "INTEGER",
                nullable: true,
                oldClrType: typeof(long),
                oldType: "INTEGER");

            migrationBuilder.AddColumn<string>(
                name: "About",
                table: "ask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Change",
                table: "ask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateOnly>(
                name: "Until",
                table: "ask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "check",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Check = table.Column<string>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    Level = table.Column<string>(type: "TEXT", nullable: false),
                    WaivedBy = table.Column<string>(type: "TEXT", nullable: false),
                    Numbers = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_check", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "deposit",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    Minor = table.Column<long>(type: "INTEGER", nullable: false),
                    ReceivedOn = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Reference = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_deposit", x => x.Id);
                    table.ForeignKey(
                        name: "FK_deposit_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "house",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Mail = table.Column<string>(type: "TEXT", nullable: false),
                    Phone = table.Column<string>(type: "TEXT", nullable: false),
                    TaxNumber = table.Column<string>(type: "TEXT", nullable: false),
                    Register = table.Column<string>(type: "TEXT", nullable: false),
                    Bank = table.Column<string>(type: "TEXT", nullable: false),
                    Logo = table.Column<byte[]>(type: "BLOB", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_house", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "reason",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Use = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_reason", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "territory",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Countries = table.Column<string>(type: "TEXT", nullable: false),
                    SellerId = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_territory", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "warehouse",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    CutOff = table.Column<string>(type: "TEXT", nullable: false),
                    PickingDays = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkingDays = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_warehouse", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_check_Check_Document_Channel",
                table: "check",
                columns: new[] { "Check", "Document", "Channel" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_deposit_OrderId",
                table: "deposit",
                column: "OrderId");

            migrationBuilder.CreateIndex(
                name: "IX_reason_Use_Words",
                table: "reason",
                columns: new[] { "Use", "Words" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_territory_Code",
                table: "territory",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_warehouse_Code",
                table: "warehouse",
                column: "Code",
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "FK_ask_sheet_SheetId",
                table: "ask",
                column: "SheetId",
                principalTable: "sheet",
                principalColumn: "Id");

            // What a buyer owes is asked about too, from here on.
            foreach (var policy in new[] { "credit", "overdue", "kept-floor", "limit-raised" })
                migrationBuilder.Sql(
                    $"""
                    INSERT INTO policy (Version, Code, Figure, Route, Conditions, Named, Buyers, Groups, Families,
                        Channels, Hands, PatienceHours, "From", Holds, Dropped)
                    SELECT 0, '{policy}', '{policy}', 'FirstAble', '', '', '', '', '', '', '', 8, '2000-01-01', 1, 0
                    WHERE NOT EXISTS (SELECT 1 FROM policy WHERE Code = '{policy}')
                    """
                );

            // Where stock lies is a warehouse from here on.
            migrationBuilder.Sql(
                """
                INSERT INTO warehouse (Active, Version, Code, Address, CutOff, PickingDays, WorkingDays)
                SELECT 1, 0, Warehouse, '', '15:00', 1, '' FROM stock GROUP BY Warehouse
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_ask_sheet_SheetId",
                table: "ask");

            migrationBuilder.DropTable(
                name: "check");

            migrationBuilder.DropTable(
                name: "deposit");

            migrationBuilder.DropTable(
                name: "house");

            migrationBuilder.DropTable(
                name: "reason");

            migrationBuilder.DropTable(
                name: "territory");

            migrationBuilder.DropTable(
                name: "warehouse");

            migrationBuilder.DropColumn(
                name: "Until",
                table: "waiver");

            migrationBuilder.DropColumn(
                name: "CreditStop",
                table: "order");

            migrationBuilder.DropColumn(
                name: "PaidOn",
                table: "open_item");

            migrationBuilder.DropColumn(
                name: "CreditBlocked",
                table: "buyer");

            migrationBuilder.DropColumn(
                name: "CreditInsuredMinor",
                table: "buyer");

            migrationBuilder.DropColumn(
                name: "CreditUntil",
                table: "buyer");

            migrationBuilder.DropColumn(
                name: "Territory",
                table: "buyer");

            migrationBuilder.DropColumn(
                name: "About",
                table: "ask");

            migrationBuilder.DropColumn(
                name: "Change",
                table: "ask");

            migrationBuilder.DropColumn(
                name: "Until",
                table: "ask");

            migrationBuilder.AlterColumn<long>(
                name: "SheetId",
                table: "ask",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L,
                oldClrType: typeof(long),
                oldType: "INTEGER",
                oldNullable: true);

            migrationBuilder.AddForeignKey(
                name: "FK_ask_sheet_SheetId",
                table: "ask",
                column: "SheetId",
                principalTable: "sheet",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }
    }
}
