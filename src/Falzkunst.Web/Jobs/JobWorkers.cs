using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;

namespace Falzkunst.Web.Jobs;

/// <summary>
/// Takes jobs from the table and does them, each queue on niced threads of its own: for searches one less than there are cores,
/// one for surveys, one for what somebody waits for. Each job has its lease kept while it is worked on; it is ended when nobody wants it any more. No
/// job, whatever it does, stops the workers.
/// </summary>
public sealed partial class JobWorkers(IServiceScopeFactory scopes, IEnumerable<IWork> kinds, JobSignal signal, TimeProvider clock, ILogger<JobWorkers> log) : BackgroundService
{
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(400);
    private static readonly TimeSpan BetweenLooks = TimeSpan.FromMilliseconds(800);
    private static readonly TimeSpan AfterTrouble = TimeSpan.FromSeconds(3);
    private static readonly TimeSpan BetweenSweeps = TimeSpan.FromSeconds(4);
    private static readonly TimeSpan BetweenTidyings = TimeSpan.FromHours(1);

    /// <summary>Searches that run at once: one less than there are cores, since pages need one.</summary>
    private static readonly int Searches = Math.Max(1, Environment.ProcessorCount - 1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var searching = new NicedScheduler(Searches, "search");
        using var surveying = new NicedScheduler(1, "survey");
        using var hurrying = new NicedScheduler(1, "hurried");
        var all = kinds.ToList();
        await Task.WhenAll(
            [
                .. Enumerable.Range(0, Searches).Select(_ => LoopAsync([.. all.Where(k => k.Lane == JobLane.Searches)], new TaskFactory(searching), stoppingToken)),
                LoopAsync([.. all.Where(k => k.Lane == JobLane.Surveys)], new TaskFactory(surveying), stoppingToken),
                LoopAsync([.. all.Where(k => k.Lane == JobLane.Hurried)], new TaskFactory(hurrying), stoppingToken),
                SweepAsync(stoppingToken),
            ]);
    }

    private async Task LoopAsync(IReadOnlyList<IWork> does, TaskFactory compute, CancellationToken stoppingToken)
    {
        var worker = Guid.NewGuid();
        var words = does.Select(d => d.Kind).ToList();
        while (!stoppingToken.IsCancellationRequested)
        {
            var (job, pause) = ((OpenJob?)null, BetweenLooks);
            // Whoever rings from here on is heard, also while the table is looked at.
            var ring = signal.WaitAsync(BetweenLooks, stoppingToken);
            try
            {
                job = await InScope(s => s.GetRequiredService<JobStore>().ClaimAsync(worker, words, stoppingToken));
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                Trouble(log, e);
                pause = AfterTrouble;
            }
            catch (Exception)
            {
                return;
            }
            if (job is not null) await DoAsync(job, worker, does.First(d => d.Kind == job.Ask.Kind), compute, stoppingToken);
            else if (pause == BetweenLooks) await ring;
            else await Task.Delay(pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private async Task DoAsync(OpenJob job, Guid worker, IWork work, TaskFactory compute, CancellationToken stoppingToken)
    {
        var report = new WorkReport();
        using var over = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
        var doing = Task.Run(() => work.DoAsync(job, report, compute, over.Token), CancellationToken.None);
        var (phase, failure, isWanted) = (JobPhase.Failed, (string?)null, true);
        try
        {
            while (await Task.WhenAny(doing, Task.Delay(Beat, CancellationToken.None)) != doing && isWanted)
                isWanted = await BeatAsync(job, worker, report, stoppingToken);
        }
        finally
        {
            // Whatever happened, no search outlives its job.
            await over.CancelAsync();
            try
            {
                await doing;
                phase = stoppingToken.IsCancellationRequested ? JobPhase.Interrupted : JobPhase.Done;
            }
            catch (OperationCanceledException) when (over.IsCancellationRequested)
            {
                phase = JobPhase.Interrupted;
            }
            catch (Exception e)
            {
                failure = e.Message;
                Failed(log, job.Ask.Kind, job.Ask.Subject, e);
            }
        }
        try
        {
            await InScope(async s =>
            {
                var store = s.GetRequiredService<JobStore>();
                await store.BeatAsync(job.Id, worker, report.Progress, report.Answers, report.TakeBetter(), CancellationToken.None);
                return await store.EndAsync(job.Id, worker, phase, failure, CancellationToken.None);
            });
        }
        catch (Exception e)
        {
            // The database does not answer: the lease runs out, and the job is taken up once more.
            Trouble(log, e);
        }
    }

    /// <summary>Keeps the lease; while the database does not answer the work goes on.</summary>
    private async Task<bool> BeatAsync(OpenJob job, Guid worker, WorkReport report, CancellationToken stoppingToken)
    {
        if (stoppingToken.IsCancellationRequested) return false;
        var better = report.TakeBetter();
        try
        {
            return await InScope(s => s.GetRequiredService<JobStore>().BeatAsync(job.Id, worker, report.Progress, report.Answers, better, CancellationToken.None));
        }
        catch (Exception e)
        {
            Trouble(log, e);
            return true;
        }
    }

    /// <summary>Takes up what silent workers left, and now and then takes out what nobody asks for any more.</summary>
    private async Task SweepAsync(CancellationToken stoppingToken)
    {
        var tidied = clock.GetTimestamp();
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await InScope(s => s.GetRequiredService<JobStore>().ReclaimAsync(stoppingToken));
                if (clock.GetElapsedTime(tidied) >= BetweenTidyings)
                {
                    await InScope(s => s.GetRequiredService<KnownResults>().ForgetOldAsync(stoppingToken));
                    await InScope(s => s.GetRequiredService<ArtStore>().ForgetUnansweredAsync(stoppingToken));
                    await InScope(s => s.GetRequiredService<PictureStore>().ForgetUnreferredAsync(stoppingToken));
                    await InScope(s => s.GetRequiredService<DrawerStore>().ForgetOldChangesAsync(stoppingToken));
                    tidied = clock.GetTimestamp();
                }
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                Trouble(log, e);
            }
            catch (Exception)
            {
                return;
            }
            await Task.Delay(BetweenSweeps, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private async Task<T> InScope<T>(Func<IServiceProvider, Task<T>> work)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await work(scope.ServiceProvider);
    }

    [LoggerMessage(LogLevel.Error, "Work in the background is held up; it is tried again in a moment.")]
    private static partial void Trouble(ILogger logger, Exception exception);

    [LoggerMessage(LogLevel.Warning, "A job of kind {Kind} for “{Subject}” could not be done.")]
    private static partial void Failed(ILogger logger, JobKind kind, string subject, Exception exception);
}
