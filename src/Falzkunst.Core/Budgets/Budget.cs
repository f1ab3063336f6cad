namespace Falzkunst.Core.Budgets;

/// <summary>
/// What one request may use altogether, drawn from by whoever works for it: reader, style matching, assembler. It ends when
/// a part of it is used up, or when nobody waits for the result any more. Time is the processor's and never the clock's, so that a busy machine refuses nothing
/// that a quiet one takes. Safe to draw from in several threads.
/// </summary>
/// <param name="limits">How much there is.</param>
/// <param name="within">Work is drawn from this one as well; null for none.</param>
/// <param name="stop">Whoever asked has left.</param>
public sealed class Budget(BudgetLimits limits, Budget? within, CancellationToken stop)
{
    /// <summary>Processor time is looked at once in so many steps; a look takes about as long as fifty of them.</summary>
    private const long StepsBetweenLooks = 4096;

    /// <summary>The budget that this thread worked for when it last looked, and the thread's processor time then.</summary>
    [ThreadStatic]
    private static (Budget? Of, TimeSpan At) _lastLook;

    /// <summary>One that stands for itself.</summary>
    public Budget(BudgetLimits limits, CancellationToken stop = default)
        : this(limits, null, stop)
    {
    }

    private readonly bool _isUnlimited = limits.Work == long.MaxValue;
    private long _work;
    private long _ticks;
    private long _nextLook = StepsBetweenLooks;
    private int _elements;
    private int _shapes;
    private int _segments;
    private long _points;

    /// <summary>Without limits but that of depth, for what is known to be harmless.</summary>
    public static Budget Unlimited { get; } = OfWork(long.MaxValue);

    public BudgetLimits Limits { get; } = limits;

    /// <summary>Steps drawn so far.</summary>
    public long WorkDone => Interlocked.Read(ref _work);

    /// <summary>For a computation whose result must be the same every time: so many steps, by no clock.</summary>
    /// <param name="steps">How many.</param>
    /// <param name="within">A larger budget that the steps are drawn from as well.</param>
    public static Budget OfWork(long steps, Budget? within = null) => new(new BudgetLimits
    {
        Time = TimeSpan.MaxValue,
        Work = steps,
        Bytes = int.MaxValue,
        Elements = int.MaxValue,
        Shapes = int.MaxValue,
        Segments = int.MaxValue,
        Points = int.MaxValue,
        Pieces = int.MaxValue,
    }, within, CancellationToken.None);

    /// <summary>Ends with a token alone.</summary>
    public static Budget Until(CancellationToken stop) => new(Unlimited.Limits with { Work = long.MaxValue - 1 }, stop);

    /// <summary>Draws steps of work, and looks at the processor's time now and then.</summary>
    /// <exception cref="BudgetSpent">Work or time is used up.</exception>
    /// <exception cref="OperationCanceledException">Whoever asked has left.</exception>
    public void Work(long steps = 1)
    {
        if (_isUnlimited) return;
        within?.Work(steps);
        var work = Interlocked.Add(ref _work, steps);
        if (work > Limits.Work) throw new BudgetSpent(BudgetPart.Work, Limits.Work);
        if (work < Interlocked.Read(ref _nextLook)) return;
        Interlocked.Exchange(ref _nextLook, work + StepsBetweenLooks);
        if (Limits.Time < TimeSpan.MaxValue || stop.CanBeCanceled) Look();
    }

    /// <summary>Looks how long the processor has worked for this, all threads together, and whether anybody still waits.</summary>
    /// <exception cref="BudgetSpent">The time is used up.</exception>
    /// <exception cref="OperationCanceledException">Whoever asked has left.</exception>
    public void Look()
    {
        stop.ThrowIfCancellationRequested();
        if (Limits.Time == TimeSpan.MaxValue) return;
        var now = ProcessorTime.OfThread();
        // What the thread did before it worked for this is not this one's.
        var used = ReferenceEquals(_lastLook.Of, this) ? Interlocked.Add(ref _ticks, (now - _lastLook.At).Ticks) : Interlocked.Read(ref _ticks);
        _lastLook = (this, now);
        if (used > Limits.Time.Ticks) throw new BudgetSpent(BudgetPart.Time, Limits.Time.TotalSeconds);
    }

    /// <exception cref="BudgetSpent">Something lies deeper than is followed.</exception>
    public void Deep(int depth) => Demand(depth, Limits.Depth, BudgetPart.Depth);

    /// <exception cref="BudgetSpent">The file is larger than is read.</exception>
    public void Bytes(long bytes) => Demand(bytes, Limits.Bytes, BudgetPart.Bytes);

    /// <exception cref="BudgetSpent">There are more elements than are read.</exception>
    public void Element()
    {
        if (_isUnlimited) return;
        Demand(++_elements, Limits.Elements, BudgetPart.Elements);
        Work(20);
    }

    /// <exception cref="BudgetSpent">More shapes are drawn than are kept.</exception>
    public void Shape()
    {
        if (_isUnlimited) return;
        Demand(++_shapes, Limits.Shapes, BudgetPart.Shapes);
        Work(20);
    }

    /// <exception cref="BudgetSpent">The lines have more segments than are kept.</exception>
    public void Segments(int more)
    {
        if (_isUnlimited) return;
        _segments += more;
        Demand(_segments, Limits.Segments, BudgetPart.Segments);
        Work(more);
    }

    /// <exception cref="BudgetSpent">The curves are longer or more than can be flattened.</exception>
    public void Points(int more)
    {
        if (_isUnlimited) return;
        _points += more;
        Demand(_points, Limits.Points, BudgetPart.Points);
        Work(more);
    }

    /// <exception cref="BudgetSpent">There are more pieces than a file may make.</exception>
    public void Pieces(int count) => Demand(count, Limits.Pieces, BudgetPart.Pieces);

    private static void Demand(long used, long limit, BudgetPart part)
    {
        if (used > limit) throw new BudgetSpent(part, limit);
    }
}
