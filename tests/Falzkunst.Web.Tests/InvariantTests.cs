using Falzkunst.Data;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Falzkunst.Web.Tests;

/// <summary>What must always hold holds in the database, whoever writes into it; and a first start that was cut off is taken up.</summary>
public sealed class InvariantTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("update projects set head = 9999")]
    [InlineData("update projects set head = 0")]
    [InlineData("update projects set last_revision = 1")]
    [InlineData("update projects set owner = gen_random_uuid()")]
    [InlineData("insert into revisions select project_id, 900, 800, edit, sentence, at, schema_version, set_out_hash, design_hash, sheets_hash, variants_hash from revisions where number = 2")]
    [InlineData("insert into revisions select project_id, 901, null, edit, sentence, at, schema_version, set_out_hash, design_hash, sheets_hash, variants_hash from revisions where number = 2")]
    [InlineData("update revisions set design_hash = 'nowhere'")]
    [InlineData("update art_files set owner = gen_random_uuid()")]
    [InlineData("update art_files set scale = 0")]
    [InlineData("insert into jobs (id, owner, project_id, revision, kind, subject, made_for, phase, attempts, asked_at, progress, answers, schema_version) select gen_random_uuid(), owner, id, 1, 'Settle', 'x', '', 'Nonsense', 0, now(), 0, 0, 2 from projects")]
    [InlineData("insert into jobs (id, owner, project_id, revision, kind, subject, made_for, phase, attempts, asked_at, progress, answers, schema_version) select gen_random_uuid(), owner, id, 1, 'Dance', 'x', '', 'Waiting', 0, now(), 0, 0, 2 from projects")]
    [InlineData("insert into jobs (id, owner, project_id, revision, kind, subject, made_for, phase, attempts, asked_at, progress, answers, schema_version) select gen_random_uuid(), gen_random_uuid(), id, 1, 'Settle', 'x', '', 'Waiting', 0, now(), 0, 0, 2 from projects")]
    [InlineData("insert into jobs (id, owner, project_id, revision, kind, subject, made_for, phase, attempts, asked_at, progress, answers, schema_version) select gen_random_uuid(), owner, id, 777, 'Settle', 'x', '', 'Waiting', 0, now(), 0, 0, 2 from projects")]
    [InlineData("insert into jobs (id, owner, project_id, revision, kind, subject, made_for, phase, attempts, asked_at, progress, answers, schema_version) select gen_random_uuid(), owner, id, 1, 'Settle', 'x', '', 'Waiting', 0, now(), 0, 0, 2 from projects, generate_series(1, 2)")]
    [InlineData("insert into runs (id, owner, project_id, revision, sheet_id, sheet_title, machine, schema_version, plan_hash, begun_at, advanced_at, phase, step, line, seconds_into, machine_seconds, speed_up, last_event) select gen_random_uuid(), owner, id, 1, 's', 't', 'm', 2, (select hash from parts limit 1), now(), now(), 'Nonsense', 0, 0, 0, 0, 1, 0 from projects")]
    [InlineData("insert into runs (id, owner, project_id, revision, sheet_id, sheet_title, machine, schema_version, plan_hash, begun_at, advanced_at, phase, step, line, seconds_into, machine_seconds, speed_up, last_event) select gen_random_uuid(), owner, id, 1, 's', 't', 'm', 2, (select hash from parts limit 1), now(), now(), 'Running', -1, 0, 0, 0, 1, 0 from projects")]
    [InlineData("insert into runs (id, owner, project_id, revision, sheet_id, sheet_title, machine, schema_version, plan_hash, begun_at, advanced_at, phase, step, line, seconds_into, machine_seconds, speed_up, last_event) select gen_random_uuid(), owner, id, 1, 's', 't', 'm', 2, (select hash from parts limit 1), now(), now(), 'Paused', 0, 0, 0, 0, 1, 0 from projects, generate_series(1, 2)")]
    [InlineData("insert into stock_settings (owner, stock_key, tool, force_grams, speed_mm_per_second, warm_up_seconds, times) select owner, key, 'Hammer', 1, 1, 0, 1 from stocks")]
    public async Task The_database_refuses_what_cannot_be(string sql)
    {
        await Assert.ThrowsAsync<PostgresException>(() => database.BreakAsync(sql));
        Assert.NotEmpty(await database.StoredAsync("select id::text from projects"));
    }

    [Theory]
    [InlineData("delete from revisions")]
    [InlineData("update revisions set sentence = ''")]
    [InlineData("update parts set content = ''")]
    [InlineData("delete from run_events")]
    [InlineData("delete from workshops")]
    public async Task The_role_that_serves_pages_only_adds_to_what_is_never_changed(string sql) =>
        Assert.Equal(PostgresErrorCodes.InsufficientPrivilege, (await Assert.ThrowsAsync<PostgresException>(() => database.BreakAsync($"set role falzkunst_app; {sql}"))).SqlState);

    [Fact]
    public async Task Files_that_were_never_brought_in_are_taken_out_after_a_month_and_no_others()
    {
        await database.BreakAsync("update art_files set at = now() - interval '40 days'");
        await database.BreakAsync("insert into art_files (id, owner, project_id, file_name, content, at, width_mm, height_mm, lines, pieces, by_rule, notes) select gen_random_uuid(), owner, project_id, 'asked.svg', content, now() - interval '31 days', 1, 1, 1, 0, 0, '[]' from art_files limit 1");
        await database.BreakAsync("insert into art_files (id, owner, project_id, file_name, content, at, width_mm, height_mm, lines, pieces, by_rule, notes) select gen_random_uuid(), owner, project_id, 'lately.svg', content, now(), 1, 1, 1, 0, 0, '[]' from art_files limit 1");
        await using var services = database.Restarted();
        Assert.Equal(1, await services.GetRequiredService<Data.Projects.ArtStore>().ForgetUnansweredAsync(Stop));
        Assert.Equal(["lately.svg", "night-tram.svg"], await database.StoredAsync("select file_name from art_files order by file_name"));
        await database.BreakAsync("delete from art_files where file_name = 'lately.svg'");
    }

    [Theory]
    [InlineData("update workshops set is_prepared = false; truncate projects, revisions, art_files, runs, run_events, jobs, drawer_movements, stock_offcuts; truncate stocks, machines cascade")]
    [InlineData("update workshops set is_prepared = false; truncate projects, revisions, art_files, runs, run_events, jobs, drawer_movements, stock_offcuts")]
    [InlineData("update workshops set is_prepared = false; update projects set head = 1, last_revision = 1; delete from revisions where number > 1; delete from art_files")]
    [InlineData("update workshops set is_prepared = false; update projects set head = last_revision - 1")]
    public async Task A_first_start_that_was_cut_off_is_taken_up_by_the_next(string cutOff)
    {
        var own = new TestDatabase();
        await own.InitializeAsync();
        try
        {
            var whole = (await own.StoredAsync("select pieces::text from projects"))[0];
            await own.BreakAsync(cutOff);
            await Prepare.DatabaseAsync(own.Connection, Stop);
            Assert.Equal([whole], await own.StoredAsync("select pieces::text from projects"));
            Assert.NotEmpty(await own.StoredAsync("select key from stocks"));
            Assert.Equal(["true"], await own.StoredAsync("select (sheets_hash is not null)::text from revisions r join projects p on p.id = r.project_id and p.head = r.number"));
            Assert.Equal(["true"], await own.StoredAsync("select is_prepared::text from workshops"));
        }
        finally
        {
            await own.DisposeAsync();
        }
    }
}
