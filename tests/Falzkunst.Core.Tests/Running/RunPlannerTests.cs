using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Running;

public sealed class RunPlannerTests
{
    private static readonly Piece Everything = Given.Piece("p1", 100, 80,
        Given.Line(Path.Rectangle(10, 10, 20, 20), Operation.Cut),
        Given.Line(Given.Straight(50, 1, 50, 79), Operation.Score),
        Given.Line(Given.Straight(60, 20, 90, 20), Operation.Draw),
        Given.Line(Given.Straight(60, 30, 90, 30), Operation.Foil),
        Given.Line(Given.Straight(60, 40, 90, 40), Operation.Emboss),
        Given.Line(Given.Straight(60, 50, 90, 50), Operation.Perforate),
        Given.Line(Path.Rectangle(60, 60, 10, 10), Operation.Print),
        Given.Line(Given.Straight(0, 0, 5, 5), Operation.Aid),
        Given.Line(Given.Straight(60, 25, 90, 25), Operation.Draw, "#AA0000"));

    private static RunPlan PlanOn(string machine) =>
        RunPlanner.Plan([.. SheetLines.Collect(Everything, 1, Affine.Identity)], "the sheet", 300, 200, Given.Machine(machine), Given.Stock("chalk-200"));

    [Fact]
    public void Passes_follow_the_law_of_paper()
    {
        var plan = PlanOn("twin-330");
        Assert.Equal(
            ["Draw", "Draw", "Foil", "Emboss", "Score", "Perforate", "Inner cuts", "Outer cuts"], plan.Passes.Select(p => p.Title));
        Assert.Equal(["l10", "l2", "l3", "l4", "l5", "l6", "l7", "l1"], plan.Passes.SelectMany(p => p.Lines).Select(l => l.Line).OrderBy(l => l == "l1").ThenBy(l => l, StringComparer.Ordinal));
        Assert.IsType<Stop>(plan.Steps[0]);
        Assert.Equal(StopKind.Unload, Assert.IsType<Stop>(plan.Steps[^1]).Kind);
    }

    [Theory]
    [InlineData("twin-330", 4)] // pens and tips share the left holder: second pen, foil tip, emboss tip, score tip
    [InlineData("solo-305", 5)] // the blade too must be put in
    public void A_stop_stands_wherever_a_hand_is_needed(string machine, int changes)
    {
        var plan = PlanOn(machine);
        Assert.Equal(changes, plan.ToolChanges);
        var carried = new Dictionary<string, (Tool, string?)>();
        for (var i = 0; i < plan.Steps.Length; i++)
        {
            if (plan.Steps[i] is not Pass pass) continue;
            var tool = (pass.Tool, pass.Ink);
            if (carried.TryGetValue(pass.Holder, out var there) && there != tool) Assert.IsType<Stop>(plan.Steps[i - 1]);
            carried[pass.Holder] = tool;
        }
    }

    [Fact]
    public void Foil_is_taped_warmed_and_taken_off_on_one_load()
    {
        var plan = PlanOn("twin-330");
        var foil = plan.Steps.ToList().FindIndex(s => s is Pass { Tool: Tool.FoilTip });
        var before = Assert.IsType<Stop>(plan.Steps[foil - 1]);
        Assert.Equal(300, before.WaitSeconds);
        var lines = ((Pass)plan.Steps[foil]).Lines.SelectMany(l => l.Strokes).Aggregate(Box.Empty, (box, s) => box.Include(s.Bounds));
        Assert.Equal(lines.Grow(6), Assert.Single(before.Work.OfType<TapeFoil>()).Area);
        Assert.Equal(300, Assert.Single(before.Work.OfType<WarmUp>()).Seconds);
        Assert.Equal((StopWarning.Unloading, Stage.Foil), (before.MustNot, before.Next));
        Assert.IsType<PeelFoil>(Assert.IsType<Stop>(plan.Steps[foil + 1]).Work[0]);
    }

    [Fact]
    public void A_machine_without_a_fitting_holder_is_refused_with_its_name()
    {
        var bare = Given.Machine("twin-330") with { Holders = [new Holder("only", [Tool.Pen])] };
        var refusal = Assert.Throws<PlanRefused>(() => RunPlanner.Plan([.. SheetLines.Collect(Everything, 1, Affine.Identity)], "s", 300, 200, bare, Given.Stock("chalk-200")));
        Assert.Equal("Twin 330", refusal.Machine);
    }

    [Fact]
    public void Times_over_the_line_are_run_and_counted()
    {
        var emboss = PlanOn("twin-330").Passes.Single(p => p.Operation == Operation.Emboss);
        Assert.Equal(2, emboss.Settings.Times);
        Assert.Equal(60, emboss.DrawLength, 1e-9);
    }

    /// <summary>The stop tells the numbers of the lines that run, not those of the stock; where the blade changes between passes it is set anew.</summary>
    [Fact]
    public void A_blade_is_set_as_the_lines_have_it_and_anew_where_it_changes()
    {
        var thin = Given.Line(Path.Rectangle(10, 10, 20, 20), Operation.Cut).With(new LineSettings { Tool = new ToolSettingsChange { BladeOutMm = 0.2, ForceGrams = 77 } });
        var piece = Given.Piece("p1", 100, 80, (Line)thin);
        var plan = RunPlanner.Plan([.. SheetLines.Collect(piece, 1, Affine.Identity)], "the sheet", 300, 200, Given.Machine("twin-330"), Given.Stock("chalk-200"));
        var first = Assert.Single(Assert.IsType<Stop>(plan.Steps[0]).Work.OfType<PutToolIn>());
        Assert.Equal((0.2, 77), (first.Settings.BladeOutMm, first.Settings.ForceGrams));
        var between = Assert.IsType<Stop>(plan.Steps[2]);
        Assert.Equal(Given.Stock("chalk-200").SettingsFor(Tool.Blade).BladeOutMm, Assert.Single(between.Work.OfType<PutToolIn>()).Settings.BladeOutMm);
        Assert.Equal(5, plan.Steps.Length);
    }

