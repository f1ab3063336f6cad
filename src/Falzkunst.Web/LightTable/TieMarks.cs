using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.LightTable;

/// <summary>Marks at holding bridges: a short bar across the cut at both ends of each tie, since the gap itself is too fine to be seen.</summary>
internal static class TieMarks
{
    /// <summary>Half the length of a bar, mm.</summary>
    private const double HalfMm = 0.9;

    private const double Flatness = 0.05;

    /// <summary>The bars of all held cuts of a piece, by line id.</summary>
    public static Dictionary<string, List<Path>> Of(Piece piece) => piece.Drawn
        .Where(l => l.Settings?.Hold is not null)
        .Select(l => (l.Id, Runs: HeldCuts.Runs(l)))
        .Where(l => l.Runs.Length > 1 || l.Runs.Any(r => !r.IsClosed))
        .GroupBy(l => l.Id)
        .ToDictionary(g => g.Key, g => g.SelectMany(l => l.Runs).SelectMany(Bars).ToList());

    private static IEnumerable<Path> Bars(Path run)
    {
        var points = Flattening.Trace(run, Flatness).Points;
        yield return Across(points[0], points[1] - points[0]);
        yield return Across(points[^1], points[^1] - points[^2]);
    }

    private static Path Across(Point at, Point along)
    {
        var side = new Point(-along.Y, along.X) * (HalfMm / Math.Max(along.Length, 1e-9));
        return Path.Polyline([at - side, at + side], closed: false);
    }
}
