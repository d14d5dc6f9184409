using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class LanguageAndWayOut : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "DocumentsBy",
                table: "sheet",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Language",
                table: "sheet",
                type: "TEXT",
                nullable: false,
                defaultValue: "en");

            // Until now everything was written in English, and went by mail or by the EDI it came by.
            migrationBuilder.Sql("""UPDATE "sheet" SET "DocumentsBy" = CASE WHEN "Id" IN (SELECT "SheetId" FROM "order" WHERE "Channel" = 'edi') THEN 'edi' ELSE 'mail' END""");
            migrationBuilder.Sql("""UPDATE "buyer" SET "Language" = 'en' WHERE "Language" NOT IN ('de', 'en', 'es', 'nl', 'no', 'sv')""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "DocumentsBy",
                table: "sheet");

            migrationBuilder.DropColumn(
                name: "Language",
                table: "sheet");
        }
    }
}
