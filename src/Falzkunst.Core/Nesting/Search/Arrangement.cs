using System.Runtime.InteropServices;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>Where all copies of a task lie at the moment, overlapping or not. Belongs to one thread.</summary>
internal sealed class Arrangement
{
    private readonly Orientation?[] _orientation;
    private readonly Pose[] _pose;
    private readonly Box[] _spaced;
    private readonly List<int>[] _on;

    public Arrangement(NestTask task)
    {
        Task = task;
        (_orientation, _pose, _spaced) = (new Orientation?[task.Copies.Length], new Pose[task.Copies.Length], new Box[task.Copies.Length]);
        _on = [.. task.Boards.Select(_ => new List<int>())];
        Depth = [.. task.Boards.Select(b => b.Usable.MaxY)];
        Array.Fill(_pose, Pose.Nowhere);
        for (var i = 0; i < task.Pins.Length; i++) if (task.Pins[i] is { } pin) Put(i, pin);
    }

    public NestTask Task { get; }

    /// <summary>How far down each board may be used, mm.</summary>
    public double[] Depth { get; }

    /// <summary>Pairs of shapes looked at: the measure of work done.</summary>
    public long Looks { get; set; }

    public Pose this[int copy] => _pose[copy];

    public Orientation Orientation(int copy) => _orientation[copy]!;

    /// <summary>The copies on a board; not to be kept over a <see cref="Put"/>.</summary>
    public ReadOnlySpan<int> On(int board) => CollectionsMarshal.AsSpan(_on[board]);

    public bool IsFixed(int copy) => Task.Pins[copy] is not null;

    public Pose[] Snapshot() => [.. _pose];

    public void Restore(Pose[] poses)
    {
        for (var i = 0; i < poses.Length; i++) if (_pose[i] != poses[i]) Put(i, poses[i]);
    }

    public void Put(int copy, Pose pose)
    {
        var old = _pose[copy].Board;
        if (old != pose.Board)
        {
            if (old >= 0) _on[old].Remove(copy);
            if (pose.Board >= 0) _on[pose.Board].Add(copy);
        }
        _pose[copy] = pose;
        if (pose.Board < 0) return;
        var orientation = Task.Copies[copy].Kind[pose.Orientation];
        _orientation[copy] = orientation;
        _spaced[copy] = orientation.Spaced.Box.Move(pose.X, pose.Y);
    }

    /// <summary>Where the middle of a orientation may lie on a board; empty where it does not fit.</summary>
    public Box Range(Orientation orientation, int board)
    {
        var usable = Task.Boards[board].Usable;
        return orientation.Within(new Box(usable.MinX, usable.MinY, usable.MaxX, Math.Min(usable.MaxY, Depth[board])));
    }

    /// <summary>Nothing is touched by a orientation there.</summary>
    public bool IsFree(int copy, Orientation orientation, int board, double x, double y)
    {
        foreach (var obstacle in Task.Boards[board].Obstacles)
        {
            Looks++;
            if (MayMeet(orientation.Own.Box.Move(x, y), obstacle.Box) && CollisionShape.Meets(orientation.Own, (float)x, (float)y, obstacle)) return false;
        }
        var box = orientation.Spaced.Box.Move(x, y);
        foreach (var other in _on[board])
        {
            if (other == copy || !MayMeet(box, _spaced[other])) continue;
            Looks++;
            if (CollisionShape.Meets(orientation.Spaced, (float)(x - _pose[other].X), (float)(y - _pose[other].Y), _orientation[other]!.Spaced)) return false;
        }
        return true;
    }

    /// <summary>By how much a orientation there overlaps another copy.</summary>
    public float Overlap(Orientation orientation, in Box box, double x, double y, int other)
    {
        if (!MayMeet(box, _spaced[other])) return 0;
        Looks++;
        return CollisionShape.Overlap(orientation.Spaced, (float)(x - _pose[other].X), (float)(y - _pose[other].Y), _orientation[other]!.Spaced);
    }

    /// <summary>By how much a orientation there reaches into what must not be touched.</summary>
    public float Trespass(Orientation orientation, int board, double x, double y)
    {
        var obstacles = Task.Boards[board].Obstacles;
        if (obstacles.Length == 0) return 0;
        float sum = 0;
        var own = orientation.Own.Box.Move(x, y);
        foreach (var obstacle in obstacles)
        {
            if (!MayMeet(own, obstacle.Box)) continue;
            Looks++;
            sum += CollisionShape.Overlap(orientation.Own, (float)x, (float)y, obstacle);
        }
        return sum;
    }

    /// <summary>The lowest edge of a copy on its board, mm.</summary>
    public double Bottom(int copy) => _pose[copy].Y + _orientation[copy]!.Bounds.MaxY;

    /// <summary>How far down a board is used, mm.</summary>
    public double Used(int board) => _on[board].Count == 0 ? Task.Boards[board].Usable.MinY : _on[board].Max(Bottom);

    /// <summary>Area of the copies on a board, mm².</summary>
    public double Area(int board)
    {
        double area = 0;
        foreach (var copy in _on[board]) area += Task.Copies[copy].Kind.Area;
        return area;
    }

    /// <summary>The copies on a board at this moment.</summary>
    public List<int> Listed(int board) => [.. _on[board]];

    /// <summary>Boxes with area in common.</summary>
    public static bool MayMeet(in Box a, in Box b) => a.MinX < b.MaxX && b.MinX < a.MaxX && a.MinY < b.MaxY && b.MinY < a.MaxY;
}
