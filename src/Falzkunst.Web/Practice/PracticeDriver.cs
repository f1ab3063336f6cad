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
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<RunStore>().AdvanceAllAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is Npgsql.NpgsqlException or InvalidOperationException or Microsoft.EntityFrameworkCore.DbUpdateException)
            {
                // The state is in the database; the run goes on from there once it answers again.
                Trouble(log, e);
                pause = AfterTrouble;
            }
            await Task.Delay(pause, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    [LoggerMessage(LogLevel.Error, "The practice machine could not be moved on; it is tried again in a moment.")]
    private static partial void Trouble(ILogger logger, Exception exception);
}
