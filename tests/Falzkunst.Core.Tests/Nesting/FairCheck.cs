using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Utilities;
using Flat = NetTopologySuite.Geometries.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tests.Nesting;

/// <summary>Whether a layout is valid, by the overlays and distances of a geometry library: nothing of the nester's own is used.</summary>
internal static class FairCheck
{
    private const double Rounding = 0.002;

    public static void Demand(NestJob job, NestResult result)
    {
        foreach (var kind in result.Sheets.GroupBy(s => s.Sheet))
        {
            var sheet = job.Sheets.Single(s => s.Id == kind.Key);
            Assert.All(kind, s => Assert.InRange(s.Number, 1, sheet.Count));
            Assert.Equal(kind.Count(), kind.Select(s => s.Number).Distinct().Count());
        }
        foreach (var nested in result.Sheets)
        {
            var sheet = job.Sheets.Single(s => s.Id == nested.Sheet);
            Assert.NotEmpty(nested.Placements);
            var u = sheet.Usable;
            Flat free = GeometryFactory.Default.ToGeometry(new Envelope(u.MinX, u.MaxX, u.MinY, u.MaxY));
            if (sheet.Outline is { } outline) free = free.Intersection(Area([outline]).Buffer(-sheet.OutlineBorderMm, 32));
            foreach (var zone in sheet.Blocked) free = free.Difference(Area([zone]));
            var slack = free.Buffer(Rounding);
            var laid = nested.Placements.Select(p => (p.Id, Shape: Laid(job, p))).ToList();
            for (var i = 0; i < laid.Count; i++)
            {
                Assert.True(slack.Contains(laid[i].Shape), $"{laid[i].Id} leaves what may be used of {nested.Sheet}: {laid[i].Shape.Difference(slack).Area} mm²");
                for (var k = 0; k < i; k++)
                {
                    if (!laid[i].Shape.EnvelopeInternal.Intersects(Grown(laid[k].Shape.EnvelopeInternal, job.SpacingMm))) continue;
                    Assert.True(laid[i].Shape.Distance(laid[k].Shape) >= job.SpacingMm - Rounding, $"{laid[i].Id} is {laid[i].Shape.Distance(laid[k].Shape)} mm from {laid[k].Id}");
                    Assert.True(laid[i].Shape.Intersection(laid[k].Shape).Area < 1e-3, $"{laid[i].Id} lies on {laid[k].Id}");
                }
            }
        }
        foreach (var piece in job.Pieces)
        {
            var placed = result.Sheets.SelectMany(s => s.Placements).Where(p => p.Id == piece.Id).ToList();
            var left = result.Left.Where(l => l.Id == piece.Id).ToList();
            Assert.Equal(placed.Count, placed.Select(p => p.Copy).Distinct().Count());
            Assert.Equal(piece.Quantity, placed.Count + left.Sum(l => l.Copies));
            Assert.All(left, l => Assert.Equal(l.Why.Code == UnfitCode.TooLarge, l.Why.Oversize is not null));
            Assert.All(placed.Where(p => !job.Pins.Any(q => q.Piece == p.Id && q.Copy == p.Copy)), p =>
            {
                Assert.Contains(p.Degrees, piece.Turns.IsFree ? [p.Degrees] : piece.Turns.Degrees);
                Assert.True(piece.MayMirror || !p.Mirrored);
                // The figures that are told apart from the place say the same as it.
                var told = (p.Mirrored ? Core.Geometry.Affine.Scale(-1, 1) : Core.Geometry.Affine.Identity).Then(Core.Geometry.Affine.Turn(p.Degrees));
                Assert.Equal((told.A, told.B, told.C, told.D), (p.Place.A, p.Place.B, p.Place.C, p.Place.D));
            });
        }
    }

    private static Flat Laid(NestJob job, NestPlacement p)
    {
        var piece = job.Pieces.Single(q => q.Id == p.Id);
        return Area([.. piece.Openings.Prepend(piece.Outline).Select(o => o.Map(p.Place))]);
    }

    private static Flat Area(List<Path> paths)
    {
        var rings = paths.Select(p =>
        {
            var flat = Core.Geometry.Flattening.Flatten(p, 0.0005);
            return GeometryFactory.Default.CreateLinearRing([.. flat.Append(flat[0]).Select(q => new Coordinate(q.X, q.Y))]);
        }).ToList();
        return GeometryFixer.Fix(GeometryFactory.Default.CreatePolygon(rings[0], [.. rings[1..]]));
    }

    private static Envelope Grown(Envelope e, double by)
    {
        var grown = e.Copy();
        grown.ExpandBy(by + 1);
        return grown;
    }
}
