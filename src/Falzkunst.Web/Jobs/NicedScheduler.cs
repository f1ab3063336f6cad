using System.Collections.Concurrent;
using System.Runtime.InteropServices;

namespace Falzkunst.Web.Jobs;

/// <summary>Carries out long work on threads of its own that the system passes over while pages are to be made.</summary>
internal sealed class NicedScheduler : TaskScheduler, IDisposable
{
    /// <summary>Half way to the lowest there is: pages come first, and work still goes on beside them.</summary>
    private const int Niceness = 10;

    private readonly BlockingCollection<Task> _tasks = [];
    private readonly Thread[] _threads;

    [ThreadStatic]
    private static NicedScheduler? _of;

    public NicedScheduler(int threads, string name)
    {
        _threads = [.. Enumerable.Range(1, threads).Select(i => new Thread(Work) { IsBackground = true, Name = $"{name} {i}" })];
        foreach (var thread in _threads) thread.Start();
    }

    public override int MaximumConcurrencyLevel => _threads.Length;

    private void Work()
    {
        _of = this;
        // On Linux this is of the calling thread alone. Where it is not allowed, work has the same right as pages.
        _ = SetPriority(0, 0, Niceness);
        foreach (var task in _tasks.GetConsumingEnumerable()) TryExecuteTask(task);
    }

    protected override void QueueTask(Task task) => _tasks.Add(task);

    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) => _of == this && !taskWasPreviouslyQueued && TryExecuteTask(task);

    protected override IEnumerable<Task> GetScheduledTasks() => [.. _tasks];

    public void Dispose() => _tasks.CompleteAdding();

    [DllImport("libc", EntryPoint = "setpriority")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int SetPriority(int which, int who, int priority);
}
