using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Formats.Production;

namespace Falzkunst.Formats.Tests.Production;

/// <summary>What goes to machines, read back by readers that are not ours.</summary>
public sealed class OutputTests
{
    private const double TrueTo = 0.05;

    // A frame along the whole sheet, so that a plot's lowest left point is the sheet's corner.
    private static readonly List<SheetLine> Lines = [.. SheetLines.Collect(Sheet(), 1, Affine.Identity)];

    private static Piece Sheet()
    {
        var look = new Look("#000000", null, false, true, null);
        Line Made(Core.Geometry.Path path, Operation operation) => new("", path, operation, look, null, WorkedItem.InkFor(operation, look));
        return Piece.FromLines("p1", "All", "chalk-200", Affine.Identity,
        [
            Made(Core.Geometry.Path.Rectangle(0, 0, 200, 120), Operation.Cut), Made(EllipticArc.Ellipse(new Point(150.37, 61.13), 30, 22), Operation.Cut),
            Made(Core.Geometry.Path.Polyline([new(33.33, 1), new(33.33, 119)], false), Operation.Score),
            Made(Core.Geometry.Path.Polyline([new(50, 20), new(80.25, 47.5), new(90, 20)], false), Operation.Draw),
        ]);
    }

    [Fact]
    public void Svg_is_true_to_size_for_librsvg()
    {
        var read = OtherReaders.Svg(ProductionSvgWriter.Write(ProductionPage.FromLines(Lines, 200, 120)));
        foreach (var line in Lines)
        {
            foreach (var corner in line.Path.Segments.Select(s => s.End).Append(line.Path.Start)) Assert.Contains(read, p => p.DistanceTo(corner) <= TrueTo);
        }
        Assert.All(read, p => Assert.True(new Box(0, 0, 200, 120).Grow(TrueTo).Contains(p)));
    }

    [Fact]
    public void Hpgl_is_true_to_size_and_pen_for_hp2xx()
    {
        var (text, pens) = HpglWriter.Write(ProductionPage.FromLines(Lines, 200, 120));
        Assert.Equal(["draw #000000", "score", "cut"], pens.Values);
        var read = OtherReaders.Hpgl(text);
        foreach (var line in Lines)
        {
            var pen = pens.Single(p => p.Value.StartsWith(line.Operation.Word(), StringComparison.Ordinal)).Key;
            var plotted = read.Where(r => r.Pen == pen).Select(r => new Point(r.At.X, 120 - r.At.Y)).ToList();
            foreach (var p in line.Path.Flat) Assert.Contains(plotted, q => q.DistanceTo(p) <= TrueTo);
        }
        // and nothing lies elsewhere
        foreach (var (_, at) in read)
        {
            var p = new Point(at.X, 120 - at.Y);
            Assert.Contains(Lines, l => Enumerable.Range(1, l.Path.Flat.Length).Any(i => Polygons.DistanceToStretch(p, l.Path.Flat[i - 1], l.Path.Flat[i % l.Path.Flat.Length]) <= TrueTo));
        }
    }

    [Theory]
    [InlineData(40, FileOrigin.LowerLeft, "PU5000,3700")]
    [InlineData(100, FileOrigin.LowerLeft, "PU12500,9250")]
    [InlineData(100, FileOrigin.UpperLeft, "PU12500,2750")]
    public void Hpgl_is_in_the_units_and_from_the_corner_that_the_machine_wants(double units, FileOrigin origin, string first)
    {
        var line = Core.Geometry.Path.Polyline([new(125, 27.5), new(130, 27.5)], false);
        var piece = Piece.FromLines("p1", "One", "chalk-200", Affine.Identity, [new Line("l1", Core.Geometry.Path.Rectangle(0, 0, 200, 120), Operation.Cut, new Look("#000000", null, false, true, null), null, null), new Line("l2", line, Operation.Score, new Look("#000000", null, false, true, null), null, null)]);
        var (text, _) = HpglWriter.Write(ProductionPage.FromLines([.. SheetLines.Collect(piece, 1, Affine.Identity)], 200, 120), way: new MachineFile(MachineFormat.Hpgl, units, origin));
        Assert.Contains(first, text, StringComparison.Ordinal);
    }

