using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;
using static Falzkunst.Core.Tests.Detail.Shapes;
using Point = Falzkunst.Core.Geometry.Point;

namespace Falzkunst.Core.Tests.Detail;

public sealed class ThickeningTests
{
    private const double Width = 0.8;
    private static readonly Thicken Thin = new(IsEven: false, Width, KeptGapMm: 0.4);

    /// <summary>Two plates joined by a bar.</summary>
    private static Path Bone(double width) =>
        Polygon((0, -10), (20, -10), (20, -width / 2), (30, -width / 2), (30, -10), (50, -10), (50, 10), (30, 10), (30, width / 2), (20, width / 2), (20, 10), (0, 10));

    [Fact]
    public void A_bar_between_two_plates_is_brought_to_the_width_and_the_plates_keep_every_digit()
    {
        var piece = PieceOf(Bone(0.3));
        var grown = Thickening.Grow(piece, Thin);
        Assert.Equal(0.3, grown.NarrowestBeforeMm!.Value, 2);
        Assert.InRange(grown.NarrowestAfterMm!.Value, Width, Width + 0.04);
        Assert.Empty(grown.Limited);
        Assert.Equal(10 * 0.5, grown.AreaAfter - grown.AreaBefore, 0.5);
        // The outer corners are the very same, and no more nodes than the bar needs are new.
        var ends = grown.Piece.Outline.Path.Segments.Select(s => s.End).Append(grown.Piece.Outline.Path.Start).ToHashSet();
        Assert.All(new Point[] { new(0, -10), new(20, -10), new(30, -10), new(50, -10), new(50, 10), new(30, 10), new(20, 10), new(0, 10) }, p => Assert.Contains(p, ends));
        Assert.InRange(grown.Nodes, 8, 28);
    }

    [Fact]
    public void What_is_wide_enough_stays_the_very_same_piece()
    {
        var piece = PieceOf(Bone(0.9), Circle(10, 0, 3));
        var grown = Thickening.Grow(piece, Thin);
        Assert.Same(piece, grown.Piece);
        Assert.Equal(grown.AreaBefore, grown.AreaAfter);
    }

    [Fact]
    public void A_square_end_stays_where_it_is()
    {
        var comb = PieceOf(Polygon((0, 0), (20, 0), (20, 10), (10.5, 10), (10.5, 18), (10, 18), (10, 10), (0, 10)));
        var grown = Thickening.Grow(comb, Thin).Piece;
        Assert.Equal(18, grown.Size.MaxY, 0.02);
        Assert.InRange(Thickening.Grow(comb, Thin).NarrowestAfterMm!.Value, Width - 0.01, Width + 0.04);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(0.25)]
    [InlineData(-0.4)]
    public void A_leg_on_a_slanting_wire_grows_without_a_bite(double slope)
    {
        // A wire 0.5 wide between two posts, a leg 0.43 wide hanging from its middle; next to the joint air meets air at the leg's back.
        (double, double) Wire(double x, double down) => (x, slope * x + down);
        var piece = PieceOf(Polygon(Wire(-20, -3), Wire(-15, -3), Wire(-15, 0), Wire(15, 0), Wire(15, -3), Wire(20, -3), Wire(20, 3.5), Wire(15, 3.5), Wire(15, 0.5), Wire(0.43, 0.5), (0.43, 16), (3, 16), (3, 20), (-3, 20), (-3, 16), (0, 16), Wire(0, 0.5), Wire(-15, 0.5), Wire(-15, 3.5), Wire(-20, 3.5)));
        var grown = Thickening.Grow(piece, new Thicken(false, 1, 0.4));
        Assert.Empty(grown.Limited);
        Assert.InRange(grown.NarrowestAfterMm!.Value, 0.99, 1.04);
    }

    [Fact]
    public void A_thin_ring_grows_to_both_sides_and_keeps_its_opening()
    {
        var grown = Thickening.Grow(PieceOf(Circle(0, 0, 10), Circle(0, 0, 9.6)), Thin);
        Assert.InRange(grown.NarrowestAfterMm!.Value, Width - 0.005, Width + 0.03);
        Assert.Equal(20.4, grown.Piece.Size.Width, 0.05);
        Assert.Equal(2, grown.Piece.Lines.Length);
        // A circle is a handful of curves, not of corners.
        Assert.InRange(grown.Nodes, 4, 40);
    }

