using CsCheck;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;
using static Falzkunst.Core.Tests.Detail.Shapes;

namespace Falzkunst.Core.Tests.Detail;

public sealed class WidthSurveyTests
{
    private const double Least = 0.8;

    private static List<ThinPlace> Places(params Path[] rings) => WidthSurvey.ThinPlaces(rings, Least);

    private static ThinPlace Only(List<ThinPlace> places) => Assert.Single(places);

    private static void IsWide(double expected, double width) => Assert.True(Math.Abs(width - expected) <= Math.Max(0.02, 0.02 * expected), $"{width} and not {expected}");

    [Theory]
    [InlineData(0.2)]
    [InlineData(0.42)]
    [InlineData(0.7)]
    public void Two_plates_joined_by_a_bar_have_one_strand_as_wide_as_the_bar(double width)
    {
        var h = width / 2;
        var place = Only(Places(Polygon((0, -10), (20, -10), (20, -h), (30, -h), (30, -10), (50, -10), (50, 10), (30, 10), (30, h), (20, h), (20, 10), (0, 10))));
        Assert.Equal(ThinKind.Strand, place.Kind);
        IsWide(width, place.WidthMm);
        Assert.InRange(place.At.X, 19, 31);
        Assert.Equal(0, place.At.Y, 2);
        Assert.InRange(place.ExtentMm, 8.5, 11);
    }

    [Fact]
    public void Two_discs_that_just_overlap_have_one_neck_where_they_meet()
    {
        // Discs of radius 5 whose rims cross 0.3 above and below the middle.
        var apart = Math.Sqrt(25 - 0.09);
        Point up = new(0, -0.3), down = new(0, 0.3);
        var outline = new Path(up, [.. EllipticArc.FromEndpoints(up, 5, 5, 0, true, true, down), .. EllipticArc.FromEndpoints(down, 5, 5, 0, true, true, up)], closed: true);
        Assert.InRange(outline.Bounds.Width, 2 * apart + 9.9, 2 * apart + 10.1);
        var place = Only(Places(outline));
        Assert.Equal(ThinKind.Neck, place.Kind);
        IsWide(0.6, place.WidthMm);
        Assert.True(place.At.DistanceTo(default) < 0.25, place.At.ToString());
    }

    [Fact]
    public void A_thin_ring_is_one_strand_all_round_and_a_thick_one_is_none()
    {
        var place = Only(Places(Circle(0, 0, 10), Circle(0, 0, 9.5)));
        Assert.Equal(ThinKind.Strand, place.Kind);
        IsWide(0.5, place.WidthMm);
        Assert.Empty(Places(Circle(0, 0, 10), Circle(0, 0, 9)));
    }

    [Fact]
    public void Sharp_tips_and_corners_are_no_findings() => Gen.Select(Gen.Double[8, 170], Gen.Double[0, 360], Gen.Double[10, 60]).ForAll((degrees, turn, length) =>
    {
        var half = Math.Tan(degrees * Math.PI / 360) * length;
        // A dart with a broad end.
        var wedge = Polygon((0, 0), (length, -half), (length + 20, -half - 5), (length + 20, half + 5), (length, half)).Map(Affine.Turn(turn));
        Assert.Empty(Places(wedge));
        foreach (var star in new[] { 5, 8, 12 }) Assert.Empty(Places(new StarShape(0, 0, 40, 40, star, 0.5).ToPath().Map(Affine.Turn(turn))));
    }, iter: 40);

    [Fact]
    public void A_blunt_leg_is_found_and_a_comb_has_one_place_a_tooth()
    {
        var leg = Only(Places(Polygon((0, 0), (20, 0), (20, 10), (10.5, 10), (10.5, 18), (10, 18), (10, 10), (0, 10))));
        IsWide(0.5, leg.WidthMm);
        Assert.Equal(ThinKind.Strand, leg.Kind);
        var corners = new List<(double, double)> { (0, 0), (40, 0), (40, 5) };
        for (var i = 9; i >= 0; i--) corners.AddRange([(i * 4 + 1.6, 5), (i * 4 + 1.6, 15), (i * 4 + 1.0, 15), (i * 4 + 1.0, 5)]);
        corners.Add((0, 5));
        var teeth = Places(Polygon([.. corners]));
        Assert.Equal(10, teeth.Count);
        Assert.All(teeth, t => IsWide(0.6, t.WidthMm));
    }

