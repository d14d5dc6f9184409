using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class FindOrdersAgain : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            foreach (var statement in FindIndex.KeepStatements("order", "quote"))
                migrationBuilder.Sql(statement);

        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            foreach (var statement in FindIndex.LetGoStatements("order", "quote"))
                migrationBuilder.Sql(statement);

        }
    }
}
