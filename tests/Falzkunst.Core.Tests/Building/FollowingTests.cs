using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Building;

/// <summary>Pieces that follow others: what hangs on a thing follows it in the same edit, until it is made plain.</summary>
public sealed class FollowingTests
{
    private static readonly Project Plate = Given.ProjectOf(Given.Piece("p1", 100, 60));

    private static Project Do(Project project, BenchAction action, Picked picked) => Edits.Apply(project, action.For(new BenchContext(project, picked, Given.Drawer)), Given.Drawer);

    private static Project Do(Project project, BenchAction action, params string[] pieces) => Do(project, action, Picked.OfPieces([.. pieces]));

    private static Box OnCard(Project project, string piece) => project.Design.Require(piece).Outline.Path.BoundsUnder(project.Design.Require(piece).Place);

    private static void IsAround(Box outer, Box inner, double by)
    {
        Assert.Equal(inner.MinX - by, outer.MinX, 0.01);
        Assert.Equal(inner.MinY - by, outer.MinY, 0.01);
        Assert.Equal(inner.MaxX + by, outer.MaxX, 0.01);
        Assert.Equal(inner.MaxY + by, outer.MaxY, 0.01);
    }

    /// <summary>The plate p1 with a mat layer p2 of 4 mm around it.</summary>
    private static Project Matted() => Do(Plate, new BorderAction([4], "kraft-240", Sharp: true), "p1");

    [Fact]
    public void A_mat_goes_with_its_piece_however_that_is_moved_turned_and_sized()
    {
        var project = Matted();
        IsAround(OnCard(project, "p2"), OnCard(project, "p1"), 4);
        foreach (var action in new BenchAction[] { new MoveAction(13, -7), new ResizeAction(140, 60, false), new TurnAction(90), new MoveAction(2, 2), new MirrorAction(), new TurnAction(17) })
        {
            project = Do(project, action, "p1");
            IsAround(OnCard(project, "p2"), OnCard(project, "p1"), action is TurnAction { Degrees: 17 } ? 4 * (Math.Sin(17 * Math.PI / 180) + Math.Cos(17 * Math.PI / 180)) : 4);
        }
    }

    [Fact]
    public void What_is_moved_or_sized_together_is_so_once()
    {
        var moved = Do(Matted(), new MoveAction(20, 5), "p1", "p2");
        IsAround(OnCard(moved, "p2"), OnCard(moved, "p1"), 4);
        Assert.Equal(20, OnCard(moved, "p1").MinX, 6);
        // The distance is what the mat remembers: it does not grow with the rest.
        var sized = Do(Matted(), new ResizeAction(216, 136, false), "p1", "p2");
        IsAround(OnCard(sized, "p2"), OnCard(sized, "p1"), 4);
    }

    [Fact]
    public void A_mat_moved_by_itself_stays_aside_and_follows_from_there()
    {
        var project = Do(Matted(), new MoveAction(300, 0), "p2");
        project = Do(project, new MoveAction(5, 5), "p1");
        Assert.Equal(301, OnCard(project, "p2").MinX, 6);
        Assert.Equal(1, OnCard(project, "p2").MinY, 6);
        Assert.NotNull(project.Design.Require("p2").Follows);
    }

    [Fact]
    public void The_card_seven_millimetres_wider_takes_all_that_hangs_on_it_along_in_one_edit()
    {
        var card = Edits.Apply(Project.Empty, new MakeBase("chalk-200"), Given.Drawer);
        card = Do(card, new BorderAction([-5, -10], "kraft-240", Sharp: true), "p1");
        card = Do(card, new BorderAction([-2], "chalk-200", Sharp: true), "p2");
        var wider = Edits.Apply(card, new ChangeSetOut(card.SetOut with { Card = card.SetOut.Card with { FoldedWidth = card.SetOut.Card.FoldedWidth + 7 } }), Given.Drawer);
        var fitted = Edits.Apply(wider, new FitBase("p1"), Given.Drawer);
        Assert.Equal(OnCard(card, "p1").Width + 14, OnCard(fitted, "p1").Width, 6);
        foreach (var (piece, by) in new[] { ("p2", 5), ("p3", 10), ("p4", 7) }) IsAround(OnCard(fitted, "p1"), OnCard(fitted, piece), by);
    }

    [Fact]
    public void A_mat_has_other_numbers_later_and_refuses_those_that_leave_nothing()
    {
        var project = Do(Matted(), new ChangeBorderAction(By: 9), "p2");
        IsAround(OnCard(project, "p2"), OnCard(project, "p1"), 9);
        Assert.Equal("kraft-240", project.Design.Require("p2").Stock);
        Assert.Equal(Reason.NothingLeft, Assert.Throws<EditRefused>(() => Do(project, new ChangeBorderAction(By: -31), "p2")).Reason);
        Assert.Equal(Reason.FollowsNothing, Assert.Throws<EditRefused>(() => Do(project, new ChangeBorderAction(By: 1), "p1")).Reason);
    }

