using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Lines that lie on no piece, and the pieces that could take them.</summary>
public static class LooseLines
{
    /// <summary>A piece takes a line of which it holds more than this share, as in a file that comes in.</summary>
    private const double LeastShare = 0.5;

    /// <summary>Samples of all loose lines together when the piece for them all is looked for.</summary>
    private const int MostLooked = 4000;

    /// <summary>The loose lines that are made and so want a piece; aids want none.</summary>
    public static IEnumerable<Line> Wanting(Design design) => design.Loose.Where(l => l.Operation != Operation.Aid);

    /// <summary>The piece that most of the length of the loose lines lies on or nearest to; null without pieces or such lines.</summary>
    public static Piece? LikelyPiece(Design design)
    {
        var points = Wanting(design).SelectMany(l => Sampling.Midpoints(l.Path, 5, 40)).Take(MostLooked).ToList();
        if (points.Count == 0) return null;
        return design.Pieces.MaxBy(p =>
        {
            var (back, box) = (p.Place.Inverse(), p.Size);
            return points.Sum(at => back.Apply(at) is var own && p.Paper.HoldsInOutline(own) ? 1 : -1e-6 * Away(box, own));
        });
    }

    /// <summary>
    /// Gives loose lines to the topmost piece that holds most of each. A line that nobody has spoken of and that runs from edge to
    /// edge there becomes a fold, as in a file that comes in with its piece.
    /// </summary>
    /// <param name="design">The design.</param>
    /// <param name="may">Which of the loose lines; all that want a piece where null.</param>
    /// <param name="pieces">Ids of the pieces that may take them; all where null.</param>
    public static Design GiveToPiecesUnder(Design design, Func<Line, bool>? may = null, IReadOnlySet<string>? pieces = null)
    {
        var hosts = design.Pieces.Where(p => !p.Locked && (pieces?.Contains(p.Id) ?? true)).Reverse().ToList();
        var given = new Dictionary<string, List<Line>>();
        var taken = new HashSet<string>();
        foreach (var line in Wanting(design).Where(l => may?.Invoke(l) ?? true))
        {
            var samples = Sampling.Midpoints(line.Path, LinesOnPieces.SampleMm, LinesOnPieces.MostSamples);
            var host = hosts.Find(p => p.Place.Inverse() is var back
                && samples.Count(s => p.Paper.Holds(back.Apply(s), Assembler.SnapMm)) > LeastShare * samples.Count);
            if (host is null) continue;
            taken.Add(line.Id);
            if (!given.TryGetValue(host.Id, out var list)) given[host.Id] = list = [];
            list.Add(OnPiece(line with { Path = line.Path.Map(host.Place.Inverse()) }, host));
        }
        if (taken.Count == 0) return design;
        return design with
        {
            Loose = [.. design.Loose.Where(l => !taken.Contains(l.Id))],
            Pieces = [.. design.Pieces.Select(p => given.TryGetValue(p.Id, out var lines) ? p.Plus(lines) : p)],
        };
    }

    private static Line OnPiece(Line line, Piece host)
    {
        if (line.Operation != Operation.Cut || line.Path.IsClosed || DefaultOperations.Suggested(line.Look.Layer) is not null) return line;
        var edges = new RegionIndex([.. host.Paper.Rings.Select(r => r.Flat.ToArray())]);
        return FoldsByPlace.IsFold(line.Path, edges.IsNearEdge) ? (Line)line.With(Operation.Score) : line;
    }

    private static double Away(Box box, Point p) =>
        new Point(Math.Max(0, Math.Max(box.MinX - p.X, p.X - box.MaxX)), Math.Max(0, Math.Max(box.MinY - p.Y, p.Y - box.MaxY))).Length;
}
