using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class Find : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            foreach (var statement in FindIndex.CreateStatements())
                migrationBuilder.Sql(statement);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => throw new System.NotSupportedException("The house only goes forward.");
    }
}
