using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tests.Designs;

/// <summary>Folds that files draw as thin areas, and lines that become folds after they came in.</summary>
public sealed class ThinFoldTests
{
    private static DrawnShape Filled(Path path, string fill, params string[] groups) => new([path], new Appearance { Fill = fill }, null, [.. groups], null, "");

    private static DrawnShape Stroked(Path path, string stroke = "#000000", params string[] groups) => new([path], new Appearance { Stroke = stroke }, null, [.. groups], null, "");

    private static Design Assemble(params DrawnShape[] shapes) => Assembler.Assemble(new Drawing(200, 200, [.. shapes], 0, []), [], _ => "chalk-200");

    private static readonly DrawnShape Card = Filled(Path.Rectangle(0, 0, 120, 80), "#C08040", "Layer_1");

    [Fact]
    public void A_thin_rectangle_from_edge_to_edge_of_the_piece_under_it_is_one_score()
    {
        var design = Assemble(Card, Filled(Path.Rectangle(59.75, 0, 0.5, 80), "#404040", "Layer_4"));
        var piece = Assert.Single(design.Pieces);
        var fold = Assert.Single(piece.Lines.Skip(1));
        Assert.Equal((Operation.Score, false), (fold.Operation, fold.Path.IsClosed));
        Assert.Equal(80, fold.Path.Length, 1e-6);
        Assert.Equal(60, fold.Path.Start.X, 1e-6);
        Assert.Equal(78 - 0.02, Assert.Single(ScoreEnds.Fit(piece, 1)[fold.Id]).Length, 1e-6);
    }

    [Fact]
    public void Merged_into_the_outlines_shape_it_is_the_same_length()
    {
        var compound = new DrawnShape([Path.Rectangle(0, 0, 120, 80), Path.Rectangle(59.75, 0.1, 0.5, 79.8)], new Appearance { Fill = "#C08040" }, null, ["Layer_1"], null, "");
        var fold = Assert.Single(Assert.Single(Assemble(compound).Pieces).Lines.Skip(1));
        Assert.Equal((Operation.Score, 79.8), (fold.Operation, Math.Round(fold.Path.Length, 6)));
    }

    [Fact]
    public void Drawn_as_four_strokes_it_is_one_score_too()
    {
        DrawnShape Side(double x0, double y0, double x1, double y1) => Stroked(Given.Straight(x0, y0, x1, y1), "#000000", "Layer_2");
        var design = Assemble(Card, Side(59.75, 1, 60.25, 1), Side(60.25, 1, 60.25, 79), Side(60.25, 79, 59.75, 79), Side(59.75, 79, 59.75, 1));
        Assert.Equal(78, Assert.Single(Assert.Single(design.Pieces).Lines.Skip(1)).Path.Length, 1e-6);
    }

    [Fact]
    public void A_slot_that_ends_in_mid_paper_a_wire_of_its_own_and_a_stated_cut_stay_what_they_are()
    {
        var slot = Assemble(Card, Stroked(Path.Rectangle(30, 20, 0.6, 30), "#000000", "Layer_1"));
        Assert.Equal(LineRole.Opening, Assert.Single(slot.Pieces) is var p ? p.RoleOf(p.Lines[1]) : default);
        Assert.Equal(2, Assemble(Card, Filled(Path.Rectangle(150, 0, 0.5, 60), "#404040", "Layer_2")).Pieces.Length);
        Assert.Equal(2, Assemble(Card, Filled(Path.Rectangle(59.75, 0, 0.5, 80), "#404040", "cut")).Pieces.Length);
    }

    [Fact]
    public void A_layer_named_for_folds_needs_no_place()
    {
        var piece = Assert.Single(Assemble(Card, Stroked(Path.Rectangle(30, 20, 0.6, 30), "#000000", "fold lines")).Pieces);
        Assert.Equal((Operation.Score, 30.0), (piece.Lines[1].Operation, Math.Round(piece.Lines[1].Path.Length, 6)));
    }

    [Fact]
    public void A_fold_drawn_in_two_layers_is_one_fold_and_one_finding()
    {
        var design = Assemble(Card, Stroked(Given.Straight(60, 0, 60, 80), "#0000FF", "Layer_1"), Stroked(Given.Straight(60, 0, 60, 80), "#0000FF", "Layer_7"));
        Assert.Equal(2, design.Pieces[0].Lines.Length);
        Assert.Equal(FindingCodes.DoubledLine, Assert.Single(design.Findings).Code);
    }

    [Fact]
    public void Set_to_score_later_a_thin_piece_does_what_it_would_have_done_at_import()
    {
        var wire = Given.Piece("p2", 40, 0.5) with { Place = Affine.Move(20, 30) };
        var project = Given.ProjectOf(Given.Piece("p1", 120, 80), wire);
        var set = Edits.Apply(project, new SetOperation([new("p2", [wire.Outline.Id])], Operation.Score), Given.Drawer).Design;
        var fold = Assert.Single(Assert.Single(set.Pieces).Lines.Skip(1));
        Assert.Equal((Operation.Score, 40.0, 20.0), (fold.Operation, Math.Round(fold.Path.Length, 6), Math.Round(fold.Path.Bounds.MinX, 6)));
        // An outline that a hand wants scored stays an outline.
        var tab = Given.ProjectOf(Given.Piece("p1", 40, 20));
        Assert.Single(Edits.Apply(tab, new SetOperation([new("p1", ["l1"])], Operation.Score), Given.Drawer).Design.Pieces);
    }

    [Fact]
    public void A_rule_applied_after_import_does_what_it_would_have_done_at_import()
    {
        var rule = new LookRule(Operation.Score, Fill: "#2040E0");
        DrawnShape[] shapes = [Card, Filled(Path.Rectangle(20, 20, 30, 20), "#2040E0", "Layer_3")];
        var before = Assemble(shapes);
        Assert.Equal(2, before.Pieces.Length);
        var after = Edits.Apply(Core.Projects.Project.Empty with { Design = before }, new ApplyRules([rule]), Given.Drawer).Design;
        var atImport = Assembler.Assemble(new Drawing(200, 200, [.. shapes], 0, []), [rule], _ => "chalk-200");
        Assert.Equal(atImport.Pieces.Select(p => p.Lines.Length), after.Pieces.Select(p => p.Lines.Length));
        Assert.Equal(atImport.Pieces[0].Lines[1].Path.Bounds, after.Pieces[0].Lines[1].Path.Bounds);
        Assert.Equal(Operation.Score, after.Pieces[0].Lines[1].Operation);
    }
}
