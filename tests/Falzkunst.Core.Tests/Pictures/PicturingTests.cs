using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tracing;
using Xunit;

namespace Falzkunst.Core.Tests.Pictures;

/// <summary>Pictures in a project: brought in, worked on, traced to pieces and lines, laid on pieces.</summary>
public sealed class PicturingTests
{
    private static readonly string Content = new('a', 64);

    private static Project Do(Project project, Edit edit) => Edits.Apply(project, edit, Given.Drawer);

    /// <summary>A picture of 200 by 100 dots, a quarter of a millimetre each.</summary>
    private static Project WithPicture(Project project) => Do(project, new BringInPicture("lantern.png", Content, 200, 100, 0.25));

    private static readonly PixelImage Disc = Painted.Shape(200, 100, Painted.Disc(new(100, 50), 30));

    private static TakeTrace Take(TraceSettings settings, string? onto = null, bool again = false, PixelImage? image = null) =>
        new("i1", settings, Operation.Foil, onto, again) { Traced = PictureTrace.Run(image ?? Disc, settings.InDots(0.25), Budget.Unlimited) };

    [Fact]
    public void A_picture_comes_in_is_worked_on_and_its_steps_are_taken_back_one_by_one()
    {
        var project = WithPicture(Project.Empty);
        Assert.Equal((50, 25), project.Design.RequirePicture("i1").SizeMm);
        project = Do(project, new AddPictureStep("i1", new Crop(0.5, 0, 0.5, 1)));
        project = Do(project, new AddPictureStep("i1", new BackgroundGuessed(0.1)));
        project = Do(project, new AddPictureStep("i1", new Lay(Orientation.QuarterLeft)));
        var picture = project.Design.RequirePicture("i1");
        Assert.Equal((100, 100), picture.Pixels);
        var key = picture.Key;
        project = Do(project, new DropPictureStep("i1", 1));
        Assert.Equal([typeof(Crop), typeof(Lay)], project.Design.Pictures[0].Steps.Select(s => s.GetType()));
        Assert.NotEqual(key, project.Design.Pictures[0].Key);
        Assert.Equal(50, Do(project, new ResizePicture("i1", 0.5)).Design.Pictures[0].SizeMm.Width);
        // The next one has an id of its own, whatever was taken out before.
        var next = Do(Do(project, new RemovePicture("i1")), new BringInPicture("other.png", Content, 10, 10, 1));
        Assert.Equal("i2", Assert.Single(next.Design.Pictures).Id);
    }

    [Fact]
    public void What_cannot_be_is_refused_with_a_reason()
    {
        var project = WithPicture(Project.Empty);
        foreach (var (edit, reason) in new (Edit, Reason)[]
        {
            (new AddPictureStep("i9", new LevelLight()), Reason.PictureGone),
            (new AddPictureStep("i1", new Crop(0.5, 0, 0.6, 1)), Reason.PictureCropped),
            (new AddPictureStep("i1", new Crop(double.NaN, 0, 0.5, 1)), Reason.PictureCropped),
            (new AddPictureStep("i1", new Straighten(46)), Reason.OutOfRange),
            (new AddPictureStep("i1", new Straighten(double.NaN)), Reason.OutOfRange),
            (new AddPictureStep("i1", new Unfold(new(0, 0), new(1, 1), new(1, 0), new(0, 1))), Reason.PictureCorners),
            (new AddPictureStep("i1", new BackgroundAway(0.5, 0.5, 2)), Reason.OutOfRange),
            (new AddPictureStep("i1", new Brush([], 0.1, true)), Reason.PictureBrush),
            (new AddPictureStep("i1", new Brush([new(double.PositiveInfinity, 0)], 0.1, true)), Reason.PictureBrush),
            (new DropPictureStep("i1", 0), Reason.PictureGone),
            (new ResizePicture("i1", 0), Reason.OutOfRange),
            (new ResizePicture("i1", double.NaN), Reason.OutOfRange),
            (new TakeTrace("i1", new TraceSettings(TraceMode.Areas, 0.1), Operation.Draw, null, false), Reason.NothingTraced),
            (Take(new TraceSettings(TraceMode.Areas, 0.1), image: Painted.Shape(20, 20, _ => false)), Reason.NothingTraced),
            (Take(new TraceSettings(TraceMode.Rim, 99)), Reason.OutOfRange),
            (new LayPicture("p1", "i1", false), Reason.PieceGone),
        })
        {
            Assert.Equal(reason, Assert.Throws<EditRefused>(() => Do(project, edit)).Reason);
        }
        var many = Enumerable.Range(0, PictureSteps.Most).Aggregate(project, (p, _) => Do(p, new AddPictureStep("i1", new LevelLight())));
        Assert.Equal(Reason.PictureStepsFull, Assert.Throws<EditRefused>(() => Do(many, new AddPictureStep("i1", new LevelLight()))).Reason);
    }