    [Fact]
    public void Files_say_how_often_lines_are_run()
    {
        var line = Lines.Single(l => l.Operation == Operation.Draw);
        var thrice = line with { Work = line.Work with { Settings = new ToolSettingsChange { Times = 3 } } };
        var plan = RunPlanner.Plan([thrice], "s", 200, 120, SeedCatalogue.Machines[0], SeedCatalogue.Stocks[0]);
        var page = ProductionPage.FromPlan(plan, 200, 120);
        Assert.Contains("data-times=\"3\"", ProductionSvgWriter.Write(page), StringComparison.Ordinal);
        var (text, _) = HpglWriter.Write(page);
        Assert.Equal(3, text.Split("3210,2900").Length - 1); // the corner at 80.25, 47.5
        Assert.DoesNotContain("data-times", ProductionSvgWriter.Write(ProductionPage.FromPlan(RunPlanner.Plan([line], "s", 200, 120, SeedCatalogue.Machines[0], SeedCatalogue.Stocks[0]), 200, 120)), StringComparison.Ordinal);
    }

    [Fact]
    public void A_file_has_one_side_and_a_pen_of_its_own_for_each_way_of_working()
    {
        SheetLine Line(Stage stage, Operation operation, string id, double y, LineWork work) => new(stage, operation, null, "p1", 1, id, Core.Geometry.Path.Polyline([new(20, y), new(60, y)], false), work);
        var plan = RunPlanner.Plan(
            [
                Line(Stage.Score, Operation.Score, "l2", 10, new(null, false, true, null, null)), Line(Stage.Score, Operation.Score, "l3", 20, default),
                Line(Stage.HalfCuts, Operation.Cut, "l4", 30, new(null, true, false, null, null)), Line(Stage.OuterCuts, Operation.Cut, "l1", 40, default),
                Line(Stage.InnerCuts, Operation.Cut, "l5", 50, new(null, false, false, null, new ToolSettingsChange { ForceGrams = 321 })),
            ],
            "s", 200, 120, SeedCatalogue.Machines.Single(m => m.Key == "twin-330"), SeedCatalogue.Stocks.Single(s => s.Key == "chalk-200"));
        var page = ProductionPage.FromPlan(plan, 200, 120);
        Assert.Throws<ArgumentException>(() => HpglWriter.Write(page));
        var (back, face) = (HpglWriter.Write(page.OfSide(isFaceDown: true)!), HpglWriter.Write(page.OfSide(isFaceDown: false)!));
        Assert.Equal(["score"], back.Pens.Values);
        // Mirrored: from 180 to 140.
        Assert.All(new[] { "7200,4400", "5600,4400" }, end => Assert.Contains(end, back.Text, StringComparison.Ordinal));
        Assert.Equal(["score", "half cut"], face.Pens.Values.Take(2));
        Assert.Equal(4, face.Pens.Count);
        Assert.Contains(face.Pens.Values, p => p.StartsWith("cut 321 g", StringComparison.Ordinal));
        Assert.Null(ProductionPage.FromPlan(RunPlanner.Plan([Line(Stage.Score, Operation.Score, "l2", 10, default)], "s", 200, 120, SeedCatalogue.Machines[0], SeedCatalogue.Stocks[0]), 200, 120).OfSide(isFaceDown: true));
        Assert.DoesNotContain(',', string.Concat(System.Text.RegularExpressions.Regex.Matches(ProductionSvgWriter.Write(page.OfSide(isFaceDown: true)!), " id=\"([^\"]*)\"").Select(m => m.Groups[1].Value)));
    }

    [Fact]
    public void Groups_come_in_the_law_of_paper_with_names_that_bring_the_operations_back()
    {
        var svg = ProductionSvgWriter.Write(ProductionPage.FromLines(Lines, 200, 120));
        var back = ArtFile.Parse(svg);
        Assert.Equal([Operation.Draw, Operation.Score, Operation.Cut, Operation.Cut], back.Shapes.Select(s => s.Declared!.Value));
        Assert.Empty(back.Notes);
    }

    [Fact]
    public void A_planned_sheet_is_written_pass_by_pass_with_perforations_as_dashes()
    {
        var perforated = Lines.Append(new SheetLine(Stage.Perforate, Operation.Perforate, null, "p1", 1, "l5", Core.Geometry.Path.Polyline([new(20, 10), new(20, 40)], false))).ToList();
        var plan = RunPlanner.Plan(perforated, "s", 120, 120, SeedCatalogue.Machines.Single(m => m.Key == "twin-330"), SeedCatalogue.Stocks.Single(s => s.Key == "chalk-200"));
        var page = ProductionPage.FromPlan(plan, 200, 120);
        Assert.Equal([Operation.Draw, Operation.Score, Operation.Perforate, Operation.Cut, Operation.Cut], page.Groups.Select(g => g.Operation));
        Assert.Equal(10, page.Groups.Single(g => g.Operation == Operation.Perforate).Paths.Length);
    }
}
