using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class RulesAndVariants : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_look_rules_owner_at",
                table: "look_rules");

            migrationBuilder.AddColumn<string>(
                name: "variants_hash",
                table: "revisions",
                type: "character varying(64)",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "fold",
                table: "look_rules",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "origin",
                table: "look_rules",
                type: "character varying(80)",
                maxLength: 80,
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "position",
                table: "look_rules",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "origin",
                table: "art_files",
                type: "character varying(80)",
                maxLength: 80,
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "rules_used",
                table: "art_files",
                type: "jsonb",
                nullable: false,
                defaultValueSql: "'[]'");

            migrationBuilder.CreateIndex(
                name: "ix_revisions_variants_hash",
                table: "revisions",
                column: "variants_hash");

            migrationBuilder.CreateIndex(
                name: "ix_look_rules_owner_position",
                table: "look_rules",
                columns: new[] { "owner", "position" });

            migrationBuilder.AddForeignKey(
                name: "fk_revisions_parts_variants_hash",
                table: "revisions",
                column: "variants_hash",
                principalTable: "parts",
                principalColumn: "hash",
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_revisions_parts_variants_hash",
                table: "revisions");

            migrationBuilder.DropIndex(
                name: "ix_revisions_variants_hash",
                table: "revisions");

            migrationBuilder.DropIndex(
                name: "ix_look_rules_owner_position",
                table: "look_rules");

            migrationBuilder.DropColumn(
                name: "variants_hash",
                table: "revisions");

            migrationBuilder.DropColumn(
                name: "fold",
                table: "look_rules");

            migrationBuilder.DropColumn(
                name: "origin",
                table: "look_rules");

            migrationBuilder.DropColumn(
                name: "position",
                table: "look_rules");

            migrationBuilder.DropColumn(
                name: "origin",
                table: "art_files");

            migrationBuilder.DropColumn(
                name: "rules_used",
                table: "art_files");

            migrationBuilder.CreateIndex(
                name: "ix_look_rules_owner_at",
                table: "look_rules",
                columns: new[] { "owner", "at" });
        }
    }
}
