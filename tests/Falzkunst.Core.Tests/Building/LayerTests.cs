using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Building;

/// <summary>Stacks: papers inside one outline, nested frames, steps outward, openings, and the ties that hold small things.</summary>
public sealed class LayerTests
{
    /// <summary>A tenth of five hundred pictures; FALZKUNST_PICTURES asks for more.</summary>
    private static readonly int Pictures = int.TryParse(Environment.GetEnvironmentVariable("FALZKUNST_PICTURES"), out var n) ? n : 50;

    private static readonly string[] Stocks = ["kraft-240", "slate-220", "rust-220", "mist-200"];

    private static readonly Gen<double> Unit = Gen.Double[0, 1];

    /// <summary>An outline, and patches of colour over it that overlap each other and reach out of it.</summary>
    private static readonly Gen<(Path Outer, Path[] Patches)> Picture = Gen.Select(
        Blob(40, 60), Gen.Select(Blob(4, 26), Gen.Double[-45, 45], Gen.Double[-45, 45]).Select((b, x, y) => b.Map(Affine.Move(x, y))).Array[1, 6]);

    private static Gen<Path> Blob(double least, double most) => Gen.Select(Gen.Int[3, 9], Unit.Array[9], Gen.Double[least, most]).Select((count, radii, size) =>
    {
        var nodes = Enumerable.Range(0, count).Select(i => (A: 2 * Math.PI * i / count, R: size * (0.55 + 0.45 * radii[i]))).Select(t => new Point(t.R * Math.Cos(t.A), t.R * Math.Sin(t.A))).ToArray();
        return new Path(nodes[0], [.. Enumerable.Range(0, count).Select(i =>
        {
            var (before, from, to, after) = (nodes[(i + count - 1) % count], nodes[i], nodes[(i + 1) % count], nodes[(i + 2) % count]);
            return Segment.Cubic(from + (to - before) * (1.0 / 6), to - (after - from) * (1.0 / 6), to);
        })], closed: true);
    });

    private static Design DesignOf(Path outer, Path[] patches) => new(
        [
            Piece.FromLines("p1", "Outline", "chalk-200", Affine.Identity, [Given.Line(outer, Operation.Cut)]).AtHome(),
            .. patches.Select((p, i) => Piece.FromLines($"p{i + 2}", $"Patch {i}", Stocks[i % Stocks.Length], Affine.Identity, [Given.Line(p, Operation.Cut)]).AtHome()),
        ], [], [], patches.Length + 2);

    private static Region Flat(Path path) => Region.FromRings(Flattening.Flatten(path, 0.005), []);

    private static Region Flat(StackLayer layer) => Flat(layer.Form.Outline).Minus(Region.UnionOf(layer.Form.Openings.Select(Flat)));

    private static bool Reaches(Path[] patches, Region whole) => patches.Any(p => Flat(p).And(whole).Area > 1);

    [Fact]
    public void Every_layer_is_one_piece_inside_the_outline_and_from_above_they_show_the_picture() => Picture.ForAll(picture =>
    {
        var whole = Flat(picture.Outer);
        if (!Reaches(picture.Patches, whole)) return;
        const double rim = 2.5;
        var design = DesignOf(picture.Outer, picture.Patches);
        var ids = design.Pieces.Skip(1).Select(p => p.Id).ToImmutableArray();
        var layers = ColourLayers.Find(design, "p1", ids, new ColourStackOptions(rim, CloseMm: 0));
        Assert.Empty(layers[0].Form.Openings);
        foreach (var layer in layers)
        {
            var area = Flat(layer);
            Assert.Equal(1, area.PartCount);
            Assert.True(area.Minus(whole.Grow(0.03, Corners.Round, 8)).Area < 0.05, "paper outside the outline");
        }
        // Seen from above, but for the rim and the bridges: the topmost paper at each place is the topmost patch there.
        var inner = whole.Grow(-rim - 0.05, Corners.Round, 8);
        var covered = Region.Empty;
        var bridges = layers.Sum(l => l.Bridged);
        var wrong = 0.0;
        foreach (var layer in layers.Reverse())
        {
            var seen = Flat(layer).Minus(covered).And(inner);
            var wanted = layer.Members[0] == "p1" ? whole : Region.UnionOf(layer.Members.Select(m => Flat(picture.Patches[int.Parse(m[1..], System.Globalization.CultureInfo.InvariantCulture) - 2])));
            wrong += seen.Minus(wanted.Grow(0.03, Corners.Round, 8)).Area;
            covered = covered.Union(Flat(layer));
        }
        Assert.True(wrong < 0.02 * inner.Area || wrong < bridges * 70, $"{wrong} mm² of {inner.Area} show another paper, with {bridges} bridges");
    }, Pictures);

