using System.Collections.Immutable;

namespace Falzkunst.Core.Running;

/// <summary>What the practice machine is doing.</summary>
public enum RunPhase
{
    WaitingForPaper,
    Running,
    WaitingForTool,
    Paused,
    Done,
    Stopped,

    /// <summary>What is kept of the run cannot be read any more; nothing moves it.</summary>
    Broken,
}

/// <summary>Where a run stands. Together with its plan it says everything; it changes only through <see cref="PracticeMachine"/>.</summary>
/// <param name="Phase">What the machine is doing.</param>
/// <param name="Step">Index of the plan's step it is at; the number of steps when done.</param>
/// <param name="Line">Lines finished of the pass it is at.</param>
/// <param name="SecondsInto">Machine seconds spent on the present line, or waited at the present stop.</param>
/// <param name="MachineSeconds">Machine seconds since the start.</param>
public sealed record RunState(RunPhase Phase, int Step, int Line, double SecondsInto, double MachineSeconds)
{
    /// <summary>What was read of the page's marks, every time, in order.</summary>
    public ImmutableArray<PageReading> Readings { get; init; } = [];

    /// <summary>What was read last at a step; null where nothing was.</summary>
    public PageReading? ReadingAt(int step) => Readings.LastOrDefault(r => r.Step == step);

    /// <summary>No hand and no clock changes it any more.</summary>
    public bool IsOver => Phase is RunPhase.Done or RunPhase.Stopped or RunPhase.Broken;
}

/// <summary>Something that happened in a run, kept in order.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="Step">At which step of the plan.</param>
/// <param name="Line">Lines finished of that step by then.</param>
/// <param name="MachineSeconds">Machine seconds since the start.</param>
public sealed record RunHappening(RunHappeningKind Kind, int Step, int Line, double MachineSeconds);

public enum RunHappeningKind
{
    Created,
    Confirmed,
    PassBegan,
    LinesDone,
    StopReached,
    MarksRead,
    MarksRefused,
    Paused,
    Resumed,
    Stopped,
    Done,
}

/// <summary>Why the machine does not do what it is told.</summary>
public enum RunRefusal
{
    NotWaiting,

    /// <summary>The tip needs more time.</summary>
    NotHot,

    /// <summary>The marks of the page have not been found.</summary>
    NotRead,

    /// <summary>Cut and print may lie farther apart than is gone on with unasked.</summary>
    TooFarApart,
    NotRunning,
    NotPaused,
    Over,
    Gone,

    /// <summary>The machine has gone on since the page showed it.</summary>
    Stale,
}

/// <summary>A command that does not fit the state.</summary>
/// <param name="reason">Why.</param>
/// <param name="seconds">Machine time that it would take until it fits; 0 where no time would help.</param>
public sealed class CommandRefused(RunRefusal reason, double seconds = 0) : Exception(reason.ToString())
{
    public RunRefusal Reason { get; } = reason;
    public double Seconds { get; } = seconds;
}

/// <summary>
/// The stand-in device as a pure state machine: a state, a plan and either a command or time that went by give the next
/// state and what happened. It knows no clock; whoever drives it says how much time passed.
/// </summary>
public static class PracticeMachine
{
    public static (RunState State, ImmutableArray<RunHappening> Happened) Begin() =>
        (new RunState(RunPhase.WaitingForPaper, 0, 0, 0, 0), [new RunHappening(RunHappeningKind.Created, 0, 0, 0)]);

    /// <summary>The hand has done what the present stop asks.</summary>
    /// <exception cref="CommandRefused">The machine is not at a stop, heat is not there yet, or the marks are not read or leave too much.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Confirm(RunPlan plan, RunState state) => Confirm(plan, state, anyway: false);

    /// <summary>The hand has done what the present stop asks.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="state">Where the run stands.</param>
    /// <param name="anyway">Also where cut and print may lie farther apart than the stop allows.</param>
    /// <exception cref="CommandRefused">The machine is not at a stop, heat is not there yet, or the marks are not read.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Confirm(RunPlan plan, RunState state, bool anyway)
    {
        if (state.Phase is not (RunPhase.WaitingForPaper or RunPhase.WaitingForTool) || plan.Steps[state.Step] is not Stop stop)
            throw new CommandRefused(RunRefusal.NotWaiting);
        if (stop.WaitSeconds - state.SecondsInto is > 0 and var left)
            throw new CommandRefused(RunRefusal.NotHot, left);
        if (stop.Work.OfType<FindMarks>().FirstOrDefault() is { } marks)
        {
            if (state.ReadingAt(state.Step) is not { Lies: not null } reading) throw new CommandRefused(RunRefusal.NotRead);
            if (reading.RemainsMm > marks.WaitOverMm && !anyway) throw new CommandRefused(RunRefusal.TooFarApart);
        }
        var confirmed = new RunHappening(RunHappeningKind.Confirmed, state.Step, 0, state.MachineSeconds);
        var (next, entered) = Enter(plan, state with { Step = state.Step + 1 });
        return (next, [confirmed, .. entered]);
    }