    [Fact]
    public void Plain_or_bent_by_hand_it_follows_nothing_any_more()
    {
        var plain = Do(Do(Matted(), new MakePlainAction(), "p2"), new MoveAction(50, 0), "p1");
        Assert.Equal(-4, OnCard(plain, "p2").MinX, 0.01);
        var bent = Edits.Apply(Matted(), new BendLine("p2", "l1", new MoveNode(0, new Point(-9, -9))), Given.Drawer);
        Assert.Null(bent.Design.Require("p2").Follows);
        var thick = Edits.Apply(Matted(), new ThickenPieces(["p2"], new Thicken(true, 0.5, 0.4)), Given.Drawer);
        Assert.Null(thick.Design.Require("p2").Follows);
    }

    [Fact]
    public void Without_what_it_followed_it_keeps_its_form_and_says_why()
    {
        var project = Do(Matted(), new DeleteAction(), "p1");
        Assert.Equal(FollowFault.SourceGone, project.Design.Require("p2").Follows!.Fault);
        IsAround(OnCard(project, "p2"), new Box(0, 0, 100, 60), 4);
        var finding = Assert.Single(Checks.Findings(project.Design), f => f.Code == FindingCodes.CannotFollow);
        var mended = Edits.Apply(project, Mend.For(finding, project.Design)[0].Edit, Given.Drawer);
        Assert.Null(mended.Design.Require("p2").Follows);
        // Shrunk so far that nothing of an inset is left.
        var inset = Do(Do(Plate, new BorderAction([-20]), "p1"), new ResizeAction(100, 30, false), "p1");
        Assert.Equal(FollowFault.NothingLeft, inset.Design.Require("p2").Follows!.Fault);
        Assert.Null(Do(inset, new ResizeAction(100, 60, false), "p1").Design.Require("p2").Follows!.Fault);
    }

    [Fact]
    public void A_copy_of_a_motif_and_its_mat_is_a_motif_and_its_mat()
    {
        var project = Do(Do(Matted(), new DuplicateAction(), "p1", "p2"), new MoveAction(0, 100), "p3");
        var mat = project.Design.Pieces.Single(p => p.Follows is FromBorder { Piece: "p3" });
        IsAround(OnCard(project, mat.Id), OnCard(project, "p3"), 4);
        IsAround(OnCard(project, "p2"), OnCard(project, "p1"), 4);
    }

    [Fact]
    public void Taken_to_another_project_they_follow_each_other_there()
    {
        var design = Matted().Design;
        var taken = Motifs.Take(Motifs.Find(design), [1], 500, 7);
        var project = Edits.Apply(Plate with { Design = Plate.Design with { NextPiece = 7 } }, new BringInPieces(Guid.NewGuid(), "Other", [1]) { Pieces = taken }, Given.Drawer);
        var mat = project.Design.Pieces.Single(p => p.Follows is not null);
        var motif = ((FromBorder)mat.Follows!).Piece;
        Assert.NotEqual("p1", motif);
        project = Do(project, new ResizeAction(50, 50, false), motif);
        IsAround(OnCard(project, mat.Id), OnCard(project, motif), 4);
    }

    [Fact]
    public void What_was_joined_live_is_joined_anew_when_one_of_its_pieces_moves()
    {
        var two = Given.ProjectOf(Given.Piece("p1", 60, 40), Given.Piece("p2", 20, 20) with { Place = Affine.Move(50, 10) });
        var project = Do(two, new CombineAction(Combination.Unite, Others: WhatCuts.IsFollowed), "p1", "p2");
        Assert.Equal(60 * 40 + 200, project.Design.Require("p3").Area, 1e-6);
        Assert.All(["p1", "p2"], id => Assert.True(project.Design.Require(id) is { Hidden: true, Quantity: 0 }));
        var apart = Do(project, new MoveAction(5, 0), "p2");
        Assert.Equal(60 * 40 + 300, apart.Design.Require("p3").Area, 1e-6);
        var along = Do(apart, new MoveAction(100, 0), "p1", "p2");
        Assert.Equal(100, OnCard(along, "p3").MinX, 6);
        Assert.Equal(60 * 40 + 300, along.Design.Require("p3").Area, 1e-6);
    }

    // Words.

    private static Project Written(string words, string face = "marker") => Do(Plate, new WriteAction(words, face, 10, Operation.Cut), "p1");

    private static Project CutOut(string words, WordTie tie = WordTie.Loose, double? size = null)
    {
        var project = Written(words);
        return Do(project, new CutOutAction("kraft-240", tie, size), Picked.OfLines("p1", "l2"));
    }