    [Fact]
    public void What_is_loose_is_bridged_or_handed_to_the_layer_below()
    {
        var design = DesignOf(Path.Rectangle(0, 0, 60, 60), [Path.Rectangle(0, 0, 60, 30), Path.Rectangle(25, 40, 8, 8), Path.Rectangle(40, 10, 5, 5)]);
        design = design with { Pieces = [.. design.Pieces.Select(p => p.Id == "p4" ? p with { Stock = "slate-220" } : p)] };
        var bridged = ColourLayers.Find(design, "p1", ["p2", "p3", "p4"], new ColourStackOptions(3));
        Assert.Equal([0, 0, 2], bridged.Select(l => l.Bridged));
        Assert.Equal(["p3", "p4"], bridged[2].Members);
        var handed = ColourLayers.Find(design, "p1", ["p2", "p3", "p4"], new ColourStackOptions(3, Loose: LooseParts.HandDown));
        Assert.Equal([0, 1, 2], handed.Select(l => l.HandedDown));
        // Of the two parts one lies on the paper below, the other has none there and comes down to the solid layer.
        Assert.All(handed, l => Assert.Equal(1, Flat(l).PartCount));
        Assert.Single(handed[2].Form.Openings);
    }

    [Fact]
    public void Narrow_gaps_are_closed_and_lines_of_the_papers_go_along()
    {
        var design = DesignOf(Path.Rectangle(0, 0, 60, 60), [Path.Rectangle(-5, -5, 70, 35), Path.Rectangle(10, 30.15, 40, 20)]);
        design = design with { Pieces = [.. design.Pieces.Select(p => p.Id == "p3" ? p with { Stock = "kraft-240" } : p)] };
        design = design.With("p3", p => p.Plus(Given.Line(Given.Straight(2, 10, 38, 10), Operation.Draw)));
        var stack = Edits.Apply(Project.Empty with { Design = design }, new StackColours("p1", ["p2", "p3"], new ColourStackOptions(3, 0.3)), Given.Drawer).Design;
        Assert.Equal(2, stack.Pieces.Length);
        var layer = stack.Pieces[1];
        Assert.Equal(36, Assert.Single(layer.Lines, l => l.Operation == Operation.Draw).Path.Length, 1e-6);
        Assert.All(stack.Pieces, p => Assert.Equal(60, p.Size.Width, 0.01));
        var open = Edits.Apply(Project.Empty with { Design = design }, new StackColours("p1", ["p2", "p3"], new ColourStackOptions(3, 0)), Given.Drawer).Design;
        Assert.True(open.Pieces[1].Paper.Openings.Length > layer.Paper.Openings.Length || open.Pieces[1].Area < layer.Area);
        Assert.Throws<EditRefused>(() => ColourLayers.Find(design, "p1", ["p2"], new ColourStackOptions(900)));
        Assert.Equal(Reason.NothingInCommon, Assert.Throws<EditRefused>(() => ColourLayers.Find(design.With("p2", p => p with { Place = Affine.Move(500, 0) }), "p1", ["p2"], new ColourStackOptions(3))).Reason);
    }

    private static Project Do(Project project, BenchAction action, params string[] pieces) => Edits.Apply(project, action.For(new BenchContext(project, Picked.OfPieces([.. pieces]), Given.Drawer)), Given.Drawer);

