using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class DrawerChanges : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_drawer_movements_revisions_project_id_revision",
                table: "drawer_movements");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_settings_stocks_owner_stock_key",
                table: "stock_settings");

            migrationBuilder.DropCheckConstraint(
                name: "ck_stocks_sane",
                table: "stocks");

            migrationBuilder.DropPrimaryKey(
                name: "pk_stock_settings",
                table: "stock_settings");

            migrationBuilder.DropIndex(
                name: "ix_drawer_movements_project_id_sheet_id",
                table: "drawer_movements");

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "stocks",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AlterColumn<string>(
                name: "kind",
                table: "stocks",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AddColumn<string>(
                name: "direction",
                table: "stocks",
                type: "text",
                nullable: false,
                defaultValue: "None");

            migrationBuilder.AddColumn<bool>(
                name: "is_favourite",
                table: "stocks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "is_put_away",
                table: "stocks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "pattern",
                table: "stocks",
                type: "text",
                nullable: false,
                defaultValue: "Plain");

            migrationBuilder.AddColumn<string>(
                name: "set_in_use",
                table: "stocks",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                defaultValue: "usual");

            migrationBuilder.AddColumn<string[]>(
                name: "suits",
                table: "stocks",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<bool>(
                name: "takes_print",
                table: "stocks",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "version",
                table: "stocks",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<string>(
                name: "set_name",
                table: "stock_settings",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                defaultValue: "usual");

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "noted_at",
                table: "stock_settings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "noted_from",
                table: "stock_settings",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "tip_mm",
                table: "stock_settings",
                type: "double precision",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "takes_sheet",
                table: "runs",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "takes_stock",
                table: "runs",
                type: "text",
                nullable: true);

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "machines",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AddColumn<bool>(
                name: "is_put_away",
                table: "machines",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "mat_name",
                table: "machines",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                defaultValue: "mat");

            migrationBuilder.AddColumn<int>(
                name: "version",
                table: "machines",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AlterColumn<int>(
                name: "revision",
                table: "drawer_movements",
                type: "integer",
                nullable: true,
                oldClrType: typeof(int),
                oldType: "integer");

            migrationBuilder.AddColumn<Guid>(
                name: "run_id",
                table: "drawer_movements",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddPrimaryKey(
                name: "pk_stock_settings",
                table: "stock_settings",
                columns: new[] { "owner", "stock_key", "set_name", "tool" });

            migrationBuilder.CreateTable(
                name: "craft_tools",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    colour = table.Column<string>(type: "text", nullable: true),
                    width_mm = table.Column<double>(type: "double precision", nullable: true),
                    is_put_away = table.Column<bool>(type: "boolean", nullable: false),
                    version = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_craft_tools", x => new { x.owner, x.key });
                    table.CheckConstraint("ck_craft_tools_sane", "length(name) > 0 and kind in ('Pen', 'Foil', 'FoilTip', 'EmbossTip', 'ScoreTip', 'Blade') and (colour is null or colour ~ '^#[0-9A-Fa-f]{6}$') and (width_mm is null or width_mm > 0)");
                    table.ForeignKey(
                        name: "fk_craft_tools_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "drawer_changes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    sentence = table.Column<string>(type: "text", nullable: false),
                    undone_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drawer_changes", x => x.id);
                    table.CheckConstraint("ck_drawer_changes_sane", "number >= 1");
                    table.ForeignKey(
                        name: "fk_drawer_changes_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "machine_files",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    machine_key = table.Column<string>(type: "text", nullable: false),
                    format = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    units_per_mm = table.Column<double>(type: "double precision", nullable: false),
                    origin = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machine_files", x => new { x.owner, x.machine_key, x.format });
                    table.CheckConstraint("ck_machine_files_sane", "units_per_mm > 0 and format in ('Svg', 'Hpgl') and origin in ('LowerLeft', 'UpperLeft')");
                    table.ForeignKey(
                        name: "fk_machine_files_machines_owner_machine_key",
                        columns: x => new { x.owner, x.machine_key },
                        principalTable: "machines",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "machine_mats",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    machine_key = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    width_mm = table.Column<double>(type: "double precision", nullable: false),
                    height_mm = table.Column<double>(type: "double precision", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machine_mats", x => new { x.owner, x.machine_key, x.name });
                    table.CheckConstraint("ck_machine_mats_sane", "width_mm > 0 and height_mm > 0");
                    table.ForeignKey(
                        name: "fk_machine_mats_machines_owner_machine_key",
                        columns: x => new { x.owner, x.machine_key },
                        principalTable: "machines",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "stock_sets",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    stock_key = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_sets", x => new { x.owner, x.stock_key, x.name });
                    table.ForeignKey(
                        name: "fk_stock_sets_stocks_owner_stock_key",
                        columns: x => new { x.owner, x.stock_key },
                        principalTable: "stocks",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            // What was noted so far is each stock's usual set.
            migrationBuilder.Sql("insert into stock_sets (owner, stock_key, name, position) select owner, key, 'usual', 0 from stocks");

            migrationBuilder.CreateTable(
                name: "drawer_change_things",
                columns: table => new
                {
                    change_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    before = table.Column<string>(type: "jsonb", nullable: true),
                    after = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drawer_change_things", x => new { x.change_id, x.kind, x.key });
                    table.CheckConstraint("ck_drawer_change_things_sane", "kind in ('stock', 'machine', 'tool')");
                    table.ForeignKey(
                        name: "fk_drawer_change_things_drawer_changes_change_id",
                        column: x => x.change_id,
                        principalTable: "drawer_changes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_stocks_sane",
                table: "stocks",
                sql: "thickness_mm > 0 and narrowest_mm > 0 and grams_per_square_metre > 0 and length(name) > 0 and colour ~ '^#[0-9A-Fa-f]{6}$' and pattern in ('Plain', 'Stripes', 'Dots', 'Checks', 'Flecks') and direction in ('None', 'Across', 'Down') and suits <@ array['Pen', 'FoilTip', 'EmbossTip', 'ScoreTip', 'Blade']::text[]");

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_project_id_sheet_id",
                table: "drawer_movements",
                columns: new[] { "project_id", "sheet_id" },
                unique: true,
                filter: "is_active and run_id is null");

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_run_id",
                table: "drawer_movements",
                column: "run_id",
                unique: true);

            migrationBuilder.AddCheckConstraint(
                name: "ck_drawer_movements_by",
                table: "drawer_movements",
                sql: "(revision is null) <> (run_id is null)");

            migrationBuilder.CreateIndex(
                name: "ix_drawer_changes_owner_number",
                table: "drawer_changes",
                columns: new[] { "owner", "number" },
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_drawer_movements_revisions_project_id_revision",
                table: "drawer_movements",
                columns: new[] { "project_id", "revision" },
                principalTable: "revisions",
                principalColumns: new[] { "project_id", "number" });

            migrationBuilder.AddForeignKey(
                name: "fk_drawer_movements_runs_run_id",
                table: "drawer_movements",
                column: "run_id",
                principalTable: "runs",
                principalColumn: "id");

            migrationBuilder.AddForeignKey(
                name: "fk_stock_settings_stock_sets_owner_stock_key_set_name",
                table: "stock_settings",
                columns: new[] { "owner", "stock_key", "set_name" },
                principalTable: "stock_sets",
                principalColumns: new[] { "owner", "stock_key", "name" },
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_drawer_movements_revisions_project_id_revision",
                table: "drawer_movements");

            migrationBuilder.DropForeignKey(
                name: "fk_drawer_movements_runs_run_id",
                table: "drawer_movements");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_settings_stock_sets_owner_stock_key_set_name",
                table: "stock_settings");

            migrationBuilder.DropTable(
                name: "craft_tools");

            migrationBuilder.DropTable(
                name: "drawer_change_things");

            migrationBuilder.DropTable(
                name: "machine_files");

            migrationBuilder.DropTable(
                name: "machine_mats");

            migrationBuilder.DropTable(
                name: "stock_sets");

            migrationBuilder.DropTable(
                name: "drawer_changes");

            migrationBuilder.DropCheckConstraint(
                name: "ck_stocks_sane",
                table: "stocks");

            migrationBuilder.DropPrimaryKey(
                name: "pk_stock_settings",
                table: "stock_settings");

            migrationBuilder.DropIndex(
                name: "ix_drawer_movements_project_id_sheet_id",
                table: "drawer_movements");

            migrationBuilder.DropIndex(
                name: "ix_drawer_movements_run_id",
                table: "drawer_movements");

            migrationBuilder.DropCheckConstraint(
                name: "ck_drawer_movements_by",
                table: "drawer_movements");

            migrationBuilder.DropColumn(
                name: "direction",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "is_favourite",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "is_put_away",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "pattern",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "set_in_use",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "suits",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "takes_print",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "version",
                table: "stocks");

            migrationBuilder.DropColumn(
                name: "set_name",
                table: "stock_settings");

            migrationBuilder.DropColumn(
                name: "noted_at",
                table: "stock_settings");

            migrationBuilder.DropColumn(
                name: "noted_from",
                table: "stock_settings");

            migrationBuilder.DropColumn(
                name: "tip_mm",
                table: "stock_settings");

            migrationBuilder.DropColumn(
                name: "takes_sheet",
                table: "runs");

            migrationBuilder.DropColumn(
                name: "takes_stock",
                table: "runs");

            migrationBuilder.DropColumn(
                name: "is_put_away",
                table: "machines");

            migrationBuilder.DropColumn(
                name: "mat_name",
                table: "machines");

            migrationBuilder.DropColumn(
                name: "version",
                table: "machines");

            migrationBuilder.DropColumn(
                name: "run_id",
                table: "drawer_movements");

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "stocks",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(80)",
                oldMaxLength: 80);

            migrationBuilder.AlterColumn<string>(
                name: "kind",
                table: "stocks",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(80)",
                oldMaxLength: 80);

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "machines",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(80)",
                oldMaxLength: 80);

            migrationBuilder.AlterColumn<int>(
                name: "revision",
                table: "drawer_movements",
                type: "integer",
                nullable: false,
                defaultValue: 0,
                oldClrType: typeof(int),
                oldType: "integer",
                oldNullable: true);

            migrationBuilder.AddPrimaryKey(
                name: "pk_stock_settings",
                table: "stock_settings",
                columns: new[] { "owner", "stock_key", "tool" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_stocks_sane",
                table: "stocks",
                sql: "thickness_mm > 0 and narrowest_mm > 0 and grams_per_square_metre > 0");

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_project_id_sheet_id",
                table: "drawer_movements",
                columns: new[] { "project_id", "sheet_id" },
                unique: true,
                filter: "is_active");

            migrationBuilder.AddForeignKey(
                name: "fk_drawer_movements_revisions_project_id_revision",
                table: "drawer_movements",
                columns: new[] { "project_id", "revision" },
                principalTable: "revisions",
                principalColumns: new[] { "project_id", "number" },
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_settings_stocks_owner_stock_key",
                table: "stock_settings",
                columns: new[] { "owner", "stock_key" },
                principalTable: "stocks",
                principalColumns: new[] { "owner", "key" },
                onDelete: ReferentialAction.Cascade);
        }
    }
}
