namespace Falzkunst.Web.Jobs;

/// <summary>Tells the workers of this process that there is work, so that none waits until they look again.</summary>
public sealed class JobSignal
{
    private volatile TaskCompletionSource _asked = new(TaskCreationOptions.RunContinuationsAsynchronously);

    public void Ring() => Interlocked.Exchange(ref _asked, new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously)).TrySetResult();

    /// <summary>Ends with the next ring, and at the latest after a while.</summary>
    public Task WaitAsync(TimeSpan longest, CancellationToken stop) => Task.WhenAny(_asked.Task, Task.Delay(longest, stop));
}
