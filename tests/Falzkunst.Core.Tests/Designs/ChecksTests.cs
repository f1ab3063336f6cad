using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Tests.Designs;

public sealed class ChecksTests
{
    private static Project Mended(Project project) => Mend.For(Assert.Single(Checks.Findings(project.Design)), project.Design)[0].Edit is var edit ? Edits.Apply(project, edit, Given.Drawer) : project;

    [Theory]
    [InlineData(0.8, false)] // two short strokes whose ends lie near each other are no outline
    [InlineData(3, true)]
    public void Cuts_that_all_but_close_were_meant_to_unless_they_are_hardly_longer_than_their_gap(double leg, bool isMeant)
    {
        var hook = Path.Polyline([new(20, 20), new(20 + leg, 20.22), new(20, 20.44)], closed: false);
        var design = Given.ProjectOf(Given.Piece("p1", 80, 60, Given.Line(hook, Operation.Cut))).Design;
        Assert.Equal(isMeant, Checks.Findings(design).Any(f => f.Code == FindingCodes.OpenOutline));
    }

    [Fact]
    public void A_clean_piece_has_no_findings() => Assert.Empty(Checks.Findings(Given.ProjectOf(Given.Piece("p1", 80, 50,
        Given.Line(Given.Straight(40, 0, 40, 50), Operation.Score), Given.Line(Path.Rectangle(10, 10, 5, 5), Operation.Cut))).Design));

