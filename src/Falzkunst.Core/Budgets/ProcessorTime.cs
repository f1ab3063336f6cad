using System.Diagnostics;
using System.Runtime.InteropServices;

namespace Falzkunst.Core.Budgets;

/// <summary>
/// How long the processor has worked for the thread that asks. A machine that is busy with other things gives a thread less of each
/// second, and no more of these.
/// </summary>
internal static class ProcessorTime
{
    /// <summary>CLOCK_THREAD_CPUTIME_ID of Linux.</summary>
    private const int ThreadClock = 3;

    public static TimeSpan OfThread() => OperatingSystem.IsLinux() && ClockGetTime(ThreadClock, out var now) == 0
        ? TimeSpan.FromSeconds(now.Seconds) + TimeSpan.FromTicks(now.Nanoseconds / TimeSpan.NanosecondsPerTick)
        : Stopwatch.GetElapsedTime(0);

    [StructLayout(LayoutKind.Sequential)]
    private readonly struct TimeSpec
    {
        public readonly nint Seconds;
        public readonly nint Nanoseconds;
    }

    [DllImport("libc", EntryPoint = "clock_gettime")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int ClockGetTime(int clock, out TimeSpec now);
}
