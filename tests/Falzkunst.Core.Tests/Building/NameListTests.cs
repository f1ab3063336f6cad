using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Tests.Building;

/// <summary>A piece made once for each row of a list.</summary>
public sealed class NameListTests
{
    private static Project Do(Project project, BenchAction action, params string[] pieces) => Edits.Apply(project, action.For(new BenchContext(project, Picked.OfPieces([.. pieces]), Given.Drawer)), Given.Drawer);

    private static Project DoText(Project project, BenchAction action, string piece = "p1", string text = "l2") =>
        Edits.Apply(project, action.For(new BenchContext(project, Picked.OfLines(piece, text), Given.Drawer)), Given.Drawer);

    private static Project Tags(string list, string words = "{name}", Operation operation = Operation.Draw) =>
        Do(Do(Given.ProjectOf(Given.Piece("p1", 60, 20)), new WriteAction(words, operation == Operation.Cut ? "marker" : null, 4, operation), "p1"), new ListAction(list), "p1");

    private static TextItem TextOf(Piece piece) => piece.Items.OfType<TextItem>().Single();

    [Fact]
    public void Each_row_is_a_piece_with_its_own_words_about_the_same_middle()
    {
        var project = Tags("Ada\nBenedikt\nCem");
        Assert.Equal(["Ada", "Benedikt", "Cem"], project.Made.Pieces.Select(p => p.Name));
        Assert.Equal(["p1r1", "p1r2", "p1r3"], project.Made.Pieces.Select(p => p.Id));
        Assert.Equal("Benedikt", TextOf(project.Design.Pieces[0]).Shown);
        Assert.Equal([3, 8, 3], project.Made.Pieces.Select(p => p.Drawn.Count(l => l.Id == "l2")));
        foreach (var piece in project.Made.Pieces)
        {
            var box = piece.Drawn.Where(l => l.Id == "l2").Aggregate(Box.Empty, (b, l) => b.Include(l.Path.Bounds));
            Assert.Equal(30 - 0.05 * 4, box.Centre.X, 0.01);
        }
    }

    [Fact]
    public void Several_fields_quotes_headings_and_blank_lines_are_understood()
    {
        var project = Tags("Name; Table\n\"Ada; née Holm\"; 4\n\n\"Ben \"\"B\"\"\";7\n", "{name}\n{table}");
        var list = project.Design.Pieces[0].List!;
        Assert.Equal(["name", "table"], list.Fields);
        Assert.Equal(["Ada; née Holm", "4"], list.Rows[0].Values);
        Assert.Equal(["Ada; née Holm\n4", "Ben \"B\"\n7"], Tags("\"Ada; née Holm\"; 4\n\"Ben \"\"B\"\"\";7", "{name}\n{table}").Made.Pieces.Select(p => TextOf(p).Words));
        // Written out and read again it is the same list.
        Assert.Equal(list.Rows.Select(r => string.Join('|', r.Values)), NameListText.Read(NameListText.Write(list), project.Design.Pieces[0])!.Rows.Select(r => string.Join('|', r.Values)));
    }

    [Fact]
    public void Rows_keep_their_numbers_while_others_come_and_go_and_copies_are_counted()
    {
        var project = Tags("Ada\nBen\nCem");
        project = Do(project, new RowAction(2, 5), "p1");
        project = Do(project, new ListAction("Zoe\nBen\nCem"), "p1");
        Assert.Equal([(4, 1), (2, 5), (3, 1)], project.Design.Pieces[0].List!.Rows.Select(r => (r.Number, r.Copies)));
        project = Do(project, new RowAction(3, 0), "p1");
        var laid = Edits.Apply(project, new PutOnSheets(2, Guid.NewGuid()), Given.Drawer);
        var placed = laid.Sheets!.Sheets.SelectMany(s => s.Placements).GroupBy(p => p.Piece).ToDictionary(g => g.Key, g => g.Count());
        Assert.Equal(new Dictionary<string, int> { ["p1r4"] = 1, ["p1r2"] = 5 }, placed);
        Assert.True(laid.SheetsAreCurrent);
        Assert.False(Do(laid, new RowAction(3, 1), "p1").SheetsAreCurrent);
        var sheet = laid.Sheets.Sheets[0];
        Assert.Contains(SheetLines.Collect(sheet, laid.Made, 0.5), l => l.Piece == "p1r4" && l.Operation == Operation.Draw);
    }

