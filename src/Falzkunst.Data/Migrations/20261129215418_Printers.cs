using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Printers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_craft_tools_sane",
                table: "craft_tools");

            migrationBuilder.AddCheckConstraint(
                name: "ck_craft_tools_sane",
                table: "craft_tools",
                sql: "length(name) > 0 and kind in ('Pen', 'Foil', 'FoilTip', 'EmbossTip', 'ScoreTip', 'Blade', 'Printer') and (colour is null or colour ~ '^#[0-9A-Fa-f]{6}$') and (width_mm is null or width_mm > 0 or (kind = 'Printer' and width_mm = 0))");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_craft_tools_sane",
                table: "craft_tools");

            migrationBuilder.AddCheckConstraint(
                name: "ck_craft_tools_sane",
                table: "craft_tools",
                sql: "length(name) > 0 and kind in ('Pen', 'Foil', 'FoilTip', 'EmbossTip', 'ScoreTip', 'Blade') and (colour is null or colour ~ '^#[0-9A-Fa-f]{6}$') and (width_mm is null or width_mm > 0)");
        }
    }
}
