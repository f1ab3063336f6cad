using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>A straight stretch of the edge of a piece's paper, with what is printed just inside it.</summary>
/// <param name="From">Where it begins; paper lies on the side towards which x turns to y.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Layer">Number of the layer that is seen along it; -1 where none is.</param>
public readonly record struct EdgeStretch(Point From, Point To, int Layer)
{
    /// <summary>Unit vector into the paper.</summary>
    public Point Inward
    {
        get
        {
            var along = To - From;
            return along.Length < 1e-12 ? default : new Point(-along.Y, along.X) * (1 / along.Length);
        }
    }
}

/// <summary>The edge of a piece's paper, outline and openings, ring by ring.</summary>
public static class PaperEdge
{
    /// <summary>What is printed is looked at so far inside the cut, mm: a stroke whose edge lies on the cut is met, and a border 0.2 mm inside it is not.</summary>
    public const double DepthMm = 0.1;

    /// <summary>And at places no farther apart, mm.</summary>
    private const double StepMm = 0.4;

    /// <summary>A stretch is never shorter where its layer is looked for more finely, mm.</summary>
    private const int Halvings = 6;

    /// <summary>The corners of each ring, paper on the side towards which x turns to y.</summary>
    public static IEnumerable<Point[]> Rings(Paper paper)
    {
        yield return Turned(paper.Outline.Flat.ToArray(), 1);
        foreach (var opening in paper.Openings) yield return Turned(opening.Flat.ToArray(), -1);
    }

    /// <summary>Each ring as stretches, in order round it.</summary>
    /// <param name="paper">The paper.</param>
    /// <param name="probe">Says what is seen.</param>
    /// <param name="depthMm">How far inside the edge.</param>
    public static IEnumerable<ImmutableArray<EdgeStretch>> Stretches(Paper paper, PrintProbe probe, double depthMm = DepthMm) =>
        Rings(paper).Select(ring => Stretches(ring, probe, depthMm));

    private static ImmutableArray<EdgeStretch> Stretches(Point[] ring, PrintProbe probe, double depthMm)
    {
        var found = ImmutableArray.CreateBuilder<EdgeStretch>(ring.Length);
        for (var i = 0; i < ring.Length; i++)
        {
            var (a, b) = (ring[i], ring[(i + 1) % ring.Length]);
            var length = a.DistanceTo(b);
            if (length < 1e-9) continue;
            var inward = new EdgeStretch(a, b, -1).Inward * depthMm;
            int Seen(double t) => probe.TopmostAt(Point.Lerp(a, b, t) + inward);
            var count = Math.Max(1, (int)Math.Ceiling(length / StepMm));
            var (from, layer) = (0.0, Seen(0.5 / count));
            for (var k = 1; k < count; k++)
            {
                var next = Seen((k + 0.5) / count);
                if (next == layer) continue;
                // Where one layer ends and the next begins, to a hundredth of a millimetre.
                var (near, far) = ((k - 0.5) / count, (k + 0.5) / count);
                for (var h = 0; h < Halvings; h++)
                {
                    var middle = (near + far) / 2;
                    if (Seen(middle) == layer) near = middle;
                    else far = middle;
                }
                found.Add(new EdgeStretch(Point.Lerp(a, b, from), Point.Lerp(a, b, far), layer));
                (from, layer) = (far, next);
            }
            found.Add(new EdgeStretch(Point.Lerp(a, b, from), b, layer));
        }
        return found.ToImmutable();
    }

    private static Point[] Turned(Point[] ring, int sign)
    {
        if (Math.Sign(Polygons.SignedArea(ring)) == -sign) Array.Reverse(ring);
        return ring;
    }
}
