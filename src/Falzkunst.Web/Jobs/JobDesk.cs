using System.Diagnostics;
using Falzkunst.Data.Jobs;

namespace Falzkunst.Web.Jobs;

/// <summary>Asks for jobs on behalf of pages, and waits a little for what is soon there.</summary>
public sealed class JobDesk(JobStore jobs, JobSignal signal)
{
    /// <summary>Asks for work and tells the workers so.</summary>
    /// <returns>Key of the job.</returns>
    public async Task<Guid> AskAsync(JobAsk ask, CancellationToken stop)
    {
        var id = await jobs.AskAsync(ask, stop);
        signal.Ring();
        return id;
    }

    /// <summary>Looks again and again until there is something, or the patience is over; null then.</summary>
    public static async Task<T?> WaitAsync<T>(Func<Task<T?>> look, TimeSpan patience, TimeSpan betweenLooks, CancellationToken stop) where T : class
    {
        for (var begun = Stopwatch.GetTimestamp(); Stopwatch.GetElapsedTime(begun) < patience;)
        {
            await Task.Delay(betweenLooks, stop);
            if (await look() is { } found) return found;
        }
        return null;
    }
}