    [Fact]
    public void The_eye_of_an_e_stays_open_unless_it_may_close()
    {
        // A bowl and a bar across it, strokes 0.4 wide, the eye between them 0.7 high.
        var letter = PieceOf(Circle(5, 5, 3), Polygon((3, 4.8), (7, 4.8), (7, 4.1), (3, 4.1)));
        var letterE = PieceOf(Polygon((0, 0), (6, 0), (6, 1.5), (0.4, 1.5), (0.4, 3), (6, 3), (6, 3.4), (0, 3.4)), Polygon((0.4, 0.4), (5.6, 0.4), (5.6, 1.1), (0.4, 1.1)));
        foreach (var piece in new[] { letter, letterE })
        {
            var grown = Thickening.Grow(piece, new Thicken(false, 1.4, 0.5));
            Assert.Equal(0, grown.ClosedOpenings);
            Assert.Equal(2, grown.Piece.Lines.Length);
            Assert.Equal(1, FromPiece(grown.Piece).OpeningCount);
            Assert.True(WidestOpening(grown.Piece) >= 0.5 - 0.03, $"eye {WidestOpening(grown.Piece)}");
        }
        var closed = Thickening.Grow(letterE, new Thicken(false, 1.4, 0));
        Assert.Equal(1, closed.ClosedOpenings);
        Assert.Equal(0, FromPiece(closed.Piece).OpeningCount);
    }

    private static double WidestOpening(Piece piece)
    {
        var opening = Region.FromRings([.. piece.Lines[1].Path.Flat], []);
        var (low, high) = (0.0, 20.0);
        for (var i = 0; i < 30; i++)
        {
            var middle = (low + high) / 2;
            if (opening.Grow(-middle / 2, Corners.Round, 16).IsEmpty) high = middle;
            else low = middle;
        }
        return low;
    }

    [Theory]
    [InlineData(0.3)]
    [InlineData(0.6)]
    public void The_dot_keeps_off_the_stem(double keptGap)
    {
        // A stem 0.3 wide whose upper end is broad enough, and its dot 0.9 above it.
        var stem = PieceOf(Polygon((0, 0), (0.3, 0), (0.3, 8), (4, 8), (4, 10), (0, 10)));
        var dot = Circle(0.15, -1.2, 0.6);
        var how = new Thicken(true, 0.5, keptGap);
        var grown = Thickening.Grow(stem, how, [dot]);
        var between = FromPiece(grown.Piece).Grow(keptGap - 0.03, Corners.Round, 16).And(Region.FromRings([.. dot.Flat], []));
        Assert.True(between.Area < 1e-3 + (keptGap > 0.4 ? 0.1 : 0), $"{between.Area} mm² nearer than the gap");
        Assert.Equal(0, grown.Merged);
        Assert.Equal(1, Thickening.Grow(stem, how with { AmountMm = 0.8, KeptGapMm = 0 }, [dot]).Merged);
    }

    [Fact]
    public void An_outline_that_crosses_itself_where_it_closes_is_surveyed_and_grown_like_any_other()
    {
        // Drawn round to a hair past its start, as programs write it that round coordinates.
        var ends = Bone(0.4).Segments.Select(s => s.End).ToList();
        var crossing = Polygon([(0, -10), .. ends.Take(ends.Count - 1).Select(p => (p.X, p.Y)), (0, 10), (0.0003, -10.0002), (-0.0002, -9.9996)]);
        var piece = PieceOf(crossing);
        Assert.Equal(0.4, PieceWidths.Narrowest(piece, 3)!.Value, 2);
        var grown = Thickening.Grow(piece, Thin);
        Assert.InRange(grown.NarrowestAfterMm!.Value, Width, Width + 0.04);
        Assert.Equal(1, FromPiece(grown.Piece).PartCount);
    }

    [Fact]
    public void Two_plates_that_touch_in_a_point_alone_are_no_piece_and_said_to_be_none()
    {
        var piece = PieceOf(Polygon((0, 0), (10, 0), (10, 10), (20, 10), (20, 20), (10, 20), (10, 10), (0, 10)));
        Assert.Equal(Reason.CutIntoParts, Assert.Throws<EditRefused>(() => Thickening.Grow(piece, new Thicken(true, 0.001 + Thicken.LeastMm, 0.4))).Reason);
    }

