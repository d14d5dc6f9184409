using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Solvenda.Data.Migrations
{
    /// <inheritdoc />
    public partial class Shipments : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Bin",
                table: "stock",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "carrier",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Active = table.Column<bool>(type: "INTEGER", nullable: false),
                    Version = table.Column<long>(type: "INTEGER", nullable: false),
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    Carries = table.Column<string>(type: "TEXT", nullable: false),
                    Services = table.Column<string>(type: "TEXT", nullable: false),
                    MostKg = table.Column<long>(type: "INTEGER", nullable: true),
                    CutOff = table.Column<string>(type: "TEXT", nullable: false),
                    FollowAt = table.Column<string>(type: "TEXT", nullable: false),
                    Form = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_carrier", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "shipment",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Number = table.Column<string>(type: "TEXT", nullable: false),
                    OrderId = table.Column<long>(type: "INTEGER", nullable: false),
                    No = table.Column<int>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Warehouse = table.Column<string>(type: "TEXT", nullable: false),
                    Carrier = table.Column<string>(type: "TEXT", nullable: false),
                    DeliverTo = table.Column<string>(type: "TEXT", nullable: false),
                    ByName = table.Column<string>(type: "TEXT", nullable: false),
                    BegunAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    GoneAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    WeightKg = table.Column<long>(type: "INTEGER", nullable: true),
                    Parcels = table.Column<int>(type: "INTEGER", nullable: false),
                    Tracking = table.Column<string>(type: "TEXT", nullable: false),
                    CostMinor = table.Column<long>(type: "INTEGER", nullable: true),
                    Delivered = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    PrintId = table.Column<long>(type: "INTEGER", nullable: true),
                    Version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_shipment", x => x.Id);
                    table.ForeignKey(
                        name: "FK_shipment_order_OrderId",
                        column: x => x.OrderId,
                        principalTable: "order",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_shipment_print_PrintId",
                        column: x => x.PrintId,
                        principalTable: "print",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "shipment_line",
                columns: table => new
                {
                    ShipmentId = table.Column<long>(type: "INTEGER", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_shipment_line", x => new { x.ShipmentId, x.LineKey });
                    table.ForeignKey(
                        name: "FK_shipment_line_shipment_ShipmentId",
                        column: x => x.ShipmentId,
                        principalTable: "shipment",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "shipment_pick",
                columns: table => new
                {
                    ShipmentId = table.Column<long>(type: "INTEGER", nullable: false),
                    LineKey = table.Column<long>(type: "INTEGER", nullable: false),
                    ItemId = table.Column<long>(type: "INTEGER", nullable: false),
                    Quantity = table.Column<long>(type: "INTEGER", nullable: false),
                    Picked = table.Column<long>(type: "INTEGER", nullable: true),
                    Serials = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_shipment_pick", x => new { x.ShipmentId, x.LineKey, x.ItemId });
                    table.ForeignKey(
                        name: "FK_shipment_pick_item_ItemId",
                        column: x => x.ItemId,
                        principalTable: "item",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_shipment_pick_shipment_ShipmentId",
                        column: x => x.ShipmentId,
                        principalTable: "shipment",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_carrier_Code",
                table: "carrier",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_shipment_Day",
                table: "shipment",
                column: "Day");

            migrationBuilder.CreateIndex(
                name: "IX_shipment_Number",
                table: "shipment",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_shipment_OrderId_No",
                table: "shipment",
                columns: new[] { "OrderId", "No" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_shipment_PrintId",
                table: "shipment",
                column: "PrintId");

            migrationBuilder.CreateIndex(
                name: "IX_shipment_State_Warehouse",
                table: "shipment",
                columns: new[] { "State", "Warehouse" });

            migrationBuilder.CreateIndex(
                name: "IX_shipment_pick_ItemId",
                table: "shipment_pick",
                column: "ItemId");

            // What had gone before shipments were kept went whole; nobody could pick by an act.
            migrationBuilder.Sql("""UPDATE "order" SET Goods = 'Waiting' WHERE Goods IN ('Picking', 'PartShipped');""");
            migrationBuilder.Sql(
                """
                INSERT INTO shipment (Number, OrderId, No, State, Warehouse, Carrier, DeliverTo, ByName, BegunAt, Day,
                    GoneAt, Parcels, Tracking, Version)
                SELECT Number || '/1', Id, 1, 'Gone', '', '', '', '', ConfirmedAt, date(ConfirmedAt), ConfirmedAt, 0, '', 1
                FROM "order" WHERE Goods = 'Shipped' AND ConfirmedAt IS NOT NULL;
                """);
            migrationBuilder.Sql(
                """
                INSERT INTO shipment_line (ShipmentId, LineKey, Quantity)
                SELECT s.Id, l.Key, l.Quantity FROM shipment s JOIN "order" o ON o.Id = s.OrderId
                JOIN sheet_line l ON l.SheetId = o.SheetId WHERE l.Kind = 'Item';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "carrier");

            migrationBuilder.DropTable(
                name: "shipment_line");

            migrationBuilder.DropTable(
                name: "shipment_pick");

            migrationBuilder.DropTable(
                name: "shipment");

            migrationBuilder.DropColumn(
                name: "Bin",
                table: "stock");
        }
    }
}
