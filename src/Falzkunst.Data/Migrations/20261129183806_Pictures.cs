using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Pictures : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "pictures",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    content = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    file = table.Column<byte[]>(type: "bytea", nullable: false),
                    media_type = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: false),
                    screen = table.Column<byte[]>(type: "bytea", nullable: false),
                    pixels_across = table.Column<int>(type: "integer", nullable: false),
                    pixels_down = table.Column<int>(type: "integer", nullable: false),
                    dots_per_inch = table.Column<double>(type: "double precision", nullable: true),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_pictures", x => new { x.owner, x.content });
                    table.CheckConstraint("ck_pictures_sane", "length(content) = 64 and pixels_across > 0 and pixels_down > 0 and length(file) > 0 and length(screen) > 0 and (dots_per_inch is null or dots_per_inch > 0)");
                    table.ForeignKey(
                        name: "fk_pictures_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "pictures");
        }
    }
}
