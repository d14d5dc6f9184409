using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class AuthorityAndPolicies : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Device",
                table: "session",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Mail",
                table: "person",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "SecondFactor",
                table: "person",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "SecondFactorStep",
                table: "person",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "Signature",
                table: "person",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "TellBy",
                table: "person",
                type: "TEXT",
                nullable: false,
                defaultValue: "Mail");

            migrationBuilder.AddColumn<TimeOnly>(
                name: "WorksFrom",
                table: "person",
                type: "TEXT",
                nullable: false,
                defaultValue: new TimeOnly(9, 0, 0));

            migrationBuilder.AddColumn<TimeOnly>(
                name: "WorksTo",
                table: "person",
                type: "TEXT",
                nullable: false,
                defaultValue: new TimeOnly(17, 0, 0));

            migrationBuilder.AddColumn<long>(
                name: "PersonId",
                table: "one_time_link",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DueAt",
                table: "ask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Marks",
                table: "ask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "PatienceHours",
                table: "ask",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Question",
                table: "ask",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "QuestionById",
                table: "ask",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Step",
                table: "ask",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Steps",
                table: "ask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "UpTo",
                table: "ask",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "UpToFigure",
                table: "ask",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateTime>(
                name: "ExpiresAt",
                table: "api_key",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "absence",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    StandInId = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_absence", x => x.Id);
                    table.ForeignKey(
                        name: "FK_absence_person_PersonId",
                        column: x => x.PersonId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ask_holder",
                columns: table => new
                {
                    AskId = table.Column<long>(type: "INTEGER", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ask_holder", x => new { x.AskId, x.PersonId });
                    table.ForeignKey(
                        name: "FK_ask_holder_ask_AskId",
                        column: x => x.AskId,
                        principalTable: "ask",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ask_holder_person_PersonId",
                        column: x => x.PersonId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "authority",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: true),
                    KeyId = table.Column<long>(type: "INTEGER", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Limit = table.Column<long>(type: "INTEGER", nullable: true),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    GivenById = table.Column<long>(type: "INTEGER", nullable: true),
                    GivenByName = table.Column<string>(type: "TEXT", nullable: false),
                    GivenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Holds = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_authority", x => x.Id);
                    table.ForeignKey(
                        name: "FK_authority_api_key_KeyId",
                        column: x => x.KeyId,
                        principalTable: "api_key",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_authority_person_PersonId",
                        column: x => x.PersonId,
                        principalTable: "person",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "holiday",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_holiday", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "notice",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Link = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SeenAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    InDigest = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_notice", x => x.Id);
                    table.ForeignKey(
                        name: "FK_notice_person_PersonId",
                        column: x => x.PersonId,
                        principalTable: "person",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "policy",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Figure = table.Column<string>(type: "TEXT", nullable: false),
                    Route = table.Column<string>(type: "TEXT", nullable: false),
                    Conditions = table.Column<string>(type: "TEXT", nullable: false),
                    Named = table.Column<string>(type: "TEXT", nullable: false),
                    Buyers = table.Column<string>(type: "TEXT", nullable: false),
                    Groups = table.Column<string>(type: "TEXT", nullable: false),
                    Families = table.Column<string>(type: "TEXT", nullable: false),
                    Channels = table.Column<string>(type: "TEXT", nullable: false),
                    Hands = table.Column<string>(type: "TEXT", nullable: false),
                    PatienceHours = table.Column<int>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    To = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Holds = table.Column<bool>(type: "INTEGER", nullable: false),
                    Dropped = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_policy", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "team",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Members = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_team", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ask_Outcome_DueAt",
                table: "ask",
                columns: new[] { "Outcome", "DueAt" });

            migrationBuilder.CreateIndex(
                name: "IX_ask_Subject",
                table: "ask",
                column: "Subject");

            migrationBuilder.CreateIndex(
                name: "IX_absence_PersonId",
                table: "absence",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_ask_holder_PersonId",
                table: "ask_holder",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_authority_KeyId",
                table: "authority",
                column: "KeyId");

            migrationBuilder.CreateIndex(
                name: "IX_authority_PersonId_Kind_From",
                table: "authority",
                columns: new[] { "PersonId", "Kind", "From" });

            migrationBuilder.CreateIndex(
                name: "IX_holiday_Day",
                table: "holiday",
                column: "Day",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_notice_PersonId_SeenAt",
                table: "notice",
                columns: new[] { "PersonId", "SeenAt" });

            migrationBuilder.CreateIndex(
                name: "IX_policy_Code",
                table: "policy",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_team_Code",
                table: "team",
                column: "Code",
                unique: true);

            migrationBuilder.AddColumn<bool>(
                name: "Urgent",
                table: "ask",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            // What people may decide becomes rows from the first day on; costs typed under the catalogue's were measured
            // by what may be sold without one.
            foreach (
                var (kind, column, times) in new[]
                {
                    ("discount", "DiscountPercent", 1),
                    ("margin", "LeastMarginPercent", 1),
                    ("value", "Value", 1),
                    ("terms", "TermsDays", 1_000_000),
                    ("freight", "FreightUnder", 1),
                    ("without-cost", "WithoutCost", 1),
                    ("cost-under", "WithoutCost", 1),
                    ("credit", "CreditOver", 1),
                }
            )
                migrationBuilder.Sql(
                    $"""
                    INSERT INTO authority (PersonId, Kind, "Limit", "From", GivenByName, GivenAt, Holds)
                    SELECT Id, '{kind}', {column} * {times}, '2000-01-01', 'the house', '2000-01-01 00:00:00', 1
                    FROM person WHERE {column} IS NOT NULL
                    """
                );
            migrationBuilder.Sql("INSERT INTO ask_holder (AskId, PersonId) SELECT Id, ApproverId FROM ask");
            migrationBuilder.Sql("UPDATE ask SET Steps = CAST(ApproverId AS TEXT)");
            // The policies that were in the program are rows from here on.
            foreach (
                var policy in new[]
                {
                    "discount",
                    "margin",
                    "floor",
                    "cost-under",
                    "sheet-discount",
                    "terms",
                    "freight",
                    "value",
                    "without-cost",
                }
            )
                migrationBuilder.Sql(
                    $"""
                    INSERT INTO policy (Version, Code, Figure, Route, Conditions, Named, Buyers, Groups, Families,
                        Channels, Hands, PatienceHours, "From", Holds, Dropped)
                    VALUES (0, '{policy}', '{policy}', 'FirstAble', '', '', '', '', '', '', '', 8, '2000-01-01', 1, 0)
                    """
                );

            migrationBuilder.DropIndex(
                name: "IX_ask_ApproverId_Outcome",
                table: "ask");

            migrationBuilder.DropColumn(
                name: "CreditOver",
                table: "person");

            migrationBuilder.DropColumn(
                name: "DiscountPercent",
                table: "person");

            migrationBuilder.DropColumn(
                name: "FreightUnder",
                table: "person");

            migrationBuilder.DropColumn(
                name: "LeastMarginPercent",
                table: "person");

            migrationBuilder.DropColumn(
                name: "TermsDays",
                table: "person");

            migrationBuilder.DropColumn(
                name: "Value",
                table: "person");

            migrationBuilder.DropColumn(
                name: "WithoutCost",
                table: "person");

            migrationBuilder.DropColumn(
                name: "ApproverId",
                table: "ask");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Dated authority does not fit into columns: restore the backup instead.");
    }
}
