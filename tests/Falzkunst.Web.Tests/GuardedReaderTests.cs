using System.Diagnostics;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Tests.Shared;
using Falzkunst.Web.Reading;
using Microsoft.Extensions.Logging.Abstractions;

namespace Falzkunst.Web.Tests;

/// <summary>Files are read in a process of their own; whatever becomes of it costs one file.</summary>
public sealed class GuardedReaderTests : IDisposable
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private static readonly byte[] Ordinary = Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='40mm' viewBox='0 0 50 40'><path id='leaf' d='M5 5h20v10z'/></svg>");
    private readonly GuardedReader _reader = new(NullLogger<GuardedReader>.Instance);

    public void Dispose() => _reader.Dispose();

    private Task<Core.Designs.Drawing> ReadAsync(byte[] file, double seconds = 3.5, CancellationToken? stop = null) => _reader.ReadAsync(file, TimeSpan.FromSeconds(seconds), stop ?? Stop);

    private static byte[] Slow() => HostileFiles.All.Single(f => f.Name == "doubling").Make();

    /// <summary>The reading processes of this one.</summary>
    private static List<int> Children() => [.. Directory.GetDirectories("/proc").Select(d => Path.GetFileName(d)).Where(d => int.TryParse(d, out _)).Select(int.Parse).Where(IsReader)];

    private static bool IsReader(int pid)
    {
        try
        {
            return File.ReadAllText($"/proc/{pid}/cmdline").Contains("Falzkunst.Reader.dll", StringComparison.Ordinal)
                && File.ReadAllText($"/proc/{pid}/stat").Split(") ")[1].Split(' ')[1] == Environment.ProcessId.ToString(System.Globalization.CultureInfo.InvariantCulture);
        }
        catch (IOException)
        {
            return false;
        }
    }

    [Fact]
    public async Task What_comes_back_is_what_a_reader_in_this_process_reads()
    {
        var (here, there) = (ArtReader.Read(Ordinary), await ReadAsync(Ordinary));
        Assert.Equal(here.Shapes.Single().Paths, there.Shapes.Single().Paths);
        Assert.Equal(here.Shapes.Single().Name, there.Shapes.Single().Name);
        var refused = await Assert.ThrowsAsync<ReadRefused>(() => ReadAsync([1, 2, 3]));
        Assert.Equal("not-svg", refused.Code);
    }

    [Fact]
    public async Task Words_are_shaped_there_as_here_and_a_face_that_breaks_costs_its_words()
    {
        var file = await File.ReadAllBytesAsync(Path.Combine(AppContext.BaseDirectory, "Faces", "garland.ttf"), Stop);
        var (here, there) = (new FaceShelf().Shape("garland", "Depot", "swsh")!, await _reader.ShapeAsync(file, new("Depot", ["swsh"]), TimeSpan.FromSeconds(60), Stop));
        Assert.Equal(here.Paragraphs[0].Glyphs, there.Paragraphs[0].Glyphs);
        Assert.Equal(here.Segments(), there.Segments());
        await Assert.ThrowsAsync<ReadRefused>(() => _reader.ShapeAsync(file[..400], new("Depot", []), TimeSpan.FromSeconds(60), Stop));
        Assert.Equal(here.Segments(), (await _reader.ShapeAsync(file, new("Depot", ["swsh"]), TimeSpan.FromSeconds(60), Stop)).Segments());
    }

    [Fact]
    public async Task A_reading_process_that_dies_costs_one_file()
    {
        await ReadAsync(Ordinary);
        var before = Children();
        var reading = ReadAsync(Slow());
        await Task.Delay(300, Stop);
        foreach (var pid in Children().Where(before.Contains)) Process.GetProcessById(pid).Kill();
        Assert.Equal("reader-ended", (await Assert.ThrowsAsync<ReadRefused>(() => reading)).Code);
        Assert.Equal("leaf", (await ReadAsync(Ordinary)).Shapes.Single().Name);
    }

    [Fact]
    public async Task Reading_ends_when_its_time_is_over_or_nobody_waits()
    {
        Assert.Equal("too-slow", (await Assert.ThrowsAsync<ReadRefused>(() => ReadAsync(Slow(), seconds: 0.3))).Code);
        using var left = CancellationTokenSource.CreateLinkedTokenSource(Stop);
        left.CancelAfter(200);
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => ReadAsync(Slow(), stop: left.Token));
        Assert.Single((await ReadAsync(Ordinary)).Shapes);
    }

    [Fact]
    public async Task Many_at_once_are_all_answered()
    {
        var answers = await Task.WhenAll(Enumerable.Range(0, 12).Select(async i =>
        {
            try
            {
                return (i % 3 == 0 ? await ReadAsync(Slow(), seconds: 0.5) : await ReadAsync(Ordinary, seconds: 60)).Shapes.Length;
            }
            catch (ReadRefused)
            {
                return -1;
            }
        }));
        Assert.Equal(8, answers.Count(a => a == 1));
        Assert.Equal(4, answers.Count(a => a == -1));
    }

    [Fact]
    public async Task What_reads_files_reaches_neither_secrets_nor_server_nor_database()
    {
        var database = new Npgsql.NpgsqlConnectionStringBuilder(Environment.GetEnvironmentVariable("FALZKUNST_TEST_SERVER")!);
        var secrets = Directory.CreateTempSubdirectory("falzkunst-secrets");
        await File.WriteAllTextAsync(Path.Combine(secrets.FullName, "admin"), "secret", Stop);
        try
        {
            var reader = Path.Combine(AppContext.BaseDirectory, "Falzkunst.Reader.dll");
            var walls = ReadingWalls.Of(reader, secrets.FullName);
            ReadingWalls.HideThisProcess();
            Assert.Empty(walls.Lacking);
            // Each line that comes out is something that was reached.
            var tries = $$"""
                cat {{secrets.FullName}}/admin 2>&- && echo secrets
                cat /proc/{{Environment.ProcessId}}/environ 2>&- | tr -d '\0' | grep -q . && echo environment
                (exec 3<>/dev/tcp/{{database.Host}}/{{database.Port}}) 2>&- && echo database
                touch {{AppContext.BaseDirectory}}/mark 2>&- && echo application
                [ "$(sed -n 's/^CapEff:\t//p' /proc/self/status)" = 0000000000000000 ] || echo capabilities
                [ "$(sed -n 's/^NoNewPrivs:\t//p' /proc/self/status)" = 1 ] || echo privileges
                [ -r {{reader}} ] || echo "not even its own program"
                """;
            string Reached(IEnumerable<string> prefix)
            {
                string[] command = [.. prefix, "/bin/bash", "-c", tries];
                var start = new System.Diagnostics.ProcessStartInfo(command[0], command[1..]) { RedirectStandardOutput = true, RedirectStandardError = true };
                start.Environment[ReadingWalls.HiddenFolder] = secrets.FullName;
                using var process = System.Diagnostics.Process.Start(start)!;
                var said = process.StandardOutput.ReadToEnd();
                process.WaitForExit();
                return said;
            }
            Assert.Equal("", Reached(walls.Prefix));
            // Without them all of it is there.
            Assert.Contains("database", Reached([]), StringComparison.Ordinal);
            Assert.Contains("secrets", Reached([]), StringComparison.Ordinal);
        }
        finally
        {
            secrets.Delete(recursive: true);
            File.Delete(Path.Combine(AppContext.BaseDirectory, "mark"));
        }
    }

    [Fact]
    public void A_budget_ends_by_work_time_and_whoever_left()
    {
        var work = new Budget(new BudgetLimits { Work = 1000 });
        work.Work(900);
        Assert.Equal(BudgetPart.Work, Assert.Throws<BudgetSpent>(() => work.Work(101)).Part);
        var time = new Budget(new BudgetLimits { Time = TimeSpan.FromMilliseconds(20), Work = long.MaxValue - 1 });
        // Whoever waits uses nothing of it: only what the processor has worked counts.
        time.Work(10_000);
        Thread.Sleep(50);
        time.Work(10_000);
        Assert.Equal(BudgetPart.Time, Assert.Throws<BudgetSpent>(() =>
        {
            for (var i = 0; i < 100_000_000; i++) time.Work(10);
        }).Part);
        using var left = new CancellationTokenSource();
        var gone = new Budget(BudgetLimits.Reading, left.Token);
        gone.Work(10_000);
        left.Cancel();
        Assert.Throws<OperationCanceledException>(() => gone.Work(10_000));
        // A part of a larger one draws from both.
        var whole = Budget.OfWork(100);
        Assert.Throws<BudgetSpent>(() => Budget.OfWork(1000, whole).Work(101));
    }
}
