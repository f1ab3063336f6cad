using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

/// <summary>What items of each kind do under what is done to their piece.</summary>
public sealed class ItemTests
{
    private static readonly Project Plate = Edits.Apply(
        Given.ProjectOf(Given.Piece("p1", 100, 60, Given.Line(Path.Rectangle(20, 20, 20, 20), Operation.Cut))), new AddEdgeLine("p1", 5, Corners.Sharp, Operation.Draw), Given.Drawer);

    private static Piece Only(Project project) => project.Design.Pieces[0];

    [Fact]
    public void An_edge_line_follows_the_outline_and_keeps_its_distance() => Gen.Select(Gen.Double[30, 300], Gen.Double[30, 300]).ForAll((width, height) =>
    {
        var piece = Only(Edits.Apply(Plate, new ResizePicked(Picked.OfPieces("p1"), width, height), Given.Drawer));
        var line = Assert.Single(piece.Drawn, l => l.Operation == Operation.Draw);
        var expected = piece.Size.Grow(-5);
        Assert.Equal(expected.MinX, line.Path.Bounds.MinX, 1e-2);
        Assert.Equal(expected.MaxX, line.Path.Bounds.MaxX, 1e-2);
        Assert.Equal(expected.MinY, line.Path.Bounds.MinY, 1e-2);
        Assert.Equal(expected.MaxY, line.Path.Bounds.MaxY, 1e-2);
        Assert.DoesNotContain(piece.Lines, l => l.Id == line.Id);
    });

    [Theory]
    [InlineData(-5, 0, "radius")]
    [InlineData(double.NaN, 0, "radius")]
    [InlineData(1e9, 0, "radius")]
    [InlineData(2, -0.1, "third")]
    public void A_corner_of_no_radius_that_can_be_is_refused_beside_its_field(double radius, double third, string field)
    {
        var action = new Actions.DrawRectangleAction(10, 10, 40, 20, radius, Third: third);
        var refused = Assert.Throws<EditRefused>(() => action.For(new Actions.BenchContext(Plate, Picked.OfPieces("p1"), Given.Drawer)));
        Assert.Equal((Reason.OutOfRange, field), (refused.Reason, refused.Field));
        Assert.Equal(Measure.CornerRadius, refused.Values[0]);
    }

    [Fact]
    public void A_narrow_piece_has_no_line_so_far_inside_and_has_it_again_when_it_is_wide()
    {
        var narrow = Edits.Apply(Plate, new ResizePicked(Picked.OfPieces("p1"), 9, 60), Given.Drawer);
        Assert.DoesNotContain(Only(narrow).Drawn, l => l.Operation == Operation.Draw);
        var wide = Edits.Apply(narrow, new ResizePicked(Picked.OfPieces("p1"), 50, 60), Given.Drawer);
        Assert.Contains(Only(wide).Drawn, l => l.Operation == Operation.Draw);
    }

    [Fact]
    public void Made_plain_it_is_a_line_like_any_other_and_follows_nothing()
    {
        var derived = Only(Plate).Drawn.Single(l => l.Operation == Operation.Draw);
        var plain = Edits.Apply(Plate, new MakePlain([new("p1", [derived.Id])]), Given.Drawer);
        var line = Assert.Single(Only(plain).Lines, l => l.Operation == Operation.Draw);
        Assert.Equal(derived.Path, line.Path);
        Assert.Empty(Only(plain).Items.OfType<EdgeLine>());
        var scaled = Only(Edits.Apply(plain, new ResizePicked(Picked.OfPieces("p1"), 200, 120), Given.Drawer));
        Assert.Equal(10, scaled.Find(line.Id)!.Path.Bounds.MinX - scaled.Size.MinX, 1e-2);
    }

    [Fact]
    public void What_follows_the_edge_is_not_bent_by_its_own_nodes()
    {
        var id = Only(Plate).Items.OfType<EdgeLine>().Single().Id;
        var refused = Assert.Throws<EditRefused>(() => Edits.Apply(Plate, new BendLine("p1", id, new DeleteNode(0)), Given.Drawer));
        Assert.Equal(Reason.FollowsEdge, refused.Reason);
    }

    [Fact]
    public void Ids_of_items_are_never_used_twice()
    {
        var project = Plate;
        var seen = Only(project).Items.Select(i => i.Id).Append(Only(project).Outline.Id).ToHashSet();
        for (var round = 0; round < 5; round++)
        {
            project = Edits.Apply(project, new RemoveLines([new("p1", [Only(project).Items[^1].Id])]), Given.Drawer);
            project = Edits.Apply(project, new AddEdgeLine("p1", 3 + round, Corners.Round, Operation.Score), Given.Drawer);
            Assert.True(seen.Add(Only(project).Items[^1].Id));
        }
    }

    [Fact]
    public void A_text_or_picture_goes_with_its_piece_and_marks_its_face()
    {
        var piece = Only(Given.ProjectOf(Given.Piece("p1", 100, 60))).Plus(
            new TextItem("", "Wish you\nwere here", "plain", 6, Operation.Draw, "#7B4BA8", Affine.Move(10, 10)), new PrintedFill("", "#7B4BA8"));
        var project = Given.ProjectOf(piece);
        Assert.False(Only(project).IsOnlyCut);
        var scaled = Only(Edits.Apply(project, new ResizePicked(Picked.OfPieces("p1"), 200, 120), Given.Drawer));
        var text = Assert.Single(scaled.Items.OfType<TextItem>());
        // Twice as large with its piece: from 10, 10 of the box to 20, 20 of the piece.
        var (from, to) = (text.Place.Apply(new(0, 0)), text.Place.Apply(new(40, 20)));
        Assert.Equal((20, 20), (from.X - scaled.Size.MinX, from.Y - scaled.Size.MinY));
        Assert.Equal((80, 40), (to.X - from.X, to.Y - from.Y));
        Assert.Equal("Wish you\nwere here", text.Words);
    }
}
