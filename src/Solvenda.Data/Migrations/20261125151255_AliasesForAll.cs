using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class AliasesForAll : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_alias_buyer_BuyerId",
                table: "alias");

            migrationBuilder.AlterColumn<long>(
                name: "BuyerId",
                table: "alias",
                type: "INTEGER",
                nullable: true,
                oldClrType: typeof(long),
                oldType: "INTEGER");

            migrationBuilder.AddForeignKey(
                name: "FK_alias_buyer_BuyerId",
                table: "alias",
                column: "BuyerId",
                principalTable: "buyer",
                principalColumn: "Id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_alias_buyer_BuyerId",
                table: "alias");

            migrationBuilder.AlterColumn<long>(
                name: "BuyerId",
                table: "alias",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L,
                oldClrType: typeof(long),
                oldType: "INTEGER",
                oldNullable: true);

            migrationBuilder.AddForeignKey(
                name: "FK_alias_buyer_BuyerId",
                table: "alias",
                column: "BuyerId",
                principalTable: "buyer",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }
    }
}
