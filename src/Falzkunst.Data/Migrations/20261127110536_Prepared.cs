using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Prepared : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "is_prepared",
                table: "workshops",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            // What was prepared by a former state is complete.
            migrationBuilder.Sql("update workshops set is_prepared = true where exists (select from projects where owner = workshops.id);");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "is_prepared",
                table: "workshops");
        }
    }
}