    [Fact]
    public void Walls_between_openings_gaps_and_small_holes_are_told_apart()
    {
        var plate = Path.Rectangle(0, 0, 60, 40);
        IsWide(0.4, Only(Places(plate, Path.Rectangle(10, 10, 10, 10), Path.Rectangle(20.4, 10, 10, 10))).WidthMm);
        var hole = Only(Places(plate, Circle(30, 20, 0.3)));
        Assert.Equal(ThinKind.Hole, hole.Kind);
        IsWide(0.6, hole.WidthMm);
        // A slit cut in from the edge that widens at its end.
        var gap = Only(Places(Polygon((0, 0), (60, 0), (60, 40), (30.3, 40), (30.3, 20), (35, 20), (35, 10), (25, 10), (25, 20), (30, 20), (30, 40), (0, 40))));
        Assert.Equal(ThinKind.Gap, gap.Kind);
        IsWide(0.3, gap.WidthMm);
    }

    [Fact]
    public void A_spiral_is_one_strand_however_long()
    {
        static Point At(double turns, double off) => new((2 + 1.6 * turns + off) * Math.Cos(2 * Math.PI * turns), (2 + 1.6 * turns + off) * Math.Sin(2 * Math.PI * turns));
        var inner = Enumerable.Range(0, 600).Select(i => At(i / 100.0, 0));
        var outer = Enumerable.Range(0, 600).Reverse().Select(i => At(i / 100.0, 0.55));
        var place = Assert.Single(Places(Path.Polyline(inner.Concat(outer), closed: true)), p => p.Kind == ThinKind.Strand);
        Assert.InRange(place.WidthMm, 0.5, 0.56);
        Assert.InRange(place.ExtentMm, 20, 40);
    }

    [Fact]
    public void Any_closed_lines_can_be_surveyed_and_widths_lie_between_nothing_and_the_least() => Given.Paths.Array[1, 4].ForAll(paths =>
    {
        foreach (var place in WidthSurvey.ThinPlaces([.. paths.Select(p => new Path(p.Start, p.Segments, closed: true))], Least))
        {
            Assert.InRange(place.WidthMm, 0, Least + 1e-9);
            Assert.True(place.At.IsFinite && double.IsFinite(place.ExtentMm));
        }
    }, iter: 60);

    [Theory]
    [InlineData(0.35)]
    [InlineData(0.6)]
    public void The_strokes_of_letters_are_as_wide_as_they_were_drawn(double s)
    {
        // H, E and O, 8 high; the corners of block letters are none of it.
        var h = Places(Polygon((0, 0), (s, 0), (s, 4 - s / 2), (5, 4 - s / 2), (5, 0), (5 + s, 0), (5 + s, 8), (5, 8), (5, 4 + s / 2), (s, 4 + s / 2), (s, 8), (0, 8)));
        var e = Places(Polygon((0, 0), (5, 0), (5, s), (s, s), (s, 4 - s / 2), (4, 4 - s / 2), (4, 4 + s / 2), (s, 4 + s / 2), (s, 8 - s), (5, 8 - s), (5, 8), (0, 8)));
        var o = Places(EllipticArc.Ellipse(new(4, 4), 4, 4), EllipticArc.Ellipse(new(4, 4), 4 - s, 4 - s));
        Assert.InRange(h.Count, 3, 5);
        Assert.InRange(e.Count, 3, 7);
        Assert.Single(o);
        Assert.All(h.Concat(e).Concat(o), p => IsWide(s, p.WidthMm));
    }

    [Fact]
    public void Survey_and_morphological_opening_tell_the_same_story() => Joined.ForAll(piece =>
    {
        var material = Shapes.FromPiece(piece);
        var worst = PieceWidths.Below(piece, Least).FirstOrDefault(p => p.Kind is ThinKind.Neck or ThinKind.Strand);
        // Opened by a little less than the narrowest place, nothing but corners goes; by a little more, that place.
        var width = worst?.WidthMm ?? Least;
        foreach (var part in Lost(0.96 * width / 2)) Assert.True(part.Area < 2.5 * width * width / 4, $"{part.Area} mm² are narrower than {width}");
        if (worst is null) return;
        Assert.False(material.Grow(-1.06 * width / 2, Corners.Round, 24).Contains(worst.At));
        // Where two round parts meet at a sharp notch, discs from both sides cover the neck all the same.
        if (worst.Kind == ThinKind.Strand) Assert.Contains(Lost(1.06 * width / 2), part => part.Contains(worst.At) || part.Rings.Any(r => r.Any(p => p.DistanceTo(worst.At) < 1.2 * width)));

        IEnumerable<Region> Lost(double radius) =>
            material.Minus(material.Grow(-radius, Corners.Round, 24).Grow(radius * 1.002, Corners.Round, 24)).Parts.Select(p => Region.FromRings(p.Outer, p.Openings));
    }, iter: 60);
}
