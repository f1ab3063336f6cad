using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tests.Detail;

/// <summary>Pieces larger or finer than anybody works with are told so, the same every time, instead of taking all there is.</summary>
public sealed class IntricateTests
{
    private static Piece PieceOf(Path outline) => Piece.FromLines("p1", "Plate", "chalk-200", Affine.Identity, [Given.Line(outline, Operation.Cut)]);

    private static Path Spikes(int count) => Path.Polyline(
        Enumerable.Range(0, 2 * count).Select(i => new Point(50 + (i % 2 == 0 ? 49 : 20) * Math.Cos(i * Math.PI / count), 50 + (i % 2 == 0 ? 49 : 20) * Math.Sin(i * Math.PI / count))), closed: true);

    private static Path Star(int corners) => Path.Polyline(Enumerable.Range(0, corners).Select(i => new Point(50 + 50 * Math.Cos(i * 2.4), 50 + 50 * Math.Sin(i * 2.4))), closed: true);

    [Fact]
    public void A_strip_of_hundreds_of_metres_is_measured_more_coarsely_and_says_so()
    {
        var survey = PieceWidths.Survey(PieceOf(Path.Rectangle(0, 0, 900_000, 0.4)), 0.8);
        Assert.True(survey.IsComplete && survey.IsCoarse);
        Assert.InRange(survey.StepMm, 5, 8);
        Assert.Equal(0.4, survey.Courses[0].Place.WidthMm, 1e-6);
        Assert.False(PieceWidths.Survey(PieceOf(Path.Rectangle(0, 0, 90, 0.4)), 0.8).IsCoarse);
    }

    [Fact]
    public void Sixty_thousand_spikes_are_too_intricate_to_be_measured_or_mended()
    {
        var piece = PieceOf(Spikes(60_000));
        Assert.False(PieceWidths.Survey(piece, 0.8).IsComplete);
        Assert.Equal(Reason.TooIntricate, Assert.Throws<EditRefused>(() => Thickening.Grow(piece, new Thicken(false, 0.8, 0.4))).Reason);
        Assert.Equal(Reason.TooIntricate, Assert.Throws<EditRefused>(() => SmallThings.Find(piece, 1)).Reason);
        Assert.True(PieceWidths.Survey(PieceOf(Spikes(40)), 0.8).IsComplete);
    }

    [Fact]
    public void Lines_that_cross_hundreds_of_thousands_of_times_are_told_before_they_are_mended()
    {
        Assert.Throws<BudgetSpent>(() => Region.FromRings([.. Star(20_001).Flat], []));
        Assert.InRange(Region.FromRings([.. Star(101).Flat], []).Area, 5000, 8000);
    }

    [Fact]
    public void More_lines_than_are_checked_are_a_finding_of_their_own()
    {
        // Four thousand long lines, each half past the edge, which is looked at closely.
        var lines = Enumerable.Range(0, 4000).Select(i => Given.Line(Given.Straight(10, 10 + i * 0.02, 500, 10 + i * 0.02), Operation.Draw));
        var piece = Piece.FromLines("p1", "Plate", "chalk-200", Affine.Identity, [Given.Line(Path.Rectangle(0, 0, 100, 100), Operation.Cut), .. lines]);
        var findings = Checks.Findings(Design.Empty with { Pieces = [piece] });
        Assert.Contains(findings, f => f.Code == FindingCodes.NotAllChecked && f.Piece == "p1");
        Assert.Contains(findings, f => f.Code == FindingCodes.PastEdge);
        Assert.Equal(findings.Length, Checks.Findings(Design.Empty with { Pieces = [piece with { Name = "Plate" }] }).Length);
    }
}
