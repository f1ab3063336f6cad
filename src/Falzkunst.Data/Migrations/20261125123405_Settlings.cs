using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Settlings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "settlings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    stock = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    made_for = table.Column<string>(type: "text", nullable: false),
                    phase = table.Column<string>(type: "text", nullable: false),
                    seconds = table.Column<int>(type: "integer", nullable: false),
                    seed = table.Column<int>(type: "integer", nullable: false),
                    asked_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    begun_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    beat_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    better_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    over_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    answers = table.Column<int>(type: "integer", nullable: false),
                    best = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_settlings", x => x.id);
                    table.CheckConstraint("ck_settlings_sane", "seconds > 0");
                    table.ForeignKey(
                        name: "fk_settlings_revisions_project_id_revision",
                        columns: x => new { x.project_id, x.revision },
                        principalTable: "revisions",
                        principalColumns: new[] { "project_id", "number" },
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_settlings_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_settlings_owner",
                table: "settlings",
                column: "owner");

            migrationBuilder.CreateIndex(
                name: "ix_settlings_phase",
                table: "settlings",
                column: "phase");

            migrationBuilder.CreateIndex(
                name: "ix_settlings_project_id_revision",
                table: "settlings",
                columns: new[] { "project_id", "revision" });

            migrationBuilder.CreateIndex(
                name: "ix_settlings_project_id_stock_asked_at",
                table: "settlings",
                columns: new[] { "project_id", "stock", "asked_at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "settlings");
        }
    }
}
