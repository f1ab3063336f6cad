using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class ArtUnits : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "settled_units",
                table: "art_files",
                type: "double precision",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "units_to_inch",
                table: "art_files",
                type: "double precision",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "settled_units",
                table: "art_files");

            migrationBuilder.DropColumn(
                name: "units_to_inch",
                table: "art_files");
        }
    }
}
