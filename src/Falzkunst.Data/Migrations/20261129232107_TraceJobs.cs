using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Falzkunst.Data.Migrations
{
    /// <inheritdoc />
    public partial class TraceJobs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_jobs_kind",
                table: "jobs");

            migrationBuilder.AddCheckConstraint(
                name: "ck_jobs_kind",
                table: "jobs",
                sql: "kind in ('Settle', 'Survey', 'Thicken', 'Send', 'Trace')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "ck_jobs_kind",
                table: "jobs");

            migrationBuilder.AddCheckConstraint(
                name: "ck_jobs_kind",
                table: "jobs",
                sql: "kind in ('Settle', 'Survey', 'Thicken', 'Send')");
        }
    }
}