    [Fact]
    public void Frames_are_nested_have_their_backings_and_follow_the_motif()
    {
        var plate = Given.ProjectOf(Given.Piece("p1", 100, 80));
        var project = Do(plate, new FramesAction(3, 12, 2, "kraft-240", 5), "p1");
        Assert.True(project.Design.Require("p1") is { Hidden: true, Quantity: 0 });
        var frames = project.Design.Pieces.Where(p => p.Stock == "chalk-200" && p.Id != "p1").ToList();
        var backings = project.Design.Pieces.Where(p => p.Stock == "kraft-240").ToList();
        Assert.Equal([100, 76, 52], frames.Select(p => Math.Round(p.Size.Width, 3)));
        Assert.Equal([104, 80, 56], backings.Select(p => Math.Round(p.Size.Width, 3)));
        // Outer frames have an opening under what covers them, less the margin for glue: 12 − 2 + 5 wide.
        Assert.Equal(70, frames[0].Paper.Openings.Single().Bounds.Width, 0.01);
        Assert.Empty(frames[2].Paper.Openings);
        Assert.Equal(0, project.Design.Pieces.IndexOf(project.Design.Require("p1")));
        var wider = Do(project, new ResizeAction(140, 80, false), "p1");
        Assert.Equal([140, 116, 92], wider.Design.Pieces.Where(p => p.Stock == "chalk-200" && p.Id != "p1").Select(p => Math.Round(p.Size.Width, 3)));
        Assert.All(Do(plate, new FramesAction(2, 12, 2, "kraft-240"), "p1").Design.Pieces, p => Assert.Empty(p.Paper.Openings));
        Assert.Throws<EditRefused>(() => Do(plate, new FramesAction(8, 12), "p1"));
    }

    [Fact]
    public void Shadow_layers_step_outward_and_follow_and_sides_may_differ()
    {
        var plate = Given.ProjectOf(Given.Piece("p1", 50, 30));
        var project = Do(plate, new ShadowAction(3, 4, ["kraft-240", "slate-220"]), "p1");
        Assert.Equal([("kraft-240", 74.0), ("slate-220", 66.0), ("kraft-240", 58.0), ("chalk-200", 50.0)], project.Design.Pieces.Select(p => (p.Stock, Math.Round(p.Size.Width, 2))));
        var card = Do(plate, new BorderAction([5], Sharp: true, Left: 10, Bottom: -3), "p1").Design.Pieces[0];
        var box = card.Outline.Path.BoundsUnder(card.Place);
        Assert.Equal(new Box(-15, -5, 55, 32), new Box(Math.Round(box.MinX, 6), Math.Round(box.MinY, 6), Math.Round(box.MaxX, 6), Math.Round(box.MaxY, 6)));
        Assert.Equal(4, card.Outline.Path.Flat.Length);
    }

    [Fact]
    public void Openings_become_smaller_while_the_outline_stays_and_close_where_nothing_is_left()
    {
        var holes = Given.ProjectOf(Given.Piece("p1", 60, 30, Given.Line(Geometry.PathAreasTests.Ellipse(5, 5).Map(Affine.Move(15, 15)), Operation.Cut), Given.Line(Path.Rectangle(40, 10, 1.5, 1.5), Operation.Cut)));
        var smaller = Do(holes, new OpeningsAction(-1), "p1").Design.Require("p1");
        Assert.Same(holes.Design.Pieces[0].Outline, smaller.Outline);
        var left = Assert.Single(smaller.Paper.Openings);
        Assert.Equal(Math.PI * 16, Math.Abs(left.SignedArea), 0.3);
        Assert.Equal(Reason.NoOpenings, Assert.Throws<EditRefused>(() => Do(Given.ProjectOf(Given.Piece("p1", 60, 30)), new OpeningsAction(-1), "p1")).Reason);
    }