    [Fact]
    public void Words_cut_out_are_as_many_pieces_as_they_have_parts_where_they_were_written()
    {
        var written = Written("ab!");
        var where = Picked.OfLines("p1", "l2").Box(written.Design);
        var project = CutOut("ab!");
        Assert.Empty(project.Design.Require("p1").Items);
        var words = project.Design.Pieces.Where(p => p.Follows is FromWords).ToList();
        // a, b, ! and its dot.
        Assert.Equal(4, words.Count);
        Assert.All(words, w => Assert.Equal("kraft-240", w.Stock));
        var all = words.Select(w => OnCard(project, w.Id)).Aggregate(Box.Empty, (a, b) => a.Include(b));
        Assert.Equal(where.MinX, all.MinX, 6);
        Assert.Equal(where.MaxY, all.MaxY, 6);
        Assert.Contains(Checks.Findings(project.Design), f => f is { Code: FindingCodes.WordsFallApart, Other: "4" });
        var main = project.Design.Require("p2");
        Assert.Contains("!", WordShapes.Loose(main, (FromWords)main.Follows!));
    }

    [Theory]
    [InlineData(WordTie.Bar, 2.0)]
    [InlineData(WordTie.Bridges, 1.0)]
    public void A_bar_or_bridges_make_one_piece_of_all_letters(WordTie tie, double size)
    {
        var loose = CutOut("ab!");
        var tied = Do(loose, new TieAction(tie, size), "p2");
        var piece = Assert.Single(tied.Design.Pieces, p => p.Follows is FromWords);
        // All letters are there, and more than that.
        Assert.True(piece.Area > loose.Design.Pieces.Where(p => p.Follows is FromWords).Sum(p => p.Area));
        Assert.DoesNotContain(Checks.Findings(tied.Design), f => f.Code == FindingCodes.WordsFallApart);
        Assert.Equal(4, Do(tied, new TieAction(WordTie.Loose), piece.Id).Design.Pieces.Count(p => p.Follows is FromWords));
    }

    [Fact]
    public void A_letter_changed_next_week_changes_outline_parts_and_the_layer_under_them()
    {
        var project = CutOut("ab!");
        project = Do(project, new BorderAction([3], "chalk-200"), "p2");
        var layer = project.Design.Pieces.Single(p => p.Follows is FromBorder).Id;
        var before = OnCard(project, layer);
        var text = project.Design.Require("p2").Items.OfType<TextItem>().Single();
        var changed = Do(project, new WordsAction("abcd"), Picked.OfLines("p2", text.Id));
        Assert.Equal(4, changed.Design.Pieces.Count(p => p.Follows is FromWords));
        var letters = changed.Design.Pieces.Where(p => p.Follows is FromWords).Select(p => OnCard(changed, p.Id)).Aggregate(Box.Empty, (a, b) => a.Include(b));
        IsAround(OnCard(changed, layer), letters, 3);
        Assert.True(OnCard(changed, layer).Width > before.Width + 5);
        Assert.Single(Do(changed, new WordsAction("/a"), Picked.OfLines("p2", text.Id)).Design.Pieces, p => p.Follows is FromWords);
    }

    [Fact]
    public void Words_made_plain_are_lines_and_taken_out_take_their_parts_along()
    {
        var plain = Do(CutOut("ab!"), new MakePlainAction(), "p2");
        Assert.DoesNotContain(plain.Design.Pieces, p => p.Follows is not null || p.Items.Any(i => i is TextItem));
        Assert.Equal(5, plain.Design.Pieces.Length);
        Assert.Single(Do(CutOut("ab!"), new DeleteAction(), "p2").Design.Pieces);
    }

    [Fact]
    public void Single_lines_are_not_cut_out_and_a_size_out_of_reach_is_refused()
    {
        var drawn = Do(Plate, new WriteAction("ab", Height: 10), "p1");
        Assert.Equal(Reason.SingleLineFace, Assert.Throws<EditRefused>(() => Do(drawn, new CutOutAction(), Picked.OfLines("p1", "l2"))).Reason);
        Assert.Equal(Reason.SingleLineFace, Assert.Throws<EditRefused>(() => Do(CutOut("ab"), new FaceAction("line-plain"), Picked.OfLines("p2", "l2"))).Reason);
        Assert.Equal(Reason.OutOfRange, Assert.Throws<EditRefused>(() => CutOut("ab", WordTie.Bar, 400)).Reason);
        Assert.Equal(Reason.NoWordPiece, Assert.Throws<EditRefused>(() => Do(Plate, new TieAction(WordTie.Bar, 2), "p1")).Reason);
    }

    [Fact]
    public void Letters_come_closer_until_they_join_and_a_layer_grows_until_it_is_one()
    {
        var project = CutOut("abc");
        var piece = project.Design.Require("p2");
        var text = piece.Items.OfType<TextItem>().Single();
        // 0.7 from letter to letter, each 0.6 wide: a tenth closer they touch, and a step more they overlap.
        Assert.InRange(WordShapes.CloserSpacing(piece, text)!.Value, -110, -100);
        var parts = WordShapes.Parts(piece, (FromWords)piece.Follows!);
        var growth = WordShapes.GrowthToOne(parts)!.Value;
        Assert.Single(Borders.Offset(piece, new Border(growth, "chalk-200")));
    }
}
