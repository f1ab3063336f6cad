namespace Falzkunst.Core.Budgets;

/// <summary>Loops that run at once do so where their caller runs: work in the background stays there and leaves pages their cores.</summary>
internal static class OnAllCores
{
    /// <summary>Options for <see cref="Parallel"/> loops.</summary>
    public static ParallelOptions OfCaller => new() { TaskScheduler = TaskScheduler.Current };
}
