using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

public sealed class AreaFillTests
{
    private static readonly Path Square = Path.Rectangle(0, 0, 40, 40), Bowl = Path.Rectangle(10, 10, 20, 20);

    [Theory]
    [InlineData(FillPattern.Parallel)]
    [InlineData(FillPattern.Crossed)]
    [InlineData(FillPattern.Inward)]
    public void Strokes_cover_the_area_stay_inside_it_and_leave_the_bowl_free(FillPattern pattern)
    {
        const double tip = 1;
        var strokes = AreaFills.Strokes([Square, Bowl], new AreaFill(pattern, 0.8), tip);
        var points = strokes.SelectMany(s => Sampling.Midpoints(s, 0.2, 100_000)).ToList();
        Assert.All(points, p => Assert.True(InArea(p, -0.01), $"{p} is outside"));
        // No place of the area farther from a stroke than half the tip, corners apart where a round tip cannot reach.
        var near = new BoxTree([.. points.Select(p => new Box(p.X, p.Y, p.X, p.Y))]);
        for (var x = 0.75; x < 40; x += 0.5)
        {
            for (var y = 0.75; y < 40; y += 0.5)
            {
                var at = new Point(x, y);
                if (!InArea(at, 0.6)) continue;
                Assert.Contains(near.Meeting(new Box(x, y, x, y).Grow(0.7)), i => points[i].DistanceTo(at) < 0.7);
            }
        }
    }

    [Fact]
    public void The_length_is_the_area_over_the_distance_and_the_tool_is_seldom_lifted()
    {
        var strokes = AreaFills.Strokes([Square], new AreaFill(FillPattern.Parallel, 0.5, 0), 0.5);
        Assert.Single(strokes);
        Assert.InRange(strokes.Sum(s => s.Length), 39.5 * 39.5 / 0.5 * 0.97, 39.5 * 39.5 / 0.5 * 1.06);
    }

    [Fact]
    public void What_is_narrower_than_the_tip_gets_no_strokes_and_too_many_strokes_are_refused()
    {
        Assert.Empty(AreaFills.Strokes([Path.Rectangle(0, 0, 30, 0.3)], new AreaFill(FillPattern.Inward), 0.4));
        Assert.Throws<EditRefused>(() => AreaFills.Strokes([Path.Rectangle(0, 0, 3000, 3000)], new AreaFill(FillPattern.Parallel, 0.05), 0.4));
    }

    [Fact]
    public void A_fill_of_too_many_strokes_is_refused_where_it_is_chosen_and_shows_none_where_scaling_made_it_so()
    {
        var large = Given.Piece("p1", 3000, 3000, (Line)Given.Line(Path.Rectangle(0, 0, 2900, 2900), Operation.Draw));
        var fine = new LineSettings { Fill = new AreaFill(FillPattern.Parallel, AreaFill.LeastMm) };
        Assert.Throws<EditRefused>(() => Edits.Apply(Given.ProjectOf(large), new ChangeLineSettings([new("p1", ["l2"])], [LineSettingsPart.Fill, LineSettingsPart.FillDistance], fine), Given.Drawer));
        Assert.Empty(AreaFills.Strokes(large.EachWorked(["l2"], l => l.With(fine)))["l2"]);
    }

    [Fact]
    public void Hundreds_of_areas_are_filled_each_by_itself()
    {
        var rings = Enumerable.Range(0, 600).Select(i => Path.Rectangle(i % 30 * 5, i / 30 * 5, 4, 4)).ToList();
        foreach (var pattern in Enum.GetValues<FillPattern>())
        {
            var strokes = AreaFills.Strokes(rings, new AreaFill(pattern, 0.5), 0.4);
            Assert.Equal(0, strokes.Length % 600);
            Assert.All(strokes, s => Assert.Contains(rings, r => r.Bounds.Contains(s.Bounds)));
        }
    }

    [Fact]
    public void Any_closed_lines_can_be_filled() => Gen.Select(Given.Paths.Array[1, 3], Gen.Enum<FillPattern>(), Gen.Double[2, 20]).ForAll((paths, pattern, distance) =>
    {
        var rings = paths.Select(p => new Path(p.Start, p.Segments, closed: true)).ToList();
        var box = rings.Aggregate(Box.Empty, (b, r) => b.Include(r.Bounds)).Grow(0.1);
        foreach (var stroke in AreaFills.Strokes(rings, new AreaFill(pattern, distance), 0.4)) Assert.True(box.Contains(stroke.Bounds), $"{pattern} {distance}: {stroke.Bounds} in {box}");
    }, iter: 60);

    [Fact]
    public void Lines_worked_alike_fill_together()
    {
        var filled = new LineSettings { Fill = new AreaFill(FillPattern.Parallel, 1) };
        var piece = Given.Piece("p1", 60, 60,
            (Line)Given.Line(Square, Operation.Draw).With(filled), (Line)Given.Line(Bowl, Operation.Draw).With(filled),
            (Line)Given.Line(Bowl, Operation.Foil).With(filled));
        var strokes = AreaFills.Strokes(piece);
        Assert.Equal(["l2", "l4"], strokes.Keys.Order());
        Assert.All(strokes["l2"].SelectMany(s => Sampling.Midpoints(s, 0.5, 10_000)), p => Assert.True(InArea(p, -0.01)));
    }

    private static bool InArea(Point p, double inset) =>
        p.X >= inset && p.X <= 40 - inset && p.Y >= inset && p.Y <= 40 - inset
        && !(p.X > 10 - inset && p.X < 30 + inset && p.Y > 10 - inset && p.Y < 30 + inset);
}