    [Fact]
    public void Held_cuts_run_all_round_but_for_their_ties_off_the_corners()
    {
        var plate = Given.ProjectOf(Given.Piece("p1", 40, 20));
        foreach (var (count, width, shift) in new[] { (1, 0.4, 0.0), (3, 0.5, 0.0), (4, 1.0, 7.5), (2, 0.3, -33.0) })
        {
            var held = Do(plate, new HoldAction(count, width, shift), "p1").Design.Pieces[0].Outline;
            var runs = HeldCuts.Runs(held);
            Assert.Equal(count, runs.Length);
            Assert.Equal(120 - count * width, runs.Sum(r => r.Length), 0.01);
            Assert.All(runs.SelectMany(r => new[] { r.Start, r.End }), p => Assert.True(Polygons.DistanceToRing(held.Path.Flat, p) < 1e-6));
            if (shift != 0) continue;
            Assert.All(runs, r => Assert.All(new[] { new Point(0, 0), new Point(40, 0), new Point(40, 20), new Point(0, 20) }, corner => Assert.True(r.Start.DistanceTo(corner) > width && r.End.DistanceTo(corner) > width)));
        }
        var laid = Edits.Apply(Do(plate, new HoldAction(2, 0.5), "p1"), new PutOnSheets(2, Guid.NewGuid()), Given.Drawer);
        Assert.Equal(2, SheetLines.Collect(laid.Sheets!.Sheets[0], laid.Made, 1).Count(l => l.Operation == Operation.Cut));
        Assert.Null(Do(Do(plate, new HoldAction(), "p1"), new HoldAction(0), "p1").Design.Pieces[0].Outline.Settings);
        // Too short for its ties, it is cut as it is.
        Assert.Single(HeldCuts.Runs(Do(Given.ProjectOf(Given.Piece("p1", 0.6, 0.6)), new HoldAction(3, 1), "p1").Design.Pieces[0].Outline));
    }

    [Fact]
    public void One_tie_is_moved_along_its_cut_and_the_others_stay()
    {
        var held = Do(Given.ProjectOf(Given.Piece("p1", 40, 20)), new HoldAction(3, 0.5), "p1");
        ImmutableArray<Point> Ties(Project p) => HeldCuts.Ties(p.Design.Pieces[0].Outline.Path, p.Design.Pieces[0].Outline.Settings!.Hold!);
        var was = Ties(held);
        for (var tie = 0; tie < 3; tie++)
        {
            var to = new Point(40, 7.5);
            var moved = Ties(Do(held, new TieToAction(tie, to.X + 3, to.Y), "p1"));
            Assert.True(moved[tie].DistanceTo(to) < 1e-6);
            Assert.All(Enumerable.Range(0, 3).Where(t => t != tie), t => Assert.True(moved[t].DistanceTo(was[t]) < 1e-9));
            // All the way round is no way.
            Assert.True(Ties(Do(held, new TieByAction(tie, 120), "p1"))[tie].DistanceTo(was[tie]) < 1e-6);
        }
        var nudged = Do(Do(held, new TieByAction(1, 2), "p1"), new TieByAction(1, -5), "p1");
        Assert.Equal(3, Ties(nudged)[1].DistanceTo(was[1]), 1e-6);
        var runs = HeldCuts.Runs(nudged.Design.Pieces[0].Outline);
        Assert.Equal(3, runs.Length);
        Assert.Equal(118.5, runs.Sum(r => r.Length), 0.01);
        // The same ties again put all back.
        Assert.Equal(held.Design.Pieces[0].Outline.Settings, Do(nudged, new HoldAction(3, 0.5), "p1").Design.Pieces[0].Outline.Settings);
        Assert.NotEqual(held.Design.Pieces[0].Outline.Settings, nudged.Design.Pieces[0].Outline.Settings);
        Assert.Throws<EditRefused>(() => Do(held, new TieByAction(3, 1), "p1"));
        Assert.Equal(Reason.NotHeld, Assert.Throws<EditRefused>(() => Do(Given.ProjectOf(Given.Piece("p1", 40, 20)), new TieByAction(0, 1), "p1")).Reason);
    }
}
