using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Running;

/// <summary>Where the seconds of a plan come from: ways, strokes, lifts, times over, heat.</summary>
public sealed class RunTimeTests
{
    private static readonly Machine Twin = Given.Machine("twin-330");
    private static readonly ToolSettings Slow = new(Tool.Blade, 100, 50);

    private static RunPlan Plan(Machine machine, Stock stock, params Line[] lines) => RunPlanner.Plan(
        [.. SheetLines.Collect(Given.Piece("p1", 100, 80, lines), 1, Affine.Identity)], "the sheet", 300, 200, machine, stock);

    [Fact]
    public void A_stroke_costs_its_way_itself_and_two_lifts()
    {
        var line = Given.Straight(30, 40, 80, 40);
        var run = new HeadRun(new Point(0, 0)).Over([line], Slow, Twin);
        Assert.Equal((new Point(80, 40), 50.0, 50.0), (run.Head, run.DrawMm, run.TravelMm));
        Assert.Equal(MotionTime.Straight(50, Twin.TopSpeed, Twin.Acceleration) + MotionTime.Straight(50, 50, Twin.Acceleration) + 2 * Twin.LiftSeconds, run.Seconds, 1e-12);
        // Where nothing is known of the head it begins at the stroke.
        Assert.Equal(0, new HeadRun(null).Over([line], Slow, Twin).TravelMm);
    }

    [Fact]
    public void A_machine_is_no_faster_than_it_is()
    {
        var line = Given.Straight(0, 0, 200, 0);
        var fast = new HeadRun(null).Over([line], Slow with { SpeedMmPerSecond = 5000 }, Twin);
        Assert.Equal(MotionTime.Straight(200, Twin.TopSpeed, Twin.Acceleration) + 2 * Twin.LiftSeconds, fast.Seconds, 1e-12);
    }

    [Fact]
    public void Times_over_run_all_strokes_again_with_their_ways_and_lifts() => Gen.Select(Gen.Int[1, 4], Given.Paths.Array[1, 4]).ForAll((times, strokes) =>
    {
        var once = new HeadRun(null).Over(strokes, Slow, Twin);
        var again = new HeadRun(once.Head).Over(strokes, Slow, Twin);
        var all = new HeadRun(null).Over(strokes, Slow with { Times = times }, Twin);
        Assert.Equal(once.DrawMm + (times - 1) * again.DrawMm, all.DrawMm, 1e-6);
        Assert.Equal(once.TravelMm + (times - 1) * again.TravelMm, all.TravelMm, 1e-6);
        Assert.Equal(once.Seconds + (times - 1) * again.Seconds, all.Seconds, 1e-6);
    });

    [Fact]
    public void Every_lift_of_a_plan_costs_what_the_machine_takes_for_it()
    {
        Line[] lines =
        [
            Given.Line(Given.Straight(10, 10, 90, 10), Operation.Perforate), Given.Line(Given.Straight(10, 20, 90, 20), Operation.Emboss),
            Given.Line(Path.Rectangle(20, 30, 10, 10), Operation.Cut),
        ];
        var (without, with) = (Plan(Twin with { LiftSeconds = 0 }, Given.Stock("chalk-200"), lines), Plan(Twin with { LiftSeconds = 0.3 }, Given.Stock("chalk-200"), lines));
        var strokes = with.Passes.Sum(p => p.Settings.Times * p.Lines.Sum(l => l.Strokes.Length));
        Assert.True(strokes > 25);
        Assert.Equal(0.6 * strokes, with.Seconds - without.Seconds, 1e-6);
        Assert.All(with.Passes, p => Assert.Equal(p.Seconds, p.Lines.Sum(l => l.Seconds), 1e-9));
    }

    [Theory]
    [InlineData(42)]
    [InlineData(0)]
    public void Foil_waits_as_long_as_its_stock_says(int seconds)
    {
        var chalk = Given.Stock("chalk-200");
        var stock = chalk with { Settings = [.. chalk.Settings.Select(s => s.Tool == Tool.FoilTip ? s with { WarmUpSeconds = seconds } : s)] };
        var stop = Plan(Twin, stock, Given.Line(Given.Straight(10, 10, 90, 10), Operation.Foil)).Steps.OfType<Stop>().First(s => s.Kind == StopKind.Tools);
        Assert.Equal(seconds, stop.WaitSeconds);
        Assert.Equal(seconds == 0 ? [] : [seconds], stop.Work.OfType<WarmUp>().Select(w => (int)w.Seconds));
    }

