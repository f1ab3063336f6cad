using System.Globalization;
using System.Runtime.CompilerServices;
using System.Runtime.ExceptionServices;
using System.Text;
using CsCheck;

namespace Falzkunst.Tests;

/// <summary>
/// Properties over the same values every time: each value follows from FALZKUNST_SEED, the name of the test and its number. With
/// FALZKUNST_SEED=random other values are taken each time. What fails is made smaller by CsCheck, which prints a seed for it.
/// </summary>
internal static class ForAllValues
{
    private const string Usual = "14";

    private static readonly string Seed = Environment.GetEnvironmentVariable("FALZKUNST_SEED") is { Length: > 0 } given ? given : Usual;

    /// <summary>One value, the same every time.</summary>
    public static T Fixed<T>(this Gen<T> gen, [CallerMemberName] string test = "") =>
        Seed == "random" ? gen.Single() : gen.Generate(new PCG(Stream(test, 0), ulong.Parse(Seed, CultureInfo.InvariantCulture)), null!, out _);

    public static void ForAll<T>(this Gen<T> gen, Action<T> check, int iter = 100, [CallerMemberName] string test = "")
    {
        if (Seed == "random")
        {
            gen.Sample(check, iter: iter);
            return;
        }
        try
        {
            Parallel.For(0, iter, One);
        }
        catch (AggregateException e)
        {
            ExceptionDispatchInfo.Throw(e.InnerExceptions[0]);
        }

        void One(int i, ParallelLoopState loop)
        {
            var pcg = new PCG(Stream(test, i), ulong.Parse(Seed, CultureInfo.InvariantCulture));
            var start = pcg.ToString();
            var value = gen.Generate(pcg, null!, out _);
            try
            {
                check(value);
            }
            catch (Exception)
            {
                loop.Stop();
                // The same value once more, and then smaller ones that fail too.
                gen.Sample(check, seed: start, iter: iter);
                throw;
            }
        }
    }

    public static void ForAll<T>(this Gen<T> gen, Func<T, bool> holds, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(value => Demand(holds(value)), iter, test);

    public static void ForAll<A, B>(this Gen<(A, B)> gen, Action<A, B> check, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => check(v.Item1, v.Item2), iter, test);

    public static void ForAll<A, B>(this Gen<(A, B)> gen, Func<A, B, bool> holds, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => Demand(holds(v.Item1, v.Item2)), iter, test);

    public static void ForAll<A, B, C>(this Gen<(A, B, C)> gen, Action<A, B, C> check, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => check(v.Item1, v.Item2, v.Item3), iter, test);

    public static void ForAll<A, B, C>(this Gen<(A, B, C)> gen, Func<A, B, C, bool> holds, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => Demand(holds(v.Item1, v.Item2, v.Item3)), iter, test);

    public static void ForAll<A, B, C, D>(this Gen<(A, B, C, D)> gen, Action<A, B, C, D> check, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => check(v.Item1, v.Item2, v.Item3, v.Item4), iter, test);

    public static void ForAll<A, B, C, D, E>(this Gen<(A, B, C, D, E)> gen, Action<A, B, C, D, E> check, int iter = 100, [CallerMemberName] string test = "") =>
        gen.ForAll(v => check(v.Item1, v.Item2, v.Item3, v.Item4, v.Item5), iter, test);

    private static void Demand(bool holds)
    {
        if (!holds) throw new InvalidOperationException("The property does not hold.");
    }

    /// <summary>A number of its own for each value of each test, the same on every machine (FNV-1a).</summary>
    private static uint Stream(string test, int number)
    {
        var hash = 2166136261;
        foreach (var b in Encoding.UTF8.GetBytes($"{test} {number}")) hash = (hash ^ b) * 16777619;
        return hash;
    }
}
