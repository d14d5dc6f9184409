using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class PapersAndCustoms : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "HsCode",
                table: "item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "NetKg",
                table: "item",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Origin",
                table: "item",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "PaperColour",
                table: "house",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "PaperFoot",
                table: "house",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "HsCode",
                table: "item");

            migrationBuilder.DropColumn(
                name: "NetKg",
                table: "item");

            migrationBuilder.DropColumn(
                name: "Origin",
                table: "item");

            migrationBuilder.DropColumn(
                name: "PaperColour",
                table: "house");

            migrationBuilder.DropColumn(
                name: "PaperFoot",
                table: "house");
        }
    }
}