    [Fact]
    public void Score_and_foil_lines_stay_as_they_are()
    {
        var piece = PieceOf(Bone(0.3)).Plus(Given.Line(Given.Straight(5, -5, 5, 5), Operation.Score), Given.Line(Circle(40, 0, 4), Operation.Foil));
        var grown = Thickening.Grow(piece, Thin).Piece;
        Assert.Equal(piece.Lines[1..], grown.Lines[1..]);
        Assert.Equal(piece.Lines[1].Path, grown.Lines[1].Path);
        Assert.Equal(piece.Lines[2].Path, grown.Lines[2].Path);
    }

    [Fact]
    public void Growing_everything_moves_every_edge_by_the_amount_with_round_or_sharp_corners()
    {
        var piece = PieceOf(Path.Rectangle(0, 0, 30, 20), Path.Rectangle(10, 5, 10, 10));
        var round = Thickening.Grow(piece, new Thicken(true, 1, 0.4)).Piece;
        Assert.Equal(32 * 22 - (4 - Math.PI) - 64, round.Area, 0.1);
        Assert.Equal(new Box(-1, -1, 31, 21).Width, round.Size.Width, 0.01);
        var sharp = Thickening.Grow(piece, new Thicken(true, 1, 0.4, Corners: Corners.Sharp)).Piece;
        Assert.Equal(32 * 22 - 64, sharp.Area, 0.01);
    }

    [Fact]
    public void Amounts_out_of_reach_are_refused_with_a_sentence() =>
        Assert.Equal(("amount", Reason.OutOfRange), Assert.Throws<EditRefused>(() => Thickening.Grow(PieceOf(Bone(0.3)), Thin with { AmountMm = double.NaN })) is var refused ? (refused.Field, refused.Reason) : default);

    private static double DistanceTo(ImmutableArray<WidthAt> course, Point p) =>
        course.Length == 1 ? p.DistanceTo(course[0].At) : course.Zip(course.Skip(1)).Min(s => Polygons.DistanceToStretch(p, s.First.At, s.Second.At));

    [Fact]
    public void Grown_pieces_keep_their_topology_bear_the_width_but_where_they_say_and_are_unmoved_away_from_thin_places() => Joined.ForAll(piece =>
    {
        var (before, grown) = (FromPiece(piece), Thickening.Grow(piece, Thin));
        var after = FromPiece(grown.Piece);
        // Curves that meet in a cusp may cross there by less than the tolerance that they are fitted with, which bounds no opening.
        static bool IsOpening(Region opening) => opening.Area > 1e-4;
        Assert.Equal((1, before.Where(_ => true, IsOpening).OpeningCount), (after.PartCount, after.Where(_ => true, IsOpening).OpeningCount));
        Assert.True(before.Minus(after).Area < 0.01 * grown.Nodes, "it only grows");

        // Opened by nearly half the width, only tips, corners and what is said to be limited goes.
        const double radius = 0.98 * Width / 2;
        var lost = after.Minus(after.Grow(-radius, Corners.Round, 16).Grow(radius * 1.002, Corners.Round, 16));
        foreach (var (outer, _) in lost.Parts)
        {
            var area = Math.Abs(Polygons.SignedArea(outer));
            var isLimited = grown.Limited.Any(l => outer.Any(p => p.DistanceTo(l.At) < l.ExtentMm + 2 * Width));
            Assert.True(area < 2.5 * radius * radius || isLimited, $"{area} mm² are lost at {outer[0]}");
        }

        // Corners farther than twice the width from every thin place are nodes still.
        var middles = PieceWidths.Courses(piece, Width).Where(c => c.Place.Kind is ThinKind.Neck or ThinKind.Strand).SelectMany(c => c.Lines.AsEnumerable()).ToList();
        var nodes = grown.Piece.Shape.Paths.SelectMany(p => p.Segments.Select(s => s.End).Append(p.Start)).ToHashSet();
        foreach (var corner in piece.Shape.Paths.SelectMany(p => p.Flat.ToArray()))
        {
            if (middles.TrueForAll(m => DistanceTo(m, corner) > 2 * Width)) Assert.Contains(corner, nodes);
        }
    }, iter: 100);
}