    [Fact]
    public void Turned_again_and_again_a_picture_does_not_grow_without_end()
    {
        var project = WithPicture(Project.Empty);
        var refused = Assert.Throws<EditRefused>(() =>
        {
            for (var i = 0; i < PictureSteps.Most; i++) project = Do(project, new AddPictureStep("i1", new Straighten(45)));
        });
        Assert.Equal(Reason.PictureDots, refused.Reason);
        // Nor by taking back the crop that kept it small.
        var small = Do(WithPicture(Project.Empty), new AddPictureStep("i1", new Crop(0, 0, 0.05, 0.05)));
        while (small.Design.Pictures[0].Pixels is var (across, down) && across * down < 1_000_000) small = Do(small, new AddPictureStep("i1", new Straighten(45)));
        Assert.Equal(Reason.PictureDots, Assert.Throws<EditRefused>(() => Do(small, new DropPictureStep("i1", 0))).Reason);
    }

    [Fact]
    public void A_rim_is_a_printed_piece_with_paper_round_it_that_can_be_changed()
    {
        var project = Do(WithPicture(Project.Empty), Take(new TraceSettings(TraceMode.Rim, 0.05, BorderMm: 2)));
        var piece = Assert.Single(project.Design.Pieces);
        // A disc of 7.5 mm with 2 mm round it.
        Assert.Equal(19, piece.Size.Width, 0.1);
        var printed = Assert.IsType<PictureItem>(Assert.Single(piece.Items));
        Assert.Equal(0, printed.Bounds.Centre.DistanceTo(piece.Size.Centre), 0.1);
        var wider = Do(project, new ChangeRim("p1", 4)).Design.Pieces[0];
        Assert.Equal(23, wider.Size.Width, 0.1);
        // The picture stays under the rim that it is of.
        Assert.Equal(0, ((PictureItem)wider.Items[0]).Bounds.Centre.DistanceTo(wider.Size.Centre), 0.1);
        Assert.Equal(15, Do(project, new ChangeRim("p1", 0)).Design.Pieces[0].Size.Width, 0.1);
        Assert.Equal(Reason.FollowsNothing, Assert.Throws<EditRefused>(() => Do(Given.ProjectOf(Given.Piece("p1", 9, 9)), new ChangeRim("p1", 1))).Reason);
    }

    [Fact]
    public void Middle_lines_go_onto_a_piece_or_a_new_one_and_areas_keep_their_openings()
    {
        var strokes = Painted.Shape(200, 100, Painted.Strokes(8, [new(20, 30), new(180, 30)], [new(40, 70), new(160, 70)]));
        var settings = new TraceSettings(TraceMode.MiddleLines, 0.1);
        var onPlate = Do(WithPicture(Given.ProjectOf(Given.Piece("p1", 80, 60))), Take(settings, "p1", image: strokes)).Design;
        var lines = onPlate.Pieces[0].Items.OfType<Line>().ToList();
        Assert.Equal(2, lines.Count);
        Assert.All(lines, l => Assert.Equal(Operation.Foil, l.Operation));
        Assert.All(lines, l => Assert.True(onPlate.Pieces[0].Size.Contains(l.Path.Bounds)));
        Assert.Equal(40, lines.Max(l => l.Path.Length), 0.5);
        var onNew = Do(WithPicture(Project.Empty), Take(settings, TracedPieces.NewPiece, image: strokes)).Design;
        Assert.Equal(2, Assert.Single(onNew.Pieces).Items.Length);
        Assert.Equal(2, Do(WithPicture(Project.Empty), Take(settings, image: strokes)).Design.Loose.Length);
        bool Ring(Point p) => p.DistanceTo(new(100, 50)) is <= 40 and >= 20;
        var ring = Assert.Single(Do(WithPicture(Project.Empty), Take(new TraceSettings(TraceMode.Areas, 0.05), image: Painted.Shape(200, 100, Ring))).Design.Pieces);
        Assert.Equal(Math.PI * (100 - 25), ring.Area, 1.0);
    }

