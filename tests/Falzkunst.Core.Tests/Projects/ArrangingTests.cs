using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Projects;

public sealed class ArrangingTests
{
    private static readonly Gen<Piece> Pieces =
        from path in Given.Paths
        from place in Given.Maps
        select Given.Piece("p1", 80, 50, Given.Line(path, Operation.Draw)) with { Place = place };

    private static readonly Picked One = Picked.OfPieces("p1");

    private static Project Do(Project project, params Edit[] edits) => edits.Aggregate(project, (p, e) => Edits.Apply(p, e, Given.Drawer));

    /// <summary>Every corner and handle of the piece as it lies on the card.</summary>
    private static IEnumerable<Point> OnCard(Project project) => project.Design.Pieces[0].Shape.Paths
        .Select(p => p.Map(project.Design.Pieces[0].Place))
        .SelectMany(p => p.Segments.SelectMany(s => new[] { s.Handle1, s.Handle2, s.End }).Append(p.Start));

    private static void SameWithin(double mm, Project a, Project b) =>
        Assert.All(OnCard(a).Zip(OnCard(b)), pair => Assert.True(pair.First.DistanceTo(pair.Second) <= mm, $"{pair.First} and {pair.Second}"));

    [Fact]
    public void Mirroring_twice_turning_full_and_scaling_back_change_nothing() => Gen.Select(Pieces, Gen.Double[1, 359], Gen.Double[0.2, 5]).ForAll((piece, degrees, by) =>
    {
        var project = Given.ProjectOf(piece);
        SameWithin(1e-9, project, Do(project, new MirrorPicked(One, true), new MirrorPicked(One, true)));
        SameWithin(1e-9, project, Do(project, new MirrorPicked(One, false), new MirrorPicked(One, false)));
        SameWithin(1e-9, project, Do(project, new TurnPicked(One, 360)));
        SameWithin(1e-9, project, Do(project, new TurnPicked(One, degrees), new TurnPicked(One, -degrees)));
        SameWithin(1e-9, project, Do(project, new ResizePicked(One, 80 * by, 50 / by), new ResizePicked(One, 80, 50)));
    });

    [Fact]
    public void A_size_is_what_was_asked_for_and_the_corner_stays()
    {
        var after = Do(Given.ProjectOf(Given.Piece("p1", 80, 50)), new ResizePicked(One, 40, 75)).Design.Pieces[0];
        Assert.Equal(new Box(0, 0, 40, 75), after.Size);
    }

    [Fact]
    public void A_mirrored_piece_is_cut_mirrored()
    {
        var piece = Given.Piece("p1", 80, 50, Given.Line(Given.Straight(10, 10, 20, 10), Operation.Draw));
        var after = Do(Given.ProjectOf(piece), new MirrorPicked(One, true)).Design.Pieces[0];
        Assert.Equal((70, 60), (after.Lines[1].Path.Start.X, after.Lines[1].Path.End.X));
    }

    [Fact]
    public void A_duplicate_is_a_piece_of_its_own_on_top_of_the_first()
    {
        var after = Do(Given.ProjectOf(Given.Piece("p1", 80, 50), Given.Piece("p2", 10, 10)), new DuplicatePicked(One)).Design;
        Assert.Equal(["p1", "p3", "p2"], after.Pieces.Select(p => p.Id));
        Assert.Equal("Piece p1 (2)", after.Pieces[1].Name);
        Assert.Equal(4, after.NextPiece);
    }

    [Theory]
    [InlineData(0, 50)]
    [InlineData(50, 5000)]
    [InlineData(double.NaN, 50)]
    public void Sizes_out_of_reach_are_refused(double width, double height) =>
        Assert.Throws<EditRefused>(() => Do(Given.ProjectOf(Given.Piece("p1", 80, 50)), new ResizePicked(One, width, height)));
}
