using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Commands;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Commands;

public sealed class CommandLineTests
{
    private static readonly Project Start = Given.ProjectOf(
        Given.Piece("p1", 80, 50, Given.Line(Path.Rectangle(10, 10, 22, 22), Operation.Cut), Given.Line(Given.Straight(40, 10, 70, 10), Operation.Draw)),
        Given.Piece("p2", 20, 20) with { Place = Affine.Move(100, 0) }, Given.Piece("p3", 10, 10) with { Place = Affine.Move(200, 60) });

    private static Project Do(string text, Picked what, Project? from = null)
    {
        var context = new BenchContext(from ?? Start, what, Given.Drawer);
        return Edits.Apply(context.Project, CommandLine.Read(text, context).For(context), Given.Drawer);
    }

    private static Picked Lines(params string[] lines) => Picked.OfLines("p1", [.. lines]);
    private static readonly Picked One = Picked.OfPieces("p1"), Three = Picked.OfPieces("p1", "p2", "p3");
    private static Box BoxOf(Project p, string id) => Picked.OfPieces(id).Box(p.Design);

    /// <summary>Each command's own example is understood and does something, or is refused for what is picked and not for its words.</summary>
    [Fact]
    public void Every_usage_is_itself_a_command()
    {
        foreach (var command in CommandLine.All)
        {
            var project = Start with { Variants = [new Variant(1, "Wider arches", "p1", [Start.Design.Pieces[0]])] };
            project = project with { Design = project.Design.With("p2", p => p with { Name = "Viaduct" }) };
            if (command.Name == "fit base") project = Edits.Apply(project, new MakeBase("kraft-240"), Given.Drawer);
            if (command.Name == "draw marks")
                project = Edits.Apply(Edits.Apply(project, new PrintPagesAction("chalk-200", Marks: true).For(new BenchContext(project, One, Given.Drawer)), Given.Drawer), new PutOnSheets(2, Guid.NewGuid()), Given.Drawer);
            if (command.Name == "change rim") project = project with { Design = project.Design.With("p1", p => p with { Follows = new FromRim([p.Outline.Path], 0) }) };
            if (command.Name.EndsWith(" picture", StringComparison.Ordinal))
                project = Edits.Apply(Edits.Apply(project, new BringInPicture("moon.png", new string('a', 64), 60, 40, 0.2), Given.Drawer), new LayPicture("p1", "i1", false), Given.Drawer);
            var text = project.Design.Require("p1").NextItem;
            project = Edits.Apply(project, new WriteAction("Night tram", command.Name is "form" or "cut out" or "tie" ? "quill" : null).For(new BenchContext(project, One, Given.Drawer)), Given.Drawer);
            // What can be done to some things alone is done to such a thing.
            BenchAction? first = command.Name switch { "tie" => new CutOutAction(), "row" => new ListAction("Ada\nBen\nCem"), "change border" or "make plain" => new BorderAction([2]), "move tie" => new HoldAction(), _ => null };
            if (first is not null) project = Edits.Apply(project, first.For(new BenchContext(project, command.Name == "tie" ? Lines($"l{text}") : One, Given.Drawer)), Given.Drawer);
            var made = Picked.OfPieces(project.Design.Pieces.MaxBy(p => p.Id.Length * 1000 + int.Parse(p.Id[1..], CultureInfo.InvariantCulture))!.Id);
            Edit? edit = null;
            foreach (var what in new[] { One, Lines("l3"), Lines($"l{text}"), Three, made })
            {
                try
                {
                    edit = CommandLine.Read(command.Usage, new BenchContext(project, what, Given.Drawer)).For(new BenchContext(project, what, Given.Drawer));
                    break;
                }
                catch (EditRefused refusal)
                {
                    Assert.True(refusal.Reason is Reason.LinesOnly or Reason.OneLineOnly or Reason.OneTextOnly or Reason.OnePieceOnly or Reason.AlignTwo or Reason.PlainAlready or Reason.FollowsNothing or Reason.CombineTwo or Reason.NoWordPiece or Reason.OutlineIsEdge or Reason.LineOpen or Reason.PartsNothing or Reason.ClosedLinesOnly or Reason.NotHeld or Reason.NoPictureOn, $"{command.Usage}: {refusal.Message}");
                }
            }
            Assert.NotNull(edit);
            Assert.NotEmpty(edit.Sentence);
        }
    }

    [Fact]
    public void Sizes_take_units_arithmetic_and_keep_the_ratio_unless_told_otherwise()
    {
        Assert.Equal(new Box(0, 0, 40, 25), BoxOf(Do("width 4cm", One), "p1"));
        Assert.Equal(new Box(0, 0, 40, 50), BoxOf(Do("width 80/2 free", One), "p1"));
        Assert.Equal(new Box(0, 0, 25.4, 30), BoxOf(Do("size 1in x 30", One), "p1"));
        Assert.Equal(120, BoxOf(Do("scale 150%", One), "p1").Width, 9);
    }

