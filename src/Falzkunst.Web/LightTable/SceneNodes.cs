using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.LightTable;

/// <summary>Nodes and handles of a line, in its piece's coordinates.</summary>
/// <param name="Nodes">The nodes by number.</param>
/// <param name="Handles">The handles of its curves.</param>
public sealed record SceneNodes(IReadOnlyList<Point> Nodes, IReadOnlyList<SceneHandle> Handles)
{
    public static readonly SceneNodes None = new([], []);

    /// <summary>Those of the one picked line.</summary>
    public static SceneNodes On(Design design, Picked picked)
    {
        var (piece, line) = picked.OnlyLine();
        var path = PathNodes.WrittenOut(design.Require(piece).Require([line])[0].Path);
        return new(
            [.. Enumerable.Range(0, PathNodes.Count(path)).Select(n => PathNodes.At(path, n))],
            [.. path.Segments.Select((s, k) => (s, k)).Where(t => t.s.IsCubic).SelectMany(t => new[]
            {
                new SceneHandle(t.k, true, t.s.Handle1, PathNodes.At(path, t.k)), new SceneHandle(t.k, false, t.s.Handle2, t.s.End),
            })]);
    }
}

/// <summary>One handle of a curve.</summary>
/// <param name="Segment">Number of the curve's segment.</param>
/// <param name="First">It is the one at the segment's beginning.</param>
/// <param name="At">Where it is.</param>
/// <param name="Node">Where the node is that it belongs to.</param>
public sealed record SceneHandle(int Segment, bool First, Point At, Point Node);
