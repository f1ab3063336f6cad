using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Offcuts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "both_sides_alike",
                table: "stocks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "stock_offcuts",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    stock_key = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    kept_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    outline = table.Column<string>(type: "text", nullable: false),
                    holes = table.Column<string[]>(type: "text[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_offcuts", x => new { x.owner, x.stock_key, x.name });
                    table.ForeignKey(
                        name: "fk_stock_offcuts_stocks_owner_stock_key",
                        columns: x => new { x.owner, x.stock_key },
                        principalTable: "stocks",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "stock_offcuts");

            migrationBuilder.DropColumn(
                name: "both_sides_alike",
                table: "stocks");
        }
    }
}
