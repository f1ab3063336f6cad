namespace Falzkunst.Core.Nesting.Search;

/// <summary>Random numbers that are the same for a seed everywhere (SplitMix64: Steele, Lea, Flood 2014).</summary>
internal sealed class Dice(ulong seed)
{
    private ulong _state = seed;

    private ulong Next()
    {
        var z = _state += 0x9E3779B97F4A7C15;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
        return z ^ (z >> 31);
    }

    /// <summary>From 0 to below 1.</summary>
    public double Share() => (Next() >> 11) * (1.0 / (1UL << 53));

    public double Between(double low, double high) => low + (high - low) * Share();

    /// <summary>From 0 to below a count.</summary>
    public int Below(int count) => (int)(Share() * count);

    public void Shuffle<T>(List<T> list)
    {
        for (var i = list.Count - 1; i > 0; i--)
        {
            var k = Below(i + 1);
            (list[i], list[k]) = (list[k], list[i]);
        }
    }

    /// <summary>A generator of its own for each number.</summary>
    public static Dice For(long seed, int number) => new(new Dice((ulong)seed * 0x632BE59BD9B4E019 + (ulong)number).Next());
}