    /// <summary>The machine has looked at the page that lies on it.</summary>
    /// <exception cref="CommandRefused">It is not at a stop that finds marks.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Read(RunPlan plan, RunState state, Func<FindMarks, PageReading> look)
    {
        if (state.Phase != RunPhase.WaitingForTool || plan.Steps[state.Step] is not Stop stop || stop.Work.OfType<FindMarks>().FirstOrDefault() is not { } marks)
            throw new CommandRefused(RunRefusal.NotWaiting);
        var reading = look(marks) with { Step = state.Step };
        var kept = state.Readings.Length < MostReadings ? state.Readings : state.Readings.RemoveAt(0);
        return (state with { Readings = kept.Add(reading) }, [Note(reading.Lies is null ? RunHappeningKind.MarksRefused : RunHappeningKind.MarksRead, state)]);
    }

    /// <summary>Older looks at a page than these are let go.</summary>
    private const int MostReadings = 40;

    /// <exception cref="CommandRefused">The machine is not running.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Pause(RunState state) => state.Phase == RunPhase.Running
        ? (state with { Phase = RunPhase.Paused }, [Note(RunHappeningKind.Paused, state)])
        : throw new CommandRefused(RunRefusal.NotRunning);

    /// <exception cref="CommandRefused">The machine is not paused.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Resume(RunState state) => state.Phase == RunPhase.Paused
        ? (state with { Phase = RunPhase.Running }, [Note(RunHappeningKind.Resumed, state)])
        : throw new CommandRefused(RunRefusal.NotPaused);

    /// <exception cref="CommandRefused">The run is over already.</exception>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Stop(RunState state) => !state.IsOver
        ? (state with { Phase = RunPhase.Stopped }, [Note(RunHappeningKind.Stopped, state)])
        : throw new CommandRefused(RunRefusal.Over);

    /// <summary>Lets <paramref name="seconds"/> of machine time go by; waits at the next stop. Finished lines are told once, together.</summary>
    public static (RunState State, ImmutableArray<RunHappening> Happened) Advance(RunPlan plan, RunState state, double seconds)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(seconds);
        if (state.Phase is RunPhase.WaitingForTool or RunPhase.WaitingForPaper)
            return (state with { SecondsInto = Math.Min(state.SecondsInto + seconds, plan.Steps[state.Step].Seconds) }, []);
        var happened = ImmutableArray.CreateBuilder<RunHappening>();
        while (state.Phase == RunPhase.Running && plan.Steps[state.Step] is Pass pass)
        {
            var before = state.Line;
            while (state.Line < pass.Lines.Length && seconds >= pass.Lines[state.Line].Seconds - state.SecondsInto)
            {
                var rest = pass.Lines[state.Line].Seconds - state.SecondsInto;
                seconds -= rest;
                state = state with { Line = state.Line + 1, SecondsInto = 0, MachineSeconds = state.MachineSeconds + rest };
            }
            if (state.Line > before) happened.Add(Note(RunHappeningKind.LinesDone, state));
            if (state.Line < pass.Lines.Length)
            {
                state = state with { SecondsInto = state.SecondsInto + seconds, MachineSeconds = state.MachineSeconds + seconds };
                break;
            }
            (state, var entered) = Enter(plan, state with { Step = state.Step + 1 });
            happened.AddRange(entered);
        }
        return (state, happened.ToImmutable());
    }

    private static (RunState State, ImmutableArray<RunHappening> Happened) Enter(RunPlan plan, RunState state)
    {
        state = state with { Line = 0, SecondsInto = 0 };
        if (state.Step >= plan.Steps.Length)
            return (state with { Phase = RunPhase.Done }, [Note(RunHappeningKind.Done, state)]);
        return plan.Steps[state.Step] is Pass
            ? (state with { Phase = RunPhase.Running }, [Note(RunHappeningKind.PassBegan, state)])
            : (state with { Phase = RunPhase.WaitingForTool }, [Note(RunHappeningKind.StopReached, state)]);
    }

    private static RunHappening Note(RunHappeningKind kind, RunState state) => new(kind, state.Step, state.Line, state.MachineSeconds);
}
