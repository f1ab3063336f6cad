using System.Diagnostics;

namespace Falzkunst.Lab;

/// <summary>Measures the computation alone.</summary>
internal static class Timed
{
    public static (T Result, double Milliseconds) Run<T>(Func<T> work)
    {
        var clock = Stopwatch.StartNew();
        var result = work();
        return (result, Math.Round(clock.Elapsed.TotalMilliseconds, 3));
    }
}
