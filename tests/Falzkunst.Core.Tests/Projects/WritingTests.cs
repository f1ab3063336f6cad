using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Tests.Projects;

/// <summary>Words on a piece: written, changed, moved, along lines, made plain.</summary>
public sealed class WritingTests
{
    private static readonly Project Plate = Given.ProjectOf(Given.Piece("p1", 100, 60, Given.Line(Path.Polyline([new(10, 50), new(90, 50)], false), Operation.Score)));

    private static Project Do(Project project, BenchAction action, Picked picked) => Edits.Apply(project, action.For(new BenchContext(project, picked, Given.Drawer)), Given.Drawer);

    private static Piece PieceOf(Project project) => project.Design.Pieces[0];

    private static TextItem TextOf(Project project) => PieceOf(project).Items.OfType<TextItem>().Single();

    private static Picked Text(Project project) => Picked.OfLines("p1", TextOf(project).Id);

    private static Box BoxOf(Project project) => Text(project).Box(project.Design);

    private static Project Written(string words = "abc", Operation operation = Operation.Draw, double height = 10) =>
        Do(Plate, new WriteAction(words, Height: height, Operation: operation), Picked.OfPieces("p1"));

    private static Reason Refused(Project project, BenchAction action) => Assert.Throws<EditRefused>(() => Do(project, action, Text(project))).Reason;

    [Fact]
    public void Words_come_to_the_middle_of_the_piece_as_large_as_was_said()
    {
        var project = Written();
        Assert.Equal(10, BoxOf(project).Height, 6);
        Assert.Equal(PieceOf(project).Size.Centre.Y, BoxOf(project).Centre.Y, 6);
        // 3 × 0.7 wide, of which the last letter leaves 0.1 free.
        Assert.Equal(20, BoxOf(project).Width, 6);
        Assert.Equal(PieceOf(project).Size.Centre.X - 10.5, BoxOf(project).MinX, 6);
        Assert.Equal("abc", TextOf(project).Words);
    }

    [Fact]
    public void Centred_words_stay_where_they_are_when_they_become_others_larger_or_in_another_face()
    {
        var project = Written("abc\nde");
        double Middle(Project p) => TextOf(p).Place.Apply(new Point(TextOf(p).SetOn(PieceOf(p)).Width / 2, 0)).X;
        var middle = Middle(project);
        foreach (var action in new BenchAction[] { new WordsAction("abcdefgh"), new FaceAction("quill"), new LettersAction(Height: 14), new LettersAction(Between: 30) })
        {
            project = Do(project, action, Text(project));
            Assert.Equal(middle, Middle(project), 6);
        }
        Assert.Equal(("abcdefgh", "quill", 14, 300), (TextOf(project).Words, TextOf(project).Face, TextOf(project).CapitalMm, TextOf(project).LetterSpacing));
    }

    [Fact]
    public void Pasted_words_are_cleaned()
    {
        var project = Written("\r\n  a\u0007b  \r\nc\td \r\n\r\n");
        Assert.Equal("  ab\nc d", TextOf(project).Words);
        Assert.Equal(Reason.NoWords, Assert.Throws<EditRefused>(() => Written(" \n ")).Reason);
        Assert.Equal(Reason.OutOfRange, Assert.Throws<EditRefused>(() => Written(new string('a', TextItem.MostCharacters + 1))).Reason);
        Assert.Equal(Reason.NoSuchFace, Refused(project, new FaceAction("none")));
        Assert.Equal(Reason.OutOfRange, Refused(project, new LettersAction(Height: 0.01)));
        Assert.Equal(Reason.OutOfRange, Refused(project, new LettersAction(Lines: double.NaN)));
        Assert.Equal(Reason.OutOfRange, Refused(project, new AlongAction(Arc: 4000)));
        Assert.Equal(Reason.OneTextOnly, Assert.Throws<EditRefused>(() => Do(project, new WordsAction("x"), Picked.OfLines("p1", "l2"))).Reason);
    }

    [Fact]
    public void Letters_cut_on_a_piece_are_its_openings_and_drawn_ones_mark_its_face()
    {
        Assert.Equal(3, PieceOf(Written(operation: Operation.Cut)).Paper.Openings.Length);
        Assert.False(PieceOf(Written()).IsOnlyCut);
        Assert.Empty(PieceOf(Written()).Paper.Openings);
        Assert.All(PieceOf(Written(operation: Operation.Cut)).Drawn.Where(l => l.Operation == Operation.Cut), l => Assert.True(l.Path.IsClosed));
    }