    [Fact]
    public void An_opening_with_a_locked_size_keeps_it_and_its_place_in_the_piece()
    {
        var locked = Do("lock size", Lines("l2"));
        var after = Do("size 160 100", One, locked).Design.Pieces[0];
        Assert.Equal(22, after.Lines[1].Path.Bounds.Width, 9);
        Assert.Equal(22, after.Lines[1].Path.Bounds.Height, 9);
        Assert.Equal(new Point(42, 42), after.Lines[1].Path.Bounds.Centre);
        Assert.Equal(44, Do("size 160 100", One, Do("free size", Lines("l2"), locked)).Design.Pieces[0].Lines[1].Path.Bounds.Width, 9);
    }

    [Fact]
    public void Things_line_up_and_spread_evenly()
    {
        Assert.All(Start.Design.Pieces, p => Assert.Equal(0, BoxOf(Do("align left", Three), p.Id).MinX, 9));
        Assert.All(Start.Design.Pieces, p => Assert.Equal(Start.SetOut.Card.OpenWidth, BoxOf(Do("align right card", Three), p.Id).MaxX, 9));
        var spread = Do("spread across", Three);
        var gaps = (BoxOf(spread, "p2").MinX - BoxOf(spread, "p1").MaxX, BoxOf(spread, "p3").MinX - BoxOf(spread, "p2").MaxX);
        Assert.Equal(gaps.Item1, gaps.Item2, 9);
        Assert.Equal(29, Do("centre piece", Lines("l2")).Design.Pieces[0].Lines[1].Path.Bounds.MinX, 9);
    }

    [Fact]
    public void Copies_stand_in_rows_around_a_centre_and_across_an_edge()
    {
        var rows = Do("rows 2 columns 3 gap 5 10", One).Design;
        Assert.Equal(3 + 5, rows.Pieces.Length);
        Assert.Equal(new Box(170, 60, 250, 110), Picked.OfPieces(rows.Pieces[5].Id).Box(rows));
        Assert.Equal(rows.Pieces.Length, rows.Pieces.Select(p => p.Id).Distinct().Count());
        Assert.Equal(rows.Pieces.Length, rows.Pieces.Select(p => p.Name).Distinct().Count());
        var ring = Do("around 4 at 40 25", Lines("l3")).Design.Pieces[0];
        Assert.Equal(3 + 3, ring.Lines.Length);
        Assert.All(ring.Shape.Paths.Skip(2), p => Assert.Equal(30, p.Length, 9));
        var reflected = Do("reflect right", One).Design;
        Assert.Equal(new Box(80, 0, 160, 50), Picked.OfPieces("p4").Box(reflected));
        Assert.Equal(70 - 22, reflected.Find("p4")!.Lines[1].Path.Bounds.MinX, 9);
    }

    [Fact]
    public void Lines_are_worked_as_told_and_what_has_no_meaning_under_an_operation_goes()
    {
        var filled = Do("fill crossed 0.5 at 30", Lines("l3"));
        Assert.Equal(new AreaFill(FillPattern.Crossed, 0.5, 30), filled.Design.Pieces[0].Lines[2].EffectiveSettings.Fill);
        Assert.Null(Do("score", Lines("l3"), filled).Design.Pieces[0].Lines[2].Settings);
        var folded = Do("fold mountain", Lines("l3"), Do("score", Lines("l3")));
        Assert.Equal(FoldDirection.Mountain, folded.Design.Pieces[0].Lines[2].EffectiveSettings.Fold);
        Assert.Equal(260, Do("settings force 260 times 2", Lines("l3")).Design.Pieces[0].Lines[2].EffectiveSettings.Tool!.ForceGrams);
        Assert.True(Do("half cut", Lines("l2")).Design.Pieces[0].Lines[1].EffectiveSettings.HalfCut);
        Assert.Equal("#112233", Do("colour #112233", Lines("l3")).Design.Pieces[0].Lines[2].Ink);
    }

    [Fact]
    public void Shapes_land_on_the_picked_piece_or_apart()
    {
        var moved = Do("move 10 10", One);
        var drawn = Do("draw slot 30 30 20 4 on piece", One, moved).Design.Pieces[0];
        Assert.Equal(LineRole.Opening, drawn.RoleOf(drawn.Lines[^1]));
        Assert.Equal(new Point(20, 20), drawn.Lines[^1].Path.Bounds.Min);
        Assert.Equal("Star", Do("draw star 0 0 30 30", One).Design.Pieces[^1].Name);
        Assert.Equal(moved.Design.Pieces[0].Lines.Length + 1, Do("draw star 0 0 30 30 for foil", One, moved).Design.Pieces[0].Lines.Length);
        var aid = Do("draw rectangle 0 0 22 60 apart for aid", One).Design;
        Assert.Equal(Operation.Aid, Assert.Single(aid.Loose).Operation);
    }