    [Fact]
    public void A_line_past_the_edge_is_found_with_its_length_and_ended_there()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 80, 50, Given.Line(Given.Straight(70, 20, 92, 20), Operation.Draw)) with { Place = Affine.Move(5, 5) });
        var finding = Assert.Single(Checks.Findings(project.Design));
        Assert.Equal("past-edge", finding.Code);
        Assert.Equal([11.9, 22], finding.LengthsMm.Select(mm => Math.Round(mm, 1)));
        Assert.InRange(finding.At!.Value.X, 85, 85.2);
        var after = Mended(project).Design.Pieces[0];
        Assert.Equal(10, after.Lines[1].Path.Length, 1);
        Assert.Empty(Checks.Findings(Mended(project).Design));
    }

    /// <summary>A piece that lies over or under another is its layer: what pokes out of one does not run onto the other.</summary>
    [Theory]
    [InlineData(20, FindingCodes.PastEdge)]
    [InlineData(80.01, FindingCodes.AcrossPieces)]
    public void A_line_past_the_edge_runs_onto_a_neighbour_and_onto_no_layer(double left, string code)
    {
        var project = Given.ProjectOf(
            Given.Piece("p1", 80, 50, Given.Line(Given.Straight(60, 20, 95, 20), Operation.Draw)), Given.Piece("p2", 80, 50) with { Place = Affine.Move(left, 0) });
        Assert.Equal(code, Assert.Single(Checks.Findings(project.Design)).Code);
    }

    [Fact]
    public void A_line_across_two_pieces_is_shared_out()
    {
        var project = Given.ProjectOf(
            Given.Piece("p1", 80, 50, Given.Line(Given.Straight(60, 20, 110, 20), Operation.Draw)), Given.Piece("p2", 80, 50) with { Place = Affine.Move(80.01, 0) });
        Assert.Equal("across-pieces", Assert.Single(Checks.Findings(project.Design)).Code);
        var after = Mended(project).Design;
        Assert.Empty(Checks.Findings(after));
        Assert.Equal(20, after.Pieces[0].Lines[1].Path.Length, 1);
        Assert.Equal(30, after.Pieces[1].Lines[1].Path.Length, 1);
        // Also where there is air between the two, which belongs to nobody.
        var apart = project with { Design = project.Design.With("p2", p => p with { Place = Affine.Move(90, 0) }) };
        Assert.Equal("across-pieces", Assert.Single(Checks.Findings(apart.Design)).Code);
        Assert.Equal(20, Mended(apart).Design.Pieces[1].Lines[1].Path.Length, 1);
    }

    [Fact]
    public void An_open_outline_is_found_with_its_gap_and_closed()
    {
        var open = Path.Polyline([new(10, 10), new(30, 10), new(30, 30), new(10, 30), new(10, 10.8)], closed: false);
        var project = Given.ProjectOf(Given.Piece("p1", 80, 50, Given.Line(open, Operation.Cut)));
        Assert.Equal(0.8, Assert.Single(Assert.Single(Checks.Findings(project.Design)).LengthsMm), 9);
        var after = Mended(project).Design;
        Assert.Empty(Checks.Findings(after));
        Assert.Equal(LineRole.Opening, after.Pieces[0].RoleOf(after.Pieces[0].Lines[1]));
    }

    [Fact]
    public void Doubled_and_pointlike_lines_are_found_and_taken_away()
    {
        var line = Given.Straight(10, 10, 60, 40);
        var doubled = Given.ProjectOf(Given.Piece("p1", 80, 50, Given.Line(line, Operation.Score), Given.Line(line.Reversed(), Operation.Score)));
        Assert.Equal("doubled-line", Assert.Single(Checks.Findings(doubled.Design)).Code);
        Assert.Equal(["l1", "l2"], Mended(doubled).Design.Pieces[0].Lines.Select(l => l.Id));
        var point = Given.ProjectOf(Given.Piece("p1", 80, 50, Given.Line(Given.Straight(10, 10, 10.001, 10), Operation.Draw)));
        Assert.Equal("no-length", Assert.Single(Checks.Findings(point.Design)).Code);
        Assert.Empty(Checks.Findings(Mended(point).Design));
        // Pen over score is no double.
        Assert.Empty(Checks.Findings(Given.ProjectOf(Given.Piece("p1", 80, 50, Given.Line(line, Operation.Score), Given.Line(line, Operation.Draw))).Design));
    }

    [Fact]
    public void A_piece_inside_another_of_its_stock_becomes_an_opening()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 80, 50), Given.Piece("p2", 20, 10) with { Place = Affine.Move(30, 20) });
        Assert.Equal(("inside-another", "p2"), (Assert.Single(Checks.Findings(project.Design)).Code, Checks.Findings(project.Design)[0].Piece));
        var after = Mended(project).Design;
        Assert.Equal(80 * 50 - 20 * 10, Assert.Single(after.Pieces).Area, 6);
        Assert.Empty(Checks.Findings(Given.ProjectOf(Given.Piece("p1", 80, 50), Given.Piece("p2", 20, 10) with { Place = Affine.Move(30, 20), Stock = "slate-220" }).Design));
        // In an opening of the other it lies on no paper.
        var window = Given.Piece("p1", 80, 50, Given.Line(Path.Rectangle(25, 15, 30, 20), Operation.Cut));
        Assert.Empty(Checks.Findings(Given.ProjectOf(window, Given.Piece("p2", 20, 10) with { Place = Affine.Move(30, 20) }).Design));
    }

    [Fact]
    public void A_line_on_no_piece_is_given_to_the_nearest_and_an_aid_is_no_finding()
    {
        var loose = Given.Line(Given.Straight(90, 10, 99, 10), Operation.Draw);
        var project = Given.ProjectOf(Given.Piece("p1", 80, 50), Given.Piece("p2", 80, 50) with { Place = Affine.Move(200, 0) });
        project = project with { Design = project.Design.PlusLoose(loose, (Line)loose.With(Operation.Aid)) };
        var finding = Assert.Single(Checks.Findings(project.Design));
        Assert.Equal(["Give it to Piece p1", "Take it away"], Mend.For(finding, project.Design).Select(m => m.Words));
        Assert.Equal(2, Edits.Apply(project, Mend.For(finding, project.Design)[0].Edit, Given.Drawer).Design.Pieces[0].Lines.Length);
    }
}
