using System.Runtime.InteropServices;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>Where all copies of a task lie at the moment, overlapping or not. Belongs to one thread.</summary>
internal sealed class Arrangement
{
    private readonly Stance?[] _stance;
    private readonly Pose[] _pose;
    private readonly Box[] _spaced;
    private readonly List<int>[] _on;

    public Arrangement(NestTask task)
    {
        Task = task;
        (_stance, _pose, _spaced) = (new Stance?[task.Copies.Length], new Pose[task.Copies.Length], new Box[task.Copies.Length]);
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

    public Stance Stance(int copy) => _stance[copy]!;

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
        var stance = Task.Copies[copy].Kind[pose.Stance];
        _stance[copy] = stance;
        _spaced[copy] = stance.Spaced.Box.Move(pose.X, pose.Y);
    }

    /// <summary>Where the middle of a stance may lie on a board; empty where it does not fit.</summary>
    public Box Range(Stance stance, int board)
    {
        var usable = Task.Boards[board].Usable;
        return stance.Within(new Box(usable.MinX, usable.MinY, usable.MaxX, Math.Min(usable.MaxY, Depth[board])));
    }

    /// <summary>Nothing is touched by a stance there.</summary>
    public bool IsFree(int copy, Stance stance, int board, double x, double y)
    {
        foreach (var obstacle in Task.Boards[board].Obstacles)
        {
            Looks++;
            if (MayMeet(stance.Own.Box.Move(x, y), obstacle.Box) && Silhouette.Meets(stance.Own, (float)x, (float)y, obstacle)) return false;
        }
        var box = stance.Spaced.Box.Move(x, y);
        foreach (var other in _on[board])
        {
            if (other == copy || !MayMeet(box, _spaced[other])) continue;
            Looks++;
            if (Silhouette.Meets(stance.Spaced, (float)(x - _pose[other].X), (float)(y - _pose[other].Y), _stance[other]!.Spaced)) return false;
        }
        return true;
    }

    /// <summary>By how much a stance there overlaps another copy.</summary>
    public float Overlap(Stance stance, in Box box, double x, double y, int other)
    {
        if (!MayMeet(box, _spaced[other])) return 0;
        Looks++;
        return Silhouette.Overlap(stance.Spaced, (float)(x - _pose[other].X), (float)(y - _pose[other].Y), _stance[other]!.Spaced);
    }

    /// <summary>By how much a stance there reaches into what must not be touched.</summary>
    public float Trespass(Stance stance, int board, double x, double y)
    {
        var obstacles = Task.Boards[board].Obstacles;
        if (obstacles.Length == 0) return 0;
        float sum = 0;
        var own = stance.Own.Box.Move(x, y);
        foreach (var obstacle in obstacles)
        {
            if (!MayMeet(own, obstacle.Box)) continue;
            Looks++;
            sum += Silhouette.Overlap(stance.Own, (float)x, (float)y, obstacle);
        }
        return sum;
    }

    /// <summary>The lowest edge of a copy on its board, mm.</summary>
    public double Bottom(int copy) => _pose[copy].Y + _stance[copy]!.Bounds.MaxY;

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
