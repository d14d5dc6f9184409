using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class RequestsAreFound : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("ALTER TABLE request ADD COLUMN Brief TEXT NOT NULL DEFAULT '';");
            migrationBuilder.Sql(
                "UPDATE request SET Brief = coalesce('PO ' || json_extract(Reading, '$.poNumber.value') || ', ', '')"
                    + " || json_array_length(Reading, '$.lines')"
                    + " || iif(json_array_length(Reading, '$.lines') = 1, ' line', ' lines') WHERE Reading <> '';");

            // What is long goes to the end of the row: SQLite reads a row up to the column that is asked for, and what is
            // counted and listed stood behind it.
            foreach (var column in new[] { "Text", "Parts", "Reading", "First" })
            {
                migrationBuilder.Sql($"ALTER TABLE request ADD COLUMN {column}Last TEXT NOT NULL DEFAULT '';");
                migrationBuilder.Sql($"UPDATE request SET {column}Last = {column};");
                migrationBuilder.Sql($"ALTER TABLE request DROP COLUMN {column};");
                migrationBuilder.Sql($"ALTER TABLE request RENAME COLUMN {column}Last TO {column};");
            }

            migrationBuilder.DropIndex(
                name: "IX_request_State",
                table: "request");

            migrationBuilder.CreateIndex(
                name: "IX_request_PoKey_BuyerId",
                table: "request",
                columns: new[] { "PoKey", "BuyerId" });

            migrationBuilder.CreateIndex(
                name: "IX_request_ReceivedAt_Channel_Through_State",
                table: "request",
                columns: new[] { "ReceivedAt", "Channel", "Through", "State" });

            migrationBuilder.CreateIndex(
                name: "IX_request_State_Ready_ReceivedAt",
                table: "request",
                columns: new[] { "State", "Ready", "ReceivedAt" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_request_PoKey_BuyerId",
                table: "request");

            migrationBuilder.DropIndex(
                name: "IX_request_ReceivedAt_Channel_Through_State",
                table: "request");

            migrationBuilder.DropIndex(
                name: "IX_request_State_Ready_ReceivedAt",
                table: "request");

            migrationBuilder.CreateIndex(
                name: "IX_request_State",
                table: "request",
                column: "State");
        }
    }
}
