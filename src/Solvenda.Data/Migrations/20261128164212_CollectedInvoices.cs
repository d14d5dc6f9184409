using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class CollectedInvoices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "CollectsInvoices",
                table: "buyer",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "invoice_part",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    InvoiceId = table.Column<long>(type: "INTEGER", nullable: false),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    TotalWithTaxMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Bill = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_invoice_part", x => x.Id);
                    table.ForeignKey(
                        name: "FK_invoice_part_invoice_InvoiceId",
                        column: x => x.InvoiceId,
                        principalTable: "invoice",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_invoice_part_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_invoice_part_InvoiceId",
                table: "invoice_part",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_invoice_part_OrderId",
                table: "invoice_part",
                column: "OrderId");

            // What an invoice was for stands with its order from now on: an invoice may be for several.
            migrationBuilder.Sql(
                """
                INSERT INTO invoice_part (InvoiceId, OrderId, TotalWithTaxMinor, Bill)
                SELECT Id, OrderId, TotalWithTaxMinor, Bill FROM invoice;
                ALTER TABLE invoice DROP COLUMN Bill;
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "invoice_part");

            migrationBuilder.DropColumn(
                name: "CollectsInvoices",
                table: "buyer");

            migrationBuilder.AddColumn<string>(
                name: "Bill",
                table: "invoice",
                type: "TEXT",
                nullable: false,
                defaultValue: "");
        }
    }
}
