using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class NeverDown : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "ReadTries",
                table: "request",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "Apart",
                table: "outbox",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "session",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    BegunAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_session", x => x.Hash);
                });

            migrationBuilder.CreateTable(
                name: "trouble",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Worker = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    FirstAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    LastAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Times = table.Column<int>(type: "INTEGER", nullable: false),
                    Apart = table.Column<bool>(type: "INTEGER", nullable: false),
                    Left = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_trouble", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_session_PersonId",
                table: "session",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_trouble_Worker_Subject",
                table: "trouble",
                columns: new[] { "Worker", "Subject" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "session");

            migrationBuilder.DropTable(
                name: "trouble");

            migrationBuilder.DropColumn(
                name: "ReadTries",
                table: "request");

            migrationBuilder.DropColumn(
                name: "Apart",
                table: "outbox");
        }
    }
}