    [Fact]
    public void Traced_again_what_came_of_the_last_one_goes_and_what_was_changed_is_named()
    {
        var settings = new TraceSettings(TraceMode.Areas, 0.05);
        var once = Do(WithPicture(Project.Empty), Take(settings));
        Assert.Empty(TracedPieces.ChangedSince(once.Design, once.Design.Pictures[0].Trace!));
        var bent = Do(once, new ResizePicked(new Picked(["p1"], []), 30, 30));
        Assert.Equal(["lantern"], TracedPieces.ChangedSince(bent.Design, bent.Design.Pictures[0].Trace!));
        var again = Do(bent, Take(settings with { SmoothMm = 0.2 }, again: true));
        Assert.Equal("p2", Assert.Single(again.Design.Pieces).Id);
        Assert.Equal(2, Do(once, Take(settings)).Design.Pieces.Length);
    }

    [Fact]
    public void On_a_piece_a_picture_follows_its_steps_and_keeps_its_middle()
    {
        var project = Do(WithPicture(Given.ProjectOf(Given.Piece("p1", 100, 20))), new LayPicture("p1", "i1", false));
        var laid = Assert.IsType<PictureItem>(project.Design.Pieces[0].Items[^1]);
        // It covers the piece, its middle on the piece's.
        Assert.Equal(2, laid.Place.MeanScale, 1e-9);
        Assert.Equal(0, laid.Bounds.Centre.DistanceTo(new(50, 10)), 1e-9);
        Assert.Equal(Reason.PictureLies, Assert.Throws<EditRefused>(() => Do(project, new RemovePicture("i1"))).Reason);
        var cropped = Do(project, new AddPictureStep("i1", new Crop(0, 0, 0.5, 0.5)));
        var smaller = Assert.IsType<PictureItem>(cropped.Design.Pieces[0].Items[^1]);
        Assert.Equal((25, 12.5), (smaller.Width, smaller.Height));
        Assert.Equal(0, smaller.Bounds.Centre.DistanceTo(new(50, 10)), 1e-9);
        Assert.NotEqual(laid.Key, smaller.Key);
        // Numbers to type, and back from them.
        var place = LaidPicture.Place(cropped.Design.Pieces[0], smaller, 0.8, 30, new(4, -2));
        var turned = (PictureItem)Do(cropped, new PlacePicture("p1", laid.Id, place, false)).Design.Pieces[0].Items[^1];
        var read = LaidPicture.Of(project.Design.Pieces[0], turned);
        Assert.Equal((0.8, 30.0), (Math.Round(read.Scale, 9), Math.Round(read.Degrees, 9)));
        Assert.Equal(0, read.Offset.DistanceTo(new(4, -2)), 1e-9);
        Assert.True(Do(project, new LayPicture("p1", "i1", true)).Design.Pieces[0].Items[^1] is PictureItem { IsPattern: true });
        Assert.Empty(Do(project, new TakeOffPictures("p1", [laid.Id])).Design.Pieces[0].Items.OfType<PictureItem>());
        Assert.False(project.Design.Pieces[0].IsOnlyCut);
    }

    [Fact]
    public void A_picture_too_coarse_for_its_size_is_pointed_out_with_what_it_bears()
    {
        var project = Do(WithPicture(Given.ProjectOf(Given.Piece("p1", 40, 20))), new LayPicture("p1", "i1", false));
        var finding = Assert.Single(Checks.Findings(project.Design), f => f.Code == FindingCodes.CoarsePicture);
        Assert.Equal("102", finding.Other);
        Assert.Equal([25.4, 50], finding.LengthsMm.Select(l => Math.Round(l, 3)));
        Assert.DoesNotContain(Checks.Findings(Do(project, new ResizePicture("i1", 0.1)).Design), f => f.Code == FindingCodes.CoarsePicture);
    }
}
