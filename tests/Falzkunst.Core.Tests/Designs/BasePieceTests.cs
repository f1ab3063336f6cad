using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Designs;

public sealed class BasePieceTests
{
    private static Project With(CardFormat card) => Project.Empty with { SetOut = SetOut.Default with { Card = card } };

    private static Project Do(Project project, Edit edit) => Edits.Apply(project, edit, Given.Drawer);

    [Theory]
    [InlineData(CardFold.Left, 1, 254, 177.8)]
    [InlineData(CardFold.Top, 1, 127, 355.6)]
    [InlineData(CardFold.Gate, 2, 254, 177.8)]
    [InlineData(CardFold.None, 0, 127, 177.8)]
    public void The_base_is_outline_and_folds_of_the_open_card(CardFold fold, int folds, double width, double height)
    {
        var made = Do(With(new CardFormat("5 × 7 inch", 127, 177.8, fold)), new MakeBase("kraft-240"));
        var piece = Assert.Single(made.Design.Pieces);
        Assert.Equal((width, height, folds), (piece.Size.Width, piece.Size.Height, piece.Lines.Count(l => l.Operation == Operation.Score)));
        Assert.Equal("kraft-240", piece.Stock);
        Assert.True(BasePiece.IsAsSet(piece, made.SetOut.Card));
        Assert.Equal(Reason.BaseThere, Assert.Throws<EditRefused>(() => Do(made, new MakeBase("kraft-240"))).Reason);
    }

    [Fact]
    public void When_the_card_changes_the_base_changes_with_it_and_what_else_is_on_it_stays()
    {
        var made = Do(With(new CardFormat("A6", 105, 148, CardFold.Left)), new MakeBase("kraft-240"));
        made = made with { Design = made.Design.With("p1", p => p.Plus(Given.Line(Path.Rectangle(20, 20, 10, 10), Operation.Cut)) with { Place = Affine.Turn(90).Then(Affine.Move(200, 5)) }) };
        var window = Window(made);
        var larger = made with { SetOut = made.SetOut with { Card = new CardFormat("A5", 148, 210, CardFold.Gate) } };
        Assert.False(BasePiece.IsAsSet(larger.Design.Pieces[0], larger.SetOut.Card));
        var fitted = Do(larger, new FitBase("p1"));
        Assert.True(BasePiece.IsAsSet(fitted.Design.Pieces[0], fitted.SetOut.Card));
        Assert.True(Window(fitted).Contains(window, 1e-9) && window.Contains(Window(fitted), 1e-9));
        static Box Window(Project p) => p.Design.Pieces[0] is var piece ? piece.Lines.Single(l => l.Operation == Operation.Cut && l.Id != piece.Outline.Id).Path.BoundsUnder(piece.Place) : default;
    }

    [Fact]
    public void Loose_lines_go_to_the_base_under_them_folds_where_they_run_from_edge_to_edge()
    {
        var start = With(new CardFormat("A6", 105, 148, CardFold.Left));
        var look = Given.PlainLook with { Closed = false };
        Line Loose(Path path) => new("", path, Operation.Cut, look, null, null);
        start = start with { Design = start.Design.PlusLoose(Loose(Given.Straight(40, 1, 40, 147)), Loose(Given.Straight(60, 50, 80, 60)), Loose(Given.Straight(500, 50, 540, 60))) };
        var made = Do(start, new MakeBase("kraft-240")).Design;
        Assert.Equal([Operation.Cut, Operation.Score, Operation.Score, Operation.Cut], made.Pieces[0].Lines.Select(l => l.Operation));
        Assert.Single(made.Loose);
        // What comes in later over the base goes to it by itself, what comes with a piece of its own does not.
        var art = Design.Empty with { NextPiece = made.NextPiece };
        var came = Do(start with { Design = made }, new BringInArt(Guid.NewGuid(), "more.svg") { Pieces = art.PlusLoose(Loose(Given.Straight(10, 70, 30, 70))) }).Design;
        Assert.Equal((5, 1), (came.Pieces[0].Lines.Length, came.Loose.Length));
        Assert.Equal("p1", LooseLines.LikelyPiece(came)!.Id);
    }
}
