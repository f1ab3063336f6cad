using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class Readings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_run_events_kind",
                table: "run_events");

            migrationBuilder.AddColumn<string>(
                name: "readings",
                table: "runs",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "calibrations",
                table: "machines",
                type: "text",
                nullable: true);

            migrationBuilder.AddCheckConstraint(
                name: "ck_run_events_kind",
                table: "run_events",
                sql: "kind in ('Created', 'Confirmed', 'PassBegan', 'LinesDone', 'StopReached', 'MarksRead', 'MarksRefused', 'Paused', 'Resumed', 'Stopped', 'Done')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_run_events_kind",
                table: "run_events");

            migrationBuilder.DropColumn(
                name: "readings",
                table: "runs");

            migrationBuilder.DropColumn(
                name: "calibrations",
                table: "machines");

            migrationBuilder.AddCheckConstraint(
                name: "ck_run_events_kind",
                table: "run_events",
                sql: "kind in ('Created', 'Confirmed', 'PassBegan', 'LinesDone', 'StopReached', 'Paused', 'Resumed', 'Stopped', 'Done')");
        }
    }
}