    /// <summary>The fewest changes by trying every holder for every tool.</summary>
    private static int Fewest(IReadOnlyList<ToolInHand> needed, Machine machine, int at, Dictionary<string, ToolInHand> carried)
    {
        if (at == needed.Count) return 0;
        if (carried.ContainsValue(needed[at])) return Fewest(needed, machine, at + 1, carried);
        var best = int.MaxValue;
        foreach (var holder in machine.Holders.Where(h => h.Tools.Contains(needed[at].Tool)))
        {
            var cost = carried.ContainsKey(holder.Name) ? 1 : 0;
            best = Math.Min(best, cost + Fewest(needed, machine, at + 1, new(carried) { [holder.Name] = needed[at] }));
        }
        return best;
    }

    private static int Changes(IReadOnlyList<ToolInHand> needed, Machine machine) => ToolChangePlan.For(needed, machine).Count(c => c is { PutIn: true, AtStart: false });

    private static readonly Gen<ToolInHand> Pens = Gen.Int[0, 4].Select(i => new ToolInHand(Tool.Pen, $"#00000{i}"));

    [Fact]
    public void Holders_alike_need_the_fewest_changes_there_are() => Gen.Select(Pens.Array[1, 8], Gen.Int[1, 3]).ForAll((needed, holders) =>
    {
        var machine = Twin with { Holders = [.. Enumerable.Range(1, holders).Select(i => new Holder($"h{i}", [Tool.Pen, Tool.Blade]))] };
        Assert.Equal(Fewest(needed, machine, 0, []), Changes(needed, machine));
    }, iter: 300);

    [Theory]
    [InlineData("solo-305")]
    [InlineData("twin-330")]
    [InlineData("broad-610")]
    public void Tools_on_the_machines_of_the_shed_need_the_fewest_changes_there_are(string name) => (
        from tool in Gen.Enum<Tool>()
        from ink in Gen.Int[0, 1]
        select new ToolInHand(tool, tool is Tool.Pen or Tool.FoilTip ? $"#00000{ink}" : null)).Array[1, 8].ForAll(needed =>
            Assert.Equal(Fewest(needed, Given.Machine(name), 0, []), Changes(needed, Given.Machine(name))), iter: 200, test: name);

    [Fact]
    public void The_head_goes_along_the_line_as_its_time_does()
    {
        var plan = Plan(Twin, Given.Stock("chalk-200"), Given.Line(Given.Straight(10, 10, 90, 10), Operation.Draw));
        var running = PracticeMachine.Confirm(plan, PracticeMachine.Begin().State).State;
        var line = ((Pass)plan.Steps[running.Step]).Lines[0];
        var ends = line.Strokes[0];
        foreach (var share in new[] { 0.0, 0.25, 0.5, 0.999 })
            Assert.Equal(0, HeadPosition.At(plan, PracticeMachine.Advance(plan, running, share * line.Seconds).State)!.Value.DistanceTo(Point.Lerp(ends.Start, ends.End, share)), 1e-6);
        // A closed line is followed all round, a perforation stroke by stroke.
        Assert.Null(HeadPosition.At(plan, PracticeMachine.Begin().State));
        var dashes = Plan(Twin, Given.Stock("chalk-200"), Given.Line(Given.Straight(10, 10, 90, 10), Operation.Perforate));
        var state = PracticeMachine.Confirm(dashes, PracticeMachine.Begin().State).State;
        var perforation = ((Pass)dashes.Steps[state.Step]).Lines[0];
        var half = HeadPosition.At(dashes, PracticeMachine.Advance(dashes, state, perforation.Seconds / 2).State)!.Value;
        Assert.Equal(perforation.Strokes.Sum(s => s.Length) / 2, perforation.Strokes.TakeWhile(s => s.End.DistanceTo(perforation.Strokes[0].Start) <= half.DistanceTo(perforation.Strokes[0].Start)).Sum(s => s.Length), 3.0);
    }

    [Theory]
    [InlineData(0, 10, 10)]
    [InlineData(10.5, 20, 10.5)]
    [InlineData(20.25, 20, 20)]
    [InlineData(35, 10, 15)]
    public void The_head_follows_a_square_round_its_corners(double along, double x, double y)
    {
        var plan = new RunPlan([new Pass("", Operation.Cut, Tool.Blade, null, "h", Slow, [new PassLine("p1", 1, "l1", [Path.Rectangle(10, 10, 10, 10)], 40)], 40, 0, 40)], 0);
        var at = HeadPosition.At(plan, new RunState(RunPhase.Running, 0, 0, along, 0))!.Value;
        var expected = along < 10 ? new Point(10 + along, 10) : along < 20 ? new Point(20, along) : along < 30 ? new Point(20 - (along - 20), 20) : new Point(10, 20 - (along - 30));
        Assert.Equal(0, at.DistanceTo(expected), 1e-9);
        Assert.True(Math.Abs(expected.X - x) < 0.5 && Math.Abs(expected.Y - y) < 0.5);
    }
}