    [Fact]
    public void Pieces_are_taken_apart_merged_and_ordered()
    {
        var apart = Do("take apart", One).Design;
        Assert.Equal(["p1", "p4", "p2", "p3"], apart.Pieces.Select(p => p.Id));
        Assert.Equal(new Box(10, 10, 32, 32), Picked.OfPieces("p4").Box(apart));
        Assert.Equal(2, apart.Pieces[0].Lines.Length);
        var merged = Do("merge", Picked.OfPieces("p1", "p4"), Start with { Design = apart }).Design;
        Assert.Equal(Start.Design.Pieces[0].Area, merged.Pieces[0].Area, 6);
        Assert.Throws<EditRefused>(() => Do("merge", Picked.OfPieces("p1", "p2")));
        Assert.Equal(["p2", "p3", "p1"], Do("layer top", One).Design.Pieces.Select(p => p.Id));
        var given = Do("give to p2", Lines("l3")).Design;
        Assert.Equal(new Point(-60, 10), given.Find("p2")!.Lines[1].Path.Start);
    }

    [Fact]
    public void A_locked_piece_stays_as_it_is()
    {
        var locked = Do("lock", One);
        foreach (var text in new[] { "move 1 1", "size 10", "turn 5", "mirror across", "draw slot 1 1 9 3 on piece" })
            Assert.Equal(Reason.Locked, Assert.Throws<EditRefused>(() => Do(text, One, locked)).Reason);
        Assert.Equal("slate-220", Do("stock slate", One, locked).Design.Pieces[0].Stock);
    }

    [Fact]
    public void Variants_change_places_with_what_is_there()
    {
        var kept = Do("keep aside Small one", Picked.OfPieces("p2"));
        var large = Do("size 60", Picked.OfPieces("p2"), kept);
        var back = Do("take up small", One, large);
        Assert.Equal(20, back.Design.Find("p2")!.Size.Width, 9);
        Assert.Equal(60, Assert.Single(back.Variants).Pieces[0].Size.Width, 9);
        var whole = Do("keep aside all Everything", One, back);
        var less = Do("delete", Picked.OfPieces("p1", "p3"), whole);
        Assert.Equal(["p1", "p2", "p3"], Do("take up Everything", Picked.OfPieces("p2"), less).Design.Pieces.Select(p => p.Id));
    }

    [Theory]
    [InlineData("", Reason.CommandEmpty)]
    [InlineData("sparkle", Reason.NoSuchCommand)]
    [InlineData("turn", Reason.CommandLacks)]
    [InlineData("turn left", Reason.NotANumber)]
    [InlineData("turn 90 now", Reason.CommandTooMuch)]
    [InlineData("size wide", Reason.NotALength)]
    [InlineData("size 0", Reason.OutOfRange)]
    [InlineData("align sideways", Reason.NotOneOf)]
    [InlineData("stock plywood", Reason.NoSuchName)]
    [InlineData("rows 100 columns 100", Reason.OutOfRange)]
    [InlineData("draw star 0 0 9 9 points 2", Reason.OutOfRange)]
    [InlineData("name \"half", Reason.QuoteOpen)]
    [InlineData("fill wavy", Reason.NotOneOf)]
    [InlineData("layer 9", Reason.OutOfRange)]
    public void What_cannot_be_understood_says_what_is_wrong(string text, Reason reason) =>
        Assert.Equal(reason, Assert.Throws<EditRefused>(() => Do(text, One)).Reason);

    [Theory]
    [InlineData("flip across", typeof(MirrorAction))]
    [InlineData("rotate 90", typeof(TurnAction))]
    [InlineData("copy", typeof(EditRefused))]
    [InlineData("stronger 0.9", typeof(ThickenAction))]
    [InlineData("remove", typeof(DeleteAction))]
    public void Plain_words_that_mean_one_command_are_as_good_as_its_name(string text, Type expected)
    {
        var context = new BenchContext(Start, One, Given.Drawer);
        if (expected == typeof(EditRefused)) Assert.Equal(Reason.NoSuchCommand, Assert.Throws<EditRefused>(() => CommandLine.Read(text, context)).Reason);
        else Assert.IsType(expected, CommandLine.Read(text, context));
    }

    [Fact]
    public void Every_synonym_leads_to_a_command_and_a_slip_of_the_pen_to_the_nearest()
    {
        var names = CommandLine.All.Select(c => c.Name).ToHashSet();
        foreach (var name in names) Assert.All(CommandSynonyms.For(name), word => Assert.Contains(name, CommandSynonyms.Meant(word)));
        Assert.All(new[] { "join", "combine", "cut out", "outline", "offset", "shadow", "resize", "flip", "dashed", "lettering" }, word => Assert.All(CommandSynonyms.Meant(word), m => Assert.Contains(m, names)));
        Assert.All(new[] { "join", "outline", "dashed", "lettering" }, word => Assert.NotEmpty(CommandSynonyms.Meant(word)));
        Assert.Equal("mirror", CommandSynonyms.Nearest("mirrr", names)[0]);
        Assert.Empty(CommandSynonyms.Nearest("xyzzy", names));
    }
}
