using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>How near print comes to the edge of its piece.</summary>
public static class PrintReach
{
    /// <summary>White edges are measured in these steps, mm; wider ones need not be known, since no printer's margin is wider.</summary>
    private static readonly double[] Depths = [0.5, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 13];

    private static readonly ConditionalWeakTable<Piece, StrongBox<double>> Known = [];

    /// <summary>Width of the white edge all round a piece, at least, mm: 0 where print touches the cut; infinite where nothing is printed.</summary>
    public static double WhiteEdge(Piece piece) => Known.GetValue(piece, p => new StrongBox<double>(Math.Min(Measure(p, back: false), Measure(p, back: true)))).Value;

    private static double Measure(Piece piece, bool back)
    {
        var layers = PrintedArt.On(piece, back);
        if (layers.IsEmpty) return double.PositiveInfinity;
        var probe = new PrintProbe(layers);
        if (IsMet(piece.Paper, probe, PaperEdge.DepthMm)) return 0;
        for (var i = 0; i < Depths.Length; i++)
        {
            if (IsMet(piece.Paper, probe, Depths[i])) return i == 0 ? 0 : Depths[i - 1];
        }
        return Depths[^1];
    }

    private static bool IsMet(Paper paper, PrintProbe probe, double depth) => PaperEdge.Stretches(paper, probe, depth).Any(ring => ring.Any(s => s.Layer >= 0));
}