    [Fact]
    public void Some_lines_run_again_alone_with_what_they_had_or_other_numbers()
    {
        var sheet = new SheetLayout("s", "chalk-200", 1, "A4", 210, 297, new Borders(0, 0, 0, 0), [new("p1", 1, Affine.Identity), new("p1", 2, Affine.Move(0, 100))]);
        var design = Given.ProjectOf(Everything).Design;
        RunPlan Again(int? force, int? times) => SheetPlan.For(new PlanRequest(sheet, design, Given.Machine("twin-330"), Given.Stock("chalk-200"), 1, null) { Again = new RunAgain(new HashSet<(string, int, string)> { ("p1", 2, "l2"), ("p1", 1, "l5") }, force, times) });
        var plain = Again(null, null).Passes.ToList();
        Assert.Equal([("p1", 1, "l5"), ("p1", 2, "l2")], plain.SelectMany(p => p.Lines).Select(l => (l.Piece, l.Copy, l.Line)));
        var whole = SheetPlan.For(new PlanRequest(sheet, design, Given.Machine("twin-330"), Given.Stock("chalk-200"), 1, null)).Passes.ToList();
        Assert.All(plain, p => Assert.Equal(whole.First(w => w.Tool == p.Tool).Settings, p.Settings));
        Assert.All(Again(190, 3).Passes, p => Assert.Equal((190, 3), (p.Settings.ForceGrams, p.Settings.Times)));
        // A printed sheet waits for its marks again.
        var printed = SheetPlan.For(new PlanRequest(sheet, design, Given.Machine("twin-330"), Given.Stock("chalk-200"), 1, new PagePrinting("", 4, MarkSettings.Usual)) { Again = new RunAgain(new HashSet<(string, int, string)> { ("p1", 2, "l2") }, null, null) });
        Assert.Contains(printed.Steps.OfType<Stop>(), s => s.Kind == StopKind.Marks);
    }

    [Fact]
    public void From_rest_to_rest_takes_what_the_trapezoid_says()
    {
        Assert.Equal(2 * Math.Sqrt(10.0 / 1000), MotionTime.Straight(10, 1000, 1000), 1e-12);
        Assert.Equal(100.0 / 100 + 100.0 / 1000, MotionTime.Straight(100, 100, 1000), 1e-12);
        Assert.Equal(MotionTime.Straight(100, 100, 1000), MotionTime.Along(Given.Straight(0, 0, 100, 0), 100, 1000), 1e-9);
    }

    [Fact]
    public void Corners_cost_time_but_collinear_points_do_not() => Gen.Double[20, 400].ForAll(speed =>
    {
        var straight = MotionTime.Along(Given.Straight(0, 0, 100, 0), speed, 2000);
        var split = MotionTime.Along(Path.Polyline([new(0, 0), new(30, 0), new(31, 0), new(100, 0)], false), speed, 2000);
        var bent = MotionTime.Along(Path.Polyline([new(0, 0), new(50, 0), new(50, 50)], false), speed, 2000);
        Assert.Equal(straight, split, 1e-6);
        Assert.True(bent > straight);
        Assert.True(bent <= 2 * MotionTime.Straight(50, speed, 2000) + 1e-9);
    });

    [Fact]
    public void Travel_order_runs_every_line_once_and_whole() => Given.Paths.Array[1, 25].ForAll(lines =>
    {
        var order = TravelOrder.Arrange(lines, new Point(0, 200));
        Assert.Equal(Enumerable.Range(0, lines.Length), order.Select(o => o.Index).Order());
        foreach (var (index, path) in order)
        {
            Assert.Equal(lines[index].Length, path.Length, 1e-6 * (1 + path.Length));
            if (!path.IsClosed) Assert.Equal([lines[index].Start, lines[index].End], new[] { path.Start, path.End }.OrderBy(p => p != lines[index].Start));
        }
    }, iter: 100);

    [Fact]
    public void Short_ways_are_found_on_a_grid_of_squares()
    {
        var squares = Enumerable.Range(0, 100).Select(i => Path.Rectangle(i * 37 % 100 % 10 * 10, i * 37 % 100 / 10 * 10, 5, 5)).ToList();
        var travel = TravelOrder.TravelLength(TravelOrder.Arrange(squares, new Point(0, 0)).Select(o => o.Path), new Point(0, 0));
        Assert.InRange(travel, 99 * 5, 830); // two by two round their common corner: three hops of 5 mm, then one of 15, take 740
    }

    [Fact]
    public void Dashes_begin_and_end_a_line_and_come_out_even() => Gen.Select(Gen.Double[1, 300], Gen.Double[0.5, 5], Gen.Double[0.3, 4]).ForAll((length, dash, gap) =>
    {
        var strokes = Dashes.Split(Given.Straight(0, 0, length, 0), dash, gap);
        Assert.Equal(0, strokes[0].Start.X, 1e-9);
        Assert.Equal(length, strokes[^1].End.X, 1e-9);
        for (var i = 1; i < strokes.Length; i++) Assert.True(strokes[i].Start.X > strokes[i - 1].End.X);
        if (strokes.Length > 3) Assert.InRange(strokes[1].Length, dash * 0.6, dash * 1.6);
    });
}
