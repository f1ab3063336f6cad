using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class JobsAndInvariants : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_art_files_projects_project_id",
                table: "art_files");

            migrationBuilder.DropForeignKey(
                name: "fk_art_files_workshops_owner",
                table: "art_files");

            migrationBuilder.DropForeignKey(
                name: "fk_runs_workshops_owner",
                table: "runs");

            // One unfinished run a machine: of several the newest goes on, the others count as stopped.
            migrationBuilder.Sql("""
                with stale as (
                    select id from (select id, row_number() over (partition by owner, machine order by begun_at desc, id desc) as n
                                    from runs where phase not in ('Done', 'Stopped')) as unfinished where n > 1)
                update runs set phase = 'Stopped', over_at = coalesce(over_at, now()) where id in (select id from stale);
                """);

            migrationBuilder.DropCheckConstraint(
                name: "ck_stock_settings_sane",
                table: "stock_settings");

            migrationBuilder.DropIndex(
                name: "ix_runs_owner",
                table: "runs");

            migrationBuilder.DropIndex(
                name: "ix_art_files_owner",
                table: "art_files");

            migrationBuilder.DropIndex(
                name: "ix_art_files_project_id",
                table: "art_files");

            migrationBuilder.AddColumn<int>(
                name: "drawer_version",
                table: "workshops",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "offcuts_made",
                table: "stocks",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<Guid>(
                name: "movement",
                table: "stock_offcuts",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "thrown_at",
                table: "stock_offcuts",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "pictures",
                table: "art_files",
                type: "jsonb",
                nullable: false,
                defaultValueSql: "'[]'");

            migrationBuilder.AddColumn<double>(
                name: "scale",
                table: "art_files",
                type: "double precision",
                nullable: false,
                defaultValue: 1.0);

            migrationBuilder.AddUniqueConstraint(
                name: "ak_projects_id_owner",
                table: "projects",
                columns: new[] { "id", "owner" });

            migrationBuilder.CreateTable(
                name: "drawer_movements",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    sheet_id = table.Column<string>(type: "text", nullable: false),
                    stock_key = table.Column<string>(type: "text", nullable: false),
                    took = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    is_active = table.Column<bool>(type: "boolean", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drawer_movements", x => x.id);
                    table.ForeignKey(
                        name: "fk_drawer_movements_projects_project_id_owner",
                        columns: x => new { x.project_id, x.owner },
                        principalTable: "projects",
                        principalColumns: new[] { "id", "owner" },
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_drawer_movements_revisions_project_id_revision",
                        columns: x => new { x.project_id, x.revision },
                        principalTable: "revisions",
                        principalColumns: new[] { "project_id", "number" },
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_drawer_movements_stocks_owner_stock_key",
                        columns: x => new { x.owner, x.stock_key },
                        principalTable: "stocks",
                        principalColumns: new[] { "owner", "key" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "jobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner = table.Column<Guid>(type: "uuid", nullable: false),
                    project_id = table.Column<Guid>(type: "uuid", nullable: false),
                    revision = table.Column<int>(type: "integer", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    made_for = table.Column<string>(type: "text", nullable: false),
                    request = table.Column<string>(type: "text", nullable: true),
                    phase = table.Column<string>(type: "text", nullable: false),
                    worker = table.Column<Guid>(type: "uuid", nullable: true),
                    attempts = table.Column<int>(type: "integer", nullable: false),
                    asked_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    begun_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    beat_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    better_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    over_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    progress = table.Column<double>(type: "double precision", nullable: false),
                    answers = table.Column<int>(type: "integer", nullable: false),
                    schema_version = table.Column<int>(type: "integer", nullable: false),
                    result = table.Column<string>(type: "jsonb", nullable: true),
                    failure = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_jobs", x => x.id);
                    table.CheckConstraint("ck_jobs_kind", "kind in ('Settle', 'Survey', 'Thicken', 'Send')");
                    table.CheckConstraint("ck_jobs_phase", "phase in ('Waiting', 'Working', 'Done', 'Stopped', 'Interrupted', 'Failed')");
                    table.CheckConstraint("ck_jobs_sane", "progress between 0 and 1 and attempts >= 0 and answers >= 0");
                    table.ForeignKey(
                        name: "fk_jobs_projects_project_id_owner",
                        columns: x => new { x.project_id, x.owner },
                        principalTable: "projects",
                        principalColumns: new[] { "id", "owner" },
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_jobs_revisions_project_id_revision",
                        columns: x => new { x.project_id, x.revision },
                        principalTable: "revisions",
                        principalColumns: new[] { "project_id", "number" },
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "known_results",
                columns: table => new
                {
                    key = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    value = table.Column<string>(type: "text", nullable: false),
                    schema_version = table.Column<int>(type: "integer", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_known_results", x => x.key);
                });

            migrationBuilder.AddCheckConstraint(
                name: "ck_stock_settings_sane",
                table: "stock_settings",
                sql: "force_grams > 0 and speed_mm_per_second > 0 and times >= 1 and tool in ('Pen', 'FoilTip', 'EmbossTip', 'ScoreTip', 'Blade')");

            migrationBuilder.CreateIndex(
                name: "ix_stock_offcuts_movement",
                table: "stock_offcuts",
                column: "movement");

            migrationBuilder.CreateIndex(
                name: "ix_runs_owner_machine",
                table: "runs",
                columns: new[] { "owner", "machine" },
                unique: true,
                filter: "phase not in ('Done', 'Stopped', 'Broken')");

            migrationBuilder.CreateIndex(
                name: "ix_runs_project_id_owner",
                table: "runs",
                columns: new[] { "project_id", "owner" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_runs_phase",
                table: "runs",
                sql: "phase in ('WaitingForPaper', 'Running', 'WaitingForTool', 'Paused', 'Done', 'Stopped', 'Broken')");

            migrationBuilder.AddCheckConstraint(
                name: "ck_runs_sane",
                table: "runs",
                sql: "step >= 0 and line >= 0 and seconds_into >= 0 and machine_seconds >= 0 and speed_up between 1 and 1000 and last_event >= 0");

            migrationBuilder.AddCheckConstraint(
                name: "ck_run_events_kind",
                table: "run_events",
                sql: "kind in ('Created', 'Confirmed', 'PassBegan', 'LinesDone', 'StopReached', 'Paused', 'Resumed', 'Stopped', 'Done')");

            migrationBuilder.CreateIndex(
                name: "ix_revisions_project_id_parent",
                table: "revisions",
                columns: new[] { "project_id", "parent" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_revisions_sane",
                table: "revisions",
                sql: "number >= 1 and (parent is null) = (number = 1) and parent < number and (parent is null) = (edit is null)");

            migrationBuilder.AddCheckConstraint(
                name: "ck_projects_sane",
                table: "projects",
                sql: "head >= 1 and last_revision >= head and length(name) > 0 and pieces >= 0 and stocks >= 0 and findings >= 0");

            migrationBuilder.AddCheckConstraint(
                name: "ck_look_rules_operation",
                table: "look_rules",
                sql: "operation in ('print', 'draw', 'foil', 'emboss', 'score', 'perforate', 'cut', 'aid')");

            migrationBuilder.CreateIndex(
                name: "ix_art_files_project_id_owner",
                table: "art_files",
                columns: new[] { "project_id", "owner" });

            migrationBuilder.AddCheckConstraint(
                name: "ck_art_files_sane",
                table: "art_files",
                sql: "scale > 0 and width_mm >= 0 and height_mm >= 0 and lines >= 0 and pieces >= 0");

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_owner_stock_key",
                table: "drawer_movements",
                columns: new[] { "owner", "stock_key" });

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_project_id_owner",
                table: "drawer_movements",
                columns: new[] { "project_id", "owner" });

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_project_id_revision",
                table: "drawer_movements",
                columns: new[] { "project_id", "revision" });

            migrationBuilder.CreateIndex(
                name: "ix_drawer_movements_project_id_sheet_id",
                table: "drawer_movements",
                columns: new[] { "project_id", "sheet_id" },
                unique: true,
                filter: "is_active");

            migrationBuilder.CreateIndex(
                name: "ix_jobs_phase_asked_at",
                table: "jobs",
                columns: new[] { "phase", "asked_at" });

            migrationBuilder.CreateIndex(
                name: "ix_jobs_project_id_kind_subject",
                table: "jobs",
                columns: new[] { "project_id", "kind", "subject" },
                unique: true,
                filter: "phase in ('Waiting', 'Working')");

            migrationBuilder.CreateIndex(
                name: "ix_jobs_project_id_owner",
                table: "jobs",
                columns: new[] { "project_id", "owner" });

            migrationBuilder.CreateIndex(
                name: "ix_jobs_project_id_revision",
                table: "jobs",
                columns: new[] { "project_id", "revision" });

            migrationBuilder.AddForeignKey(
                name: "fk_art_files_projects_project_id_owner",
                table: "art_files",
                columns: new[] { "project_id", "owner" },
                principalTable: "projects",
                principalColumns: new[] { "id", "owner" },
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_revisions_revisions_project_id_parent",
                table: "revisions",
                columns: new[] { "project_id", "parent" },
                principalTable: "revisions",
                principalColumns: new[] { "project_id", "number" },
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_runs_projects_project_id_owner",
                table: "runs",
                columns: new[] { "project_id", "owner" },
                principalTable: "projects",
                principalColumns: new[] { "id", "owner" },
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_offcuts_drawer_movements_movement",
                table: "stock_offcuts",
                column: "movement",
                principalTable: "drawer_movements",
                principalColumn: "id");

            // What settled before is kept as jobs; of each stock the last one asked for.
            migrationBuilder.Sql("""
                insert into jobs (id, owner, project_id, revision, kind, subject, made_for, request, phase, attempts, asked_at, begun_at, beat_at, better_at, over_at, progress, answers, schema_version, result)
                select distinct on (project_id, stock) id, owner, project_id, revision, 'Settle', stock, made_for, json_build_object('seconds', seconds)::text,
                       case when phase in ('Waiting', 'Working') then 'Interrupted' else phase end, 1, asked_at, begun_at, beat_at, better_at,
                       coalesce(over_at, now()), case when phase = 'Done' then 1 else 0 end, answers, schema_version, best
                from settlings order by project_id, stock, asked_at desc;
                drop table settlings;
                """);

            // Names of rests are not given twice: the highest that any edit ever gave.
            migrationBuilder.Sql("""
                update stocks set offcuts_made = greatest(
                    coalesce((select max((regexp_match(edit->>'rest', '([0-9]{1,6})$'))[1]::int) from revisions where edit->>'edit' = 'keep-rest'), 0),
                    coalesce((select max((regexp_match(name, '([0-9]{1,6})$'))[1]::int) from stock_offcuts o where o.owner = stocks.owner and o.stock_key = stocks.key), 0));
                """);

            // A project's head is one of its revisions; both are written in one transaction.
            migrationBuilder.Sql("""
                alter table projects add constraint fk_projects_head foreign key (id, head) references revisions (project_id, number) deferrable initially deferred;
                """);

            // What is never changed once written: the role that serves pages may only add to it.
            migrationBuilder.Sql("""
                do $$ begin
                    if exists (select from pg_roles where rolname = 'falzkunst_app') then
                        revoke update, delete, truncate on revisions, parts, run_events from falzkunst_app;
                        revoke insert, delete, truncate on workshops from falzkunst_app;
                        revoke insert, update, delete, truncate on "__EFMigrationsHistory" from falzkunst_app;
                    end if;
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Runs, jobs and the drawer have been rewritten; there is no way back but a backup.");
    }
}
