using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Nesting.Papers;

/// <summary>
/// Copies moved by hand on the sheets of one stock: whether they may lie somewhere, and the nearest place where they may.
/// Made once for a layout and asked many times; asked from several threads, one after the other.
/// </summary>
public sealed class HandPlacing
{
    /// <summary>Places are looked for round the hand in rings, each larger than the one before, mm.</summary>
    private const double FirstRing = 0.05;
    private const double RingGrowth = 1.3;
    private const int Directions = 36;

    /// <summary>Steps back towards the hand, each half of the one before.</summary>
    private const int Halvings = 12;

    private readonly Lock _one = new();
    private readonly NestJob _job;
    private readonly NestJob _free;
    private readonly Lazy<Arrangement> _search;
    private readonly Dictionary<string, NestCheck.FlatShape> _shapes;

    /// <summary>Makes a layout ready for the hand.</summary>
    /// <param name="layout">Where everything lies.</param>
    /// <param name="design">Its pieces.</param>
    /// <param name="spacingMm">Distance kept between pieces.</param>
    /// <exception cref="NestRefused">The layout cannot be read as one.</exception>
    public HandPlacing(StockLayout layout, Design design, double spacingMm)
    {
        _job = PaperJobs.JobOf(layout, design, spacingMm);
        NestRules.Demand(_job);
        // What is pinned may be moved by hand all the same, but not turned out of the grain.
        _free = _job with { Pins = [] };
        // To tell what is wrong, nothing of it is needed.
        _search = new(() => new Arrangement(new NestTask(_job)), isThreadSafe: false);
        _shapes = _job.Pieces.ToDictionary(p => p.Id, NestCheck.FlatShape.Flatten);
    }

    /// <summary>What is wrong with some copies at a place, with which copy's piece, and with which other; null where they may lie there.</summary>
    /// <param name="copies">The copies, as they would lie.</param>
    /// <param name="sheet">Id of the sheet they would lie on.</param>
    public (NestFault Fault, string Piece, string? Other)? Fault(IReadOnlyList<NestPlacement> copies, string sheet)
    {
        lock (_one)
        {
            if (FaultOf(copies, sheet) is not { } fault) return null;
            var placements = With(copies, sheet).Placements;
            return (fault, placements[fault.Placement].Id, fault.Other is { } other ? placements[other].Id : null);
        }
    }

    /// <summary>
    /// The shortest move after which some copies may lie on a sheet, found on rings about where they are and then taken back
    /// as far as it goes; a move of nothing where they may lie as they are, null where there is none within reach.
    /// </summary>
    /// <param name="copies">The copies, as they would lie.</param>
    /// <param name="sheet">Id of the sheet they would lie on.</param>
    /// <param name="reachMm">No move is longer.</param>
    public Point? NearestMove(IReadOnlyList<NestPlacement> copies, string sheet, double reachMm)
    {
        lock (_one)
        {
            if (FaultOf(copies, sheet) is null) return new Point(0, 0);
            var arrangement = _search.Value;
            var board = Array.FindIndex(arrangement.Task.Boards, b => b.Sheet.Id == sheet);
            if (board < 0) return null;
            var moved = copies.Select(c => Lift(arrangement, c)).ToList();
            try
            {
                for (double radius = FirstRing, former = 0; former < reachMm; (former, radius) = (radius, radius * RingGrowth))
                {
                    // Of all ways out that this ring crosses, the shortest that stands up to the exact check.
                    var ways = new List<Point>();
                    for (var i = 0; i < Directions; i++)
                    {
                        var (sin, cos) = Math.SinCos(2 * Math.PI * i / Directions);
                        if (Back(cos, sin, former, Math.Min(radius, reachMm)) is { } far) ways.Add(new Point(cos, sin) * far);
                    }
                    foreach (var by in ways.OrderBy(w => w.Length))
                    {
                        if (FaultOf([.. copies.Select(c => c with { Place = c.Place.Then(Affine.Move(by)) })], sheet) is null) return by;
                    }
                }
                return null;
            }
            finally
            {
                foreach (var m in moved) arrangement.Put(m.Copy, m.Home);
            }

            // How far the copies must go in a direction, between two distances of which they may lie at the far one.
            double? Back(double cos, double sin, double near, double far)
            {
                if (!IsFree(arrangement, moved, board, cos * far, sin * far)) return null;
                for (var k = 0; k < Halvings; k++)
                {
                    var middle = (near + far) / 2;
                    if (IsFree(arrangement, moved, board, cos * middle, sin * middle)) far = middle;
                    else near = middle;
                }
                return far;
            }
        }
    }

    private NestFault? FaultOf(IReadOnlyList<NestPlacement> copies, string sheet)
    {
        var with = With(copies, sheet);
        var first = with.Placements.Length - copies.Count;
        return NestCheck.Faults(_free, new NestResult([with], []), _shapes, i => i >= first).FirstOrDefault();
    }

    /// <summary>The sheet with some copies as they would lie, which come last.</summary>
    private NestedSheet With(IReadOnlyList<NestPlacement> copies, string sheet)
    {
        var moved = copies.Select(c => (c.Id, c.Copy)).ToHashSet();
        var others = _job.Pins.Where(p => p.Sheet == sheet && !moved.Contains((p.Piece, p.Copy))).Select(p => PaperJobs.Placed(p.Piece, p.Copy, p.Place));
        return new NestedSheet(sheet, 1, [.. others, .. copies]);
    }

    private static InHand Lift(Arrangement arrangement, NestPlacement placement)
    {
        var copy = Array.FindIndex(arrangement.Task.Copies, c => c.Kind.Piece.Id == placement.Id && c.Number == placement.Copy);
        var home = arrangement[copy];
        arrangement.Put(copy, Pose.Nowhere);
        var kind = arrangement.Task.Copies[copy].Kind;
        var middle = placement.Place.Apply(kind.Middle);
        return new(copy, home, kind[kind.OrientationOf(placement.Place)], middle.X, middle.Y);
    }

    private static bool IsFree(Arrangement arrangement, List<InHand> moved, int board, double dx, double dy) => moved.TrueForAll(m =>
    {
        var (x, y) = (m.X + dx, m.Y + dy);
        return arrangement.Range(m.Orientation, board).Contains(new Point(x, y)) && arrangement.IsFree(m.Copy, m.Orientation, board, x, y);
    });

    /// <summary>A copy taken off its place.</summary>
    private sealed record InHand(int Copy, Pose Home, Orientation Orientation, double X, double Y);
}
