using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class WaysIn : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Corrected",
                table: "request",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Currency",
                table: "request",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "First",
                table: "request",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "HandId",
                table: "request",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Notices",
                table: "request",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "Ready",
                table: "request",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "SurePercent",
                table: "request",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Through",
                table: "request",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "Weighed",
                table: "request",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<long>(
                name: "WorthMinor",
                table: "request",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "answer",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RequestId = table.Column<long>(type: "INTEGER", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    To = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_answer", x => x.Id);
                    table.ForeignKey(
                        name: "FK_answer_request_RequestId",
                        column: x => x.RequestId,
                        principalTable: "request",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "run",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Taken = table.Column<int>(type: "INTEGER", nullable: false),
                    Failed = table.Column<int>(type: "INTEGER", nullable: false),
                    Log = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_run", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "template",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Language = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_template", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "way",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Channel = table.Column<string>(type: "TEXT", nullable: false),
                    BuyerId = table.Column<long>(type: "INTEGER", nullable: true),
                    Through = table.Column<bool>(type: "INTEGER", nullable: false),
                    LeastSurePercent = table.Column<int>(type: "INTEGER", nullable: false),
                    Passes = table.Column<string>(type: "TEXT", nullable: false),
                    FreeLines = table.Column<bool>(type: "INTEGER", nullable: false),
                    NewAddresses = table.Column<bool>(type: "INTEGER", nullable: false),
                    KeeperId = table.Column<long>(type: "INTEGER", nullable: true),
                    Open = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_way", x => x.Id);
                    table.ForeignKey(
                        name: "FK_way_buyer_BuyerId",
                        column: x => x.BuyerId,
                        principalTable: "buyer",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_way_person_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_answer_RequestId",
                table: "answer",
                column: "RequestId");

            migrationBuilder.CreateIndex(
                name: "IX_run_Channel_At",
                table: "run",
                columns: new[] { "Channel", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_template_Name_Language",
                table: "template",
                columns: new[] { "Name", "Language" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_way_BuyerId",
                table: "way",
                column: "BuyerId");

            migrationBuilder.CreateIndex(
                name: "IX_way_Channel_BuyerId",
                table: "way",
                columns: new[] { "Channel", "BuyerId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_way_KeeperId",
                table: "way",
                column: "KeeperId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "answer");

            migrationBuilder.DropTable(
                name: "run");

            migrationBuilder.DropTable(
                name: "template");

            migrationBuilder.DropTable(
                name: "way");

            migrationBuilder.DropColumn(
                name: "Corrected",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Currency",
                table: "request");

            migrationBuilder.DropColumn(
                name: "First",
                table: "request");

            migrationBuilder.DropColumn(
                name: "HandId",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Notices",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Ready",
                table: "request");

            migrationBuilder.DropColumn(
                name: "SurePercent",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Through",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Weighed",
                table: "request");

            migrationBuilder.DropColumn(
                name: "WorthMinor",
                table: "request");
        }
    }
}
