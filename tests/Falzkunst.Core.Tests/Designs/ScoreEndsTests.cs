using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

public sealed class ScoreEndsTests
{
    private static Path[] Fit(Piece piece, double clearance, string line = "l2") => [.. ScoreEnds.Fit(piece, clearance)[line]];

    private static Line Score(Path path) => Given.Line(path, Operation.Score);

    [Fact]
    public void A_fold_from_edge_to_edge_stops_short_at_both_ends()
    {
        var score = Assert.Single(Fit(Given.Piece("p", 100, 60, Score(Given.Straight(50, 0, 50, 60))), 1));
        Assert.Equal((1.01, 58.99), (Math.Round(score.Start.Y, 6), Math.Round(score.End.Y, 6)));
    }

    [Fact]
    public void A_fold_drawn_too_long_is_cut_back_and_one_drawn_a_little_short_stays_and_may_be_drawn_out()
    {
        var drawn = Given.Straight(50, 3, 50, 57.5);
        var piece = Given.Piece("p", 100, 60, Score(drawn));
        Assert.Equal(57.98, Assert.Single(Fit(Given.Piece("p", 100, 60, Score(Given.Straight(50, -20, 50, 80))), 1)).Length, 1e-6);
        Assert.Same(drawn, Assert.Single(Fit(piece, 1)));
        Assert.Equal(57.98, Assert.Single(ScoreEnds.DrawnOut(piece, 1)).Value.Length, 1e-6);
        var out1 = Edits.Apply(Given.ProjectOf(piece), new DrawOutScores([new("p", [piece.Lines[1].Id])]), Given.Drawer).Design.Pieces[0];
        Assert.Equal(57.98, out1.Lines[1].Path.Length, 1e-6);
        Assert.Empty(ScoreEnds.DrawnOut(out1, 1));
        // One that ends in mid paper is offered nothing.
        Assert.Empty(ScoreEnds.DrawnOut(Given.Piece("p", 100, 60, Score(Given.Straight(50, 10, 50, 40))), 1));
    }

    [Fact]
    public void A_score_in_mid_paper_is_the_very_line_that_was_drawn()
    {
        var drawn = Given.Straight(20, 20, 80, 40);
        Assert.Same(drawn, Assert.Single(Fit(Given.Piece("p", 100, 60, Score(drawn)), 1)));
    }

    [Fact]
    public void On_a_slanted_edge_the_distance_is_measured_square_to_the_edge()
    {
        var triangle = Piece.FromLines("p", "p", "chalk-200", Affine.Identity,
            [Given.Line(Path.Polyline([new(0, 0), new(100, 0), new(0, 100)], true), Operation.Cut), Score(Given.Straight(30, 10, 30, 90))]);
        var score = Assert.Single(Fit(triangle, 2));
        Assert.Equal(70 - 2.01 * Math.Sqrt(2), score.End.Y, 1e-6);
    }

    [Fact]
    public void An_opening_parts_a_fold_and_a_score_along_the_edge_does_not_run()
    {
        var window = Given.Piece("p", 100, 60, Score(Given.Straight(50, 0, 50, 60)), Given.Line(Path.Rectangle(40, 20, 20, 20), Operation.Cut));
        Assert.Equal([17.98, 17.98], Fit(window, 1).Select(p => Math.Round(p.Length, 6)));
        Assert.Empty(Fit(Given.Piece("p", 100, 60, Score(Given.Straight(0.4, 0, 0.4, 60))), 1));
    }

    [Fact]
    public void An_outline_that_a_pen_follows_ends_scores_like_one_that_is_cut()
    {
        var cut = Given.Piece("p", 100, 60, Score(Given.Straight(50, 0, 50, 60)));
        var drawn = cut with { Outline = (Line)cut.Outline.With(Operation.Draw) };
        Assert.Equal(57.98, Assert.Single(Fit(drawn, 1)).Length, 1e-6);
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Crumbs_of_scores_between_two_openings_do_not_run(bool isBent)
    {
        // Between the openings 0.38 mm of the score would be free.
        Line[] openings = [Given.Line(Path.Rectangle(20, 20, 20, 20), Operation.Cut), Given.Line(Path.Rectangle(42.4, 20, 20, 20), Operation.Cut)];
        var score = isBent ? Path.Polyline([new(5, 30), new(41.1, 30), new(41.2, 30.01), new(95, 30)], closed: false) : Given.Straight(5, 30, 95, 30);
        var runs = Fit(Given.Piece("p", 100, 60, [Score(score), .. openings]), 1);
        Assert.Equal(2, runs.Length);
        Assert.All(runs, r => Assert.True(r.Length > 10));
    }

    [Fact]
    public void A_fitted_score_keeps_its_distance_and_is_as_long_as_it_can_be()
    {
        var corners = Given.Points.Array[3, 14];
        var openings = (from c in Given.Points from r in Gen.Double[2, 40] select EllipticArc.Ellipse(c, r, r * 0.7)).Array[0, 3];
        Gen.Select(corners, openings, Given.Points, Given.Points, Gen.Double[0, 4]).ForAll((outline, holes, a, b, clearance) =>
        {
            if (Math.Abs(Polygons.SignedArea(outline)) < 1 || a.DistanceTo(b) < 1) return;
            var ring = Path.Polyline(outline, true);
            var cuts = holes.Prepend(ring).ToList();
            var piece = Piece.FromLines("p", "p", "chalk-200", Affine.Identity, [.. cuts.Select(c => Given.Line(c, Operation.Cut)), Score(Given.Straight(a.X, a.Y, b.X, b.Y))]);
            var fitted = Fit(piece, clearance, piece.Lines[^1].Id);
            double Distance(Point p) => cuts.Min(c => Polygons.DistanceToRing(Flattening.Flatten(c, 0.0005), p));
            bool OnPaper(Point p) => Polygons.Contains(ring.Flat, p) && !holes.Any(h => Polygons.Contains(h.Flat, p));
            foreach (var run in fitted)
            {
                for (var i = 0; i <= 40; i++) Assert.True(Distance(Point.Lerp(run.Start, run.End, i / 40.0)) >= clearance - 1e-6);
            }
            // What was left out is too close to a cut, or not on paper, or too short to be a fold.
            for (var i = 0; i <= 60; i++)
            {
                var p = Point.Lerp(a, b, i / 60.0);
                if (fitted.Any(f => Polygons.DistanceToStretch(p, f.Start, f.End) < 1e-6)) continue;
                Assert.True(!OnPaper(p) || Distance(p) <= clearance + 0.03 || IsNarrow(p), $"{p} could have been scored at {clearance}");
            }
            bool IsNarrow(Point p)
            {
                var step = (b - a) * (0.5 / a.DistanceTo(b));
                return Distance(p + step) <= clearance + 0.5 || Distance(p - step) <= clearance + 0.5;
            }
        }, iter: 400);
    }
}
