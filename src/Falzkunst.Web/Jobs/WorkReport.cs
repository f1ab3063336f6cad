namespace Falzkunst.Web.Jobs;

/// <summary>How far work is, said by whoever does it and read by whoever keeps its lease.</summary>
public sealed class WorkReport
{
    private string? _better;
    private int _answers;
    private double _progress;

    /// <summary>How far it is, 0 to 1.</summary>
    public double Progress
    {
        get => Volatile.Read(ref _progress);
        set => Volatile.Write(ref _progress, Math.Clamp(value, 0, 1));
    }

    /// <summary>How many better results there were.</summary>
    public int Answers => Volatile.Read(ref _answers);

    /// <summary>A better result than the ones before, JSON.</summary>
    public void Found(string better)
    {
        Interlocked.Increment(ref _answers);
        Interlocked.Exchange(ref _better, better);
    }

    /// <summary>The last result, once.</summary>
    internal string? TakeBetter() => Interlocked.Exchange(ref _better, null);
}
