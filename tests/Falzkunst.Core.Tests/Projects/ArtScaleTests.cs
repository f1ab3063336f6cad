using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Projects;

/// <summary>A file taken at another size after it came in.</summary>
public sealed class ArtScaleTests
{
    private static readonly Guid First = new("00000000-0000-0000-0000-000000000001");
    private static readonly Guid Second = new("00000000-0000-0000-0000-000000000002");

    private static Project Do(Project project, Edit edit) => Edits.Apply(project, edit, Given.Drawer);

    private static Project BringIn(Project project, Guid art, Design made) => Do(project, new BringInArt(art, $"{art}.svg") { Pieces = made });

    private static Design Of(Project start, IEnumerable<Piece> pieces, params Line[] loose) =>
        new Design([], [], [], start.Design.NextPiece).Plus(0, [.. pieces]).PlusLoose(loose);

    [Fact]
    public void Its_pieces_its_lines_on_the_base_and_its_loose_lines_grow_from_one_corner()
    {
        var start = Do(Project.Empty with { SetOut = SetOut.Default with { Card = new CardFormat("A6", 105, 148, CardFold.Left) } }, new MakeBase("kraft-240"));
        var piece = Given.Piece("", 30, 20) with { Place = Affine.Move(300, 10) };
        var project = BringIn(start, First, Of(start, [piece], Given.Line(Given.Straight(20, 30, 60, 30), Operation.Draw), Given.Line(Given.Straight(400, 30, 440, 50), Operation.Draw)));
        Assert.Equal((2, 1), (project.Design.Pieces.Length, project.Design.Loose.Length));
        var larger = Do(project, new ScaleArt(First, "a.svg", 1, 1.5));
        var (onBase, taken) = (larger.Design.Pieces[0], larger.Design.Pieces[1]);
        // The corner of it all is at 20, 10.
        Assert.Equal(new Box(20, 40, 80, 40), onBase.Lines[^1].Path.BoundsUnder(onBase.Place));
        Assert.Equal(new Box(440, 10, 485, 40), taken.Outline.Path.BoundsUnder(taken.Place));
        Assert.Equal(new Box(590, 40, 650, 70), larger.Design.Loose[0].Path.Bounds);
        Assert.Equal(onBase.Outline, start.Design.Pieces[0].Outline);
        Assert.Equal(1.5, larger.SetOut.ArtScales[First]);
        var back = Do(larger, new ScaleArt(First, "a.svg", 1.5, 1));
        Assert.Equal(new Box(300, 10, 330, 30), back.Design.Pieces[1].Outline.Path.BoundsUnder(back.Design.Pieces[1].Place));
    }

    [Fact]
    public void Lines_of_another_file_keep_their_size_wherever_they_lie()
    {
        var one = BringIn(Project.Empty, First, Of(Project.Empty, [Given.Piece("", 100, 80)]));
        var both = BringIn(one, Second, Of(one, [], Given.Line(Given.Straight(40, 40, 60, 40), Operation.Draw)));
        Assert.Equal(Second, both.Design.Pieces[0].Lines[1].Art);
        var first = Do(both, new ScaleArt(First, "a.svg", 1, 2)).Design.Pieces[0];
        Assert.Equal((200, 20), (first.Size.Width, first.Lines[1].Path.Length));
        Assert.Equal(new Point(100, 80), first.Lines[1].Path.Bounds.Centre);
        var second = Do(both, new ScaleArt(Second, "b.svg", 1, 2)).Design.Pieces[0];
        Assert.Equal((100, 40), (second.Size.Width, second.Lines[1].Path.Length));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(double.NaN)]
    [InlineData(1e6)]
    public void Nobody_takes_a_scale_like_that(double scale) => Assert.Equal("scale", Assert.Throws<EditRefused>(() => Do(Project.Empty, new ScaleArt(First, "a.svg", 1, scale))).Field);
}
