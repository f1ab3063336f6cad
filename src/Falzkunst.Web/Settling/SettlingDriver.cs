using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Settling;
using Falzkunst.Data.Workshop;

namespace Falzkunst.Web.Settling;

/// <summary>Settles pieces on sheets in the background, one stock at a time, and writes each better layout down.</summary>
public sealed partial class SettlingDriver(IServiceScopeFactory scopes, ILogger<SettlingDriver> log) : BackgroundService
{
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(400);
    /// <summary>It is content when nothing better has come for this share of its time, and for so many seconds at least.</summary>
    private const double PatienceShare = 0.4;
    private const double LeastPatience = 8;

    private static readonly TimeSpan AfterTrouble = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            var pause = Beat;
            try
            {
                var work = await InScope(async services =>
                {
                    var store = services.GetRequiredService<SettlingStore>();
                    await store.InterruptSilentAsync(stoppingToken);
                    return await store.ClaimAsync(stoppingToken);
                });
                if (work is not null)
                {
                    await DoAsync(work, stoppingToken);
                    pause = TimeSpan.Zero;
                }
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is Npgsql.NpgsqlException or InvalidOperationException or Microsoft.EntityFrameworkCore.DbUpdateException)
            {
                // What was found so far is in the database; after a silence it is shown as interrupted.
                Trouble(log, e);
                pause = AfterTrouble;
            }
            await Task.Delay(pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    private async Task DoAsync(SettlingWork work, CancellationToken stoppingToken)
    {
        var phase = SettlingPhase.Failed;
        try
        {
            phase = await SettleAsync(work, stoppingToken);
        }
        catch (Exception e) when (e is NestRefused or EditRefused)
        {
            Refused(log, work.Stock, e);
        }
        finally
        {
            // Also when the server is being stopped, which shall be seen at once by the next.
            await InScope(s => s.GetRequiredService<SettlingStore>().EndAsync(work.Id, phase, CancellationToken.None));
        }
    }

    private async Task<SettlingPhase> SettleAsync(SettlingWork work, CancellationToken stoppingToken)
    {
        var (job, stock) = await InScope(async services =>
        {
            var project = await services.GetRequiredService<ProjectStore>().RevisionAsync(work.Owner, work.Project, work.Revision, stoppingToken)
                ?? throw new EditRefused(Reason.ProjectGone);
            var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(work.Owner, stoppingToken);
            var of = drawer.Stock(work.Stock);
            return (PaperJobs.JobFor(
                project.Design, of, drawer.Machine(project.SetOut.Machine), project.SetOut.SpacingMm, project.SetOut.Cards,
                project.Sheets?.Of(work.Stock, project.Design)), of);
        });
        using var over = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
        StockLayout? better = null;
        var answers = 0;
        var settling = Task.Run(() => Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(work.Seconds), work.Seed) { Patience = TimeSpan.FromSeconds(Math.Max(LeastPatience, work.Seconds * PatienceShare)) }, progress =>
        {
            Interlocked.Increment(ref answers);
            Interlocked.Exchange(ref better, PaperPlacing.LayoutOf(progress.Best, job, stock, SheetLayouts.BatchKey(work.Id)));
        }, over.Token), CancellationToken.None);
        while (true)
        {
            var isOver = await Task.WhenAny(settling, Task.Delay(Beat, CancellationToken.None)) == settling;
            var isWanted = await InScope(s => s.GetRequiredService<SettlingStore>().BeatAsync(work.Id, Interlocked.Exchange(ref better, null), answers, CancellationToken.None));
            if (!isWanted) await over.CancelAsync();
            if (!isOver) continue;
            await settling;
            return stoppingToken.IsCancellationRequested ? SettlingPhase.Interrupted : SettlingPhase.Done;
        }
    }

    private async Task<T> InScope<T>(Func<IServiceProvider, Task<T>> work)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await work(scope.ServiceProvider);
    }

    [LoggerMessage(LogLevel.Error, "Settling is interrupted; it is tried again in a moment.")]
    private static partial void Trouble(ILogger logger, Exception exception);

    [LoggerMessage(LogLevel.Warning, "The pieces of {Stock} cannot be settled.")]
    private static partial void Refused(ILogger logger, string stock, Exception exception);
}
