using System.Collections.Immutable;
using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench;

/// <summary>What every edit of a design of 200 pieces and 20,000 segments asks for.</summary>
[MemoryDiagnoser]
public class PiecesBench
{
    private static readonly Look Plain = new("#000000", null, false, true, null);

    private readonly Design _design = new(
        [.. Enumerable.Range(0, 200).Select(Rosette)], [], [], 201);

    private readonly Design _one = new([Rosette(0)], [], [], 2);
    private readonly ImmutableArray<Path> _area = [EllipticArc.Ellipse(new(0, 0), 40, 30), EllipticArc.Ellipse(new(5, 0), 12, 12)];

    private static Piece Rosette(int i)
    {
        static Path Ring(double radius, int n)
        {
            Point At(double k) => new(10 + radius * Math.Cos(2 * Math.PI * k / n) * (1 + 0.1 * Math.Cos(10 * Math.PI * k / n)), 10 + radius * Math.Sin(2 * Math.PI * k / n));
            return new Path(At(0), [.. Enumerable.Range(1, n).Select(k => Segment.Cubic(At(k - 0.66), At(k - 0.33), At(k % n)))], closed: true);
        }
        return Piece.FromLines($"p{i + 1}", $"Rosette {i}", "chalk-200", Affine.Move(i % 15 * 20, i / 15 * 20),
            [new Line("", Ring(9, 60), Operation.Cut, Plain, null, null), new Line("", Ring(4, 40), Operation.Cut, Plain, null, null)]);
    }

    /// <summary>Checks of shapes that were looked at before, as after an edit of one piece.</summary>
    [Benchmark]
    public int ChecksAgain() => Checks.Findings(_design).Length;

    /// <summary>Checks of a piece never seen before.</summary>
    [Benchmark]
    public int ChecksOfAFreshPiece() => Checks.Findings(_one with { Pieces = [Rosette(0)] }).Length;

    [Benchmark]
    public int MotifsOfASheet() => Motifs.Find(_design).Length;

    [Params(FillPattern.Parallel, FillPattern.Inward)]
    public FillPattern Pattern { get; set; }

    /// <summary>An area of 80 by 60 mm with a bowl, strokes half a millimetre apart.</summary>
    [Benchmark]
    public int Fill() => AreaFills.Strokes(_area, new AreaFill(Pattern, 0.5), 0.5).Length;
}
