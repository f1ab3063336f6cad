using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Running;

public sealed class PracticeMachineTests
{
    private static readonly RunPlan Plan = RunPlanner.Plan(
        [.. SheetLines.Collect(Given.Piece("p1", 60, 40,
            Given.Line(Given.Straight(5, 5, 55, 5), Operation.Foil),
            Given.Line(Given.Straight(5, 8, 55, 8), Operation.Draw),
            Given.Line(Given.Straight(30, 1, 30, 39), Operation.Score)), 1, Affine.Identity)],
        "the sheet", 120, 100, Given.Machine("twin-330"), Given.Stock("chalk-200"));

    [Fact]
    public void It_begins_by_waiting_for_paper_and_time_alone_moves_nothing()
    {
        var (state, happened) = PracticeMachine.Begin();
        Assert.Equal(RunPhase.WaitingForPaper, state.Phase);
        Assert.Equal(RunHappeningKind.Created, Assert.Single(happened).Kind);
        Assert.Equal(0, PracticeMachine.Advance(Plan, state, 1e6).State.Step);
    }

    [Fact]
    public void A_whole_run_visits_every_step_and_ends_after_the_planned_time()
    {
        var (state, _) = PracticeMachine.Begin();
        var visited = new List<int>();
        while (!state.IsOver)
        {
            visited.Add(state.Step);
            state = state.Phase == RunPhase.Running
                ? PracticeMachine.Advance(Plan, state, 1e6).State
                : PracticeMachine.Confirm(Plan, PracticeMachine.Advance(Plan, state, 1e6).State).State;
        }
        Assert.Equal(RunPhase.Done, state.Phase);
        Assert.Equal(Plan.Passes.Sum(p => p.Seconds), state.MachineSeconds, 1e-6);
        Assert.Equal(Enumerable.Range(0, Plan.Steps.Length).Where(i => Plan.Steps[i] is Stop || i > 0 && Plan.Steps[i - 1] is Stop), visited);
    }

    [Fact]
    public void However_time_is_cut_up_the_machine_ends_in_the_same_place() => Gen.Double[0, 3].Array[1, 30].ForAll(times =>
    {
        var start = PracticeMachine.Confirm(Plan, PracticeMachine.Begin().State).State;
        var stepwise = times.Aggregate(start, (s, t) => PracticeMachine.Advance(Plan, s, t).State);
        var atOnce = PracticeMachine.Advance(Plan, start, times.Sum()).State;
        Assert.Equal((atOnce.Phase, atOnce.Step, atOnce.Line), (stepwise.Phase, stepwise.Step, stepwise.Line));
        if (atOnce.Phase == RunPhase.Running) Assert.Equal(atOnce.MachineSeconds, stepwise.MachineSeconds, 1e-6);
    });

    [Fact]
    public void Heat_has_to_be_waited_for()
    {
        var state = PracticeMachine.Begin().State;
        while (state.Phase != RunPhase.WaitingForTool || ((Stop)Plan.Steps[state.Step]).WaitSeconds == 0)
            state = state.Phase == RunPhase.Running ? PracticeMachine.Advance(Plan, state, 60).State : PracticeMachine.Confirm(Plan, state).State;
        Assert.Throws<CommandRefused>(() => PracticeMachine.Confirm(Plan, state));
        state = PracticeMachine.Advance(Plan, state, 299).State;
        Assert.Throws<CommandRefused>(() => PracticeMachine.Confirm(Plan, state));
        state = PracticeMachine.Advance(Plan, state, 2).State;
        Assert.Equal(RunPhase.Running, PracticeMachine.Confirm(Plan, state).State.Phase);
    }

    [Fact]
    public void Pausing_holds_time_and_commands_that_do_not_fit_are_refused()
    {
        var waiting = PracticeMachine.Begin().State;
        Assert.Throws<CommandRefused>(() => PracticeMachine.Pause(waiting));
        Assert.Throws<CommandRefused>(() => PracticeMachine.Resume(waiting));
        var running = PracticeMachine.Confirm(Plan, waiting).State;
        Assert.Throws<CommandRefused>(() => PracticeMachine.Confirm(Plan, running));
        var paused = PracticeMachine.Pause(running).State;
        Assert.Equal(paused, PracticeMachine.Advance(Plan, paused, 100).State);
        Assert.Equal(running, PracticeMachine.Resume(paused).State);
        var stopped = PracticeMachine.Stop(paused).State;
        Assert.Throws<CommandRefused>(() => PracticeMachine.Stop(stopped));
        Assert.Equal(stopped, PracticeMachine.Advance(Plan, stopped, 100).State);
    }

    [Fact]
    public void The_head_is_on_the_line_that_runs() => Gen.Double[0, 4].ForAll(seconds =>
    {
        var state = PracticeMachine.Advance(Plan, PracticeMachine.Confirm(Plan, PracticeMachine.Begin().State).State, seconds).State;
        if (HeadPosition.At(Plan, state) is not { } head) return;
        var line = ((Pass)Plan.Steps[state.Step]).Lines[state.Line];
        Assert.Contains(line.Strokes, s =>
        {
            var flat = s.Flat.ToArray();
            return Enumerable.Range(1, flat.Length - 1).Any(i => Polygons.DistanceToStretch(head, flat[i - 1], flat[i]) < 1e-6);
        });
    });
}
