using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;

namespace Falzkunst.Core.Tests.Running;

/// <summary>How lines are worked, in the plan of a run.</summary>
public sealed class LineSettingsTests
{
    private static readonly Stock Chalk = Given.Stock("chalk-200");

    private static Line Worked(string id, Operation operation, Path path, LineSettings settings) => (Line)(Given.Line(path, operation) with { Id = id }).With(settings);

    private static RunPlan Plan(params Line[] lines) => RunPlanner.Plan(
        [.. SheetLines.Collect(Given.Piece("p1", 100, 60, lines), 1, Affine.Move(10, 10))], "the sheet", 120, 80, Given.Machine("twin-330"), Chalk);

    [Fact]
    public void A_half_cut_runs_before_the_cuts_through_lighter_and_less_deep()
    {
        var plan = Plan(Worked("l2", Operation.Cut, Given.Straight(10, 10, 90, 10), new LineSettings { HalfCut = true }));
        Assert.Equal(["Half cuts", "Outer cuts"], plan.Passes.Select(p => p.Title));
        var (half, through) = (plan.Passes.First().Settings, plan.Passes.Last().Settings);
        Assert.True(half.BladeOutMm < Chalk.ThicknessMm && half.ForceGrams < through.ForceGrams);
        Assert.Equal(0, plan.ToolChanges);
    }

    [Fact]
    public void What_is_worked_from_the_back_runs_first_mirrored_and_then_the_sheet_is_turned_over()
    {
        var plan = Plan(
            Worked("l2", Operation.Emboss, Given.Straight(10, 20, 40, 20), new LineSettings { FromBack = true }),
            Worked("l3", Operation.Draw, Given.Straight(10, 30, 40, 30), LineSettings.Plain));
        Assert.Equal(["Emboss, from the back", "Draw", "Outer cuts"], plan.Passes.Select(p => p.Title));
        // From 20 to 50 on the face is from 100 to 70 on the back of 120.
        Assert.Equal([70, 100], new[] { plan.Passes.First().Lines[0].Strokes[0].Start.X, plan.Passes.First().Lines[0].Strokes[0].End.X }.Order());
        var kinds = plan.Steps.OfType<Stop>().Select(s => s.Kind).ToList();
        Assert.Single(kinds, StopKind.Turn);
        Assert.True(Assert.IsType<LayPaper>(plan.Steps.OfType<Stop>().First().Work[0]).FaceDown);
        var turn = plan.Steps.IndexOf(plan.Steps.OfType<Stop>().Single(s => s.Kind == StopKind.Turn));
        Assert.True(plan.Steps.IndexOf(plan.Passes.First()) < turn && turn < plan.Steps.IndexOf(plan.Passes.ElementAt(1)));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_printed_sheet_has_its_marks_found_before_it_is_cut_and_again_once_it_is_turned(bool bothSides)
    {
        var printed = new PagePrinting("desk", 4.2, MarkSettings.Usual) { Flip = bothSides ? FlipEdge.Upright : null, WaitOverMm = 0.3 };
        var piece = Given.Piece("p1", 100, 60, Worked("l2", Operation.Emboss, Given.Straight(10, 20, 40, 20), new LineSettings { FromBack = true }));
        var plan = RunPlanner.Plan([.. SheetLines.Collect(piece, 1, Affine.Move(40, 40))], "the sheet", 210, 297, Given.Machine("twin-330"), Chalk, printed);
        var finds = plan.Steps.OfType<Stop>().SelectMany(s => s.Work).OfType<FindMarks>().ToList();
        // Face down, what is not printed on the back has no marks to be seen.
        Assert.Equal(bothSides ? [true, false] : [false], finds.Select(f => f.IsBack));
        Assert.All(finds, f => Assert.Equal((MarkSettings.Usual.Frame(210, 297), 0.3, "desk"), (f.Frame, f.WaitOverMm, f.Printer)));
        var turn = plan.Steps.IndexOf(plan.Steps.OfType<Stop>().Single(s => s.Kind == StopKind.Turn));
        Assert.True(plan.Steps.IndexOf(plan.Steps.OfType<Stop>().Last(s => s.Kind == StopKind.Marks)) > turn);
        var plain = RunPlanner.Plan([.. SheetLines.Collect(piece, 1, Affine.Identity)], "the sheet", 210, 297, Given.Machine("twin-330"), Chalk, printed with { Marks = null });
        Assert.DoesNotContain(plain.Steps.OfType<Stop>(), s => s.Kind == StopKind.Marks);
    }

    [Fact]
    public void Lines_left_out_do_not_run_and_those_with_settings_of_their_own_run_by_themselves()
    {
        var plan = Plan(
            Worked("l2", Operation.Draw, Given.Straight(10, 20, 40, 20), new LineSettings { LeftOut = true }),
            Worked("l3", Operation.Score, Given.Straight(10, 30, 40, 30), LineSettings.Plain),
            Worked("l4", Operation.Score, Given.Straight(10, 40, 40, 40), new LineSettings { Tool = new ToolSettingsChange(ForceGrams: 333, Times: 2) }));
        Assert.Equal(["Score", "Score", "Outer cuts"], plan.Passes.Select(p => p.Title));
        var own = Assert.Single(plan.Passes, p => p.Settings.ForceGrams == 333);
        Assert.Equal("l4", Assert.Single(own.Lines).Line);
        Assert.Equal(60, own.DrawLength, 6);
    }

    [Fact]
    public void Dashes_are_as_long_as_told_and_pens_of_another_tip_are_other_pens()
    {
        var plan = Plan(
            Worked("l2", Operation.Perforate, Given.Straight(0, 20, 59, 20), new LineSettings { Dashes = new PerforationDashes(5, 4) }),
            Worked("l3", Operation.Draw, Given.Straight(10, 30, 40, 30), new LineSettings { TipMm = 0.2 }),
            Worked("l4", Operation.Draw, Given.Straight(10, 40, 40, 40), new LineSettings { TipMm = 0.8 }));
        Assert.Equal(7, plan.Passes.Single(p => p.Operation == Operation.Perforate).Lines[0].Strokes.Length);
        Assert.Equal(2, plan.Passes.Count(p => p.Operation == Operation.Draw));
        Assert.Contains(plan.Steps.OfType<Stop>().SelectMany(s => s.Work).OfType<PutToolIn>(), t => t is { Tool: Tool.Pen, TipMm: 0.8 });
    }

    [Fact]
    public void A_filled_area_runs_its_line_and_its_strokes_with_one_tool()
    {
        var square = Path.Rectangle(10, 10, 20, 20);
        var line = Plan(Worked("l2", Operation.Draw, square, LineSettings.Plain)).Passes.First();
        var filled = Plan(Worked("l2", Operation.Draw, square, new LineSettings { Fill = new AreaFill(FillPattern.Parallel, 0.5) })).Passes.First();
        Assert.Equal(80, line.DrawLength, 6);
        Assert.InRange(filled.DrawLength, 80 + 19 * 19 / 0.5, 80 + 20 * 20 / 0.5 * 1.1);
        Assert.True(filled.Seconds > 3 * line.Seconds);
    }
}