    [Fact]
    public void A_text_is_moved_turned_and_scaled_by_hand_and_with_its_piece()
    {
        var project = Written();
        var before = BoxOf(project);
        project = Do(project, new MoveAction(7, -3), Text(project));
        Assert.Equal((before.MinX + 7, before.MinY - 3), (BoxOf(project).MinX, BoxOf(project).MinY));
        project = Edits.Apply(project, new ResizePicked(Picked.OfPieces("p1"), 200, 120), Given.Drawer);
        Assert.Equal(20, BoxOf(project).Height, 6);
        // What is asked for is how high they are now.
        project = Do(project, new LettersAction(Height: 5), Text(project));
        Assert.Equal(5, BoxOf(project).Height, 6);
    }

    [Fact]
    public void A_box_that_follows_the_piece_is_as_wide_as_that_whatever_becomes_of_it()
    {
        var project = Do(Written("abc abc abc abc abc abc abc"), new TextBoxAction(Inside: 10), Picked.OfLines("p1", "l3"));
        Assert.Equal(80, TextOf(project).SetOn(PieceOf(project)).Width, 6);
        var lines = TextOf(project).SetOn(PieceOf(project)).Lines.Length;
        project = Edits.Apply(project, new ResizePicked(Picked.OfPieces("p1"), 50, 60), Given.Drawer);
        var (text, piece) = (TextOf(project), PieceOf(project));
        Assert.Equal(30, text.SetOn(piece).Width * text.Place.MeanScale, 6);
        Assert.True(text.SetOn(piece).Lines.Length > lines);
        Assert.NotEmpty(piece.Drawn.Where(l => l.Id == text.Id));
        Assert.All(piece.Drawn.Where(l => l.Id == text.Id), l => Assert.InRange(l.Path.Bounds.MinX - piece.Size.MinX, 10 - 1e-6, 40));
    }

    [Fact]
    public void Along_a_line_of_the_piece_words_follow_it_and_cannot_be_moved_off_it()
    {
        var project = Do(Written(), new AlongAction(Line: "l2", Offset: 1), Picked.OfLines("p1", "l3"));
        Assert.Equal(49, BoxOf(project).MaxY, 6);
        Assert.Equal(Reason.FollowsEdge, Refused(project, new MoveAction(1, 1)));
        project = Do(project, new MoveAction(0, -20), Picked.OfLines("p1", "l2"));
        Assert.Equal(29, BoxOf(project).MaxY, 6);
        // The line goes: the words stand straight again, and nothing is lost.
        project = Do(project, new DeleteAction(), Picked.OfLines("p1", "l2"));
        Assert.Equal(10, BoxOf(project).Height, 6);
        project = Do(project, new AlongAction(), Text(project));
        Assert.Null(TextOf(project).Along);
    }

    [Theory]
    [InlineData(180)]
    [InlineData(-90)]
    public void An_arc_bulges_the_way_it_is_asked_to_and_is_as_long_as_the_words(double degrees)
    {
        var project = Do(Written("abcdefgh"), new AlongAction(Arc: degrees), Picked.OfLines("p1", "l3"));
        var text = TextOf(project);
        var feet = text.SetOn(PieceOf(project)).Glyphs.Select(g => g.Place.Apply(new Point(0.35, 0))).ToList();
        // In the middle highest where it bulges upwards, y going down.
        Assert.Equal(degrees > 0, feet[3].Y < feet[0].Y);
        Assert.Equal(feet[0].Y, feet[^1].Y, 3);
        Assert.Equal(56, text.SetOn(PieceOf(project)).Width, 0.01);
    }

    [Fact]
    public void Made_plain_words_are_lines_that_lie_where_the_letters_lay()
    {
        var project = Written(operation: Operation.Cut);
        var letters = PieceOf(project).Drawn.Where(l => l.Id == TextOf(project).Id).Select(l => l.Path).ToList();
        project = Do(project, new MakePlainAction(), Text(project));
        Assert.Empty(PieceOf(project).Items.OfType<TextItem>());
        Assert.Equal(letters, PieceOf(project).Lines.Skip(2).Select(l => l.Path));
        Assert.Equal(3, PieceOf(project).Paper.Openings.Length);
    }
}