    [Fact]
    public void Where_one_does_not_fit_it_is_named_and_made_smaller_by_choice()
    {
        var project = DoText(Tags("Ada\nMaximiliana von Wendelstein"), new TextBoxAction(Inside: 5));
        project = DoText(project, new WordsAction("{name}"));
        // 27 letters of 2.8 mm in 50: broken at blanks, and “Wendelstein” fits; all in one word it does not.
        Assert.DoesNotContain(Checks.Findings(project.Design), f => f.Code == FindingCodes.WordsTooWide);
        project = Do(project, new ListAction("Ada\nMaximilianavonWendelstein"), "p1");
        var finding = Assert.Single(Checks.Findings(project.Design), f => f.Code == FindingCodes.WordsTooWide);
        Assert.Equal("MaximilianavonWendelstein", finding.Other);
        var fitted = Edits.Apply(project, Mend.For(finding, project.Design)[0].Edit, Given.Drawer);
        Assert.DoesNotContain(Checks.Findings(fitted.Design), f => f.Code == FindingCodes.WordsTooWide);
        foreach (var (piece, width) in fitted.Made.Pieces.Zip([3 * 2.8 - 0.4, 50.0]))
        {
            var box = piece.Drawn.Where(l => l.Id == "l2").Aggregate(Box.Empty, (b, l) => b.Include(l.Path.Bounds));
            Assert.Equal(width, box.Width, 0.3);
        }
    }

    [Fact]
    public void Words_that_are_the_piece_and_a_layer_under_them_have_an_outline_for_each_row()
    {
        var project = Tags("Ab\nCdef\nG!", operation: Operation.Cut);
        project = DoText(project, new CutOutAction("kraft-240", WordTie.Bridges, 1));
        project = Do(project, new BorderAction([3], "chalk-200"), "p2");
        var made = project.Made;
        var words = made.Pieces.Where(p => NameList.PieceOf(p.Id) == "p2").ToList();
        var layers = made.Pieces.Where(p => p.Stock == "chalk-200" && NameList.PieceOf(p.Id) == "p3").ToList();
        Assert.Equal(3, words.Count);
        Assert.Equal(3, layers.Count);
        foreach (var (word, layer) in words.Zip(layers))
        {
            Assert.True(layer.Area > word.Area);
            Assert.Equal(word.Size.Width + 6, layer.Size.Width, 0.02);
        }
        Assert.True(words[1].Size.Width > words[0].Size.Width + 5);
        // Left loose, each row has as many pieces as its words have parts.
        var loose = Do(project, new TieAction(WordTie.Loose), "p2").Made.Pieces.Where(p => p.Stock == "kraft-240");
        Assert.Equal(2 + 4 + 3, loose.Count());
        Assert.Equal(loose.Count(), loose.Select(p => p.Id).Distinct().Count());
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(2)]
    public void What_is_too_much_for_a_list_is_refused(int which)
    {
        var piece = Given.ProjectOf(Given.Piece("p1", 60, 20));
        var list = which switch
        {
            0 => string.Join('\n', Enumerable.Range(0, NameList.MostRows + 1)),
            1 => new string('x', NameList.LongestValue + 1),
            _ => string.Join(';', Enumerable.Range(0, NameList.MostFields + 1)),
        };
        Assert.Throws<EditRefused>(() => Do(piece, new ListAction(list), "p1"));
        Assert.Equal(Reason.NoListHere, Assert.Throws<EditRefused>(() => Do(piece, new RowAction(1, 2), "p1")).Reason);
        Assert.Null(Do(Tags("Ada"), new ListAction("  "), "p1").Design.Pieces[0].List);
    }
}
