using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class First : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "data_protection_keys",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    friendly_name = table.Column<string>(type: "text", nullable: true),
                    xml = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_data_protection_keys", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "parts",
                columns: table => new
                {
                    hash = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    content = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_parts", x => x.hash);
                });

            migrationBuilder.CreateTable(
                name: "workshops",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_workshops", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "look_rules",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    operation = table.Column<string>(type: "text", nullable: false),
                    stroke = table.Column<string>(type: "text", nullable: true),
                    fill = table.Column<string>(type: "text", nullable: true),
                    dashed = table.Column<bool>(type: "boolean", nullable: true),
                    closed = table.Column<bool>(type: "boolean", nullable: true),
                    layer = table.Column<string>(type: "text", nullable: true),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_look_rules", x => x.id);
                    table.ForeignKey(
                        name: "fk_look_rules_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "machines",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    mat_width_mm = table.Column<double>(type: "double precision", nullable: false),
                    mat_height_mm = table.Column<double>(type: "double precision", nullable: false),
                    border_top_mm = table.Column<double>(type: "double precision", nullable: false),
                    border_right_mm = table.Column<double>(type: "double precision", nullable: false),
                    border_bottom_mm = table.Column<double>(type: "double precision", nullable: false),
                    border_left_mm = table.Column<double>(type: "double precision", nullable: false),
                    reads_marks = table.Column<bool>(type: "boolean", nullable: false),
                    top_speed = table.Column<double>(type: "double precision", nullable: false),
                    acceleration = table.Column<double>(type: "double precision", nullable: false),
                    lift_seconds = table.Column<double>(type: "double precision", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machines", x => new { x.owner, x.key });
                    table.CheckConstraint("ck_machines_sane", "mat_width_mm > 0 and mat_height_mm > 0 and top_speed > 0 and acceleration > 0");
                    table.ForeignKey(
                        name: "fk_machines_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "projects",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    created_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    head = table.Column<int>(type: "integer", nullable: false),
                    last_revision = table.Column<int>(type: "integer", nullable: false),
                    pieces = table.Column<int>(type: "integer", nullable: false),
                    stocks = table.Column<int>(type: "integer", nullable: false),
                    findings = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_projects", x => x.id);
                    table.ForeignKey(
                        name: "fk_projects_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "stocks",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    grams_per_square_metre = table.Column<int>(type: "integer", nullable: false),
                    thickness_mm = table.Column<double>(type: "double precision", nullable: false),
                    colour = table.Column<string>(type: "text", nullable: false),
                    narrowest_mm = table.Column<double>(type: "double precision", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stocks", x => new { x.owner, x.key });
                    table.CheckConstraint("ck_stocks_sane", "thickness_mm > 0 and narrowest_mm > 0 and grams_per_square_metre > 0");
                    table.ForeignKey(
                        name: "fk_stocks_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "holders",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    machine_key = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    tools = table.Column<string[]>(type: "text[]", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_holders", x => new { x.owner, x.machine_key, x.name });
                    table.ForeignKey(
                        name: "fk_holders_machines_owner_machine_key",
                        columns: x => new { x.owner, x.machine_key },
                        principalTable: "machines",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "art_files",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    file_name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    content = table.Column<byte[]>(type: "bytea", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    width_mm = table.Column<double>(type: "double precision", nullable: false),
                    height_mm = table.Column<double>(type: "double precision", nullable: false),
                    lines = table.Column<int>(type: "integer", nullable: false),
                    pieces = table.Column<int>(type: "integer", nullable: false),
                    by_rule = table.Column<int>(type: "integer", nullable: false),
                    notes = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_art_files", x => x.id);
                    table.ForeignKey(
                        name: "fk_art_files_projects_project_id",
                        column: x => x.project_id,
                        principalTable: "projects",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_art_files_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "revisions",
                columns: table => new
                {
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    parent = table.Column<int>(type: "integer", nullable: true),
                    edit = table.Column<string>(type: "jsonb", nullable: true),
                    sentence = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    schema_version = table.Column<int>(type: "integer", nullable: false),
                    set_out_hash = table.Column<string>(type: "character varying(64)", nullable: false),
                    design_hash = table.Column<string>(type: "character varying(64)", nullable: false),
                    sheets_hash = table.Column<string>(type: "character varying(64)", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_revisions", x => new { x.project_id, x.number });
                    table.ForeignKey(
                        name: "fk_revisions_parts_design_hash",
                        column: x => x.design_hash,
                        principalTable: "parts",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revisions_parts_set_out_hash",
                        column: x => x.set_out_hash,
                        principalTable: "parts",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revisions_parts_sheets_hash",
                        column: x => x.sheets_hash,
                        principalTable: "parts",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_revisions_projects_project_id",
                        column: x => x.project_id,
                        principalTable: "projects",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "stock_settings",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    stock_key = table.Column<string>(type: "text", nullable: false),
                    tool = table.Column<string>(type: "text", nullable: false),
                    force_grams = table.Column<int>(type: "integer", nullable: false),
                    speed_mm_per_second = table.Column<double>(type: "double precision", nullable: false),
                    blade_out_mm = table.Column<double>(type: "double precision", nullable: true),
                    temperature_celsius = table.Column<int>(type: "integer", nullable: true),
                    warm_up_seconds = table.Column<int>(type: "integer", nullable: false),
                    times = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_settings", x => new { x.owner, x.stock_key, x.tool });
                    table.CheckConstraint("ck_stock_settings_sane", "force_grams > 0 and speed_mm_per_second > 0 and times >= 1");
                    table.ForeignKey(
                        name: "fk_stock_settings_stocks_owner_stock_key",
                        columns: x => new { x.owner, x.stock_key },
                        principalTable: "stocks",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "stock_sheets",
                columns: table => new
                {
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    stock_key = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    width_mm = table.Column<double>(type: "double precision", nullable: false),
                    height_mm = table.Column<double>(type: "double precision", nullable: false),
                    count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_sheets", x => new { x.owner, x.stock_key, x.name });
                    table.CheckConstraint("ck_stock_sheets_sane", "width_mm > 0 and height_mm > 0 and count >= 0");
                    table.ForeignKey(
                        name: "fk_stock_sheets_stocks_owner_stock_key",
                        columns: x => new { x.owner, x.stock_key },
                        principalTable: "stocks",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "runs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    sheet_id = table.Column<string>(type: "text", nullable: false),
                    sheet_title = table.Column<string>(type: "text", nullable: false),
                    machine = table.Column<string>(type: "text", nullable: false),
                    plan_hash = table.Column<string>(type: "character varying(64)", nullable: false),
                    begun_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    advanced_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    over_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    phase = table.Column<string>(type: "text", nullable: false),
                    step = table.Column<int>(type: "integer", nullable: false),
                    line = table.Column<int>(type: "integer", nullable: false),
                    seconds_into = table.Column<double>(type: "double precision", nullable: false),
                    machine_seconds = table.Column<double>(type: "double precision", nullable: false),
                    speed_up = table.Column<int>(type: "integer", nullable: false),
                    last_event = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_runs", x => x.id);
                    table.ForeignKey(
                        name: "fk_runs_parts_plan_hash",
                        column: x => x.plan_hash,
                        principalTable: "parts",
                        principalColumn: "hash",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_runs_revisions_project_id_revision",
                        columns: x => new { x.project_id, x.revision },
                        principalTable: "revisions",
                        principalColumns: new[] { "project_id", "number" },
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_runs_workshops_owner",
                        column: x => x.owner,
                        principalTable: "workshops",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "run_events",
                columns: table => new
                {
                    run_id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    step = table.Column<int>(type: "integer", nullable: false),
                    line = table.Column<int>(type: "integer", nullable: false),
                    machine_seconds = table.Column<double>(type: "double precision", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_run_events", x => new { x.run_id, x.number });
                    table.ForeignKey(
                        name: "fk_run_events_runs_run_id",
                        column: x => x.run_id,
                        principalTable: "runs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_art_files_owner",
                table: "art_files",
                column: "owner");

            migrationBuilder.CreateIndex(
                name: "ix_art_files_project_id",
                table: "art_files",
                column: "project_id");

            migrationBuilder.CreateIndex(
                name: "ix_look_rules_owner_at",
                table: "look_rules",
                columns: new[] { "owner", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_projects_owner_changed_at",
                table: "projects",
                columns: new[] { "owner", "changed_at" });

            migrationBuilder.CreateIndex(
                name: "ix_revisions_design_hash",
                table: "revisions",
                column: "design_hash");

            migrationBuilder.CreateIndex(
                name: "ix_revisions_set_out_hash",
                table: "revisions",
                column: "set_out_hash");

            migrationBuilder.CreateIndex(
                name: "ix_revisions_sheets_hash",
                table: "revisions",
                column: "sheets_hash");

            migrationBuilder.CreateIndex(
                name: "ix_runs_owner",
                table: "runs",
                column: "owner");

            migrationBuilder.CreateIndex(
                name: "ix_runs_phase",
                table: "runs",
                column: "phase");

            migrationBuilder.CreateIndex(
                name: "ix_runs_plan_hash",
                table: "runs",
                column: "plan_hash");

            migrationBuilder.CreateIndex(
                name: "ix_runs_project_id_begun_at",
                table: "runs",
                columns: new[] { "project_id", "begun_at" });

            migrationBuilder.CreateIndex(
                name: "ix_runs_project_id_revision",
                table: "runs",
                columns: new[] { "project_id", "revision" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "art_files");

            migrationBuilder.DropTable(
                name: "data_protection_keys");

            migrationBuilder.DropTable(
                name: "holders");

            migrationBuilder.DropTable(
                name: "look_rules");

            migrationBuilder.DropTable(
                name: "run_events");

            migrationBuilder.DropTable(
                name: "stock_settings");

            migrationBuilder.DropTable(
                name: "stock_sheets");

            migrationBuilder.DropTable(
                name: "machines");

            migrationBuilder.DropTable(
                name: "runs");

            migrationBuilder.DropTable(
                name: "stocks");

            migrationBuilder.DropTable(
                name: "revisions");

            migrationBuilder.DropTable(
                name: "parts");

            migrationBuilder.DropTable(
                name: "projects");

            migrationBuilder.DropTable(
                name: "workshops");
        }
    }
}
