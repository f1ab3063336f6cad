using Falzkunst.Data.Runs;

namespace Falzkunst.Web.Practice;

/// <summary>The clock of the practice machine: moves every run that is under way, several times a second.</summary>
public sealed partial class PracticeDriver(IServiceScopeFactory scopes, ILogger<PracticeDriver> log) : BackgroundService
{
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(200);
    private static readonly TimeSpan AfterTrouble = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            var pause = Beat;
            try
            {
                await AdvanceAsync(stoppingToken);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                // The state is in the database; runs go on from there once it answers again.
                Trouble(log, e);
                pause = AfterTrouble;
            }
            catch (Exception)
            {
                return;
            }
            await Task.Delay(pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Each run by itself: one that cannot be read is marked so and holds up no other.</summary>
    private async Task AdvanceAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var runs = scope.ServiceProvider.GetRequiredService<RunStore>();
        foreach (var id in await runs.TimedAsync(stop))
        {
            if (await runs.AdvanceAsync(id, stop)) Broken(log, id);
        }
    }

    [LoggerMessage(LogLevel.Error, "The run {Run} cannot be read; it stands as broken.")]
    private static partial void Broken(ILogger logger, Guid run);

    [LoggerMessage(LogLevel.Error, "The practice machine could not be moved on; it is tried again in a moment.")]
    private static partial void Trouble(ILogger logger, Exception exception);
}
